import { calendarById, mainCalendarOf } from '../../../repositories/calendars.ts';
import { calendarsNaming } from '../../../repositories/grants.ts';
import { type Person, personById } from '../../../repositories/people.ts';
import type { Context } from '../context/context.ts';
import { type Decided, decideOn } from './deciding.ts';

/** Somebody the viewer acts for, or they themselves, with what they may do on that one's main calendar. */
export interface ActedFor {
  readonly person: Person;
  readonly decided: Decided;
  readonly own: boolean;
}

/** Whether rights make somebody one who acts: they add, or change what is there. */
export const actsBy = ({ rights }: Decided['decision']): boolean => rights.add || rights.change !== 'none';

/** Those whose calendars the viewer runs, by name, and they themselves last: the order of the band. */
export function principalsOf(ctx: Context): ActedFor[] {
  const me = ctx.viewer;
  const others = calendarsNaming(ctx.db, me.id).flatMap((id): ActedFor[] => {
    const calendar = calendarById(ctx.db, id);
    if (!calendar?.main || calendar.ownerId === me.id) return [];
    const decided = decideOn(ctx, calendar);
    const person = actsBy(decided.decision) ? personById(ctx.db, calendar.ownerId) : null;
    return person ? [{ person, decided, own: false }] : [];
  });
  others.sort((a, b) => a.person.name.localeCompare(b.person.name));
  const own = mainCalendarOf(ctx.db, me.id);
  return own ? [...others, { person: me, decided: decideOn(ctx, own), own: true }] : others;
}
