import fc from 'fast-check';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { ItemsAnswer, LoadAnswer } from '@/contract/items/items.ts';
import { type ChangedMessage, liveMessage } from '@/contract/items/live.ts';
import { PRESETS, type Rights } from '@/core/access/index.ts';
import { putDays, putInto, standingOf } from '@/ui/common/fetched/live-items.ts';
import { hub } from '../live/hub.ts';
import { listItemsInWorker, listLoadInWorker } from './in-worker/in-worker.ts';

import { changeMeeting, removeMeeting, undoMeeting } from './meetings/index.ts';

import { giveAccess } from './sharing/give-access.ts';
import { listSightlines } from './sharing/sightlines.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from './small-organisation.ts';

/*
 * Whoever follows what they are told holds, after every write, what they would be answered if they asked anew: the same views, the
 * same booked minutes, no more and no less. Held for every way of seeing, over random writes on single items and series.
 */
vi.mock('../clock.ts', () => ({ now: () => START }));

const RANGE = { from: '2027-03-01', to: '2027-03-15', zone: 'Europe/Lisbon' };
const VIEWERS: Record<string, Rights | null> = {
  ines: null,
  tomas: PRESETS.delegate,
  amara: PRESETS.outline,
  bruno: PRESETS.freeBusy,
  dario: PRESETS.full,
};

let org: SmallOrganisation;
let leave: ((() => void) | null)[] = [];
const heard = new Map<string, ChangedMessage[]>();
const others: string[] = [];
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'setImmediate'] });
  org = smallOrganisation();
  for (const [who, rights] of Object.entries(VIEWERS)) if (rights) org.give('ines', who, rights);
  leave = [...Object.keys(VIEWERS), 'wren'].map((who) =>
    hub().join(org.person(who).id, {
      session: null,
      close: () => {},
      send: (text) => {
        const message = liveMessage.parse(JSON.parse(text));
        if (message.kind === 'changed') heard.get(who)?.push(message as ChangedMessage);
        else others.push(`${who} ${message.kind}`);
      },
    }),
  );
});
afterEach(() => {
  for (const go of leave) go?.();
  vi.useRealTimers();
  org.close();
});

const items = async (who: string): Promise<ItemsAnswer> => {
  const answer = await listItemsInWorker(org.ctx(who), org.calendar('ines'), RANGE);
  if (!answer.ok) throw new Error(answer.code);
  return JSON.parse(JSON.stringify(answer.value));
};
const load = async (who: string): Promise<LoadAnswer> => {
  const answer = await listLoadInWorker(org.ctx(who), org.calendar('ines'), RANGE);
  if (!answer.ok) throw new Error(answer.code);
  return answer.value;
};
const settle = () => vi.runAllTimersAsync();

type Write =
  | {
      do: 'add';
      day: number;
      hour: number;
      hours: number;
      series: boolean;
      visibility: 'follow' | 'open' | 'outline' | 'private';
    }
  | { do: 'change'; which: number; what: 'title' | 'free' | 'private' | 'move' | 'repeat'; scope: 'one' | 'all' }
  | { do: 'remove'; which: number; scope: 'one' | 'all' }
  | { do: 'undo' };
const which = fc.nat({ max: 50 });
const scope = fc.constantFrom('one' as const, 'all' as const);
const write: fc.Arbitrary<Write> = fc.oneof(
  fc.record({
    do: fc.constant('add' as const),
    day: fc.integer({ min: 1, max: 16 }),
    hour: fc.integer({ min: 7, max: 22 }),
    hours: fc.integer({ min: 1, max: 1 }),
    series: fc.boolean(),
    visibility: fc.constantFrom('follow', 'open', 'outline', 'private'),
  }),
  fc.record({
    do: fc.constant('change' as const),
    which,
    what: fc.constantFrom('title', 'free', 'private', 'move', 'repeat'),
    scope,
  }),
  fc.record({ do: fc.constant('remove' as const), which, scope }),
  fc.constant({ do: 'undo' as const }),
);

