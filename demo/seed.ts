import { newItem } from '../src/contract/items/items.ts';
import type { AudienceWire } from '../src/contract/sharing/sharing.ts';
import { PRESETS, type Rights } from '../src/core/access/index.ts';
import { dateText, parseDate, weekStart } from '../src/core/time/index.ts';
import { makeAccount } from '../src/server/auth/accounts.ts';
import { DEMO_PASSWORD } from '../src/server/auth/demo-password.ts';
import { now } from '../src/server/clock.ts';
import { type Connection, database } from '../src/server/db/index.ts';
import { addAbsence } from '../src/server/operations/absences/index.ts';
import { type Context, contextFor } from '../src/server/operations/deciding/context/context.ts';
import { listItems } from '../src/server/operations/items/list-items.ts';
import { createMeeting } from '../src/server/operations/meetings/index.ts';
import { changeDomains } from '../src/server/operations/people/domains.ts';
import { addGroup, setWithin } from '../src/server/operations/people/groups.ts';
import { addPerson, beginCalendar, changePreferences, findBoard } from '../src/server/operations/people/people.ts';
import { findPerson } from '../src/server/operations/people/session.ts';
import { setReminderWish } from '../src/server/operations/reminders/index.ts';
import { listAccessRequests } from '../src/server/operations/sharing/access-requests.ts';
import { answerAccessRequest } from '../src/server/operations/sharing/answer-access-request.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import { requestAccess } from '../src/server/operations/sharing/request-access.ts';
import { wishForRule } from '../src/server/operations/sharing/rule-wishes.ts';
import { listSightlines } from '../src/server/operations/sharing/sightlines.ts';
import { putForward } from '../src/server/operations/suggestions/suggestions.ts';
import { saveJourneys } from '../src/server/repositories/journeys.ts';
import { settings } from '../src/server/settings.ts';
import { sampleContacts } from './contacts.ts';
import { fillerWeek, seededRandom } from './fillers.ts';
import { sampleFolders } from './folders.ts';
import { answerAll, correspond, leave, OUTSIDE_ASKED, readAll, writeFromOutside } from './meetings.ts';
import { addressFor, DOMAINS, GROUPS, OUTSIDE, PEOPLE, phoneFor } from './people.ts';
import { sampleTasks } from './tasks.ts';
import {
  AMARA_WEEKLY,
  AMARA_WEEKS,
  BRUNO_WEEKLY,
  BRUNO_WEEKS,
  INES_WEEKLY,
  INES_WEEKS,
  type Sample,
  TOMAS_WEEKLY,
  TOMAS_WEEKS,
  type Weekly,
} from './weeks.ts';

const DAY = 86_400_000;
const WEEKS_BACK = 5;

