import type { ErrorCode } from '@/contract/errors.ts';

/** An expected refusal: a closed code, the facts its sentence needs, and the fields it speaks of. */
export interface Refusal {
  readonly ok: false;
  readonly code: ErrorCode;
  readonly facts?: Readonly<Record<string, string | number>>;
  readonly fields?: Readonly<Record<string, string>>;
  readonly data?: unknown;
}

export type Result<T> = { readonly ok: true; readonly value: T } | Refusal;

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const refuse = (code: ErrorCode, more: Omit<Refusal, 'ok' | 'code'> = {}): Refusal => ({
  ok: false,
  code,
  ...more,
});

/**
 * A refusal thrown out of the midst of a write: `Connection.write` takes back what was written and answers it. Known by its name, since several
 * bundles of one server share a connection.
 */
export class Refused extends Error {
  override readonly name = 'Refused';
  constructor(readonly refusal: Refusal) {
    super(refusal.code);
  }
}

/** What a result holds; a refusal ends the write that is going on. */
export function must<T>(result: Result<T>): T {
  if (!result.ok) throw new Refused(result);
  return result.value;
}

/** The refusal that was thrown out of a write, or that a write came to; `null` for anything else. */
export function refusalOf(what: unknown): Refusal | null {
  if (what instanceof Error) return what.name === 'Refused' && 'refusal' in what ? (what.refusal as Refusal) : null;
  const isRefusal = typeof what === 'object' && what !== null && 'ok' in what && what.ok === false && 'code' in what;
  return isRefusal ? (what as Refusal) : null;
}
