import ical from 'node-ical';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { ChangedMessage } from '@/contract/items/live.ts';
import { linkShown } from '@/contract/sharing/links.ts';
import { PRESETS, type Rights } from '@/core/access/index.ts';
import * as clock from '../../clock.ts';
import * as database from '../../db/index.ts';
import { linkSecret } from '../../ids.ts';
import { hub } from '../../live/hub.ts';

import { changeMeeting } from '../meetings/index.ts';
import { at, houseRulesWith, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { giveAccess, takeAccess } from './give-access.ts';
import { changeHouseRules } from './house-rules.ts';
import { admitToLink, type LinkQueries, type LinkReadings, readLink, setLinkShown } from './link-feeds.ts';
import { linkLanguage } from './links.ts';

const HEADERS = new Headers();
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  vi.spyOn(database, 'database').mockReturnValue(org.db);
  vi.spyOn(clock, 'now').mockReturnValue(START);
  changeHouseRules(org.ctx('ines'), houseRulesWith({ linkSight: 'outline' }));
  org.add('ines', 'ines', { title: 'Open talk', place: 'Ridge House', notes: 'secret', when: at('2027-03-03', 9) });
  org.add('ines', 'ines', { title: 'Dentist', visibility: 'private', when: at('2027-03-04', 14) });
  org.add('ines', 'ines', { title: 'Perhaps', shows: 'tentative', when: at('2027-03-04', 15) });
  org.add('ines', 'ines', { title: 'Reading', shows: 'free', when: at('2027-03-05', 9) });
  org.add('ines', 'ines', { title: 'Far away', when: at('2027-06-05', 9) });
  org.add('ines', 'ines', {
    title: 'Every week',
    when: at('2027-03-01', 11),
    repeat: { rule: 'FREQ=WEEKLY;COUNT=3' },
  } as never);
});
/** A reading of a link as a request makes it. */
function read<K extends keyof LinkReadings>(as: K, secret: string, headers: Headers, query: LinkQueries[K]) {
  const found = admitToLink(secret, headers);
  return 'ok' in found ? found : readLink(found.db, found.at, secret, as, query);
}
const linkFeed = (secret: string, headers: Headers) => read('feed', secret, headers, null);
const linkFreeBusy = (secret: string, query: LinkQueries['freeBusy'], headers: Headers) =>
  read('freeBusy', secret, headers, query);
const linkWeek = (secret: string, wanted: string | null, headers: Headers) => read('week', secret, headers, wanted);
const listLinkItems = (secret: string, query: LinkQueries['items'], headers: Headers) =>
  read('items', secret, headers, query);
afterEach(() => {
  vi.restoreAllMocks();
  org.close();
});

function link(rights: Rights): { secret: string; key: string; grant: string } {
  const made = giveAccess(org.ctx('ines'), org.calendar('ines'), {
    audience: { kind: 'newLink', name: `Board ${Math.random()}` },
    rights,
    seen: null,
  });
  if (!made.ok || made.value.audience.kind !== 'link') throw new Error('no link');
  return { key: made.value.audience.id, secret: linkSecret(made.value.audience.id), grant: made.value.grant };
}
const events = (secret: string) => {
  const read = linkFeed(secret, HEADERS);
  if (!read.ok) return read.code;
  return Object.values(ical.sync.parseICS(read.value.text)).flatMap((c) =>
    c?.type === 'VEVENT' ? [{ uid: c.uid, summary: String(c.summary) }] : [],
  );
};
const summaries = (secret: string) => {
  const list = events(secret);
  return typeof list === 'string' ? list : list.map((e) => e.summary);
};
const shown = (key: string, more: object, by = 'ines') =>
  setLinkShown(
    org.ctx(by),
    org.calendar('ines'),
    key,
    linkShown.parse({ ahead: 366, language: null, zone: null, framedBy: null, ...more }),
  );