/** Seeds Cloudmoor Trust through the operations, around a day: the same day gives the same organisation. */
export async function seed(
  db: Connection,
  at: number,
  makeAccountFor = makeAccount,
): Promise<{ people: number; items: number }> {
  const monday = weekStart(Math.floor(at / DAY) * DAY);
  for (const p of PEOPLE) {
    const address = addressFor(p.handle);
    const account = p.resource ? null : await makeAccountFor(address, p.name, DEMO_PASSWORD);
    addPerson(db, at, null, {
      name: p.name,
      handle: p.handle,
      address,
      role: p.role,
      site: p.site,
      phone: phoneFor(p),
      zone: p.zone ?? 'Europe/Lisbon',
      colour: p.colour,
      administrator: p.administrator ?? false,
      kind: p.desk ? 'role' : 'person',
      resource: p.resource ?? null,
      size: p.size ?? null,
      account,
    });
  }
  const person = (handle: string) => {
    const found = findPerson(db, handle);
    if (!found) throw new Error(`no sample person ${handle}`);
    return found;
  };
  const ctx = (handle: string) => ({ ...contextFor(person(handle), db), now: at });
  const calendar = (handle: string) => findBoard(ctx(handle), handle)?.calendar ?? '';
  const groups = new Map(GROUPS.map((g) => [g.name, addGroup(ctx('ines'), g.name, g.members.map(person))]));
  const done = (result: { ok: boolean }) => {
    if (!result.ok) throw new Error(JSON.stringify(result));
  };
  for (const g of GROUPS)
    for (const inner of g.within ?? [])
      done(setWithin(ctx('ines'), groups.get(g.name) ?? '', { group: groups.get(inner) ?? '', within: true }));
  done(changeDomains(ctx('ines'), { domains: [...DOMAINS] }));

  const give = (
    owner: string,
    audience: AudienceWire,
    rights: Rights,
    more: { weeks?: [number | null, number]; note?: string } = {},
  ) => {
    const day = (week: number, weekday: number) => dateText(monday + (week * 7 + weekday) * DAY);
    const result = giveAccess(ctx(owner), calendar(owner), {
      audience,
      rights,
      seen: null,
      span: more.weeks
        ? {
            from: more.weeks[0] === null ? null : day(more.weeks[0], 0),
            until: day(more.weeks[1], 4),
            zone: person(owner).zone,
          }
        : null,
      tell: more.note === undefined ? null : { note: more.note },
    });
    if (!result.ok) throw new Error(`${owner}: ${JSON.stringify(result)}`);
  };
  give('ines', { kind: 'person', id: 'tomas' }, PRESETS.delegate, { note: 'The water clause stays with us two.' });
  give('bruno', { kind: 'person', id: 'tomas' }, { ...PRESETS.arranger, private: true });
  const reminded = (who: string, of: string, minutes: number) =>
    setReminderWish(ctx(who), calendar(of), { minutes, byMail: false });
  reminded('tomas', 'ines', 10);
  // When people work, and how long it takes between the sites.
  const nine: [string, string][] = [['09:00', '18:00']];
  for (const { handle } of PEOPLE.filter((p) => !p.resource)) {
    const me = person(handle);
    const workHours = [nine, nine, nine, nine, nine, [], []];
    const { zone, hours, weekFirst, dateOrder } = me;
    done(changePreferences(ctx(handle), { zone, hours, weekFirst, dateOrder, workHours }));
  }
  saveJourneys(db, [
    ['Ridge House', 'Marsh Lab', 35],
    ['Ridge House', 'Seed Store', 20],
    ['Ridge House', 'North Hut', 70],
    ['Marsh Lab', 'Seed Store', 25],
    ['Ridge House', 'Weir Inn', 10],
    ['Ridge House', 'Mill Lane', 15],
    ['Marsh Lab', 'Mill Lane', 30],
  ]);
  reminded('ines', 'ines', 5);

  let items = 0;
  const add = (owner: string, by: string, sample: Sample | Weekly, date: string, rule: string | null) => {
    const whose = sample.callers ?? owner;
    // The same meeting in the calendar of who calls it: whoever is asked to it gets it from there.
    if (sample.callers && called.has(`${whose} ${sample.title}`)) return;
    // What somebody outside calls comes by mail.
    if (sample.answer && !sample.callers && !sample.with) return;
    const item = itemFor(whose, owner, sample, date, rule, person(owner).zone);
    const maker = whose === owner ? by : whose;
    const result = createMeeting({ ...ctx(maker), now: at - 90_000 }, calendar(whose), item);
    if (!result.ok) throw new Error(`${owner} ${sample.title}: ${JSON.stringify(result)}`);
    items++;
  };
  const called = new Set(
    Object.entries({
      ines: [INES_WEEKLY, INES_WEEKS],
      amara: [AMARA_WEEKLY, AMARA_WEEKS],
      bruno: [BRUNO_WEEKLY, BRUNO_WEEKS],
    })
      .flatMap(([handle, lists]) => lists.flat().map((s) => [handle, s] as const))
      .filter(([, s]) => s.with && !s.callers)
      .map(([handle, s]) => `${handle} ${s.title}`),
  );
  const fill = (owner: string, weekly: readonly Weekly[], weeks: readonly Sample[]) => {
    for (const w of weekly) {
      const first = monday - WEEKS_BACK * 7 * DAY + w.day * DAY;
      add(owner, w.by ?? owner, w, dateText(first), w.rule ?? 'FREQ=WEEKLY');
    }
    for (const s of weeks) add(owner, s.by ?? owner, s, dateText(monday + (s.week * 7 + s.day) * DAY), null);
  };
  fill('ines', INES_WEEKLY, INES_WEEKS);
  fill('bruno', BRUNO_WEEKLY, BRUNO_WEEKS);
  fill('tomas', TOMAS_WEEKLY, TOMAS_WEEKS);
  fill('amara', AMARA_WEEKLY, AMARA_WEEKS);

  leave(db, at - 70_000, ctx, ['Year end, list of doubts']);
  answerAll(db, at - 50_000, ctx);
  readAll(db, ctx);
  await correspond(db, settings().data, at - 40_000);
  await writeFromOutside(db, settings().data, at - 30_000, monday);
  await correspond(db, settings().data, at - 5_000);

  const told = new Set(['ines', 'bruno', 'tomas', 'amara']);
  const random = seededRandom(20_270_301);
  for (const p of [...PEOPLE.filter((q) => !told.has(q.handle) && !q.resource)])
    for (const week of [0, 1])
      for (const s of fillerWeek(random, week))
        add(p.handle, p.handle, s, dateText(monday + (week * 7 + s.day) * DAY), null);
  // The weeks around the told ones aren't empty either.
  for (const week of [-5, -4, -3, -2, -1, 2, 3, 4, 5, 6])
    for (const s of fillerWeek(random, week).slice(0, 6 - Math.floor(Math.abs(week) / 2)))
      add('ines', 'tomas', s, dateText(monday + (week * 7 + s.day) * DAY), null);

  give('ines', { kind: 'person', id: 'bruno' }, PRESETS.full);
  give('ines', { kind: 'person', id: 'dario' }, PRESETS.shutOut);
  give('ines', { kind: 'person', id: 'pim' }, PRESETS.helper, {
    note: 'Put forward what you would move; Tomas says yes or no.',
  });
  give('ines', { kind: 'person', id: 'oona' }, PRESETS.delegate, {
    weeks: [2, 3],
    note: 'While Tomas is on leave. He leaves you a list.',
  });
  give('ines', { kind: 'group', id: groups.get('Leadership') ?? '' }, PRESETS.outline);
  give('ines', { kind: 'person', id: 'amara' }, PRESETS.outline);
  give('ines', { kind: 'address', ...OUTSIDE[0] }, PRESETS.freeBusy, {
    weeks: [null, 6],
    note: 'For the weeks of the audit, so that you needn’t ask for every date.',
  });
  give('bruno', { kind: 'address', ...OUTSIDE[1] }, PRESETS.freeBusy);
  give('bruno', { kind: 'person', id: 'ines' }, PRESETS.full);
  give('bruno', { kind: 'group', id: groups.get('Finance') ?? '' }, PRESETS.titles);
  give('amara', { kind: 'group', id: groups.get('Marsh Lab team') ?? '' }, PRESETS.full);
  give('tomas', { kind: 'person', id: 'ines' }, PRESETS.full);
  items += visits(ctx('ines'), monday);
  done(
    wishForRule(ctx('tomas'), {
      changes: [{ rule: 'outsideSight', wanted: 'title' }],
      further: false,
      note: 'Marta asks what she may move. Titles would do.',
    }),
  );
  putForwardByPim(ctx('pim'), calendar('ines'), monday);
  seedAccessRequests(ctx, dateText(monday + 25 * DAY));
  sampleTasks(ctx, monday, calendar('ines'));
  sampleContacts(ctx);
  sampleFolders(ctx);
  // Five weeks on she walks the moor for three days, and Tomas has written the notice.
  const walk = monday + 5 * 7 * DAY;
  done(
    addAbsence(ctx('tomas'), 'ines', {
      from: dateText(walk),
      until: dateText(walk + 2 * DAY),
      inside: 'On the moor until Thursday, without a signal. Tomas reads along.',
      outside: 'I am away until Thursday and read this then. In a hurry, write to t.lindqvist@cloudmoor.example.',
      cover: 'tomas',
      declines: false,
    }),
  );
  return { people: PEOPLE.length, items };
}

