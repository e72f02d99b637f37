import { Everything } from '@/ui/sharing/everything.tsx';

export default async function EverythingPage({ params }: { params: Promise<{ who: string }> }) {
  const { who } = await params;
  return <Everything key={who} who={who} />;
}
