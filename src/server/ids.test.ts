import { expect, test } from 'vitest';
import { newKey } from './ids.ts';

test('a key is no option to a command, and each is another', () => {
  const keys = Array.from({ length: 5000 }, newKey);
  expect(keys.filter((key) => !/^[\w][\w-]{21}$/.test(key))).toEqual([]);
  expect(new Set(keys).size).toBe(5000);
});
