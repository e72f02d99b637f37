import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { messageBody } from '@/contract/sharing/sharing.ts';
import { PRESETS } from '@/core/access/index.ts';
import { readFrame } from '../frame/read-frame.ts';
import { listNotices, readNotices } from '../messages/notices.ts';
import { beginCalendar, changePreferences } from '../people/people.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { listAccessRequests } from './access-requests.ts';
import { giveAccess, takeAccess } from './give-access.ts';
import { previewMessage } from './message-text.ts';
import { previewAccess } from './preview-access.ts';
import { requestAccess, withdrawAccessRequest } from './request-access.ts';
import { listSightlines } from './sightlines.ts';
import { suggestLevel } from './suggest-level.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.add('ines', 'ines', { title: 'Open talk', when: at('2027-03-03', 9) });
});
afterEach(() => org.close());

const amara = { kind: 'person', id: 'amara' } as const;
const give = (more: object = {}, by = 'ines') =>
  giveAccess(org.ctx(by), org.calendar('ines'), { audience: amara, rights: PRESETS.outline, seen: null, ...more });
const grant = (who = 'Amara') => {
  const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
  return lines.ok ? lines.value.rows.find((r) => r.who.name === who)?.grants[0] : undefined;
};
const told = (who: string) => {
  const listed = listNotices(org.ctx(who));
  return listed.ok ? listed.value.notices.map((n) => n.kind) : [];
};
const message = (more: object, by = 'ines') => {
  const shown = previewMessage(
    org.ctx(by),
    org.calendar('ines'),
    messageBody.parse({ audience: amara, rights: PRESETS.outline, seen: null, ...more }),
  );
  return shown.ok ? shown.value : shown;
};
const speaks = (who: string, language: 'en' | 'pt') =>
  changePreferences(org.ctx(who), { zone: 'Europe/Lisbon', hours: '24', weekFirst: 1, dateOrder: 'dmy', language });

describe('the message', () => {
  test('is shown as it will be found: who gives, what it lets them do and not do, until when, with the words', () => {
    const until = { from: null, until: '2027-03-26', zone: 'Europe/Lisbon' };
    expect(message({ note: 'For the audit', span: until, asks: 'busy' })).toEqual({
      letter: false,
      language: 'en',
      subject: null,
      lines: [
        'Ines gave you access to Ines’s calendar.',
        'With it one sees times, titles and places. Can’t change anything or read what is private.',
        'until 26 March 2027',
        '“For the audit”',
        'Ines asks for Free/busy of your calendar.',
      ],
    });
  });

  test('is in the language of whoever reads it, not of whoever gives', () => {
    speaks('amara', 'pt');
    expect(message({})).toMatchObject({
      language: 'pt',
      lines: [expect.stringContaining('Ines'), expect.stringContaining('títulos')],
    });
    speaks('ines', 'pt');
    expect(message({ audience: { kind: 'person', id: 'bruno' } })).toMatchObject({ language: 'en' });
  });

  test('to somebody outside is the letter, line for line as it is sent but for its secret address', () => {
    const xeno = { kind: 'address', address: 'xeno@river.example', name: 'Xeno' };
    const shown = message({ audience: xeno, rights: PRESETS.freeBusy });
    expect(shown).toMatchObject({ letter: true, subject: 'Ines’s calendar' });
    expect('lines' in shown && shown.lines.slice(0, 3)).toEqual([
      'Dear Xeno,',
      'Ines lets you see their calendar.',
      'With it one sees when Ines is free or busy, and nothing else. Can’t change anything or read what is private.',
    ]);
  });

  test('to an address that is known elsewhere is what it is to one nobody knows', () => {
    const xeno = { kind: 'address', address: 'xeno@river.example', name: 'Xeno' } as const;
    giveAccess(org.ctx('bruno'), org.calendar('bruno'), { audience: xeno, rights: PRESETS.freeBusy, seen: null });
    org.db.run(
      `UPDATE person SET language = 'pt', zone = 'America/Bogota', account = 'x' WHERE address = 'xeno@river.example'`,
    );
    const other = { ...xeno, address: 'nobody@river.example' };
    expect(message({ audience: xeno })).toEqual(message({ audience: other }));
  });

  test('speaks for whoever gives in her name, of a change as one, and of an end', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    expect(message({}, 'tomas')).toMatchObject({
      lines: [expect.stringContaining('Tomas gave you access'), expect.anything()],
    });
    expect(message({ seen: 'some' })).toMatchObject({ lines: [expect.stringContaining('changed'), expect.anything()] });
    expect(message({ rights: null, seen: 'some' })).toMatchObject({
      lines: ['Your own access to Ines’s calendar was taken away.'],
    });
  });

  test('is shown to nobody who may not give, and there is none for everyone', () => {
    expect(message({}, 'bruno')).toMatchObject({ code: 'mayNotShare' });
    expect(message({ audience: { kind: 'everyone' } })).toMatchObject({ fields: { audience: 'audience' } });
  });
});

