import type { Preferences } from '@/contract/frame.ts';
import type { NewPerson } from '@/contract/people/people.ts';
import { may, NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { isZone } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { hub } from '../../live/hub.ts';
import { calendarsOf, insertCalendar, mainCalendarOf, setCalendarGroup } from '../../repositories/calendars.ts';
import { isCollectionKey } from '../../repositories/collections.ts';
import { domains } from '../../repositories/domains.ts';
import { insertGrant, type StoredGrant } from '../../repositories/grants.ts';
import { groupByKey, membersOf } from '../../repositories/groups.ts';
import { FOLDER_ROLES, firstListOf, folderOf } from '../../repositories/lists.ts';
import {
  countPeople,
  insertPerson,
  type Person,
  personByAddress,
  personByHandle,
  personById,
  phonesAt,
  savePerson,
  savePreferences,
  saveResource,
} from '../../repositories/people.ts';
import { recordTrail } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  AHEAD,
  BACK,
  type Context,
  decideOn,
  domainOf,
  operatorOf,
  storedRules,
  tell,
  trailOwn,
} from '../deciding/index.ts';
import { contactFinder, numberOf } from '../lists/index.ts';
import { freeHandle, holdsUntil, tellOfCalendar } from '../sharing/index.ts';

/**
 * The calendar a board shows: one of `handle`'s, their main one where none is named by key, if the viewer may see it.
 * Hidden and missing answer alike.
 */
export function findBoard(
  ctx: Context,
  handle: string,
  key?: string,
): { calendar: string; name: string; handle: string } | null {
  const person = personByHandle(ctx.db, handle);
  const calendar = person && calendarsOf(ctx.db, person.id).find((c) => (key === undefined ? c.main : c.key === key));
  if (!person || !calendar) return null;
  if (decideOn(ctx, calendar).decision.rights.sight === 'nothing') return null;
  return { calendar: calendar.key, name: person.name, handle: person.handle };
}

/**
 * The numbers of people by their addresses: of the directory, and of contacts of whom one sees all. Who comes from outside has no directory.
 */
export function readPhones(
  ctx: Context,
  addresses: readonly string[],
): Result<{ phones: { address: string; phone: string }[] }> {
  const found = new Map(ctx.viewer.inside ? phonesAt(ctx.db, addresses) : []);
  const contactAt = contactFinder(ctx);
  for (const address of addresses) {
    const contact = found.has(address) ? null : contactAt(address);
    const phone = contact && numberOf(contact);
    if (phone) found.set(address, phone);
  }
  return ok({ phones: [...found].map(([address, phone]) => ({ address, phone })) });
}

