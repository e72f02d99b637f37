import { ownPath } from '@/app/own-path.ts';
import { ComeIn } from '@/ui/people/come-in.tsx';

export default async function ComeInPage(props: {
  params: Promise<{ token: string }>;
  searchParams: Promise<{ to?: string | string[] }>;
}) {
  const { to } = await props.searchParams;
  return <ComeIn token={(await props.params).token} to={ownPath(typeof to === 'string' ? to : null)} />;
}
