import { createTranslator } from 'use-intl/core';
import type { Rights } from '@/core/access/index.ts';
import { LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { type Calendar, calendarByKey, calendarsOf, mainCalendarOf } from '../../repositories/calendars.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { listsOf, type SharedList } from '../../repositories/lists.ts';
import { allPeople, type Person, personByHandle, personById } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type Decided,
  type DecidedList,
  decideOnList,
  decideOnSeveral,
  findCalendar,
  isRefusal,
} from '../deciding/index.ts';
import { listLanes } from '../lanes/index.ts';
import { seesListsOf, sharedWith } from '../lists/index.ts';
import { type ProgramKind, programList } from './program-list.ts';
import { collectionTag } from './sync.ts';

/** A calendar as the programs of the viewer find it. */
export interface ProgramCalendar {
  readonly key: string;
  /** What it is called in a list of calendars: whose it is, and which of theirs. */
  readonly name: string;
  readonly description: string;
  readonly zone: string;
  readonly owner: { readonly handle: string; readonly name: string };
  readonly own: boolean;
  /** It carries its owner's name, or that of what stands there first. */
  readonly main: boolean;
  readonly rights: Rights;
  /** What stands in it: items, tasks, or contacts. */
  readonly holds: 'VEVENT' | 'VTODO' | 'VCARD';
  /** Another as soon as anything of it is; for its owner alone, since it changes with what others don't see. */
  readonly tag: string | null;
}

/** Calendars that a program finds by itself; any other that may be seen opens by its address. */
const MOST_LISTED = 100;

function wireOf(ctx: Context, { calendar, decision }: Pick<Decided, 'calendar' | 'decision'>): ProgramCalendar | null {
  const owner = personById(ctx.db, calendar.ownerId);
  if (!owner || decision.rights.sight === 'nothing') return null;
  const { key, zone, description, main } = calendar;
  return {
    key,
    name: main ? owner.name : decision.owner ? calendar.name : `${owner.name}, ${calendar.name}`,
    description,
    zone,
    owner: { handle: owner.handle, name: owner.name },
    own: decision.owner,
    main,
    rights: decision.rights,
    holds: 'VEVENT',
    tag: decision.owner ? collectionTag(ctx, calendar.id, decision) : null,
  };
}

/** A list as a program finds it; `null` where nothing of it is shown. */
function listOf(ctx: Context, { list, decision }: DecidedList<ProgramKind>): ProgramCalendar | null {
  const owner = personById(ctx.db, list.ownerId);
  if (!owner || decision.rights.sight === 'nothing') return null;
  const { language } = ctx.viewer;
  const t = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: list.kind });
  const name = list.first ? t('firstList') : list.name;
  return {
    key: list.key,
    name: decision.owner ? name : `${owner.name}, ${name}`,
    description: '',
    zone: owner.zone,
    owner: { handle: owner.handle, name: owner.name },
    own: decision.owner,
    main: list.first,
    rights: decision.rights,
    holds: list.kind === 'tasks' ? 'VTODO' : 'VCARD',
    tag: decision.owner ? collectionTag(ctx, list.id, decision) : null,
  };
}

/**
 * The calendars that a program of the viewer lists: their own, those they keep as lanes or run, and those that were given to them by name, as
 * far as they see anything of them. What everyone gets isn't listed: it would be the whole house.
 */
export function listProgramCalendars(ctx: Context): { calendars: ProgramCalendar[]; cut: boolean } {
  const own = calendarsOf(ctx.db, ctx.viewer.id).map((calendar) => calendar.id);
  const fromLanes = listLanes(ctx).lanes.flatMap((lane) => {
    const calendar = lane.calendar === null ? null : calendarByKey(ctx.db, lane.calendar);
    return calendar ? [calendar.id] : [];
  });
  const ids = [...new Set([...own, ...fromLanes, ...calendarsNaming(ctx.db, ctx.viewer.id)])];
  const decided = new Map(decideOnSeveral(ctx, ids).map((one) => [one.calendar.id, one]));
  const seen = ids.flatMap((id) => {
    const one = decided.get(id);
    return (one && wireOf(ctx, one)) ?? [];
  });
  const lists = (['tasks', 'contacts'] as const)
    .flatMap((kind): SharedList<ProgramKind>[] => [...listsOf(ctx.db, kind, ctx.viewer.id), ...sharedWith(ctx, kind)])
    .flatMap((list) => listOf(ctx, decideOnList(ctx, list)) ?? []);
  const all = [...seen, ...lists];
  return { calendars: all.slice(0, MOST_LISTED), cut: all.length > MOST_LISTED };
}

