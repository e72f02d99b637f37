import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readSentence, type Sentence } from './index.ts';

/** Tuesday. */
const today = Date.UTC(2027, 2, 2);
const base = {
  today,
  dateOrder: 'dmy' as const,
  people: ['Bruno Keane', 'Amara Reyes', 'Inés Varga', 'Bruno Alves', 'Wren Holt'],
  places: ['Ridge House', 'Marsh Lab', 'Weir Inn'],
  calendars: ['Marsh Lab', 'Field trips', 'Trips', 'Inés', 'Inés’s calendar', 'Pim: Trips'],
};
const en = (text: string) => readSentence(text, { ...base, language: 'en' });
const pt = (text: string) => readSentence(text, { ...base, language: 'pt' });
const blank: Sentence = {
  title: '',
  day: null,
  from: null,
  to: null,
  length: null,
  allDay: false,
  place: null,
  people: [],
  visibility: null,
  shows: null,
  rule: null,
  into: null,
};

type Part = readonly [text: string, says: Partial<Sentence>];
const DAYS: readonly Part[] = [
  ['today', { day: '2027-03-02' }],
  ['tomorrow', { day: '2027-03-03' }],
  ['thu', { day: '2027-03-04' }],
  ['on Friday', { day: '2027-03-05' }],
  ['tuesday', { day: '2027-03-02' }],
  ['next thursday', { day: '2027-03-11' }],
  ['next week', { day: '2027-03-08' }],
  ['3 march', { day: '2027-03-03' }],
  ['on March 12th', { day: '2027-03-12' }],
  ['1 feb', { day: '2028-02-01' }],
  ['24 december 2027', { day: '2027-12-24' }],
  ['12/4', { day: '2027-04-12' }],
  ['2027-06-30', { day: '2027-06-30' }],
];
const TIMES: readonly Part[] = [
  ['2pm', { from: '14:00' }],
  ['at 9', { from: '09:00' }],
  ['at 14:30', { from: '14:30' }],
  ['at 9 am', { from: '09:00' }],
  ['noon', { from: '12:00' }],
  ['12am', { from: '00:00' }],
  ['2-3pm', { from: '14:00', to: '15:00', length: 60 }],
  ['11-1pm', { from: '11:00', to: '13:00', length: 120 }],
  ['14:00-15:30', { from: '14:00', to: '15:30', length: 90 }],
  ['from 9 to 10:30', { from: '09:00', to: '10:30', length: 90 }],
  ['2pm to 4pm', { from: '14:00', to: '16:00', length: 120 }],
];
const LENGTHS: readonly Part[] = [
  ['90m', { length: 90 }],
  ['45 min', { length: 45 }],
  ['for 2 hours', { length: 120 }],
  ['1h30', { length: 90 }],
  ['1.5h', { length: 90 }],
  ['half an hour', { length: 30 }],
];
const PLACES: readonly Part[] = [
  ['at Ridge House', { place: 'Ridge House' }],
  ['at marsh lab', { place: 'Marsh Lab' }],
  ['in Old Mill', { place: 'Old Mill' }],
];
const PEOPLE: readonly Part[] = [
  ['with Bruno Keane', { people: ['Bruno Keane'] }],
  ['with amara and Wren', { people: ['Amara Reyes', 'Wren Holt'] }],
  ['with Ines, Wren', { people: ['Inés Varga', 'Wren Holt'] }],
  ['with keane and marta@quill-audit.example', { people: ['Bruno Keane', 'marta@quill-audit.example'] }],
];
const MARKS: readonly Part[] = [
  ['private', { visibility: 'private' }],
  ['outline only', { visibility: 'outline' }],
  ['tentative', { shows: 'tentative' }],
  ['perhaps', { shows: 'tentative' }],
];
const whole = (...parts: Part[]): Sentence => {
  const all = Object.assign({}, blank, ...parts.map(([, says]) => says)) as Sentence;
  const minutes = (t: string) => Number(t.slice(0, 2)) * 60 + Number(t.slice(3));
  const end = all.from !== null && all.to === null && all.length !== null ? minutes(all.from) + all.length : null;
  const to =
    end === null || end >= 1440
      ? all.to
      : `${String(Math.floor(end / 60)).padStart(2, '0')}:${String(end % 60).padStart(2, '0')}`;
  return { ...all, title: 'Board prep', to };
};
const SENTENCES = DAYS.flatMap((day, d) =>
  TIMES.flatMap((time, t) => {
    const length = LENGTHS[(d + t) % LENGTHS.length] as Part;
    const place = PLACES[(d + t) % PLACES.length] as Part;
    const people = PEOPLE[(d * 3 + t) % PEOPLE.length] as Part;
    const mark = MARKS[(d + t * 2) % MARKS.length] as Part;
    const spans = time[1].to !== undefined;
    return [
      { text: `Board prep ${day[0]} ${time[0]}`, says: whole(day, time) },
      { text: `Board prep ${time[0]} ${day[0]} ${place[0]}`, says: whole(day, time, place) },
      {
        text: `Board prep ${day[0]} ${time[0]}${spans ? '' : ` ${length[0]}`} ${place[0]} ${people[0]}, ${mark[0]}`,
        says: spans ? whole(day, time, place, people, mark) : whole(day, time, length, place, people, mark),
      },
      { text: `${mark[0]}, Board prep ${people[0]} ${day[0]} ${time[0]}`, says: whole(day, time, people, mark) },
    ];
  }),
);

