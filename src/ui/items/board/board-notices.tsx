'use client';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { RequestFromSomebody } from '../../common/request-from-somebody.tsx';
import { sightlinesDoor } from './sightlines-door.ts';

/** What is to be said over a board: through whose eyes it is seen, what was refused, and why nothing is there yet or any more. */
export function BoardNotices(props: {
  head: BoardHead | undefined;
  as: string | undefined;
  /** The owner's first name. */
  owner: string;
  notice: string | null;
  /** What was being typed can't be saved here any more. */
  actingGone: boolean;
  state: 'gone' | 'failed' | 'pending' | null;
  onDismiss: () => void;
  onAgain: () => void;
}) {
  const { head, as, owner, notice, actingGone, state, onDismiss, onAgain } = props;
  const t = useTranslations();
  const { frame, principal } = useFrame();
  return (
    <>
      {head?.as && (
        <div className={`${boardsCss.notice} ${boardsCss['seen-as']}`} role="status">
          <span>
            {head.as === 'everyone'
              ? t('board.seenAsEveryone', { owner: head.owner.name })
              : t('board.seenAs', { owner: head.owner.name, who: head.as })}
          </span>
          <Link className={boardsCss.push} href={sightlinesDoor(head, frame.me.handle, principal?.handle ?? null, as)}>
            {t('board.stopSeeing')}
          </Link>
        </div>
      )}
      {notice && (
        <div className={boardsCss.notice} role="alert">
          <span>
            {notice}
            {actingGone && ` ${t('board.actingGone', { name: owner })}`}
          </span>
          <Button className={boardsCss.push} variant="text" onClick={onDismiss}>
            {t('board.dismiss')}
          </Button>
        </div>
      )}
      {state === 'gone' && (
        <div className={pageCss.state}>
          <h2>{t('board.noAccess')}</h2>
          <p className="soft">{t('board.noAccessMore')}</p>
          <RequestFromSomebody />
        </div>
      )}
      {state === 'failed' && (
        <div className={pageCss.state} role="alert">
          <p>{t('board.failed')}</p>
          <Button variant="outlined" onClick={onAgain}>
            {t('board.again')}
          </Button>
        </div>
      )}
      {state === 'pending' && (
        <p className={`${pageCss.state} soft`} role="status">
          {t('board.loading', { name: owner })}
        </p>
      )}
    </>
  );
}
