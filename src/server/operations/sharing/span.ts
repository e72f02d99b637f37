import type { GiveBody } from '@/contract/sharing/sharing.ts';
import { fromWallLenient, isZone, parseDate } from '@/core/time/index.ts';
import { type Refusal, refuse } from '../../result.ts';
import type { Context } from '../deciding/index.ts';

const DAY = 86_400_000;

/** The dates of a grant: days of the giver's own clock, the last one included. What had begun before stays as it began. */
export function readSpan(
  ctx: Context,
  span: GiveBody['span'] | null,
  current: { readonly starts: number | null } | null,
): { starts: number | null; ends: number | null } | Refusal {
  if (!span || (span.from === null && span.until === null)) return { starts: null, ends: null };
  const wrong = (fields: Record<string, string>) => refuse('badInput', { fields });
  if (!isZone(span.zone)) return wrong({ zone: 'zone' });
  const [from, until] = [span.from, span.until].map((date) => (date === null ? null : parseDate(date)));
  if (span.from !== null && from === null) return wrong({ from: 'date' });
  if (span.until !== null && until === null) return wrong({ until: 'date' });
  const starts = from === null || from === undefined ? null : fromWallLenient(span.zone, from);
  const ends = until === null || until === undefined ? null : fromWallLenient(span.zone, until + DAY);
  if (starts !== null && ends !== null && ends <= starts) return wrong({ until: 'endBeforeStart' });
  if (ends !== null && ends <= ctx.now) return wrong({ until: 'datePassed' });
  if (starts !== null && starts < ctx.now - DAY && starts !== current?.starts) return wrong({ from: 'datePassed' });
  return { starts, ends };
}
