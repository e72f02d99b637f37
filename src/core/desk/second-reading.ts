import { Temporal } from 'temporal-polyfill/implementation';
import type { DeskItem, DeskKind, DeskPrincipal, DeskSaid } from './facts.ts';

/*
 * The rule of the Desk read a second time, line by line and as slowly as it is written, with nothing shared with the first but the shape of
 * the facts. For tests only.
 */

interface Row {
  key: string;
  kind: string;
  due: number | null;
  part: string;
  score: number;
}

const TABLE =
  'answer refused proposal silent unset clash journey hold wish suggestion ask claim letter mail task grant open away'.split(
    ' ',
  );
const WEIGHT: Record<string, number> = Object.fromEntries(
  (
    'answer 50, proposal 55, refused 60, clash 60, journey 55, unset 40, silent 45, hold 45, wish 20, suggestion 35, ' +
    'ask 35, claim 40, letter 65, mail 25, task 40, grant 20, open 15, away 30'
  )
    .split(', ')
    .map((one) => [one.split(' ')[0], Number(one.split(' ')[1])]),
);
const HOURS = (n: number) => n * 3_600_000;

/** A calendar's days through Temporal alone. */
function calendar(principal: DeskPrincipal, now: number) {
  const zoned = (instant: number) => Temporal.Instant.fromEpochMilliseconds(instant).toZonedDateTimeISO(principal.zone);
  // 'compatible' moves a time the clocks leave out on by the gap, and takes the first of a doubled one.
  const put = (date: Temporal.PlainDate, time: Temporal.PlainTime) =>
    date.toPlainDateTime(time).toZonedDateTime(principal.zone, { disambiguation: 'compatible' }).epochMilliseconds;
  const midnight = (date: Temporal.PlainDate) => put(date, Temporal.PlainTime.from('00:00'));
  const named = (principal.hours ?? []).map((list) => list.filter(([a, b]) => a !== b && a < b).length > 0);
  const isWorking = (date: Temporal.PlainDate) =>
    named.some((some) => some) ? named[date.dayOfWeek - 1] === true : date.dayOfWeek <= 5;
  const nth = (date: Temporal.PlainDate, n: number) => {
    let at = date;
    let found = 0;
    while (found < n) {
      at = at.add({ days: 1 });
      if (isWorking(at)) found += 1;
    }
    return at;
  };
  const today = zoned(now).toPlainDate();
  return {
    midnight,
    plain: (date: number) => Temporal.PlainDate.from('1970-01-01').add({ days: date / 86_400_000 }),
    before: (n: number) => midnight(nth(today, n).add({ days: 1 })),
    later: (instant: number, n: number) => put(nth(zoned(instant).toPlainDate(), n), zoned(instant).toPlainTime()),
  };
}

export function secondReading(
  viewer: string,
  principals: readonly DeskPrincipal[],
  said: readonly DeskSaid[],
  now: number,
): Row[] {
  const all: { row: Row; principal: number; shown: boolean }[] = [];
  principals.forEach((principal, place) => {
    for (const cause of rowsOf(principal, now)) {
      const row = ranked(principal, cause, now);
      all.push({ row, principal: place, shown: isShown(viewer, principal, cause, row, said, now) });
    }
  });
  const rank = (one: (typeof all)[number]) => [
    ['now', 'soon', 'time'].indexOf(one.row.part),
    -one.row.score,
    one.row.due ?? Number.POSITIVE_INFINITY,
    TABLE.indexOf(one.row.kind),
    one.principal,
  ];
  return all
    .filter(({ shown }) => shown)
    .sort((a, b) => {
      const [x, y] = [rank(a), rank(b)];
      for (let i = 0; i < x.length; i++) {
        const [p, q] = [x[i] as number, y[i] as number];
        if (p !== q) return p < q ? -1 : 1;
      }
      return points(a.row.key) < points(b.row.key) ? -1 : 1;
    })
    .map(({ row }) => row);
}

