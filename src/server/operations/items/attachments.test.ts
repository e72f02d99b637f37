import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { backUp, restore } from '../../db/backup.ts';
import { openAccountsFile } from '../../db/index.ts';
import { filesIn } from '../../files/store.ts';
import { itemByKey } from '../../repositories/items.ts';
import { changeMeeting } from '../meetings/index.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { readTrail } from '../trail/index.ts';
import { clearAttachments } from './attachments.ts';
import {
  addAttachment,
  bringBackAttachment,
  listAttachments,
  listItems,
  readAttachment,
  removeAttachment,
} from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.full);
  org.give('ines', 'bruno', { ...NO_RIGHTS, sight: 'outline' });
});
afterEach(() => org.close());

const add = (more: object = {}) => org.add('ines', 'ines', { title: 'Weir', when: at('2027-03-03', 10), ...more }).id;
const bytes = (text: string) => new Blob([text]).stream();
const attach = async (who: string, id: string, name: string, text: string) => {
  const answer = await addAttachment(org.ctx(who), id, name, bytes(text));
  if (!answer.ok) throw new Error(JSON.stringify(answer));
  return answer.value.files.at(-1)?.key ?? '';
};
const read = async (who: string, key: string) => {
  const file = await readAttachment(org.ctx(who), key);
  return file.ok ? new Response(file.value.body).text() : file.code;
};
const names = (who: string, id: string) => {
  const list = listAttachments(org.ctx(who), id);
  return list.ok ? list.value.files.map((file) => file.name) : list.code;
};
const noTurn = async () => undefined;

test('a file is had by whoever sees its item in full, and its name by nobody else', async () => {
  const id = add();
  const key = await attach('tomas', id, 'Map of the weir.pdf', 'a map');
  expect([names('ines', id), names('tomas', id), names('amara', id)]).toEqual(Array(3).fill(['Map of the weir.pdf']));
  expect([await read('amara', key), await read('bruno', key), await read('wren', key)]).toEqual([
    'a map',
    'notFound',
    'notFound',
  ]);
  expect([names('bruno', id), names('wren', id)]).toEqual(['notFound', 'notFound']);
  const version = itemByKey(org.db, id.split('~')[0] ?? '')?.version ?? 0;
  changeMeeting(org.ctx('ines'), id, { version, scope: 'one', fields: { visibility: 'private' } });
  expect([await read('amara', key), await read('ines', key)]).toEqual(['notFound', 'a map']);
  // Who only looks adds none and takes none away.
  expect(await addAttachment(org.ctx('amara'), id, 'x', bytes('x'))).toMatchObject({ code: 'notFound' });
  const open = add();
  expect(await addAttachment(org.ctx('amara'), open, 'x', bytes('x'))).toMatchObject({ code: 'mayNotChange' });
});

test('it is taken away and brought back, and both stand in what happened here', async () => {
  const id = add();
  const key = await attach('tomas', id, 'Map.pdf', 'a map');
  removeAttachment(org.ctx('ines'), key);
  expect([names('tomas', id), await read('tomas', key)]).toEqual([[], 'notFound']);
  bringBackAttachment(org.ctx('tomas'), key);
  expect([names('tomas', id), await read('tomas', key)]).toEqual([['Map.pdf'], 'a map']);
  const trail = readTrail(org.ctx('ines'), id);
  expect(
    trail.ok && trail.value.entries.map((e) => [e.verb, e.actor, e.changed[0]?.after ?? null]).slice(0, 3),
  ).toEqual([
    ['fileBroughtBack', 'Tomas', 'Map.pdf'],
    ['fileRemoved', 'Ines', null],
    ['fileAdded', 'Tomas', 'Map.pdf'],
  ]);
});

test('what is too long, empty or too much is refused, and nothing of it stays', async () => {
  const id = add();
  const piece = new Uint8Array(1_000_000);
  const long = new ReadableStream({
    pull(to) {
      to.enqueue(piece);
    },
  });
  expect(await addAttachment(org.ctx('ines'), id, 'x', long)).toMatchObject({ code: 'fileTooLarge' });
  expect(await addAttachment(org.ctx('ines'), id, 'x', bytes(''))).toMatchObject({ fields: { file: 'fileEmpty' } });
  expect(readdirSync(join(filesIn(org.folder), 'arriving'))).toEqual([]);
  for (let n = 0; n < 20; n++) await attach('ines', id, `${n}`, `${n}`);
  expect(await addAttachment(org.ctx('ines'), id, 'x', bytes('x'))).toMatchObject({ code: 'tooManyAttachments' });
});

