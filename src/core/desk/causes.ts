import { sameAddress as same } from '../meetings/index.ts';
import { samePlace } from '../openings/index.ts';
import { dateText } from '../time/index.ts';
import { type DeskDays, daysOf } from './days.ts';
import type { DeskAttendee, DeskItem, DeskKind, DeskPrincipal, DeskWord } from './facts.ts';
import type { DeskBecause, DeskCause } from './row.ts';
import { blocks, clashesOf, shared, shortWays, type Timed } from './time-taken.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Everything there is to decide for a principal at an instant, in no order. */
export function causesOf(principal: DeskPrincipal, now: number): DeskCause[] {
  const days = daysOf(principal, now);
  const timed = principal.facts.items.map((item): Timed => {
    if (!item.allDay) return { item, from: item.start, to: item.end };
    return { item, from: days.midnight(item.start), to: days.midnight(item.end) };
  });
  const around: Around = { principal, now, days, timed };
  return [
    ...invitations(around),
    ...meetings(around),
    ...clashes(around),
    ...journeys(around),
    ...holds(around),
    ...wishes(around),
    ...words(around),
    ...tasks(around),
    ...grants(around),
    ...absences(around),
  ];
}

/** What the kinds of rows are worked out from. */
interface Around {
  readonly principal: DeskPrincipal;
  readonly now: number;
  readonly days: DeskDays;
  readonly timed: readonly Timed[];
}

/** A cause of one fact that is no occurrence. */
function plainCause(
  { principal: { who } }: Around,
  kind: DeskKind,
  fact: { readonly id: string; readonly version: number },
  due: number | null,
  more: { readonly by?: string; readonly because?: readonly DeskBecause[]; readonly key?: string } = {},
): DeskCause {
  return {
    key: more.key ?? `${who}/${kind}:${fact.id}`,
    kind,
    due,
    items: [],
    because: more.because ?? [],
    versions: { [fact.id]: fact.version },
    spans: [],
    people: more.by === undefined ? [] : [more.by],
  };
}

/** What of a cause comes of its occurrences. */
function ofItems({ principal }: Around, list: readonly Timed[]): Pick<DeskCause, 'items' | 'spans' | 'people'> {
  return {
    items: list.map(({ item }) => item.id),
    spans: list.filter(({ item }) => !item.allDay).map(({ from, to }) => ({ from, to })),
    people: list.flatMap(({ item }) => [
      ...(item.calls === null ? [] : [item.calls]),
      ...others(principal, item).map(({ who }) => who),
    ]),
  };
}

const versionsOf = (list: readonly Timed[]): Record<string, number> =>
  Object.fromEntries(list.map(({ item }) => [item.id, item.version]));

/** Whoever is asked to an occurrence but the principal, rooms and things aside. */
const others = ({ address }: DeskPrincipal, { asked }: DeskItem): DeskAttendee[] =>
  asked.filter(({ who, thing }) => !thing && !same(who, address));

/** Whether an occurrence is an invitation that waits for the principal's answer. */
const waitsForAnswer = ({ principal, now }: Around, { item, to }: Timed): boolean =>
  item.answer === 'needs-action' &&
  item.calls !== null &&
  !same(item.calls, principal.address) &&
  !item.cancelled &&
  now < to;

function invitations(around: Around): DeskCause[] {
  const { principal, timed } = around;
  const waiting = timed.filter((one) => waitsForAnswer(around, one));
  if (waiting.length === 0) return [];
  const taken = blocking(around);
  return waiting.map((one): DeskCause => {
    const { item, from } = one;
    const clash = taken.filter((other) => shared(one, other) && other.to > around.now).map((other) => other.item.id);
    return {
      key: `${principal.who}/answer:${item.id}`,
      kind: 'answer',
      due: item.answerBy === null ? from - DAY : Math.min(item.answerBy, from),
      ...ofItems(around, [one]),
      because: clash.length > 0 ? [{ why: 'clash', items: clash }] : [],
      versions: versionsOf([one]),
    };
  });
}

