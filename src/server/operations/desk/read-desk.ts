import type { DeskAnswer, DeskRowWire } from '@/contract/desk.ts';
import { takesTime } from '@/core/calendar/index.ts';
import type { DeskRow } from '@/core/desk/index.ts';
import { sameAddress } from '@/core/meetings/index.ts';
import { journeyMinutes, samePlace } from '@/core/openings/index.ts';
import { dateText, instantText, parseDate, toWall } from '@/core/time/index.ts';
import { deskKey } from '../../ids.ts';
import { meetingOfItem } from '../../repositories/meetings.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type ActedFor, type Context, Directory } from '../deciding/index.ts';
import { speaksOn, storedTime } from '../meetings/index.ts';
import { causeOf, type DeskRead, deskFor, deskPrincipals, type Gathered } from './desk.ts';
import { stepsOf } from './steps.ts';
import { twinsOf } from './twins.ts';

/** Rows in one answer, about how many bytes, and occurrences of a row. */
const MOST_ROWS = 500;
const MOST_BYTES = 4_000_000;
const MOST_ITEMS = 20;
const NOTHING = 5;

/** Those of whom a Desk is asked for: everybody one acts for, or one of them by handle. */
function wanted(all: ActedFor[], whom: string): ActedFor[] | null {
  if (whom === 'all') return all;
  const one = all.find(({ person }) => person.handle === whom);
  return one ? [one] : null;
}

/** Whether somebody begins at their Desk: who acts for anybody, and whoever has something to decide. */
export function beginsAtDesk(ctx: Context): boolean {
  const all = deskPrincipals(ctx);
  return all.length > 1 || deskFor(ctx, all).rows.length > 0;
}

/** What needs deciding, for oneself and everybody one acts for, the most pressing first: at most five hundred rows. */
export const readDesk = (ctx: Context, whom: string): Result<DeskAnswer> => ctx.db.read(() => answerOf(ctx, whom));

function answerOf(ctx: Context, whom: string): Result<DeskAnswer> {
  const all = deskPrincipals(ctx);
  const chosen = wanted(all, whom);
  if (!chosen) return refuse('notFound');
  const read = deskFor(ctx, chosen);
  const directory = new Directory(ctx.db);
  const rows: DeskRowWire[] = [];
  let bytes = 0;
  for (const one of read.rows) {
    const row = rowWire(ctx, one, directory, all);
    bytes += sizeOf(row);
    if (rows.length === MOST_ROWS || bytes > MOST_BYTES) break;
    rows.push(row);
  }
  return ok({
    now: instantText(ctx.now),
    rows,
    later: read.later,
    cut: read.rows.length > rows.length || read.all.some(({ cut }) => cut),
    principals: read.all.map((gathered) => principalWire(ctx, gathered, read)),
  });
}

/** About how many bytes a row takes: what is long in it are the texts of its occurrences and who comes to them. */
const sizeOf = ({ items }: DeskRowWire): number =>
  items.reduce(
    (sum, { notes, briefing, attendees }) =>
      sum + 800 + (notes?.length ?? 0) + (briefing?.length ?? 0) + 120 * (attendees?.length ?? 0),
    1000,
  );

function principalWire(ctx: Context, gathered: Gathered, { rows }: DeskRead): DeskAnswer['principals'][number] {
  const { person, decided, own } = gathered.one;
  return {
    handle: person.handle,
    name: person.name,
    address: person.address,
    colour: person.colour,
    calendar: decided.calendar.key,
    zone: person.zone,
    own,
    speaks: speaksOn(decided),
    rows: rows.filter((one) => one.gathered === gathered).length,
    acts: gathered.acts.filter((who) => who.id !== ctx.viewer.id).map(({ handle, name }) => ({ handle, name })),
    ...whereNow(ctx, gathered),
  };
}

/** Where somebody is now, until when, what is next and how long the way is: from the views of the viewer. */
function whereNow(
  ctx: Context,
  { seen, travel, one }: Gathered,
): Pick<DeskAnswer['principals'][number], 'here' | 'next' | 'way'> {
  const today = parseDate(dateText(toWall(one.person.zone, ctx.now))) ?? 0;
  const all = [...seen.values()].filter(({ fact }) => !fact.cancelled && fact.answer !== 'declined');
  const going = all.filter(({ fact }) =>
    fact.allDay ? fact.start <= today && today < fact.end : fact.start <= ctx.now && ctx.now < fact.end,
  );
  const isAway = ({ fact }: (typeof all)[number]) => fact.allDay && fact.shows === 'away';
  /** What says most of where somebody is comes first; `NOTHING`: it says nothing of it. */
  const rank = (item: (typeof all)[number]) => {
    const { fact, view } = item;
    // Whoever is away isn't where they are on such days as a rule.
    if (isAway(item)) return 2;
    if (fact.kind === 'whereabouts') return fact.allDay ? 4 : 3;
    return fact.allDay || !takesTime(view) ? NOTHING : fact.place ? 0 : 1;
  };
  const [now] = going
    .filter((item) => rank(item) < NOTHING)
    .sort((a, b) => rank(a) - rank(b) || a.fact.end - b.fact.end);
  const place = now?.fact.place ?? going.find(({ fact }) => fact.kind === 'whereabouts')?.fact.place ?? null;
  const next = all
    .filter(({ fact, view }) => !fact.allDay && takesTime(view) && fact.start > ctx.now)
    .sort((a, b) => a.fact.start - b.fact.start)[0];
  const minutes = place && next?.fact.place ? journeyMinutes(travel)(samePlace(place), samePlace(next.fact.place)) : 0;
  return {
    here: now ? { place: isAway(now) ? null : place, away: isAway(now), until: now.view.end } : null,
    next: next?.view ?? null,
    way: minutes > 0 ? minutes : null,
  };
}

