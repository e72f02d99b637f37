import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '../src/core/access/index.ts';
import { openDatabase } from '../src/server/db/index.ts';
import { hub } from '../src/server/live/hub.ts';
import { listNotices } from '../src/server/operations/messages/notices.ts';
import { hearOthers } from '../src/server/operations/sharing/hear-others.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../src/server/operations/small-organisation.ts';
import { run } from './paramo.ts';

let org: SmallOrganisation;
let folder: string;
beforeEach(() => {
  org = smallOrganisation();
  folder = mkdtempSync(join(tmpdir(), 'paramo-cli-'));
});
afterEach(() => {
  org.close();
  rmSync(folder, { recursive: true, force: true });
});

const BRUNO = 'bruno@cloudmoor.example';
const TOMAS = 'tomas@cloudmoor.example';
const as = (who: string, ...args: string[]) => run(org.db, ['--as', `${who}@cloudmoor.example`, ...args], START + 1000);
const paramo = (...args: string[]) => as('ines', ...args);
const json = (...args: string[]) => {
  const { code, out } = paramo('--json', ...args);
  expect([code, out]).toEqual([0, out]);
  return out === '' ? [] : out.split('\n').map((line) => JSON.parse(line));
};

describe('who has access', () => {
  test('is listed, given, changed, shown and taken on any calendar by an administrator; the owner is told', () => {
    expect(json('list', BRUNO)).toMatchObject([{ audience: 'everyone', level: 'freeBusy' }]);
    expect(json('give', BRUNO, TOMAS, 'delegate', '--private')).toMatchObject([
      { who: 'Tomas', before: null, changed: true },
    ]);
    expect(json('show', BRUNO, TOMAS)).toMatchObject([
      { level: 'delegate', rights: { private: true }, byAdministrator: true },
    ]);
    expect(listNotices(org.ctx('bruno'))).toMatchObject({ value: { notices: [{ about: 'Tomas', by: 'Ines' }] } });
    expect(json('give', BRUNO, TOMAS, 'titles')).toMatchObject([
      { before: { sight: 'full' }, after: { sight: 'title' } },
    ]);
    expect(json('give', BRUNO, TOMAS, 'full', '--today')).toMatchObject([{ before: null, after: { sight: 'full' } }]);
    expect(json('show', BRUNO, TOMAS)).toMatchObject([
      { level: 'titles' },
      { level: 'full', until: '2027-03-03T00:00:00Z' },
    ]);
    expect(json('take', BRUNO, TOMAS)).toHaveLength(2);
    // What is left without a row of his own.
    expect(json('show', BRUNO, TOMAS)).toMatchObject([
      { level: null, through: 'everyone', effective: { sight: 'busy' } },
    ]);
    expect(paramo('take', BRUNO, TOMAS)).toEqual({ code: 1, out: 'Nothing stands there by name to take away.' });
    org.group('Leads', ['amara']);
    json('give', BRUNO, 'group:Leads', 'outline');
    json('give', BRUNO, 'marta@quill-audit.example', 'freeBusy');
    json('give', BRUNO, 'everyone', 'shutOut');
    expect(json('list', BRUNO).map((l) => [l.name, l.level])).toEqual([
      ['Leads', 'outline'],
      ['marta@quill-audit.example', 'freeBusy'],
      ['', 'shutOut'],
    ]);
  });

  test('is given by whoever shares a calendar, no more than they hold, and by nobody else', () => {
    expect(as('bruno', 'give', 'bruno@cloudmoor.example', TOMAS, 'steward').code).toBe(0);
    expect(as('tomas', 'give', BRUNO, 'amara@cloudmoor.example', 'outline').code).toBe(0);
    expect(as('tomas', 'give', BRUNO, 'amara@cloudmoor.example', 'full', '--private')).toMatchObject({
      code: 1,
      out: expect.stringContaining('more than you have'),
    });
    expect(as('amara', 'give', BRUNO, 'wren@cloudmoor.example', 'outline').code).toBe(1);
  });

  test('for good stands beside what was given for a time, which it leaves', () => {
    json('give', BRUNO, TOMAS, 'full', '--today');
    expect(json('give', BRUNO, TOMAS, 'titles')).toMatchObject([{ before: null, after: { sight: 'title' } }]);
    expect(json('show', BRUNO, TOMAS).map((l) => l.level)).toEqual(['titles', 'full']);
  });

  test('with --dry-run only says what would be', () => {
    expect(json('give', BRUNO, TOMAS, 'full', '--dry-run')).toMatchObject([
      { after: { sight: 'full' }, changed: false },
    ]);
    expect(json('show', BRUNO, TOMAS)).toMatchObject([{ level: null }]);
  });

  test('is told with words, quietly, or to whoever was told before', () => {
    const told = () => {
      const all = listNotices(org.ctx('tomas'));
      return all.ok ? all.value.notices.map((n) => n.note) : [];
    };
    json('give', BRUNO, TOMAS, 'titles', '--tell', 'For the audit');
    json('give', BRUNO, TOMAS, 'outline');
    expect(told()).toEqual(['', 'For the audit']);
    json('give', BRUNO, TOMAS, 'full', '--quiet');
    expect(told()).toHaveLength(2);
  });

  test('comes as a table whose columns line up', () => {
    json('give', BRUNO, TOMAS, 'delegate');
    const lines = paramo('list', BRUNO).out.split('\n');
    expect(lines[0]).toMatch(/^audience\s+name\s+level\s+rights/);
    expect(lines).toHaveLength(3);
    const tomas = lines.find((line) => line.includes('Tomas'));
    expect(tomas?.indexOf('delegate')).toBe(lines[0]?.indexOf('level'));
    expect(tomas).toContain('full+add+change:all+remove:all+speaks');
  });
});

