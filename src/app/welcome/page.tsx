import { redirect } from 'next/navigation';
import { isEmpty } from '@/server/operations/people/found-people.ts';
import { Welcome } from '@/ui/people/welcome.tsx';

export const dynamic = 'force-dynamic';

export default function WelcomePage() {
  if (!isEmpty()) redirect('/');
  return <Welcome />;
}
