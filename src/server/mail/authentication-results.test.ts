import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readAuthenticationResults } from './authentication-results.ts';

const plain = (field: string) => {
  const read = readAuthenticationResults(field);
  return (
    read && {
      host: read.host,
      results: read.results?.map(({ method, result, properties }) => [method, result, Object.fromEntries(properties)]),
    }
  );
};

test('the examples of RFC 8601, appendix B', () => {
  expect(plain('example.org 1; none')).toEqual({ host: 'example.org', results: [] });
  expect(plain('example.com;\r\n  spf=pass smtp.mailfrom=example.net')).toEqual({
    host: 'example.com',
    results: [['spf', 'pass', { 'smtp.mailfrom': ['example.net'] }]],
  });
  expect(
    plain('example.com;\r\n auth=pass (cram-md5) smtp.auth=sender@example.net;\r\n spf=pass smtp.mailfrom=example.net'),
  ).toMatchObject({
    results: [
      ['auth', 'pass', { 'smtp.auth': ['sender@example.net'] }],
      ['spf', 'pass', {}],
    ],
  });
  expect(
    plain(
      'example.com; dkim=pass reason="good signature" header.i=@mail-router.example.net; dkim=fail reason="bad signature" header.i=@newyork.example.com',
    ),
  ).toEqual({
    host: 'example.com',
    results: [
      ['dkim', 'pass', { reason: ['good signature'], 'header.i': ['@mail-router.example.net'] }],
      ['dkim', 'fail', { reason: ['bad signature'], 'header.i': ['@newyork.example.com'] }],
    ],
  });
  expect(
    plain(
      "foo.example.net (foobar) 1 (baz);\r\n dkim (Because I like it) / 1 (One yay) = (wait for it) fail\r\n policy (A dot can go here) . (like that) expired\r\n (this surprised me) = (as I wasn't expecting it) 1362471462",
    ),
  ).toEqual({ host: 'foo.example.net', results: [['dkim', 'fail', { 'policy.expired': ['1362471462'] }]] });
});

test('what stands in a comment or a quoted string is no result', () => {
  for (const field of [
    'mx.example; spf=fail reason="; dmarc=pass header.from=bank.example" smtp.mailfrom=evil.example',
    'mx.example; spf=fail (; dmarc=pass header.from=bank.example) smtp.mailfrom=evil.example',
    'mx.example; spf=fail smtp.mailfrom="x; dmarc=pass header.from=bank.example"@evil.example',
    'mx.example; spf=fail (a \\) ; dmarc=pass header.from=bank.example) smtp.mailfrom=evil.example',
  ])
    expect(readAuthenticationResults(field)?.results?.map((one) => one.method)).toEqual(['spf']);
});

test('what doesn’t follow the grammar proves nothing; of whom it says to be stays', () => {
  for (const field of [
    'mx.example; dmarc=pass header.from=a.example trailing',
    'mx.example; dmarc=pass header.from=a.example; (',
    'mx.example; dmarc=pass header.from="a.example',
    'mx.example dmarc=pass header.from=a.example',
    'mx.example; =pass',
    'mx.example',
    'mx.example; none; dmarc=pass header.from=a.example',
    'mx.example 2; dmarc=pass header.from=a.example',
  ])
    expect([field, readAuthenticationResults(field)]).toEqual([field, { host: 'mx.example', results: null }]);
  for (const field of ['', ';', '(mx.example', '"mx.example']) expect(readAuthenticationResults(field)).toBeNull();
});

test('whatever comes, it ends, and what was written is read', () => {
  const piece = fc.constantFrom(
    'mx.example',
    ';',
    '=',
    '"',
    '(',
    ')',
    '\\',
    ' ',
    'dmarc',
    'pass',
    'header',
    '.',
    'from',
    'a@b.example',
    '/',
    '1',
    '\r\n ',
    'reason',
    'é',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 40 }), (pieces) => {
      const read = readAuthenticationResults(pieces.join(''));
      for (const one of read?.results ?? []) expect(one.method).toMatch(/^[a-z0-9_-]+$/);
    }),
    { numRuns: 3000 },
  );
  const quoted = (text: string) => `"${text.replace(/["\\]/g, '\\$&')}"`;
  const words = fc.string({ unit: 'grapheme-ascii', maxLength: 30 });
  fc.assert(
    fc.property(words, words, (reason, value) => {
      const text = `mx.example (${reason.replace(/[()\\]/g, '\\$&')}); dkim=pass reason=${quoted(reason)} header.d=${quoted(value)}`;
      expect(plain(text)?.results).toEqual([['dkim', 'pass', { reason: [reason], 'header.d': [value] }]]);
    }),
  );
});