function rowWire(
  ctx: Context,
  { row, gathered }: DeskRead['rows'][number],
  directory: Directory,
  all: readonly ActedFor[],
): DeskRowWire {
  const items = row.items.flatMap((id) => gathered.seen.get(id) ?? []);
  const known = gathered.known.get(causeOf(row.key).cause);
  const uid = items[0]?.fact.uid;
  const twin = row.kind === 'answer' && uid ? twinsOf(ctx, all, uid, row.for)[0] : undefined;
  const passed =
    row.passed === null ? null : gathered.words.findLast((w) => w.what === 'passed' && w.cause === row.key);
  return {
    key: deskKey(row.key),
    kind: row.kind,
    for: row.for,
    calendar: known?.calendar ?? gathered.one.decided.calendar.key,
    due: row.due === null ? null : instantText(row.due),
    part: row.part,
    score: row.score,
    parts: row.parts,
    items: items.slice(0, MOST_ITEMS).map(({ view }) => view),
    people: peopleOf(items, gathered),
    about: known?.about ?? meetingAbout(ctx, row, gathered, directory),
    steps: stepsOf(gathered, row),
    because: row.because.slice(0, 10).map((why) => becauseWire(why, gathered, directory)),
    open: [],
    passed: passed
      ? { to: directory.name(passed.toId ?? 0), by: directory.name(passed.byId), line: passed.line }
      : null,
    twin: twin ? { key: deskKey(twin.cause), for: twin.one.person.handle } : null,
  };
}

/** Whom the occurrences of a row concern beside whose calendar it is, as far as they are seen. */
function peopleOf(items: readonly { view: DeskRowWire['items'][number] }[], { one }: Gathered): DeskRowWire['people'] {
  const all = items.flatMap(({ view }) => [...(view.organiser ? [view.organiser] : []), ...(view.attendees ?? [])]);
  const others = all.filter(({ address }) => !sameAddress(address, one.person.address));
  return [...new Map(others.map(({ name, address }) => [address, { name: name ?? address, address }])).values()].slice(
    0,
    50,
  );
}

/** Of a meeting in doubt: who said no, proposes another time, or is silent. */
function meetingAbout(ctx: Context, row: DeskRow, { seen }: Gathered, directory: Directory): DeskRowWire['about'] {
  const doubts = new Set(row.because.flatMap((b) => ('who' in b ? b.who.map((who) => who.toLowerCase()) : [])));
  const item = seen.get(row.items[0] ?? '');
  if (!item || !['refused', 'proposal', 'silent'].includes(row.kind)) return null;
  const meeting = meetingOfItem(ctx.db, item.row.id);
  const state = meeting?.part === 'organiser' ? meeting.state : null;
  return {
    of: 'meeting',
    people: item.fact.asked
      .filter(({ who }) => doubts.has(who.toLowerCase()))
      .slice(0, 20)
      .map((one) => {
        const counter = state?.counters.find((c) => sameAddress(c.attendee, one.who));
        const time = counter && storedTime(counter.time);
        const text = time?.allDay ? dateText : instantText;
        return {
          name: directory.byAddress(one.who),
          address: one.who,
          answer: one.answer,
          since: instantText(one.since),
          proposes: time ? { start: text(time.start), end: text(time.end), allDay: time.allDay } : null,
          comment: counter?.comment ?? state?.given[one.who.toLowerCase()]?.comment ?? null,
        };
      }),
  };
}

function becauseWire(
  why: DeskRow['because'][number],
  { seen }: Gathered,
  directory: Directory,
): DeskRowWire['because'][number] {
  switch (why.why) {
    case 'refused':
    case 'proposal':
    case 'silent':
      return { why: why.why, who: why.who.slice(0, 20).map((who) => directory.byAddress(who)) };
    case 'clash':
      return {
        why: 'clash',
        items: why.items.slice(0, MOST_ITEMS).flatMap((id) => {
          const view = seen.get(id)?.view;
          return view ? [{ start: view.start, end: view.end, allDay: view.allDay, title: view.title ?? null }] : [];
        }),
      };
    case 'lapses':
      return { why: 'lapses', at: instantText(why.at) };
    default:
      return why;
  }
}