test('a right that ends while the bytes arrive adds nothing', async () => {
  const id = add();
  const slow = new ReadableStream({
    pull(to) {
      const version = itemByKey(org.db, id.split('~')[0] ?? '')?.version ?? 0;
      changeMeeting(org.ctx('ines'), id, { version, scope: 'one', fields: { visibility: 'private' } });
      to.enqueue(new TextEncoder().encode('late'));
      to.close();
    },
  });
  expect(await addAttachment(org.ctx('tomas'), id, 'Late', slow)).toMatchObject({ code: 'notFound' });
  expect(names('ines', id)).toEqual([]);
});

test('an occurrence has the files of its series, and a series cut in two keeps them in both', async () => {
  const id = add({ repeat: { rule: 'FREQ=WEEKLY;COUNT=4' } });
  await attach('ines', id, 'Agenda.pdf', 'one');
  const list = listItems(org.ctx('ines'), org.calendar('ines'), {
    from: '2027-03-01',
    to: '2027-03-31',
    zone: 'UTC',
    after: 0,
  });
  const ids = list.ok ? list.value.items.map((item) => item.id) : [];
  const version = () => itemByKey(org.db, id.split('~')[0] ?? '')?.version ?? 0;
  const alone = changeMeeting(org.ctx('ines'), ids[1] ?? '', {
    version: version(),
    scope: 'one',
    fields: { title: 'Alone' },
  });
  expect(names('ines', (alone.ok && alone.value.item?.id) || '')).toEqual(['Agenda.pdf']);
  const cut = changeMeeting(org.ctx('ines'), ids[2] ?? '', {
    version: version(),
    scope: 'later',
    fields: { title: 'From here' },
  });
  const later = (cut.ok && cut.value.item?.id) || '';
  expect([names('ines', later), names('ines', ids[0] ?? '')]).toEqual([['Agenda.pdf'], ['Agenda.pdf']]);
});

test('bytes are kept once, go when no item has them, and are in a backup', async () => {
  const [a, b] = [add(), add()];
  const one = await attach('ines', a, 'One', 'the same');
  await attach('ines', b, 'Two', 'the same');
  const stored = () =>
    readdirSync(filesIn(org.folder))
      .filter((part) => part.length === 2)
      .flatMap((part) => readdirSync(join(filesIn(org.folder), part)));
  const [digest = ''] = stored();
  expect(stored()).toHaveLength(1);
  openAccountsFile(org.folder).close();
  const outside = mkdtempSync(join(tmpdir(), 'paramo-backup-'));
  try {
    await backUp(org.folder, join(outside, 'copy.db'));
    restore(join(outside, 'copy.db'), join(outside, 'again'));
    expect(readFileSync(join(outside, 'again', 'files', digest.slice(0, 2), digest), 'utf8')).toBe('the same');
    expect(existsSync(join(outside, 'again', 'files', 'arriving'))).toBe(false);
  } finally {
    rmSync(outside, { recursive: true });
  }
  const old = new Date('2020-01-01');
  utimesSync(join(filesIn(org.folder), digest.slice(0, 2), digest), old, old);
  removeAttachment(org.ctx('ines'), one);
  await clearAttachments(org.db, START + 31 * 86_400_000, noTurn);
  expect(stored()).toHaveLength(1);
  org.db.run('DELETE FROM attachment');
  await clearAttachments(org.db, START, noTurn);
  expect(stored()).toEqual([]);
});

test('a file that was added and taken away while its item was private is named in the trail to nobody from whom it was hidden', async () => {
  const id = add({ visibility: 'private' });
  const key = await attach('ines', id, 'Diagnosis.pdf', 'x');
  expect(removeAttachment(org.ctx('ines', START + 1000), key)).toMatchObject({ ok: true });
  const version = itemByKey(org.db, id)?.version ?? 0;
  const open = { version, scope: 'all' as const, fields: { visibility: 'follow' as const } };
  changeMeeting(org.ctx('ines', START + 2000), id, open);
  await attach('ines', id, 'Agenda.pdf', 'y');
  const trail = (who: string) => JSON.stringify(readTrail(org.ctx(who, START + 3000), id));
  expect(trail('ines')).toContain('Diagnosis');
  expect(trail('tomas')).toContain('Agenda');
  expect(trail('tomas')).not.toContain('Diagnosis');
});
