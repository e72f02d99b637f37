'use client';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import type { CheckBody } from '@/contract/openings/openings.ts';
import { dateText, parseInstant, parseWall, toWall } from '@/core/time/index.ts';
import { QueryState as Asking } from '../../common/fetched/query-state.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, DAY, dayName, MINUTE } from '../../common/times.ts';
import { RunList } from './run-list.tsx';
import { plainRequest, useTimes } from './times-request.ts';

/** All times that would work for what a form says, best first, each with its reasons; or what would have to give. Times are taken as instants. */
export function MoreTimes(props: { head: BoardHead; body: CheckBody; onTake: (start: number, end: number) => void }) {
  const { head, body, onTake } = props;
  const t = useTranslations('openings');
  const { style, now } = useFrame();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  // From the day that is typed, not before it: who asks for more of June isn't helped with March.
  const typed = Math.floor((parseWall(body.when.start) ?? today) / DAY) * DAY;
  const minutes = ((parseWall(body.when.end) ?? 0) - (parseWall(body.when.start) ?? 0)) / MINUTE;
  const length = body.when.allDay ? 1440 : Math.min(1440, Math.max(5, Math.round(minutes)));
  const found = useTimes(
    head.calendar.key,
    {
      ...plainRequest(dateText(Math.max(today, typed))),
      length,
      place: body.place ?? '',
      item: body.item,
      people: body.people.map(({ address, must }) => ({
        address,
        name: null,
        role: must ? ('must' as const) : ('may' as const),
        group: null,
      })),
    },
    style.zone,
    false,
  );
  const { data, query } = found;
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  return (
    <section aria-label={t('title')} className="gap-3 stack">
      <Asking query={query} />
      {data && data.runs.length > 0 && (
        <RunList
          runs={data.runs.slice(0, 12)}
          chosen={[]}
          onWalk={() => {}}
          onTake={(run) => onTake(parseInstant(run.from) ?? 0, parseInstant(run.end) ?? 0)}
        />
      )}
      {data && data.runs.length === 0 && (
        <>
          <p className="small">{t('nothing')}</p>
          {data.gives.map((g) => (
            <p key={`${g.what} ${g.who}`} className="small">
              {t(`give.${g.what}`, {
                who: g.who ?? '',
                count: g.count,
                first: `${dayName(wall(g.first))}, ${clock(wall(g.first), style.hours)}`,
              })}
            </p>
          ))}
        </>
      )}
    </section>
  );
}
