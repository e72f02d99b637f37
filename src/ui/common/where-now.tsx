'use client';
import { useTranslations } from 'use-intl';
import { parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useDesks } from './fetched/desks.ts';
import { useFrame } from './frame-context.tsx';
import { isolated } from './isolated.ts';
import { clock, DAY, dayName } from './times.ts';
import { firstName } from './token.tsx';

/** Where somebody is now, until when, what is next for them, and how long the way is; nothing where nothing of it is known. */
export function WhereNow({ handle }: { handle: string }) {
  const t = useTranslations('whereNow');
  const { style, now } = useFrame();
  // It goes on with the clock.
  const one = useDesks([handle], true).principals[0];
  if (!one || (one.here === null && one.next === null)) return null;
  const { here, next, way } = one;
  const today = Math.floor(toWall(style.zone, now()) / DAY);
  const at = (instant: string): string => {
    const wall = toWall(style.zone, parseInstant(instant) ?? 0);
    return `${Math.floor(wall / DAY) === today ? '' : `${dayName(wall)}, `}${clock(wall, style.hours)}`;
  };
  const day = here && parseDate(here.until);
  // Of whole days the last is named, where that isn't today.
  const last = day === null ? null : day - DAY;
  const until = here && (last === null ? at(here.until) : here.away && last > today * DAY ? dayName(last) : null);
  const name = one.own ? '' : firstName(one.name);
  return (
    <p className="small soft">
      {here &&
        t(here.away ? 'away' : here.place ? 'at' : 'taken', {
          own: String(one.own),
          name,
          place: isolated(here.place ?? ''),
          until: until ?? '',
          day: until === null ? 'true' : 'false',
        })}{' '}
      {next &&
        t('next', {
          own: String(one.own || here !== null),
          name,
          what: 'title' in next && next.title ? isolated(next.title) : t('private'),
          when: at(next.start),
          place: next.place ? `, ${isolated(next.place)}` : '',
          way: way ?? 0,
          known: way === null ? 'false' : 'true',
        })}
    </p>
  );
}
