import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import { sampleFor } from './servers.ts';

/*
 * Every route is called with bodies and queries that are nearly right, by somebody nobody else's test touches: each answer is one
 * that was meant, and each refusal a sentence. What is sent is the same every time.
 */
const home = await sampleFor('mangled');

interface Schema {
  readonly type?: string;
  readonly enum?: readonly unknown[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly items?: Schema;
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
}
interface Operation {
  readonly parameters: readonly { readonly name: string; readonly in: string }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}

const odd = fc.constantFrom<unknown>(
  '',
  null,
  0,
  -1,
  1e20,
  'x'.repeat(5000),
  '\u0000',
  '../..',
  '💥',
  '2027-02-30',
  '2027-13-01T99:99',
  'Europe/Nowhere',
  [],
  {},
  'person:',
  'link:',
  '__proto__',
);
const near = fc.constantFrom(
  'rafael',
  'ines',
  '2027-03-03',
  '2027-03-03T10:00',
  'Europe/Lisbon',
  'a@b.example',
  'everyone',
);

/** Values of a schema's shape, each part now and then something else. */
function shaped(schema: Schema | undefined, depth = 0): fc.Arbitrary<unknown> {
  if (!schema || depth > 6) return odd;
  const choices = schema.anyOf ?? schema.oneOf;
  const right: fc.Arbitrary<unknown> = choices
    ? fc.oneof(...choices.map((c) => shaped(c, depth + 1)))
    : schema.enum
      ? fc.constantFrom(...schema.enum)
      : schema.type === 'object'
        ? fc.record(
            Object.fromEntries(Object.entries(schema.properties ?? {}).map(([k, s]) => [k, shaped(s, depth + 1)])),
            { requiredKeys: [] },
          )
        : schema.type === 'array'
          ? fc.array(shaped(schema.items, depth + 1), { maxLength: 3 })
          : schema.type === 'boolean'
            ? fc.boolean()
            : schema.type === 'string'
              ? near
              : fc.constantFrom(0, 1, -1, 1.5, 1e9);
  return fc.oneof({ weight: 6, arbitrary: right }, { weight: 1, arbitrary: odd });
}

// The streams stay open, signing out ends what this stands on, and tries at the doors are counted for everybody here together.
const LEFT_OUT = new Set([
  'get /api/live',
  'get /api/links/{link}/live',
  'delete /api/session',
  'post /api/session',
  'post /api/demo/step-in',
  'post /api/guest',
  'put /api/guest',
  'post /api/way-in',
]);

test('whatever is sent, every route answers as it was meant to, and refuses in a sentence', async () => {
  const rafael = await Caller.stepIn(home, 'rafael');
  const frame = await rafael.json<{ principals: { calendar: string }[] }>('/api/frame');
  const own = frame.principals[0]?.calendar ?? '';
  const spec = await rafael.json<{ paths: Record<string, Record<string, Operation>> }>('/api/openapi.json');
  let refused = 0;
  let taken = 0;
  for (const [path, methods] of Object.entries(spec.paths))
    for (const [method, operation] of Object.entries(methods)) {
      if (LEFT_OUT.has(`${method} ${path}`)) continue;
      const body = operation.requestBody?.content['application/json']?.schema;
      const requests = fc.record({
        body: body ? shaped(body) : fc.constant(undefined),
        place: fc.constantFrom(own, own, 'none', '~', 'AAAAAAAAAAAAAAAAAAAAAA'),
        query: fc.array(near, { minLength: 6, maxLength: 6 }),
      });
      for (const { body: sent, place, query } of fc.sample(requests, { numRuns: 8, seed: 20270302 })) {
        const words = operation.parameters
          .filter((p) => p.in === 'query')
          .map((p, i) => `${p.name}=${encodeURIComponent(query[i] ?? '')}`);
        const at = `${path.replace(/\{\w+\}/, encodeURIComponent(place))}${words.length > 0 ? `?${words.join('&')}` : ''}`;
        const answer = await rafael.send(method.toUpperCase(), at, sent);
        expect([method, at, sent, answer.status < 500]).toEqual([method, at, sent, true]);
        if (answer.status < 400) taken++;
        else {
          refused++;
          const { code, sentence } = JSON.parse(answer.text) as { code: string; sentence: string };
          expect([at, code.length > 0, sentence.length > 10]).toEqual([at, true, true]);
        }
      }
    }
  // Both happen, or nothing was tried.
  expect(refused).toBeGreaterThan(100);
  expect(taken).toBeGreaterThan(20);
});
