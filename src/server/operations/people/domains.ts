import { deleteDomain, domains, insertDomain } from '../../repositories/domains.ts';
import { allPeople } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, domainOf, trailOwn } from '../deciding/index.ts';

/** The organisation's domains. For anyone inside. */
export function readDomains(ctx: Context): Result<{ domains: string[] }> {
  return ctx.viewer.inside ? ok({ domains: domains(ctx.db) }) : refuse('insideOnly');
}

/**
 * Sets the organisation's domains: an address of one of them belongs to somebody inside. One that people of the directory have
 * can't be taken out. For administrators.
 */
export function changeDomains(ctx: Context, body: { domains: readonly string[] }): Result<{ done: true }> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const next = new Set(body.domains);
  const before = domains(ctx.db);
  const missing = allPeople(ctx.db).find((p) => before.includes(domainOf(p.address)) && !next.has(domainOf(p.address)));
  if (missing) return refuse('badInput', { fields: { domains: 'domainInUse' } });
  ctx.db.write(() => {
    for (const name of before) if (!next.has(name)) deleteDomain(ctx.db, name);
    for (const name of next) insertDomain(ctx.db, name);
    trailOwn(ctx, 'domains', 'domains.changed', before, [...next].sort());
  });
  return ok({ done: true });
}
