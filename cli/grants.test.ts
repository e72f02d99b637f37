import { afterEach, beforeEach, expect, test } from 'vitest';
import { openDatabase } from '../src/server/db/index.ts';
import { hub } from '../src/server/live/hub.ts';
import { listNotices } from '../src/server/operations/messages/notices.ts';
import { hearOthers } from '../src/server/operations/sharing/hear-others.ts';
import { type SmallOrganisation, START, smallOrganisation } from '../src/server/operations/small-organisation.ts';
import { run } from './grants.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const grants = (...args: string[]) => run(org.db, ['--as', 'ines@cloudmoor.example', ...args], START + 1000);
const BRUNO = 'bruno@cloudmoor.example';
const list = () => {
  const { code, out } = grants(BRUNO, 'list');
  expect(code).toBe(0);
  return out.split('\n').map((line) => JSON.parse(line));
};

test('grants are listed, added, changed and removed on any calendar; the owner is told', () => {
  expect(list()).toMatchObject([{ audience: 'everyone', preset: 'freeBusy', owner: 'bruno' }]);
  expect(grants(BRUNO, 'add', 'tomas@cloudmoor.example', 'delegate', '--private')).toEqual({ code: 0, out: 'done' });
  expect(list()[1]).toMatchObject({
    audience: 'person:tomas',
    preset: 'delegate',
    rights: { private: true, speaks: true },
    byAdministrator: true,
  });
  expect(listNotices(org.ctx('bruno'))).toMatchObject({ value: { notices: [{ about: 'Tomas', by: 'Ines' }] } });
  expect(grants(BRUNO, 'add', 'tomas@cloudmoor.example', 'full').code).toBe(1);
  expect(grants(BRUNO, 'change', 'tomas@cloudmoor.example', 'titles', '--until', '2027-03-05').code).toBe(0);
  expect(list()[1]).toMatchObject({ preset: 'titles', until: '2027-03-06T00:00:00Z' });
  expect(grants(BRUNO, 'remove', 'tomas@cloudmoor.example').code).toBe(0);
  expect(grants(BRUNO, 'remove', 'tomas@cloudmoor.example').code).toBe(1);
  org.group('Leads', ['amara']);
  expect(grants(BRUNO, 'add', 'group:Leads', 'outline').code).toBe(0);
  expect(grants(BRUNO, 'add', 'marta@quill-audit.example', 'freeBusy').code).toBe(0);
  expect(grants(BRUNO, 'change', 'everyone', 'shutOut').code).toBe(0);
  expect(list().map((l) => [l.name, l.preset])).toEqual([
    ['Leads', 'outline'],
    ['marta@quill-audit.example', 'freeBusy'],
    ['', 'shutOut'],
  ]);
});

test.each([
  [['--as', 'bruno@cloudmoor.example', BRUNO, 'list'], 2, 'must be the address of an administrator'],
  [['--as', 'ines@cloudmoor.example', 'nobody@cloudmoor.example', 'list'], 2, 'There is no calendar'],
  [['--as', 'ines@cloudmoor.example', BRUNO, 'add', 'group:None', 'full'], 2, 'There is no group:None'],
  [['--as', 'ines@cloudmoor.example', BRUNO, 'add', 'tomas@cloudmoor.example', 'king'], 2, 'There is no level king'],
  [
    ['--as', 'ines@cloudmoor.example', BRUNO, 'add', 'tomas@cloudmoor.example', 'full', '--until', '2020-01-01'],
    1,
    'has passed',
  ],
  [['--as', 'ines@cloudmoor.example', BRUNO, 'add', BRUNO, 'full'], 1, 'The owner always sees everything'],
] as const)('%j is refused', (args, code, text) => {
  const result = run(org.db, args, START + 1000);
  expect(result.code).toBe(code);
  expect(result.out).toContain(text);
});

test('a server on the same data hears of it and tells the windows concerned, and no others', async () => {
  const server = openDatabase(org.folder);
  const hear = hearOthers(server);
  hear();
  const heard: string[] = [];
  const leave = ['tomas', 'amara'].map((who) =>
    hub().join(org.person(who).id, {
      session: null,
      send: (message) => heard.push(`${who} ${JSON.parse(message).kind}`),
      close: () => {},
    }),
  );
  grants(BRUNO, 'add', 'tomas@cloudmoor.example', 'full');
  hear();
  await expect.poll(() => heard).toEqual(['tomas access']);
  for (const l of leave) l?.();
  server.raw.close();
});
