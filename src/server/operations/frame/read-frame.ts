import type { FrameAnswer, Principal } from '@/contract/frame.ts';
import { readWorkHours } from '@/contract/people/hours.ts';
import { instantText } from '@/core/time/index.ts';
import { type Calendar, calendarById, mainCalendarOf } from '../../repositories/calendars.ts';
import { calendarsNaming, grantsOn } from '../../repositories/grants.ts';
import { unreadNotices } from '../../repositories/notices.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { settings } from '../../settings.ts';
import { type Context, decideOn, operatorHere, storedRules } from '../deciding/index.ts';
import { unreadFor, waitingFor } from '../messages/index.ts';
import { asksWaiting, findingsCounted, findingsUnread, wishesWaiting } from '../sharing/index.ts';
import { suggestionsWaiting } from '../suggestions/index.ts';

/** What the frame shows: who is signed in, and the people whose calendars they run, their own last. */
export function readFrame(ctx: Context): FrameAnswer {
  const me = ctx.viewer;
  const principals: Principal[] = [];
  let unread = 0;
  for (const id of calendarsNaming(ctx.db, me.id)) {
    const calendar = calendarById(ctx.db, id);
    if (!calendar?.main || calendar.ownerId === me.id) continue;
    const decided = decideOn(ctx, calendar);
    const { rights } = decided.decision;
    if (!rights.add && rights.change === 'none') continue;
    const owner = personById(ctx.db, calendar.ownerId);
    if (!owner) continue;
    principals.push(principalOf(owner, calendar.key, false, rights.shares, waitingFor(ctx, decided)));
    if (rights.copies) unread += unreadFor(ctx, owner, decided);
  }
  principals.sort((a, b) => a.name.localeCompare(b.name));
  const own = mainCalendarOf(ctx.db, me.id);
  if (own) {
    const decided = decideOn(ctx, own);
    principals.push(principalOf(me, own.key, true, true, waitingFor(ctx, decided)));
    if (own.ownerTold || !isCopied(ctx, own)) unread += unreadFor(ctx, me, decided);
  }
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
      dateOrder: me.dateOrder,
      language: me.language,
      administrator: me.administrator,
      inside: me.inside,
    },
    principals,
    demo: settings().demo,
    warnOutside: storedRules(ctx.db).warnOutside,
    unread:
      unread +
      unreadNotices(ctx.db, me.id) +
      wishesWaiting(ctx) +
      asksWaiting(ctx) +
      suggestionsWaiting(ctx) +
      findingsUnread(ctx),
    findings: findingsCounted(ctx),
    hands: operatorHere(ctx),
    now: instantText(ctx.now),
  };
}

function principalOf(person: Person, calendar: string, own: boolean, share: boolean, needs: number): Principal {
  const { handle, name, role, colour } = person;
  return { handle, name, role, colour, own, calendar, share, needs };
}

/** Whether anybody but its owner gets copies of a calendar's meeting messages now. */
const isCopied = (ctx: Context, calendar: Calendar): boolean =>
  grantsOn(ctx.db, calendar.id).some(
    (g) => g.rights.copies && (g.starts === null || g.starts <= ctx.now) && (g.ends === null || g.ends > ctx.now),
  );
