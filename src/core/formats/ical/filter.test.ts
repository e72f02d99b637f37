import { expect, test } from 'vitest';
import { type CompFilter, fitsFilter, type PropFilter } from './filter.ts';
import { readFreeBusyQuestion } from './read-free-busy.ts';

const text = [
  'BEGIN:VCALENDAR',
  'VERSION:2.0',
  'BEGIN:VEVENT',
  'UID:a@x',
  'SUMMARY:Board\\, the weir',
  'ATTENDEE;PARTSTAT=ACCEPTED;CN="Bruno, Keane":mailto:bruno@cloudmoor.example',
  'DESCRIPTION:A long wor',
  ' d',
  'END:VEVENT',
  'END:VCALENDAR',
  '',
].join('\r\n');

const asks = (...props: Partial<PropFilter>[]): CompFilter => ({
  name: 'VCALENDAR',
  absent: false,
  props: [],
  comps: [
    {
      name: 'VEVENT',
      absent: false,
      comps: [],
      props: props.map((p) => ({ name: 'SUMMARY', absent: false, text: null, params: [], ...p })),
    },
  ],
});
const match = (value: string, more: object = {}) => ({ value, negate: false, exact: false, ...more });
const part = (name: string, absent: boolean): CompFilter => ({
  ...asks(),
  comps: [{ name: 'VEVENT', absent: false, props: [], comps: [{ name, absent, props: [], comps: [] }] }],
});

test.each([
  ['a property there is', asks({}), true],
  ['words as they are meant, not as they are written', asks({ text: match('board, the WEIR') }), true],
  ['another case where letters count', asks({ text: match('board', { exact: true }) }), false],
  ['words that aren’t there', asks({ text: match('otter') }), false],
  ['words that mustn’t be there and aren’t', asks({ text: match('otter', { negate: true }) }), true],
  ['words that mustn’t be there and are', asks({ text: match('weir', { negate: true }) }), false],
  ['words over a fold', asks({ name: 'description', text: match('long word') }), true],
  ['a property that mustn’t be there and isn’t', asks({ name: 'LOCATION', absent: true }), true],
  ['a property that mustn’t be there and is', asks({ absent: true }), false],
  ['two that both have to be', asks({ text: match('weir') }, { name: 'LOCATION' }), false],
  [
    'a parameter’s words',
    asks({ name: 'ATTENDEE', params: [{ name: 'PARTSTAT', absent: false, text: match('accepted') }] }),
    true,
  ],
  [
    'a parameter that mustn’t be there and is',
    asks({ name: 'ATTENDEE', params: [{ name: 'CN', absent: true, text: null }] }),
    false,
  ],
  ['no alarm, where none may be', part('VALARM', true), true],
  ['an alarm, where there is none', part('VALARM', false), false],
  ['tasks', { ...asks(), comps: [{ name: 'VTODO', absent: false, props: [], comps: [] }] }, false],
  ['something else than a calendar', { ...asks(), name: 'VCARD' }, false],
])('%s', (_what, filter, fits) => {
  expect(fitsFilter(text, filter)).toBe(fits);
});

const question = (...inside: string[]) =>
  ['BEGIN:VCALENDAR', 'METHOD:REQUEST', 'BEGIN:VFREEBUSY', ...inside, 'END:VFREEBUSY', 'END:VCALENDAR'].join('\r\n');
const TIMES = ['DTSTART:20270302T090000Z', 'DTEND:20270302T100000Z'];

test('the question when others are free is read, and nothing else is taken for one', () => {
  const asked = question(
    'UID:q',
    ...TIMES,
    'ORGANIZER:mailto:Ines@cloudmoor.example',
    'ATTENDEE;CN=B:mailto:b@x.example',
  );
  expect(readFreeBusyQuestion(asked)).toEqual({
    uid: 'q',
    organiser: 'ines@cloudmoor.example',
    attendees: ['b@x.example'],
    from: Date.UTC(2027, 2, 2, 9),
    to: Date.UTC(2027, 2, 2, 10),
  });
  for (const no of [
    '',
    text,
    asked.replace('REQUEST', 'REPLY'),
    question(...TIMES.toReversed().map((line, i) => line.replace(/^\w+/, ['DTSTART', 'DTEND'][i] ?? ''))),
    question('DTSTART:yesterday', 'DTEND:20270302T100000Z'),
  ])
    expect(readFreeBusyQuestion(no)).toBeNull();
});
