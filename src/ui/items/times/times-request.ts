import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { TimesAnswer, TimesSeriesAnswer } from '@/contract/openings/openings.ts';
import { parseDate } from '@/core/time/index.ts';
import { usePaused } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { MINUTE, wallsOf } from '../../common/times.ts';
import type { InvitedPerson } from '../../meetings/heard.ts';

/** So long after what is asked was changed it is searched for. */
const PAUSE_MS = 250;

export const WISHES = ['sooner', 'kinder', 'more'] as const;
type Wish = (typeof WISHES)[number];

/** What is asked of a search for times, as screens hold it. `from` is a date; lengths are minutes. */
export interface TimesRequest {
  readonly people: readonly InvitedPerson[];
  readonly length: number;
  readonly from: string;
  readonly days: number;
  readonly place: string;
  /** Only while whose calendar it is is there. */
  readonly there: boolean;
  /** Any room of so many seats, at a site where one is named. */
  readonly seats: number | null;
  readonly site: string;
  readonly anyTime: boolean;
  readonly over: boolean;
  readonly padding: number;
  /** Turned down, as usual, turned up. */
  readonly wishes: Readonly<Record<Wish, -1 | 0 | 1>>;
  /** The item a time is looked for, where it stands already. */
  readonly item: string | null;
  /** How often, every so many weeks; `null` for once. */
  readonly series: { readonly every: number; readonly times: number } | null;
}

/** What is asked before anything is said: an hour, in the two weeks from a day on. */
export const plainRequest = (from: string): TimesRequest => ({
  people: [],
  length: 60,
  from,
  days: 14,
  place: '',
  there: false,
  seats: null,
  site: '',
  anyTime: false,
  over: false,
  padding: 0,
  wishes: { sooner: 0, kinder: 0, more: 0 },
  item: null,
  series: null,
});

/** What is asked where another time is looked for something that stands: as long, with who comes to it, where it is. */
export function requestAbout(item: ItemWire, zone: string): Partial<TimesRequest> {
  const { start, end } = wallsOf(item, zone);
  return {
    item: item.id,
    length: Math.min(1440, Math.max(5, Math.round((end - start) / MINUTE))),
    place: item.place ?? '',
    people: (item.attendees ?? [])
      .slice(0, 60)
      .map(({ address, name }) => ({ address, name, role: 'must', group: null })),
  };
}

/** What is asked as a request says it. */
export function bodyOf(request: TimesRequest, zone: string, sheet: boolean) {
  const turned = (by: -1 | 1) => WISHES.filter((wish) => request.wishes[wish] === by);
  return {
    people: request.people.map(({ address, role }) => ({ address, must: role === 'must' })),
    length: request.length,
    from: request.from,
    days: request.days,
    zone,
    within: request.anyTime ? ('any' as const) : ('hours' as const),
    tentative: request.over ? ('counts' as const) : ('blocks' as const),
    padding: request.padding,
    place: request.place.trim() || null,
    there: request.there && request.place.trim() !== '',
    room: request.seats === null ? null : { seats: request.seats, site: request.site.trim() || null },
    wishes: turned(1),
    less: turned(-1),
    sheet,
    item: request.item,
  };
}

/** Times for what is asked, a moment after it stands still: once, or for a series. `body` is what the answer is for. */
export function useTimes(calendar: string, request: TimesRequest, zone: string, sheet: boolean) {
  const body = JSON.stringify({ ...bodyOf(request, zone, sheet), series: request.series });
  const settled = usePaused(body, PAUSE_MS);
  const { series, ...once } = JSON.parse(settled) as ReturnType<typeof bodyOf> & { series: TimesRequest['series'] };
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'openings', settled),
    queryFn: () => call('findTimes', { params: { calendar }, body: once }),
    placeholderData: (before) => before,
    retry: false,
  });
  const repeated = useQuery({
    queryKey: KEYS.calendar(calendar, 'openings', 'series', settled),
    queryFn: () => call('findSeriesTimes', { params: { calendar }, body: { ...once, every: 1, times: 2, ...series } }),
    enabled: series !== null,
    placeholderData: (before) => before,
    retry: false,
  });
  return {
    query,
    repeated,
    data: query.data as TimesAnswer | undefined,
    series: series === null ? undefined : (repeated.data as TimesSeriesAnswer | undefined),
    body: JSON.stringify(once),
  };
}

const number = (text: string | null, least: number, most: number, else_: number): number => {
  const n = Number(text);
  return text !== null && Number.isInteger(n) && n >= least && n <= most ? n : else_;
};

/** What an address asks for, as `paramsOf` writes it; whatever it doesn't say, or says wrongly, is as usual. */
export function requestFromParams(params: URLSearchParams, from: string): TimesRequest {
  const usual = plainRequest(from);
  const who = (name: string, role: InvitedPerson['role']) =>
    params
      .getAll(name)
      .filter((address) => address.includes('@'))
      .slice(0, 60)
      .map((address): InvitedPerson => ({ address: address.toLowerCase(), name: null, role, group: null }));
  const date = params.get('from');
  return {
    ...usual,
    people: [...who('with', 'must'), ...who('maybe', 'may')],
    length: number(params.get('length'), 5, 1440, usual.length),
    from: date !== null && parseDate(date) !== null ? date : from,
    days: number(params.get('days'), 1, 56, usual.days),
    place: (params.get('place') ?? '').slice(0, 300),
    there: params.get('there') === '1',
    seats: params.has('seats') ? number(params.get('seats'), 1, 100_000, 1) : null,
    site: (params.get('site') ?? '').slice(0, 300),
    anyTime: params.get('any') === '1',
    over: params.get('over') === '1',
    padding: number(params.get('padding'), 0, 240, 0),
    item: params.get('item'),
  };
}

/** An address that asks for the same. */
export function paramsOf(request: TimesRequest): URLSearchParams {
  const params = new URLSearchParams({
    from: request.from,
    length: String(request.length),
    days: String(request.days),
  });
  for (const { address, role } of request.people) params.append(role === 'must' ? 'with' : 'maybe', address);
  if (request.place.trim() !== '') params.set('place', request.place.trim());
  if (request.there) params.set('there', '1');
  if (request.seats !== null) params.set('seats', String(request.seats));
  if (request.site.trim() !== '') params.set('site', request.site.trim());
  if (request.anyTime) params.set('any', '1');
  if (request.over) params.set('over', '1');
  if (request.padding > 0) params.set('padding', String(request.padding));
  if (request.item !== null) params.set('item', request.item);
  return params;
}
