import type { FrameAnswer, Principal } from '@/contract/frame.ts';
import { instantText } from '@/core/time/index.ts';
import { calendarById, mainCalendarOf } from '../../repositories/calendars.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { unreadNotices } from '../../repositories/notices.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { settings } from '../../settings.ts';
import { type Context, decideOn } from '../deciding/index.ts';
import { wishesWaiting } from '../sharing/index.ts';
import { suggestionsWaiting } from '../suggestions/index.ts';

/** What the frame shows: who is signed in, and the people whose calendars they run, their own last. */
export function readFrame(ctx: Context): FrameAnswer {
  const me = ctx.viewer;
  const principals: Principal[] = [];
  for (const id of calendarsNaming(ctx.db, me.id)) {
    const calendar = calendarById(ctx.db, id);
    if (!calendar?.main || calendar.ownerId === me.id) continue;
    const { rights } = decideOn(ctx, calendar).decision;
    if (!rights.add && rights.change === 'none') continue;
    const owner = personById(ctx.db, calendar.ownerId);
    if (owner) principals.push(principalOf(owner, calendar.key, false, rights.shares));
  }
  principals.sort((a, b) => a.name.localeCompare(b.name));
  const own = mainCalendarOf(ctx.db, me.id);
  if (own) principals.push(principalOf(me, own.key, true, true));
  return {
    me: {
      handle: me.handle,
      name: me.name,
      address: me.address,
      zone: me.zone,
      hours: me.hours,
      weekFirst: me.weekFirst,
      dateOrder: me.dateOrder,
      administrator: me.administrator,
      inside: me.inside,
    },
    principals,
    demo: settings().demo,
    unread: unreadNotices(ctx.db, me.id) + wishesWaiting(ctx) + suggestionsWaiting(ctx),
    now: instantText(ctx.now),
  };
}

function principalOf(person: Person, calendar: string, own: boolean, share: boolean): Principal {
  const { handle, name, role, colour } = person;
  return { handle, name, role, colour, own, calendar, share };
}
