import { itemsByUid } from '../../repositories/items.ts';
import { renameForPrograms } from '../../repositories/program-names.ts';
import { must, ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, isRefusal } from '../deciding/index.ts';
import { moveMeeting } from '../meetings/index.ts';
import { listProgramsOn } from './lists.ts';
import { textOf } from './object-text.ts';
import { programsOn, readObject } from './objects.ts';
import { type Seen, stillSo } from './seen.ts';
import { deleteObject, putObject } from './write-object.ts';

/** One thing of a calendar, a list or an address book, by what it is called there. */
interface ObjectPlace {
  readonly key: string;
  readonly name: string;
}

export interface ObjectMove {
  readonly from: ObjectPlace;
  readonly to: ObjectPlace;
  /** The thing stays where it is too. */
  readonly copy: boolean;
  /** What is there already by that name goes. */
  readonly overwrite: boolean;
  readonly seen: Seen;
}

const ANY: Seen = { match: null, noneMatch: null };

/**
 * Moves or copies one thing of what a person's programs have (RFC 4918 9.8, 9.9), with the rights that a removal there and an addition here need.
 * An item moves as the window moves it, with its people and all its happenings. What asks people is there once: it isn't copied.
 */
export function moveObject(ctx: Context, move: ObjectMove): Result<{ added: boolean }> {
  const { from, to, copy, overwrite, seen } = move;
  return ctx.db.write(() => {
    const source = readObject(ctx, from.key, from.name);
    if (!source.ok) return source;
    if (!stillSo(seen, source.value.tag)) return refuse('seenOtherwise');
    if (from.key === to.key && from.name === to.name) return refuse('seenOtherwise');
    const standing = readObject(ctx, to.key, to.name);
    if (standing.ok && !overwrite) return refuse('seenOtherwise');
    if (standing.ok) must(deleteObject(ctx, to.key, to.name, ANY));
    const listed = listProgramsOn(ctx, from.key) !== null || listProgramsOn(ctx, to.key) !== null;
    if (copy || listed) must(copied(ctx, move, source.value.text ?? '', source.value.mayChange, listed));
    else must(moved(ctx, move));
    return ok({ added: !standing.ok });
  });
}

function copied(
  ctx: Context,
  { from, to, copy }: ObjectMove,
  text: string,
  mayChange: boolean,
  listed: boolean,
): Result<unknown> {
  const home = programsOn(ctx, from.key);
  if (!listed) {
    if (isRefusal(home)) return home;
    const { calendar } = home.decided;
    // What is only seen is its owner's to give.
    if (!mayChange) return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
    const read = textOf(text, calendar.zone);
    if (isRefusal(read)) return read;
    if ([read.main, ...read.apart].some((one) => one.organiser !== null || one.attendees.length > 0))
      return refuse('alreadyThere');
  }
  const put = putObject(ctx, to.key, to.name, text, { match: null, noneMatch: '*' });
  return copy || !put.ok ? put : deleteObject(ctx, from.key, from.name, ANY);
}

function moved(ctx: Context, { from, to }: ObjectMove): Result<unknown> {
  const [home, target] = [programsOn(ctx, from.key), programsOn(ctx, to.key)];
  if (isRefusal(home)) return home;
  if (isRefusal(target)) return target;
  const item = home.find(from.name)?.item;
  const { calendar } = home.decided;
  // A happening as it is seen is no thing that can be called otherwise, or taken away from its series.
  if (!item) return refuse('mayNotRemove', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  const { calendar: there } = target.decided;
  if (there.id !== calendar.id) {
    if (itemsByUid(ctx.db, there.id, item.uid).length > 0) return refuse('alreadyThere');
    const gone = moveMeeting(ctx, item.key, { to: to.key, version: item.version });
    if (!gone.ok) return gone;
  }
  renameForPrograms(ctx.db, ctx.viewer.id, there.id, to.name, item.id);
  return ok({ done: true });
}
