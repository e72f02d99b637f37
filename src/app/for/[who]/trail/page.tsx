import { TrailScreen } from '@/ui/trail/trail-screen.tsx';

export default async function TrailPage({ params }: { params: Promise<{ who: string }> }) {
  return <TrailScreen who={(await params).who} />;
}
