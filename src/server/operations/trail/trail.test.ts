import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { TrailQuery } from '@/contract/trail.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { trailHead } from '../../repositories/trail.ts';
import { bringBack, changeItem, removeItem, undo } from '../items/index.ts';
import { giveAccess, listSightlines, takeAccess } from '../sharing/index.ts';
import { type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { chainOf, forgetTrail, listTrail, readTrailDigest, trailFile } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.full);
});
afterEach(() => org.close());

const list = (who: string, query: Partial<TrailQuery> = {}, at = START + 5000) => {
  const listed = listTrail(org.ctx(who, at), { of: 'name', ...query });
  if (!listed.ok) throw new Error(listed.code);
  return listed.value;
};
const of = (who: string) => ({ of: 'calendar' as const, calendar: org.calendar(who) });
const change = (who: string, key: string, fields: object, at = START + 1000) => {
  const version = itemByKey(org.db, key)?.version ?? 0;
  const done = changeItem(org.ctx(who, at), key, { version, scope: 'all', fields });
  if (!done.ok) throw new Error(done.code);
  return done.value.undo;
};
const verbs = (who: string, query: Partial<TrailQuery> = {}) => list(who, query).entries.map(({ verb }) => verb);

describe('what is listed', () => {
  test('what was done in one’s name, by oneself for others, in a calendar: who, for whom, before and after', () => {
    const { id } = org.add('ines', 'ines', { title: 'Weir' });
    change('tomas', id, { title: 'Weir consent' });
    const [last] = list('ines').entries;
    expect(last).toMatchObject({
      actor: 'Tomas',
      principal: 'Ines',
      verb: 'item.changed',
      items: ['Weir consent'],
      changed: [{ field: 'title', before: 'Weir', after: 'Weir consent' }],
      undo: true,
    });
    expect(list('tomas', { of: 'others' }).entries).toMatchObject([{ verb: 'item.changed', principal: 'Ines' }]);
    expect(verbs('tomas', of('ines'))).toEqual(['item.changed', 'item.added']);
    // Access is for who gives it; whoever only reads a calendar reads nothing of its trail.
    expect(verbs('ines', { kind: 'access' })).toEqual(['access.given', 'access.given']);
    expect(list('ines', { kind: 'access' }).entries[1]).toMatchObject({
      who: 'Tomas',
      levels: { before: null, after: { rights: { speaks: true } } },
    });
    expect(verbs('tomas', { ...of('ines'), kind: 'access' })).toEqual([]);
    expect(verbs('tomas', { ...of('ines'), kind: 'house' })).toEqual([]);
    // Who gave access there is no choice for somebody who reads nothing of it.
    giveAccess(org.ctx('ines'), org.calendar('bruno'), {
      audience: { kind: 'person', id: 'tomas' },
      rights: PRESETS.delegate,
      seen: null,
    });
    expect(list('tomas', of('bruno')).people).toEqual([]);
    expect(listTrail(org.ctx('amara'), of('ines'))).toMatchObject({ code: 'notFound' });
    expect(listTrail(org.ctx('dario'), of('ines'))).toMatchObject({ code: 'notFound' });
    expect(list('amara').entries.filter(({ principal }) => principal === 'Ines')).toEqual([]);
  });

  test('by person, kind and days, a page at a time', () => {
    for (let i = 0; i < 60; i++) org.add('ines', i % 2 ? 'tomas' : 'ines', { title: `Item ${i}` });
    const first = list('ines', { kind: 'items' });
    expect([first.entries.length, first.entries[0]?.items]).toEqual([50, ['Item 59']]);
    const rest = list('ines', { kind: 'items', after: first.after ?? '' });
    expect([rest.entries.length, rest.after]).toEqual([10, null]);
    expect(first.people.map(({ handle }) => handle).sort()).toEqual(['ines', 'tomas']);
    expect(list('ines', { kind: 'items', who: 'tomas' }).entries.every(({ actor }) => actor === 'Tomas')).toBe(true);
    expect(list('ines', { from: '2027-03-03' }).entries).toEqual([]);
    expect(list('ines', { until: '2027-03-02', kind: 'items' }).entries).toHaveLength(50);
    expect(list('ines', { until: '2027-03-01' }).entries).toEqual([]);
    // A name that nobody has answers as one who did nothing: whether there is somebody isn’t said.
    expect(list('ines', { who: 'nobody' }).entries).toEqual([]);
    expect(list('ines', { who: 'wren' }).entries).toEqual([]);
  });

  test('of what is private now, or was, nothing is told but that something was done; nor of what is no longer theirs', () => {
    const { id } = org.add('ines', 'ines', { title: 'zqdoctor' });
    change('tomas', id, { title: 'zqdentist' });
    change('ines', id, { visibility: 'private' });
    change('ines', id, { title: 'zqsurgeon' });
    const read = JSON.stringify(list('tomas', of('ines')));
    // A word of it: two letters alone may stand in any key.
    expect(read).not.toMatch(/zq[a-z]{5}/);
    expect(list('tomas', of('ines')).entries.map(({ items }) => items)).toEqual([[null], [null], [null], [null]]);
    change('ines', id, { visibility: 'follow' });
    const open = JSON.stringify(list('tomas', of('ines')).entries.map(({ changed }) => changed));
    expect(open).toContain('zqdentist');
    // From while it was private nothing comes back by its being open again.
    expect(open).not.toContain('"before":"zqsurgeon"');
    const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const row = lines.ok ? lines.value.rows.find(({ who }) => who.name === 'Tomas') : null;
    const audience = { kind: 'person', id: 'tomas' } as const;
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience, seen: row?.grants[0]?.key ?? '' });
    org.give('ines', 'tomas', PRESETS.shutOut);
    expect(list('tomas', { of: 'others' }).entries).toMatchObject([{ verb: 'item.changed', items: [], changed: [] }]);
    expect(list('tomas').calendars.map(({ owner, kind }) => [owner, kind])).toEqual([
      ['Tomas', 'calendar'],
      ['Tomas', 'tasks'],
      ['Tomas', 'contacts'],
      ...['Arrived', 'Sent', 'Drafts', 'Filed'].map(() => ['Tomas', 'folder']),
    ]);
  });

  test('the owner takes back what was done on their calendar, days later; once somebody built on it not any more', () => {
    const { id } = org.add('ines', 'ines', { title: 'Weir' });
    const key = change('tomas', id, { title: 'Weir consent' });
    const later = START + 3 * 86_400_000;
    expect(list('ines', {}, later).entries[0]).toMatchObject({ key, undo: true });
    expect(list('tomas', { of: 'others' }, later).entries[0]).toMatchObject({ key, undo: false });
    expect(undo(org.ctx('tomas', later), key)).toMatchObject({ code: 'notFound' });
    expect(undo(org.ctx('amara', later), key)).toMatchObject({ code: 'notFound' });
    expect(undo(org.ctx('ines', later), key).ok).toBe(true);
    expect(itemByKey(org.db, id)?.title).toBe('Weir');
    expect(list('ines', {}, later).entries.find((e) => e.key === key)?.undo).toBe(false);
    expect(list('ines', {}, START + 40 * 86_400_000).entries[0]?.undo).toBe(false);
  });

  test('as a table: a line for each change, nothing a spreadsheet would work out', () => {
    const { id } = org.add('ines', 'ines', { title: '=SUM(A1)' });
    change('tomas', id, { place: '+351' });
    giveAccess(org.ctx('ines', START + 2000), org.calendar('ines'), {
      audience: { kind: 'person', id: 'wren' },
      rights: PRESETS.outline,
      seen: null,
    });
    const file = trailFile(org.ctx('ines', START + 5000), { of: 'name' });
    const lines = file.ok ? file.value.trim().split('\r\n') : [];
    expect(lines[0]).toBe('at,by,person,for,calendar,act,what,field,before,after');
    expect(lines[1]).toContain('gave access,Wren,Access,,Outline');
    expect(lines[2]).toContain(`Tomas,,Ines,,changed it,"'=SUM(A1)",Place,,"'+351"`);
  });
});

