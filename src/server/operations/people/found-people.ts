import type { FirstPerson, NewPerson } from '@/contract/people/people.ts';
import { dropAccount, makeAccount } from '../../auth/accounts.ts';
import { now } from '../../clock.ts';
import { type Connection, database } from '../../db/index.ts';
import { insertDomain } from '../../repositories/domains.ts';
import { allPeople, personByAddress } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { settings } from '../../settings.ts';
import { type Letter, lettersIn } from '../../stand-ins.ts';
import { again, type Context, domainOf } from '../deciding/index.ts';
import { addPerson, checkNewPerson } from './people.ts';
import { checkStartCode, startCode } from './start-code.ts';

/** Whether nobody is in the directory yet, so that the first start asks for the first administrator. */
export function isEmpty(db: Connection = database()): boolean {
  return allPeople(db).length === 0;
}

/** Makes the first administrator, for whoever has the code that the server printed; refused as soon as anybody is there. */
export async function foundOrganisation({ code, ...input }: FirstPerson): Promise<Result<{ done: true }>> {
  const db = database();
  if (!isEmpty(db)) return refuse('setUpAlready');
  const checked = checkStartCode(code, now());
  if (checked === 'limited') return refuse('tooManyTries');
  if (checked === 'wrong') return refuse('badInput', { fields: { code: 'startCode' } });
  const made = await oneAtATime(() => make(db, null, input, true));
  // The first person's own domain is the organisation's: an address of it belongs to somebody inside.
  if (made.ok) db.write(() => insertDomain(db, domainOf(input.address)));
  return made;
}

/** What a start says where nobody is there yet: where to begin, and with which code; `null` as soon as anybody is. */
export const howToBegin = (db: Connection): string | null =>
  isEmpty(db)
    ? `Nobody is here yet. Open ${settings().address}/welcome and begin with this code: ${startCode().replace(/^(.{5})(.{5})$/, '$1-$2')}`
    : null;

/** Adds a person with an account of their own. For administrators. */
export async function addPersonWithAccount(ctx: Context, input: NewPerson): Promise<Result<{ done: true }>> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  return oneAtATime(() => make(ctx.db, ctx, input, false));
}

const holder = globalThis as { paramoAdding?: Promise<unknown> };

/** People are added one after the other: two of one address at once are one, and a refusal. */
function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
  const next = (holder.paramoAdding ?? Promise.resolve()).then(work, work);
  holder.paramoAdding = next.catch(() => {});
  return next;
}

async function make(
  db: Connection,
  by: Context | null,
  input: NewPerson,
  administrator: boolean,
): Promise<Result<{ done: true }>> {
  const { password, ...person } = input;
  if (by === null && !isEmpty(db)) return refuse('setUpAlready');
  const checked = checkNewPerson(db, person);
  if (!checked.ok) return checked;
  const outsider = personByAddress(db, person.address);
  // Who was known from outside may have come in before: that account goes, and its sessions with it.
  if (outsider?.account) await dropAccount(outsider.account);
  const account = await makeAccount(person.address, person.name, password);
  try {
    const added = db.write((): Result<{ done: true }> => {
      const ctx = by && again(by);
      if (ctx && 'ok' in ctx) return ctx;
      if (ctx && !ctx.viewer.administrator) return refuse('administratorOnly');
      if (!ctx && !isEmpty(db)) return refuse('setUpAlready');
      const still = checkNewPerson(db, person);
      if (!still.ok) return still;
      addPerson(db, now(), ctx?.viewer ?? null, { ...person, account, administrator });
      return ok({ done: true });
    });
    if (!added.ok) await dropAccount(account);
    return added;
  } catch (error) {
    await dropAccount(account);
    throw error;
  }
}

/** A sample person on the demo's sign-in page. */
export interface SampleFace {
  readonly handle: string;
  readonly name: string;
  readonly role: string;
  readonly colour: number;
}

/** The sample people to step in as; none outside the demo. */
export function sampleFaces(): SampleFace[] {
  if (!settings().demo) return [];
  return allPeople(database())
    .filter((p) => p.resource === null)
    .map(({ handle, name, role, colour }) => ({ handle, name, role, colour }));
}

/** Whether this is the demo, whose sample people anybody may step in as. */
export const isDemo = (): boolean => settings().demo;

/** The letters in the stand-in's letterbox, the newest first; `null` outside the demo. */
export function letterbox(): Letter[] | null {
  const { demo, data } = settings();
  return demo ? lettersIn(data) : null;
}
