import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Item } from '../calendar/index.ts';
import { COLLECTION_KINDS } from '../collection/index.ts';
import {
  type Collection,
  decide,
  deciderFor,
  explain,
  fieldPolicy,
  fitRights,
  may,
  mayItem,
  offeredOn,
  project,
  type Rights,
  type Standing,
} from './index.ts';

import {
  ALL,
  anyWorld,
  audience,
  house,
  item,
  now,
  oracle,
  rights,
  SCOPE,
  SIGHT,
  standing,
  viewer,
  world,
} from './second-reading.ts';

const BUSY = ['allDay', 'end', 'shows', 'start'];
const BY_SIGHT: Record<string, string[]> = {
  busy: BUSY,
  title: [...BUSY, 'title', 'kind'],
  outline: [...BUSY, 'title', 'kind', 'place'],
};
const FULL = [
  ...BUSY,
  'title',
  'kind',
  'place',
  'notes',
  'link',
  'organiser',
  'attendees',
  'categories',
  'importance',
  'repeats',
  'visibility',
  'createdBy',
];

/** The fields an item shows, sorted; `null` where it is left out. */
function oracleItem(
  i: Item<string, string>,
  s: Standing,
  { r, ceiling, owner }: ReturnType<typeof oracle>,
): string[] | null {
  if (r.sight === 'nothing') return null;
  if (i.cancelled && !owner && r.change !== 'all') return null;
  const shows =
    i.ownerAnswer === 'declined'
      ? 'free'
      : i.shows === 'busy' && (i.ownerAnswer === 'tentative' || i.ownerAnswer === 'needs-action')
        ? 'tentative'
        : i.shows;
  const full = owner || (r.change === 'all' && r.speaks) ? [...FULL, 'briefing'] : FULL;
  if (owner || s.named || (s.created && r.change !== 'none')) return [...full].sort();
  let seen = SIGHT.indexOf(r.sight);
  if (i.visibility === 'open') seen = ceiling;
  if (i.visibility === 'outline') seen = r.change === 'all' ? 4 : Math.min(seen, 3);
  if (i.visibility === 'private' && !r.private) {
    if (shows === 'free') return null;
    return r.sight === 'busy' ? BUSY : [...BUSY, 'withheld'].sort();
  }
  if (seen === 1 && shows === 'free') return null;
  return [...(seen === 4 ? full : (BY_SIGHT[SIGHT[seen] ?? ''] ?? []))].sort();
}

describe('the rule and a second reading of it', () => {
  test('decide alike', () => {
    fc.assert(
      fc.property(anyWorld, ([c, v, at, h]) => {
        const d = decide(c, v, at, h);
        const o = oracle(c, v, at, h);
        expect(d.rights).toEqual(o.r);
        expect(d.owner).toBe(o.owner);
      }),
      { numRuns: 3000 },
    );
  });
  test('show alike, field by field', () => {
    fc.assert(
      fc.property(world, ([c, v, at, h, i, s]) => {
        const view = project(i, s, decide(c, v, at, h));
        expect(view && Object.keys(view).sort()).toEqual(oracleItem(i, s, oracle(c, v, at, h)));
      }),
      { numRuns: 3000 },
    );
  });
});

describe('one viewer’s decisions over many collections', () => {
  test('are those of each by itself', () => {
    // Few objects of rights, shared among the collections, as they are where thousands are read at once.
    const shared = fc.array(rights, { minLength: 1, maxLength: 3 }).chain((mixes) =>
      fc.array(
        fc.record({
          kind: fc.constantFrom(...COLLECTION_KINDS),
          main: fc.boolean(),
          owner: fc.constantFrom('owner', 'ada'),
          suspended: fc.boolean(),
          grants: fc.array(
            fc.record({
              key: fc.constantFrom('', '', 'k'),
              audience,
              rights: fc.constantFrom(...mixes),
              from: fc.option(fc.integer({ min: 0, max: 6 }), { nil: null, freq: 1 }),
              until: fc.option(fc.integer({ min: 0, max: 6 }), { nil: null, freq: 1 }),
            }),
            { maxLength: 2 },
          ),
        }),
        { maxLength: 12 },
      ),
    );
    fc.assert(
      fc.property(shared, viewer, now, house, (collections, v, at, h) => {
        const decideOne = deciderFor(v, at, h);
        for (const c of collections) expect(decideOne(c)).toEqual(decide(c, v, at, h));
      }),
      { numRuns: 500 },
    );
  });
});

