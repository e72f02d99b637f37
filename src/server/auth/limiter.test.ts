import { describe, expect, test } from 'vitest';
import { limiter } from './limiter.ts';

describe('tries', () => {
  test('are counted before they are made, and given back where they were right', () => {
    const tries = limiter(2, 1000);
    expect([tries.take('a', 0), tries.take('a', 1), tries.take('a', 2), tries.take('b', 2)]).toEqual([
      true,
      true,
      false,
      true,
    ]);
    tries.give('a');
    expect([tries.take('a', 3), tries.take('a', 4)]).toEqual([true, false]);
  });
  test('are forgotten after their time', () => {
    const tries = limiter(1, 1000);
    expect([tries.take('a', 0), tries.take('a', 999), tries.take('a', 1000)]).toEqual([true, false, true]);
  });
});
