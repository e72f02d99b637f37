import { type Decision, may, mayRun } from '@/core/access/index.ts';
import { hub } from '../../live/hub.ts';
import { grantsSpeakingTo } from '../../repositories/grants.ts';
import {
  insertList,
  type ListKind,
  listById,
  listByKey,
  listsById,
  listsOf,
  nameList,
  removedList,
  type SharedList,
  setListRemoved,
} from '../../repositories/lists.ts';
import { personByHandle, personById } from '../../repositories/people.ts';
import { type Shareable, shortName } from '../../repositories/shareables.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type DecidedList,
  Directory,
  decideOnList,
  findList,
  isRefusal,
  tell,
  trailOn,
} from '../deciding/index.ts';

const DONE = { done: true } as const;
const THIRTY_DAYS = 30 * 86_400_000;
/** Lists of one kind of one person, and lists of others that are shown. */
const MOST_LISTS = 50;
const MOST_OTHERS = 500;

/** Files hold all there is: they are for whose list it is, and whoever arranges all of it and is let into what is private. */
export const holdsAll = (decision: Decision): boolean =>
  decision.owner || (mayRun(decision).arrange && mayRun(decision).seePrivate);

/** A list as the viewer sees it. */
export function listWire({ list, decision }: DecidedList<ListKind>, directory: Directory) {
  const owner = directory.person(list.ownerId);
  return {
    key: list.key,
    name: shortName(list as Shareable),
    owner: { handle: owner?.handle ?? '', name: owner?.name ?? '', colour: owner?.colour ?? 0 },
    own: decision.owner,
    rights: decision.rights,
    may: {
      add: decision.rights.add,
      share: may(decision).share,
      rename: decision.owner && !list.first,
      remove: decision.owner && !list.first,
      files: holdsAll(decision),
    },
  };
}

const seen = <K extends ListKind>(ctx: Context, lists: readonly SharedList<K>[]): DecidedList<K>[] =>
  lists.map((list) => decideOnList(ctx, list)).filter(({ decision }) => decision.rights.sight !== 'nothing');

/** Somebody's lists of a kind that the viewer sees; with one's own those of others that one sees. Nobody, and nothing to see, are answered alike. */
export function listsSeen<K extends ListKind, W extends ReturnType<typeof listWire>>(
  ctx: Context,
  kind: K,
  handle: string,
  wire: (on: DecidedList<K>, directory: Directory) => W,
): Result<{ owner: { handle: string; name: string }; lists: W[]; others: W[] }> {
  const owner = personByHandle(ctx.db, handle);
  if (!owner) return refuse('notFound');
  const own = owner.id === ctx.viewer.id;
  const lists = seen(ctx, listsOf(ctx.db, kind, owner.id));
  if (!own && lists.length === 0) return refuse('notFound');
  const directory = new Directory(ctx.db);
  return ok({
    owner: { handle: owner.handle, name: owner.name },
    lists: lists.map((on) => wire(on, directory)),
    others: (own ? seen(ctx, sharedWith(ctx, kind).slice(0, MOST_OTHERS)) : [])
      .map((on) => wire(on, directory))
      .sort((a, b) => a.owner.name.localeCompare(b.owner.name) || a.name.localeCompare(b.name)),
  });
}

/** Lists of others that a grant speaks to the viewer about, in no order. */
export const sharedWith = <K extends ListKind>(ctx: Context, kind: K): SharedList<K>[] =>
  listsById(ctx.db, kind, [...grantsSpeakingTo(ctx.db, ctx.viewer.id).keys()]).filter(
    (list) => list.ownerId !== ctx.viewer.id,
  );

/** Whether somebody has a list of a kind of which the viewer sees anything. */
export const seesListsOf = (ctx: Context, kind: ListKind, personId: number): boolean =>
  listsOf(ctx.db, kind, personId).some((list) => decideOnList(ctx, list).decision.rights.sight !== 'nothing');