describe('invariants', () => {
  test('raising one right of a fitting grant hides no field and forbids no action', () => {
    const raise = fc.constantFrom<keyof Rights>(
      'sight',
      'add',
      'change',
      'remove',
      'suggest',
      'private',
      'speaks',
      'copies',
      'shares',
      'absence',
    );
    fc.assert(
      fc.property(rights, raise, house, item, standing, (given, right, h, i, s) => {
        const low = fitRights(given, ALL).rights;
        const raised = fitRights(raiseOne(low, right), ALL).rights;
        const see = (r: Rights) => {
          const c: Collection = {
            kind: 'calendar',
            main: true,
            owner: 'owner',
            suspended: false,
            grants: [{ key: 'k', audience: { kind: 'everyone' }, rights: r, from: null, until: null }],
          };
          const d = decide(c, { kind: 'person', id: 'ada', inside: true, groups: new Set() }, 0, h);
          return {
            fields: Object.keys(project(i, s, d) ?? {}).filter((k) => k !== 'withheld'),
            may: mayItem(i, s, d),
            all: may(d),
          };
        };
        const [a, b] = [see(low), see(raised)];
        for (const field of a.fields) expect(b.fields).toContain(field);
        if (a.may.change) expect(b.may.change).toBe(true);
        if (a.may.remove) expect(b.may.remove).toBe(true);
        if (a.may.answer) expect(b.may.answer).toBe(true);
        if (a.may.suggest) expect(b.may.suggest || b.may.change).toBe(true);
        if (a.all.add) expect(b.all.add).toBe(true);
        if (a.all.suggest) expect(b.all.suggest || b.all.add).toBe(true);
        if (a.all.share) expect(b.all.share).toBe(true);
      }),
      { numRuns: 3000 },
    );
  });
  test('fitting twice is fitting once', () => {
    fc.assert(
      fc.property(rights, fc.constantFrom(...COLLECTION_KINDS), fc.boolean(), (r, kind, main) => {
        const offered = offeredOn({ kind, main });
        const once = fitRights(r, offered).rights;
        expect(fitRights(once, offered)).toEqual({ rights: once, lowered: [] });
      }),
    );
  });
  test('every decision is explained, and the explanation ends where the projection does', () => {
    fc.assert(
      fc.property(world, ([c, v, at, h, i, s]) => {
        const e = explain(c, v, at, h, i, s);
        expect(e.steps.length).toBeGreaterThan(0);
        expect(e.seen === null).toBe(project(i, s, e.decision) === null);
      }),
    );
  });
  test('no view holds what only decides', () => {
    const never = Object.entries(fieldPolicy)
      .filter(([, level]) => level === 'never')
      .map(([field]) => field);
    fc.assert(
      fc.property(world, ([c, v, at, h, i, s]) => {
        const view = project(i, s, decide(c, v, at, h));
        for (const field of never) expect(Object.keys(view ?? {})).not.toContain(field);
      }),
    );
  });
});

function raiseOne(r: Rights, right: keyof Rights): Rights {
  if (right === 'sight') return { ...r, sight: SIGHT[Math.min(4, SIGHT.indexOf(r.sight) + 1)] ?? 'full' };
  if (right === 'change' || right === 'remove')
    return { ...r, [right]: SCOPE[Math.min(2, SCOPE.indexOf(r[right]) + 1)] ?? 'all' };
  return { ...r, [right]: true };
}
