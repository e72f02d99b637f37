import { useQuery } from '@tanstack/react-query';
import { call } from '@/contract/call.ts';
import type { Principal } from '@/contract/frame.ts';
import { readNext } from '@/core/sentence/index.ts';
import { dateText, parseInstant, toWall } from '@/core/time/index.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { DAY, MINUTE } from '../common/times.ts';
import { formOf } from '../items/form/form-of.ts';
import type { FormDraft } from '../items/form/item-values.ts';
import { bodyOf, paramsOf, plainRequest, type TimesRequest } from '../items/times/times-request.ts';

const PAUSE_MS = 200;
/** How far ahead the next one is looked for. */
const DAYS = 28;

/** The next time that is asked for in a sentence: what it asks, the screen it is shown on, and the answer as soon as it is known. */
export interface NextOpening {
  readonly request: TimesRequest;
  readonly names: readonly string[];
  readonly screen: string;
  /** In whose calendar it is looked for. */
  readonly principal: Principal;
  /** All times are asked for, to choose among; otherwise the next. */
  readonly all: boolean;
  /** `null` where none works; absent while it is looked for. */
  readonly found?: { readonly start: number; readonly end: number; readonly form: FormDraft } | null;
}

/** Reads what is typed as asking for the next time of some length for whom the window works, and looks for it. */
export function useNextOpening(
  typed: string,
  works: Principal | null,
  people: readonly { readonly name: string; readonly address: string }[],
  places: readonly string[],
): NextOpening | null {
  const { frame, style, now } = useFrame();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const said = readNext(typed, {
    today,
    language: style.language,
    dateOrder: style.dateOrder,
    people: people.map((p) => p.name),
    places,
  });
  // Named alone, whom one acts for is asked about as in their own window, where they are included.
  const alone = said?.people.length === 1 ? frame.principals.find((p) => p.name === said.people[0]) : undefined;
  const principal = alone ?? works;
  const others = said?.people.filter((name) => name !== principal?.name) ?? [];
  const request: TimesRequest | null = said && {
    ...plainRequest(dateText(said.days?.first ?? today)),
    days: said.days?.count ?? DAYS,
    length: said.minutes,
    place: said.place ?? '',
    // With nobody named it is whose calendar it is that has to be there.
    there: said.place !== null && others.length === 0,
    people: others.map((name) => {
      const known = people.find((p) => p.name === name);
      return { address: known?.address ?? name.toLowerCase(), name: known?.name ?? null, role: 'must', group: null };
    }),
  };
  const body = request && JSON.stringify(bodyOf(request, style.zone, false));
  const settled = usePaused(body, PAUSE_MS);
  const calendar = principal?.calendar ?? '';
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'openings', 'next', settled),
    queryFn: () => call('findTimes', { params: { calendar }, body: JSON.parse(settled ?? '') }),
    enabled: settled !== null && settled === body && calendar !== '',
    retry: false,
  });
  if (!said || !request || !principal) return null;
  const screen = `/for/${principal.handle}/openings?${paramsOf(request)}`;
  const names = request.people.map((p) => p.name ?? p.address);
  const next = { request, names, screen, principal, all: said.all };
  const at = query.data?.next;
  if (at === undefined || settled !== body) return next;
  if (at === null) return { ...next, found: null };
  const start = toWall(style.zone, parseInstant(at) ?? 0);
  const end = start + request.length * MINUTE;
  const taken = { start, end, people: request.people, place: request.place, rule: null };
  return { ...next, found: { start, end, form: formOf(taken, null) } };
}
