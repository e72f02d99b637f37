import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readNext } from './index.ts';

const base = {
  today: Date.UTC(2027, 2, 2),
  dateOrder: 'dmy' as const,
  people: ['Bruno Keane', 'Amara Reyes', 'Inés Varga'],
  places: ['Ridge House', 'Marsh Lab'],
};
const en = (text: string) => readNext(text, { ...base, language: 'en' });
const pt = (text: string) => readNext(text, { ...base, language: 'pt' });
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
])('%s', (text, asked) => expect(en(text)).toEqual(asked));

test.each([
  ['próximos 30 minutos com ela em Marsh Lab', lab],
  ['os proximos 30 min em Marsh Lab com ela', lab],
  ['próxima meia hora com ela em Marsh Lab', lab],
  ['próxima hora com Bruno', { minutes: 60, people: ['Bruno Keane'], place: null }],
])('%s', (text, asked) => expect(pt(text)).toEqual(asked));

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

test('never throws, whatever is typed', () => {
  fc.assert(fc.property(fc.string(), (text) => void [en(`next ${text}`), pt(`próximos ${text}`), en(text)]));
});
