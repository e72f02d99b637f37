import type { FindingsAnswer } from '@/contract/sharing/review.ts';
import { instantText } from '@/core/time/index.ts';
import { mustWait } from '../../db/gate.ts';
import type { Connection } from '../../db/index.ts';
import { calendarById, calendarByKey } from '../../repositories/calendars.ts';
import {
  calendarsToLookAt,
  findingCountsOf,
  markFindingsRead,
  saveFindingCount,
} from '../../repositories/finding-counts.ts';
import { personById } from '../../repositories/people.ts';
import type { Result } from '../../result.ts';
import { type Context, contextFor, tellPeople } from '../deciding/index.ts';

const DAY = 86_400_000;
/** How long what was found holds before it is looked at again, and how long before its owner is told again. */
const LOOKED = DAY;
const TOLD = 30 * DAY;
/** Calendars that are looked at in one go. */
const A_LOOK = 200;

/** How much is more open than it should be: who is named for nothing is tidying up, and nothing open. */
const tooOpen = ({ findings }: FindingsAnswer): number => findings.filter((finding) => finding.kind !== 'spare').length;

/** Keeps what the owner of a calendar was just shown, so that their count is what they saw. */
export function noteFindings(ctx: Context, key: string, answer: FindingsAnswer): void {
  const calendar = calendarByKey(ctx.db, key);
  if (!calendar || calendar.ownerId !== ctx.viewer.id || mustWait()) return;
  const found = tooOpen(answer);
  const known = findingCountsOf(ctx.db, ctx.viewer.id).find((one) => one.calendarId === calendar.id)?.found ?? 0;
  if (known === found) return;
  // Shown it they needn't be told of it.
  ctx.db.write(() => saveFindingCount(ctx.db, calendar.id, found, ctx.now, Number.POSITIVE_INFINITY));
}

/** How much was found on one's own calendars, for the spine. */
export const findingsCounted = (ctx: Context): number =>
  findingCountsOf(ctx.db, ctx.viewer.id).reduce((sum, one) => sum + one.found, 0);

/** What one was told of one's own calendars once a month, as it is counted now, and hasn't put right since. */
export function findingsTold(ctx: Context) {
  return findingCountsOf(ctx.db, ctx.viewer.id).flatMap((one) => {
    const calendar = calendarById(ctx.db, one.calendarId);
    if (!calendar || ctx.now - one.toldAt >= TOLD || (one.readAt !== null && one.readAt === one.toldAt)) return [];
    const further = calendar.main ? null : { key: calendar.key, name: calendar.name };
    return [{ key: calendar.key, further, count: one.found, at: instantText(one.toldAt), unread: one.readAt === null }];
  });
}

/** How many of those one hasn't read. */
export const findingsUnread = (ctx: Context): number => findingsTold(ctx).filter((one) => one.unread).length;

export const readFindingsTold = (ctx: Context): void => markFindingsRead(ctx.db, ctx.viewer.id, ctx.now);

/**
 * Looks at the calendars that weren't looked at for a day, each as its owner would see what is found, and tells owners once a month. `read` is how
 * what is found is read; `others` lets others have their turn between two. Answers how many owners were told.
 */
export async function countFindings(
  db: Connection,
  now: number,
  read: (ctx: Context, key: string) => Promise<Result<FindingsAnswer>>,
  others: () => Promise<void>,
): Promise<number> {
  let told = 0;
  for (const { key, ownerId } of calendarsToLookAt(db, now - LOOKED, A_LOOK)) {
    const owner = personById(db, ownerId);
    if (!owner) continue;
    const answer = await read({ ...contextFor(owner, db), now }, key);
    await others();
    const calendar = calendarByKey(db, key);
    if (!answer.ok || !calendar || calendar.ownerId !== ownerId || mustWait()) continue;
    if (db.write(() => saveFindingCount(db, calendar.id, tooOpen(answer.value), now, TOLD))) {
      told++;
      tellPeople(db, [ownerId]);
    }
  }
  return told;
}
