'use client';
import Button from '@mui/material/Button';
import { useLayoutEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import type { CheckAnswer, CheckBody } from '@/contract/openings/openings.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { usePaused, usePreview } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { later } from '../../common/later.tsx';
import { clock, dayName } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import css from './time-check.module.css';

const MoreTimes = later(() => import('./more-times.tsx').then((m) => m.MoreTimes));

/** So long after the last stroke a time is looked at. */
const PAUSE_MS = 300;

/** What speaks against the time that is typed, and the nearest times that work: said before anything is saved, and forbidding nothing. */
export function TimeCheck(props: {
  head: BoardHead;
  body: CheckBody | null;
  onTake: (start: number, end: number) => void;
}) {
  const { head, body, onTake } = props;
  const t = useTranslations();
  const tc = useTranslations('check');
  const { style } = useFrame();
  const wanted = body && JSON.stringify(body);
  const [more, setMore] = useState(false);
  // A time that is half typed says nothing yet: what was said of the last whole one stays, so that nothing jumps away under the pointer.
  const [whole, setWhole] = useState(wanted);
  if (wanted !== null && wanted !== whole) setWhole(wanted);
  const settled = usePaused(whole, PAUSE_MS);
  const { answer } = usePreview(
    KEYS.calendar(head.calendar.key, 'check', settled),
    settled === null
      ? null
      : () =>
          call('checkTime', {
            params: { calendar: head.calendar.key },
            body: JSON.parse(settled),
          }) as Promise<CheckAnswer>,
  );
  // It grows with what it says and keeps that height: fields below must not move up under a press.
  const box = useRef<HTMLDivElement>(null);
  const [tallest, setTallest] = useState(0);
  useLayoutEffect(() => {
    const height = more ? 0 : (box.current?.offsetHeight ?? 0);
    if (height > tallest) setTallest(height);
  });
  const heldHeight = tallest > 0 ? { minHeight: tallest } : undefined;
  // What takes nobody's time has nothing against it.
  if (body && !takesTime(body)) return null;
  // Its place is kept from the beginning: what comes late moves nothing that is about to be pressed.
  if (!answer) return <div className={css.check} style={heldHeight} role="status" />;
  const { fits, clashes, openings, unknown, cut } = answer;
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  const span = (one: { start: string; end: string }) =>
    `${clock(wall(one.start), style.hours)}–${clock(wall(one.end), style.hours)}`;
  const words = (c: CheckAnswer['clashes'][number]) => {
    if (c.kind === 'hours') return tc('hours', { own: head.own ? 'yes' : 'no', name: firstName(head.owner.name) });
    if (c.kind === 'keep')
      return tc(`keep.${c.keep}`, {
        own: head.own ? 'yes' : 'no',
        name: firstName(head.owner.name),
        hard: c.hard ? 'yes' : 'no',
      });
    if (c.kind === 'journey')
      return tc('journey', { place: c.place, before: c.before ? 'yes' : 'no', minutes: c.minutes, gap: c.gap });
    const title = c.withheld ? t('board.private') : (c.title ?? t('board.busyWord', { shows: 'busy' }));
    return tc('overlap', { title, when: c.allDay ? t('board.allDay') : span(c) });
  };
  return (
    <div ref={box} className={css.check} style={heldHeight} role="status">
      {fits && (
        <span className="small soft">
          {tc('fine', { unknown: unknown.length, names: unknown.slice(0, 3).join(', ') })}
        </span>
      )}
      {clashes.map((c) => (
        <span key={JSON.stringify(c)} className="small wrong">
          {words(c)}
        </span>
      ))}
      {openings.length > 0 && (
        <span className="small soft">
          {tc('nearest', { unknown: unknown.length, names: unknown.slice(0, 3).join(', ') })}
          {cut && ` ${tc('cut')}`}
        </span>
      )}
      <span className={`row ${css.times}`}>
        {openings.map((o) => (
          <Button
            key={o.start}
            variant="outlined"
            onClick={() => onTake(parseInstant(o.start) ?? 0, parseInstant(o.end) ?? 0)}
            className="low"
          >
            {dayName(wall(o.start))}, {clock(wall(o.start), style.hours)}
          </Button>
        ))}
        {body && !body.when.allDay && (fits || clashes.length + openings.length > 0) && (
          <Button variant="text" aria-expanded={more} onClick={() => setMore(!more)} className="low">
            {tc('more')}
          </Button>
        )}
      </span>
      {more && body && <MoreTimes head={head} body={body} onTake={onTake} />}
    </div>
  );
}
