import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { newItem } from '../src/contract/items/items.ts';
import { PRESETS } from '../src/core/access/index.ts';
import { type Connection, openDatabase } from '../src/server/db/index.ts';
import { newKey } from '../src/server/ids.ts';
import { contextFor } from '../src/server/operations/deciding/context/context.ts';
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
    const times = sideBySide(60, { serve: () => JSON.stringify(listMessages(ctx, 'p0', {})), raw });
    console.log(line(`a principal’s messages, ${what}`, times.serve, times.raw));
  }
}

interface Step {
  readonly kind: 'get' | 'all' | 'arrays' | 'run' | 'changes' | 'begin' | 'end';
  readonly sql: string;
  readonly values: readonly unknown[];
}

/**
 * Answering one invitation until it is in everybody's calendars, against the reads and writes that takes and nothing else: the statements of
 * one answer, run bare in the same two transactions, with fresh keys.
 */
function answering(db: Connection): void {
  const ctx = context('p21', NOW + 80_000);
  const own = mainCalendarOf(db, context('p0').viewer.id);
  const waiting = own ? unansweredIn(db, own.id, 0, 60) : [];
  let n = 0;
  const give = () => {
    const item = waiting[n++ % waiting.length];
    if (!item) return;
    const seen = n > waiting.length ? ('accepted' as const) : ('needs-action' as const);
    answerItem(ctx, item.key, { answer: 'accepted', comment: 'Gladly', seen, scope: 'all' });
    releaseDue(db, ctx.now + 11_000);
  };
  give();
  const steps = recorded(db, give);
  const raw = () => {
    for (let i = 0; i < steps.length; i++) {
      const step = steps[i] as Step;
      if (step.kind === 'begin')
        db.raw
          .transaction(() => {
            for (i++; steps[i]?.kind !== 'end'; i++) replay(db, steps[i] as Step);
          })
          .immediate();
      else replay(db, step);
    }
  };
  const times = sideBySide(100, { serve: give, raw });
  const count = steps.filter((s) => s.kind !== 'begin' && s.kind !== 'end').length;
  console.log(line(`answering, until it has come to who called it (${count} statements)`, times.serve, times.raw));
}

/** The statements that some work runs, in order, with where its transactions begin and end. */
function recorded(db: Connection, work: () => void): Step[] {
  const steps: Step[] = [];
  const spied = db as unknown as Record<string, (...a: unknown[]) => unknown>;
  const kinds = ['get', 'all', 'arrays', 'run', 'changes'] as const;
  const write = db.write.bind(db);
  for (const kind of kinds) {
    const real = (spied[kind] as (...a: unknown[]) => unknown).bind(db);
    spied[kind] = (sql: unknown, ...values: unknown[]) => {
      steps.push({ kind, sql: String(sql), values });
      return real(sql, ...values);
    };
  }
  let deep = 0;
  spied.write = (inner: unknown) => {
    if (deep++ === 0) steps.push({ kind: 'begin', sql: '', values: [] });
    const done = write(inner as () => unknown);
    if (--deep === 0) steps.push({ kind: 'end', sql: '', values: [] });
    return done;
  };
  work();
  for (const kind of [...kinds, 'write']) delete spied[kind];
  return steps;
}

/** Runs one statement bare. What is read is parsed where it is JSON, and what is added has a key of its own. */
function replay(db: Connection, { kind, sql, values }: Step): void {
  const fresh = /^\s*INSERT/.test(sql) && /\(key,/.test(sql) ? [newKey(), ...values.slice(1)] : values;
  if (kind === 'run' || kind === 'changes') db.changes(sql, ...fresh);
  else if (kind === 'arrays') db.arrays(sql, ...fresh);
  else if (kind === 'all') db.all(sql, ...fresh);
  else {
    const row = db.get<Record<string, unknown>>(sql, ...fresh);
    for (const text of ['state', 'attendees', 'organiser', 'kept', 'body'])
      if (typeof row?.[text] === 'string' && /^[[{]/.test(row[text])) JSON.parse(row[text]);
  }
}
