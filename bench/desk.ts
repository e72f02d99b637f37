import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { newItem } from '../src/contract/items/items.ts';
import { PRESETS } from '../src/core/access/index.ts';
import { dateText } from '../src/core/time/index.ts';
import { type Connection, openDatabase } from '../src/server/db/index.ts';
import { contextFor } from '../src/server/operations/deciding/context/context.ts';
import { principalsOf } from '../src/server/operations/deciding/index.ts';
import { readDesk } from '../src/server/operations/desk/index.ts';
import { listItems } from '../src/server/operations/items/list-items.ts';
import { createMeeting } from '../src/server/operations/meetings/index.ts';
import { addPerson, findBoard } from '../src/server/operations/people/people.ts';
import { findPerson } from '../src/server/operations/people/session.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import { line, sideBySide } from './measure.ts';

/* The Desk of somebody who acts for twelve, of five hundred rows, against reading the same weeks as boards do. */
const DAY = 86_400_000;
const NOW = Date.UTC(2027, 2, 2, 9);
const PRINCIPALS = 12;
const ROUNDS = 30;
const folder = mkdtempSync(join(tmpdir(), 'paramo-desk-'));
const db = openDatabase(folder);
try {
  console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model}\n`);
  seed(db);
  const me = context('p0');
  const keys = principalsOf(me).map(({ decided }) => decided.calendar.key);
  const range = { from: dateText(NOW), to: dateText(NOW + 17 * DAY), zone: 'Europe/Lisbon' };
  const all = readDesk(me, 'all');
  const { desk, boards, one } = sideBySide(ROUNDS, {
    desk: () => JSON.stringify(readDesk(me, 'all')),
    boards: () => JSON.stringify(keys.map((key) => listItems(me, key, range))),
    one: () => JSON.stringify(readDesk(me, 'p1')),
  });
  console.log(`${all.ok ? all.value.rows.length : 0} rows, cut: ${all.ok && all.value.cut}`);
  console.log(line(`the Desk over ${keys.length} people; floor: the same weeks as boards`, desk, boards));
  console.log(line('one of them alone; floor: the same weeks of all', one, boards));
} finally {
  db.raw.close();
  rmSync(folder, { recursive: true, force: true });
}

function context(handle: string) {
  const person = findPerson(db, handle);
  if (!person) throw new Error(handle);
  return { ...contextFor(person, db), now: NOW };
}

/** Twelve people who are acted for, each with forty items of their own and over forty that overlap, in sixteen days. */
function seed(into: Connection): void {
  into.write(() => {
    for (let p = 0; p <= PRINCIPALS; p++)
      addPerson(into, NOW - DAY, null, {
        name: `Person ${p}`,
        handle: `p${p}`,
        address: `p${p}@cloudmoor.example`,
        role: '',
        zone: 'Europe/Lisbon',
        account: `a${p}`,
      });
    for (let p = 1; p <= PRINCIPALS; p++) {
      const owner = context(`p${p}`);
      const key = findBoard(owner, `p${p}`)?.calendar ?? '';
      const audience = { kind: 'person', id: 'p0' } as const;
      giveAccess(owner, key, { audience, rights: PRESETS.delegate, seen: null });
      for (let n = 0; n < 84; n++) {
        const day = dateText(NOW + (1 + (n % 14)) * DAY);
        const hour = 8 + 2 * Math.floor(n / 28);
        const at = (h: number) => `${day}T${String(h).padStart(2, '0')}:00`;
        const when = { start: at(hour), end: at(hour + 1 + (n % 2)), allDay: false, zone: 'Europe/Lisbon' };
        createMeeting(owner, key, newItem.parse({ title: `Item ${n}`, place: 'Ridge House', when }));
      }
    }
  });
}
