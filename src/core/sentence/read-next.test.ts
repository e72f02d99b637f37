import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readNext } from './index.ts';
import type { NextQuestion } from './read-next.ts';

const base = {
  today: Date.UTC(2027, 2, 2),
  dateOrder: 'dmy' as const,
  people: ['Bruno Keane', 'Amara Reyes', 'Inés Varga'],
  places: ['Ridge House', 'Marsh Lab'],
};
const next = (question: NextQuestion | null) => {
  if (question === null) return null;
  const { all, days, ...rest } = question;
  expect([all, days]).toEqual([false, null]);
  return rest;
};
const en = (text: string) => next(readNext(text, { ...base, language: 'en' }));
const pt = (text: string) => next(readNext(text, { ...base, language: 'pt' }));
const lab = { minutes: 30, people: [], place: 'Marsh Lab' };

test.each([
  ['next 30 minutes with her at Marsh Lab', lab],
  ['The next 30 min at marsh lab with her', lab],
  ['next free half an hour with him at Marsh Lab', lab],
  ['next hour', { minutes: 60, people: [], place: null }],
  ['next 90m with Bruno', { minutes: 90, people: ['Bruno Keane'], place: null }],
  [
    'next 45 minutes with Bruno and Amara at Ridge House',
    { minutes: 45, people: ['Bruno Keane', 'Amara Reyes'], place: 'Ridge House' },
  ],
  [
    'next 20 minutes with marta@quill-audit.example',
    { minutes: 20, people: ['marta@quill-audit.example'], place: null },
  ],
])('%s', (text, question) => expect(en(text)).toEqual(question));

test.each([
  ['próximos 30 minutos com ela em Marsh Lab', lab],
  ['os proximos 30 min em Marsh Lab com ela', lab],
  ['próxima meia hora com ela em Marsh Lab', lab],
  ['próxima hora com Bruno', { minutes: 60, people: ['Bruno Keane'], place: null }],
])('%s', (text, question) => expect(pt(text)).toEqual(question));

test.each([
  'next thursday',
  'next week',
  'board prep next thu 2pm 90m',
  '30 minutes with her',
  'next',
  'next 30 minutes on Friday',
  'next steps 30m',
  '',
])('is none: %s', (text) => expect(en(text)).toBeNull());

const bruno = { minutes: 45, people: ['Bruno Keane'], place: null };
const week = { first: Date.UTC(2027, 2, 8), count: 7 };
test.each([
  ['en', 'find 45 minutes with Bruno next week', { ...bruno, all: true, days: week }],
  ['en', 'find me a time for 45 minutes next week with Bruno', { ...bruno, all: true, days: week }],
  ['en', 'when 45m with Bruno this week', { ...bruno, all: true, days: { first: base.today, count: 6 } }],
  [
    'en',
    'find an hour on friday',
    { minutes: 60, people: [], place: null, all: true, days: { first: Date.UTC(2027, 2, 5), count: 1 } },
  ],
  ['en', 'find half an hour with her at Marsh Lab', { ...lab, all: true, days: null }],
  ['pt', 'encontra 45 minutos com Bruno na próxima semana', { ...bruno, all: true, days: week }],
  [
    'pt',
    'procurar uma hora esta semana',
    { minutes: 60, people: [], place: null, all: true, days: { first: base.today, count: 6 } },
  ],
] as const)('%s: %s', (language, text, question) => expect(readNext(text, { ...base, language })).toEqual(question));

test.each([
  'find heron',
  'find 45',
  'find the 45 minutes talk',
  'find 45 minutes on friday next week',
  'find 45 minutes at 9',
])('finds no times: %s', (text) => expect(readNext(text, { ...base, language: 'en' })).toBeNull());

test('never throws, whatever is typed', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      for (const one of [`next ${text}`, `find ${text}`, text]) readNext(one, { ...base, language: 'en' });
      for (const one of [`próximos ${text}`, `procurar ${text}`]) readNext(one, { ...base, language: 'pt' });
    }),
  );
});