describe('a feed', () => {
  test('holds every occurrence by itself, at exactly the link’s sight, under ids that say nothing', () => {
    const { secret } = link(PRESETS.outline);
    expect(summaries(secret)).toEqual([
      'Every week',
      'Open talk',
      'Private',
      'Perhaps',
      'Reading',
      'Every week',
      'Every week',
      'Far away',
    ]);
    const text = linkFeed(secret, HEADERS);
    if (!text.ok) throw new Error(text.code);
    expect(text.value.text).toContain('Ridge House');
    for (const hidden of ['secret', 'Dentist', 'cloudmoor.example']) expect(text.value.text).not.toContain(hidden);
    const uids = (events(secret) as { uid: string }[]).map((e) => e.uid);
    expect(new Set(uids).size).toBe(uids.length);
    const other = link(PRESETS.outline);
    expect((events(other.secret) as { uid: string }[]).some((e) => uids.includes(e.uid))).toBe(false);
  });

  test('at free/busy has words alone, in the link’s language, and no free time', () => {
    const { secret, key } = link(PRESETS.freeBusy);
    expect(new Set(summaries(secret))).toEqual(new Set(['Busy', 'Tentative']));
    shown(key, { language: 'pt' });
    expect(new Set(summaries(secret))).toEqual(new Set(['Ocupado', 'Provisório']));
  });

  test('reads the same until something changes, so that nothing is sent twice', () => {
    const { secret } = link(PRESETS.outline);
    const tag = () => {
      const read = linkFeed(secret, HEADERS);
      return read.ok ? read.value.tag : read.code;
    };
    const before = tag();
    vi.spyOn(clock, 'now').mockReturnValue(START + 3_600_000);
    expect(tag()).toBe(before);
    org.add('ines', 'ines', { title: 'One more', when: at('2027-03-06', 9) });
    expect(tag()).not.toBe(before);
  });

  test('shows as far ahead as was said, on every way it is read', () => {
    const { secret, key } = link(PRESETS.outline);
    shown(key, { ahead: 7 });
    expect(summaries(secret)).toEqual(['Every week', 'Open talk', 'Private', 'Perhaps', 'Reading', 'Every week']);
    const later = listLinkItems(secret, { from: '2027-06-01', to: '2027-06-30', zone: 'Europe/Lisbon' }, HEADERS);
    expect(later.ok && [later.value.items, later.value.ends]).toEqual([[], '2027-03-10']);
    const across = listLinkItems(secret, { from: '2027-03-08', to: '2027-03-20', zone: 'Europe/Lisbon' }, HEADERS);
    expect(across.ok && across.value.items.map((i) => i.title)).toEqual(['Every week']);
    // A day that begins before the link's does is no way to its next one.
    shown(key, { ahead: 7, zone: 'Etc/GMT+12' });
    const day = { start: '2027-03-09', end: '2027-03-10', allDay: true, zone: 'Europe/Lisbon' };
    org.add('ines', 'ines', { title: 'Day', when: day });
    const early = { from: '2027-03-09', to: '2027-03-10', zone: 'Pacific/Kiritimati' };
    const elsewhere = listLinkItems(secret, early, HEADERS);
    expect(elsewhere.ok && elsewhere.value.items.map((i) => i.title)).toEqual(['Every week']);
    shown(key, { ahead: 7 });
    expect(linkWeek(secret, '2027-06-01', HEADERS)).toMatchObject({
      ok: true,
      value: { from: Date.UTC(2027, 2, 8), after: null },
    });
    const taken = linkFreeBusy(secret, { start: '20270601T000000Z', end: '20270701T000000Z' }, HEADERS);
    expect(taken.ok && taken.value.text).not.toContain('FREEBUSY;');
  });

  test('is gone with its link, its end, its suspension and a house rule that closes links: each answered like one never made', () => {
    const { secret, key, grant } = link(PRESETS.outline);
    expect(Array.isArray(events(secret))).toBe(true);
    changeHouseRules(org.ctx('ines'), houseRulesWith({ linkSight: 'nothing' }));
    expect(events(secret)).toBe('linkGone');
    changeHouseRules(org.ctx('ines'), houseRulesWith({ linkSight: 'busy' }));
    expect(summaries(secret)).toContain('Busy');
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: { kind: 'link', id: key }, seen: grant });
    for (const gone of [linkFeed(secret, HEADERS), linkFreeBusy(secret, {}, HEADERS), linkWeek(secret, null, HEADERS)])
      expect(gone).toEqual(linkFeed('made.up', HEADERS));
  });
});

