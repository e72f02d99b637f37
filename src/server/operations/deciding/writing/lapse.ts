import { mustWait } from '../../../db/gate.ts';
import { calendarById } from '../../../repositories/calendars.ts';
import { lapsedHolds } from '../../../repositories/holds.ts';
import { updateItem } from '../../../repositories/item-writes.ts';
import { itemById } from '../../../repositories/items.ts';
import { personById } from '../../../repositories/people.ts';
import type { Context } from '../context/context.ts';
import { writeItems } from './write-items.ts';

/** So many free themselves at one look; the rest at the next. */
const A_LOOK = 200;

/**
 * Removes holds whose time has run out, before anything is read or written, so that none is ever seen too long and no job has to run. The
 * trail names whoever held them.
 */
export function freeLapsed(at: Pick<Context, 'db' | 'now'>): void {
  // Where writing would wait, nobody who only reads is held up for it: the next look frees them.
  if (lapsedHolds(at.db, at.now, 1).length === 0 || mustWait()) return;
  at.db.write(() => {
    for (const id of lapsedHolds(at.db, at.now, A_LOOK)) {
      const before = itemById(at.db, id);
      const calendar = before && calendarById(at.db, before.calendarId);
      const viewer = before && personById(at.db, before.createdBy);
      if (!before || !viewer) continue;
      const changed = {
        changedBy: before.createdBy,
        changedFor: before.createdFor,
        changedAt: before.lapsesAt ?? at.now,
      };
      const after = { ...before, ...changed, removedAt: before.lapsesAt, version: before.version + 1 };
      // A calendar that is removed itself has nobody to be told.
      if (calendar) writeItems({ ...at, viewer }, calendar, 'item.lapsed', [{ before, after }]);
      else updateItem(at.db, after);
    }
  });
}
