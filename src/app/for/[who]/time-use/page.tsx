import { TimeUseScreen } from '@/ui/time-use/time-use-screen.tsx';

export default async function TimeUsePage({ params }: { params: Promise<{ who: string }> }) {
  return <TimeUseScreen who={(await params).who} />;
}
