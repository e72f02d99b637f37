import fc from 'fast-check';
import { expect, test } from 'vitest';
import { wantedIn } from './requests.ts';
import { resourceAt } from './resource.ts';
import { cal, childOf, dav, documentOf, el, leaf, readXml, type Xml } from './xml.ts';

test('what is written is read back, whatever stands in it', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary-ascii' }), fc.string({ unit: 'binary' }), (a, b) => {
      const plain = (text: string) =>
        // biome-ignore lint/suspicious/noControlCharactersInRegex: those are what XML 1.0 can't hold.
        text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
      const read = readXml(
        documentOf(el(dav('prop'), el(cal('x'), a), leaf(cal('comp'), { name: 'v' }), el('{urn:z}y', b))),
      );
      expect(childOf(read, cal('x'))?.text).toBe(plain(a));
      expect(childOf(read, '{urn:z}y')?.text).toBe(plain(b));
      expect(childOf(read, cal('comp'))?.attributes).toMatchObject({ name: 'v' });
    }),
  );
});

test('names are those of their namespaces, whatever prefix a program likes', () => {
  for (const text of [
    '<D:propfind xmlns:D="DAV:"><D:prop><D:owner/></D:prop></D:propfind>',
    '<propfind xmlns="DAV:"><prop><owner/></prop></propfind>',
    '<a:propfind xmlns:a="DAV:"><b:prop xmlns:b="DAV:"><c:owner xmlns:c="DAV:"/></b:prop></a:propfind>',
  ])
    expect(childOf(readXml(text), dav('prop'))?.children.map((one) => one.name)).toEqual(['{DAV:}owner']);
});

test('what is no XML, declares what it means itself, or is beyond any request is not read', () => {
  const deep = (n: number) => `${'<a>'.repeat(n)}${'</a>'.repeat(n)}`;
  for (const no of [
    '',
    'x',
    '<a>',
    '<a></b>',
    '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>',
    '<a>&b;</a>',
    deep(60),
    `<a>${'<b/>'.repeat(13_000)}</a>`,
    `<a ${Array.from({ length: 70 }, (_, i) => `xmlns:p${i}="u"`).join(' ')}/>`,
  ])
    expect([no.slice(0, 40), readXml(no)]).toEqual([no.slice(0, 40), null]);
  expect(readXml(deep(20))?.name).toBe('{}a');
});

test('an address is somebody’s own, or nothing', () => {
  expect(resourceAt('/dav/', 'ines')).toEqual({ kind: 'root' });
  expect(resourceAt('/dav', 'ines')).toEqual({ kind: 'root' });
  expect(resourceAt('https://calendar.example/dav/calendars/ines/k/a%20b.ics', 'ines')).toEqual({
    kind: 'object',
    calendar: 'k',
    name: 'a b.ics',
  });
  expect(resourceAt('/dav/people/bruno/', 'ines')).toEqual({ kind: 'person', handle: 'bruno' });
  for (const no of [
    '/dav/calendars/bruno/k/',
    '/dav/inbox/bruno/',
    '/dav/x/ines/',
    '/dav/calendars/ines/k/a/b',
    '/davit/',
    '/dav/%ff/',
    '/dav/calendars/../../api/frame',
    `/dav/calendars/ines/${'k'.repeat(300)}/`,
  ])
    expect([no, resourceAt(no, 'ines')]).toEqual([no, null]);
});

test('XML put together at random is read or refused, and what is read is bounded', () => {
  const piece = fc.constantFrom(
    '<a>',
    '</a>',
    '<d:prop xmlns:d="DAV:">',
    '</d:prop>',
    '<b/>',
    '<x:y xmlns:x="urn:z"/>',
    '<![CDATA[',
    ']]>',
    '<!--',
    '-->',
    '<?pi',
    '?>',
    '&amp;',
    '&',
    '"',
    "'",
    '<',
    '>',
    ' xmlns="',
    '=',
    'text',
    '\u0000',
    '\ud800',
    '<!DOCTYPE a>',
  );
  const size = (xml: Xml | null): number => (xml ? 1 + xml.children.reduce((n, one) => n + size(one), 0) : 0);
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 80 }), (pieces) => {
      const read = readXml(pieces.join(''));
      expect(size(read)).toBeLessThanOrEqual(6000);
      if (read) expect(read.name.length).toBeLessThanOrEqual(400);
    }),
    { numRuns: 2000, seed: 20_270_302 },
  );
  expect(readXml(`<a xmlns="${'n'.repeat(500)}"/>`)).toBeNull();
  expect(readXml(`<d:prop xmlns:d="DAV:"><${'n'.repeat(500)}/></d:prop>`)).toBeNull();
});

test('a request names so many properties', () => {
  const find = (count: number) =>
    readXml(
      `<d:propfind xmlns:d="DAV:"><d:prop>${Array.from({ length: count }, (_, i) => `<d:a${i}/>`).join('')}</d:prop></d:propfind>`,
    );
  expect([wantedIn(find(200))?.kind, wantedIn(find(201))]).toEqual(['some', null]);
});
