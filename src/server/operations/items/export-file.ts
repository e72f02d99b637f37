import { calendarFileName, type FileZone, type WrittenItem, writeCalendar } from '@/core/formats/index.ts';
import { dateText, toWall, wallText } from '@/core/time/index.ts';
import { allItems } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { zoneByName } from '../../repositories/zone-definitions.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, isRefusal, seriesOf } from '../deciding/index.ts';
import { findImportable } from './importing.ts';

/** The most that one file holds, in characters. */
const MOST_TEXT = 100_000_000;

/** A calendar as a file: everything in it, for those who may bring in. Reading it back gives the same items. */
export function exportFile(ctx: Context, key: string): Result<{ name: string; text: string }> {
  const decided = findImportable(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const items = allItems(ctx.db, calendar.id);
  const size = items.reduce(
    (n, i) => n + 1000 + (i.notes?.length ?? 0) + i.kept.reduce((k, l) => k + l.line.length, 0),
    0,
  );
  if (size > MOST_TEXT) return refuse('fileTooLarge', { facts: { most: MOST_TEXT / 1_000_000 } });
  const own = [...new Set(items.map((i) => i.zone))].filter((zone) => zone.startsWith('~'));
  const zones = own.map((zone) => zoneByName(ctx.db, zone)).filter((zone): zone is FileZone => zone !== null);
  const text = writeCalendar(items.map(writtenFrom), calendar.name, zones);
  return ok({ name: calendarFileName(calendar.name, ctx.now), text });
}

/** A stored item as it is written: all that is kept of it. */
export function writtenFrom(item: StoredItem): WrittenItem {
  const text = (ms: number) => (item.allDay ? dateText(ms) : wallText(toWall(item.zone, ms)));
  const start = item.wall === null ? text(item.start) : wallText(item.wall);
  return {
    ...item,
    start,
    end: item.endZone === null || item.allDay ? text(item.end) : wallText(toWall(item.endZone, item.end)),
    length: seriesOf(item, []).length,
    touched: item.version > 1,
  };
}