describe('free and busy', () => {
  const lines = (query: object = {}, rights: Rights = PRESETS.outline) => {
    const read = linkFreeBusy(link(rights).secret, query, HEADERS);
    return read.ok ? read.value.text.split('\r\n').filter((l) => l.startsWith('FREEBUSY')) : read;
  };

  test('says when time is taken and how surely, and no more than that whatever the link shows', () => {
    const all = lines({ start: '20270303T000000Z', end: '2027-03-05T00:00:00Z' });
    expect(all).toEqual([
      'FREEBUSY;FBTYPE=BUSY:20270303T090000Z/20270303T100000Z',
      'FREEBUSY;FBTYPE=BUSY:20270304T140000Z/20270304T150000Z',
      'FREEBUSY;FBTYPE=BUSY-TENTATIVE:20270304T150000Z/20270304T160000Z',
    ]);
    expect(lines({ start: '20270303T000000Z', end: '2027-03-05T00:00:00Z' }, PRESETS.freeBusy)).toEqual(all);
  });

  test('ends with what was read where there is more, so that nothing taken looks free, and says so', () => {
    for (const hour of [10, 12, 14, 16, 18])
      org.add('ines', 'ines', {
        title: 'Round',
        when: at('2027-03-01', hour),
        repeat: { rule: 'FREQ=DAILY;COUNT=360' },
      } as never);
    const read = linkFreeBusy(link(PRESETS.freeBusy).secret, {}, HEADERS);
    if (!read.ok) throw new Error(read.code);
    // The last that was read begins at 14:00: that it is taken then, and what else is, isn't said any more.
    const lines = read.value.text.split('\r\n');
    expect(lines.filter((l) => l.startsWith('FREEBUSY')).at(-1)).toMatch(/20271224T120000Z\/20271224T130000Z$/);
    expect(lines).toContain('DTEND:20271224T140000Z');
    expect(read.value.text.replace(/\r\n /g, '')).toContain('Only the first 1\\,500');
  });

  test('cuts to the range that is asked for, and refuses at its field what is none', () => {
    expect(lines({ start: '20270303T093000Z', end: '20270303T094500Z' })).toEqual([
      'FREEBUSY;FBTYPE=BUSY:20270303T093000Z/20270303T094500Z',
    ]);
    expect(lines({ start: 'soon' })).toMatchObject({ fields: { start: 'instant' } });
    expect(lines({ start: '20270303T100000Z', end: '20270303T100000Z' })).toMatchObject({
      fields: { end: 'endBeforeStart' },
    });
  });
});

describe('a window that a link is open in', () => {
  /** What is told of some work, and of how many changes, with one after it that is told in any case. */
  async function heard(more: object, work: () => void): Promise<{ titles: unknown[]; changes: number }> {
    const { key } = link(PRESETS.outline);
    shown(key, { ahead: 7, ...more });
    const said: string[] = [];
    const leave = hub().join(`link:${key}`, { session: null, send: (text) => said.push(text), close: () => {} });
    try {
      work();
      org.add('ines', 'ines', { title: 'The last', when: at('2027-03-03', 18) });
      await vi.waitFor(() => expect(said.join()).toContain('The last'));
      const all = said.map((text) => JSON.parse(text) as ChangedMessage);
      return {
        titles: all.flatMap(({ seen }) => seen?.shown.map(({ title }) => title) ?? ['ask']),
        changes: all.reduce((sum, { version, follows }) => sum + version[1] - follows[1], 0),
      };
    } finally {
      leave?.();
    }
  }
  const NOTHING_ELSE = { titles: ['The last'], changes: 1 };
  const add = (title: string, when: object, more: object = {}) =>
    org.add('ines', 'ines', { title, when, ...more } as never);

  test('hears of what is within the days of its link', async () => {
    const near = await heard({}, () => add('Near', at('2027-03-09', 20)));
    expect(near).toEqual({ titles: ['Near', 'The last'], changes: 2 });
  });

  test.each(['America/Bogota', 'Europe/Lisbon', 'Pacific/Auckland'])(
    'hears nothing from beyond them, nor that anything changed there, in %s',
    async (zone) => {
      const day = { start: '2027-03-10', end: '2027-03-11', allDay: true, zone: 'Europe/Lisbon' };
      expect(await heard({ zone }, () => add('Beyond', at('2027-03-12', 9)))).toEqual(NOTHING_ELSE);
      expect(await heard({ zone }, () => add('Beyond', day))).toEqual(NOTHING_ELSE);
    },
  );

  test('hears nothing of a series that goes on only beyond them', async () => {
    const { id } = add('Weekly', at('2027-03-03', 12), { repeat: { rule: 'FREQ=WEEKLY;COUNT=2' } });
    const longer = (count: number) => () => {
      const { version } = org.db.get<{ version: number }>(`SELECT version FROM item WHERE title = 'Weekly'`) ?? {
        version: 0,
      };
      const repeat = { rule: `FREQ=WEEKLY;COUNT=${count}` };
      expect(changeMeeting(org.ctx('ines'), id, { version, scope: 'all', fields: {}, repeat })).toMatchObject({
        ok: true,
      });
    };
    expect(await heard({}, longer(5))).toEqual(NOTHING_ELSE);
    expect((await heard({ ahead: 14 }, longer(1))).changes).toBe(2);
  });
});

