'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { TimesAnswer } from '@/contract/openings/openings.ts';
import { instantText, parseInstant, toWall } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState as Asking } from '../../common/fetched/query-state.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { RequestFreeBusy } from '../../common/requests/request-free-busy.tsx';
import { clock, dayMonth, dayName, MINUTE } from '../../common/times.ts';
import type { InvitedPerson } from '../../meetings/heard.ts';
import type { Walked } from '../views/moving.ts';
import { ChosenTimes } from './chosen-times.tsx';
import { MakeRoom } from './make-room.tsx';
import runListCss from './run-list.module.css';
import { RunList, walkRows } from './run-list.tsx';
import type { TimesRequest, useTimes } from './times-request.ts';

/** A time that is taken: on the clock, who comes, in which room, and how often. */
export interface Taken {
  readonly start: number;
  readonly end: number;
  readonly people: readonly InvitedPerson[];
  readonly place: string;
  readonly rule: string | null;
}

/** What a search found: runs best first, each walked, taken, held or sent; or, where nothing fits, what would have to give. */
export function TimesFound(props: {
  head: BoardHead;
  request: TimesRequest;
  found: ReturnType<typeof useTimes>;
  /** Asks otherwise: what would have to give is given by a press. */
  onChange: (change: Partial<TimesRequest>) => void;
  onTake: (taken: Taken) => void;
  /** Set where a time can be sent as it is. */
  onSend?: ((taken: Taken) => void) | undefined;
  onWalk: (time: Walked | null) => void;
  onHeld: (answer: SeveralAnswer) => void;
  onMoved: (answer: SeveralAnswer) => void;
}) {
  const { head, request, found, onChange, onTake, onSend, onWalk, onHeld, onMoved } = props;
  const t = useTranslations('openings');
  const { style } = useFrame();
  const { data, query, series, repeated, body } = found;
  const [picked, setPicked] = useState<readonly string[]>([]);
  // What else is asked for now may rule out what was chosen before.
  const chosen = picked.filter((from) => data?.runs.some((run) => run.from === from));
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  const at = (text: string) => `${dayName(wall(text))}, ${clock(wall(text), style.hours)}`;
  const place = request.place.trim();
  const taken = (from: string, room: TimesAnswer['runs'][number]['room'], rule: string | null = null): Taken => {
    const start = wall(from);
    const had: InvitedPerson[] = room ? [{ address: room.address, name: room.name, role: 'must', group: null }] : [];
    return {
      start,
      end: start + request.length * MINUTE,
      people: [...request.people, ...had],
      place: place || (room?.name ?? ''),
      rule,
    };
  };
  // Who is in the directory and shows nothing can be asked to; who is outside can't.
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const silent = (directory.data?.people ?? []).filter(
    (p) =>
      p.resource === null && p.rights.sight === 'nothing' && request.people.some((one) => one.address === p.address),
  );
  const unknown = (
    <>
      {data && data.unknown.length > 0 && (
        <p className="small soft">
          {t('unknown', { count: data.unknown.length, names: data.unknown.slice(0, 4).join(', ') })}
        </p>
      )}
      <RequestFreeBusy people={silent} />
      {data?.rooms === 0 && <p className="small soft">{t('noRoom')}</p>}
    </>
  );
  if (request.series) {
    const { every, times } = request.series;
    const rule = `FREQ=WEEKLY;${every > 1 ? `INTERVAL=${every};` : ''}COUNT=${times}`;
    return (
      <>
        <Asking query={repeated} />
        {unknown}
        {series && series.starts.length === 0 && <p>{t('seriesNothing')}</p>}
        <ol className={runListCss.runs} aria-label={t('runs')}>
          {series?.starts.map((one) => (
            <li key={one.start}>
              <button
                type="button"
                className={`plain ${runListCss.run}`}
                onKeyDown={walkRows}
                onFocus={() => onWalk({ start: wall(one.start), end: wall(one.end) })}
                onMouseEnter={() => onWalk({ start: wall(one.start), end: wall(one.end) })}
                onClick={() => onTake(taken(one.start, null, rule))}
              >
                <b>{at(one.start)}</b> {t('fits', { fits: one.fits, of: times })}
                {one.fails.length > 0 && (
                  <span className="small soft block">
                    {one.fails
                      .slice(0, 4)
                      .map((f) =>
                        t('fails', { date: dayMonth(wall(f.at)), count: f.who.length, who: f.who.join(', ') }),
                      )
                      .join(' · ')}
                    {one.fails.length > 4 ? ' …' : ''}
                  </span>
                )}
              </button>
            </li>
          ))}
        </ol>
        {series?.cut && <p className="small soft">{t('cut')}</p>}
      </>
    );
  }
  return (
    <>
      <Asking query={query} />
      {unknown}
      {chosen.length > 0 && (
        <ChosenTimes
          head={head}
          starts={chosen}
          length={request.length}
          place={place}
          people={request.people}
          onLeave={() => setPicked([])}
          onHeld={(answer) => {
            setPicked([]);
            onHeld(answer);
          }}
        />
      )}
      {data && data.runs.length > 0 && (
        <RunList
          runs={data.runs}
          chosen={chosen}
          onChoose={(from) =>
            setPicked((was) => (was.includes(from) ? was.filter((one) => one !== from) : [...was, from]))
          }
          onWalk={(run) => onWalk(run && { start: wall(run.from), end: wall(run.end) })}
          onTake={(run) => onTake(taken(run.from, run.room))}
          onSend={onSend && ((run) => onSend(taken(run.from, run.room)))}
        />
      )}
      {data && data.runs.length === 0 && (
        <section>
          <p>{t('nothing')}</p>
          {data.gives.map((g) => (
            <Button
              key={`${g.what} ${g.who}`}
              variant="outlined"
              className="below-3 from-start left"
              fullWidth
              onClick={() => onChange(given(request, g))}
            >
              {t(`give.${g.what}`, { who: g.who ?? '', count: g.count, first: at(g.first) })}
            </Button>
          ))}
          <MakeRoom
            calendar={head.calendar.key}
            body={body}
            onMade={(answer, plan) => {
              onMoved(answer);
              onTake(taken(plan.start, plan.room));
            }}
            onWalk={(plan, shown) =>
              onWalk(
                plan && {
                  start: wall(plan.start),
                  end: wall(plan.end),
                  moves:
                    shown === 'before'
                      ? []
                      : plan.moves.map(({ item, to, minutes }) => ({ item, start: to, end: laterBy(to, minutes) })),
                  both: shown === 'both',
                },
              )
            }
          />
        </section>
      )}
      {data?.cut && <p className="small soft">{t('cut')}</p>}
    </>
  );
}

/** An instant so many minutes after another. */
const laterBy = (text: string, minutes: number): string => instantText((parseInstant(text) ?? 0) + minutes * MINUTE);

/** What is asked with something given: over what is tentative, at any hour, shorter, without a room, or with somebody who need not come. */
function given(request: TimesRequest, { what, address }: TimesAnswer['gives'][number]): Partial<TimesRequest> {
  switch (what) {
    case 'tentative':
      return { over: true };
    case 'hours':
      return { anyTime: true };
    case 'padding':
      return { padding: 0 };
    case 'half':
      return { length: Math.ceil(request.length / 30) * 15 };
    case 'room':
      return { seats: null, site: '' };
    case 'there':
      return { there: false };
    case 'without':
      return {
        people: request.people.map((one) => (one.address === address ? { ...one, role: 'may' as const } : one)),
      };
    default:
      return what satisfies never;
  }
}
