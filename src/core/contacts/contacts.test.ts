import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { likelySame, mergedContact, newContactFields, phoneForm, type WrittenContact } from './index.ts';

const MOST = { ways: 20, categories: 20, notes: 20_000 };
const contact = (name: string, more: Partial<WrittenContact> = {}): WrittenContact => ({
  name,
  role: null,
  organisation: null,
  place: null,
  addresses: [],
  phones: [],
  link: null,
  notes: null,
  categories: [],
  visibility: 'follow',
  ...more,
});
const at = (value: string, as: 'work' | 'home' | '' = '') => ({ value, as });

describe('contacts that are likely the same', () => {
  test('share an address, a number or a whole name, also by way of a third', () => {
    const list = [
      contact('Marta Quill', { addresses: [at('m@quill.example')] }),
      contact('Quill', { addresses: [at('M@Quill.example ')], phones: [at('00351 210 111 222')] }),
      contact('Front desk', { phones: [at('+351 (210) 111-222', 'work')] }),
      contact('MARTA  QUÍLL'),
      contact('Marta'),
      contact('Someone', { phones: [at('112')] }),
      contact('Someone else', { phones: [at('112')] }),
    ];
    expect(likelySame(list).map((group) => group.map(({ name }) => name))).toEqual([
      ['Marta Quill', 'Quill', 'Front desk', 'MARTA  QUÍLL'],
    ]);
    expect(phoneForm('ext. 12')).toBeNull();
  });

  test('are put in groups as a slow reading puts them', () => {
    const some = fc.record({
      name: fc.constantFrom('A B', 'B C', 'C'),
      addresses: fc.subarray(['x@q.example', 'y@q.example', 'z@q.example']).map((list) => list.map((one) => at(one))),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 9 }), (drawn) => {
        const list = drawn.map((one) => contact(one.name, { addresses: one.addresses }));
        const like = (a: WrittenContact, b: WrittenContact) =>
          (a.name === b.name && a.name !== 'C') ||
          a.addresses.some(({ value }) => b.addresses.some((other) => other.value === value));
        const groups = list.map((one) => new Set([one]));
        for (let changed = true; changed; ) {
          changed = false;
          for (const a of groups)
            for (const b of groups)
              if (a !== b && a.size > 0 && b.size > 0 && [...a].some((one) => [...b].some((two) => like(one, two)))) {
                for (const one of b) a.add(one);
                b.clear();
                changed = true;
              }
        }
        const slow = groups.filter((group) => group.size > 1).map((group) => list.filter((one) => group.has(one)));
        const sorted = (all: WrittenContact[][]) =>
          all.toSorted((a, b) => list.indexOf(a[0] as never) - list.indexOf(b[0] as never));
        expect(sorted(likelySame(list))).toEqual(sorted(slow));
      }),
    );
  });
});

describe('one contact of several', () => {
  test('says what each of them said', () => {
    const { merged, left } = mergedContact(
      [
        contact('Marta Quill', { role: 'Auditor', addresses: [at('m@quill.example')], categories: ['audit'] }),
        contact('M. Quill', {
          role: 'Partner',
          organisation: 'Quill',
          addresses: [at('M@quill.example', 'work'), at('m@home.example')],
          notes: 'Tea.',
          visibility: 'private',
        }),
      ],
      MOST,
    );
    expect(left).toBe(false);
    expect(merged).toEqual(
      contact('Marta Quill', {
        role: 'Auditor',
        organisation: 'Quill',
        addresses: [at('m@quill.example', 'work'), at('m@home.example')],
        categories: ['audit'],
        notes: 'Tea.\n\nM. Quill\n\nPartner',
        visibility: 'private',
      }),
    );
  });

  test('says so where there is no room for all', () => {
    const many = (n: number) =>
      contact(`N ${n}`, { addresses: Array.from({ length: 15 }, (_, i) => at(`${n}.${i}@q.example`)) });
    const { merged, left } = mergedContact([many(1), many(2)], MOST);
    expect([merged.addresses.length, left]).toEqual([20, true]);
  });
});

test('a new contact needs a name, and each way to reach somebody a value', () => {
  expect(newContactFields.name.safeParse(' ').success).toBe(false);
  expect(newContactFields.addresses.safeParse([{ value: ' ', as: 'work' }]).success).toBe(false);
  expect(newContactFields.phones.parse(undefined)).toEqual([]);
});
