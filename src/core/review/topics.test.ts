import { describe, expect, test } from 'vitest';
import { topicOf } from './index.ts';

describe('what an item is about', () => {
  test.each([
    ['Physio, Dr Amsel', 'health'],
    ['Zahnarzt', 'health'],
    ['Consulta médica', 'health'],
    ['Salary round, first figures', 'hiring'],
    ['Entrevista: técnico', 'hiring'],
    ['Lönesamtal', 'hiring'],
    ['Bank: green loan', 'money'],
    ['Lawyer, family matter', 'law'],
    ['School: Marek’s teacher', 'family'],
    ['Board pre-read', null],
    ['Scanner room', null],
    ['', null],
  ])('%s: %s', (text, topic) => {
    expect(topicOf(text)).toBe(topic);
  });
});
