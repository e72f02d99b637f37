import { LinkBoard } from '@/ui/guest/link-board.tsx';

export default async function SeePage({ params }: { params: Promise<{ link: string }> }) {
  return <LinkBoard link={(await params).link} />;
}
