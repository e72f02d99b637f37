import { expect, test } from 'vitest';
import { isolated } from './isolated.ts';

test('what runs from right to left keeps to itself; nothing else is touched', () => {
  expect(isolated('פגישה x')).toBe('\u2068פגישה x\u2069');
  expect(isolated('محادثة')).toBe('\u2068محادثة\u2069');
  expect(isolated('Week with Tomas, 雲霧')).toBe('Week with Tomas, 雲霧');
});
