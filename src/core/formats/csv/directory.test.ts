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
    phone: fc.constantFrom('', '+351 210 000 101', '0 21/00-1 ext. 4', '(020) 100.200 x7'),
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
      {
        name: '=1+1',
        address: 'a@x.example',
        role: '+x',
        site: '@y',
        phone: '+351 210 000 101',
        kind: null,
        zone: null,
        groups: [],
      },
    ]);
    expect(text.split('\r\n')[1]).toBe("'=1+1,a@x.example,'+x,'@y,'+351 210 000 101,,,");
  });
  test('takes as a number what one can call, and says of the rest that it isn’t one', () => {
    const lines = ['12', 'call me', '+', '+351 210 000 10a', '123 ext', '++351 210', '1'.repeat(41)];
    const read = readDirectory(`name,address,phone\n${lines.map((p, i) => `P,p${i}@x.example,${p}`).join('\n')}`);
    expect(read.rows).toEqual([]);
    expect(read.wrong.map((w) => w.reason)).toEqual(lines.map(() => 'phone'));
  });
});
