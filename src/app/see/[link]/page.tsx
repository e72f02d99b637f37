import { LinkBoard } from '@/ui/sharing/link-board.tsx';

export default async function SeePage({ params }: { params: Promise<{ link: string }> }) {
  return <LinkBoard link={(await params).link} />;
}
