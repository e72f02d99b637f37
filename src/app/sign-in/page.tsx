import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { isEmpty, sampleFaces } from '@/server/operations/people/found-people.ts';
import { personOf } from '@/server/operations/people/session.ts';
import { SignIn } from '@/ui/people/sign-in.tsx';
import { ownPath } from '../own-path.ts';

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const incoming = await headers();
  if (await personOf(incoming)) redirect('/');
  if (isEmpty()) redirect('/welcome');
  const { to } = await searchParams;
  const goal = ownPath(typeof to === 'string' ? to : null);
  return <SignIn goal={goal} faces={sampleFaces()} host={incoming.get('host') ?? ''} />;
}
