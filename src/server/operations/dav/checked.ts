import type { z } from 'zod';
import { Refused, refuse } from '../../result.ts';

/** What a text comes to, held against what every write is held against. */
export function checked<S extends z.ZodType>(schema: S, body: unknown): z.output<S> {
  const read = schema.safeParse(body);
  if (read.success) return read.data;
  const at = read.error.issues[0]?.path.filter((part) => part !== 'fields' && part !== 'when')[0];
  throw new Refused(refuse('badInput', { fields: { [String(at ?? 'form')]: 'unclear' } }));
}

const MOST_NAME = 200;

/** Refuses a name that a program can't give an object: what is too long, or isn't one part of an address. */
export function checkName(name: string): void {
  if (name.length > MOST_NAME || !/^[^/\\\p{Cc}]+$/u.test(name))
    throw new Refused(refuse('badInput', { fields: { name: 'unclear' } }));
}
