import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { newItem } from '../src/contract/items/items.ts';
import {
  decide,
  PRESETS,
  readerOf,
  STARTING_HOUSE_RULES,
  type Standing,
  type Viewer,
} from '../src/core/access/index.ts';
import type { Item } from '../src/core/calendar/index.ts';
import { dateText } from '../src/core/time/index.ts';
import { type Connection, openDatabase } from '../src/server/db/index.ts';
import { contextFor } from '../src/server/operations/deciding/context/context.ts';
import { listItems } from '../src/server/operations/items/list-items.ts';
import { createMeeting } from '../src/server/operations/meetings/index.ts';
import { listPeople } from '../src/server/operations/people/list-people.ts';
import { addPerson, findBoard } from '../src/server/operations/people/people.ts';
import { findPerson } from '../src/server/operations/people/session.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import { line, sideBySide } from './measure.ts';

/* `npm run bench`: every speed as a ratio to a floor measured in the same run. */
const DAY = 86_400_000;
const NOW = Date.UTC(2027, 2, 2, 9);
const RANGE = { from: '2027-03-01', to: '2027-03-08', zone: 'Europe/Lisbon' };

const folder = mkdtempSync(join(tmpdir(), 'paramo-bench-'));
const db = openDatabase(folder);
try {
  console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model}\n`);
  seed(db);
  serveWeek(db);
  projectMany();
  directory(db);
} finally {
  db.raw.close();
  rmSync(folder, { recursive: true, force: true });
}

function context(handle: string) {
  const person = findPerson(db, handle);
  if (!person) throw new Error(handle);
  return { ...contextFor(person, db), now: NOW };
}

/** Fifty calendars of twenty weeks, sixty items a week; one of them given to four people in four ways. */
function seed(db: Connection): void {
  db.write(() => {
    for (let p = 0; p < 50; p++)
      addPerson(db, NOW - DAY, null, {
        name: `Person ${p}`,
        handle: `p${p}`,
        address: `p${p}@cloudmoor.example`,
        role: '',
        zone: 'Europe/Lisbon',
        account: `a${p}`,
      });
  });
  for (let p = 0; p < 50; p++) {
    const ctx = context(`p${p}`);
    const calendar = findBoard(ctx, `p${p}`)?.calendar ?? '';
    ctx.db.write(() => {
      for (let week = -10; week < (p < 5 ? 10 : -9); week++)
        for (let i = 0; i < 60; i++) {
          const date = dateText(Date.UTC(2027, 2, 1) + (week * 7 + (i % 7)) * DAY);
          const hour = String(8 + (i % 10)).padStart(2, '0');
          const made = createMeeting(
            ctx,
            calendar,
            newItem.parse({
              when: { start: `${date}T${hour}:00`, end: `${date}T${hour}:45`, allDay: false, zone: 'Europe/Lisbon' },
              title: `Item ${i} of the week`,
              place: i % 3 ? 'Ridge House, south room' : null,
              notes: i % 2 ? 'Bring the peat line down by a tenth, or say why not. '.repeat(3) : null,
              visibility: i % 9 ? 'follow' : 'private',
            }),
            ctx.viewer.id,
            {
              organiser: null,
              attendees: i % 4 ? [] : [{ name: 'Person 1', address: 'p1@cloudmoor.example', answer: 'accepted' }],
              ownerAnswer: null,
            },
          );
          if (!made.ok) throw new Error(made.code);
        }
    });
  }
  const owner = context('p0');
  const calendar = findBoard(owner, 'p0')?.calendar ?? '';
  for (const [handle, rights] of [
    ['p1', PRESETS.delegate],
    ['p2', PRESETS.full],
    ['p3', PRESETS.outline],
  ] as const)
    giveAccess(owner, calendar, { audience: { kind: 'person', id: handle }, rights, seen: null });
}

/** A week of one calendar, decided, projected and encoded, against reading and encoding the same columns of the same rows. */
function serveWeek(db: Connection): void {
  const calendar = findBoard(context('p0'), 'p0')?.calendar ?? '';
  const id = db.get<{ id: number }>('SELECT id FROM collection WHERE key = ?', calendar)?.id;
  const [from, to] = [Date.UTC(2027, 2, 1), Date.UTC(2027, 2, 8)];
  const floorFor = (columns: string) => {
    const read = db.raw.prepare(
      `SELECT o.start, o.finish${columns} FROM occurrence o JOIN item i ON i.id = o.item_id
       WHERE o.calendar_id = ? AND o.start >= ? AND o.start < ? ORDER BY o.start`,
    );
    return () => JSON.stringify(read.all(id, from, to));
  };
  const busy =
    ', i.id, i.all_day, i.shows, i.visibility, i.cancelled, i.owner_answer, i.parties, i.owner_invited, i.created_by';
  const outline = `${busy}, i.key, i.title, i.kind, i.place`;
  const full = `${outline}, i.notes, i.link, i.organiser, i.attendees, i.categories, i.importance, i.rule, i.added, i.left_out,
    i.series_id, i.zone, i.version, i.created_for, i.created_at, i.changed_by, i.changed_for, i.changed_at`;
  for (const [what, handle, columns] of [
    ['in full, to its owner', 'p0', `${full}, i.briefing`],
    ['in full, to a delegate', 'p1', `${full}, i.briefing`],
    ['in full, to a reader', 'p2', full],
    ['in outline', 'p3', outline],
    ['free/busy', 'p9', busy],
  ] as const) {
    const ctx = context(handle);
    const times = sideBySide(600, {
      serve: () => JSON.stringify(listItems(ctx, calendar, RANGE)),
      raw: floorFor(columns),
    });
    console.log(line(`a week of one calendar (60 items), ${what}`, times.serve, times.raw));
  }
}

/** Deciding and projecting 10,000 items, against building the same objects without deciding. */
function projectMany(): void {
  const items = Array.from(
    { length: 10_000 },
    (_, i): Item<string, string> => ({
      start: '2027-03-02T10:00:00Z',
      end: '2027-03-02T11:00:00Z',
      allDay: false,
      shows: i % 5 ? 'busy' : 'tentative',
      visibility: 'follow',
      cancelled: false,
      ownerAnswer: 'accepted',
      title: `Item ${i}`,
      kind: 'meeting',
      place: 'Ridge House',
      importance: 'normal',
      notes: null,
      link: null,
      organiser: null,
      attendees: [],
      categories: [],
      repeats: null,
      createdBy: 'p0',
      briefing: null,
    }),
  );
  const standing: Standing = { named: false, created: false, ownerInvited: false };
  const viewer: Viewer = { kind: 'person', id: 'v', inside: true, groups: new Set() };
  const collection = (rights: (typeof PRESETS)[keyof typeof PRESETS]) => ({
    kind: 'calendar' as const,
    main: true,
    owner: 'p0',
    suspended: false,
    grants: [{ key: 'g', audience: { kind: 'person' as const, id: 'v' }, rights, from: null, until: null }],
  });
  const build = {
    full: (i: Item<string, string>) => ({
      start: i.start,
      end: i.end,
      allDay: i.allDay,
      shows: i.shows,
      title: i.title,
      kind: i.kind,
      place: i.place,
      notes: i.notes,
      link: i.link,
      organiser: i.organiser,
      attendees: i.attendees,
      categories: i.categories,
      importance: i.importance,
      repeats: i.repeats,
      visibility: i.visibility,
      createdBy: i.createdBy,
    }),
    outline: (i: Item<string, string>) => ({
      start: i.start,
      end: i.end,
      allDay: i.allDay,
      shows: i.shows,
      title: i.title,
      kind: i.kind,
      place: i.place,
    }),
    busy: (i: Item<string, string>) => ({ start: i.start, end: i.end, allDay: i.allDay, shows: i.shows }),
  };
  for (const [what, preset, made] of [
    ['full', 'full', build.full],
    ['outline', 'outline', build.outline],
    ['free/busy', 'freeBusy', build.busy],
  ] as const) {
    const shared = collection(PRESETS[preset]);
    const times = sideBySide(200, {
      decided: () => {
        const reader = readerOf(decide(shared, viewer, NOW, STARTING_HOUSE_RULES));
        return items.map((item) => reader.view(item, standing));
      },
      plain: () => items.map(made),
    });
    console.log(line(`decide and project 10,000 items, ${what}`, times.decided, times.plain));
  }
}

/** The directory with what one viewer sees of each of 5,000 calendars, against reading the same rows. */
function directory(db: Connection): void {
  db.write(() => {
    for (let p = 50; p < 5000; p++)
      addPerson(db, NOW - DAY, null, {
        name: `Person ${p}`,
        handle: `p${p}`,
        address: `p${p}@cloudmoor.example`,
        role: '',
        zone: 'Europe/Lisbon',
        colour: p % 6,
        account: `a${p}`,
      });
  });
  const ctx = context('p1');
  const read = db.raw.prepare(
    `SELECT p.handle, p.name, p.address, p.role, p.site, p.colour, g.* FROM person p
     JOIN collection c ON c.owner_id = p.id AND c.main = 1
     JOIN access_grant g ON g.collection_id = c.id AND g.recorded_until IS NULL ORDER BY p.name`,
  );
  const times = sideBySide(30, {
    decided: () => listPeople(ctx),
    encoded: () => JSON.stringify(listPeople(ctx)),
    raw: () => JSON.stringify(read.all()),
  });
  console.log(line('5,000 calendars decided for one viewer', times.decided, times.raw));
  console.log(line('the directory with levels, the same encoded', times.encoded, times.raw));
}
