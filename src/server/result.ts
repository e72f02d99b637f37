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
