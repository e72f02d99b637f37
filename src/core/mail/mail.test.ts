import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseDate } from '../time/index.ts';
import { fits, fitting } from './filing.ts';
import { readProposedMeeting } from './proposed-meeting.ts';
import { firstLineOf, partsOf } from './quoted.ts';

// A Wednesday.
const KNOWN = {
  today: parseDate('2027-03-03') as number,
  dateOrder: 'dmy',
  places: ['Ridge House', 'Marsh Lab'],
} as const;

describe('a mail that asks for a meeting', () => {
  it.each([
    ['Could we meet Tuesday at three for half an hour?', '2027-03-09', '15:00', 30],
    ['Dear Inés,\n\nthank you. Can we talk on Friday at 10 for an hour?\n\nMarta', '2027-03-05', '10:00', 60],
    ['I would like to meet you tomorrow at 14:30.', '2027-03-04', '14:30', null],
    ['Are you free on 12 March at half past two?', '2027-03-12', '14:30', null],
    ['Do you have half an hour for me?', null, null, 30],
    ['Might it be possible to speak soon? Monday at 9 would be best.', '2027-03-08', '09:00', null],
    ['Podemos encontrar-nos na terça às três, meia hora?', '2027-03-09', '15:00', 30],
    ['Gostava de falar consigo amanhã às 10.', '2027-03-04', '10:00', null],
    ['Podíamos reunir sexta às três e meia?', '2027-03-05', '15:30', null],
    ['Está livre na quinta-feira às 11?', '2027-03-04', '11:00', null],
    ['Tem meia hora para mim?', null, null, 30],
  ])('%s', (text, day, from, length) => {
    expect(readProposedMeeting(text, KNOWN)).toMatchObject({ day, from, length });
  });

  it('says the sentence as it stands, and the place that is named', () => {
    const text = 'All well here. Could we meet at Marsh Lab on Monday at 4pm? Best, Wren';
    expect(readProposedMeeting(text, KNOWN)).toEqual({
      said: 'Could we meet at Marsh Lab on Monday at 4pm?',
      day: '2027-03-08',
      from: '16:00',
      length: null,
      place: 'Marsh Lab',
    });
  });

  it.each([
    'The report is attached. It is due on Tuesday at three.',
    'Thank you for the talk yesterday.',
    '> Could we meet Tuesday at three?\n\nYes, that works.',
    'On Mon, 1 Mar 2027, Marta Quill wrote:\n> can we talk on Friday?\n\nI asked her.',
    'O relatório está pronto para terça às três.',
    '',
  ])('%s asks for none', (text) => {
    expect(readProposedMeeting(text, KNOWN)).toBe(null);
  });

  it('any text at all is read or refused, never thrown at, and quickly', () => {
    const bits = fc.constantFrom(
      'could we meet ',
      'Tuesday ',
      'at ',
      'three',
      '?',
      '\n',
      '> ',
      'podemos ',
      'falar ',
      '12',
      ':',
      'ç',
      '\u{1F600}',
      ' for ',
      'half an hour ',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(bits, { maxLength: 200 }).map((all) => all.join('')),
        ),
        (text) => {
          const read = readProposedMeeting(text, KNOWN);
          if (read?.from) expect(read.from).toMatch(/^\d\d:\d\d$/);
          if (read?.day) expect(parseDate(read.day)).not.toBe(null);
        },
      ),
    );
    const long = 'could we '.repeat(200_000);
    const start = performance.now();
    readProposedMeeting(long, KNOWN);
    expect(performance.now() - start).toBeLessThan(500);
  });
});

describe('what a mail repeats of another', () => {
  it('is told from what its writer wrote', () => {
    const text = 'Yes.\n\nOn Mon, 1 Mar 2027 at 10:00, Marta Quill <m@q.example> wrote:\n> Coming?\n>\n> Marta\n\nBest';
    expect(partsOf(text)).toEqual([
      { quoted: false, text: 'Yes.\n' },
      { quoted: true, text: 'On Mon, 1 Mar 2027 at 10:00, Marta Quill <m@q.example> wrote:\n> Coming?\n>\n> Marta' },
      { quoted: false, text: '\nBest' },
    ]);
    expect(partsOf('Sim.\n-- Mensagem original --\nDe: Marta\nOlá')[1]).toMatchObject({ quoted: true });
    expect(partsOf('On Monday he wrote:\nnothing more')).toHaveLength(1);
  });

  it('and joined again it is the text', () => {
    const lines = fc.constantFrom(
      '> a',
      'b',
      '',
      'On Mon, 1 Mar 2027, M wrote:',
      '-----Original Message-----',
      ' > > c',
      'Em seg., M escreveu:',
    );
    fc.assert(
      fc.property(fc.array(lines, { maxLength: 30 }), (all) => {
        const parts = partsOf(all.join('\n'));
        expect(parts.map(({ text }) => text).join('\n')).toBe(all.join('\n'));
        for (const [i, { quoted }] of parts.entries()) if (i > 0) expect(quoted).not.toBe(parts[i - 1]?.quoted);
      }),
    );
  });

  it('the first line is of what was written, and of a mail that only repeats, of that', () => {
    expect(firstLineOf('> before\n\n  Yes, please.\nMore')).toBe('Yes, please.');
    expect(firstLineOf('> > only this')).toBe('only this');
    expect(firstLineOf('')).toBe('');
    expect(firstLineOf('\u{1F600}'.repeat(300))).toBe('\u{1F600}'.repeat(160));
  });
});

describe('a rule for filing', () => {
  const mail = {
    from: { address: 'perpetua@water.example', name: 'Perpetua Oduya' },
    subject: 'Licença de água',
    text: 'The third draft',
    meeting: false,
  };
  const rule = { sender: null, words: null, meeting: false };
  it.each([
    [{ ...rule, sender: '@Water.example' }, true],
    [{ ...rule, sender: 'oduya' }, true],
    [{ ...rule, words: 'licenca draft' }, true],
    [{ ...rule, words: 'licenca fourth' }, false],
    [{ ...rule, sender: 'oduya', words: 'fourth' }, false],
    [{ ...rule, meeting: true }, false],
    [{ ...rule, words: '  ', sender: ' ' }, false],
    [rule, false],
  ])('%o: %s', (one, yes) => {
    expect(fits(one, mail)).toBe(yes);
  });

  it('the first that fits files it; one about meetings looks at those', () => {
    const rules = [
      { ...rule, sender: 'nobody' },
      { ...rule, meeting: true, id: 'meetings' },
      { ...rule, words: 'draft', id: 'drafts' },
    ];
    expect(fitting(rules, mail)).toMatchObject({ id: 'drafts' });
    expect(fitting(rules, { ...mail, meeting: true })).toMatchObject({ id: 'meetings' });
    expect(fitting([], mail)).toBe(null);
  });
});
