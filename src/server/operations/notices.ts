import type { NoticesAnswer } from '@/contract/access.ts';
import { presetOf } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { calendarById, mainCalendarOf } from '../repositories/calendars.ts';
import { calendarsNaming, grantsOn, type StoredGrant } from '../repositories/grants.ts';
import { groupsOf } from '../repositories/groups.ts';
import { markNoticesRead, noticesTo } from '../repositories/notices.ts';
import { ok, type Result } from '../result.ts';
import { audienceOf } from './audience.ts';
import type { Context } from './context.ts';
import { decideOn } from './deciding.ts';
import { Directory } from './directory.ts';

const MOST = 200;
/** How long before its end a grant is reminded of. */
const SOON = 14 * 86_400_000;

/**
 * What one was told of one's access, the newest first, and the dated grants that soon end: those one holds, and those on one's
 * own calendar. A notice says what its grant gives as long as that grant is the one in force, and no more than that.
 */
export function listNotices(ctx: Context): Result<NoticesAnswer> {
  const directory = new Directory(ctx.db);
  const ownerOf = (ownerId: number) => {
    const owner = directory.person(ownerId);
    return { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 };
  };
  const groups = new Set(groupsOf(ctx.db, ctx.viewer.id));
  const namesMe = ({ audience }: StoredGrant): boolean =>
    audience.kind === 'person'
      ? audience.personId === ctx.viewer.id
      : audience.kind === 'group' && groups.has(audience.groupId);
  const notices = noticesTo(ctx.db, ctx.viewer.id, MOST).flatMap((notice) => {
    const calendar = calendarById(ctx.db, notice.calendarId);
    if (!calendar) return [];
    const grant = grantsOn(ctx.db, calendar.id).find((g) => g.id === notice.grantId && namesMe(g)) ?? null;
    return [
      {
        key: notice.key,
        at: instantText(notice.at),
        kind: notice.kind,
        by: directory.name(notice.byId),
        owner: ownerOf(calendar.ownerId),
        rights: grant?.rights ?? null,
        until: grant?.ends ? instantText(grant.ends) : null,
        note: notice.note,
        unread: notice.readAt === null,
        open: decideOn(ctx, calendar).decision.rights.sight !== 'nothing',
      },
    ];
  });
  const soon = (g: StoredGrant): boolean => g.ends !== null && g.ends > ctx.now && g.ends - ctx.now < SOON;
  const own = mainCalendarOf(ctx.db, ctx.viewer.id);
  const calendars = new Set([...calendarsNaming(ctx.db, ctx.viewer.id), ...(own ? [own.id] : [])]);
  const ending = [...calendars].flatMap((id) => {
    const calendar = calendarById(ctx.db, id);
    if (!calendar) return [];
    const mine = calendar.ownerId === ctx.viewer.id;
    return grantsOn(ctx.db, id)
      .filter((g) => soon(g) && (mine || namesMe(g)))
      .map((g) => ({
        key: g.key,
        owner: ownerOf(calendar.ownerId),
        who: mine ? (audienceOf(ctx, g)?.name ?? '') : ctx.viewer.name,
        held: !mine,
        until: instantText(g.ends as number),
        preset: presetOf(g.rights),
      }));
  });
  return ok({ notices, ending });
}

/** Marks all one was told as read. */
export function readNotices(ctx: Context): Result<{ done: true }> {
  ctx.db.write(() => markNoticesRead(ctx.db, ctx.viewer.id, ctx.now));
  return ok({ done: true });
}
