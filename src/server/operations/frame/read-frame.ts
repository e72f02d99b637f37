import type { FrameAnswer, Principal } from '@/contract/frame.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import { instantText } from '@/core/time/index.ts';
import { type Calendar, calendarsOf } from '../../repositories/calendars.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { unreadNotices } from '../../repositories/notices.ts';
import type { Person } from '../../repositories/people.ts';
import { countGivenToAnswer } from '../../repositories/tasks.ts';
import { settings } from '../../settings.ts';
import { type Context, operatorHere, principalsOf } from '../deciding/index.ts';
import { seenOf } from '../items/index.ts';
import { seesListsOf } from '../lists/index.ts';
import { unreadFor } from '../messages/index.ts';
import { accessRequestsWaiting, findingsCounted, findingsUnread, wishesWaiting } from '../sharing/index.ts';
import { suggestionsWaiting } from '../suggestions/index.ts';

/** What the frame shows: who is signed in, and the people whose calendars they run, their own last. */
export function readFrame(ctx: Context): FrameAnswer {
  const me = ctx.viewer;
  let unread = 0;
  const principals = principalsOf(ctx).map(({ person, decided, own }): Principal => {
    const { calendar, decision } = decided;
    const told = own ? calendar.ownerTold || !isCopied(ctx, calendar) : decision.rights.copies;
    if (told) unread += unreadFor(ctx, person, decided);
    return {
      ...principalOf(person, calendar.key, own, own || decision.rights.shares),
      further:
        seenOf(
          ctx,
          calendarsOf(ctx.db, person.id).filter((c) => c.id !== calendar.id),
        ).length > 0,
      tasks: own || seesListsOf(ctx, 'tasks', person.id),
      contacts: own || seesListsOf(ctx, 'contacts', person.id),
    };
  });
  return {
    me: {
      handle: me.handle,
      name: me.name,
      address: me.address,
      zone: me.zone,
      hours: me.hours,
      weekFirst: me.weekFirst,
      workHours: readWorkHours(me.workHours),
      phone: me.phone,
      secondZone: me.secondZone,
      colour: me.colour,
      dateOrder: me.dateOrder,
      language: me.language,
      administrator: me.administrator,
      inside: me.inside,
    },
    principals,
    demo: settings().demo,
    unread:
      unread +
      unreadNotices(ctx.db, me.id) +
      wishesWaiting(ctx) +
      accessRequestsWaiting(ctx) +
      suggestionsWaiting(ctx) +
      findingsUnread(ctx),
    tasksAsked: countGivenToAnswer(ctx.db, me.id),
    findings: findingsCounted(ctx),
    hands: operatorHere(ctx),
    now: instantText(ctx.now),
  };
}

function principalOf(
  person: Person,
  calendar: string,
  own: boolean,
  share: boolean,
): Omit<Principal, 'tasks' | 'contacts' | 'further'> {
  const { handle, name, role, colour } = person;
  return { handle, name, role, colour, own, calendar, share };
}

/** Whether anybody but its owner gets copies of a calendar's meeting messages now. */
const isCopied = (ctx: Context, calendar: Calendar): boolean =>
  grantsOn(ctx.db, calendar.id).some(
    (g) => g.rights.copies && (g.starts === null || g.starts <= ctx.now) && (g.ends === null || g.ends > ctx.now),
  );
