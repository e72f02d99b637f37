import { DeskScreen } from '@/ui/desk/desk-screen.tsx';

export default async function DeskPage({ params }: { params: Promise<{ who: string }> }) {
  const { who } = await params;
  return <DeskScreen key={who} who={who} />;
}
