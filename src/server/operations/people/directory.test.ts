import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { readDirectory, writeDirectory } from '@/core/formats/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import { personByAddress, personByHandle } from '../../repositories/people.ts';
import { listItems } from '../items/list-items.ts';
import { explainAccess } from '../sharing/explain-access.ts';
import { changeWords, readFindings } from '../sharing/findings.ts';
import { giveAccess, takeSeveral } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { listSuggestions, putForward } from '../suggestions/suggestions.ts';
import { bringInDirectory, directoryFile } from './directory-file.ts';
import { changeDomains, readDomains } from './domains.ts';
import { listGroups, setMembership, setWithin } from './groups.ts';
import { changePerson, leave, readPerson } from './leaving.ts';
import { listPeople } from './list-people.ts';
import { changePreferences, checkNewPerson, findBoard, readPhones } from './people.ts';

const dropped: string[] = [];
vi.mock('../../auth/accounts.ts', () => ({
  makeBareAccount: async (address: string) => `account of ${address}`,
  hasPassword: async () => true,
  dropAccount: async (account: string) => void dropped.push(account),
}));

let org: SmallOrganisation;
let item: string;
beforeEach(() => {
  dropped.length = 0;
  org = smallOrganisation();
  changeDomains(org.ctx('ines'), { domains: ['cloudmoor.example', 'moor.example'] });
  item = org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) }).id;
});
afterEach(() => org.close());

const sees = (who: string, when = START) => {
  const listed = listItems(org.ctx(who, when), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items.map((i) => i.title ?? i.shows) : listed.code;
};
describe('a group within a group', () => {
  test('brings its people along, whoever comes into it later too, and past instants are remembered', () => {
    const outer = org.group('Programme', []);
    const inner = org.group('Field team', ['amara']);
    giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'group', id: outer },
      rights: PRESETS.titles,
      seen: null,
    });
    expect(sees('amara')).toEqual(['busy']);
    expect(setWithin(org.ctx('bruno'), outer, { group: inner, within: true })).toMatchObject({
      code: 'administratorOnly',
    });
    expect(setWithin(org.ctx('ines', START + 1000), outer, { group: inner, within: true }).ok).toBe(true);
    expect(sees('amara', START + 1000)).toEqual(['Open talk']);
    setMembership(org.ctx('ines', START + 2000), inner, { handle: 'dario', member: true });
    expect(sees('dario', START + 2000)).toEqual(['Open talk']);
    expect(listGroups(org.ctx('tomas'))).toMatchObject({
      value: {
        groups: [
          { name: 'Field team', people: 2 },
          { name: 'Programme', people: 2, members: [], within: [{ name: 'Field team' }] },
        ],
      },
    });
    expect(setWithin(org.ctx('ines', START + 3000), outer, { group: inner, within: false }).ok).toBe(true);
    expect(sees('amara', START + 3000)).toEqual(['busy']);
    const then = (instant: string) =>
      explainAccess(org.ctx('ines', START + 9000), org.calendar('ines'), {
        audience: { kind: 'person', id: 'amara' },
        item,
        at: instant,
      });
    expect(then('2027-03-02T09:00:02Z')).toMatchObject({ value: { seen: 'title', steps: [{ step: 'group' }, {}] } });
    expect(then('2027-03-02T09:00:04Z')).toMatchObject({ value: { seen: 'busy' } });
  });

  test('can’t come to stand in itself, however far around', () => {
    const [a, b, c] = ['A', 'B', 'C'].map((name) => org.group(name, [])) as [string, string, string];
    expect(setWithin(org.ctx('ines'), a, { group: b, within: true }).ok).toBe(true);
    expect(setWithin(org.ctx('ines'), b, { group: c, within: true }).ok).toBe(true);
    for (const [outer, inner] of [
      [a, a],
      [c, a],
      [c, b],
      [b, a],
    ] as const)
      expect(setWithin(org.ctx('ines'), outer, { group: inner, within: true })).toMatchObject({
        fields: { group: 'groupInItself' },
      });
  });
});

describe('domains', () => {
  test('say who is inside; one that people have stays', () => {
    const check = (address: string) => checkNewPerson(org.db, { zone: 'Europe/Lisbon', address });
    expect(check('new@moor.example').ok).toBe(true);
    expect(check('new@elsewhere.example')).toMatchObject({ fields: { address: 'addressOutside' } });
    expect(changeDomains(org.ctx('ines'), { domains: ['moor.example'] })).toMatchObject({
      fields: { domains: 'domainInUse' },
    });
    expect(changeDomains(org.ctx('tomas'), { domains: [] })).toMatchObject({ code: 'administratorOnly' });
    expect(changeDomains(org.ctx('ines'), { domains: ['cloudmoor.example'] }).ok).toBe(true);
    expect(readDomains(org.ctx('tomas'))).toMatchObject({ value: { domains: ['cloudmoor.example'] } });
  });
});