interface Cause {
  key: string;
  kind: DeskKind;
  due: number | null;
  occurrences: Occurrence[];
  who: string[];
  versions: string;
}
interface Occurrence {
  item: DeskItem;
  start: number;
  end: number;
}

const versionText = (list: [string, number][]) => JSON.stringify([...list].sort((a, b) => (a[0] < b[0] ? -1 : 1)));

function rowsOf(principal: DeskPrincipal, now: number): Cause[] {
  const { facts, who } = principal;
  const days = calendar(principal, now);
  const mine = (address: string) => address.toLowerCase() === principal.address.toLowerCase();
  const occurrences: Occurrence[] = facts.items.map((item) => ({
    item,
    start: item.allDay ? days.midnight(days.plain(item.start)) : item.start,
    end: item.allDay ? days.midnight(days.plain(item.end)) : item.end,
  }));
  const asked = (h: Occurrence) => h.item.asked.filter((a) => !a.thing && !mine(a.who));
  const rows: Cause[] = [];
  const of = (kind: DeskKind, name: string, due: number | null, about: Occurrence[], versions: [string, number][]) =>
    rows.push({
      key: `${who}/${name}`,
      kind,
      due,
      occurrences: about,
      who: about.flatMap((h) => [h.item.calls ?? '', ...asked(h).map((a) => a.who)]),
      versions: versionText(versions),
    });
  const fact = (kind: DeskKind, one: { id: string; version: number }, due: number | null, by = '', name?: string) =>
    rows.push({
      key: `${who}/${name ?? `${kind}:${one.id}`}`,
      kind,
      due,
      occurrences: [],
      who: [by],
      versions: versionText([[one.id, one.version]]),
    });
  const items = (list: Occurrence[]): [string, number][] => list.map((h) => [h.item.id, h.item.version]);

  const isAnswer = (h: Occurrence) =>
    h.item.answer === 'needs-action' &&
    h.item.calls !== null &&
    !mine(h.item.calls) &&
    !h.item.cancelled &&
    !(now >= h.end);
  for (const h of occurrences)
    if (isAnswer(h)) {
      const due = h.item.answerBy !== null ? Math.min(h.item.answerBy, h.start) : h.start - HOURS(24);
      of('answer', `answer:${h.item.id}`, due, [h], items([h]));
    }

  for (const h of occurrences) {
    const called =
      h.item.calls !== null && mine(h.item.calls) && asked(h).length > 0 && !h.item.cancelled && now < h.start;
    if (!called) continue;
    const dues: Partial<Record<DeskKind, number>> = {};
    for (const a of h.item.asked) {
      const counts = a.thing || (a.need === 'must' && !mine(a.who));
      if (counts && a.answer === 'declined' && !a.without) dues.refused = h.start;
    }
    const proposed = asked(h).flatMap((a) =>
      a.proposes === null || a.proposes <= now || a.proposes === h.start ? [] : [a.proposes],
    );
    if (proposed.length > 0) dues.proposal = [h.start, ...proposed].sort((a, b) => a - b)[0] as number;
    if (dues.proposal !== undefined) dues.proposal -= HOURS(24);
    const quiet = asked(h).some(
      (a) => a.need === 'must' && a.answer === 'needs-action' && now - a.since >= HOURS(24) && !a.without,
    );
    if (quiet && h.start < days.before(3)) dues.silent = h.start - HOURS(24);
    const nowhere = (h.item.place ?? '').trim() === '' && (h.item.link ?? '').trim() === '';
    if (nowhere && h.start < days.before(5)) dues.unset = h.start - HOURS(24);
    const kinds = (['refused', 'proposal', 'silent', 'unset'] as const).filter((kind) => dues[kind] !== undefined);
    if (kinds[0])
      of(kinds[0], `meeting:${h.item.id}`, Math.min(...kinds.map((k) => dues[k] as number)), [h], items([h]));
  }

  const blocking = occurrences.filter(
    (h) =>
      ['busy', 'tentative', 'away'].includes(h.item.shows) &&
      h.item.kind !== 'whereabouts' &&
      !h.item.cancelled &&
      h.item.answer !== 'declined' &&
      !isAnswer(h),
  );
  const sameOne = (a: Occurrence, b: Occurrence) =>
    (a.item.set !== null && a.item.set === b.item.set) || (a.item.uid !== null && a.item.uid === b.item.uid);
  const both = (a: Occurrence, b: Occurrence): [number, number] | null => {
    const [from, to] = [Math.max(a.start, b.start), Math.min(a.end, b.end)];
    return from < to && a !== b && !sameOne(a, b) ? [from, to] : null;
  };
  const limit = now + HOURS(14 * 24);
  const counts = (a: Occurrence, b: Occurrence) => {
    const time = both(a, b);
    return time !== null && Math.max(time[0], now) < Math.min(time[1], limit);
  };
  const name = (list: Occurrence[]) =>
    [...list].sort((a, b) => a.start - b.start || (points(a.item.id) < points(b.item.id) ? -1 : 1));
  const clash = (list: Occurrence[]) => {
    const ordered = name(list);
    const firsts = ordered.flatMap((a) => ordered.flatMap((b) => both(a, b)?.[0] ?? []));
    of('clash', `clash:${ordered.map((h) => h.item.id).join('+')}`, Math.min(...firsts), ordered, items(ordered));
  };
  for (let i = 0; i < blocking.length; i++)
    for (let j = i + 1; j < blocking.length; j++) {
      const [a, b] = [blocking[i] as Occurrence, blocking[j] as Occurrence];
      if ((a.item.allDay || b.item.allDay) && counts(a, b)) clash([a, b]);
    }
  const left = blocking.filter((h) => !h.item.allDay);
  while (left.length > 0) {
    const group = [left.shift() as Occurrence];
    for (let grew = true; grew; ) {
      const next = left.findIndex((h) => group.some((member) => counts(member, h)));
      grew = next >= 0;
      if (grew) group.push(...left.splice(next, 1));
    }
    if (group.length > 1) clash(group);
  }

  const place = (h: Occurrence) => (h.item.place ?? '').trim().toLowerCase();
  const stops = blocking.filter((h) => !h.item.allDay && h.end > h.start && place(h) !== '');
  for (const h of stops) {
    if (h.end < now || h.end >= limit) continue;
    const next = name(stops.filter((o) => o !== h && o.start >= h.end && !sameOne(h, o)))[0];
    if (!next || place(next) === place(h)) continue;
    const ways = facts.travel.filter(([a, b]) => {
      const ends = [a.trim().toLowerCase(), b.trim().toLowerCase()];
      return ends.includes(place(h)) && ends.includes(place(next));
    });
    const minutes = Math.max(0, ...ways.map(([, , m]) => m));
    if (minutes > Math.floor((next.start - h.end) / 60_000))
      of('journey', `journey:${h.item.id}>${next.item.id}`, h.end, [h, next], items([h, next]));
  }

  for (const set of facts.sets) {
    const times = occurrences.filter((h) => h.item.set === set.id && !h.item.cancelled);
    const coming = times.filter((h) => now < h.start);
    const lapse = set.lapses !== null && set.lapses > now ? set.lapses : null;
    const soon = (t: number | null) => t !== null && t > now && t <= now + HOURS(48);
    if (coming.length === 0 || !(soon(lapse) || coming.some((h) => soon(h.start)))) continue;
    const due = Math.min(...times.map((h) => h.start), ...(lapse === null ? [] : [lapse]));
    of('hold', `hold:${set.id}`, due, times, [[set.id, set.version], ...items(coming)]);
  }

  for (const wish of facts.wishes)
    for (const day of new Set(wish.days)) {
      const date = days.plain(day);
      const [begins, ends] = [days.midnight(date), days.midnight(date.add({ days: 1 }))];
      if (ends > now && begins <= now + HOURS(14 * 24))
        fact('wish', wish, begins, '', `wish:${wish.id}/${date.toString()}`);
    }
  for (const s of facts.suggestions) {
    const starts = [s.before, s.after].filter((t): t is number => t !== null);
    const ahead = starts.filter((t) => t > now);
    if (starts.length > 0 && ahead.length === 0) continue;
    const most = days.later(s.at, 2);
    const early = ahead.length === 0 ? most : Math.min(...ahead) - HOURS(24);
    fact('suggestion', s, Math.min(early, most), s.by);
  }
  for (const a of facts.asks) fact('ask', a, days.later(a.at, 2), a.by);
  for (const c of facts.claims) fact('claim', c, days.later(c.at, 1), c.by);
  for (const l of facts.letters) fact('letter', l, l.at, l.by);
  for (const m of facts.mails) {
    const goesFirst = principal.first.map((f) => f.toLowerCase()).includes(m.by.toLowerCase());
    fact('mail', m, goesFirst ? days.later(m.at, 1) : null, m.by);
  }
  for (const t of facts.tasks) {
    if (t.done || t.due === null) continue;
    const due = 'date' in t.due ? days.midnight(days.plain(t.due.date).add({ days: 1 })) - 60_000 : t.due.instant;
    if (due < days.before(1) || due < now) fact('task', t, due);
  }
  for (const g of facts.grants) {
    const hasEnded = g.ends !== null && g.ends <= now;
    const endsSoon = g.ends !== null && !hasEnded && g.ends <= now + HOURS(7 * 24);
    if (endsSoon) fact('grant', g, g.ends);
    else if (!hasEnded && now - g.given >= HOURS(30 * 24) && !g.used) fact('grant', g, null);
  }
  for (const f of facts.findings) fact('open', f, null);
  for (const a of facts.absences)
    if (now < a.until && (a.from < days.before(3) || a.from <= now) && (!a.notice || !a.cover)) fact('away', a, a.from);
  return rows;
}