describe('a batch', () => {
  const file = (changes: unknown) => {
    const path = join(folder, 'changes.json');
    writeFileSync(path, JSON.stringify(changes));
    return path;
  };
  const change = (of: string, to: string, more: object = {}) => ({
    of,
    audience: { kind: 'person', id: to },
    rights: PRESETS.titles,
    ...more,
  });

  test('is all of it or none: one that can’t be done is named, and nothing is changed', () => {
    const good = [change('bruno', 'tomas'), change('amara', 'tomas'), change('wren', 'dario')];
    const bad = [...good, change('bruno', 'bruno')];
    expect(paramo('batch', file(bad))).toEqual({ code: 1, out: 'change 4: The owner always sees everything.' });
    expect(json('list', BRUNO)).toHaveLength(1);
    expect(json('batch', file(good))).toHaveLength(3);
    expect(json('list', BRUNO)).toHaveLength(2);
    const seen = json('list', BRUNO)[0].key;
    const stale = [
      change('wren', 'amara'),
      change('bruno', 'tomas', { seen, rights: null }),
      change('bruno', 'tomas', { seen: 'old' }),
    ];
    expect(paramo('batch', file(stale)).code).toBe(1);
    expect(json('list', 'wren@cloudmoor.example')).toHaveLength(2);
  });

  test('names a line that isn’t as it should be, and takes a thousand and no more', () => {
    expect(paramo('batch', file([{ of: 'bruno' }]))).toMatchObject({
      code: 2,
      out: expect.stringContaining('changes.0.audience'),
    });
    expect(paramo('batch', join(folder, 'none.json')).code).toBe(2);
    const many = Array.from({ length: 1001 }, () => change('bruno', 'tomas', { rights: NO_RIGHTS }));
    expect(paramo('batch', file(many)).code).toBe(2);
  });
});

describe('everything else', () => {
  test('explains what somebody sees of an item, step by step, and shows a week through their eyes', () => {
    const { id } = org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) });
    expect(json('explain', 'ines@cloudmoor.example', 'amara@cloudmoor.example', id).at(-1)).toMatchObject({
      seen: 'busy',
      name: 'Amara',
    });
    expect(json('see-as', 'ines@cloudmoor.example', 'amara@cloudmoor.example', '--week', '2027-03-04')).toEqual([
      { start: '2027-03-03T09:00:00Z', end: '2027-03-03T10:00:00Z', allDay: false, shows: 'busy' },
    ]);
  });

  test('asks in one’s own name, and lists how it stands on both sides', () => {
    expect(as('amara', 'ask', 'ines@cloudmoor.example', BRUNO, 'outline', '--why', 'to plan').code).toBe(0);
    expect(json('asks')).toMatchObject([{ which: 'waits for you', from: 'Amara', wants: 'outline', why: 'to plan' }]);
    expect(JSON.parse(as('amara', 'asks', '--json').out.split('\n')[0] ?? '')).toMatchObject({
      which: 'yours',
      state: 'open',
    });
  });

  test('lists people, groups and house rules, and sets one', () => {
    org.group('Leads', ['amara', 'bruno']);
    expect(json('people').map((p) => p.handle)).toContain('amara');
    expect(json('groups')).toMatchObject([{ name: 'Leads', people: 2, members: 'amara bruno' }]);
    expect(json('rules', 'outsideSight', 'title').find((r) => r.rule === 'outsideSight')).toMatchObject({
      value: 'title',
    });
    expect(as('amara', 'rules', 'outsideSight', 'full')).toMatchObject({
      code: 1,
      out: expect.stringContaining('administrator'),
    });
    expect(paramo('rules', 'outsideSight', 'everything').code).toBe(1);
  });
});

