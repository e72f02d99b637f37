import type { NoticesAnswer } from '@/contract/notices.ts';
import { may, presetOf } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import { markAccessRequestsHeard } from '../../repositories/access-requests.ts';
import { calendarsNaming, grantById, grantsOn, type StoredGrant } from '../../repositories/grants.ts';
import { groupsOf } from '../../repositories/groups.ts';
import { markNoticesRead, noticesTo } from '../../repositories/notices.ts';
import { type Shareable, shareableById, shareablesOf, shortName } from '../../repositories/shareables.ts';
import { ok, type Result } from '../../result.ts';
import { audienceOf, type Context, Directory, decideOnShared } from '../deciding/index.ts';
import { findingsTold, readFindingsTold, wishesFor } from '../sharing/index.ts';

const MOST = 200;
const DAY = 86_400_000;
/** How long before its end a grant is reminded of, and how long after it as one that is over. */
const SOON = 14 * DAY;

/**
 * What one was told of one's access, and of others' to one's own calendars, the newest first; the dated grants that soon end or
 * are over: those one holds, and those on one's own calendars and on those one gives access to; the wishes for house rules. A notice says what its grant gives as
 * long as that grant is the one in force, and no more than that.
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
    const calendar = notice.collectionId === null ? null : shareableById(ctx.db, notice.collectionId);
    if (!calendar && notice.collectionId !== null) return [];
    const mine = calendar?.ownerId === ctx.viewer.id;
    const recorded = notice.grantId === null ? null : grantById(ctx.db, notice.grantId);
    const stands = recorded?.recordedUntil === null && (mine || namesMe(recorded)) ? recorded : null;
    const rights = calendar && decideOnShared(ctx, calendar).decision.rights;
    const sees = rights !== null && rights.sight !== 'nothing';
    return [
      {
        key: notice.key,
        at: instantText(notice.at),
        kind: notice.kind,
        by: directory.name(notice.byId),
        // The owner of that time: who has the calendar since isn't told to somebody who may see nothing of it.
        owner: ownerOf(notice.ownerId ?? ctx.viewer.id),
        further: calendar && (sees || mine) ? furtherOf(calendar) : null,
        // What a group was given reaches somebody outside as far as the house rules let it.
        rights: (ctx.viewer.inside ? stands?.rights : stands && rights) ?? null,
        until: stands?.ends ? instantText(stands.ends) : null,
        note: notice.note,
        unread: notice.readAt === null,
        open: sees,
        about: mine && recorded ? (audienceOf(ctx, recorded)?.name ?? '') : null,
      },
    ];
  });
  const near = (g: StoredGrant): boolean => g.ends !== null && Math.abs(g.ends - ctx.now) < SOON;
  const own = shareablesOf(ctx.db, ctx.viewer.id).map((c) => c.id);
  const ending = [...new Set([...own, ...calendarsNaming(ctx.db, ctx.viewer.id)])].flatMap((id) => {
    const calendar = shareableById(ctx.db, id);
    if (!calendar) return [];
    const mine = calendar.ownerId === ctx.viewer.id;
    const soon = grantsOn(ctx.db, id).filter(near);
    if (soon.length === 0) return [];
    const gives = mine || may(decideOnShared(ctx, calendar).decision).share;
    return soon
      .filter((g) => gives || namesMe(g))
      .map((g) => {
        const held = !mine && namesMe(g);
        const audience = gives && !held ? audienceOf(ctx, g) : null;
        return {
          key: g.key,
          further: furtherOf(calendar),
          audience: audience?.wire ?? null,
          over: (g.ends as number) <= ctx.now,
          owner: ownerOf(calendar.ownerId),
          who: held ? ctx.viewer.name : (audience?.name ?? ''),
          held,
          until: instantText(g.ends as number),
          preset: presetOf(g.rights),
        };
      })
      .filter((e) => !(e.over && e.held));
  });
  ending.sort((a, b) => a.until.localeCompare(b.until));
  return ok({ notices, ending, findings: findingsTold(ctx), wishes: wishesFor(ctx) });
}

/** What isn't a main calendar. */
const furtherOf = (one: Shareable) => (one.main ? null : { key: one.key, kind: one.kind, name: shortName(one) });

/** Marks all one was told as read. */
export function readNotices(ctx: Context): Result<{ done: true }> {
  ctx.db.write(() => {
    markNoticesRead(ctx.db, ctx.viewer.id, ctx.now);
    markAccessRequestsHeard(ctx.db, ctx.viewer.id);
    readFindingsTold(ctx);
  });
  return ok({ done: true });
}
