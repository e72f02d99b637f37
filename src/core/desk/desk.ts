import { sameAddress } from '../meetings/index.ts';
import { causesOf } from './causes.ts';
import { type DeskDays, daysOf } from './days.ts';
import type { DeskKind, DeskPrincipal, DeskSaid } from './facts.ts';
import { compareRows } from './order.ts';
import type { DeskCause, DeskRow, DeskScore } from './row.ts';
import { byCodePoints } from './time-taken.ts';

const HOUR = 3_600_000;
/** Minutes of a week: what is due later is not near. */
const WEEK_MINUTES = 10_080;

/** How much each kind counts before anything else does. */
const DESK_WEIGHTS: Readonly<Record<DeskKind, number>> = {
  answer: 50,
  refused: 60,
  proposal: 55,
  silent: 45,
  unset: 40,
  clash: 60,
  journey: 55,
  hold: 45,
  wish: 20,
  suggestion: 35,
  ask: 35,
  claim: 40,
  letter: 65,
  mail: 25,
  task: 40,
  grant: 20,
  open: 15,
  away: 30,
};

/** What a viewer has to decide, for each principal as they stand in the band, and how many rows they put off for later. */
export interface Desk {
  readonly rows: readonly DeskRow[];
  readonly later: number;
}

/**
 * The rows of a desk in their order (docs/desk.md). Pure: the same facts give the same rows. `viewer` is a principal or acts for each of them; the
 * facts are what the viewer sees and may decide. `now` in epoch milliseconds. Cost: about the pairs of occurrences that share time.
 */
export function deskOf(
  viewer: string,
  principals: readonly DeskPrincipal[],
  said: readonly DeskSaid[],
  now: number,
): Desk {
  const saidOf = new Map<string, DeskSaid[]>();
  for (const one of said) {
    const before = saidOf.get(one.key);
    if (before) before.push(one);
    else saidOf.set(one.key, [one]);
  }
  const rows: { row: DeskRow; band: number }[] = [];
  let later = 0;
  for (const [band, principal] of principals.entries()) {
    const days = daysOf(principal, now);
    for (const cause of causesOf(principal, now)) {
      const shown = shownTo(viewer, principal, cause, saidOf.get(cause.key) ?? [], now);
      if (shown === 'later') later++;
      else if (shown !== 'hidden') rows.push({ row: rowOf(principal, days, cause, shown.passed, now), band });
    }
  }
  rows.sort((a, b) => compareRows(a.row, b.row) || a.band - b.band || byCodePoints(a.row.key, b.row.key));
  return { rows: rows.map(({ row }) => row), later };
}

function rowOf(
  principal: DeskPrincipal,
  days: DeskDays,
  cause: DeskCause,
  passed: string | null,
  now: number,
): DeskRow {
  const parts = scoreOf(principal, cause, now);
  const { key, kind, due, items, because, versions } = cause;
  return {
    key,
    kind,
    for: principal.who,
    due,
    part: due === null || due >= days.endOfWorkingDay(5) ? 'time' : due < days.endOfWorkingDay(0) ? 'now' : 'soon',
    score: parts.weight + parts.shift + parts.near + parts.atHand + parts.person,
    parts,
    items,
    because,
    versions,
    passed,
  };
}

/** How near a due instant is: most from now on and for two days after, less the further it lies ahead or back. */
function nearness(due: number | null, now: number): number {
  if (due === null) return 0;
  if (due < now - 48 * HOUR) return 20;
  if (due <= now) return 40;
  const minutes = Math.floor((due - now) / 60_000);
  return Math.max(0, Math.floor((40 * (WEEK_MINUTES - minutes)) / WEEK_MINUTES));
}

function scoreOf(principal: DeskPrincipal, { kind, due, spans, people }: DeskCause, now: number): DeskScore {
  const atHand = spans.some(({ from, to }) => now < to && from <= now + 2 * HOUR);
  const concerned = people.some(
    (who) => !sameAddress(who, principal.address) && principal.first.some((one) => sameAddress(one, who)),
  );
  return {
    weight: DESK_WEIGHTS[kind],
    shift: principal.shifts[kind] ?? 0,
    near: nearness(due, now),
    atHand: atHand ? 30 : 0,
    person: concerned ? 15 : 0,
  };
}

/** Whether a viewer is shown a row, by what was said of it: put off by themselves, left by anybody, or passed on to somebody else. */
function shownTo(
  viewer: string,
  principal: DeskPrincipal,
  cause: DeskCause,
  said: readonly DeskSaid[],
  now: number,
): 'later' | 'hidden' | { readonly passed: string | null } {
  const left = latest(said.filter(({ what }) => what === 'left'));
  if (left && sameVersions(left.versions, cause.versions)) return 'hidden';
  // It stays with whom it was passed on to for as long as they act and are there; never with the principal, who has it anyway.
  const to = latest(said.filter((one) => one.what === 'passed' && one.to !== principal.who))?.to ?? null;
  const passed = to !== null && principal.acts.includes(to) && !principal.away.includes(to) ? to : null;
  if (passed !== null && viewer !== passed && viewer !== principal.who) return 'hidden';
  const later = latest(said.filter(({ what, by }) => what === 'later' && by === viewer));
  if (later?.until && now < later.until) {
    // What becomes due comes back by itself, where that lay ahead when it was put off.
    const ahead = cause.due !== null && cause.due > later.at;
    if (!ahead || now < (cause.due as number)) return 'later';
  }
  return { passed };
}

/** The latest of what was said; of two at one instant the later in the list. */
const latest = (said: readonly DeskSaid[]): DeskSaid | undefined =>
  said.reduce<DeskSaid | undefined>((last, one) => (last && last.at > one.at ? last : one), undefined);

function sameVersions(a: Readonly<Record<string, number>>, b: Readonly<Record<string, number>>): boolean {
  const ids = Object.keys(a);
  return ids.length === Object.keys(b).length && ids.every((id) => a[id] === b[id]);
}
