import { randomInt, timingSafeEqual } from 'node:crypto';
import { limiter } from '../../auth/limiter.ts';
import { settings } from '../../settings.ts';

/** Letters and digits that nobody takes for another. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const LENGTH = 10;
/** Wrong codes that may be tried in a quarter of an hour, from wherever. */
const tries = limiter(20, 15 * 60_000);

const holder = globalThis as { paramoStartCode?: string };

/**
 * The code by which the first administrator says that they are whoever started the server: made anew with each start, held in memory alone, and
 * printed where the server runs. A house that starts many servers sets its own.
 */
export function startCode(): string {
  holder.paramoStartCode ??=
    settings().startCode ?? Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  return holder.paramoStartCode;
}

const plain = (code: string): Buffer => Buffer.from(code.toUpperCase().replace(/[\s-]/g, '').padEnd(64).slice(0, 64));

/** Whether a code is the one that was printed; `limited` where too many were tried. */
export function checkStartCode(code: string, at: number): 'right' | 'wrong' | 'limited' {
  if (!tries.take('start', at)) return 'limited';
  if (!timingSafeEqual(plain(code), plain(startCode()))) return 'wrong';
  tries.give('start');
  return 'right';
}
