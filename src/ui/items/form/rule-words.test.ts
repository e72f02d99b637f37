import { expect, test } from 'vitest';
import { rulePartsOf } from './rule-words.ts';

test.each([
  [
    'FREQ=MONTHLY;INTERVAL=2;BYDAY=-1TH;UNTIL=20270603T225959Z',
    { freq: 'MONTHLY', interval: 2, days: [3], which: -1, until: '2027-06-03' },
  ],
  ['FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1', { workday: true, which: -1 }],
  ['FREQ=WEEKLY;BYDAY=MO,WE;COUNT=10', { days: [0, 2], which: null, count: 10 }],
  ['FREQ=MONTHLY;BYMONTHDAY=1,-1', { dates: [1, -1] }],
  ['FREQ=YEARLY;BYMONTH=11;BYDAY=4TH', { month: 11, which: 4, days: [3] }],
])('%s is said in words', (rule, parts) => {
  expect(rulePartsOf(rule)).toMatchObject(parts);
});

test.each([
  'FREQ=HOURLY',
  'FREQ=YEARLY;BYWEEKNO=20',
  'FREQ=MONTHLY;BYDAY=1MO,-1FR',
  'FREQ=MONTHLY;BYDAY=MO',
  'FREQ=YEARLY;BYMONTH=1,2',
])('%s stays as the format writes it', (rule) => {
  expect(rulePartsOf(rule)).toBeNull();
});
