'use client';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useSearchParams } from 'next/navigation';
import { useCallback } from 'react';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY } from '../../common/times.ts';
import { spanOf, VIEWS, type View } from './board-view.tsx';

/** Which days a board shows, in which view and through whose eyes: all of it stands in the address. */
export function useBoardDays() {
  const { principal, style, now } = useFrame();
  const search = useSearchParams();
  // The calendar of somebody the band doesn't name, looked at from one's own window or left open since one acted for them: the heading says whose.
  const looking = principal === null || (search.get('of') !== null && search.get('of') !== principal.handle);
  // Another's eyes: the board as they get it, read only.
  const as = search.get('as') ?? undefined;
  const narrow = useMediaQuery('(max-width: 760px)');
  const { zone, weekFirst } = style;
  const today = Math.floor(toWall(zone, now()) / DAY) * DAY;
  const week = search.get('week');
  const wanted = search.get('view');
  const chosen = VIEWS.find((v) => v === wanted) ?? (narrow ? 'day' : 'week');
  // A narrow screen has room for one day of hours.
  const view: View = narrow && (chosen === 'week' || chosen === 'five') ? 'day' : chosen;
  const day = (week && parseDate(week)) || today;
  const span = spanOf(view, day, weekFirst);
  const datesOf = ({ first, count }: { first: number; count: number }) => ({
    from: dateText(first),
    to: dateText(first + count * DAY),
    zone,
  });
  const go = useCallback(
    (day: number, view?: View) => {
      const next = new URLSearchParams(search);
      next.set('week', dateText(day));
      next.delete('new');
      if (view === 'week') next.delete('view');
      else if (view) next.set('view', view);
      // Days and views are the board's own: going to others asks the server for items alone, not for the page again.
      window.history.pushState(null, '', `?${next}`);
    },
    [search],
  );
  const { first, count } = span;
  return {
    looking,
    as,
    narrow,
    today,
    view,
    day,
    span,
    first,
    count,
    over: search.get('over') === '1',
    dates: datesOf(span),
    around: [span.before, span.after].map((day) => datesOf(spanOf(view, day, weekFirst))),
    go,
    /** Whether a wall time lies in the days that are shown. */
    shows: (wall: number) => wall >= first && wall < first + count * DAY,
  };
}