describe('a directory file', () => {
  const rows = [
    {
      name: 'Zoë "Zo" Birch, jr',
      address: 'zoe@moor.example',
      role: '=1+1',
      site: 'Löch',
      phone: '+351 210 000 101 ext. 4',
      kind: 'person' as const,
      zone: 'Europe/Lisbon',
      groups: ['A', 'B & C'],
    },
    {
      name: 'Front desk',
      address: 'desk@moor.example',
      role: '',
      site: '',
      phone: '',
      kind: 'role' as const,
      zone: null,
      groups: [],
    },
  ];
  test('reads back what was written, and defuses what a spreadsheet would calculate', () => {
    const text = writeDirectory(rows);
    expect(text).toContain("'=1+1");
    expect(readDirectory(text)).toEqual({ rows: rows.map((r, i) => ({ line: i + 2, ...r })), wrong: [] });
  });

  test('in, is said first line by line and then done as one act; out, is what went in', async () => {
    const text = [
      'address;name;kind;groups',
      'zoe@moor.example;Zoë Birch;;Rangers; New ones',
      'amara@cloudmoor.example;Amara Reyes;person;Rangers',
      'nobody;No Address;;',
      'far@elsewhere.example;Far Away;;',
      'zoe@moor.example;Twice;;',
      'x@moor.example;;;',
      'y@moor.example;Y;robot;',
    ].join('\n');
    org.group('Rangers', []);
    expect(await bringInDirectory(org.ctx('tomas'), { text, apply: true })).toMatchObject({
      code: 'administratorOnly',
    });
    const read = await bringInDirectory(org.ctx('ines'), { text, apply: false });
    expect(read).toMatchObject({
      value: {
        added: [{ address: 'zoe@moor.example', groups: ['Rangers'] }],
        changed: [{ address: 'amara@cloudmoor.example', what: ['name', 'groups'] }],
        wrong: [
          { line: 4, reason: 'address' },
          { line: 5, reason: 'domain' },
          { line: 6, reason: 'twice' },
          { line: 7, reason: 'name' },
          { line: 8, reason: 'kind' },
        ],
        applied: false,
      },
    });
    expect(personByHandle(org.db, 'zoe')).toBeNull();
    await bringInDirectory(org.ctx('ines'), { text, apply: true });
    expect(personByHandle(org.db, 'zoe')).toMatchObject({ name: 'Zoë Birch', inside: true });
    expect(findBoard(org.ctx('tomas'), 'zoe')).not.toBeNull();
    const out = directoryFile(org.ctx('ines'));
    const again = await bringInDirectory(org.ctx('ines'), { text: out.ok ? out.value : '', apply: false });
    expect(again).toMatchObject({ value: { added: [], changed: [], wrong: [], same: 7 } });
    expect(await bringInDirectory(org.ctx('ines'), { text: 'who,where\na,b', apply: false })).toMatchObject({
      value: { wrong: [{ line: 1, reason: 'noHead' }] },
    });
  });
});

describe('a number to call', () => {
  const numbers = (as: string) =>
    readPhones(org.ctx(as), ['ines@cloudmoor.example', 'amara@cloudmoor.example', 'nobody@x.example']);
  const mine = { zone: 'Europe/Lisbon', hours: '24', weekFirst: 1, dateOrder: 'dmy' } as const;
  test('is said by oneself or by the directory’s file, stands there for all inside, and goes with who leaves', async () => {
    changePreferences(org.ctx('ines'), { ...mine, phone: '+351 210 000 101' });
    changePreferences(org.ctx('ines'), mine);
    const text = 'name,address,phone\nAmara,amara@cloudmoor.example,0210 22\nTomas,tomas@cloudmoor.example,call me';
    expect(await bringInDirectory(org.ctx('ines'), { text, apply: true })).toMatchObject({
      value: { changed: [{ what: ['phone'] }], wrong: [{ line: 3, reason: 'phone' }] },
    });
    expect(numbers('bruno')).toEqual({
      ok: true,
      value: {
        phones: [
          { address: 'amara@cloudmoor.example', phone: '0210 22' },
          { address: 'ines@cloudmoor.example', phone: '+351 210 000 101' },
        ],
      },
    });
    expect((await leave(org.ctx('ines'), 'amara', { to: 'bruno' })).ok).toBe(true);
    expect(personByHandle(org.db, 'amara')?.phone).toBe('');
    expect(numbers('bruno')).toMatchObject({ value: { phones: [{ address: 'ines@cloudmoor.example' }] } });
  });

  test('is in nothing that somebody from outside is answered, whatever they may see', () => {
    changePreferences(org.ctx('ines'), { ...mine, phone: '+351 210 000 101' });
    giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'address', address: 'marta@quill-audit.example', name: 'Marta Quill' },
      rights: PRESETS.outline,
      seen: null,
    });
    const marta = personByAddress(org.db, 'marta@quill-audit.example') ?? org.person('ines');
    expect(numbers(marta.handle)).toMatchObject({ value: { phones: [] } });
    const listed = listPeople(org.ctx(marta.handle));
    expect(listed).toMatchObject({ value: { people: [{ handle: 'ines', phone: '' }] } });
    expect(JSON.stringify(listed)).not.toContain('210 000');
  });
});