/** Saves how a person wants times shown. */
export function changePreferences(ctx: Context, input: Preferences): Result<{ done: true }> {
  if (!isZone(input.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  if (input.secondZone && !isZone(input.secondZone)) return refuse('badInput', { fields: { secondZone: 'zone' } });
  const { phone: phoneBefore, zone, hours, weekFirst, dateOrder, language, colour } = ctx.viewer;
  // What isn't sent stays as it is.
  const workHours = input.workHours === undefined ? ctx.viewer.workHours : JSON.stringify(input.workHours);
  const secondZone = input.secondZone === undefined ? ctx.viewer.secondZone : input.secondZone;
  const phone = input.phone ?? ctx.viewer.phone;
  ctx.db.write(() => {
    savePreferences(ctx.db, ctx.viewer.id, {
      ...input,
      phone,
      workHours: workHours === 'null' ? null : workHours,
      secondZone,
      language: input.language ?? language,
      colour: input.colour ?? colour,
    });
    trailOwn(
      ctx,
      ctx.viewer.key,
      'preferences.changed',
      { phone: phoneBefore, zone, hours, weekFirst, dateOrder, language, colour },
      input,
    );
  });
  return ok({ done: true });
}

/** Whether a person may be added: the reason and the field where not. Checked before an account is made for them. */
export function checkNewPerson(db: Connection, input: Pick<NewPerson, 'zone' | 'address'>): Result<null> {
  if (!isZone(input.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  if (personByAddress(db, input.address)?.inside)
    return refuse('alreadyThere', { fields: { address: 'addressTaken' } });
  const ours = domains(db);
  if (ours.length > 0 && !ours.includes(domainOf(input.address)))
    return refuse('badInput', { fields: { address: 'addressOutside' } });
  return ok(null);
}

type Added = Omit<NewPerson, 'password' | 'kind' | 'phone'> & {
  readonly phone?: string;
  /** `null` for a room or a thing, which nobody signs in as. */
  readonly account: string | null;
  readonly resource?: Person['resource'];
  readonly size?: number | null;
  readonly kind?: Person['kind'];
  readonly site?: string;
  readonly colour?: number;
  readonly handle?: string;
  readonly administrator?: boolean;
};

/**
 * Adds someone to the directory with a calendar of their own, on which everyone inside gets what the house rules start new
 * calendars with, and nobody else more. Somebody known from outside comes in with what they were given.
 */
export function addPerson(db: Connection, at: number, by: Person | null, input: Added): Person {
  return db.write(() => {
    const known = personByAddress(db, input.address);
    const fields = {
      account: input.account,
      name: input.name,
      role: input.role,
      site: input.site ?? '',
      phone: input.phone ?? '',
      zone: input.zone,
      administrator: input.administrator ?? false,
      inside: true,
      kind: input.kind ?? 'person',
    } as const;
    const id = known
      ? known.id
      : insertPerson(
          db,
          {
            ...fields,
            key: newKey(),
            handle: freeHandle(db, input.handle ?? input.address.split('@')[0] ?? 'person'),
            address: input.address,
            colour: input.colour ?? countPeople(db) % 6,
            hours: '24',
            weekFirst: 1,
          },
          at,
        );
    if (known) savePerson(db, id, { ...fields, leftAt: null });
    saveResource(db, id, input.resource ?? null, input.resource === 'room' ? (input.size ?? null) : null);
    const person = personById(db, id) as Person;
    const giver = by ?? person;
    const calendarId = makeCalendar(db, at, { owner: person, by: giver, name: person.name, main: true });
    if (!person.resource) {
      for (const kind of ['tasks', 'contacts'] as const) firstListOf(db, kind, person.id);
      for (const role of FOLDER_ROLES) folderOf(db, person.id, role);
    }
    recordTrail(db, {
      key: newKey(),
      at,
      actorId: giver.id,
      principalId: giver.id,
      collectionId: calendarId,
      subject: person.key,
      verb: 'person.added',
      before: null,
      after: { name: person.name, address: person.address },
      hands: null,
    });
    return person;
  });
}

/** Makes a calendar with the start the house rules give new ones; within the transaction of whoever calls. Answers its row number. */
function makeCalendar(
  db: Connection,
  at: number,
  c: { owner: Person; by: Person; name: string; main: boolean; key?: string },
): number {
  const id = insertCalendar(db, {
    key: c.key ?? newKey(),
    ownerId: c.owner.id,
    name: c.name,
    zone: c.owner.zone,
    main: c.main,
    indexedFrom: at - BACK,
    indexedUntil: at + AHEAD,
  });
  const { startSight } = storedRules(db);
  if (startSight !== 'nothing')
    insertGrant(db, {
      key: newKey(),
      collectionId: id,
      audience: { kind: 'everyone' },
      rights: { ...NO_RIGHTS, sight: startSight },
      starts: null,
      ends: null,
      givenBy: c.by.id,
      givenFor: c.owner.id,
      byAdministrator: false,
      hangs: false,
      recordedFrom: at,
    });
  return id;
}

/** Calendars of one person. */
const MOST_CALENDARS = 100;

/** Whether nothing has a key that a new calendar is to have: neither what stands nor what was taken away. */
export const isCalendarKeyFree = (ctx: Context, key: string): boolean => !isCollectionKey(ctx.db, key);

/**
 * Makes a further calendar: one's own, or of somebody who lets one give access for them; one's own also for a group, which then may arrange
 * it and has it among its lanes. Answers its key, which is `key` where a program asked for one.
 */
export function beginCalendar(
  ctx: Context,
  body: { of: string; name: string; group?: string | undefined },
  key = newKey(),
): Result<{ calendar: string }> {
  const owner = personByHandle(ctx.db, body.of);
  const main = owner && mainCalendarOf(ctx.db, owner.id);
  if (!owner || !main) return refuse('notFound');
  const decided = decideOn(ctx, main);
  const { decision } = decided;
  if (decision.rights.sight === 'nothing') return refuse('notFound');
  if (!may(decision).share) return refuse('mayNotShare', { facts: { name: owner.name } });
  const taken = calendarsOf(ctx.db, owner.id).some((c) => c.name.toLowerCase() === body.name.toLowerCase());
  if (taken) return refuse('alreadyThere', { fields: { name: 'calendarTaken' } });
  if (calendarsOf(ctx.db, owner.id).length >= MOST_CALENDARS)
    return refuse('badInput', { fields: { name: `calendarsMost:${MOST_CALENDARS}` } });
  const group = body.group === undefined ? null : ctx.viewer.inside ? groupByKey(ctx.db, body.group) : null;
  if (body.group !== undefined && !group) return refuse('badInput', { fields: { group: 'group' } });
  if (group && owner.id !== ctx.viewer.id) return refuse('ownerOnly', { facts: { name: owner.name } });
  ctx.db.write(() => {
    const id = makeCalendar(ctx.db, ctx.now, { owner, by: ctx.viewer, name: body.name, main: false, key });
    const give = (grant: Pick<StoredGrant, 'audience' | 'rights' | 'ends' | 'hangs'>) =>
      insertGrant(ctx.db, {
        key: newKey(),
        collectionId: id,
        starts: null,
        givenBy: ctx.viewer.id,
        givenFor: owner.id,
        byAdministrator: false,
        recordedFrom: ctx.now,
        ...grant,
      });
    // Whoever makes it for somebody keeps what they may do on that somebody's main calendar, for as long as they may there. The owner is told.
    if (owner.id !== ctx.viewer.id) {
      const grantId = give({
        audience: { kind: 'person', personId: ctx.viewer.id },
        rights: decision.rights,
        ends: holdsUntil(ctx, { ...decided, shared: main }, decision.rights),
        hangs: true,
      });
      tellOfCalendar(ctx, id, owner.id, grantId);
    }
    if (group) {
      setCalendarGroup(ctx.db, id, group.id);
      give({ audience: { kind: 'group', groupId: group.id }, rights: PRESETS.arranger, ends: null, hangs: false });
      const members = new Set<unknown>(membersOf(ctx.db, group.id));
      const open = hub()
        .listeners()
        .filter((listener) => members.has(listener));
      tell(ctx.db, open, { kind: 'access', calendar: key });
    }
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: owner.id,
      collectionId: id,
      subject: key,
      verb: 'calendar.begun',
      before: null,
      after: { name: body.name },
      hands: operatorOf(ctx),
    });
  });
  return ok({ calendar: key });
}
