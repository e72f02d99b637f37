import { DOMAINS } from 'free-email-domains-list';
import { expect, test } from 'vitest';
import { isPublicMailHost } from './public-hosts.ts';

test('every host of the kept list is public, and nothing that only resembles one', () => {
  const all = [...DOMAINS];
  expect(all.length).toBeGreaterThan(10_000);
  // Every two thousandth, the first and the last among them.
  const some = all.filter((_, i) => i % 2000 === 0 || i === all.length - 1);
  expect(some.filter((one) => !isPublicMailHost(one))).toEqual([]);
  const near = some.flatMap((one) => [`x${one}`, one.slice(1), one.slice(0, -1), `${one}"`, `${one}.example`]);
  expect(near.filter((one) => isPublicMailHost(one) && !DOMAINS.has(one))).toEqual([]);
  for (const none of ['', 'use strict', 'cloudmoor.example', '__esModule', '",\n    "'])
    expect([none, isPublicMailHost(none)]).toEqual([none, false]);
});
