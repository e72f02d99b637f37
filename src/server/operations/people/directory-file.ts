import { z } from 'zod';
import type { DirectoryAnswer } from '@/contract/people/people.ts';
import { LIMITS } from '@/core/calendar/index.ts';
import { type DirectoryRow, readDirectory, writeDirectory } from '@/core/formats/index.ts';
import { isZone } from '@/core/time/index.ts';
import { dropAccount, makeBareAccount } from '../../auth/accounts.ts';
import { domains } from '../../repositories/domains.ts';
import { allGroups, directMembersOf, groupByKey, insertMembership } from '../../repositories/groups.ts';
import { allPeople, type Person, personByAddress, savePerson } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { again, type Context, domainOf } from '../deciding/index.ts';
import { tellOfJoining } from '../sharing/index.ts';
import { addGroup } from './groups.ts';
import { addPerson } from './people.ts';

/** The directory as text with commas, with the groups people stand in themselves. For administrators. */
export function directoryFile(ctx: Context): Result<string> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const groups = groupNames(ctx);
  return ok(
    writeDirectory(
      allPeople(ctx.db).map((p) => ({
        name: p.name,
        address: p.address,
        role: p.role,
        site: p.site,
        phone: p.phone,
        kind: p.kind,
        zone: p.zone,
        groups: groups.get(p.id) ?? [],
      })),
    ),
  );
}

function groupNames(ctx: Context): Map<number, string[]> {
  const names = new Map<number, string[]>();
  for (const group of allGroups(ctx.db))
    for (const id of directMembersOf(ctx.db, group.id)) names.set(id, [...(names.get(id) ?? []), group.name]);
  return names;
}

const MOST = 5000;
const addressSchema = z.email().max(LIMITS.address);

/**
 * Reads a directory and says what would come of it, line by line; with `apply`, brings in all that can be taken as one act.
 * People are added (they choose a password by an address that is handed to them), changed where the file says otherwise, and put
 * into the groups it names; nobody is taken out of anything. For administrators.
 */
export async function bringInDirectory(
  ctx: Context,
  body: { text: string; apply: boolean },
): Promise<Result<DirectoryAnswer>> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const read = readDirectory(body.text);
  if (read.rows.length > MOST) return refuse('badInput', { fields: { text: `listTooLong:${MOST}` } });
  const wrong: DirectoryAnswer['wrong'] = [...read.wrong];
  const ours = domains(ctx.db);
  const seen = new Set<string>();
  const rows = read.rows.filter((row) => {
    const reason = !addressSchema.safeParse(row.address).success
      ? 'address'
      : seen.has(row.address)
        ? 'twice'
        : ours.length > 0 && !ours.includes(domainOf(row.address))
          ? 'domain'
          : row.zone !== null && !isZone(row.zone)
            ? 'zone'
            : row.groups.some((g) => g.length > LIMITS.name)
              ? 'tooLong'
              : null;
    seen.add(row.address);
    if (reason) wrong.push({ line: row.line, text: `${row.name}, ${row.address}`.slice(0, 120), reason });
    return reason === null;
  });
  const groups = groupNames(ctx);
  const known = new Set(allGroups(ctx.db).map((g) => g.name.toLowerCase()));
  const plan = rows.map((row) => {
    const person = personByAddress(ctx.db, row.address);
    const inside = person?.inside ? person : null;
    return { row, person: inside, what: inside ? differs(row, inside, groups.get(inside.id) ?? []) : [] };
  });
  const added = plan.filter((p) => !p.person);
  const changed = plan.filter((p) => p.person && p.what.length > 0);
  const answer: DirectoryAnswer = {
    added: added.map(({ row }) => ({ name: row.name, address: row.address, groups: [...row.groups] })),
    changed: changed.map(({ row, what }) => ({ name: row.name, address: row.address, what })),
    same: plan.length - added.length - changed.length,
    newGroups: [...new Set(rows.flatMap((r) => r.groups).filter((g) => !known.has(g.toLowerCase())))],
    wrong: wrong.sort((a, b) => a.line - b.line),
    applied: body.apply,
  };
  if (!body.apply) return ok(answer);
  const applied = await apply(ctx, [...added, ...changed], answer.newGroups);
  return applied.ok ? ok(answer) : applied;
}

function differs(row: DirectoryRow, person: Person, groups: readonly string[]): string[] {
  const has = new Set(groups.map((g) => g.toLowerCase()));
  return [
    ...(['name', 'role', 'site', 'phone', 'kind', 'zone'] as const).filter(
      (field) => row[field] !== null && row[field] !== person[field],
    ),
    ...(row.groups.some((g) => !has.has(g.toLowerCase())) ? ['groups'] : []),
  ];
}

async function apply(
  outer: Context,
  plan: readonly { row: DirectoryRow; person: Person | null }[],
  newGroups: readonly string[],
): Promise<Result<{ done: true }>> {
  const accounts = new Map<string, string>();
  // Somebody who came in from outside before has an account: only those made here go again where this can't be done.
  const made: string[] = [];
  for (const { row, person } of plan) {
    if (person) continue;
    const known = personByAddress(outer.db, row.address)?.account ?? null;
    const account = await makeBareAccount(row.address, row.name);
    accounts.set(row.address, account);
    if (known !== account) made.push(account);
  }
  const dropMade = async () => {
    for (const account of made) await dropAccount(account);
  };
  try {
    const done = outer.db.write((): Result<{ done: true }> => {
      const ctx = again(outer);
      if ('ok' in ctx) return ctx;
      if (!ctx.viewer.administrator) return refuse('administratorOnly');
      for (const name of newGroups) addGroup(ctx, name, []);
      const byName = new Map(allGroups(ctx.db).map((g) => [g.name.toLowerCase(), g.key]));
      for (const { row, person } of plan) {
        const fields = {
          name: row.name,
          role: row.role ?? person?.role ?? '',
          site: row.site ?? person?.site ?? '',
          phone: row.phone ?? person?.phone ?? '',
          kind: row.kind ?? person?.kind ?? 'person',
          zone: row.zone ?? person?.zone ?? ctx.viewer.zone,
        };
        const now =
          person ??
          addPerson(ctx.db, ctx.now, ctx.viewer, {
            ...fields,
            address: row.address,
            account: accounts.get(row.address) ?? '',
          });
        if (person) savePerson(ctx.db, person.id, { ...person, ...fields });
        for (const name of row.groups) {
          const group = groupByKey(ctx.db, byName.get(name.toLowerCase()) ?? '');
          if (!group || directMembersOf(ctx.db, group.id).includes(now.id)) continue;
          insertMembership(ctx.db, group.id, now.id, ctx.now, ctx.viewer.id);
          tellOfJoining(ctx, group.id, `${now.name} → ${group.name}`);
        }
      }
      return ok({ done: true });
    });
    if (!done.ok) await dropMade();
    return done;
  } catch (error) {
    await dropMade();
    throw error;
  }
}