describe('the chain', () => {
  const whole = () => chainOf(org.db, null);
  const edit = (text: string, ...values: unknown[]) => org.db.run(text, ...values);
  const busy = () => {
    const { id } = org.add('ines', 'ines', { title: 'Weir' });
    change('tomas', id, { title: 'Weir consent' });
    change('ines', id, { place: 'Marsh Lab' });
    return id;
  };

  test('is whole after whatever is done, removed and brought back', () => {
    const id = busy();
    removeItem(org.ctx('ines', START + 3000), id, { version: itemByKey(org.db, id)?.version ?? 0, scope: 'all' });
    bringBack(org.ctx('ines', START + 4000), id);
    const { entries, digest } = trailHead(org.db);
    expect(whole()).toEqual({ whole: true, entries, forgotten: 0, digest });
  });

  test.each([
    ['who did it', 'UPDATE trail SET actor_id = 3 WHERE id = ?', 'entry'],
    ['when', 'UPDATE trail SET at = at + 1 WHERE id = ?', 'entry'],
    ['what was done', "UPDATE trail SET verb = 'item.added' WHERE id = ?", 'entry'],
    ['what it says', "UPDATE trail SET after = replace(after, 'Weir', 'Dam') WHERE id = ?", 'text'],
    ['who was behind', "UPDATE trail SET hands = 'Otto' WHERE id = ?", 'text'],
    [
      'what was forgotten by nobody',
      'UPDATE trail SET after = NULL, salt = NULL, forgotten_at = 5 WHERE id = ?',
      'forgotten',
    ],
  ] as const)('names the first entry where %s was edited by hand', (_, text, wrong) => {
    busy();
    const [, second] = org.db.all<{ id: number; key: string }>(
      "SELECT id, key FROM trail WHERE verb LIKE 'item.%' ORDER BY id",
    );
    edit(text, second?.id);
    const before = org.db.get<{ n: number }>('SELECT count(*) AS n FROM trail WHERE id < ?', second?.id)?.n;
    expect(whole()).toMatchObject({ whole: false, wrong, entry: { key: second?.key }, entries: before });
  });

  test('an entry taken out, or put in between, shows at the next; an end cut off shows by its head, or by a digest kept elsewhere', () => {
    busy();
    const ids = org.db.all<{ id: number; key: string }>('SELECT id, key FROM trail ORDER BY id');
    const [gone, next] = [ids.at(-2), ids.at(-1)];
    const { digest } = trailHead(org.db);
    edit('DELETE FROM trail WHERE id = ?', gone?.id);
    expect(whole()).toMatchObject({ whole: false, wrong: 'entry', entry: { key: next?.key } });
    edit('DELETE FROM trail WHERE id = ?', next?.id);
    expect(whole()).toMatchObject({ whole: false, wrong: 'end', entry: null });
    // Whoever mends the head too is found out by what was kept of it.
    const last = org.db.get<{ digest: string }>('SELECT digest FROM trail ORDER BY id DESC LIMIT 1')?.digest;
    edit('UPDATE trail_head SET entries = ?, digest = ?', ids.length - 2, last);
    expect(whole()).toMatchObject({ whole: true });
    expect(chainOf(org.db, digest)).toMatchObject({ whole: false, wrong: 'notFound' });
  });

  test('what must be forgotten is, by an administrator: the chain stays whole and says that it was', () => {
    const id = busy();
    expect(forgetTrail(org.ctx('tomas'), id)).toMatchObject({ code: 'administratorOnly' });
    expect(forgetTrail(org.ctx('ines'), 'nothing')).toMatchObject({ code: 'notFound' });
    expect(forgetTrail(org.ctx('ines'), id)).toMatchObject({ value: { forgotten: 3 } });
    expect(whole()).toMatchObject({ whole: true, forgotten: 3 });
    const texts = org.db.all<{ text: string }>("SELECT coalesce(before, '') || coalesce(after, '') AS text FROM trail");
    expect(JSON.stringify(texts)).not.toContain('Weir');
    const seen = list('ines', { kind: 'items' }).entries;
    expect(seen).toMatchObject([{ items: [], undo: false, forgotten: expect.any(String) }, {}, {}]);
    expect(undo(org.ctx('ines', START + 9000), seen[0]?.key ?? '')).toMatchObject({ code: 'notFound' });
    expect(verbs('ines', { kind: 'house' })[0]).toBe('trail.forgotten');
    // Forgetting more of it later leaves what was forgotten before said.
    change('ines', id, { title: 'Dam' });
    expect(forgetTrail(org.ctx('ines'), id)).toMatchObject({ value: { forgotten: 1 } });
    expect(whole()).toMatchObject({ whole: true, forgotten: 4 });
    // A forgetting that is itself edited away shows.
    edit("UPDATE trail SET after = '{\"entries\":[]}' WHERE verb = 'trail.forgotten'");
    expect(whole()).toMatchObject({ whole: false, wrong: 'text' });
  });

  test('its digest is served as it stood at the last full hour, to whoever is inside', () => {
    const before = trailHead(org.db).digest;
    org.add('ines', 'ines', { title: 'Weir' });
    const at = (ms: number) => {
      const read = readTrailDigest(org.ctx('wren', START + ms));
      return read.ok ? read.value : null;
    };
    expect(at(5000)).toMatchObject({ at: '2027-03-02T09:00:00Z' });
    expect(at(5000)?.digest).not.toBe(trailHead(org.db).digest);
    expect(at(3_600_000)?.digest).toBe(trailHead(org.db).digest);
    expect(before).not.toBe('');
  });
});
