import type { FoldersAnswer, FolderWire } from '@/contract/messages.ts';
import { newKey } from '../../ids.ts';
import { grantsOn, insertGrant } from '../../repositories/grants.ts';
import { type Folder, listById, listByKey, listsOf, setParent } from '../../repositories/lists.ts';
import { countShownIn } from '../../repositories/messages.ts';
import { countUnreadIn } from '../../repositories/unread-messages.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type DecidedList,
  type Directory,
  findList,
  isRefusal,
  listReaderFor,
  trailOn,
} from '../deciding/index.ts';
import { addList, changeList, listsSeen, listWire, removeList } from '../lists/index.ts';
import { foldersSeen } from './readers.ts';

const DONE = { done: true } as const;
/** Folders within folders. */
const DEEPEST = 8;

/** A folder as the viewer sees it, among those of its owner's that they see. Where the one it stands in isn't, it stands on top. */
function folderWire(
  ctx: Context,
  on: DecidedList<'folder'>,
  directory: Directory,
  seen: ReadonlyMap<number, Folder>,
): FolderWire {
  const { list, decision } = on;
  const reader = listReaderFor(ctx.viewer.id, decision);
  // Of what is being written all is still to be done; what was sent was read by who wrote it.
  const unread =
    list.role === 'drafts'
      ? countShownIn(ctx.db, list.id, reader, 100)
      : countUnreadIn(ctx.db, list.id, ctx.viewer.id, reader);
  return {
    ...listWire(on, directory),
    role: list.role,
    parent: (list.parentId !== null && seen.get(list.parentId)?.key) || null,
    inner: [...seen.values()].some(({ parentId }) => parentId === list.id),
    unread,
  };
}

/** The folders of a person that the viewer sees: those on top, those in one of them, or all. */
export function listFolders(
  ctx: Context,
  handle: string,
  query: { readonly in?: string | undefined; readonly all?: 'yes' | undefined },
): Result<FoldersAnswer> {
  const known = new Map<number, ReadonlyMap<number, Folder>>();
  const seenOf = (ownerId: number): ReadonlyMap<number, Folder> => {
    const all = known.get(ownerId) ?? new Map(foldersSeen(ctx, ownerId).map(({ list }) => [list.id, list]));
    known.set(ownerId, all);
    return all;
  };
  const answer = listsSeen(ctx, 'folder', handle, (on, directory) =>
    folderWire(ctx, on, directory, seenOf(on.list.ownerId)),
  );
  if (!answer.ok) return answer;
  const { owner, lists, others } = answer.value;
  const here = (list: FolderWire) => query.all === 'yes' || list.parent === (query.in ?? null);
  return ok({ owner, lists: lists.filter(here), others: others.filter(here) });
}

/** Begins a folder of one's own: in another it begins with what was given of that one, and is given by itself from then on. */
export function addFolder(
  ctx: Context,
  handle: string,
  { name, parent }: { name: string; parent: string | null },
): Result<{ list: string }> {
  return ctx.db.write(() => {
    const outer = parent === null ? null : findOwnFolder(ctx, parent);
    if (outer && isRefusal(outer)) return outer;
    if (outer && depthOf(ctx, outer) >= DEEPEST)
      return refuse('badInput', { fields: { parent: `deepest:${DEEPEST}` } });
    const made = addList(ctx, 'folder', handle, { name });
    if (!made.ok || !outer) return made;
    const folder = listByKey(ctx.db, 'folder', made.value.list);
    if (!folder) return refuse('notFound');
    setParent(ctx.db, folder.id, outer.id);
    for (const { id: _id, key: _key, ...grant } of grantsOn(ctx.db, outer.id)) {
      const { audience, rights, starts, ends } = grant;
      // A link is an address of its own, and stays with what it was made for.
      if (audience.kind === 'link' || (ends !== null && ends <= ctx.now)) continue;
      insertGrant(ctx.db, { ...grant, key: newKey(), collectionId: folder.id, recordedFrom: ctx.now });
      trailOn(ctx, folder, JSON.stringify(audience), 'access.given', null, { rights, starts, ends });
    }
    return made;
  });
}

const depthOf = (ctx: Context, folder: Folder): number => {
  let depth = 1;
  for (let at = folder; at.parentId !== null && depth < DEEPEST; depth++) {
    const outer = listById(ctx.db, 'folder', at.parentId);
    if (!outer) break;
    at = outer;
  }
  return depth;
};

/** Puts one's own folder into another of one's own, or on top: never into itself, nor into what stands in it. What was given of it stays. */
export function moveFolder(ctx: Context, key: string, parent: string | null): Result<typeof DONE> {
  return ctx.db.write(() => {
    const folder = findOwnFolder(ctx, key);
    if (isRefusal(folder)) return folder;
    if (folder.first) return refuse('mainStays');
    const outer = parent === null ? null : findOwnFolder(ctx, parent);
    if (outer && isRefusal(outer)) return outer;
    for (let at: Folder | null = outer, steps = 0; at; steps++) {
      if (at.id === folder.id || steps > DEEPEST) return refuse('badInput', { fields: { parent: 'folderInItself' } });
      at = at.parentId === null ? null : listById(ctx.db, 'folder', at.parentId);
    }
    if (outer && depthOf(ctx, outer) + heightOf(ctx, folder) > DEEPEST)
      return refuse('badInput', { fields: { parent: `deepest:${DEEPEST}` } });
    setParent(ctx.db, folder.id, outer?.id ?? null);
    trailOn(ctx, folder, folder.key, 'list.moved', null, { name: folder.name, into: outer?.name ?? '' });
    return ok(DONE);
  });
}

/** How many folders deep one is, itself counted. */
function heightOf(ctx: Context, folder: Folder): number {
  const all = listsOf(ctx.db, 'folder', folder.ownerId);
  const height = (id: number, left: number): number =>
    left === 0
      ? 0
      : 1 + Math.max(0, ...all.filter((one) => one.parentId === id).map((one) => height(one.id, left - 1)));
  return height(folder.id, DEEPEST + 1);
}

/** Names one's own folder otherwise. */
export function changeFolder(ctx: Context, key: string, body: { name: string }): Result<typeof DONE> {
  const folder = findOwnFolder(ctx, key);
  return isRefusal(folder) ? folder : changeList(ctx, key, body);
}

/** Removes one's own folder with what is in it; folders in it are removed first. */
export function removeFolder(ctx: Context, key: string): Result<typeof DONE> {
  return ctx.db.write(() => {
    const folder = findOwnFolder(ctx, key);
    if (isRefusal(folder)) return folder;
    if (listsOf(ctx.db, 'folder', folder.ownerId).some((one) => one.parentId === folder.id))
      return refuse('folderHoldsFolders');
    return removeList(ctx, key);
  });
}

function findOwnFolder(ctx: Context, key: string): Folder | Refusal {
  const found = findList(ctx, 'folder', key);
  if (isRefusal(found)) return found;
  return found.decision.owner ? found.list : refuse('ownerOnly', { facts: { name: '' } });
}
