import type { ReadProblem } from './read-item.ts';

/** Thrown where an event of a file can't be taken, and caught where the file is read: a problem's code, and the fact its sentence names. */
export class Unreadable extends Error {
  constructor(
    readonly code: ReadProblem['code'],
    readonly fact: string | null = null,
  ) {
    super(code);
  }
}
