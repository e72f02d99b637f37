import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ownPath } from './own-path.ts';

test.each([
  ['/for/ines/calendar?of=bruno#x', '/for/ines/calendar?of=bruno#x'],
  [undefined, '/'],
  ['//evil.example', '/'],
  ['/\t/evil.example', '/'],
  ['/\n/evil.example/a', '/'],
  ['\\\\evil.example', '/'],
  ['/\\evil.example', '/'],
  ['https://evil.example', '/'],
  ['javascript:alert(1)', '/'],
  ['/.//evil.example', '/evil.example'],
  ['http:///evil.example', '/'],
])('%j leads to %s', (wanted, path) => {
  expect(ownPath(wanted)).toBe(path);
});

test('whatever is wanted, it leads nowhere else', () => {
  const part = fc.constantFrom(
    '/',
    '\\',
    '\t',
    '\n',
    '\r',
    '//',
    '.',
    '..',
    '@',
    ':',
    '%2F',
    'evil.example',
    'https:',
    ' ',
    '?',
  );
  fc.assert(
    fc.property(fc.array(part, { maxLength: 8 }), (parts) => {
      const path = ownPath(parts.join(''));
      expect(new URL(path, 'https://paramo.example').origin).toBe('https://paramo.example');
      expect(path.startsWith('/')).toBe(true);
    }),
  );
});
