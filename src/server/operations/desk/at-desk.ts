import type { DeskRowWire, DeskStep } from '@/contract/desk.ts';
import { ctx, org, value } from '../meetings/meeting-day.ts';
import { at } from '../small-organisation.ts';
import { readDesk, takeDeskStep } from './index.ts';

/* What tests of the Desk look at and do. */
/** Somebody’s Desk, over all they act for or one of them. */
export const desk = (handle: string, whom = 'all') => value(readDesk(ctx(handle), whom));
/** Its rows, of all kinds or of one. */
export const rows = (handle: string, kind?: string): DeskRowWire[] =>
  desk(handle).rows.filter((row) => kind === undefined || row.kind === kind);
/** Its row of a kind for somebody. Throws where there is none. */
export const row = (handle: string, kind: string, of = 'ines'): DeskRowWire => {
  const found = rows(handle, kind).find((one) => one.for === of);
  if (!found) throw new Error(`no ${kind} of ${of}: ${JSON.stringify(rows(handle).map((r) => [r.kind, r.for]))}`);
  return found;
};
export const kinds = (handle: string) => rows(handle).map((one) => one.kind);
export const take = (handle: string, key: string, step: DeskStep) => takeDeskStep(ctx(handle), key, step);
/** Something that takes the principal’s time on the fourth of March. */
export const busy = (title: string, from: number, hours: number, more: object = {}) =>
  org.add('ines', 'ines', { when: at('2027-03-04', from, hours), title, place: 'Ridge House', ...more });
