import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { forgetUnfinished } from '../items/bring-in.ts';
import { exportFile } from '../items/export-file.ts';
import { listItems } from '../items/list-items.ts';
import { changeMeeting } from '../meetings/index.ts';
import { type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { bringIn, previewImport, undoAny } from './imports.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const file = (...events: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Some program//EN', ...events, 'END:VCALENDAR', ''].join('\r\n');
const event = (uid: string, ...lines: string[]) =>
  ['BEGIN:VEVENT', `UID:${uid}`, 'DTSTAMP:20270101T000000Z', ...lines, 'END:VEVENT'].join('\r\n');
const bytes = (body: string | Uint8Array) => (typeof body === 'string' ? new TextEncoder().encode(body) : body);
const preview = async (text: string | Uint8Array, by = 'ines') =>
  previewImport(org.ctx(by), org.calendar('ines'), bytes(text));
const days = (from: string, to: string) => {
  const listed = listItems(org.ctx('ines'), org.calendar('ines'), { from, to, zone: 'Europe/Lisbon' });
  if (!listed.ok) throw new Error(listed.code);
  return listed.value.items;
};

const GOOD = file(
  event('a', 'DTSTART:20270303T090000Z', 'DTEND:20270303T100000Z', 'SUMMARY:UTC'),
  event('b', 'DTSTART;TZID=America/Bogota:20270303T090000', 'DURATION:PT90M', 'SUMMARY:Bogotá', 'CLASS:CONFIDENTIAL'),
  event('c', 'DTSTART:20270303T090000', 'DTEND:20270303T093000', 'SUMMARY:Floating'),
  event('d', 'DTSTART;VALUE=DATE:20270304', 'DTEND;VALUE=DATE:20270306', 'SUMMARY:Two days', 'TRANSP:TRANSPARENT'),
  event(
    'e',
    'DTSTART;TZID=Europe/Lisbon:20270301T080000',
    'DTEND;TZID=Europe/Lisbon:20270301T083000',
    'RRULE:FREQ=WEEKLY;COUNT=4',
    'EXDATE;TZID=Europe/Lisbon:20270308T080000',
    'SUMMARY:Weekly',
    'CLASS:PRIVATE',
  ),
  event(
    'e',
    'RECURRENCE-ID;TZID=Europe/Lisbon:20270315T080000',
    'DTSTART;TZID=Europe/Lisbon:20270316T100000',
    'DTEND;TZID=Europe/Lisbon:20270316T103000',
    'SUMMARY:Weekly, moved',
  ),
  event('f', 'DTSTART:20270303T090000Z', 'RRULE:FREQ=SECONDLY', 'SUMMARY:For ever'),
  event('g', 'DTSTART;TZID=Nowhere/Land:20270303T090000', 'SUMMARY:Unknown zone'),
  event('h', 'DTSTART:20270303T090000Z', 'DTEND:20270303T080000Z', 'SUMMARY:Backwards'),
);

