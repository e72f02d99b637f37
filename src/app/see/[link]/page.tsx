import { linkLanguage } from '@/server/operations/sharing/links.ts';
import { Spoken } from '@/ui/common/spoken.tsx';
import { LinkBoard } from '@/ui/sharing/links/link-board.tsx';
import { languageHere } from '../../language-here.ts';

/** A link's board, in the language that was set for it, or else in its reader's. */
export default async function SeePage({ params }: { params: Promise<{ link: string }> }) {
  const { link } = await params;
  const set = linkLanguage(link);
  const language = set ?? (await languageHere());
  const board = <LinkBoard link={link} language={language} />;
  return (
    <>
      <noscript>
        <meta httpEquiv="refresh" content={`0;url=/shown/${encodeURIComponent(link)}`} />
        <a href={`/shown/${encodeURIComponent(link)}`}>→</a>
      </noscript>
      {set ? (
        <Spoken language={set}>
          <div lang={set}>{board}</div>
        </Spoken>
      ) : (
        board
      )}
    </>
  );
}
