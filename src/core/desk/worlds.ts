import fc from 'fast-check';
import { parseInstant } from '../time/index.ts';
import type { DeskAttendee, DeskFacts, DeskItem, DeskPrincipal, DeskSaid } from './facts.ts';

/** Desks for the tests: a few principals around a clock change, with occurrences and facts close enough to matter to each other. */

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Instants around which clocks change, in three zones, and an ordinary one. */
const NOWS = ['2027-03-26T10:20:00Z', '2027-03-28T00:40:00Z', '2027-10-29T22:10:00Z', '2027-06-02T09:00:00Z'].map(
  (text) => parseInstant(text) as number,
);
const ZONES = ['Europe/Lisbon', 'America/New_York', 'Asia/Kathmandu', 'UTC'];
const PEOPLE = [
  'ines@house.example',
  'bruno@house.example',
  'marta@quill.example',
  'Marta@Quill.example',
  'van@house.example',
];
const PLACES = ['Ridge House', ' ridge house ', 'Marsh Lab', 'Hall', 'Hall', '  '];

const ids = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g', '\u{1F6B2}', '\uFFFD');
const orNull = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: null, freq: 2 });
/** Quarters of an hour from some days before to some days after, and half minutes beside them. */
const near = (now: number, back: number, ahead: number) =>
  fc
    .tuple(fc.integer({ min: -back * 96, max: ahead * 96 }), fc.constantFrom(0, 0, 0, 30_000, -1))
    .map(([quarters, rest]) => now - (now % (15 * 60_000)) + quarters * 15 * 60_000 + rest);

const answers = fc.constantFrom(
  'needs-action' as const,
  'accepted' as const,
  'tentative' as const,
  'declined' as const,
);

const attendeeFields = (now: number) => ({
  who: fc.constantFrom(...PEOPLE),
  need: fc.constantFrom('must' as const, 'must' as const, 'may' as const),
  thing: fc.constantFrom(false, false, true),
  answer: answers,
  since: near(now, 3, 0),
  proposes: orNull(near(now, 1, 5)),
  without: fc.constantFrom(false, false, true),
});
const attendee = (now: number): fc.Arbitrary<DeskAttendee> => fc.record(attendeeFields(now));

const item = (now: number, address: string): fc.Arbitrary<DeskItem> => {
  const fields = {
    id: ids,
    uid: orNull(fc.constantFrom('u', 'v', 'w')),
    shows: fc.constantFrom(
      'busy' as const,
      'busy' as const,
      'tentative' as const,
      'away' as const,
      'free' as const,
      'reachable' as const,
    ),
    kind: fc.constantFrom('meeting', 'meeting', 'hold', 'whereabouts'),
    place: fc.constantFrom(...PLACES, null),
    link: orNull(fc.constantFrom('https://meet.example/x', ' ')),
    cancelled: fc.constantFrom(false, false, false, true),
    calls: orNull(fc.constantFrom(...PEOPLE)),
    answer: orNull(answers),
    answerBy: orNull(near(now, 2, 4)),
    set: fc.option(fc.constantFrom('s', 't'), { nil: null, freq: 5 }),
    asked: fc.array(attendee(now), { maxLength: 4 }),
    version: fc.integer({ min: 1, max: 3 }),
  };
  const timed = fc
    .record({ ...fields, start: near(now, 2, 15), length: fc.constantFrom(0, HOUR / 2, HOUR, 3 * HOUR, 30 * HOUR) })
    .map(({ length, ...one }) => ({ ...one, allDay: false, end: one.start + length }));
  const dated = fc
    .record({ ...fields, day: fc.integer({ min: -2, max: 15 }), days: fc.constantFrom(1, 1, 2) })
    .map(({ day, days, ...one }) => {
      const start = (Math.floor(now / DAY) + day) * DAY;
      return { ...one, allDay: true, start, end: start + days * DAY };
    });
  // What one calls oneself, soon, of people who may be silent: by chance alone it would be met too seldom to be compared.
  const called = fc
    .record({
      ...fields,
      calls: fc.constant(address),
      cancelled: fc.constant(false),
      place: fc.constantFrom(...PLACES),
      start: near(now, 0, 6),
      asked: fc.array(
        fc.record({ ...attendeeFields(now), answer: fc.constantFrom('needs-action' as const, 'accepted' as const) }),
        { minLength: 1, maxLength: 4 },
      ),
    })
    .map((one) => ({ ...one, allDay: false, end: one.start + HOUR }));
  return fc.oneof({ weight: 6, arbitrary: timed }, { weight: 1, arbitrary: dated }, { weight: 1, arbitrary: called });
};

const unique = <T extends { readonly id: string }>(one: fc.Arbitrary<T>, most: number) =>
  fc.uniqueArray(one, { maxLength: most, selector: ({ id }) => id });

