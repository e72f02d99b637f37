import { NO_RIGHTS } from '../src/core/access/index.ts';
import { freshFields } from '../src/core/calendar/index.ts';
import type { Connection } from '../src/server/db/index.ts';
import { indexItem } from '../src/server/operations/deciding/index.ts';
import { addPerson } from '../src/server/operations/people/people.ts';
import { mainCalendarOf } from '../src/server/repositories/calendars.ts';
import { insertGrant } from '../src/server/repositories/grants.ts';
import { insertItem } from '../src/server/repositories/item-writes.ts';
import { MADE_HERE } from '../src/server/repositories/items.ts';

const DAY = 86_400_000;
const MONDAY = Date.UTC(2027, 0, 4);
export const LARGE_NOW = Date.UTC(2027, 2, 2, 9);
/** Series of each person, and how often each happens. */
const SERIES = 10;
const TIMES = 40;
const WORDS = ['Weir', 'Peat', 'Audit', 'Board', 'Heron', 'Rounds', 'Budget', 'Seed', 'Moor', 'Survey'];
const PLACES = ['Ridge House', 'Marsh Lab', 'Seed Store', 'North Hut', null];
/** People written in one transaction. */
const A_SLICE = 100;

/** A number below `most` that is always the same for the same place. */
const noise = (n: number, most: number): number => (((n + 1) * 2654435761) >>> 9) % most;

/**
 * An organisation of so many people, each with ten weekly series that happen forty times: four hundred occurrences a person, the same every
 * time. The first person is given the outline of thirty others, and everything by the second.
 */
export function seedLarge(db: Connection, people: number, told: (done: number) => void = () => {}): void {
  for (let from = 0; from < people; from += A_SLICE) {
    db.write(() => {
      for (let p = from; p < Math.min(people, from + A_SLICE); p++) onePerson(db, p);
    });
    told(Math.min(people, from + A_SLICE));
  }
}

function onePerson(db: Connection, p: number): void {
  const { id } = addPerson(db, LARGE_NOW - DAY, null, {
    name: `Person ${p}`,
    handle: `p${p}`,
    address: `p${p}@cloudmoor.example`,
    role: '',
    zone: 'Europe/Lisbon',
    account: `a${p}`,
  });
  const calendar = mainCalendarOf(db, id);
  if (!calendar) throw new Error('a person without a calendar');
  if (p > 0 && p <= 30)
    insertGrant(db, {
      key: `large ${p}`,
      collectionId: calendar.id,
      audience: { kind: 'person', personId: 1 },
      rights: { ...NO_RIGHTS, sight: p === 1 ? 'full' : 'outline' },
      starts: null,
      ends: null,
      givenBy: id,
      givenFor: id,
      byAdministrator: false,
      hangs: false,
      recordedFrom: LARGE_NOW - DAY,
    });
  for (let s = 0; s < SERIES; s++) {
    const n = p * SERIES + s;
    const start = MONDAY + noise(n, 5) * DAY + (8 + noise(n * 3, 9)) * 3_600_000 + noise(n * 7, 4) * 900_000;
    const item = insertItem(db, {
      ...MADE_HERE,
      ...freshFields(''),
      key: `large ${n}`,
      calendarId: calendar.id,
      uid: `large-${n}@cloudmoor.example`,
      seriesId: null,
      recurrence: null,
      start,
      end: start + (30 + noise(n * 11, 4) * 15) * 60_000,
      allDay: false,
      zone: 'Europe/Lisbon',
      rule: `FREQ=WEEKLY;COUNT=${TIMES}`,
      added: [],
      left: [],
      title: `${WORDS[noise(n * 13, 10)]} ${WORDS[noise(n * 17, 10)]} ${n}`,
      kind: 'meeting',
      place: PLACES[noise(n * 19, 5)] ?? null,
      notes: noise(n, 3) === 0 ? 'Bring the papers of last time.' : null,
      link: null,
      categories: [],
      importance: 'normal',
      shows: 'busy',
      visibility: 'follow',
      briefing: null,
      organiser: null,
      attendees: [],
      ownerAnswer: null,
      ownerInvited: false,
      cancelled: false,
      sequence: 0,
      version: 1,
      createdBy: id,
      createdFor: id,
      createdAt: LARGE_NOW - DAY,
      changedBy: id,
      changedFor: id,
      changedAt: LARGE_NOW - DAY,
      removedAt: null,
    });
    indexItem(db, calendar, item);
  }
}