/** One calendar as a program finds it; hidden and missing answer alike. */
export function readProgramCalendar(ctx: Context, key: string): Result<ProgramCalendar> {
  const list = programList(ctx.db, key);
  const decided = list ? null : findCalendar(ctx, key);
  if (decided && isRefusal(decided)) return decided;
  const wire = list ? listOf(ctx, decideOnList(ctx, list)) : decided && wireOf(ctx, decided);
  return wire ? ok(wire) : refuse('notFound');
}

/** A person as a program's principal (RFC 3744 2): of others no more than whose calendars they are that one sees. */
export interface ProgramPerson {
  readonly handle: string;
  readonly name: string;
  /** Their address, and their own calendar's key: for themselves alone. */
  readonly address: string | null;
  readonly calendar: string | null;
}

const self = (ctx: Context, person: Person): ProgramPerson => ({
  handle: person.handle,
  name: person.name,
  address: person.address,
  calendar: mainCalendarOf(ctx.db, person.id)?.key ?? null,
});

/** The viewer, or the owner of a calendar they see; anybody else is answered like nobody. */
export function readProgramPerson(ctx: Context, handle: string): Result<ProgramPerson> {
  if (handle === ctx.viewer.handle) return ok(self(ctx, ctx.viewer));
  const person = personByHandle(ctx.db, handle);
  const calendars: Calendar[] = person ? calendarsOf(ctx.db, person.id) : [];
  const sees = decideOnSeveral(
    ctx,
    calendars.map((c) => c.id),
  ).some(({ decision }) => decision.rights.sight !== 'nothing');
  if (!person || !(sees || seesListsOf(ctx, 'tasks', person.id) || seesListsOf(ctx, 'contacts', person.id)))
    return refuse('notFound');
  return ok({ handle: person.handle, name: person.name, address: null, calendar: null });
}

/** One object that people are looked for by: a part of their name, or their whole address. */
interface Sought {
  readonly text: string;
  readonly name: boolean;
  readonly address: boolean;
}

/** People found in one search, and those looked at for it. */
const MOST_FOUND = 50;
const MOST_LOOKED_AT = 150;

/**
 * People by all or any of some words, each as `readProgramPerson` answers them: of nobody else anything is found, so that an address tells nothing of
 * whoever isn't seen. `cut` says that more may be there.
 */
export function findProgramPeople(
  ctx: Context,
  { words, all }: { readonly words: readonly Sought[]; readonly all: boolean },
): { people: ProgramPerson[]; cut: boolean } {
  const fits = (person: Person) => (one: Sought) => {
    const text = one.text.toLowerCase();
    if (text === '') return false;
    if (one.name) return person.name.toLowerCase().includes(text);
    return one.address && person.address === text.replace(/^mailto:/, '');
  };
  // Somebody from outside finds whom their calendars name, and nobody of the directory.
  const known = ctx.viewer.inside
    ? null
    : new Set(listProgramCalendars(ctx).calendars.map(({ owner }) => owner.handle));
  const found = allPeople(ctx.db).filter(
    (person) =>
      person.leftAt === null &&
      (known === null || known.has(person.handle)) &&
      (all ? words.every(fits(person)) : words.some(fits(person))),
  );
  const people: ProgramPerson[] = [];
  for (const person of found.slice(0, MOST_LOOKED_AT)) {
    const read = readProgramPerson(ctx, person.handle);
    if (!read.ok) continue;
    if (people.length === MOST_FOUND) return { people, cut: true };
    people.push(read.value);
  }
  return { people, cut: found.length > MOST_LOOKED_AT };
}
