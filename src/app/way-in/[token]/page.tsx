import { ChoosePassword } from '@/ui/guest/choose-password.tsx';

export default async function WayInPage({ params }: { params: Promise<{ token: string }> }) {
  return <ChoosePassword token={(await params).token} />;
}
