import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import * as clock from '../../clock.ts';
import { again, type Context, operatorHere } from '../deciding/index.ts';
import { changeMeeting, createMeeting } from '../meetings/index.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { readHistory } from '../sharing/sightlines.ts';
import { suggestLevel } from '../sharing/suggest-level.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { readTrail } from '../trail/index.ts';
import { listAccounts, makeAccountCode, setOperator, tieAccount, untieAccount } from './accounts.ts';

// A window's session holds as long as it is asked about here.
vi.mock('../../auth/sessions.ts', async (original) => ({ ...(await original<object>()), sessionHolds: () => true }));

const HOUR = 3_600_000;
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  vi.spyOn(clock, 'now').mockReturnValue(START);
});
afterEach(() => {
  vi.restoreAllMocks();
  org.close();
});

describe('two accounts of one person', () => {
  const codeOf = (who: string, when = START): string => {
    const made = makeAccountCode(org.ctx(who, when));
    if (!made.ok) throw new Error(made.code);
    return made.value.code;
  };
  const tied = (who: string) => listAccounts(org.ctx(who)).tied.map((one) => one.handle);

  test('are tied by a code made in the one and given in the other, once and within a quarter of an hour', () => {
    const code = codeOf('ines');
    expect(JSON.stringify(org.db.all('SELECT * FROM account_code'))).not.toContain(code.replace('-', ''));
    expect(tieAccount(org.ctx('ines'), { code })).toMatchObject({ fields: { code: 'codeOwn' } });
    // Given where it was made it is spent all the same.
    expect(tieAccount(org.ctx('wren'), { code })).toMatchObject({ fields: { code: 'codeWrong' } });
    const second = codeOf('ines');
    expect(tieAccount(org.ctx('wren', START + HOUR), { code: second })).toMatchObject({
      fields: { code: 'codeWrong' },
    });
    const third = codeOf('ines');
    expect(tieAccount(org.ctx('wren'), { code: ` ${third.toLowerCase().replace('-', ' ')} ` })).toMatchObject({
      ok: true,
    });
    expect([tied('ines'), tied('wren'), tied('bruno')]).toEqual([['wren'], ['ines'], []]);
    expect(tieAccount(org.ctx('bruno'), { code: third })).toMatchObject({ fields: { code: 'codeWrong' } });
  });

  test('are guessed at no more than ten times in a quarter of an hour', () => {
    for (let n = 0; n < 10; n++)
      expect(tieAccount(org.ctx('dario'), { code: `WRONG-${n}` })).toMatchObject({ code: 'badInput' });
    expect(tieAccount(org.ctx('dario'), { code: codeOf('ines') })).toMatchObject({ code: 'tooManyTries' });
  });

  test('are said to be one’s own where access is given to one of them, to their owner alone, until either unties them', () => {
    tieAccount(org.ctx('wren'), { code: codeOf('ines') });
    const suggested = (who: string) => {
      const found = suggestLevel(org.ctx(who), org.calendar('ines'), { audience: { kind: 'person', id: 'wren' } });
      return found.ok ? found.value.suggested?.kin : found.code;
    };
    expect(suggested('ines')).toBe('tiedAccount');
    org.give('ines', 'tomas', { ...PRESETS.steward, private: true, copies: true });
    expect(suggested('tomas')).toBe('colleague');
    expect(untieAccount(org.ctx('bruno'), 'wren')).toMatchObject({ code: 'notFound' });
    expect(untieAccount(org.ctx('wren'), 'ines')).toMatchObject({ ok: true });
    expect([tied('ines'), tied('wren')]).toEqual([[], []]);
    expect(suggested('ines')).toBe('colleague');
  });
});

describe('an account that several people use', () => {
  const desk = (now = START, session = 'window'): Context => {
    vi.spyOn(clock, 'now').mockReturnValue(now);
    return { ...org.ctx('dario', now), session };
  };
  beforeEach(() => {
    org.db.run("UPDATE person SET kind = 'role' WHERE handle = 'dario'");
  });

  test('does nothing before it is said who is there, asks again each day and in each window, and asks nobody else', () => {
    expect(operatorHere(org.ctx('ines'))).toBeNull();
    expect(operatorHere(desk())).toEqual({ asks: true, name: null, before: [] });
    expect(again(desk())).toMatchObject({ code: 'handsFirst' });
    expect(setOperator(org.ctx('ines'), { name: 'Ines' })).toMatchObject({ code: 'notFound' });
    expect(setOperator(desk(), { name: 'Mirren' })).toMatchObject({ ok: true });
    expect('ok' in again(desk())).toBe(false);
    expect(operatorHere(desk(START + 10 * HOUR))).toMatchObject({ asks: false, name: 'Mirren' });
    expect(operatorHere(desk(START, 'another window'))).toEqual({ asks: true, name: null, before: ['Mirren'] });
    // It is another day on the clock of the desk.
    expect(operatorHere(desk(START + 16 * HOUR))).toEqual({ asks: true, name: null, before: ['Mirren'] });
    expect(again(desk(START + 16 * HOUR))).toMatchObject({ code: 'handsFirst' });
  });

  test('leaves with every act who was behind it, and those who read what happened read that', () => {
    org.give('ines', 'dario', PRESETS.arranger);
    setOperator(desk(), { name: 'Mirren' });
    const input = newItem.parse({ when: at('2027-03-03', 10), title: 'Parcel' });
    const made = createMeeting(desk(), org.calendar('ines'), input);
    const id = (made.ok && made.value.item?.id) || '';
    setOperator(desk(), { name: 'Jon' });
    expect(changeMeeting(desk(), id, { version: 1, scope: 'one', fields: { title: 'Parcels' } })).toMatchObject({
      ok: true,
    });
    const trail = readTrail(org.ctx('ines'), id);
    expect(trail.ok && trail.value.entries.map((e) => [e.actor, e.hands])).toEqual([
      ['Dario', 'Jon'],
      ['Dario', 'Mirren'],
    ]);
  });

  test('stands in the history of access too', () => {
    org.give('ines', 'dario', PRESETS.steward);
    setOperator(desk(), { name: 'Mirren' });
    const audience = { kind: 'person', id: 'wren' } as const;
    const give = { audience, rights: PRESETS.outline, seen: null };
    expect(giveAccess(desk(START + 1000), org.calendar('ines'), give)).toMatchObject({ ok: true });
    const history = readHistory(org.ctx('ines', START + 2000), org.calendar('ines'));
    expect(history.ok && history.value.entries.map((e) => [e.name, e.given.actor, e.hands])).toEqual(
      expect.arrayContaining([
        ['Wren', 'Dario', 'Mirren'],
        ['Dario', 'Ines', null],
      ]),
    );
  });
});
