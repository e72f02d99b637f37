import type { LeaveBody, PersonChange, PersonFile } from '@/contract/people/people.ts';
import { presetOf } from '@/core/access/index.ts';
import { instantText } from '@/core/time/index.ts';
import {
  dropAccount,
  endSessions,
  hasPassword,
  makeBareAccount,
  makePasswordToken,
  spendPasswordToken,
} from '../../auth/accounts.ts';
import { database } from '../../db/index.ts';
import { hub } from '../../live/hub.ts';
import { closeAccessRequestsWith } from '../../repositories/access-requests.ts';
import { calendarsOf } from '../../repositories/calendars.ts';
import { reassignCollection } from '../../repositories/collections.ts';
import { calendarsNaming, endGrant, grantsNaming, grantsOn } from '../../repositories/grants.ts';
import { allGroups, directMembersOf, endMembership } from '../../repositories/groups.ts';
import { listsOf, reassignList } from '../../repositories/lists.ts';
import {
  allPeople,
  type Person,
  personByAccount,
  personByHandle,
  saveAccount,
  savePerson,
} from '../../repositories/people.ts';
import { untieAll } from '../../repositories/same-person.ts';
import { type Shareable, shareableById, shareablesOf, shortName } from '../../repositories/shareables.ts';
import { withdrawAllOf } from '../../repositories/suggestions.ts';
import { withdrawTokensOf } from '../../repositories/tokens.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  again,
  announceAccess,
  type Context,
  collectionOf,
  contextFor,
  Directory,
  trailOwn,
} from '../deciding/index.ts';
import { endWhatHung, tellOfSignIn } from '../sharing/index.ts';

/** A person with everything their leaving would end and hand on: the review before the act. For administrators. */
export async function readPerson(ctx: Context, handle: string): Promise<Result<PersonFile>> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const person = personByHandle(ctx.db, handle);
  if (!person?.inside) return refuse('notFound');
  const directory = new Directory(ctx.db);
  return ok({
    handle: person.handle,
    name: person.name,
    address: person.address,
    role: person.role,
    site: person.site,
    phone: person.phone,
    kind: person.kind,
    administrator: person.administrator,
    inside: person.inside,
    signsIn: person.account !== null && (await hasPassword(person.account)),
    grants: grantsNaming(ctx.db, person.id).flatMap((grant) => {
      const of = shareableById(ctx.db, grant.collectionId);
      if (!of) return [];
      const { rights } = grant;
      return [
        {
          owner: directory.name(of.ownerId),
          calendar: of.main ? '' : of.name,
          preset: presetOf(rights),
          acts: rights.add || rights.change !== 'none' || rights.speaks,
        },
      ];
    }),
    groups: groupsDirectly(ctx, person).map((g) => g.name),
    calendars: shareablesOf(ctx.db, person.id).map((c) => ({ name: c.name, main: c.main })),
  });
}

const groupsDirectly = (ctx: Context, person: Person) =>
  allGroups(ctx.db).filter((g) => directMembersOf(ctx.db, g.id).includes(person.id));

/** Changes what the directory says of a person; the last administrator stays one. For administrators. */
export function changePerson(ctx: Context, handle: string, change: PersonChange): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const person = personByHandle(ctx.db, handle);
  if (!person?.inside) return refuse('notFound');
  if (!change.administrator && isLastAdministrator(ctx, person)) return refuse('onlyAdministrator');
  const { name, role, site, phone, kind, administrator } = person;
  ctx.db.write(() => {
    savePerson(ctx.db, person.id, { ...person, ...change, phone: change.phone ?? person.phone });
    trailOwn(ctx, person.key, 'person.changed', { name, role, site, phone, kind, administrator }, change);
  });
  return ok({ done: true });
}

const isLastAdministrator = (ctx: Context, person: Person): boolean =>
  person.administrator && allPeople(ctx.db).filter((p) => p.administrator).length === 1;

/**
 * Somebody leaves, as one act: their sign-in ends, every grant that names them is closed, what they put forward is taken back, they
 * stand in no group any more, and their calendars and lists become further ones of whoever they are handed to, with the access others have
 * there as it was. For administrators; not for oneself, nor for the last administrator.
 */
export async function leave(ctx: Context, handle: string, body: LeaveBody): Promise<Result<{ done: true }>> {
  const left = ctx.db.write(() => leaveNow(ctx, handle, body));
  if (!left.ok) return left;
  const { person, before } = left.value;
  for (const { id, collection } of before) {
    const shared = shareableById(ctx.db, id);
    if (shared) announceAccess(ctx, shared, collection);
  }
  hub().end(person.id, null);
  // Their sessions lead nowhere once the directory has no account for them; the account itself is removed now.
  if (person.account !== null) await dropAccount(person.account);
  return ok({ done: true });
}

type Left = { person: Person; before: { id: number; collection: ReturnType<typeof collectionOf> }[] };

