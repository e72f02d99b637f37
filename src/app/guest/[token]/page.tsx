import { ComeIn } from '@/ui/people/come-in.tsx';

export default async function ComeInPage({ params }: { params: Promise<{ token: string }> }) {
  return <ComeIn token={(await params).token} />;
}
