import { expect, test } from 'vitest';
import { checkStartCode, startCode } from './start-code.ts';

test('the code of a start is made up, read whatever way it is typed, and can’t be tried for long', () => {
  const code = startCode();
  expect(code).toMatch(/^[A-HJ-NP-Z2-9]{10}$/);
  expect(checkStartCode(`${code.slice(0, 5).toLowerCase()}-${code.slice(5)} `, 0)).toBe('right');
  const wrong = Array.from({ length: 30 }, (_, i) => checkStartCode(`WRONG${i}`, 0));
  expect(new Set(wrong.slice(0, 20))).toEqual(new Set(['wrong']));
  expect(new Set(wrong.slice(20))).toEqual(new Set(['limited']));
  expect(checkStartCode(code, 0)).toBe('limited');
  expect(checkStartCode(code, 16 * 60_000)).toBe('right');
});
