import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { ItemsAnswer, ItemWire } from '@/contract/items/items.ts';
import type { ChangedMessage, SeenChange } from '@/contract/items/live.ts';
import type { Version } from '@/contract/version.ts';
import { Follower } from './follow.ts';

const DATES = { from: '2027-03-01', to: '2027-03-08', zone: 'Europe/Lisbon' };
let client: QueryClient;
let follower: Follower;
let stop: () => void;
let askings: ((answer: Pick<ItemsAnswer, 'items' | 'version' | 'more'>) => void)[];
let observer: QueryObserver<unknown, Error, unknown, unknown, string[]>;
let off: () => void;

beforeEach(() => {
  client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  follower = new Follower(client, (calendar) => ['calendar', calendar]);
  stop = follower.begin();
  askings = [];
  observer = new QueryObserver(client, {
    queryKey: ['calendar', 'c', 'items'],
    queryFn: () => new Promise((answer) => askings.push(answer)),
    meta: { follows: { as: 'items', dates: DATES } },
  });
  off = observer.subscribe(() => {});
});
afterEach(() => {
  off();
  stop();
  client.clear();
});

const item = (id: string, hour: number): ItemWire => ({
  id,
  start: `2027-03-03T${String(hour).padStart(2, '0')}:00:00Z`,
  end: `2027-03-03T${String(hour + 1).padStart(2, '0')}:00:00Z`,
  allDay: false,
  shows: 'busy',
});
const message = (from: number, to: number, seen: Partial<SeenChange> | null, since = 7): ChangedMessage => ({
  kind: 'changed',
  calendar: 'c',
  follows: [since, from],
  version: [since, to],
  seen: seen && { within: null, gone: [], shown: [], days: null, ...seen },
});
const answer = async (n: number, version: Version | null, ...items: ItemWire[]) => {
  await vi.waitFor(() => expect(askings.length).toBeGreaterThan(n));
  askings[n]?.({ items, version, more: null });
  await vi.waitFor(() => expect(observer.getCurrentResult().fetchStatus).toBe('idle'));
};
const shown = () =>
  (observer.getCurrentResult().data as ItemsAnswer).items.map((i) => `${i.id} ${i.start.slice(11, 13)}`);

it('what is told is put in, in the order of the hours, and nothing is asked for', async () => {
  await answer(0, [7, 0], item('a', 9), item('b', 12));
  follower.hear(message(0, 1, { shown: [item('c', 10)] }));
  follower.hear(message(1, 3, { shown: [item('a', 15)], gone: ['b'] }));
  expect([shown(), askings.length]).toEqual([['c 10', 'a 15'], 1]);
});

it('what lies beyond the days that are shown goes from them', async () => {
  await answer(0, [7, 0], item('a', 9));
  follower.hear(
    message(0, 1, { shown: [{ ...item('a', 9), start: '2027-03-09T09:00:00Z', end: '2027-03-09T10:00:00Z' }] }),
  );
  expect([shown(), askings.length]).toEqual([[], 1]);
});

it('what comes while an answer is on its way is put into it, unless it has it', async () => {
  await vi.waitFor(() => expect(askings).toHaveLength(1));
  follower.hear(message(0, 1, { shown: [item('a', 9)] }));
  follower.hear(message(1, 2, { shown: [item('a', 10)] }));
  await answer(0, [7, 1], item('a', 9));
  await vi.waitFor(() => expect(shown()).toEqual(['a 10']));
  expect(askings).toHaveLength(1);
});

it('across a gap all is asked for, once, and followed again from there', async () => {
  await answer(0, [7, 0], item('a', 9));
  follower.hear(message(2, 3, { shown: [item('b', 10)] }));
  follower.hear(message(3, 4, { shown: [item('b', 11)] }));
  await answer(1, [7, 3], item('a', 9), item('b', 10));
  await vi.waitFor(() => expect(shown()).toEqual(['a 09', 'b 11']));
  follower.hear(message(4, 5, { gone: ['a'] }));
  expect(shown()).toEqual(['b 11']);
  await vi.waitFor(() => expect(observer.getCurrentResult().fetchStatus).toBe('idle'));
  expect(askings).toHaveLength(2);
});

it('an answer that can’t be followed is asked for once at a change, and not over and over', async () => {
  await answer(0, null, item('a', 9));
  follower.hear(message(0, 1, { shown: [item('b', 10)] }));
  await answer(1, null, item('a', 9), item('b', 10));
  expect(shown()).toEqual(['a 09', 'b 10']);
  expect(askings).toHaveLength(2);
});

it('what is counted anew, or changed without saying how, or beyond the weeks that were told, is asked for', async () => {
  await answer(0, [7, 4], item('a', 9));
  follower.hear(message(0, 1, { gone: ['a'] }, 9));
  await answer(1, [9, 1]);
  expect(shown()).toEqual([]);
  follower.hear(message(1, 2, null, 9));
  await answer(2, [9, 2], item('b', 8));
  const within = { from: '2027-03-05T00:00:00Z', to: '2027-05-01T00:00:00Z' };
  follower.hear(message(2, 3, { within, gone: ['b'] }, 9));
  await answer(3, [9, 3], item('c', 8));
  expect([shown(), askings.length]).toEqual([['c 08'], 4]);
});

it('what is about one item is asked for again where that changed, and not for another', async () => {
  await answer(0, [7, 0]);
  let fetches = 0;
  const about = new QueryObserver(client, {
    queryKey: ['calendar', 'c', 'item-sight', 'a'],
    queryFn: async () => ++fetches,
    meta: { item: 'a' },
  });
  const leave = about.subscribe(() => {});
  await vi.waitFor(() => expect(about.getCurrentResult().data).toBe(1));
  follower.hear(message(0, 1, { shown: [item('b', 10)] }));
  follower.hear(message(1, 2, { shown: [item('a', 10)] }));
  await vi.waitFor(() => expect(about.getCurrentResult().data).toBe(2));
  expect(fetches).toBe(2);
  leave();
});