describe('who was told', () => {
  test('is told of what becomes of it, also by an administrator and by a script that says nothing; quietly, they aren’t', () => {
    give({ tell: { note: '' } });
    give({ rights: PRESETS.full, seen: grant()?.key ?? '' });
    expect(told('amara')).toEqual(['changed', 'given']);
    give({ rights: PRESETS.titles, seen: grant()?.key ?? '', tell: null });
    expect(told('amara')).toEqual(['changed', 'given']);
    give({ rights: PRESETS.full, seen: grant()?.key ?? '', tell: { note: '' } });
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: amara, seen: grant()?.key ?? '' });
    expect(told('amara')).toEqual(['taken', 'changed', 'changed', 'given']);
  });

  test('stands at the row: told, not opened yet, then opened and when; of a group, how many', () => {
    give({ tell: { note: '' } });
    expect(grant()?.heard).toEqual({ told: 1, opened: 0, last: null });
    readNotices(org.ctx('amara', START + 1000));
    expect(grant()?.heard).toEqual({ told: 1, opened: 1, last: '2027-03-02T09:00:01Z' });
    const id = org.group('Weir', ['bruno', 'dario', 'wren']);
    give({ audience: { kind: 'group', id }, tell: { note: '' } });
    readNotices(org.ctx('dario'));
    expect(grant('Weir')?.heard).toMatchObject({ told: 3, opened: 1 });
    give({ audience: { kind: 'person', id: 'dario' }, tell: null });
    expect(grant('Dario')?.heard).toBeNull();
  });
});