describe('bringing a file in', () => {
  test('shows first what would come and what can’t be read and why, then does it as one act', async () => {
    const seen = await preview(GOOD);
    expect(seen).toMatchObject({ ok: true, value: { counts: { fresh: 6, there: 0, problems: 3 } } });
    if (!seen.ok) return;
    expect(seen.value.problems.map((p) => [p.title, p.code])).toEqual([
      ['For ever', 'ruleTooOften'],
      ['Unknown zone', 'unknownZone'],
      ['Backwards', 'endBeforeStart'],
    ]);
    expect(days('2027-03-01', '2027-03-31')).toEqual([]);
    const done = await bringIn(org.ctx('ines'), seen.value.preview);
    expect(done).toMatchObject({ ok: true, value: { broughtIn: 6, left: 3 } });
    expect(days('2027-03-01', '2027-03-31').map((i) => [i.title, i.start, i.end, i.visibility])).toEqual([
      ['Weekly', '2027-03-01T08:00:00Z', '2027-03-01T08:30:00Z', 'private'],
      ['UTC', '2027-03-03T09:00:00Z', '2027-03-03T10:00:00Z', 'follow'],
      ['Floating', '2027-03-03T09:00:00Z', '2027-03-03T09:30:00Z', 'follow'],
      ['Bogotá', '2027-03-03T14:00:00Z', '2027-03-03T15:30:00Z', 'private'],
      ['Two days', '2027-03-04', '2027-03-06', 'follow'],
      ['Weekly, moved', '2027-03-16T10:00:00Z', '2027-03-16T10:30:00Z', 'follow'],
      ['Weekly', '2027-03-22T08:00:00Z', '2027-03-22T08:30:00Z', 'private'],
    ]);
    const again = await preview(GOOD);
    expect(again).toMatchObject({ ok: true, value: { counts: { fresh: 0, there: 6, problems: 3 } } });
    expect((await undoAny(org.ctx('ines'), done.ok ? done.value.undo : '')).ok).toBe(true);
    expect(days('2027-03-01', '2027-03-31')).toEqual([]);
  });

  test('what is taken out and brought into an empty calendar is the same, and writes the same file', async () => {
    const seen = await preview(GOOD);
    await bringIn(org.ctx('ines'), seen.ok ? seen.value.preview : '');
    const out = exportFile(org.ctx('ines'), org.calendar('ines'));
    const text = out.ok ? out.value.text : '';
    const theirs = await previewImport(org.ctx('wren'), org.calendar('wren'), bytes(text));
    expect(theirs).toMatchObject({ ok: true, value: { counts: { fresh: 6, there: 0, problems: 0 } } });
    await bringIn(org.ctx('wren'), theirs.ok ? theirs.value.preview : '');
    const again = exportFile(org.ctx('wren'), org.calendar('wren'));
    const plain = (s: string) => s.replace(/X-WR-CALNAME:.*\r\n/, '');
    expect(again.ok && plain(again.value.text)).toBe(plain(text));
  });

  test.each([
    ['no calendar at all', 'Dear Inés, here is my calendar', 'notACalendar'],
    ['an empty file', '', 'notACalendar'],
    ['another encoding', Buffer.from(GOOD.replace('Bogotá', 'Bogot\u00e1'), 'latin1'), 'wrongEncoding'],
  ])('%s is refused with a reason, and nothing comes in', async (_, body, code) => {
    expect(await preview(body)).toMatchObject({ ok: false, code });
    expect(org.db.get('SELECT count(*) AS n FROM item')).toEqual({ n: 0 });
  });

  test('a truncated file gives what is whole in it, and says where it breaks off', async () => {
    const seen = await preview(GOOD.slice(0, GOOD.indexOf('SUMMARY:Floating')));
    expect(seen).toMatchObject({ ok: true, value: { counts: { fresh: 2, problems: 1 }, ended: false } });
    expect(seen.ok && seen.value.problems[0]?.code).toBe('unended');
  });

  test('all or nothing: where one item can’t be written, none is', async () => {
    const seen = await preview(GOOD);
    org.db.raw.exec(
      `CREATE TRIGGER no_floating BEFORE INSERT ON item WHEN NEW.title = 'Floating' BEGIN SELECT RAISE(ABORT, 'disk full'); END`,
    );
    await expect(bringIn(org.ctx('ines'), seen.ok ? seen.value.preview : '')).rejects.toThrow('disk full');
    expect(org.db.get('SELECT count(*) AS n FROM item')).toEqual({ n: 0 });
    expect(org.db.get('SELECT count(*) AS n FROM occurrence')).toEqual({ n: 0 });
    expect(org.db.get("SELECT count(*) AS n FROM trail WHERE verb LIKE 'item.%'")).toEqual({ n: 0 });
  });

  test('is for those who read everything there; the preview is its maker’s alone and not for ever', async () => {
    org.give('ines', 'tomas', PRESETS.delegate);
    org.give('ines', 'dario', NO_RIGHTS);
    expect(await preview(GOOD, 'tomas')).toMatchObject({ ok: false, code: 'mayNotImport' });
    expect(await preview(GOOD, 'dario')).toEqual({ ok: false, code: 'notFound' });
    expect(exportFile(org.ctx('tomas'), org.calendar('ines'))).toMatchObject({ ok: false, code: 'mayNotImport' });
    const seen = await preview(GOOD);
    const key = seen.ok ? seen.value.preview : '';
    expect(await bringIn(org.ctx('tomas'), key)).toEqual({ ok: false, code: 'previewGone' });
    expect(await bringIn(org.ctx('ines', START + 21 * 60_000), key)).toEqual({ ok: false, code: 'previewGone' });
  });

  const bring = async (text: string) => {
    const seen = await preview(text);
    if (!seen.ok) throw new Error(seen.code);
    const done = await bringIn(org.ctx('ines'), seen.value.preview);
    if (!done.ok) throw new Error(done.code);
    return { counts: seen.value.counts, ...done.value };
  };
  const roof = (...lines: string[]) => file(event('roof', 'DTSTART:20270303T090000Z', 'DURATION:PT1H', ...lines));

  test('a newer revision is said to be one and takes the place of what is there; an older one doesn’t', async () => {
    await bring(roof('SUMMARY:Roof', 'SEQUENCE:2', 'LOCATION:Seed Store'));
    expect(await preview(roof('SUMMARY:Older', 'SEQUENCE:1'))).toMatchObject({
      value: { counts: { fresh: 0, newer: 0, there: 1 } },
    });
    const done = await bring(roof('SUMMARY:Newer', 'SEQUENCE:3'));
    expect(done).toMatchObject({ broughtIn: 0, renewed: 1, counts: { newer: 1 } });
    expect(days('2027-03-01', '2027-03-08').map((i) => [i.title, i.place])).toEqual([['Newer', null]]);
    expect((await undoAny(org.ctx('ines'), done.undo)).ok).toBe(true);
    expect(days('2027-03-01', '2027-03-08').map((i) => [i.title, i.place])).toEqual([['Roof', 'Seed Store']]);
  });

  test('a newer revision never widens who sees an item here', async () => {
    await bring(roof('SUMMARY:Roof'));
    const [item] = days('2027-03-01', '2027-03-08');
    changeMeeting(org.ctx('ines'), item?.id ?? '', { version: 1, scope: 'one', fields: { visibility: 'private' } });
    await bring(roof('SUMMARY:Newer', 'SEQUENCE:3', 'CLASS:PUBLIC'));
    expect(days('2027-03-01', '2027-03-08').map((i) => [i.title, i.visibility])).toEqual([['Newer', 'private']]);
  });

  test.each([
    ['before', [0, 1]],
    ['after', [1, 0]],
    ['with', [2]],
  ] as const)('a happening that comes %s its series stands once, in its place', async (_, order) => {
    const moved = event(
      's',
      'RECURRENCE-ID:20270309T090000Z',
      'DTSTART:20270310T150000Z',
      'DURATION:PT1H',
      'SUMMARY:Moved',
    );
    const series = event(
      's',
      'DTSTART;TZID=Europe/Lisbon:20270302T090000',
      'DURATION:PT1H',
      'RRULE:FREQ=WEEKLY;COUNT=3',
      'SUMMARY:Weekly',
    );
    const parts = [file(moved), file(series), file(moved, series)];
    let last = '';
    for (const i of order) last = (await bring(parts[i] as string)).undo;
    for (const part of parts) expect(await preview(part)).toMatchObject({ value: { counts: { fresh: 0 } } });
    expect(days('2027-03-01', '2027-03-31').map((i) => `${i.title} ${i.start}`)).toEqual([
      'Weekly 2027-03-02T09:00:00Z',
      'Moved 2027-03-10T15:00:00Z',
      'Weekly 2027-03-16T09:00:00Z',
    ]);
    expect((await undoAny(org.ctx('ines'), last)).ok).toBe(true);
    expect(days('2027-03-01', '2027-03-31').map((i) => i.title)).toEqual(
      order.length === 1 ? [] : order[1] === 1 ? ['Moved'] : ['Weekly', 'Weekly', 'Weekly'],
    );
  });

  test('is taken back only as long as nobody built on it', async () => {
    const done = await bring(roof('SUMMARY:Roof'));
    const [item] = days('2027-03-01', '2027-03-08');
    changeMeeting(org.ctx('ines'), item?.id ?? '', { version: 1, scope: 'one', fields: { place: 'Marsh Lab' } });
    expect(await undoAny(org.ctx('ines'), done.undo)).toMatchObject({ ok: false, code: 'changedMeanwhile' });
    expect(await undoAny(org.ctx('tomas'), done.undo)).toMatchObject({ ok: false, code: 'notFound' });
  });

  test('a right that is taken away while it comes in ends it, and nothing stays', async () => {
    org.give('ines', 'tomas', { ...PRESETS.delegate, private: true });
    const seen = await preview(GOOD, 'tomas');
    org.db.raw.exec(`CREATE TRIGGER demoted AFTER INSERT ON coming BEGIN
      UPDATE access_grant SET recorded_until = ${START} WHERE audience = 'person'; END`);
    const done = await bringIn(org.ctx('tomas'), seen.ok ? seen.value.preview : '');
    expect(done).toMatchObject({ ok: false, code: 'mayNotImport' });
    expect(org.db.get('SELECT count(*) AS n FROM item')).toEqual({ n: 0 });
    expect(org.db.get('SELECT count(*) AS n FROM coming')).toEqual({ n: 0 });
    expect(org.db.get('SELECT count(*) AS n FROM batch')).toEqual({ n: 0 });
  });

  test('what a process that ended left of it is cleared at the next start, and was never seen', async () => {
    const seen = await preview(GOOD);
    org.db.raw.exec(
      `CREATE TRIGGER ends BEFORE UPDATE OF state ON batch BEGIN SELECT RAISE(ABORT, 'ended'); END;
       CREATE TRIGGER ends_too BEFORE DELETE ON coming BEGIN SELECT RAISE(ABORT, 'ended'); END`,
    );
    await expect(bringIn(org.ctx('ines'), seen.ok ? seen.value.preview : '')).rejects.toThrow('ended');
    expect(days('2027-03-01', '2027-03-31')).toEqual([]);
    expect(org.db.get<{ n: number }>('SELECT count(*) AS n FROM item')?.n).toBe(6);
    org.db.raw.exec('DROP TRIGGER ends; DROP TRIGGER ends_too');
    await forgetUnfinished(org.db, async () => {});
    for (const table of ['item', 'coming', 'batch'])
      expect([table, org.db.get<{ n: number }>(`SELECT count(*) AS n FROM ${table}`)?.n]).toEqual([table, 0]);
  });

  test('somebody’s further previews take the place of their own oldest, and of nobody else’s', async () => {
    const theirs = await previewImport(org.ctx('wren'), org.calendar('wren'), bytes(GOOD));
    const first = await preview(GOOD);
    for (let i = 0; i < 5; i++) await preview(GOOD);
    expect(await bringIn(org.ctx('ines'), first.ok ? first.value.preview : '')).toMatchObject({ code: 'previewGone' });
    expect((await bringIn(org.ctx('wren'), theirs.ok ? theirs.value.preview : '')).ok).toBe(true);
  });

  test('what is more than a calendar holds is named, and the rest comes in', async () => {
    const often = Array.from({ length: 14 }, (_, i) =>
      event(`h${i}`, 'DTSTART:20270302T000000Z', 'DURATION:PT5M', 'RRULE:FREQ=HOURLY', `SUMMARY:Hourly ${i}`),
    );
    const seen = await preview(file(...often));
    if (!seen.ok) throw new Error(seen.code);
    expect(seen.value.counts.fresh).toBeGreaterThan(5);
    expect(seen.value.counts.fresh + seen.value.counts.problems).toBe(14);
    expect(new Set(seen.value.problems.map((p) => p.code))).toEqual(new Set(['tooManyHappenings']));
  });
});
