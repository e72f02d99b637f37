import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { ItemWire } from '@/contract/items/items.ts';
import type { ChangedMessage, SeenChange } from '@/contract/items/live.ts';
import { hub } from './hub.ts';

vi.mock('../clock.ts', () => ({ now: () => 1_000_000 }));

const said: string[] = [];
let leave: (() => void) | null = null;
beforeEach(() => {
  vi.useFakeTimers();
  said.length = 0;
  leave = hub().join(1, { session: null, send: (text) => said.push(text), close: () => {} });
});
afterEach(() => {
  leave?.();
  vi.useRealTimers();
});

const block = (id: string, start: string): ItemWire => ({ id, start, end: start, allDay: false, shows: 'busy' });
const seen = (change: Partial<SeenChange>): SeenChange => ({
  within: null,
  gone: [],
  shown: [],
  days: null,
  ...change,
});
const told = (change: Partial<SeenChange>, until: number | null = null) => ({ seen: seen(change), until });
const changes = (): ChangedMessage[] => {
  vi.runAllTimers();
  return said.splice(0).map((text) => JSON.parse(text) as ChangedMessage);
};

test('what changes within a moment is said at once, of each occurrence what it came to', () => {
  const first = hub().versionOf(1, 'c');
  hub().changed(1, 'c', told({ shown: [block('a', '1'), block('b', '1')] }));
  hub().changed(1, 'c', told({ shown: [block('a', '2')], gone: ['b'] }));
  hub().changed(1, 'c', told({ gone: ['c'] }));
  const [one, ...more] = changes();
  expect(more).toEqual([]);
  expect(one).toMatchObject({ follows: first, seen: { gone: ['b', 'c'], shown: [{ id: 'a', start: '2' }] } });
  expect(one?.version).toEqual(hub().versionOf(1, 'c'));
  expect(one?.version).toEqual([first?.[0], (first?.[1] ?? 0) + 3]);
});

test('what is gone and comes back is there; where one of several says nothing of itself, all is asked for', () => {
  hub().changed(1, 'c', told({ gone: ['a'] }));
  hub().changed(1, 'c', told({ shown: [block('a', '3')] }));
  expect(changes()).toMatchObject([{ seen: { gone: [], shown: [{ id: 'a' }] } }]);
  hub().changed(1, 'c', told({ gone: ['a'] }));
  hub().changed(1, 'c', null);
  expect(changes()).toMatchObject([{ seen: null }]);
});

test('a change of access ends what waits, and what was answered before is followed no further', () => {
  const before = hub().versionOf(1, 'c');
  hub().changed(1, 'c', told({ shown: [block('secret', '1')] }));
  hub().tell(1, { kind: 'access', calendar: 'c' });
  expect(changes()).toEqual([{ kind: 'access', calendar: 'c' }]);
  expect(hub().versionOf(1, 'c')?.[0]).toBeGreaterThan(before?.[0] ?? 0);
});

test('what a right that ends by itself let see isn’t said after its end', () => {
  hub().changed(1, 'c', told({ shown: [block('a', '1')] }, 1_000_000));
  hub().changed(1, 'd', told({ shown: [block('a', '1')] }, 1_000_001));
  expect(changes().map((m) => m.seen === null)).toEqual([true, false]);
});

test('so many calendars are counted along; what waits to be said of one is not forgotten for another', () => {
  hub().changed(1, 'first', told({ gone: ['a'] }));
  for (let i = 0; i < 400; i++) hub().versionOf(1, `c${i}`);
  expect(changes()).toMatchObject([{ calendar: 'first', seen: { gone: ['a'] } }]);
});

test('nobody who has no window is told, or counted for', () => {
  expect(hub().versionOf(2, 'c')).toBeNull();
  hub().changed(2, 'c', told({ gone: ['a'] }));
  expect(changes()).toEqual([]);
});

describe('a window whose page is on its way', () => {
  const text = (id: string) => told({ shown: [block(id, '1')] });

  test('misses nothing: of what changed it hears that it did, and is followed on from there', () => {
    const page = hub().expect(2) ?? '';
    const first = hub().versionOf(2, 'c');
    hub().changed(2, 'c', text('secret'));
    hub().tell(2, { kind: 'told' });
    vi.advanceTimersByTime(1000);
    const since = hub().toldSince(2, page);
    expect(since).toMatchObject([{ kind: 'changed', calendar: 'c', follows: first, seen: null }, { kind: 'told' }]);
    expect(JSON.stringify(since)).not.toContain('secret');
    // Once: whoever comes again with it has to ask for everything.
    expect(hub().toldSince(2, page)).toBeNull();
  });

  test('is counted along with the window it becomes', () => {
    const page = hub().expect(2) ?? '';
    const first = hub().versionOf(2, 'c');
    const gone = hub().join(2, { session: null, send: (one) => said.push(one), close: () => {} });
    expect(hub().toldSince(2, page)).toEqual([]);
    hub().changed(2, 'c', text('a'));
    expect(changes()).toMatchObject([{ follows: first, seen: { shown: [{ id: 'a' }] } }]);
    gone?.();
    expect(hub().versionOf(2, 'c')).toBeNull();
  });

  test('is nobody else’s, is kept for a few seconds, and only so much of it and so many', () => {
    const page = hub().expect(2) ?? '';
    expect(hub().toldSince(1, page)).toBeNull();
    expect(hub().listeners()).toEqual([1, 2]);
    vi.advanceTimersByTime(16_000);
    expect([hub().toldSince(2, page), hub().listeners()]).toEqual([null, [1]]);
    const pages = Array.from({ length: 8 }, () => hub().expect(2) ?? '');
    expect(pages.map((one) => hub().toldSince(2, one) !== null)).toEqual([false, false, ...Array(6).fill(true)]);
    const many = hub().expect(2) ?? '';
    for (let n = 0; n < 70; n++) hub().tell(2, { kind: 'looking', item: String(n) });
    vi.advanceTimersByTime(1000);
    expect(hub().toldSince(2, many)).toBeNull();
  });
});