const factsAround = (now: number, address: string): fc.Arbitrary<DeskFacts> => {
  const fact = { id: ids, version: fc.integer({ min: 1, max: 3 }) };
  const words = unique(fc.record({ ...fact, at: near(now, 6, 0), by: fc.constantFrom(...PEOPLE) }), 3);
  const date = fc.integer({ min: -3, max: 16 }).map((day) => (Math.floor(now / DAY) + day) * DAY);
  return fc.record({
    items: unique(item(now, address), 9),
    travel: fc.array(
      fc.tuple(fc.constantFrom(...PLACES), fc.constantFrom(...PLACES), fc.integer({ min: 0, max: 3_000 })),
      { minLength: 2, maxLength: 8 },
    ),
    sets: unique(
      fc.record({ id: fc.constantFrom('s', 't'), version: fact.version, lapses: orNull(near(now, 2, 4)) }),
      2,
    ),
    wishes: unique(fc.record({ ...fact, days: fc.array(date, { maxLength: 3 }) }), 2),
    suggestions: unique(
      fc.record({
        ...fact,
        at: near(now, 6, 0),
        by: fc.constantFrom(...PEOPLE),
        before: orNull(near(now, 2, 5)),
        after: orNull(near(now, 2, 5)),
      }),
      3,
    ),
    asks: words,
    claims: words,
    letters: words,
    mails: words,
    tasks: unique(
      fc.record({
        ...fact,
        due: orNull(
          fc.oneof(
            near(now, 3, 4).map((instant) => ({ instant })),
            date.map((day) => ({ date: day })),
          ),
        ),
        done: fc.constantFrom(false, false, true),
      }),
      3,
    ),
    grants: unique(
      fc.record({ ...fact, given: near(now, 40, 0), ends: orNull(near(now, 2, 12)), used: fc.boolean() }),
      3,
    ),
    findings: unique(fc.record(fact), 2),
    absences: unique(
      fc.record({ ...fact, from: near(now, 2, 8), until: near(now, 1, 12), notice: fc.boolean(), cover: fc.boolean() }),
      2,
    ),
  });
};

const HOURS: DeskPrincipal['hours'][] = [
  null,
  [[], [], [], [], [], [], []],
  [[['09:00', '09:00']], [['09:00', '17:00']], [], [['08:00', '12:00']], [], [['10:00', '11:00']], []],
  [
    [['09:00', '18:00']],
    [['09:00', '18:00']],
    [['09:00', '18:00']],
    [['09:00', '18:00']],
    [['09:00', '18:00']],
    [],
    [],
  ],
];

const principal = (who: string, now: number): fc.Arbitrary<DeskPrincipal> =>
  fc.record({
    who: fc.constant(who),
    address: fc.constant(`${who}@house.example`),
    zone: fc.constantFrom(...ZONES),
    hours: fc.constantFrom(...HOURS),
    shifts: fc.dictionary(fc.constantFrom('answer', 'clash', 'mail', 'open'), fc.constantFrom(-30, -10, 10, 30), {
      maxKeys: 3,
    }),
    first: fc.subarray(PEOPLE),
    acts: fc.subarray(['tomas', 'oona', 'ines'], { minLength: 1 }),
    away: fc.subarray(['oona']),
    facts: factsAround(now, `${who}@house.example`),
  });

/** What may be said: of keys that can be there, with versions as often right as wrong. */
const saidAround = (now: number): fc.Arbitrary<DeskSaid> =>
  fc.record({
    key: fc
      .tuple(
        fc.constantFrom('ines', 'bruno'),
        fc.constantFrom('answer', 'meeting', 'hold', 'ask', 'mail', 'open', 'letter'),
        fc.oneof(ids, fc.constantFrom('s', 't')),
      )
      .map(([who, kind, id]) => `${who}/${kind}:${id}`),
    by: fc.constantFrom('tomas', 'oona', 'ines'),
    at: fc.oneof(near(now, 3, 0), fc.constant(now)),
    what: fc.constantFrom('later' as const, 'left' as const, 'passed' as const),
    until: orNull(near(now, 1, 2)),
    versions: fc.dictionary(fc.oneof(ids, fc.constantFrom('s', 't')), fc.integer({ min: 1, max: 3 }), { maxKeys: 2 }),
    to: orNull(fc.constantFrom('tomas', 'oona', 'ines', 'bruno')),
  });

export const worlds = fc.constantFrom(...NOWS).chain((now) =>
  fc.record({
    now: fc.constant(now),
    viewer: fc.constantFrom('tomas', 'oona', 'ines'),
    principals: fc.tuple(principal('ines', now), principal('bruno', now)),
    said: fc.array(saidAround(now), { maxLength: 12 }),
  }),
);