const points = (text: string) => [...text].map((c) => (c.codePointAt(0) ?? 0).toString(16).padStart(6, '0')).join('');

function ranked(principal: DeskPrincipal, cause: Cause, now: number): Row {
  const days = calendar(principal, now);
  const { due } = cause;
  let near = 0;
  if (due !== null && now - due > HOURS(48)) near = 20;
  else if (due !== null && due <= now) near = 40;
  else if (due !== null) near = Math.max(0, Math.floor((40 * (10_080 - Math.floor((due - now) / 60_000))) / 10_080));
  const hand = cause.occurrences.some(
    (h) => !h.item.allDay && now < h.end && (h.start <= now || h.start - now <= HOURS(2)),
  );
  const person = cause.who.some(
    (address) =>
      address.toLowerCase() !== principal.address.toLowerCase() &&
      principal.first.some((f) => f.toLowerCase() === address.toLowerCase()),
  );
  const score =
    (WEIGHT[cause.kind] as number) + (principal.shifts[cause.kind] ?? 0) + near + (hand ? 30 : 0) + (person ? 15 : 0);
  const part = due === null ? 'time' : due < days.before(0) ? 'now' : due < days.before(5) ? 'soon' : 'time';
  return { key: cause.key, kind: cause.kind, due, part, score };
}

function isShown(
  viewer: string,
  principal: DeskPrincipal,
  cause: Cause,
  { due }: Row,
  said: readonly DeskSaid[],
  now: number,
): boolean {
  const here = said.map((one, i) => ({ ...one, i })).filter(({ key }) => key === cause.key);
  const last = (list: typeof here) => [...list].sort((a, b) => b.at - a.at || b.i - a.i)[0];
  const later = last(here.filter((s) => s.what === 'later' && s.by === viewer));
  if (later && later.until !== null && now < later.until && !(due !== null && due > later.at && now >= due))
    return false;
  const left = last(here.filter((s) => s.what === 'left'));
  if (left && versionText(Object.entries(left.versions)) === cause.versions) return false;
  const passed = last(here.filter((s) => s.what === 'passed' && s.to !== principal.who));
  if (passed?.to && principal.acts.includes(passed.to) && !principal.away.includes(passed.to))
    return viewer === passed.to || viewer === principal.who;
  return true;
}