describe('a sentence in English', () => {
  test(`every part is found wherever it stands, in ${SENTENCES.length} of them`, () => {
    expect(SENTENCES.length).toBeGreaterThan(500);
    for (const { text, says } of SENTENCES) expect([text, en(text)]).toEqual([text, says]);
  });

  test('away, and away but reachable', () => {
    expect(en('Conference tomorrow all day away but reachable')).toMatchObject({
      title: 'Conference',
      shows: 'reachable',
    });
    expect(en('Conference tomorrow all day away')).toMatchObject({ title: 'Conference', shows: 'away' });
    expect(en('Is Bruno reachable tomorrow')).toMatchObject({ shows: null });
  });

  test.each([
    ['Peat walk friday into Field trips', { title: 'Peat walk', into: 'Field trips', day: '2027-03-05' }],
    ['Peat walk into trips 3pm', { title: 'Peat walk', into: 'Trips', from: '15:00' }],
    ['Peat walk into pim: trips, 3pm', { title: 'Peat walk', into: 'Pim: Trips', from: '15:00' }],
    ['Peat walk in the calendar field trips at Marsh Lab', { into: 'Field trips', place: 'Marsh Lab' }],
    ["Peat walk tomorrow into ines's calendar", { title: 'Peat walk', into: 'Inés’s calendar' }],
    ['Peat walk tomorrow into the marsh', { title: 'Peat walk into the marsh', into: null }],
    ['Peat walk tomorrow in Field trips', { title: 'Peat walk', place: null, into: 'Field trips' }],
    ['Peat walk tomorrow in Inés', { place: 'Inés', into: null }],
    ['Peat walk tomorrow in Old Mill in Trips', { place: 'Old Mill', into: 'Trips' }],
    ['Walk into Trips into Inés', { title: 'Walk into Inés', into: 'Trips' }],
    ['Move into Trips', { title: 'Move', into: 'Trips' }],
  ])('the calendar it goes into: %s', (text, says) => {
    expect(en(text)).toMatchObject(says);
  });

  test('the one that is meant to be read', () => {
    expect(en('board prep thu 2pm 90m at Ridge House with Bruno Keane, private')).toEqual({
      ...blank,
      title: 'board prep',
      day: '2027-03-04',
      from: '14:00',
      to: '15:30',
      length: 90,
      place: 'Ridge House',
      people: ['Bruno Keane'],
      visibility: 'private',
    });
  });

  test.each([
    ['Yoga every thursday at 7pm', 'FREQ=WEEKLY;BYDAY=TH', '2027-03-04'],
    ['Yoga every mon, wed and fri 8-9am', 'FREQ=WEEKLY;BYDAY=MO,WE,FR', '2027-03-03'],
    ['Rounds every weekday 9am', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', '2027-03-02'],
    ['Rounds daily at 9', 'FREQ=DAILY', null],
    ['Pay every 2 weeks on friday', 'FREQ=WEEKLY;INTERVAL=2', '2027-03-05'],
    ['Pay every second friday', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=FR', '2027-03-05'],
    ['Rent monthly on 1 april until 1 december', 'FREQ=MONTHLY;UNTIL=20271201', '2027-04-01'],
    ['Course every tue 10 times at 18:00', 'FREQ=WEEKLY;BYDAY=TU;COUNT=10', '2027-03-02'],
    [
      'Council the last thursday of every second month until 3 june',
      'FREQ=MONTHLY;INTERVAL=2;BYDAY=-1TH;UNTIL=20270603',
      '2027-03-25',
    ],
    ['Council every first monday at 9', 'FREQ=MONTHLY;BYDAY=1MO', '2027-04-05'],
    ['Close on the last workday of every month', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1', '2027-03-31'],
    ['Rent every month on the 15th', 'FREQ=MONTHLY;BYMONTHDAY=15', '2027-03-15'],
    ['Visit every 3 months on the second tuesday 4 times', 'FREQ=MONTHLY;INTERVAL=3;BYDAY=2TU;COUNT=4', '2027-03-09'],
    ['Audit yearly on 3/6', 'FREQ=YEARLY', '2027-06-03'],
  ])('a repeat: %s', (text, rule, day) => {
    expect(en(text)).toMatchObject({ rule, day });
  });

  test.each([
    ['Talk with the team about 2027', 'Talk with the team about 2027'],
    ['Read chapter 3 of the report', 'Read chapter 3 of the report'],
    ['Meet Bruno', 'Meet Bruno'],
    ['Lunch with Bruno', 'Lunch with Bruno'],
    ['Look at the weir', 'Look at the weir'],
    ['Version 2.10 goes out', 'Version 2.10 goes out'],
    ['Bank holiday all day tomorrow', 'Bank holiday'],
  ])('what is no part of it stays its title: %s', (text, title) => {
    expect(en(text).title).toBe(title);
  });

  test('dates are read in one’s own order', () => {
    expect(readSentence('X 3/4', { ...base, language: 'en', dateOrder: 'mdy' }).day).toBe('2027-03-04');
    expect(en('X 3/4').day).toBe('2027-04-03');
  });

  test('whatever is typed, it is read or left, never thrown at', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(fc.string(), fc.constantFrom('at', 'with', 'every', '2pm', '31/2', 'next', 'until', '99:99')),
        ),
        (words) => {
          for (const language of ['en', 'pt'] as const)
            expect(typeof readSentence(words.join(' '), { ...base, language }).title).toBe('string');
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('a sentence in Portuguese', () => {
  test.each([
    ['Reunião amanhã às 14h', { title: 'Reunião', day: '2027-03-03', from: '14:00' }],
    [
      'Reunião quinta das 14 às 15:30 em Ridge House',
      { day: '2027-03-04', from: '14:00', to: '15:30', place: 'Ridge House' },
    ],
    [
      'Almoço na sexta ao meio-dia com Amara e Wren',
      { day: '2027-03-05', from: '12:00', people: ['Amara Reyes', 'Wren Holt'] },
    ],
    [
      'Conselho 3 de junho às 9h30 durante 45 minutos, privado',
      { day: '2027-06-03', from: '09:30', to: '10:15', visibility: 'private' },
    ],
    ['Passeio sexta às 14h para Field trips', { title: 'Passeio', into: 'Field trips', from: '14:00' }],
    ['Passeio amanhã no calendário trips', { title: 'Passeio', into: 'Trips' }],
    ['Passeio amanhã para o pântano', { title: 'Passeio para o pântano', into: null }],
    ['Ioga todas as quintas às 19h', { rule: 'FREQ=WEEKLY;BYDAY=TH', from: '19:00', day: '2027-03-04' }],
    ['Ronda todos os dias úteis às 9h', { rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR' }],
    ['Feriado hoje todo o dia', { title: 'Feriado', allDay: true, day: '2027-03-02' }],
    ['Visita próxima segunda, provisória', { day: '2027-03-08', shows: 'tentative' }],
    ['Curso a 12 de abril de 2028', { day: '2028-04-12' }],
    ['reunião com o Wren quinta às 15h', { title: 'reunião', people: ['Wren Holt'], from: '15:00' }],
    ['café com a Amara e o Wren amanhã 11h', { title: 'café', people: ['Amara Reyes', 'Wren Holt'] }],
    ['almoço amanhã 13h 1h30 em Marsh Lab', { from: '13:00', to: '14:30', place: 'Marsh Lab', title: 'almoço' }],
    ['dentista 5 de março às 9:30', { day: '2027-03-05', from: '09:30', title: 'dentista' }],
    ['chamada próxima segunda 16:00-16:30', { day: '2027-03-08', from: '16:00', to: '16:30' }],
    ['reunião das 10h às 11h30 na sexta', { day: '2027-03-05', from: '10:00', to: '11:30' }],
    ['conselho dia 12 às 9h30 durante 2 horas', { title: 'conselho', day: '2027-03-12', to: '11:30' }],
    ['conselho dia 12 de maio', { title: 'conselho', day: '2027-05-12' }],
    ['visita depois de amanhã o dia todo', { title: 'visita', day: '2027-03-04', allDay: true }],
    ['orçamento 15/03 14h', { day: '2027-03-15', from: '14:00' }],
    ['meia hora com Wren amanhã às 11', { day: '2027-03-03', from: '11:00', to: '11:30' }],
    ['meio-dia almoço sexta', { title: 'almoço', day: '2027-03-05', from: '12:00' }],
    ['relatório na próxima semana', { title: 'relatório', day: '2027-03-08' }],
    ['Leitura de 9 capítulos', { title: 'Leitura de 9 capítulos', rule: null }],
    ['Ronda de 2 em 2 semanas segunda e quarta', { title: 'Ronda', rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,WE' }],
    ['Ronda todas as semanas à terça e à quinta às 9h', { rule: 'FREQ=WEEKLY;BYDAY=TU,TH', from: '09:00' }],
    ['Contas de três em três meses', { title: 'Contas', rule: 'FREQ=MONTHLY;INTERVAL=3' }],
    ['Contas no dia 15 de cada mês', { title: 'Contas', rule: 'FREQ=MONTHLY;BYMONTHDAY=15' }],
    ['Contas no último dia útil de cada mês', { rule: 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1' }],
    ['Conselho a última quinta de cada dois meses', { rule: 'FREQ=MONTHLY;INTERVAL=2;BYDAY=-1TH' }],
    ['Conselho na primeira segunda de cada mês até 3 de junho', { rule: 'FREQ=MONTHLY;BYDAY=1MO;UNTIL=20270603' }],
    ['todas as sextas 10 vezes ioga', { title: 'ioga', rule: 'FREQ=WEEKLY;BYDAY=FR;COUNT=10' }],
    ['todas as quintas das 9h às 10h até 30 de junho', { from: '09:00', rule: 'FREQ=WEEKLY;BYDAY=TH;UNTIL=20270630' }],
    ['Aniversário todos os anos', { title: 'Aniversário', rule: 'FREQ=YEARLY' }],
  ])('%s', (text, says) => {
    expect(pt(text)).toMatchObject(says);
  });
});

describe('now', () => {
  const at = (now: number, text: string, language: 'en' | 'pt' = 'en') =>
    readSentence(text, { ...base, now, language });
  test('is the next five minutes, also over midnight, and a word like any other where it isn’t known when that is', () => {
    expect(at(17 * 60 + 7, 'block 30m now')).toMatchObject({
      title: 'block',
      day: '2027-03-02',
      from: '17:10',
      to: '17:40',
    });
    expect(at(17 * 60 + 5, 'call right now')).toMatchObject({ title: 'call', from: '17:05' });
    expect(at(23 * 60 + 58, 'call now 15m')).toMatchObject({ day: '2027-03-03', from: '00:00', to: '00:15' });
    expect(at(9 * 60, 'chamada agora 15m', 'pt')).toMatchObject({ title: 'chamada', from: '09:00', to: '09:15' });
    expect(en('what happens now')).toMatchObject({ title: 'what happens now', from: null });
  });
});
