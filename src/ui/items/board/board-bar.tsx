'use client';
import Button from '@mui/material/Button';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { useFrame } from '../../common/frame-context.tsx';
import { later } from '../../common/later.tsx';
import { Link } from '../../common/link.tsx';
import { SightMeter } from '../../common/meters.tsx';
import { RequestMore } from '../../common/requests/request-more.tsx';
import { DAY, dayMonth, fullDay, monthTitle, weekday, weekTitle } from '../../common/times.ts';
import boardCss from './board.module.css';
import { useBoard } from './board-model.ts';
import type { SidePanelName } from './board-state.ts';
import { type spanOf, VIEWS, type View } from './board-view.tsx';
import { GoTo } from './go-to.tsx';
import { useWidth } from './width.ts';

const BoardMenu = later(() => import('./board-menu.tsx').then((m) => m.BoardMenu));
const OtherCalendars = later(() => import('../panels/other-calendars.tsx').then((m) => m.OtherCalendars));

/** From so many pixels on acts stand in the head by themselves; else they are in its menu. */
const ROOM = { openings: 890, lanes: 760, suggest: 1100, back: 0 } as const;
/** The same on somebody else's board, whose head names them. */
const ROOM_LOOKING = { openings: 890, lanes: 1250, suggest: 1100, back: 1600 } as const;

/** The head of a board, one line: which days and how they are shown, what one sees there, and the acts on the calendar as a whole. */
export function BoardBar() {
  const { head, name, days, lanes, savedLanes, dispatch, begin } = useBoard();
  const { looking, narrow, view, span, day, today, go } = days;
  const show = (panel: SidePanelName) => dispatch({ act: 'panel', panel });
  const t = useTranslations();
  const { frame } = useFrame();
  const [line, width] = useWidth();
  const room = looking ? ROOM_LOOKING : ROOM;
  const roomy = (act: keyof typeof ROOM) => width === null || width >= room[act];
  const moved = savedLanes.some((lane) => lane.moved);
  const views = VIEWS.filter((v) => !narrow || (v !== 'week' && v !== 'five'));
  const choose = (v: View) =>
    go(v === 'day' && today >= span.first && today < span.first + span.count * DAY ? today : day, v);
  return (
    <div ref={line} className={boardsCss['board-head']}>
      <Button variant="text" onClick={() => go(span.before)} aria-label={t(`board.previousOf.${view}`)}>
        ←
      </Button>
      <GoTo title={titleOf(view, span, narrow)} before={looking && <OfWhom name={name} />} onGo={go} />
      <Button variant="text" onClick={() => go(span.after)} aria-label={t(`board.nextOf.${view}`)}>
        →
      </Button>
      <Button variant="text" onClick={() => go(today)} className={boardCss['to-today']}>
        {t('board.today')}
      </Button>
      {narrow ? (
        <select
          className={boardCss.view}
          value={view}
          aria-label={t('board.views')}
          onChange={(event) => choose(views.find((v) => v === event.target.value) ?? 'day')}
        >
          {views.map((v) => (
            <option key={v} value={v}>
              {t(`board.view.${v}`)}
            </option>
          ))}
        </select>
      ) : (
        <nav className={boardCss.views} aria-label={t('board.views')}>
          {views.map((v) => (
            <button type="button" key={v} className="plain" aria-pressed={view === v} onClick={() => choose(v)}>
              {t(`board.view.${v}`)}
            </button>
          ))}
        </nav>
      )}
      <div className={boardsCss.push}>
        {looking && roomy('back') && <Link href={`/for/${frame.me.handle}/calendar`}>{t('board.back')}</Link>}
        {head && !head.as && <Standing head={head} />}
        {head && !head.own && !head.as && head.rights.sight !== 'full' && (
          <RequestMore handle={head.owner.handle} name={head.owner.name} of={head.calendar} has={head.rights} small />
        )}
        {roomy('suggest') && head?.may.suggest && (
          <Button variant="outlined" onClick={() => begin(head)}>
            {t('board.forwardNew')}
          </Button>
        )}
        {head?.may.add && (
          <Button variant="outlined" onClick={() => show('at')} className="tight">
            {t('at.open')}
          </Button>
        )}
        {roomy('openings') && head?.may.add && (
          <Button variant="outlined" onClick={() => show('openings')} className="tight">
            {t('openings.title')}
          </Button>
        )}
        {roomy('lanes') && !head?.as && (
          <Button variant="outlined" onClick={() => show('lanes')} className={`${boardCss.lanes} tight`}>
            {t('lanes.open', { count: lanes.length - 1 })}
            {moved && <span className="visually-hidden">, {t('lanes.moved')}</span>}
            {moved && <i aria-hidden="true" className={boardCss.moved} />}
          </Button>
        )}
        {head && !head.as && (
          <More
            head={head}
            hidden={{
              openings: !roomy('openings'),
              lanes: !roomy('lanes'),
              suggest: !roomy('suggest'),
              back: looking && !roomy('back'),
            }}
          />
        )}
        {head && head.others.length > 0 && !head.as && !narrow && <OtherCalendars head={head} inBand={!looking} />}
      </div>
    </div>
  );
}

/** Whose calendar it is, where it isn't one's own nor of somebody one acts for. */
function OfWhom({ name }: { name: string }) {
  const t = useTranslations('board');
  const words = t('ofWhom', { name });
  return (
    <span className={boardCss['of-whom']} title={words}>
      {words}{' '}
    </span>
  );
}

function titleOf(view: View, { first, count, month }: ReturnType<typeof spanOf>, short: boolean): string {
  if (view === 'day') return short ? `${weekday(first)} ${dayMonth(first)}` : fullDay(first);
  if (view === 'month') return monthTitle(month);
  return weekTitle(first, count);
}

/** How much one sees here: in a meter where that isn't all of it. */
function Standing({ head }: { head: BoardHead }) {
  const t = useTranslations();
  const { sight } = head.rights;
  if (head.own) return null;
  const sees = sight === 'full' && !head.rights.private ? t('sightExact.fullButPrivate') : t(`sightWords.${sight}`);
  const words = t('board.you', { sight: sees });
  return (
    <span className={`row small soft ${boardCss.standing}`} title={words}>
      {sight !== 'full' && <SightMeter sight={sight} />} <span className={boardCss.words}>{words}</span>
    </span>
  );
}

/** All acts on the calendar that don't stand in the head. */
function More({ head, hidden }: { head: BoardHead; hidden: Record<keyof typeof ROOM, boolean> }) {
  const t = useTranslations();
  const search = useSearchParams();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { days, lanes } = useBoard();
  const over = new URLSearchParams(search);
  if (days.over) over.delete('over');
  else over.set('over', '1');
  const lays = lanes.length > 1 && ['day', 'week', 'five'].includes(days.view) && !days.narrow;
  return (
    <>
      <Button
        variant="outlined"
        onClick={(e) => setAnchor(e.currentTarget)}
        aria-haspopup="menu"
        aria-label={t('board.more')}
        title={t('board.more')}
        className="tight"
      >
        ···
      </Button>
      {anchor && (
        <BoardMenu
          head={head}
          anchor={anchor}
          hidden={hidden}
          over={lays ? () => window.history.pushState(null, '', `?${over}`) : null}
          onClose={() => setAnchor(null)}
        />
      )}
    </>
  );
}
