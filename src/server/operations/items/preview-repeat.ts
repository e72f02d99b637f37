import type { z } from 'zod';
import type { repeatAnswer, repeatBody } from '@/contract/items/items.ts';
import { expand } from '@/core/recurrence/index.ts';
import { dateText, toWall, wallText } from '@/core/time/index.ts';
import { ok, type Result } from '../../result.ts';
import { isRefusal, seriesOf } from '../deciding/index.ts';
import { readRepeat, readWhen } from './when.ts';

const SHOWN = 6;
const FAR = 12 * 366 * 86_400_000;

/** The next dates of a repeat as it would be saved, and those that a clock change leaves out on its own clock. Nothing is read of anybody. */
export function previewRepeat(body: z.infer<typeof repeatBody>): Result<z.infer<typeof repeatAnswer>> {
  const when = readWhen(body.when);
  if (isRefusal(when)) return when;
  const startWall = when.allDay ? when.start : toWall(when.zone, when.start);
  const read = readRepeat(body.rule, startWall, when.allDay ? null : when.zone);
  if (isRefusal(read)) return read;
  const item = { ...when, wall: null, days: 0, rule: read.rule, added: [], left: [] };
  const { occurrences, cut } = expand(seriesOf(item, []), when.start, when.start + FAR, SHOWN);
  const text = (at: number) => (when.allDay ? dateText(at) : wallText(toWall(when.zone, at)).slice(0, 16));
  const dates = occurrences.map((o) => text(o.start));
  // On a clock that never changes nothing is left out: what is there and not here is.
  const flat = { ...item, start: startWall, end: startWall + (when.end - when.start), zone: 'UTC' };
  const all = expand(seriesOf(flat, []), startWall, startWall + FAR, SHOWN + 2).occurrences.map((o) =>
    when.allDay ? dateText(o.start) : wallText(o.start).slice(0, 16),
  );
  const last = dates.at(-1) ?? '';
  const skipped = when.allDay ? [] : all.filter((one) => one <= last && !dates.includes(one));
  return ok({ dates, skipped, ends: !cut });
}
