import { calendarByKey } from '../../../repositories/calendars.ts';
import { itemByKey } from '../../../repositories/items.ts';
import { insertTokenAct } from '../../../repositories/tokens.ts';
import type { Context } from './context.ts';

/**
 * Notes that a token wrote something, so that whoever made it can read what it did: in the transaction of the write where there is one. `where`
 * names the calendar or the item it was about. Does nothing for a window.
 */
export function noteTokenAct(
  { db, now, token }: Context,
  act: string,
  where: { readonly calendar?: string | undefined; readonly item?: string | undefined },
): void {
  if (!token) return;
  const item = where.item === undefined ? null : itemByKey(db, where.item.split('~')[0] ?? '');
  const calendar = where.calendar === undefined ? null : calendarByKey(db, where.calendar);
  insertTokenAct(db, token.key, { at: now, act, collectionId: calendar?.id ?? item?.calendarId ?? null });
}
