'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import boardsCss from '../../common/boards.module.css';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import pageCss from '../../common/page.module.css';
import { RequestFromSomebody } from '../../common/requests/request-from-somebody.tsx';
import { useBoard } from './board-model.ts';
import { sightlinesDoor } from './sightlines-door.ts';

/** What is to be said over a board: through whose eyes it is seen, what was refused, and why nothing is there yet or any more. */
export function BoardNotices() {
  const { head, days, owner, formGone, loaded, state: board, dispatch } = useBoard();
  const { notice } = board;
  const { query, data, gone } = loaded;
  const state = gone ? 'gone' : query.isError && !data ? 'failed' : query.isPending ? 'pending' : null;
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
          <Link
            className={boardsCss.push}
            href={sightlinesDoor(head, frame.me.handle, principal?.handle ?? null, days.as)}
          >
            {t('board.stopSeeing')}
          </Link>
        </div>
      )}
      {notice && (
        <div className={boardsCss.notice} role="alert">
          <span>
            {notice}
            {formGone && ` ${t('board.actingGone', { name: owner })}`}
          </span>
          <Button className={boardsCss.push} variant="text" onClick={() => dispatch({ act: 'notice', sentence: null })}>
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
          <Button variant="outlined" onClick={() => void query.refetch()}>
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
