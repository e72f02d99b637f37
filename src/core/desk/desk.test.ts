import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deskOf } from './desk.ts';
import { DESK_KINDS } from './facts.ts';
import { secondReading } from './second-reading.ts';
import { byCodePoints } from './time-taken.ts';
import { worlds } from './worlds.ts';

it('a second reading of the page gives the same rows in the same order', () => {
  const kinds = new Map<string, number>();
  fc.assert(
    fc.property(worlds, ({ viewer, principals, said, now }) => {
      const rows = deskOf(viewer, principals, said, now).rows.map(({ key, kind, due, part, score }) => ({
        key,
        kind,
        due,
        part,
        score,
      }));
      for (const { kind } of rows) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
      expect(rows).toEqual(secondReading(viewer, principals, said, now));
    }),
    { numRuns: 600 },
  );
  // Every kind there is was met.
  expect([...kinds.keys()].sort()).toEqual([...DESK_KINDS].sort());
});

describe('what was said of rows', () => {
  it('never adds one, and changes none but its mark', () => {
    fc.assert(
      fc.property(worlds, ({ viewer, principals, said, now }) => {
        const all = new Map(deskOf(viewer, principals, [], now).rows.map((row) => [row.key, row]));
        const { rows, later } = deskOf(viewer, principals, said, now);
        for (const row of rows) expect({ ...row, passed: null }).toEqual(all.get(row.key));
        expect(later).toBeLessThanOrEqual(all.size - rows.length);
      }),
      { numRuns: 150 },
    );
  });

  it('of others’ putting off nothing is known', () => {
    fc.assert(
      fc.property(worlds, ({ viewer, principals, said, now }) => {
        const without = said.filter(({ what, by }) => what !== 'later' || by === viewer);
        expect(deskOf(viewer, principals, said, now)).toEqual(deskOf(viewer, principals, without, now));
      }),
      { numRuns: 100 },
    );
  });
});

it('the order of the facts decides nothing', () => {
  fc.assert(
    fc.property(worlds, ({ viewer, principals, said, now }) => {
      const turned = principals.map((one) => ({
        ...one,
        facts: Object.fromEntries(
          Object.entries(one.facts).map(([name, list]) => [name, [...list].reverse()]),
        ) as unknown as typeof one.facts,
      }));
      const [a, b] = [deskOf(viewer, principals, said, now), deskOf(viewer, turned, said, now)];
      expect(b.rows.map(({ key, score }) => [key, score])).toEqual(a.rows.map(({ key, score }) => [key, score]));
    }),
    { numRuns: 100 },
  );
});

it('a row’s parts make up its score', () => {
  fc.assert(
    fc.property(worlds, ({ viewer, principals, said, now }) => {
      for (const { parts, score } of deskOf(viewer, principals, said, now).rows)
        expect(parts.weight + parts.shift + parts.near + parts.atHand + parts.person).toBe(score);
    }),
    { numRuns: 50 },
  );
});

it('texts stand in the order of their code points, whatever half of one they end in', () => {
  const points = (text: string) => Array.from(text, (one) => one.codePointAt(0) as number);
  // Few signs, so that long beginnings are the same: halves of code points, and what is written in one unit behind them.
  const texts = fc.array(fc.constantFrom('a', 'b', '\u{d83d}', '\u{de00}', '😀', '😁', '\u{ffee}'), { maxLength: 4 });
  fc.assert(
    fc.property(texts, texts, (a, b) => {
      const [x, y] = [points(a.join('')), points(b.join(''))];
      const at = x.findIndex((point, i) => point !== y[i]);
      const want = at < 0 ? x.length - y.length : (x[at] as number) - (y[at] ?? Number.NEGATIVE_INFINITY);
      expect(Math.sign(byCodePoints(a.join(''), b.join('')))).toBe(Math.sign(want));
    }),
    { numRuns: 3000 },
  );
});
