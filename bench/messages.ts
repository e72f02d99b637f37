import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { newItem } from '../src/contract/items.ts';
import { PRESETS } from '../src/core/access/index.ts';
import { type Connection, openDatabase } from '../src/server/db/index.ts';
import { contextFor } from '../src/server/operations/deciding/context.ts';
import { answerItem, createMeeting, releaseDue } from '../src/server/operations/meetings/index.ts';
import { listMessages } from '../src/server/operations/messages/list-messages.ts';
import { addPerson, findBoard } from '../src/server/operations/people/people.ts';
import { findPerson } from '../src/server/operations/people/session.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import { mainCalendarOf } from '../src/server/repositories/calendars.ts';
import { unansweredIn } from '../src/server/repositories/items.ts';
import { line, sideBySide } from './measure.ts';

/* Five hundred meetings of twenty people, and the ten thousand messages that come of them: listing them, and answering one. */
const NOW = Date.UTC(2027, 2, 2, 9);
const MEETINGS = 500;
const PEOPLE = 20;

const folder = mkdtempSync(join(tmpdir(), 'paramo-bench-'));
const db = openDatabase(folder);
try {
  console.log(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model}\n`);
  seed(db);
  listing(db);
  answering(db);
} finally {
  db.raw.close();
  rmSync(folder, { recursive: true, force: true });
}

function context(handle: string, now = NOW) {
  const person = findPerson(db, handle);
  if (!person) throw new Error(handle);
  return { ...contextFor(person, db), now };
}

function seed(db: Connection): void {
  db.write(() => {
    for (let p = 0; p <= PEOPLE + 1; p++)
      addPerson(db, NOW, null, {
        name: `Person ${p}`,
        handle: `p${p}`,
        address: `p${p}@cloudmoor.example`,
        role: '',
        zone: 'Europe/Lisbon',
        account: `a${p}`,
      });
  });
  const owner = context('p0');
  const calendar = findBoard(owner, 'p0')?.calendar ?? '';
  const audience = { kind: 'person' as const, id: 'p21' };
  giveAccess(owner, calendar, { audience, rights: PRESETS.delegate, seen: null });
  const people = Array.from({ length: PEOPLE }, (_, p) => ({
    address: `p${p + 1}@cloudmoor.example`,
    name: null,
    role: 'must' as const,
  }));
  const call = (of: string, n: number, who: typeof people) => {
    const day = String(1 + (n % 27)).padStart(2, '0');
    const month = String(3 + Math.floor(n / 27 / 2)).padStart(2, '0');
    const hour = String(8 + (n % 10)).padStart(2, '0');
    const when = {
      start: `2027-${month}-${day}T${hour}:00`,
      end: `2027-${month}-${day}T${hour}:45`,
      allDay: false,
      zone: 'Europe/Lisbon',
    };
    const key = findBoard(context(of), of)?.calendar ?? '';
    createMeeting(context(of), key, newItem.parse({ when, title: `Meeting ${n}`, people: who }));
  };
  db.write(() => {
    for (let n = 0; n < MEETINGS; n++) call('p0', n, people);
  });
  while (releaseDue(db, NOW + 20_000) > 0);
  for (let p = 1; p <= PEOPLE; p++)
    db.write(() => {
      const ctx = context(`p${p}`, NOW + 20_000);
      const own = mainCalendarOf(db, ctx.viewer.id);
      for (const item of own ? unansweredIn(db, own.id, 0, MEETINGS) : [])
        answerItem(ctx, item.key, { answer: 'accepted', comment: 'Gladly', seen: 'needs-action', scope: 'all' });
    });
  while (releaseDue(db, NOW + 40_000) > 0);
  // And what she was asked to herself.
  for (let n = 0; n < 60; n++) call('p1', n, [{ address: 'p0@cloudmoor.example', name: null, role: 'must' }]);
  while (releaseDue(db, NOW + 60_000) > 0);
  const count = db.get<{ n: number }>(
    `SELECT count(*) AS n FROM message m JOIN collection c ON c.id = m.collection_id WHERE c.name = 'Arrived' AND c.owner_id = ?`,
    owner.viewer.id,
  );
  console.log(`${MEETINGS} meetings of ${PEOPLE}, ${count?.n} messages arrived for whoever calls them\n`);
}

/** The first page of messages, by thread, against reading and encoding the rows it is made of. */
function listing(db: Connection): void {
  const owner = context('p0').viewer.id;
  const read = (sql: string) => db.raw.prepare(sql);
  const messages = read('SELECT * FROM message WHERE collection_id = ? ORDER BY id DESC LIMIT 300');
  const folders = db.all<{ id: number }>(`SELECT id FROM collection WHERE owner_id = ? AND kind = 'folder'`, owner);
  const meeting = read('SELECT * FROM meeting WHERE id = ?');
  const item = read('SELECT * FROM item WHERE id = ?');
  const open = read(
    `SELECT * FROM item WHERE calendar_id = ? AND owner_answer = 'needs-action' AND owner_invited = 1 AND removed_at IS NULL
     AND cancelled = 0 AND finish > ? ORDER BY start LIMIT 100`,
  );
  const calendar = mainCalendarOf(db, owner)?.id;
  type Row = { id: number; meeting_id: number | null; recipients: string; facts: string; refs: string };
  type Held = { item_id: number | null; state: string };
  const raw = () => {
    const rows = folders
      .flatMap(({ id }) => messages.all(id) as Row[])
      .sort((a, b) => b.id - a.id)
      .slice(0, 300)
      .slice(0, 50);
    const ids = [...new Set(rows.flatMap((r) => r.meeting_id ?? []))];
    const held = ids.map((id) => meeting.get(id) as Held);
    const items = held.map((h) => item.get(h.item_id));
    const plain = rows.map((r) => ({
      ...r,
      recipients: JSON.parse(r.recipients),
      facts: JSON.parse(r.facts),
      refs: JSON.parse(r.refs),
    }));
    return JSON.stringify([plain, held.map((h) => JSON.parse(h.state)), items, open.all(calendar, NOW)]);
  };
  for (const [what, handle] of [
    ['to its owner', 'p0'],
    ['to who acts', 'p21'],
  ] as const) {
    const ctx = context(handle, NOW + 70_000);
    const times = sideBySide(60, { serve: () => JSON.stringify(listMessages(ctx, 'p0', null)), raw });
    console.log(line(`a principal’s messages, ${what}`, times.serve, times.raw));
  }
}

/** Answering one invitation until it is in everybody's calendars, against writing the same rows. */
function answering(db: Connection): void {
  const ctx = context('p21', NOW + 80_000);
  const own = mainCalendarOf(db, context('p0').viewer.id);
  const waiting = own ? unansweredIn(db, own.id, 0, 60) : [];
  const tables = ['item', 'meeting', 'sending', 'message', 'trail', 'occurrence'] as const;
  const written = new Map<string, number>();
  const before = new Map(tables.map((t) => [t, db.get<{ n: number }>(`SELECT count(*) AS n FROM ${t}`)?.n ?? 0]));
  let n = 0;
  const give = () => {
    const item = waiting[n++ % waiting.length];
    if (!item) return;
    const seen = n > waiting.length ? ('accepted' as const) : ('needs-action' as const);
    answerItem(ctx, item.key, { answer: 'accepted', comment: 'Gladly', seen, scope: 'all' });
    releaseDue(db, ctx.now + 11_000);
  };
  give();
  for (const t of tables)
    written.set(t, (db.get<{ n: number }>(`SELECT count(*) AS n FROM ${t}`)?.n ?? 0) - (before.get(t) ?? 0));
  const [item] = waiting;
  const clone = (table: string, id: number) => {
    const names = db
      .all<{ name: string }>(`SELECT name FROM pragma_table_info('${table}') WHERE name NOT IN ('id', 'key')`)
      .map((c) => c.name);
    const keyed = db
      .all<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`)
      .some((c) => c.name === 'key');
    const insert = db.raw.prepare(
      `INSERT INTO ${table} (${[...names, ...(keyed ? ['key'] : [])].join(', ')}) SELECT ${[...names, ...(keyed ? ['hex(randomblob(16))'] : [])].join(', ')} FROM ${table} WHERE id = ?`,
    );
    return () => insert.run(id);
  };
  const last = (table: string) => db.get<{ id: number }>(`SELECT max(id) AS id FROM ${table}`)?.id ?? 0;
  const sending = clone('sending', last('sending'));
  const messages = Array.from({ length: written.get('message') ?? 0 }, (_, i) => clone('message', last('message') - i));
  const trails = Array.from({ length: written.get('trail') ?? 0 }, (_, i) => clone('trail', last('trail') - i));
  const touch = db.raw.prepare(
    'UPDATE item SET owner_answer = ?, attendees = attendees, changed_at = changed_at + 1 WHERE id = ?',
  );
  const held = db.raw.prepare('UPDATE meeting SET state = state || ?, changed_at = changed_at + 1 WHERE id = ?');
  const copies = db.all<{ id: number }>('SELECT id FROM meeting WHERE uid = ?', item?.uid);
  const theirs = db.get<{ id: number }>('SELECT id FROM item WHERE uid = ? AND id <> ?', item?.uid, item?.id)?.id;
  const oneItem = db.raw.prepare('SELECT * FROM item WHERE id = ?');
  const oneMeeting = db.raw.prepare('SELECT * FROM meeting WHERE id = ?');
  const grants = db.raw.prepare('SELECT * FROM access_grant WHERE collection_id = ? AND recorded_until IS NULL');
  const again = (row: Record<string, unknown>, texts: readonly string[]) => {
    const read = { ...row, ...Object.fromEntries(texts.map((t) => [t, JSON.parse(String(row[t] ?? 'null'))])) };
    // Before and after, as the trail keeps them.
    return JSON.stringify(read).length + JSON.stringify(read).length;
  };
  const raw = () => {
    // The rows it has to read, with their texts parsed and written out again; as many transactions, and as many rows of the same size.
    for (const id of [item?.id, theirs])
      again(oneItem.get(id) as Record<string, unknown>, ['attendees', 'organiser', 'kept']);
    for (const { id } of copies) again(oneMeeting.get(id) as Record<string, unknown>, ['state']);
    for (const id of [item?.calendarId]) grants.all(id);
    db.write(() => {
      touch.run('accepted', item?.id);
      sending();
      trails[0]?.();
    });
    db.write(() => {
      for (const copy of copies) held.run('', copy.id);
      touch.run('accepted', item?.id);
      touch.run(null, theirs);
      for (const one of [...messages, ...trails.slice(1)]) one();
      db.run(`UPDATE sending SET state = 'gone' WHERE id = ?`, last('sending'));
    });
  };
  const times = sideBySide(100, { serve: give, raw });
  console.log(line(`answering an invitation, until it has come to who called it`, times.serve, times.raw));
}
