import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readDirectory, writeDirectory } from '../index.ts';

const odd = fc.constantFrom('"', ',', ';', '=', '+', '-', '@', "'", 'é', '漢', ' ', '\t', '\n', '\r');
const text = fc
  .string({ unit: fc.oneof(odd, fc.string({ minLength: 1, maxLength: 1 })), maxLength: 30 })
  .map((s) => s.trim());
const rows = fc.array(
  fc.record({
    name: text.map((s) => `N${s}`),
    address: fc.constantFrom('a@x.example', 'b@y.example'),
    role: text,
    site: text,
    kind: fc.constantFrom('person' as const, 'role' as const),
    zone: fc.constant('Europe/Lisbon'),
    groups: fc.uniqueArray(
      text.map((s) => `G${s.replace(/[;\r\n]/g, '')}`.trim()),
      { maxLength: 3 },
    ),
  }),
  { maxLength: 6 },
);

describe('a directory as text', () => {
  test('is read back as it was written, whatever stands in it', () => {
    fc.assert(
      fc.property(rows, (list) => {
        const { rows: back, wrong } = readDirectory(writeDirectory(list));
        expect(wrong).toEqual([]);
        const lines = (s: string | null) => s?.replace(/\r\n?/g, '\n');
        expect(
          back.map(({ line: _line, ...r }) => ({
            ...r,
            role: lines(r.role),
            site: lines(r.site),
            name: lines(r.name),
          })),
        ).toEqual(list.map((r) => ({ ...r, role: lines(r.role), site: lines(r.site), name: lines(r.name) })));
      }),
    );
  });
  test('holds nothing that a spreadsheet would work out', () => {
    const text = writeDirectory([
      { name: '=1+1', address: 'a@x.example', role: '+x', site: '@y', kind: null, zone: null, groups: [] },
    ]);
    expect(text.split('\r\n')[1]).toBe("'=1+1,a@x.example,'+x,'@y,,,");
  });
});