describe('how a link is shown', () => {
  test('is set by whoever sees its address, and refused at its field where it makes no sense', () => {
    const { key } = link(PRESETS.outline);
    expect(shown(key, { zone: 'Mars' })).toMatchObject({ fields: { zone: 'zone' } });
    for (const no of [
      'javascript:alert(1)',
      'http://plain.example',
      'https://a.example/path',
      "https://a.example'; script-src *",
      '*',
    ])
      expect(shown(key, { framedBy: no })).toMatchObject({ fields: { framedBy: 'website' } });
    expect(shown(key, { framedBy: 'www.cloudmoor.example', ahead: 28, zone: 'America/Bogota' }).ok).toBe(true);
    expect(shown(key, {}, 'bruno')).toMatchObject({ ok: false });
    expect(shown('another', {})).toMatchObject({ code: 'notFound' });
    expect(linkShown.safeParse({ ahead: 0, language: null, zone: null, framedBy: null }).success).toBe(false);
  });

  test('its page says how a time is booked, in the owner’s words, and when the owner works; a file says neither', () => {
    const { key, secret } = link(PRESETS.outline);
    const said = () => {
      const week = linkWeek(secret, null, HEADERS);
      return week.ok ? week.value : null;
    };
    expect(said()).toMatchObject({ booking: null, hours: null });
    org.works('ines', '09:00', '17:30');
    expect(shown(key, { booking: '  Call 555 0100  ' }).ok).toBe(true);
    expect(said()).toMatchObject({ booking: 'Call 555 0100' });
    expect(said()?.hours?.[0]).toEqual([['09:00', '17:30']]);
    // On another clock than the page’s they would say another time.
    expect(shown(key, { booking: '', zone: 'America/Bogota' }).ok).toBe(true);
    expect(said()).toMatchObject({ booking: null, hours: null });
    shown(key, { booking: 'Call 555 0100' });
    const file = linkFeed(secret, HEADERS);
    expect(file.ok && file.value.text.includes('555 0100')).toBe(false);
    expect(shown(key, { booking: 'x'.repeat(300) }).ok).toBe(true);
    const long = { ahead: 1, language: null, zone: null, framedBy: null, booking: 'x'.repeat(301) };
    expect(linkShown.safeParse(long).success).toBe(false);
  });

  test('a week is read in the link’s zone, and no earlier or later than it goes', () => {
    const { secret, key } = link(PRESETS.outline);
    shown(key, { zone: 'America/Bogota', ahead: 28 });
    const week = linkWeek(secret, null, HEADERS);
    expect(week.ok && { ...week.value, items: week.value.items.length }).toMatchObject({
      title: 'Ines',
      zone: 'America/Bogota',
      from: Date.UTC(2027, 2, 1),
      before: Date.UTC(2027, 1, 22),
      after: Date.UTC(2027, 2, 8),
    });
    expect(linkWeek(secret, '2020-01-01', HEADERS)).toMatchObject({ ok: true, value: { before: null } });
    // A hold whose time has come isn't shown, though nobody else looked meanwhile.
    org.db.run(`UPDATE item SET kind = 'hold', lapses_at = ? WHERE title = 'Open talk'`, START);
    const freed = linkWeek(secret, null, HEADERS);
    expect(freed.ok && freed.value.items.some((i) => i.title === 'Open talk')).toBe(false);
  });

  test('its page speaks the language that was set for it, as long as it shows anything', () => {
    const { secret, key, grant } = link(PRESETS.outline);
    expect(linkLanguage(secret)).toBeNull();
    shown(key, { language: 'pt' });
    expect(linkLanguage(secret)).toBe('pt');
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: { kind: 'link', id: key }, seen: grant });
    expect(linkLanguage(secret)).toBeNull();
  });
});
