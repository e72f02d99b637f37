import { cpus } from 'node:os';
import Database from 'better-sqlite3';
import {
  findOpenings,
  type Movable,
  makeRoom,
  type OpeningsPerson,
  type OpeningsRequest,
} from '../src/core/openings/index.ts';
import { instantText } from '../src/core/time/index.ts';
import { line, sideBySide } from './measure.ts';

/* Times that work for fifty people over eight weeks, against reading their intervals from a file's pages; and making room. */
const MINUTE = 60_000;
const DAY = 1440;
const MONDAY = Date.UTC(2027, 2, 1) / MINUTE;
const WEEKS = 8;
const HOURS = [0, 1, 2, 3, 4, 5, 6].map((d) => (d < 5 ? [['09:00', '18:00'] as const] : []));

console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model}\n`);
search();
room();

/** A number that is always the same for the same place. */
function noise(n: number): number {
  return ((n * 2654435761) >>> 8) % 1000;
}

/** What is searched for: so many minutes from the first Monday on, within working hours. */
function requestUntil(until: number, length: number): OpeningsRequest {
  return {
    now: MONDAY,
    from: MONDAY,
    until,
    length,
    grid: 15,
    zone: 'Europe/Lisbon',
    notice: 0,
    tentative: 'blocks',
    within: 'hours',
    padBefore: 0,
    padAfter: 0,
    place: null,
    at: [],
  };
}

function search(): void {
  const db = new Database(':memory:');
  db.exec(
    'CREATE TABLE occurrence (calendar INTEGER, start INTEGER, finish INTEGER, PRIMARY KEY (calendar, start, finish)) WITHOUT ROWID',
  );
  const add = db.prepare('INSERT OR IGNORE INTO occurrence VALUES (?, ?, ?)');
  for (let p = 0; p < 50; p++)
    for (let d = 0; d < WEEKS * 7; d++)
      for (let i = 0; i < 6; i++) {
        const start = MONDAY + d * DAY + 480 + i * 95 + (noise(p * 7919 + d * 31 + i) % 12) * 5;
        add.run(p, start * MINUTE, (start + 30 + (noise(p + d + i) % 4) * 15) * MINUTE);
      }
  const all = db.prepare('SELECT calendar, start, finish FROM occurrence ORDER BY calendar, start').raw();
  const rows = all.all() as [number, number, number][];
  const people: OpeningsPerson[] = Array.from({ length: 50 }, (_, p) => ({
    id: `p${p}`,
    need: p < 4 ? 'must' : 'may',
    known: true,
    zone: p % 5 === 0 ? 'America/Bogota' : 'Europe/Lisbon',
    hours: HOURS,
    keeps: [],
    items: rows
      .filter(([calendar]) => calendar === p)
      .map(([, start, finish]) => ({
        start: instantText(start),
        end: instantText(finish),
        allDay: false,
        shows: 'busy',
      })),
  }));
  const request = requestUntil(MONDAY + WEEKS * 7 * DAY, 45);
  const found = findOpenings(request, people);
  const times = sideBySide(60, { serve: () => findOpenings(request, people), raw: () => all.all() });
  console.log(
    line(`openings of 50 people, ${rows.length} intervals, ${found.starts.length} found`, times.serve, times.raw),
  );
}

function room(): void {
  const people: OpeningsPerson[] = ['a', 'b', 'c'].map((id, p) => ({
    id,
    need: 'must',
    known: true,
    zone: 'Europe/Lisbon',
    hours: HOURS,
    keeps: [{ kind: 'rest', hard: true, days: [1, 2, 3, 4, 5], from: '12:00', to: '14:00', minutes: 45 }],
    items: Array.from({ length: 10 }, (_, i) => {
      const start = MONDAY + (i % 5) * DAY + 540 + ((i * 7 + p * 3) % 12) * 30;
      return {
        start: instantText(start * MINUTE),
        end: instantText((start + 60) * MINUTE),
        allDay: false,
        shows: 'busy',
      };
    }),
  }));
  const movable: Movable[] = Array.from({ length: 40 }, (_, i) => ({
    id: `m${i}`,
    people: [['a', 'b', 'c'][i % 3] as string],
    start: MONDAY + (i % 5) * DAY + 540 + Math.floor(i / 5) * 60,
    length: 60,
    cost: 1 + (noise(i) % 9),
    from: MONDAY,
    until: MONDAY + 5 * DAY,
  }));
  const request = requestUntil(MONDAY + 5 * DAY, 90);
  const started = performance.now();
  const { room: plan, cut } = makeRoom(request, people, [], movable, 3);
  const took = performance.now() - started;
  console.log(
    `make room, 40 movable, 3 moves: ${took.toFixed(0)} ms, ${plan ? `${plan.moves.length} moves at ${plan.cost}` : 'no plan'}${cut ? ', cut short' : ''}`,
  );
}
