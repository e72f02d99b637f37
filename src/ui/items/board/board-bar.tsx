'use client';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { useFrame } from '../../common/frame-context.tsx';
import { later } from '../../common/later.tsx';
import { SightMeter } from '../../common/meters.tsx';
import { RequestMore } from '../../common/requests/request-more.tsx';
import { DAY, fullDay, monthTitle, weekTitle } from '../../common/times.ts';
import { WhereNow } from '../../common/where-now.tsx';
import boardCss from './board.module.css';
import { useBoard } from './board-model.ts';
import type { SidePanelName } from './board-state.ts';
import { type spanOf, VIEWS, type View } from './board-view.tsx';
import { GoTo } from './go-to.tsx';
import { sightlinesDoor } from './sightlines-door.ts';

const BoardMenu = later(() => import('./board-menu.tsx').then((m) => m.BoardMenu));
const OtherCalendars = later(() => import('../panels/other-calendars.tsx').then((m) => m.OtherCalendars));

/** The head of a board: which days, whose, what one sees there, and the acts on the calendar as a whole. */
export function BoardBar() {
  const { head, name, days, lanes, kept, dispatch, begin } = useBoard();
  const { looking, narrow, view, span, day, today, over, go } = days;
  const show = (panel: SidePanelName) => dispatch({ act: 'panel', panel });
  const t = useTranslations();
  const { frame, principal } = useFrame();
  const search = useSearchParams();
  const moved = kept.some((lane) => lane.moved);
  const layOver = () => {
    const next = new URLSearchParams(search);
    if (over) next.delete('over');
    else next.set('over', '1');
    window.history.pushState(null, '', `?${next}`);
  };
  return (
    <div className={boardsCss['board-head']}>
      {principal && !looking && head?.calendar.main && !head.as && (
        <div className={boardsCss.where}>
          <WhereNow handle={principal.handle} />
        </div>
      )}
      <h1>
        {looking && <span className={boardCss['of-whom']}>{t('board.ofWhom', { name: name })} </span>}
        {titleOf(view, span)}
      </h1>
      <Button variant="text" onClick={() => go(span.before)} aria-label={t(`board.previousOf.${view}`)}>
        ←
      </Button>
      <Button variant="text" onClick={() => go(today)}>
        {t('board.today')}
      </Button>
      <Button variant="text" onClick={() => go(span.after)} aria-label={t(`board.nextOf.${view}`)}>
        →
      </Button>
      <nav className={`row ${boardCss.views}`} aria-label={t('board.views')}>
        {VIEWS.filter((v) => !narrow || (v !== 'week' && v !== 'five')).map((v) => (
          <Button
            key={v}
            variant="text"
            aria-pressed={view === v}
            onClick={() =>
              go(v === 'day' && today >= span.first && today < span.first + span.count * DAY ? today : day, v)
            }
          >
            {t(`board.view.${v}`)}
          </Button>
        ))}
      </nav>
      {!narrow && <GoTo onGo={go} />}
      {head?.may.add && (
        <Button variant="outlined" onClick={() => show('openings')} sx={TIGHT}>
          {t('openings.title')}
        </Button>
      )}
      {head?.may.add && (
        <Button variant="outlined" onClick={() => show('at')} sx={TIGHT}>
          {t('at.open')}
        </Button>
      )}
      {!head?.as && (
        <Button variant="outlined" onClick={() => show('lanes')} className={boardCss.lanes} sx={TIGHT}>
          {t('lanes.open', { count: lanes.length - 1 })}
          {moved && <span className="visually-hidden">, {t('lanes.moved')}</span>}
          {moved && <i aria-hidden="true" className={boardCss.moved} />}
        </Button>
      )}
      {lanes.length > 1 && (view === 'day' || view === 'week' || view === 'five') && !narrow && (
        <Button variant="text" aria-pressed={over} onClick={layOver}>
          {t('lanes.over')}
        </Button>
      )}
      {head && head.others.length > 0 && !head.as && <OtherCalendars head={head} />}
      <div className={boardsCss.push}>
        {looking && <Link href={`/for/${frame.me.handle}/calendar`}>{t('board.back')}</Link>}
        {head && !head.as && <Standing head={head} />}
        {head && !head.own && !head.as && head.rights.sight !== 'full' && (
          <RequestMore handle={head.owner.handle} name={head.owner.name} of={head.calendar} has={head.rights} small />
        )}
        {head?.may.share && !head.as && !narrow && (
          <Link href={sightlinesDoor(head, frame.me.handle, principal?.handle ?? null)}>
            {t('board.sightlinesDoor')}
          </Link>
        )}
        {head?.may.suggest && (
          <Button variant="outlined" onClick={() => begin(head)}>
            {t('board.forwardNew')}
          </Button>
        )}
        {head && !head.as && <FileMenu head={head} />}
      </div>
    </div>
  );
}

/** The head holds much in one line. */
const TIGHT = { px: 1.25, minWidth: 0 };

function titleOf(view: View, { first, count, month }: ReturnType<typeof spanOf>): string {
  if (view === 'day') return fullDay(first);
  if (view === 'month') return monthTitle(month);
  return weekTitle(first, count);
}

/** What the viewer sees here, beside whose calendar it is. */
function Standing({ head }: { head: BoardHead }) {
  const t = useTranslations();
  const { sight } = head.rights;
  if (head.own) return null;
  const seesWords =
    sight === 'full' && !head.rights.private ? t('sightExact.fullButPrivate') : t(`sightWords.${sight}`);
  return (
    <span className={`row small soft ${boardCss.standing}`} title={t('board.you', { sight: seesWords })}>
      <SightMeter sight={head.rights.sight} />{' '}
      <span className={boardCss.words}>{t('board.you', { sight: seesWords })}</span>
    </span>
  );
}

function FileMenu({ head }: { head: BoardHead }) {
  const t = useTranslations();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (!head.own && !head.may.import && !head.may.add) return null;
  return (
    <>
      <Button variant="outlined" onClick={(e) => setAnchor(e.currentTarget)} aria-haspopup="menu">
        {t('board.more')}
      </Button>
      {anchor && <BoardMenu head={head} anchor={anchor} onClose={() => setAnchor(null)} />}
    </>
  );
}
