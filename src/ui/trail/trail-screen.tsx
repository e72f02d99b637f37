'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TrailListAnswer, TrailQuery } from '@/contract/trail.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { fieldsOf } from '../common/fetched/refusal.ts';
import { DateField } from '../common/fields/date-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { clock, DAY, fullDay } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import trailCss from './trail.module.css';
import { TrailEntry } from './trail-entry.tsx';

const KINDS = ['items', 'tasks', 'contacts', 'messages', 'access', 'away', 'desk', 'house'] as const;
type Filters = Readonly<Record<'of' | 'calendar' | 'who' | 'kind' | 'from' | 'until', string>>;

/** What was done in one's name, by one for others, or in a calendar one runs: by person, kind and date. */
export function TrailScreen({ who }: { who: string }) {
  const t = useTranslations('trail');
  const { frame, style, toast } = useFrame();
  const client = useQueryClient();
  const { attempt } = useActingWithToast();
  const search = useSearchParams();
  const principal = frame.principals.find(({ handle }) => handle === who);
  const of = search.get('of') ?? (principal && !principal.own ? 'calendar' : 'name');
  const get = (name: string) => search.get(name) ?? '';
  const filters: Filters = {
    of,
    calendar: of === 'calendar' ? get('calendar') || (principal?.calendar ?? '') : '',
    who: get('who'),
    kind: get('kind'),
    from: get('from'),
    until: get('until'),
  };
  const params = Object.fromEntries(
    Object.entries(filters).filter(([, value]) => value !== ''),
  ) as Partial<TrailQuery> & Pick<TrailQuery, 'of'>;
  const query = useInfiniteQuery({
    queryKey: KEYS.trail(filters),
    queryFn: ({ pageParam }) => call('listTrail', { query: { ...params, ...(pageParam ? { after: pageParam } : {}) } }),
    initialPageParam: '',
    getNextPageParam: (page: TrailListAnswer) => page.after ?? undefined,
    retry: false,
  });
  const digest = useQuery({ queryKey: KEYS.trailDigest, queryFn: () => call('readTrailDigest', {}), retry: false });
  const first = query.data?.pages[0];
  const entries = query.data?.pages.flatMap((page) => page.entries) ?? [];
  const set = (more: Partial<Filters>) => {
    const next = new URLSearchParams(
      Object.entries({ ...filters, ...more }).filter(([, value]) => value !== '') as [string, string][],
    );
    window.history.replaceState(null, '', `?${next}`);
  };
  const undo = (key: string) =>
    attempt(async () => {
      await call('undo', { body: { undo: key } });
      toast({ text: t('undone') });
      await client.invalidateQueries({ queryKey: KEYS.trails });
    });
  const dayOf = (at: string) => Math.floor(toWall(style.zone, parseInstant(at) ?? 0) / DAY) * DAY;
  const days = [...new Set(entries.map(({ at }) => dayOf(at)))];
  return (
    <div className={pageCss.page}>
      <div className="row spread">
        <h1>{t('screen')}</h1>
        <a href={`/api/trail/file?${new URLSearchParams(params as Record<string, string>)}`} download>
          {t('file')}
        </a>
      </div>
      <Scope filters={filters} first={first} wrong={fieldsOf(query.error)} set={set} />
      {!query.data && <QueryState query={query} />}
      {query.data && entries.length === 0 && <p className="soft">{t('nothing')}</p>}
      {days.map((day) => (
        <section key={day} aria-label={fullDay(day)}>
          <h2 className={trailCss.day}>{fullDay(day)}</h2>
          <ol className={trailCss.list}>
            {entries
              .filter(({ at }) => dayOf(at) === day)
              .map((entry) => (
                <TrailEntry key={entry.key} entry={entry} onUndo={() => void undo(entry.key)} />
              ))}
          </ol>
        </section>
      ))}
      {query.hasNextPage && (
        <Button
          variant="outlined"
          loading={query.isFetchingNextPage}
          onClick={() => void query.fetchNextPage()}
          className="above-7"
        >
          {t('older')}
        </Button>
      )}
      {digest.data?.digest && (
        <p className={`small soft ${trailCss.chain}`}>
          {t('chain', {
            at: clock(toWall(style.zone, parseInstant(digest.data.at) ?? 0), style.hours),
            digest: digest.data.digest,
          })}
        </p>
      )}
    </div>
  );
}

/** What is listed: whose, by whom, of what kind, between which days. */
function Scope(props: {
  filters: Filters;
  first: TrailListAnswer | undefined;
  wrong: Readonly<Record<string, string>>;
  set: (more: Partial<Filters>) => void;
}) {
  const { filters, first, wrong, set } = props;
  const t = useTranslations('trail');
  const { frame } = useFrame();
  const calendars = first?.calendars ?? [];
  const named = ({ name, owner }: (typeof calendars)[number]): string =>
    name !== ''
      ? t('further', { owner: firstName(owner), name })
      : owner === frame.me.name
        ? t('mine')
        : t('calendarOf', { name: firstName(owner) });
  const scope = filters.of === 'calendar' ? filters.calendar : filters.of;
  return (
    <div className={trailCss.filters}>
      <TextField
        select
        label={t('scope')}
        value={scope === 'name' || scope === 'others' || calendars.some(({ key }) => key === scope) ? scope : ''}
        onChange={({ target: { value } }) =>
          set(
            value === 'name' || value === 'others'
              ? { of: value, calendar: '', who: '' }
              : { of: 'calendar', calendar: value, who: '' },
          )
        }
      >
        <MenuItem value="name">{t('name')}</MenuItem>
        <MenuItem value="others">{t('others')}</MenuItem>
        {calendars.map((one) => (
          <MenuItem key={one.key} value={one.key}>
            {named(one)}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label={filters.of === 'others' ? t('forWhom') : t('person')}
        value={first?.people.some(({ handle }) => handle === filters.who) ? filters.who : ''}
        onChange={({ target: { value } }) => set({ who: value })}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      >
        <MenuItem value="">{t('anybody')}</MenuItem>
        {first?.people.map(({ handle, name }) => (
          <MenuItem key={handle} value={handle}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label={t('kind')}
        value={filters.kind}
        onChange={({ target: { value } }) => set({ kind: value })}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      >
        <MenuItem value="">{t('allKinds')}</MenuItem>
        {KINDS.map((kind) => (
          <MenuItem key={kind} value={kind}>
            {t(`kinds.${kind}`)}
          </MenuItem>
        ))}
      </TextField>
      <DateField label={t('fromDay')} value={filters.from} error={wrong.from} onChange={(from) => set({ from })} />
      <DateField label={t('untilDay')} value={filters.until} error={wrong.until} onChange={(until) => set({ until })} />
    </div>
  );
}