/** Who asks for access: one who plans around her, one for some weeks, and one whose request was answered. */
function seedAccessRequests(ctx: (handle: string) => Context, until: string): void {
  const request = (
    who: string,
    to: string,
    rights: Rights,
    why: string,
    more: { until?: string; offers?: 'outline'; what?: 'contacts' } = {},
  ) => {
    const span = more.until ? { from: null, until: more.until, zone: 'Europe/Lisbon' } : null;
    const { offers = null, what = 'calendar' } = more;
    const requested = requestAccess(ctx(who), { to: [to], what, calendar: null, rights, span, why, offers });
    if (!requested.ok) throw new Error(`${who}: ${JSON.stringify(requested)}`);
  };
  request('maren', 'ines', PRESETS.titles, 'So that the volunteers’ walks don’t fall on your field days.', { until });
  request('amara', 'bruno', PRESETS.outline, 'I send the field orders when you are at Ridge House to sign them.', {
    offers: 'outline',
  });
  request('greta', 'lucia', PRESETS.full, 'For the seed exchange.');
  request('nils', 'ines', PRESETS.full, 'The ministry’s numbers, for the lease of the north meadow.', {
    what: 'contacts',
    until,
  });
  const listed = listAccessRequests(ctx('lucia'));
  const [first] = listed.ok ? listed.value.waiting : [];
  const { key = '', turns = 0 } = first ?? {};
  const note = 'Titles are enough for that, I think.';
  const given = answerAccessRequest(ctx('lucia'), key, {
    answer: 'give',
    turns,
    rights: PRESETS.titles,
    span: null,
    seen: null,
    note,
  });
  if (!given.ok) throw new Error(JSON.stringify(given));
}