/** The meetings that the principal calls and others are asked to, with all there is to decide about each in one row. */
function meetings(around: Around): DeskCause[] {
  const { principal, now, days, timed } = around;
  return timed.flatMap((one): DeskCause[] => {
    const { item, from } = one;
    const people = others(principal, item);
    if (item.calls === null || !same(item.calls, principal.address)) return [];
    if (people.length === 0 || item.cancelled || from <= now) return [];
    const found: { kind: DeskKind; due: number; because: DeskBecause }[] = [];
    const names = (list: readonly DeskAttendee[]) => list.map(({ who }) => who);
    // A room or a thing that said no counts as much as somebody who has to be there.
    const needed = item.asked.filter(
      ({ who, thing, need }) => thing || (need === 'must' && !same(who, principal.address)),
    );
    const refused = needed.filter(({ answer, without }) => answer === 'declined' && !without);
    if (refused.length > 0)
      found.push({ kind: 'refused', due: from, because: { why: 'refused', who: names(refused) } });
    const proposing = people.filter(({ proposes }) => proposes !== null && proposes > now && proposes !== from);
    if (proposing.length > 0)
      found.push({
        kind: 'proposal',
        due: Math.min(from, ...proposing.map(({ proposes }) => proposes as number)) - DAY,
        because: { why: 'proposal', who: names(proposing) },
      });
    const silent = people.filter(
      ({ need, answer, since, without }) =>
        need === 'must' && answer === 'needs-action' && since <= now - DAY && !without,
    );
    if (silent.length > 0 && from < days.endOfWorkingDay(3))
      found.push({ kind: 'silent', due: from - DAY, because: { why: 'silent', who: names(silent) } });
    if (from < days.endOfWorkingDay(5) && samePlace(item.place) === '' && samePlace(item.link) === '')
      found.push({ kind: 'unset', due: from - DAY, because: { why: 'unset' } });
    const [first] = found;
    if (!first) return [];
    return [
      {
        key: `${principal.who}/meeting:${item.id}`,
        kind: first.kind,
        due: Math.min(...found.map(({ due }) => due)),
        ...ofItems(around, [one]),
        because: found.map(({ because }) => because),
        versions: versionsOf([one]),
      },
    ];
  });
}

/** What takes the principal's time and may clash: not what waits for their answer. */
const blocking = (around: Around): Timed[] =>
  around.timed.filter((one) => blocks(one.item) && !waitsForAnswer(around, one));

function clashes(around: Around): DeskCause[] {
  const { principal, now } = around;
  return clashesOf(blocking(around), now, now + 14 * DAY).map(({ items, first }) => ({
    key: `${principal.who}/clash:${items.map(({ item }) => item.id).join('+')}`,
    kind: 'clash',
    due: first,
    ...ofItems(around, items),
    because: [],
    versions: versionsOf(items),
  }));
}

function journeys(around: Around): DeskCause[] {
  const { principal, now } = around;
  const short = shortWays(blocking(around), principal.facts.travel, now, now + 14 * DAY);
  return short.map(({ from, to, needs, has }) => ({
    key: `${principal.who}/journey:${from.item.id}>${to.item.id}`,
    kind: 'journey',
    due: from.to,
    ...ofItems(around, [from, to]),
    because: [{ why: 'journey', needs, has }],
    versions: versionsOf([from, to]),
  }));
}

