import { readWorkHours } from '@/contract/people/hours.ts';
import { decide } from '@/core/access/index.ts';
import { type DeskPrincipal, type DeskRow, type DeskSaid, deskOf } from '@/core/desk/index.ts';
import { deskKey } from '../../ids.ts';
import { absenceAt } from '../../repositories/absences.ts';
import { type DeskWordRow, deskPreferenceOf, deskWords } from '../../repositories/desk.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { membersOf } from '../../repositories/groups.ts';
import { allJourneys } from '../../repositories/journeys.ts';
import type { Person } from '../../repositories/people.ts';
import {
  type ActedFor,
  actsBy,
  type Context,
  collectionOf,
  Directory,
  principalsOf,
  rulesOf,
  viewerOf,
} from '../deciding/index.ts';
import { type SeenItem, seenItems } from './item-facts.ts';
import { type KnownFacts, otherFacts, type Waiting, waitingOn } from './other-facts.ts';

/** Those whose rows the viewer may have: a token for one calendar has none of the others', their own among them. */
export const deskPrincipals = (ctx: Context): ActedFor[] =>
  principalsOf(ctx).filter(({ decided: { decision } }) => decision.owner || actsBy(decision));

/** A cause without whose it is, and what it is of, out of the name the rule gives it: `ines/answer:KEY`. */
export function causeOf(name: string): { readonly cause: string; readonly fact: string } {
  const cause = name.slice(name.indexOf('/') + 1);
  return { cause, fact: cause.slice(cause.indexOf(':') + 1) };
}

/** What somebody's rows are made of, with what each fact is outside the rule. */
export interface Gathered {
  readonly one: ActedFor;
  readonly acts: readonly Person[];
  readonly seen: ReadonlyMap<string, SeenItem>;
  readonly known: KnownFacts;
  readonly words: readonly DeskWordRow[];
  /** The table of journeys. */
  readonly travel: DeskPrincipal['facts']['travel'];
  readonly cut: boolean;
}

/** The rows of the viewer, in their order, over some of those they act for, each with whose it is. */
export interface DeskRead {
  readonly rows: readonly { readonly row: DeskRow; readonly gathered: Gathered }[];
  readonly later: number;
  readonly all: readonly Gathered[];
}

/**
 * What the viewer has to decide for some of those they act for: the rule of docs/desk.md over what they see and may do. Rows of which they may
 * take no step, and those of a series' later occurrences that stand for the same decision, are left out.
 */
export function deskFor(ctx: Context, whom: readonly ActedFor[]): DeskRead {
  const waiting = waitingOn(ctx, whom);
  const journeys = allJourneys(ctx.db);
  const directory = new Directory(ctx.db);
  const each = whom.map((one) => gather(ctx, one, waiting, journeys, directory));
  const { rows, later } = deskOf(
    ctx.viewer.handle,
    each.map(({ principal }) => principal),
    each.flatMap(({ said }) => said),
    ctx.now,
  );
  const all = each.map(({ gathered }) => gathered);
  const byHandle = new Map(all.map((gathered) => [gathered.one.person.handle, gathered]));
  return {
    rows: rows.flatMap((row) => {
      const gathered = byHandle.get(row.for);
      return gathered && isDecidable(gathered, row) ? [{ row, gathered }] : [];
    }),
    later,
    all,
  };
}

function gather(
  ctx: Context,
  one: ActedFor,
  waiting: Waiting,
  travel: DeskPrincipal['facts']['travel'],
  directory: Directory,
) {
  const { person } = one;
  const { items, cut } = seenItems(ctx, one, directory);
  const { lists, known, cut: cutOff } = otherFacts(ctx, one, items, waiting);
  const words = deskWords(ctx.db, person.id);
  const acts = whoActsFor(ctx, one, directory);
  const { shifts, first } = deskPreferenceOf(ctx.db, person.id);
  const handle = (id: number | null) => (id === null ? null : (directory.person(id)?.handle ?? null));
  const principal: DeskPrincipal = {
    who: person.handle,
    address: person.address,
    zone: person.zone,
    hours: readWorkHours(person.workHours),
    shifts,
    first,
    acts: acts.map((who) => who.handle),
    away: acts.filter(({ id }) => absenceAt(ctx.db, id, ctx.now) !== null).map((who) => who.handle),
    facts: { items: items.map(({ fact }) => fact), travel, ...lists },
  };
  const said = words.flatMap((word): DeskSaid[] => {
    const by = handle(word.byId);
    const { what } = word;
    if (by === null || what === 'done') return [];
    return [
      { key: word.cause, by, at: word.at, what, until: word.until, versions: word.versions, to: handle(word.toId) },
    ];
  });
  const gathered: Gathered = {
    one,
    acts,
    seen: new Map(items.map((item) => [item.fact.id, item])),
    known,
    words,
    travel,
    cut: cut || cutOff,
  };
  return { principal, said, gathered };
}

/** Everybody who acts for somebody now: those named, and those in groups that are given it. */
export function whoActsFor(
  ctx: Context,
  { decided: { calendar } }: Pick<ActedFor, 'decided'>,
  directory = new Directory(ctx.db),
): Person[] {
  const all = grantsOn(ctx.db, calendar.id);
  const grants = all.filter((g) => g.rights.add || g.rights.change !== 'none');
  if (grants.length === 0) return [];
  const collection = collectionOf(calendar, all);
  const house = rulesOf(ctx.db, calendar);
  const ids = new Set(
    grants.flatMap(({ audience }) =>
      audience.kind === 'person'
        ? [audience.personId]
        : audience.kind === 'group'
          ? membersOf(ctx.db, audience.groupId)
          : [],
    ),
  );
  return [...ids].flatMap((id) => {
    const person = id === calendar.ownerId ? null : directory.person(id);
    if (!person || person.leftAt !== null) return [];
    return actsBy(decide(collection, viewerOf(ctx.db, person), ctx.now, house)) ? [person] : [];
  });
}

/** Whether the viewer may take a step on a row; of a series the whole is decided at its next occurrence alone. */
function isDecidable({ seen }: Gathered, row: DeskRow): boolean {
  const items = row.items.flatMap((id) => seen.get(id) ?? []);
  switch (row.kind) {
    case 'refused':
    case 'proposal':
    case 'silent':
    case 'unset':
      return items.every(({ view, next }) => next && view.may?.change === true);
    case 'clash':
    case 'journey':
      return items.some(({ view }) => view.may?.change === true);
    default:
      return true;
  }
}

/** The row a key names, looked for with whose it is first; `undefined` where the viewer has no such row. */
export function findDeskRow(
  ctx: Context,
  whom: readonly ActedFor[],
  key: string,
  first: string,
): DeskRead['rows'][number] | undefined {
  const likeliest = [...whom].sort((a, b) => Number(b.person.handle === first) - Number(a.person.handle === first));
  for (const one of likeliest) {
    const found = deskFor(ctx, [one]).rows.find(({ row }) => deskKey(row.key) === key);
    if (found) return found;
    if (one.person.handle === first) return undefined;
  }
  return undefined;
}