describe('somebody leaves', () => {
  test('is reviewed, then their sign-in, their access and their groups end, and what they own is handed on, in one act', async () => {
    const team = org.group('Rangers', ['amara']);
    org.give('ines', 'amara', PRESETS.delegate);
    org.give('amara', 'tomas', PRESETS.full);
    org.add('amara', 'amara', { title: 'Peat cores' });
    const calendar = org.calendar('amara');
    expect(await readPerson(org.ctx('bruno'), 'amara')).toMatchObject({ code: 'administratorOnly' });
    expect(await readPerson(org.ctx('ines'), 'amara')).toMatchObject({
      value: {
        grants: [{ owner: 'Ines', preset: 'delegate', acts: true }],
        groups: ['Rangers'],
        calendars: [
          { name: 'Amara', main: true },
          { name: 'Tasks', main: false },
          { name: 'Contacts', main: false },
          { name: 'Arrived', main: false },
          { name: 'Sent', main: false },
          { name: 'Drafts', main: false },
          { name: 'Filed', main: false },
        ],
      },
    });
    expect(await leave(org.ctx('ines'), 'ines', { to: 'tomas' })).toMatchObject({ code: 'onlyAdministrator' });
    for (const to of [null, 'amara', 'nobody'])
      expect(await leave(org.ctx('ines'), 'amara', { to })).toMatchObject({ fields: { to: 'heir' } });
    expect((await leave(org.ctx('ines'), 'amara', { to: 'bruno' })).ok).toBe(true);
    expect(dropped).toEqual(['account-amara']);
    expect(personByHandle(org.db, 'amara')).toMatchObject({ inside: false, account: null, leftAt: START });
    expect(listSightlines(org.ctx('ines'), org.calendar('ines'))).toMatchObject({
      value: { rows: [{ audience: { kind: 'everyone' } }] },
    });
    expect(listGroups(org.ctx('ines'))).toMatchObject({ value: { groups: [{ key: team, people: 0 }] } });
    const people = listPeople(org.ctx('tomas'));
    expect(people.ok && people.value.people.map((p) => p.handle)).not.toContain('amara');
    // Bruno has it now as a further calendar, with what Tomas was given there.
    const bruno = listItems(org.ctx('bruno'), calendar, WEEK);
    expect(bruno).toMatchObject({ value: { head: { own: true, calendar: { name: 'Amara', main: false } } } });
    expect(listItems(org.ctx('tomas'), calendar, WEEK)).toMatchObject({ value: { items: [{ title: 'Peat cores' }] } });
    // Her list of tasks is a further one of his.
    const lists = listsOf(org.db, 'tasks', org.person('bruno').id);
    expect(lists.map(({ name, first }) => [name, first])).toEqual([
      ['Tasks', true],
      ['Amara', false],
    ]);
    expect(await readPerson(org.ctx('ines'), 'amara')).toMatchObject({ code: 'notFound' });
    // Her address can't be given access as if she were a stranger.
    const again = giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'address', address: 'amara@cloudmoor.example' },
      rights: PRESETS.freeBusy,
      seen: null,
    });
    expect(again).toMatchObject({ fields: { audience: 'audienceLeft' } });
  });

  test('takes back what they had put forward', async () => {
    org.give('bruno', 'amara', { ...PRESETS.freeBusy, suggest: true });
    const item = newItem.parse({ title: 'Roof', when: at('2027-03-04', 10) });
    expect(putForward(org.ctx('amara'), org.calendar('bruno'), { kind: 'add', item, why: '' }).ok).toBe(true);
    const waiting = () => {
      const listed = listSuggestions(org.ctx('bruno'));
      return listed.ok ? listed.value.waiting.length : null;
    };
    expect(waiting()).toBe(1);
    expect((await leave(org.ctx('ines'), 'amara', { to: 'bruno' })).ok).toBe(true);
    expect(waiting()).toBe(0);
  });

  test('the last administrator stays one', () => {
    const change = { name: 'Ines', role: '', site: '', phone: '', kind: 'person', administrator: false } as const;
    expect(changePerson(org.ctx('ines'), 'ines', change)).toMatchObject({ code: 'onlyAdministrator' });
    expect(changePerson(org.ctx('ines'), 'bruno', { ...change, name: 'Bruno', administrator: true }).ok).toBe(true);
    expect(changePerson(org.ctx('bruno'), 'ines', change).ok).toBe(true);
  });
});