/** One's own list by its key. Of another's one gets what one's sight of it allows: that it isn't one's own, or nothing. */
function findOwn(ctx: Context, key: string): SharedList | Refusal {
  const found = findList<ListKind>(ctx, null, key);
  if (isRefusal(found)) return found;
  if (found.decision.owner) return found.list;
  return refuse('ownerOnly', { facts: { name: new Directory(ctx.db).name(found.list.ownerId) } });
}

const taken = (ctx: Context, kind: ListKind, name: string, but: number | null): boolean =>
  listsOf(ctx.db, kind, ctx.viewer.id).some(
    (list) => list.id !== but && list.name.toLowerCase() === name.trim().toLowerCase(),
  );

/** Tells the open windows of those who see something of a list that it is another now, or gone. */
function tellSeers(ctx: Context, list: SharedList): void {
  const seers = hub()
    .listeners()
    .filter((listener) => {
      const viewer = typeof listener === 'number' ? personById(ctx.db, listener) : null;
      return viewer !== null && decideOnList({ ...ctx, viewer }, list).decision.rights.sight !== 'nothing';
    });
  tell(ctx.db, seers, { kind: list.kind, list: list.key });
}

/** Begins a further list of one's own, which nobody else sees until it is given. */
export function addList(
  ctx: Context,
  kind: ListKind,
  handle: string,
  body: { name: string },
): Result<{ list: string }> {
  return ctx.db.write(() => {
    if (personByHandle(ctx.db, handle)?.id !== ctx.viewer.id || !ctx.viewer.inside || ctx.token?.only != null)
      return refuse('notFound');
    if (taken(ctx, kind, body.name, null)) return refuse('alreadyThere', { fields: { name: 'listTaken' } });
    if (listsOf(ctx.db, kind, ctx.viewer.id).length >= MOST_LISTS)
      return refuse('badInput', { fields: { name: `listsMost:${MOST_LISTS}` } });
    const list = listById(ctx.db, kind, insertList(ctx.db, kind, ctx.viewer.id, body.name));
    if (!list) return refuse('notFound');
    trailOn(ctx, list, list.key, 'list.begun', null, body);
    tellSeers(ctx, list);
    return ok({ list: list.key });
  });
}

/** Names one's own further list otherwise. */
export function changeList(ctx: Context, key: string, body: { name: string }): Result<typeof DONE> {
  return ctx.db.write(() => {
    const list = findOwn(ctx, key);
    if ('ok' in list) return list;
    if (list.first) return refuse('mainStays');
    if (taken(ctx, list.kind, body.name, list.id)) return refuse('alreadyThere', { fields: { name: 'listTaken' } });
    nameList(ctx.db, list.id, body.name);
    trailOn(ctx, list, list.key, 'list.changed', { name: list.name }, body);
    tellSeers(ctx, list);
    return ok(DONE);
  });
}

/** Takes one's own further list away, with all that is in it. For thirty days it can be brought back. */
export function removeList(ctx: Context, key: string): Result<typeof DONE> {
  return ctx.db.write(() => {
    const list = findOwn(ctx, key);
    if ('ok' in list) return list;
    if (list.first) return refuse('mainStays');
    tellSeers(ctx, list);
    setListRemoved(ctx.db, list.id, ctx.now);
    trailOn(ctx, list, list.key, 'list.removed', { name: list.name }, null);
    return ok(DONE);
  });
}

/** Brings back one's own list as it was, with what others were given of it. */
export function bringListBack(ctx: Context, key: string): Result<typeof DONE> {
  return ctx.db.write(() => {
    const gone = removedList(ctx.db, key);
    if (!gone || gone.ownerId !== ctx.viewer.id || gone.removedAt < ctx.now - THIRTY_DAYS || ctx.token?.only != null)
      return refuse('notFound');
    setListRemoved(ctx.db, gone.id, null);
    const list = listByKey(ctx.db, null, key);
    if (!list) return refuse('notFound');
    trailOn(ctx, list, list.key, 'list.broughtBack', null, { name: list.name });
    tellSeers(ctx, list);
    return ok(DONE);
  });
}
