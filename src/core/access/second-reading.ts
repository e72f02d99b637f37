import fc from 'fast-check';
import type { Item } from '../calendar/index.ts';
import { COLLECTION_KINDS, type CollectionKind } from '../collection/index.ts';
import { type Collection, type HouseRules, offeredOn, type Rights, type Standing, type Viewer } from './index.ts';

/*
 * A second implementation of the rule, written apart from the first and sharing no code with it: tables and loops over plain numbers. Tests
 * compare both over random policies, and check the rule's invariants on the same policies.
 */
export const SIGHT = ['nothing', 'busy', 'title', 'outline', 'full'] as const;
export const SCOPE = ['none', 'own', 'all'] as const;
const FLAGS = ['suggest', 'private', 'speaks', 'copies', 'shares', 'absence'] as const;

export const rights = fc.record({
  sight: fc.constantFrom(...SIGHT),
  add: fc.boolean(),
  change: fc.constantFrom(...SCOPE),
  remove: fc.constantFrom(...SCOPE),
  suggest: fc.boolean(),
  private: fc.boolean(),
  speaks: fc.boolean(),
  copies: fc.boolean(),
  shares: fc.boolean(),
  absence: fc.boolean(),
});
const edge = fc.option(fc.integer({ min: 0, max: 6 }), { nil: null });
export const audience = fc.oneof(
  fc.record({ kind: fc.constant('person' as const), id: fc.constantFrom('ada', 'xeno', 'owner', 'bea') }),
  fc.record({ kind: fc.constant('group' as const), id: fc.constantFrom('g', 'h') }),
  fc.constant({ kind: 'everyone' as const }),
  fc.record({ kind: fc.constant('link' as const), id: fc.constantFrom('L', 'M') }),
);
const grants = fc.array(
  fc.record({ key: fc.string({ minLength: 1, maxLength: 3 }), audience, rights, from: edge, until: edge }),
  { maxLength: 6 },
);
export const ALL = offeredOn({ kind: 'calendar', main: true });
const collectionOf = (...kinds: CollectionKind[]): fc.Arbitrary<Collection> =>
  fc.record({
    kind: fc.constantFrom(...kinds),
    main: fc.boolean(),
    owner: fc.constant('owner'),
    suspended: fc.boolean().map((b) => b && true),
    grants,
  });
export const house: fc.Arbitrary<HouseRules> = fc.record({
  everyoneSight: fc.constantFrom(...SIGHT),
  outsideSight: fc.constantFrom(...SIGHT),
  outsideReach: fc.constantFrom(...SCOPE),
  outsideExtras: fc.boolean(),
  linkSight: fc.constantFrom(...SIGHT),
});
export const viewer: fc.Arbitrary<Viewer> = fc.oneof(
  fc.record({
    kind: fc.constant('person' as const),
    id: fc.constantFrom('ada', 'xeno', 'owner'),
    inside: fc.boolean(),
    groups: fc.subarray(['g', 'h']).map((g): ReadonlySet<string> => new Set(g)),
  }),
  fc.record({ kind: fc.constant('link' as const), id: fc.constantFrom('L', 'N') }),
);
export const item: fc.Arbitrary<Item<string, string>> = fc.record({
  start: fc.constant('S'),
  end: fc.constant('E'),
  allDay: fc.boolean(),
  shows: fc.constantFrom('free', 'reachable', 'tentative', 'busy', 'away'),
  visibility: fc.constantFrom('follow', 'open', 'outline', 'private'),
  cancelled: fc.boolean(),
  ownerAnswer: fc.constantFrom('needs-action', 'accepted', 'declined', 'tentative', null),
  title: fc.constant('T'),
  kind: fc.constant('meeting'),
  place: fc.constant('P'),
  importance: fc.constant('high'),
  notes: fc.constant('N'),
  link: fc.constant(null),
  organiser: fc.constant('O'),
  attendees: fc.constant(['A']),
  categories: fc.constant([]),
  repeats: fc.constant(null),
  createdBy: fc.constant('C'),
  briefing: fc.constant('B'),
});
export const standing: fc.Arbitrary<Standing> = fc.record({
  named: fc.boolean(),
  created: fc.boolean(),
  ownerInvited: fc.boolean(),
});
export const now = fc.integer({ min: 0, max: 6 });
export const world = fc.tuple(collectionOf('calendar'), viewer, now, house, item, standing);
export const anyWorld = fc.tuple(collectionOf(...COLLECTION_KINDS), viewer, now, house);

