import { ChoosePassword } from '@/ui/people/choose-password.tsx';

export default async function WayInPage({ params }: { params: Promise<{ token: string }> }) {
  return <ChoosePassword token={(await params).token} />;
}