describe('findings', () => {
  const findings = (when = START) => {
    const read = readFindings(org.ctx('ines', when), org.calendar('ines'));
    return read.ok ? read.value : null;
  };
  test('name who has left a group that is given access here', () => {
    const team = org.group('Rangers', ['amara', 'dario']);
    giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'group', id: team },
      rights: PRESETS.titles,
      seen: null,
    });
    org.give('ines', 'amara', PRESETS.full);
    org.give('ines', 'dario', PRESETS.full);
    setMembership(org.ctx('ines', START + 1000), team, { handle: 'amara', member: false });
    expect(findings(START + 2000)?.findings).toMatchObject([{ kind: 'leftGroup', name: 'Amara', group: 'Rangers' }]);
    setMembership(org.ctx('ines', START + 3000), team, { handle: 'amara', member: true });
    expect(findings(START + 4000)?.findings).toEqual([]);
  });

  test('name people whose rows give no more than they get anyway; all go in one act, or none', () => {
    for (const who of ['amara', 'bruno', 'wren']) org.give('ines', who, PRESETS.freeBusy);
    org.give('ines', 'tomas', PRESETS.delegate);
    org.give('ines', 'dario', PRESETS.shutOut);
    const spare = () => findings()?.findings.flatMap((f) => (f.kind === 'spare' ? f.people : [])) ?? [];
    expect(spare().map((p) => p.name)).toEqual(['Amara', 'Bruno', 'Wren']);
    const takes = spare().map(({ audience, seen }) => ({ audience, seen }));
    const stale = [...takes, { audience: { kind: 'person', id: 'tomas' } as const, seen: 'stale' }];
    expect(takeSeveral(org.ctx('ines'), org.calendar('ines'), { takes: stale }).ok).toBe(false);
    expect(spare()).toHaveLength(3);
    expect(takeSeveral(org.ctx('ines'), org.calendar('ines'), { takes: [...takes, ...takes] })).toMatchObject({
      fields: { audience: 'audienceTwice' },
    });
    expect(takeSeveral(org.ctx('bruno'), org.calendar('ines'), { takes }).ok).toBe(false);
    expect(takeSeveral(org.ctx('ines'), org.calendar('ines'), { takes }).ok).toBe(true);
    expect(spare()).toEqual([]);
    const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
    expect(lines.ok && lines.value.rows.map((r) => r.who.name)).toEqual(['', 'Tomas', 'Dario']);
  });

  test('name a main calendar behind a link', () => {
    giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'newLink', name: 'Web' },
      rights: PRESETS.freeBusy,
      seen: null,
    });
    expect(findings()?.findings).toMatchObject([{ kind: 'link', name: 'Web', sight: 'busy' }]);
  });

  test('go by one’s own words too: more of them, or fewer', () => {
    const everyone = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const seen = everyone.ok ? (everyone.value.rows[0]?.grants[0]?.key ?? '') : '';
    giveAccess(org.ctx('ines'), org.calendar('ines'), { audience: { kind: 'everyone' }, rights: PRESETS.titles, seen });
    org.add('ines', 'ines', { title: 'Projekt Birkhuhn' });
    org.add('ines', 'ines', { title: 'Scan the old maps' });
    const titles = () =>
      findings()?.findings.flatMap((f) => (f.kind === 'sensitive' ? [[f.item.title, f.item.topic]] : []));
    expect(titles()).toEqual([['Scan the old maps', 'health']]);
    const words = [
      { word: 'Projekt  BIRKHUHN*', topic: 'own' },
      { word: 'scan', topic: 'never' },
    ] as const;
    expect(changeWords(org.ctx('ines'), { words: [...words] }).ok).toBe(true);
    expect(titles()).toEqual([['Projekt Birkhuhn', 'own']]);
    expect(findings()?.words).toEqual([
      { word: 'projekt birkhuhn*', topic: 'own' },
      { word: 'scan', topic: 'never' },
    ]);
    expect(changeWords(org.ctx('ines'), { words: [{ word: '**', topic: 'own' }] })).toMatchObject({
      fields: { 'words.0.word': 'wordMissing' },
    });
  });
});