/** What the new assistant would change in the week of the start, for Inés or Tomas to answer. */
function putForwardByPim(pim: Context, calendar: string, monday: number): void {
  const zone = 'Europe/Lisbon';
  const week = { from: dateText(monday), to: dateText(monday + 7 * DAY), zone };
  const listed = listItems(pim, calendar, week);
  const items = listed.ok ? listed.value.items : [];
  const roof = items.find((i) => i.maySuggest && i.title === 'Seed Store roof');
  if (!roof) throw new Error('nothing to put forward');
  const on = (day: number, start: string, end: string) => {
    const date = dateText(monday + day * DAY);
    return { start: `${date}T${start}`, end: `${date}T${end}`, allDay: false, zone };
  };
  for (const body of [
    {
      kind: 'change' as const,
      item: roof.id,
      when: on(2, '14:00', '15:00'),
      fields: {},
      why: 'It lies over Leadership, and Greta is at the store until one.',
    },
    {
      kind: 'add' as const,
      item: newItem.parse({ when: on(3, '08:30', '09:00'), title: 'Read the river board’s minutes', kind: 'focus' }),
      why: 'They come on Wednesday evening.',
    },
  ]) {
    const put = putForward(pim, calendar, body);
    if (!put.ok) throw new Error(JSON.stringify(put));
  }
}

/** A further calendar, made to be seen: open days, with titles and places for everyone inside, and a link on the trust's site. */
function visits(ines: Context, monday: number): number {
  const made = beginCalendar(ines, { of: 'ines', name: 'Visits to the moor' });
  if (!made.ok) throw new Error(JSON.stringify(made));
  const { calendar } = made.value;
  const everyone = listSightlines(ines, calendar);
  const seen = everyone.ok ? (everyone.value.rows[0]?.grants[0]?.key ?? null) : null;
  giveAccess(ines, calendar, { audience: { kind: 'everyone' }, rights: PRESETS.outline, seen });
  giveAccess(ines, calendar, {
    audience: { kind: 'newLink', name: 'Visitors’ page' },
    rights: PRESETS.freeBusy,
    seen: null,
  });
  const list = [
    [0, 3, '10:00', '12:30', 'School at the seed store', 'Seed Store'],
    [0, 5, '09:30', '15:00', 'Open day on the ridge', 'Ridge House'],
    [1, 2, '13:00', '16:00', 'Volunteers: first walk', 'North Hut'],
    [2, 5, '09:30', '15:00', 'Open day at the marsh', 'Marsh Lab'],
  ] as const;
  for (const [week, day, from, to, title, place] of list) {
    const date = dateText(monday + (week * 7 + day) * DAY);
    const when = { start: `${date}T${from}`, end: `${date}T${to}`, allDay: false, zone: 'Europe/Lisbon' };
    const result = createMeeting(ines, calendar, newItem.parse({ when, title, place }));
    if (!result.ok) throw new Error(JSON.stringify(result));
  }
  return list.length;
}

function itemFor(whose: string, owner: string, s: Sample | Weekly, date: string, rule: string | null, ownZone: string) {
  const zone = s.zone ?? ownZone;
  const invited = [...(s.with ?? []), ...(s.callers ? [owner] : [])].filter((handle) => handle !== whose);
  const people = [
    ...invited.map((handle) => ({ address: addressFor(handle), role: 'must' as const })),
    ...(OUTSIDE_ASKED[s.title] ?? []),
    ...Object.entries(ROOMS).flatMap(([place, room]) =>
      s.place === place && invited.length > 0 ? [{ address: addressFor(room), role: 'must' as const }] : [],
    ),
  ];
  return newItem.parse({
    when: s.days
      ? { start: date, end: dateText((parseDate(date) ?? 0) + s.days * DAY), allDay: true, zone }
      : { start: `${date}T${s.at}`, end: `${date}T${s.to}`, allDay: false, zone },
    ...(rule ? { repeat: { rule } } : {}),
    title: s.title,
    kind: s.kind ?? 'meeting',
    place: s.place ?? null,
    notes: s.notes ?? null,
    link: s.link ?? null,
    shows: s.shows ?? 'busy',
    visibility: s.visibility ?? 'follow',
    importance: s.important ? 'high' : 'normal',
    briefing: s.briefing ?? null,
    ...(people.length > 0 ? { people } : {}),
  });
}

/** The rooms that some places of the sample name. */
const ROOMS: Readonly<Record<string, string>> = {
  'Ridge House, south room': 'south-room',
  'Ridge House, north room': 'north-room',
  'Marsh Lab, hall': 'marsh-hall',
};

if (process.argv[1]?.endsWith('seed.ts')) {
  const db = database();
  const made = await seed(db, now());
  console.log(`Cloudmoor Trust: ${made.people} people, ${made.items} items and series.`);
  process.exit(0);
}