test.each([
  [['--as', 'nobody@cloudmoor.example', 'list', BRUNO], 'must be the address of somebody'],
  [['--as', 'ines@cloudmoor.example', 'list', 'nobody@cloudmoor.example'], 'There is no calendar'],
  [['--as', 'ines@cloudmoor.example', 'give', BRUNO, 'group:None', 'full'], 'There is no group:None'],
  [['--as', 'ines@cloudmoor.example', 'give', BRUNO, TOMAS, 'king'], 'There is no level king'],
  [['--as', 'ines@cloudmoor.example', 'crown'], 'There is no command crown'],
  [['--as', 'ines@cloudmoor.example', 'list', BRUNO, '--loud'], '--loud'],
] as const)('%j isn’t understood, and says how it would be', (args, text) => {
  const result = run(org.db, args, START + 1000);
  expect(result.code).toBe(2);
  expect(result.out).toContain(text);
  expect(result.out).toContain('npm run paramo');
});

test('helps with all of it, and with one command', () => {
  expect(run(org.db, ['help'])).toMatchObject({ code: 0, out: expect.stringContaining('--dry-run') });
  expect(run(org.db, ['help', 'give'])).toMatchObject({
    code: 0,
    out: expect.stringContaining('CALENDAR AUDIENCE LEVEL'),
  });
  expect(run(org.db, []).code).toBe(2);
});

test('a server on the same data hears of it and tells the windows concerned, and no others', async () => {
  const server = openDatabase(org.folder);
  const hear = hearOthers(server);
  hear();
  const heard: string[] = [];
  const leave = ['tomas', 'amara'].map((who) =>
    hub().join(org.person(who).id, {
      session: null,
      send: (message) => {
        const { kind, calendar } = JSON.parse(message);
        // What is still being said of other data is about other calendars.
        if (calendar === org.calendar('bruno')) heard.push(`${who} ${kind}`);
      },
      close: () => {},
    }),
  );
  paramo('give', BRUNO, TOMAS, 'full');
  hear();
  await expect.poll(() => heard.filter((one) => one.endsWith(' access'))).toEqual(['tomas access']);
  for (const l of leave) l?.();
  server.raw.close();
});

test('the trail is verified by whoever has the file, and forgotten in part by an administrator', () => {
  const { id } = org.add('ines', 'ines', { title: 'Weir' });
  const whole = run(org.db, ['trail', 'verify', '--json']);
  expect([whole.code, JSON.parse(whole.out)]).toMatchObject([0, { whole: true, forgotten: 0 }]);
  const { digest } = JSON.parse(whole.out) as { digest: string };
  expect(run(org.db, ['trail', 'verify', '--digest', digest]).out).toContain('The trail is whole');
  expect(as('tomas', 'trail', 'forget', id).code).toBe(1);
  expect(as('ines', 'trail', 'forget').code).toBe(2);
  expect(json('trail', 'forget', id)).toEqual([{ forgotten: 1 }]);
  expect(run(org.db, ['trail', 'verify']).out).toContain('1 of them without what they said');
  const second = org.db.get<{ id: number; key: string }>('SELECT id, key FROM trail ORDER BY id LIMIT 1 OFFSET 1');
  org.db.run('UPDATE trail SET at = at + 1 WHERE id = ?', second?.id);
  const edited = run(org.db, ['trail', 'verify']);
  expect([edited.code, edited.out]).toEqual([1, expect.stringContaining(`Entry 2, ${second?.key}`)]);
  expect(run(org.db, ['trail', 'verify', '--digest', 'f00d']).code).toBe(1);
});