let token = '';
let titles = 0;
async function make(w: Write): Promise<void> {
  if (w.do === 'add') {
    const date = `2027-03-${String(w.day).padStart(2, '0')}`;
    token = org.add('ines', 'tomas', {
      title: `Talk ${++titles}`,
      visibility: w.visibility,
      when: at(date, w.hour, w.hours),
      ...(w.series ? { repeat: { rule: 'FREQ=DAILY;COUNT=9' } } : {}),
    }).undo;
    return;
  }
  if (w.do === 'undo') {
    if (token) undoMeeting(org.ctx('tomas'), token);
    return;
  }
  const own = (await items('ines')).items;
  const item = own[w.which % Math.max(1, own.length)];
  if (!item) return;
  const ctx = org.ctx('ines');
  const version = item.version ?? 0;
  if (w.do === 'remove') {
    removeMeeting(ctx, item.id, { version, scope: w.scope });
    return;
  }
  const start = item.start.slice(0, 10);
  const patch = {
    title: { fields: { title: `Other ${++titles}` } },
    free: { fields: { shows: 'free' as const } },
    private: { fields: { visibility: 'private' as const } },
    move: { fields: {}, when: at(start, 5 + (titles++ % 9)) },
    repeat: { fields: {}, repeat: { rule: titles++ % 2 ? 'FREQ=WEEKLY;COUNT=3' : null } },
  }[w.what];
  changeMeeting(ctx, item.id, { version, scope: w.scope, ...patch });
}

test('who follows what they are told holds what they would be answered', async () => {
  let put = 0;
  let fetches = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(write, { minLength: 1, maxLength: 8 }), async (writes) => {
      const held = new Map<string, { items: ItemsAnswer; load: LoadAnswer }>();
      for (const who of Object.keys(VIEWERS)) {
        heard.set(who, []);
        held.set(who, { items: await items(who), load: await load(who) });
      }
      for (const one of writes) {
        await make(one);
        // Some writes are told one by one, some several at once.
        if (titles % 3 !== 0) await settle();
      }
      await settle();
      for (const who of Object.keys(VIEWERS)) {
        const mine = held.get(who) as { items: ItemsAnswer; load: LoadAnswer };
        for (const message of heard.get(who) ?? []) {
          expect(standingOf(mine.items.version, message)).toBe('next');
          const next = putInto(mine.items, message, RANGE);
          const days = putDays(mine.load, message, RANGE);
          next ? put++ : fetches++;
          mine.items = next ?? { ...(await items(who)), version: message.version };
          mine.load = days ?? { ...(await load(who)), version: message.version };
        }
        const [fresh, minutes] = [await items(who), await load(who)];
        const inOrder = (list: ItemsAnswer['items']) =>
          [...list].sort((a, b) => (a.start + a.id < b.start + b.id ? -1 : 1));
        expect([who, inOrder(mine.items.items)]).toEqual([who, inOrder(fresh.items)]);
        expect([who, mine.load.days]).toEqual([who, minutes.days]);
        expect([who, mine.items.version]).toEqual([who, fresh.version]);
        expect([who, standingOf(fresh.version, heard.get(who)?.at(-1) ?? nothing)]).toEqual([who, 'known']);
      }
    }),
    { numRuns: 40 },
  );
  // It is followed nearly always; asking stays the exception.
  expect(put).toBeGreaterThan(10 * fetches);
});

const nothing: ChangedMessage = { kind: 'changed', calendar: '', follows: [0, 0], version: [0, 0], seen: null };

test('who sees nothing of the calendar hears nothing of it, and who sees no difference neither', async () => {
  heard.set('wren', []);
  heard.set('bruno', []);
  org.give('ines', 'wren', PRESETS.shutOut);
  const { id } = org.add('ines', 'ines', { title: 'Quiet', when: at('2027-03-03', 10) });
  await settle();
  heard.set('bruno', []);
  changeMeeting(org.ctx('ines'), id, { version: 1, scope: 'one', fields: { title: 'Still quiet' } });
  await settle();
  expect([heard.get('wren'), heard.get('bruno')]).toEqual([[], []]);
});

test('what waits to be told under rights that are taken meanwhile is not said', async () => {
  heard.set('amara', []);
  org.add('ines', 'ines', { title: 'Just before', when: at('2027-03-03', 10) });
  await vi.advanceTimersByTimeAsync(5);
  const lines = listSightlines(org.ctx('ines'), org.calendar('ines'));
  const seen = lines.ok ? (lines.value.rows.find((r) => r.who.name === 'Amara')?.grants[0]?.key ?? null) : null;
  const busy = { audience: { kind: 'person' as const, id: 'amara' }, rights: PRESETS.freeBusy, seen };
  expect(giveAccess(org.ctx('ines'), org.calendar('ines'), busy).ok).toBe(true);
  await settle();
  expect(JSON.stringify(heard.get('amara'))).not.toContain('Just before');
  expect(others).toContain('amara access');
});

test('what a write that fails would have said is not said', async () => {
  heard.set('tomas', []);
  expect(() =>
    org.db.write(() => {
      org.add('ines', 'ines', { title: 'Never there', when: at('2027-03-03', 10) });
      throw new Error('broken off');
    }),
  ).toThrow('broken off');
  await settle();
  expect(heard.get('tomas')).toEqual([]);
});
