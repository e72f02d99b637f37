import { DayScreen } from '@/ui/days/day-screen.tsx';

export default async function DayPage({ params }: { params: Promise<{ who: string }> }) {
  return <DayScreen who={(await params).who} />;
}
