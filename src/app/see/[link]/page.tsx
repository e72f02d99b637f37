import { LinkBoard } from '@/ui/sharing/link-board.tsx';

export default async function SeePage({ params }: { params: Promise<{ link: string }> }) {
  const { link } = await params;
  return (
    <>
      <noscript>
        <meta httpEquiv="refresh" content={`0;url=/shown/${encodeURIComponent(link)}`} />
        <a href={`/shown/${encodeURIComponent(link)}`}>→</a>
      </noscript>
      <LinkBoard link={link} />
    </>
  );
}
