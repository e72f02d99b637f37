import type { FrameAnswer, NewPerson, PersonWire, Preferences, Principal } from '@/contract/people.ts';
import { decide, nextChange, PRESETS } from '@/core/access/index.ts';
import { instantText, isZone } from '@/core/time/index.ts';
import type { Connection } from '../db/index.ts';
import { newKey } from '../ids.ts';
import { calendarById, insertCalendar, mainCalendarOf } from '../repositories/calendars.ts';
import { calendarsNaming, grantsSpeakingTo, insertGrant } from '../repositories/grants.ts';
import { unreadNotices } from '../repositories/notices.ts';
import {
  allPeople,
  directoryLines,
  insertPerson,
  type Person,
  personByAddress,
  personByHandle,
  personById,
  savePreferences,
} from '../repositories/people.ts';
import { recordTrail } from '../repositories/trail.ts';
import { ok, type Result, refuse } from '../result.ts';
import { settings } from '../settings.ts';
import type { Context } from './context.ts';
import { decideOn, rulesOf, viewerOf } from './deciding.ts';
import { AHEAD } from './indexing.ts';

/** The directory, with what the one who asks may see of each calendar. That people are there is no secret; calendars are. */
export function listPeople(ctx: Context): Result<{ people: PersonWire[] }> {
  const grants = grantsSpeakingTo(ctx.db, ctx.viewer.id);
  const viewer = viewerOf(ctx.db, ctx.viewer);
  const house = rulesOf(ctx.db);
  const people = directoryLines(ctx.db).map((line): PersonWire => {
    const [id, handle, name, address, role, site, colour, calendar, suspended] = line;
    const collection = {
      owner: String(id),
      suspended: suspended === 1,
      grants: calendar === null ? [] : (grants.get(calendar) ?? []),
    };
    const { rights, because } = decide(collection, viewer, ctx.now, house);
    const seen = rights.sight !== 'nothing';
    const step = because[0]?.step;
    const next = seen ? nextChange(collection, viewer, ctx.now) : null;
    const through =
      seen && (step === 'owner' || step === 'person' || step === 'group' || step === 'everyone') ? step : 'none';
    const until = next === null ? null : instantText(next);
    return { handle, name, address, role, site, colour, rights, through, until };
  });
  return ok({ people });
}

/** What the frame shows: who is signed in, and the people whose calendars they run, their own last. */
export function readFrame(ctx: Context): FrameAnswer {
  const me = ctx.viewer;
  const principals: Principal[] = [];
  for (const id of calendarsNaming(ctx.db, me.id)) {
    const calendar = calendarById(ctx.db, id);
    if (!calendar?.main || calendar.ownerId === me.id) continue;
    const { rights } = decideOn(ctx, calendar).decision;
    if (!rights.add && rights.change === 'none') continue;
    const owner = personById(ctx.db, calendar.ownerId);
    if (owner) principals.push(principalOf(owner, calendar.key, false, rights.shares));
  }
  principals.sort((a, b) => a.name.localeCompare(b.name));
  const own = mainCalendarOf(ctx.db, me.id);
  if (own) principals.push(principalOf(me, own.key, true, true));
  return {
    me: {
      handle: me.handle,
      name: me.name,
      address: me.address,
      zone: me.zone,
      hours: me.hours,
      weekFirst: me.weekFirst,
      administrator: me.administrator,
    },
    principals,
    demo: settings().demo,
    unread: unreadNotices(ctx.db, me.id),
    now: instantText(ctx.now),
  };
}

function principalOf(person: Person, calendar: string, own: boolean, share: boolean): Principal {
  const { handle, name, role, colour } = person;
  return { handle, name, role, colour, own, calendar, share };
}

/** The calendar a board shows: that of `handle`, where the one who asks may see it. Hidden and missing answer alike. */
export function findBoard(ctx: Context, handle: string): { calendar: string; name: string; handle: string } | null {
  const person = personByHandle(ctx.db, handle);
  const calendar = person && mainCalendarOf(ctx.db, person.id);
  if (!person || !calendar) return null;
  if (decideOn(ctx, calendar).decision.rights.sight === 'nothing') return null;
  return { calendar: calendar.key, name: person.name, handle: person.handle };
}

/** Saves how a person wants times shown. */
export function changePreferences(ctx: Context, input: Preferences): Result<{ done: true }> {
  if (!isZone(input.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  const { zone, hours, weekFirst } = ctx.viewer;
  ctx.db.write(() => {
    savePreferences(ctx.db, ctx.viewer.id, input);
    recordTrail(ctx.db, {
      key: newKey(),
      at: ctx.now,
      actorId: ctx.viewer.id,
      principalId: ctx.viewer.id,
      calendarId: null,
      subject: ctx.viewer.key,
      verb: 'preferences.changed',
      before: { zone, hours, weekFirst },
      after: input,
    });
  });
  return ok({ done: true });
}

/** Whether a person may be added: the reason and the field where not. Checked before an account is made for them. */
export function checkNewPerson(db: Connection, input: Pick<NewPerson, 'zone' | 'address'>): Result<null> {
  if (!isZone(input.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  if (personByAddress(db, input.address)) return refuse('alreadyThere', { fields: { address: 'addressTaken' } });
  return ok(null);
}

type Added = Omit<NewPerson, 'password'> & {
  readonly account: string;
  readonly site?: string;
  readonly colour?: number;
  readonly handle?: string;
  readonly administrator?: boolean;
};

/** Adds someone to the directory with a calendar of their own, on which everyone inside gets free/busy and nobody else more. */
export function addPerson(db: Connection, at: number, by: Person | null, input: Added): Person {
  return db.write(() => {
    const id = insertPerson(
      db,
      {
        key: newKey(),
        handle: freeHandle(db, input.handle ?? input.address.split('@')[0] ?? 'person'),
        account: input.account,
        name: input.name,
        address: input.address,
        role: input.role,
        site: input.site ?? '',
        zone: input.zone,
        colour: input.colour ?? allPeople(db).length % 6,
        hours: '24',
        weekFirst: 1,
        administrator: input.administrator ?? false,
        inside: true,
      },
      at,
    );
    const person = personById(db, id) as Person;
    const calendarId = insertCalendar(db, {
      key: newKey(),
      ownerId: id,
      name: person.name,
      zone: person.zone,
      main: true,
      indexedUntil: at + AHEAD,
    });
    const giver = by ?? person;
    insertGrant(db, {
      key: newKey(),
      calendarId,
      audience: { kind: 'everyone' },
      rights: PRESETS.freeBusy,
      starts: null,
      ends: null,
      givenBy: giver.id,
      givenFor: id,
      recordedFrom: at,
    });
    recordTrail(db, {
      key: newKey(),
      at,
      actorId: giver.id,
      principalId: giver.id,
      calendarId,
      subject: person.key,
      verb: 'person.added',
      before: null,
      after: { name: person.name, address: person.address },
    });
    return person;
  });
}

function freeHandle(db: Connection, wish: string): string {
  const plain =
    wish
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 30) || 'person';
  for (let n = 1; ; n++) {
    const handle = n === 1 ? plain : `${plain}-${n}`;
    if (!personByHandle(db, handle)) return handle;
  }
}
