/** What a program says it saw before it writes (RFC 9110 13.1): tags, `*`, or nothing. */
export interface Seen {
  readonly match: string | null;
  readonly noneMatch: string | null;
  readonly scheduleTag?: string | null;
}

/** Whether what a program saw is what is there now: its tag, `null` where nothing is. */
export function stillSo({ match, noneMatch }: Pick<Seen, 'match' | 'noneMatch'>, tag: string | null): boolean {
  const names = (text: string) => text.split(',').map((one) => one.trim().replace(/^W\//, '').replace(/^"|"$/g, ''));
  if (match !== null && (tag === null || (match.trim() !== '*' && !names(match).includes(tag)))) return false;
  if (noneMatch !== null && tag !== null && (noneMatch.trim() === '*' || names(noneMatch).includes(tag))) return false;
  return true;
}
