import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import * as clock from '../../clock.ts';
import { again, type Context, noteTokenAct } from '../deciding/index.ts';
import { listItems } from '../items/list-items.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { listTokens, makeToken, readTokenActs, tokenIn, withdrawToken } from './tokens.ts';

const DAY = 86_400_000;
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  vi.spyOn(clock, 'now').mockReturnValue(START);
  org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) });
});
afterEach(() => {
  vi.restoreAllMocks();
  org.close();
});

const make = (who: string, more: object = {}) => {
  const made = makeToken(org.ctx(who), { name: 'Phone', reads: false, calendar: null, until: null, ...more });
  if (!made.ok) throw new Error(JSON.stringify(made));
  return made.value.secret;
};
const bearer = (secret: string) => tokenIn(org.db, `Bearer ${secret}`);
const basic = (name: string, secret: string) =>
  tokenIn(org.db, `Basic ${Buffer.from(`${name}:${secret}`).toString('base64')}`);
const listed = (who = 'ines') => {
  const all = listTokens(org.ctx(who));
  return all.ok ? all.value.tokens : [];
};
/** A context as a request with this token has it. */
const by = (secret: string) => {
  const found = bearer(secret);
  if (!found) throw new Error('no token');
  return { ...org.ctx(found.person.handle), token: { key: found.token.key, only: found.token.collectionId } };
};

describe('a token', () => {
  test('comes in as its maker, by itself or under their address or their handle as a name, and as nobody else', () => {
    const secret = make('ines');
    expect(bearer(secret)?.person.handle).toBe('ines');
    expect(basic('Ines@cloudmoor.example', secret)?.person.handle).toBe('ines');
    expect(basic('ines', secret)?.person.handle).toBe('ines');
    for (const other of ['amara@cloudmoor.example', 'amara', '']) expect(basic(other, secret)).toBeNull();
    for (const no of [`${secret}x`, secret.slice(0, -1), 'paramo..', '', secret.replace('paramo', 'other')])
      expect(bearer(no)).toBeNull();
    for (const no of ['', 'Bearer', `Digest ${secret}`, 'Basic ###', `Bearer ${secret} more`])
      expect(tokenIn(org.db, no)).toBeNull();
  });

  test('is kept as a digest, listed without its secret, and only to its maker', () => {
    const secret = make('ines', { until: '2027-03-05', reads: true });
    expect(JSON.stringify(org.db.all('SELECT * FROM token'))).not.toContain(secret.split('.')[2]);
    expect(listed()).toMatchObject([
      { name: 'Phone', reads: true, until: '2027-03-06T00:00:00Z', used: null, ended: false },
    ]);
    expect(listed('amara')).toEqual([]);
    bearer(secret);
    expect(listed()[0]?.used).toBe('2027-03-02T09:00:00Z');
  });

  test('ends at its end, when it is withdrawn, and with its maker; in between it is refused where it writes', () => {
    const secret = make('ines', { until: '2027-03-05' });
    const ctx = by(secret);
    expect('ok' in again(ctx)).toBe(false);
    vi.spyOn(clock, 'now').mockReturnValue(START + 4 * DAY);
    expect(bearer(secret)).toBeNull();
    expect(again(ctx)).toMatchObject({ code: 'signedOut' });
    vi.spyOn(clock, 'now').mockReturnValue(START);
    const key = listed()[0]?.key ?? '';
    expect(withdrawToken(org.ctx('amara'), key)).toMatchObject({ code: 'notFound' });
    expect(withdrawToken(org.ctx('ines'), key).ok).toBe(true);
    expect(bearer(secret)).toBeNull();
    expect(again(ctx)).toMatchObject({ code: 'signedOut' });
    // It is listed for a while yet, with what it did.
    expect(listed()).toMatchObject([{ withdrawn: '2027-03-02T09:00:00Z' }]);
    const other = make('bruno');
    org.db.run('UPDATE person SET account = NULL WHERE handle = ?', 'bruno');
    expect(bearer(other)).toBeNull();
  });

  test('for one calendar sees that one as its maker does, and of every other, their own too, nothing', () => {
    org.give('ines', 'amara', PRESETS.outline);
    const ctx = by(make('amara', { calendar: org.calendar('ines') }));
    expect(listItems(ctx, org.calendar('ines'), WEEK)).toMatchObject({
      ok: true,
      value: { items: [{ title: 'Open talk' }] },
    });
    expect(listItems(ctx, org.calendar('amara'), WEEK)).toMatchObject({ code: 'notFound' });
    const admin = by(make('ines', { calendar: org.calendar('ines') }));
    expect(listSightlines(admin, org.calendar('bruno'))).toMatchObject({ code: 'notFound' });
    // Nor the directory, which is about more than that calendar.
    expect(listSightlines(admin, org.calendar('ines'))).toMatchObject({ ok: true, value: { people: [], groups: [] } });
  });

  test.each([
    [{ until: '2027-03-01' }, { until: 'datePassed' }],
    [{ until: '2027-02-30' }, { until: 'date' }],
    [{ calendar: 'none' }, { calendar: 'unclear' }],
  ])('%j is refused at its field', (more, fields) => {
    const body = { name: 'Phone', reads: false, calendar: null, until: null, ...more };
    expect(makeToken(org.ctx('ines'), body)).toMatchObject({ fields });
  });

  test('there are as many as may be, and no more', () => {
    for (let i = 0; i < 30; i++) make('ines');
    expect(makeToken(org.ctx('ines'), { name: 'x', reads: true, calendar: null, until: null })).toMatchObject({
      code: 'tooManyTokens',
    });
  });
});

test('no token is told a secret address or makes a new way in; what it wrote is listed where it is', () => {
  const ctx = by(make('ines', { reads: false }));
  const give = (to: object, as: Context = ctx) =>
    giveAccess(as, org.calendar('ines'), { audience: to as never, rights: PRESETS.freeBusy, seen: null });
  expect(give({ kind: 'newLink', name: 'Board' })).toMatchObject({ code: 'notByToken' });
  expect(give({ kind: 'address', address: 'me@evil.example' })).toMatchObject({ code: 'notByToken' });
  expect(give({ kind: 'newLink', name: 'Board' }, org.ctx('ines'))).toMatchObject({ ok: true });
  const links = (as: Context) => {
    const lines = listSightlines(as, org.calendar('ines'));
    return lines.ok ? lines.value.rows.filter((r) => r.audience.kind === 'link').map((r) => r.link) : [];
  };
  expect([links(ctx), links(org.ctx('ines'))]).toEqual([[null], [expect.stringContaining('/see/')]]);
  noteTokenAct(ctx, 'createItem', { calendar: org.calendar('ines') });
  noteTokenAct(org.ctx('ines'), 'createItem', { calendar: org.calendar('ines') });
  const key = listed()[0]?.key ?? '';
  expect(readTokenActs(org.ctx('ines'), key)).toEqual({
    ok: true,
    value: { acts: [{ at: '2027-03-02T09:00:00Z', act: 'createItem', calendar: 'Ines' }], cut: false },
  });
  expect(readTokenActs(org.ctx('bruno'), key)).toMatchObject({ code: 'notFound' });
});