describe('both ways', () => {
  test('giving asks for theirs in the same act: one message, which says both', () => {
    expect(give({ tell: { note: 'For the audit' }, asks: 'title' }).ok).toBe(true);
    const requests = listAccessRequests(org.ctx('amara'));
    expect(requests.ok && requests.value.waiting[0]).toMatchObject({
      from: { handle: 'ines' },
      preset: 'titles',
      why: 'For the audit',
      gave: { sight: 'outline' },
    });
    expect(told('amara')).toEqual([]);
    // It counts as one, the access request, until it is read; then whoever gave sees that it was.
    expect(readFrame(org.ctx('amara')).unread).toBe(1);
    readNotices(org.ctx('amara', START + 1000));
    expect(grant()?.heard).toMatchObject({ told: 1, opened: 1 });
  });

  test('only for one’s own main calendar, and of somebody inside', () => {
    org.give('ines', 'tomas', PRESETS.steward);
    expect(give({ asks: 'busy' }, 'tomas')).toMatchObject({ fields: { asks: 'askInside' } });
    const xeno = { kind: 'address', address: 'xeno@river.example' } as const;
    expect(give({ audience: xeno, asks: 'busy' })).toMatchObject({ fields: { asks: 'askInside' } });
    const made = beginCalendar(org.ctx('ines'), { of: 'ines', name: 'Rounds' });
    if (!made.ok) throw new Error(made.code);
    const further = { audience: amara, rights: PRESETS.outline, seen: null, asks: 'busy' } as const;
    expect(giveAccess(org.ctx('ines'), made.value.calendar, further)).toMatchObject({ fields: { asks: 'askInside' } });
  });

  test('what is shown with an access request is said where it asks, and by itself once the access request is taken back', () => {
    requestAccess(org.ctx('bruno'), {
      to: ['ines'],
      what: 'calendar',
      calendar: null,
      rights: PRESETS.outline,
      span: null,
      why: '',
      offers: 'busy',
    });
    expect(told('ines')).toEqual([]);
    const requests = listAccessRequests(org.ctx('bruno'));
    expect(withdrawAccessRequest(org.ctx('bruno'), (requests.ok && requests.value.own[0]?.key) || '').ok).toBe(true);
    expect(told('ines')).toEqual(['given']);
  });

  test('each direction is its own: before one ends one’s own, what the other shows is said to the owner and to nobody else', () => {
    give();
    giveAccess(org.ctx('amara'), org.calendar('amara'), {
      audience: { kind: 'person', id: 'ines' },
      rights: PRESETS.full,
      seen: null,
    });
    org.give('ines', 'tomas', PRESETS.steward);
    const theirs = (by: string) => {
      const shown = previewAccess(org.ctx(by), org.calendar('ines'), {
        audience: amara,
        rights: null,
        seen: grant()?.key ?? null,
        range: WEEK,
      });
      return shown.ok && shown.value.theirs;
    };
    expect(theirs('ines')).toMatchObject({ sight: 'full' });
    expect(theirs('tomas')).toBeNull();
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience: amara, seen: grant()?.key ?? '', tell: null });
    const lines = listSightlines(org.ctx('amara'), org.calendar('amara'));
    expect(lines.ok && lines.value.rows.some((r) => r.who.name === 'Ines')).toBe(true);
  });
});

describe('the least that serves', () => {
  const least = (id: string, by = 'ines', of = 'ines') => {
    const found = suggestLevel(org.ctx(by), org.calendar(of), { audience: { kind: 'person', id } });
    return found.ok ? found.value.suggested : found;
  };
  const meet = (who: string, times: number) => {
    for (let i = 0; i < times; i++)
      org.add(
        'ines',
        'ines',
        { title: `Talk ${i}`, when: at('2027-03-04', 8 + i) },
        {
          organiser: { address: 'ines@cloudmoor.example', name: 'Ines' },
          attendees: [{ address: `${who}@cloudmoor.example`, name: who, answer: 'accepted' }],
        },
      );
  };

  test('goes by how often they meet, as whoever gives sees it, and says so', () => {
    expect(least('bruno')).toMatchObject({ kin: 'colleague', preset: 'freeBusy', meets: 0 });
    meet('bruno', 7);
    expect(least('bruno')).toMatchObject({ kin: 'close', preset: 'outline', meets: 7 });
    // An administrator sees no meetings by being one.
    expect(least('bruno', 'ines', 'wren')).toMatchObject({ kin: 'colleague', meets: 0 });
  });

  test('for whoever the owner arranges for is full sight, which a steward isn’t told', () => {
    org.give('bruno', 'ines', PRESETS.arranger);
    org.give('ines', 'tomas', PRESETS.steward);
    expect(least('bruno')).toMatchObject({ kin: 'boss', preset: 'full' });
    expect(least('bruno', 'tomas')).toMatchObject({ kin: 'colleague' });
  });

  test('is what such people are given on the giver’s other calendars, where that is less', () => {
    meet('amara', 7);
    for (const who of ['bruno', 'amara', 'wren', 'dario']) org.give(who, 'tomas', PRESETS.steward);
    org.give('ines', 'tomas', PRESETS.steward);
    expect(least('amara', 'tomas')).toMatchObject({ preset: 'outline', elsewhere: null });
  });

  test('is nothing for whoever has something by name, for groups, and for who may not give', () => {
    org.give('ines', 'bruno', PRESETS.titles);
    expect(least('bruno')).toBeNull();
    expect(least('ines')).toBeNull();
    expect(least('amara', 'dario')).toMatchObject({ code: 'mayNotShare' });
  });
});
