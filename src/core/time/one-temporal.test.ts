import { afterAll, expect, test, vi } from 'vitest';

/* A process may have a Temporal already: Node's, or one that another package has put there. */

afterAll(() => {
  vi.unstubAllGlobals();
});

test('times are worked out by the package this was tested with, whatever Temporal the process has', async () => {
  vi.stubGlobal('Temporal', {});
  const { isZone, transitions } = await import('./index.ts');
  expect(isZone('Europe/Lisbon')).toBe(true);
  expect(transitions('Europe/Lisbon', Date.UTC(2098, 0, 1), Date.UTC(2100, 0, 1), 10)).toEqual([
    Date.UTC(2098, 2, 30, 1),
    Date.UTC(2098, 9, 26, 1),
    Date.UTC(2099, 2, 29, 1),
    Date.UTC(2099, 9, 25, 1),
  ]);
});