/** All that leaving writes, as one act, with the right to it read in it. */
function leaveNow(outer: Context, handle: string, body: LeaveBody): Result<Left> {
  const ctx = again(outer);
  if ('ok' in ctx) return ctx;
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const person = personByHandle(ctx.db, handle);
  if (!person?.inside) return refuse('notFound');
  if (person.id === ctx.viewer.id || isLastAdministrator(ctx, person)) return refuse('onlyAdministrator');
  const heir = body.to === null ? null : personByHandle(ctx.db, body.to);
  const owned = shareablesOf(ctx.db, person.id);
  if (owned.length > 0 && (!heir?.inside || heir.id === person.id || heir.kind === 'role'))
    return refuse('badInput', { fields: { to: 'heir' } });
  const concerned = new Set([...owned.map((c) => c.id), ...calendarsNaming(ctx.db, person.id)]);
  const before = [...concerned].flatMap((id) => {
    const shared = shareableById(ctx.db, id);
    return shared ? [{ id, collection: collectionOf(shared, grantsOn(ctx.db, id)) }] : [];
  });
  for (const grant of grantsNaming(ctx.db, person.id)) endGrant(ctx.db, grant.id, ctx.now);
  for (const group of groupsDirectly(ctx, person)) endMembership(ctx.db, group.id, person.id, ctx.now);
  withdrawAllOf(ctx.db, person.id, ctx.now);
  closeAccessRequestsWith(ctx.db, person.id);
  untieAll(ctx.db, person.id);
  withdrawTokensOf(ctx.db, person.id, ctx.now);
  for (const id of concerned) {
    const shared = shareableById(ctx.db, id);
    if (shared) endWhatHung(ctx, shared);
  }
  for (const shared of owned) if (heir) reassignShared(ctx, shared, person, heir);
  savePerson(ctx.db, person.id, {
    ...person,
    phone: '',
    account: null,
    administrator: false,
    inside: false,
    leftAt: ctx.now,
  });
  trailOwn(ctx, person.key, 'person.left', { account: person.account }, { to: heir?.key ?? null });
  return ok({ person, before });
}

function reassignShared(ctx: Context, shared: Shareable, from: Person, to: Person): void {
  const { kind } = shared;
  const theirs = kind === 'calendar' ? calendarsOf(ctx.db, to.id) : listsOf(ctx.db, kind, to.id);
  const taken = new Set(theirs.map((one) => one.name));
  const wish =
    shared.kind === 'folder' && shared.first
      ? `${from.name}, ${shared.name}`
      : shared.main
        ? from.name
        : shortName(shared) || from.name;
  let name = wish;
  for (let n = 2; taken.has(name); n++) name = `${wish} ${n}`;
  if (kind !== 'calendar') reassignList(ctx.db, shared.id, to.id, name);
  else reassignCollection(ctx.db, shared.id, to.id, name);
  // The new owner needs no grant on what is theirs.
  for (const grant of grantsOn(ctx.db, shared.id))
    if (grant.audience.kind === 'person' && grant.audience.personId === to.id) endGrant(ctx.db, grant.id, ctx.now);
}

/**
 * An address by which a person chooses a password, once and within a day, for an administrator to hand over: for a lost password,
 * or a first one, without any mail. The sessions of before end when it is used. For administrators.
 */
export async function makeWayIn(outer: Context, handle: string): Promise<Result<{ path: string; until: string }>> {
  const found = personByHandle(outer.db, handle);
  if (!outer.viewer.administrator) return refuse('administratorOnly');
  if (!found?.inside) return refuse('notFound');
  const account = await makeBareAccount(found.address, found.name);
  const made = outer.db.write((): Result<Person> => {
    const ctx = again(outer);
    if ('ok' in ctx) return ctx;
    const person = personByHandle(ctx.db, handle);
    if (!ctx.viewer.administrator) return refuse('administratorOnly');
    if (!person?.inside) return refuse('notFound');
    if (person.account !== account) saveAccount(ctx.db, person.id, account);
    trailOwn(ctx, person.key, 'way-in.made', null, {});
    if (person.id !== ctx.viewer.id) tellOfSignIn(ctx, person.id, 'wayInMade', ctx.viewer.id);
    return ok(person);
  });
  if (!made.ok) return made;
  const token = await makePasswordToken(made.value.address);
  return ok({ path: `/way-in/${token}`, until: instantText(outer.now + 86_400_000) });
}

/**
 * Chooses a password by such an address. Every session of before ends, with its open windows, every token of theirs is withdrawn, and the
 * person is told, in Messages and by letter: whoever used the address.
 */
export async function choosePassword(token: string, password: string): Promise<Result<{ done: true }>> {
  const spent = await spendPasswordToken(token, password);
  if (!spent.ok) return spent;
  const db = database();
  const person = personByAccount(db, spent.value.account);
  if (!person) return refuse('wayInGone');
  await endSessions(spent.value.account);
  hub().end(person.id, null);
  const ctx = contextFor(person, db);
  db.write(() => {
    withdrawTokensOf(ctx.db, person.id, ctx.now);
    trailOwn(ctx, person.key, 'password.made', null, {});
    tellOfSignIn(ctx, person.id, 'passwordMade', person.id);
  });
  return ok({ done: true });
}
