import { describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { holdsBody } from '@/contract/meetings/holds.ts';
import { PRESETS } from '@/core/access/index.ts';
import type { Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { changeHouseRules } from '../sharing/house-rules.ts';
import { at, houseRulesWith } from '../small-organisation.ts';
import {
  changeMeeting,
  createMeeting,
  fixHold,
  holdTimes,
  readMeeting,
  removeMeeting,
  sayIt,
  undoSeveral,
} from './index.ts';
import { unlessItLeaves } from './leaving.ts';
import { call, ctx, eachMeetingDay, idIn, itemOf, mail, org, pass, value, who } from './meeting-day.ts';

eachMeetingDay();

const MARTA = 'marta@quill-audit.example';
/** Does a write as a window that wants to be asked first does it. */
const confirmingFirst = <T>(handle: string, work: (ctx: Context) => Result<T>): Result<T> => {
  const here: Context = { ...ctx(handle), leaving: new Map() };
  return org.db.write(() => unlessItLeaves(here, work(here)));
};
const meetingWith = (...people: string[]) =>
  newItem.parse({ when: at('2027-03-03', 10), title: 'Weir consent', people: who(...people) });
const change = (made: { item: { id: string } | null }, more: object) => (here: Context) =>
  changeMeeting(here, itemOf(made).key, {
    version: itemOf(made).version,
    scope: 'all',
    fields: {},
    tellAll: false,
    ...more,
  });
const LEAVES = { ok: false, code: 'leavesHouse', data: { people: [MARTA] } };

test('who is asked hears who sent it for its organiser, and nobody where she sent it herself', () => {
  org.give('bruno', 'wren', PRESETS.delegate);
  const sentFor = (made: { item: { id: string } | null }, as: string) =>
    value(readMeeting(ctx(as), idIn('bruno', itemOf(made).uid))).sentFor;
  const byTomas = call('tomas', who('bruno'));
  const byInes = call('ines', who('bruno'));
  pass();
  expect([sentFor(byTomas, 'bruno'), sentFor(byTomas, 'wren'), sentFor(byInes, 'bruno')]).toEqual([
    'Tomas',
    'Tomas',
    null,
  ]);
});

describe('a meeting that goes outside the house for the first time', () => {
  test('is refused with the names, and nothing of it is written; of whom it asks without that wish it goes at once', () => {
    const calendar = org.calendar('ines');
    const items = () => org.db.get<{ n: number }>('SELECT count(*) AS n FROM item')?.n;
    const before = items();
    const make = (here: Context) => createMeeting(here, calendar, meetingWith('bruno', MARTA));
    expect(confirmingFirst('tomas', make)).toMatchObject(LEAVES);
    expect(items()).toBe(before);
    pass();
    expect(mail()).toEqual([]);
    value(make(ctx('tomas')));
    pass();
    expect(mail()).toEqual([`REQUEST ${MARTA}`]);
  });

  test('nobody outside, somebody outside already asked, or already named while it waits: nothing is asked', () => {
    value(confirmingFirst('tomas', (here) => createMeeting(here, org.calendar('ines'), meetingWith('bruno'))));
    const made = call('tomas', who('bruno', MARTA));
    // It waits its seconds, and is moved meanwhile.
    value(confirmingFirst('tomas', change(made, { when: at('2027-03-03', 12) })));
    pass();
    value(confirmingFirst('tomas', change(made, { when: at('2027-03-03', 14) })));
    pass();
    const back = value(confirmingFirst('tomas', change(made, { people: who('bruno') })));
    pass();
    expect(mail()).toEqual([`REQUEST ${MARTA}`, `REQUEST ${MARTA}`, `CANCEL ${MARTA}`]);
    expect(back.sending).not.toBeNull();
  });

  test('one outside added to a meeting that is among those inside and a hold that is fixed are asked about', () => {
    const made = call('tomas', who('bruno'));
    pass();
    expect(confirmingFirst('tomas', change(made, { people: who('bruno', MARTA) }))).toMatchObject(LEAVES);
    const held = value(
      holdTimes(
        ctx('tomas'),
        org.calendar('ines'),
        holdsBody.parse({
          title: 'Auditors',
          length: 60,
          starts: ['2027-03-04T10:00:00Z', '2027-03-05T14:00:00Z'],
          zone: 'Europe/Lisbon',
          lapses: '2027-03-10T09:00:00Z',
          people: who(MARTA),
        }),
      ),
    );
    const [first] = held.items;
    expect(
      confirmingFirst('tomas', (here) => fixHold(here, first?.id ?? '', { version: first?.version ?? 0 })),
    ).toMatchObject(LEAVES);
  });

  test('what is taken out before anybody heard of it, and taken back in, is asked about then', () => {
    const made = call('tomas', who(MARTA));
    const gone = value(removeMeeting(ctx('tomas'), itemOf(made).key, { version: itemOf(made).version, scope: 'all' }));
    pass();
    expect(mail()).toEqual([]);
    expect(confirmingFirst('tomas', (here) => undoSeveral(here, gone.undo))).toMatchObject(LEAVES);
  });

  test('what waits for somebody who speaks is asked about when they change it, and names nobody to who can’t read it', () => {
    const made = call('amara', who(MARTA));
    expect(confirmingFirst('tomas', change(made, { when: at('2027-03-03', 12) }))).toMatchObject(LEAVES);
    value(
      changeMeeting(ctx('ines'), itemOf(made).key, {
        version: itemOf(made).version,
        scope: 'all',
        fields: { visibility: 'private' },
        tellAll: false,
      }),
    );
    const key = value(readMeeting(ctx('ines'), itemOf(made).key)).waiting[0]?.key ?? '';
    expect(key).not.toBe('');
    expect(JSON.stringify(confirmingFirst('tomas', (here) => sayIt(here, key)))).not.toContain('marta');
  });

  test('whoever may not speak sends nothing by it; it is asked of whoever says it', () => {
    const made = value(
      confirmingFirst('amara', (here) => createMeeting(here, org.calendar('ines'), meetingWith(MARTA))),
    );
    expect(made.sending).toMatchObject({ leaves: null });
    const key = made.sending?.key ?? '';
    expect(confirmingFirst('tomas', (here) => sayIt(here, key))).toMatchObject(LEAVES);
    value(sayIt(ctx('tomas'), key));
    pass();
    expect(mail()).toEqual([`REQUEST ${MARTA}`]);
  });

  test('where the house rule is off, nobody is asked', () => {
    value(changeHouseRules(ctx('ines'), houseRulesWith({}, { warnOutside: false })));
    value(confirmingFirst('tomas', (here) => createMeeting(here, org.calendar('ines'), meetingWith(MARTA))));
  });
});
