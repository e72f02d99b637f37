'use client';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TimeUseAnswer } from '@/contract/time-use.ts';
import { dateText, parseDate, toWall, weekStart } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { fieldsOf } from '../common/fetched/refusal.ts';
import { DateField } from '../common/fields/date-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { DAY, dayMonth } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { hoursOf, Part, type PartRow } from './part.tsx';
import timeUseCss from './time-use.module.css';
import { Wishes } from './wishes.tsx';

const BESIDE = ['none', 'before', 'year'] as const;
type Comparison = (typeof BESIDE)[number];

/** The other period that is put beside one: the same length before, or the same days of the year before. */
function comparedDates(from: string, until: string, compared: Comparison): { otherFrom?: string; otherUntil?: string } {
  const [a, b] = [parseDate(from), parseDate(until)];
  if (a === null || b === null || compared === 'none') return {};
  const back = compared === 'before' ? b - a + DAY : 364 * DAY;
  return { otherFrom: dateText(a - back), otherUntil: dateText(b - back) };
}

/** What somebody's hours went to: by kind, category, people, inside and outside, week by week; two periods side by side. */
export function TimeUseScreen({ who }: { who: string }) {
  const t = useTranslations('timeUse');
  const { frame, style, now } = useFrame();
  const search = useSearchParams();
  const principal = frame.principals.find(({ handle }) => handle === who);
  const thisWeek = weekStart(Math.floor(toWall(style.zone, now()) / DAY) * DAY, style.weekFirst);
  const from = search.get('from') ?? dateText(thisWeek - 21 * DAY);
  const until = search.get('until') ?? dateText(thisWeek + 6 * DAY);
  const compared = BESIDE.find((one) => one === search.get('beside')) ?? 'before';
  const params = { from, until, ...comparedDates(from, until, compared) };
  const query = useQuery({
    queryKey: KEYS.timeUse(who, params),
    queryFn: () => call('readTimeUse', { params: { person: who }, query: params }),
    retry: false,
  });
  const { data } = query;
  const wrong = fieldsOf(query.error);
  const set = (more: Partial<Record<'from' | 'until' | 'beside', string>>) => {
    const next = new URLSearchParams({ from, until, beside: compared, ...more });
    window.history.replaceState(null, '', `?${next}`);
  };
  const name = principal && !principal.own ? firstName(principal.name) : null;
  return (
    <div className={pageCss.page}>
      <div className="row spread">
        <h1>{name ? t('titleOf', { name }) : t('title')}</h1>
        <a href={`/api/people/${encodeURIComponent(who)}/time-use/file?${new URLSearchParams(params)}`} download>
          {t('file')}
        </a>
      </div>
      <div className={timeUseCss.filters}>
        <DateField label={t('from')} value={from} error={wrong.from} onChange={(day) => set({ from: day })} />
        <DateField label={t('until')} value={until} error={wrong.until} onChange={(day) => set({ until: day })} />
        <TextField select label={t('beside')} value={compared} onChange={({ target }) => set({ beside: target.value })}>
          {BESIDE.map((one) => (
            <MenuItem key={one} value={one}>
              {t(one)}
            </MenuItem>
          ))}
        </TextField>
      </div>
      {!data && <QueryState query={query} />}
      {data && <Report data={data} />}
      {data && <Wishes who={who} data={data} />}
    </div>
  );
}

function Report({ data }: { data: TimeUseAnswer }) {
  const t = useTranslations('timeUse');
  const tk = useTranslations('kinds');
  const { period, other, shares } = data;
  const span = (one: TimeUseAnswer['period']) =>
    t('this', { from: dayMonth(parseDate(one.from) ?? 0), until: dayMonth(parseDate(one.until) ?? 0) });
  const names = [span(period), ...(other ? [span(other)] : [])];
  type Named = readonly { readonly name: string; readonly minutes: number }[];
  const rows = (
    by: 'kind' | 'category' | 'side' | 'person',
    mine: Named,
    theirs: Named,
    word: (name: string) => string,
  ) =>
    [...new Set([...mine, ...theirs].map(({ name }) => name))].slice(0, 12).map((key): PartRow => {
      const of = (list: Named) => list.find(({ name }) => name === key)?.minutes ?? 0;
      const wished = shares.find((share) => share.by === by && share.name === key)?.percent ?? null;
      return { key, name: word(key), minutes: [of(mine), ...(other ? [of(theirs)] : [])], wished };
    });
  const totals = [period.total, ...(other ? [other.total] : [])];
  const sides = (one: TimeUseAnswer['period'] | null): Named =>
    one ? Object.entries(one.sides).map(([name, minutes]) => ({ name, minutes })) : [];
  if (period.total === 0 && (other?.total ?? 0) === 0) return <p className="soft">{t('nothing')}</p>;
  const people = (one: TimeUseAnswer['period'] | null): Named =>
    (one?.people ?? []).map(({ address, minutes }) => ({ name: address, minutes }));
  const called = new Map([...period.people, ...(other?.people ?? [])].map((one) => [one.address, one.name]));
  const weeks = Math.max(period.weeks.length, other?.weeks.length ?? 0);
  return (
    <>
      <p>
        <b>{t('total', { hours: hoursOf(period.total) })}</b>
        {other && <span className="soft"> · {t('totalOther', { hours: hoursOf(other.total) })}</span>}{' '}
        <span className="small soft">{t('overlap')}</span>
      </p>
      {(period.cut || other?.cut) && <p className="wrong">{t('cut')}</p>}
      <Part
        title={t('kinds')}
        names={names}
        totals={totals}
        rows={rows('kind', period.kinds, other?.kinds ?? [], (kind) => (kind ? tk(kind as 'meeting') : t('unseen')))}
      />
      <Part
        title={t('side')}
        names={names}
        totals={totals}
        rows={rows('side', sides(period), sides(other), (side) => t(`sides.${side as 'alone'}`))}
      />
      <Part
        title={t('weeks')}
        names={names}
        totals={totals}
        standing
        rows={Array.from({ length: weeks }, (_, i): PartRow => {
          const [mine, theirs] = [period.weeks[i], other?.weeks[i]];
          const day = mine?.from ?? theirs?.from ?? '';
          return {
            key: String(i),
            name: dayMonth(parseDate(day) ?? 0),
            minutes: [mine?.total ?? 0, ...(other ? [theirs?.total ?? 0] : [])],
            wished: null,
          };
        })}
      />
      <Part
        title={t('people')}
        names={names}
        totals={totals}
        rows={rows('person', people(period), people(other), (address) => called.get(address) ?? address)}
      />
      <Part
        title={t('categories')}
        names={names}
        totals={totals}
        rows={rows('category', period.categories, other?.categories ?? [], (name) => name || t('noCategory'))}
      />
    </>
  );
}
