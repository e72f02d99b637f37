import { itemsByUid } from '../../repositories/items.ts';
import { nameForPrograms } from '../../repositories/program-names.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { must, ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, isRefusal } from '../deciding/index.ts';
import { moveMeeting } from '../meetings/index.ts';
import { checkName } from './checked.ts';
import { textOf } from './object-text.ts';
import { type Programs, programsOn, readObject } from './objects.ts';
import { type Seen, stillSo } from './seen.ts';
import { deleteObject, putObject } from './write-object.ts';

/** One object of a calendar, by what it is called there. */
interface ObjectPlace {
  readonly key: string;
  readonly name: string;
}

export interface ObjectMove {
  readonly from: ObjectPlace;
  readonly to: ObjectPlace;
  /** The object stays where it is too. */
  readonly copy: boolean;
  /** What is there already by that name goes. */
  readonly overwrite: boolean;
  readonly seen: Seen;
}

const ANY: Seen = { match: null, noneMatch: null };

/**
 * Moves or copies one object of a calendar (RFC 4918 9.8, 9.9), with the rights that a removal there and an addition here need. An item moves as the
 * window moves it, with its people and all its occurrences. A meeting isn't copied: its copy would ask everybody again.
 */
export function moveObject(ctx: Context, move: ObjectMove): Result<{ added: boolean }> {
  const { from, to, copy, overwrite, seen } = move;
  return ctx.db.write(() => {
    const [home, target] = [programsOn(ctx, from.key), programsOn(ctx, to.key)];
    if (isRefusal(home)) return home;
    if (isRefusal(target)) return target;
    const source = readObject(ctx, from.key, from.name);
    if (!source.ok) return source;
    if (!stillSo(seen, source.value.tag)) return refuse('seenOtherwise');
    if (from.key === to.key && from.name === to.name) return refuse('seenOtherwise');
    checkName(to.name);
    const standing = readObject(ctx, to.key, to.name);
    if (standing.ok && !overwrite) return refuse('seenOtherwise');
    if (standing.ok) must(deleteObject(ctx, to.key, to.name, ANY));
    // What is only seen is its owner's to give, and is no object that can be taken from its series.
    const item = home.find(from.name)?.item;
    if (!item || source.value.text === null) return mayNot(home, copy);
    if (copy) must(copied(ctx, home, to, source.value.text));
    else must(moved(ctx, item, home, target, to));
    return ok({ added: !standing.ok });
  });
}

const mayNot = ({ ctx, decided }: Programs, copy: boolean) =>
  refuse(copy ? 'mayNotChange' : 'mayNotRemove', {
    facts: { name: new Directory(ctx.db).name(decided.calendar.ownerId) },
  });

function copied(ctx: Context, home: Programs, to: ObjectPlace, text: string): Result<unknown> {
  const read = textOf(text, home.decided.calendar.zone);
  if (isRefusal(read)) return read;
  if ([read.main, ...read.apart].some((one) => one.organiser !== null || one.attendees.length > 0))
    return refuse('alreadyThere');
  return putObject(ctx, to.key, to.name, text, { match: null, noneMatch: '*' });
}

function moved(ctx: Context, item: StoredItem, home: Programs, target: Programs, to: ObjectPlace): Result<unknown> {
  const there = target.decided.calendar;
  if (there.id !== home.decided.calendar.id) {
    if (itemsByUid(ctx.db, there.id, item.uid).length > 0) return refuse('alreadyThere');
    const gone = moveMeeting(ctx, item.key, { to: to.key, version: item.version });
    if (!gone.ok) return gone;
  }
  nameForPrograms(ctx.db, ctx.viewer.id, there.id, to.name, item.id);
  return ok({ done: true });
}