function holds(around: Around): DeskCause[] {
  const { principal, now, timed } = around;
  const soon = (instant: number) => instant > now && instant <= now + 2 * DAY;
  return principal.facts.sets.flatMap((set): DeskCause[] => {
    const times = timed.filter(({ item }) => item.set === set.id && !item.cancelled);
    const ahead = times.filter(({ from }) => from > now);
    if (ahead.length === 0) return [];
    const lapses = set.lapses !== null && set.lapses > now ? set.lapses : null;
    if (!(lapses !== null && soon(lapses)) && !ahead.some(({ from }) => soon(from))) return [];
    return [
      {
        key: `${principal.who}/hold:${set.id}`,
        kind: 'hold',
        due: Math.min(...times.map(({ from }) => from), lapses ?? Number.POSITIVE_INFINITY),
        ...ofItems(around, times),
        because: lapses === null ? [] : [{ why: 'lapses', at: lapses }],
        versions: { [set.id]: set.version, ...versionsOf(ahead) },
      },
    ];
  });
}

function wishes(around: Around): DeskCause[] {
  const { principal, now, days } = around;
  return principal.facts.wishes.flatMap((wish) =>
    [...new Set(wish.days)].flatMap((date): DeskCause[] => {
      const begins = days.midnight(date);
      if (begins > now + 14 * DAY || days.midnight(date + DAY) <= now) return [];
      const key = `${principal.who}/wish:${wish.id}/${dateText(date)}`;
      return [plainCause(around, 'wish', wish, begins, { key })];
    }),
  );
}

/** What somebody said, asked or wrote, and what could not be sent. */
function words(around: Around): DeskCause[] {
  const { principal, now, days } = around;
  const { facts } = principal;
  const after = (n: number) => (word: DeskWord) => days.workingDaysAfter(word.at, n);
  const each = (kind: DeskKind, list: readonly DeskWord[], due: (word: DeskWord) => number | null) =>
    list.map((word) => plainCause(around, kind, word, due(word), { by: word.by }));
  const suggestions = facts.suggestions.flatMap((one): DeskCause[] => {
    const starts = [one.before, one.after].filter((start) => start !== null);
    const ahead = starts.filter((start) => start > now);
    if (starts.length > 0 && ahead.length === 0) return [];
    const due = Math.min(after(2)(one), ...ahead.map((start) => start - DAY));
    return [plainCause(around, 'suggestion', one, due, { by: one.by })];
  });
  return [
    ...suggestions,
    ...each('ask', facts.asks, after(2)),
    ...each('claim', facts.claims, after(1)),
    ...each('letter', facts.letters, ({ at }) => at),
    ...each('mail', facts.mails, (mail) => (principal.first.some((who) => same(who, mail.by)) ? after(1)(mail) : null)),
  ];
}

function tasks(around: Around): DeskCause[] {
  const { principal, days } = around;
  return principal.facts.tasks.flatMap((task): DeskCause[] => {
    if (task.done || task.due === null) return [];
    const due = 'instant' in task.due ? task.due.instant : days.midnight(task.due.date + DAY) - 60_000;
    return due < days.endOfWorkingDay(1) ? [plainCause(around, 'task', task, due)] : [];
  });
}

function grants(around: Around): DeskCause[] {
  const { principal, now } = around;
  const access = principal.facts.grants.flatMap((grant): DeskCause[] => {
    if (grant.ends !== null && grant.ends <= now) return [];
    if (grant.ends !== null && grant.ends <= now + 7 * DAY)
      return [plainCause(around, 'grant', grant, grant.ends, { because: [{ why: 'ends' }] })];
    return grant.given <= now - 30 * DAY && !grant.used
      ? [plainCause(around, 'grant', grant, null, { because: [{ why: 'unused' }] })]
      : [];
  });
  return [...access, ...principal.facts.findings.map((finding) => plainCause(around, 'open', finding, null))];
}

function absences(around: Around): DeskCause[] {
  const { principal, now, days } = around;
  return principal.facts.absences.flatMap((absence): DeskCause[] => {
    const { from, until, notice, cover } = absence;
    if (until <= now || from >= days.endOfWorkingDay(3) || (notice && cover)) return [];
    const because: DeskBecause[] = [
      ...(notice ? [] : [{ why: 'notice' as const }]),
      ...(cover ? [] : [{ why: 'cover' as const }]),
    ];
    return [plainCause(around, 'away', absence, from, { because })];
  });
}