/** Rights as numbers, the rule read line by line. */
export function oracle(
  c: Collection,
  v: Viewer,
  at: number,
  h: HouseRules,
): { r: Rights; ceiling: number; owner: boolean } {
  const none = {
    sight: 'nothing',
    add: false,
    change: 'none',
    remove: 'none',
    suggest: false,
    private: false,
    speaks: false,
    copies: false,
    shares: false,
    absence: false,
  } as const;
  if (v.kind === 'person' && v.id === c.owner)
    return {
      r: {
        ...none,
        sight: 'full',
        add: true,
        change: 'all',
        remove: 'all',
        private: true,
        speaks: true,
        copies: true,
        shares: true,
        absence: true,
      },
      ceiling: 4,
      owner: true,
    };
  if (c.suspended) return { r: none, ceiling: 0, owner: false };
  const live = c.grants.filter((g) => !(g.from !== null && g.from > at) && !(g.until !== null && g.until <= at));
  const tiers =
    v.kind === 'link'
      ? [live.filter((g) => g.audience.kind === 'link' && g.audience.id === v.id)]
      : [
          live.filter((g) => g.audience.kind === 'person' && g.audience.id === v.id),
          live.filter((g) => g.audience.kind === 'group' && v.groups.has(g.audience.id)),
          v.inside ? live.filter((g) => g.audience.kind === 'everyone') : [],
        ];
  const tier = tiers.findIndex((t) => t.length > 0);
  if (tier < 0) return { r: none, ceiling: 0, owner: false };
  const chosen = tiers[tier] ?? [];
  let sight = Math.max(...chosen.map((g) => SIGHT.indexOf(g.rights.sight)));
  let change = Math.max(...chosen.map((g) => SCOPE.indexOf(g.rights.change)));
  let remove = Math.max(...chosen.map((g) => SCOPE.indexOf(g.rights.remove)));
  let add = chosen.some((g) => g.rights.add);
  const flags = new Map(FLAGS.map((f) => [f as string, chosen.some((g) => g.rights[f])]));
  let ceiling = 4;
  if (v.kind === 'link') {
    ceiling = SIGHT.indexOf(h.linkSight);
    change = remove = 0;
    add = false;
    for (const f of FLAGS) flags.set(f, false);
  } else if (!v.inside) {
    ceiling = SIGHT.indexOf(h.outsideSight);
    const most = SCOPE.indexOf(h.outsideReach);
    change = Math.min(change, most);
    remove = Math.min(remove, most);
    if (most === 0) add = false;
    if (!h.outsideExtras) for (const f of ['private', 'speaks', 'copies', 'shares', 'absence']) flags.set(f, false);
  } else if (tier === 2) ceiling = SIGHT.indexOf(h.everyoneSight);
  sight = Math.min(sight, ceiling);
  if (c.kind !== 'calendar') {
    if (sight === 1) sight = 0;
    if (ceiling === 1) ceiling = 0;
    for (const f of ['copies', 'absence']) flags.set(f, false);
    if (c.kind !== 'folder') flags.set('speaks', false);
  }
  if (!c.main) for (const f of ['copies', 'absence']) flags.set(f, false);
  if (sight === 0) return { r: none, ceiling, owner: false };
  if (sight < 4) {
    change = Math.min(change, 1);
    remove = Math.min(remove, 1);
    for (const f of ['private', 'speaks', 'copies']) flags.set(f, false);
  }
  if (!add) flags.set('speaks', false);
  if (change + remove < 4) flags.set('shares', false);
  const flag = (f: string) => flags.get(f) ?? false;
  return {
    r: {
      sight: SIGHT[sight] ?? 'nothing',
      add,
      change: SCOPE[change] ?? 'none',
      remove: SCOPE[remove] ?? 'none',
      suggest: flag('suggest'),
      private: flag('private'),
      speaks: flag('speaks'),
      copies: flag('copies'),
      shares: flag('shares'),
      absence: flag('absence'),
    },
    ceiling,
    owner: false,
  };
}
