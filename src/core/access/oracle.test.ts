import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Item } from '../calendar/index.ts';
import { COLLECTION_KINDS, type CollectionKind, type OtherItems } from '../collection/index.ts';
import {
  type Collection,
  decide,
  deciderFor,
  explain,
  fieldPolicy,
  fitRights,
  type HouseRules,
  may,
  mayItem,
  offeredOn,
  project,
  projectOther,
  type Rights,
  type Standing,
  type Viewer,
} from './index.ts';

/*
 * A second implementation of the rule, written apart from the first: tables and loops over plain numbers, no shared code.
 * Both must answer alike for every random policy; then the rule's invariants are held over the same policies.
 */
const SIGHT = ['nothing', 'busy', 'title', 'outline', 'full'] as const;
const SCOPE = ['none', 'own', 'all'] as const;
const FLAGS = ['suggest', 'private', 'speaks', 'copies', 'shares'] as const;

const rights = fc.record({
  sight: fc.constantFrom(...SIGHT),
  add: fc.boolean(),
  change: fc.constantFrom(...SCOPE),
  remove: fc.constantFrom(...SCOPE),
  suggest: fc.boolean(),
  private: fc.boolean(),
  speaks: fc.boolean(),
  copies: fc.boolean(),
  shares: fc.boolean(),
});
const edge = fc.option(fc.integer({ min: 0, max: 6 }), { nil: null });
const audience = fc.oneof(
  fc.record({ kind: fc.constant('person' as const), id: fc.constantFrom('ada', 'xeno', 'owner', 'bea') }),
  fc.record({ kind: fc.constant('group' as const), id: fc.constantFrom('g', 'h') }),
  fc.constant({ kind: 'everyone' as const }),
  fc.record({ kind: fc.constant('link' as const), id: fc.constantFrom('L', 'M') }),
);
const grants = fc.array(
  fc.record({ key: fc.string({ minLength: 1, maxLength: 3 }), audience, rights, from: edge, until: edge }),
  { maxLength: 6 },
);
const ALL = offeredOn({ kind: 'calendar', main: true });
const collectionOf = (...kinds: CollectionKind[]): fc.Arbitrary<Collection> =>
  fc.record({
    kind: fc.constantFrom(...kinds),
    main: fc.boolean(),
    owner: fc.constant('owner'),
    suspended: fc.boolean().map((b) => b && true),
    grants,
  });
const house: fc.Arbitrary<HouseRules> = fc.record({
  everyoneSight: fc.constantFrom(...SIGHT),
  outsideSight: fc.constantFrom(...SIGHT),
  outsideReach: fc.constantFrom(...SCOPE),
  outsideExtras: fc.boolean(),
  linkSight: fc.constantFrom(...SIGHT),
});
const viewer: fc.Arbitrary<Viewer> = fc.oneof(
  fc.record({
    kind: fc.constant('person' as const),
    id: fc.constantFrom('ada', 'xeno', 'owner'),
    inside: fc.boolean(),
    groups: fc.subarray(['g', 'h']).map((g): ReadonlySet<string> => new Set(g)),
  }),
  fc.record({ kind: fc.constant('link' as const), id: fc.constantFrom('L', 'N') }),
);
const item: fc.Arbitrary<Item<string, string>> = fc.record({
  start: fc.constant('S'),
  end: fc.constant('E'),
  allDay: fc.boolean(),
  shows: fc.constantFrom('free', 'tentative', 'busy', 'away'),
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
const standing: fc.Arbitrary<Standing> = fc.record({
  named: fc.boolean(),
  created: fc.boolean(),
  ownerInvited: fc.boolean(),
});
const now = fc.integer({ min: 0, max: 6 });
const world = fc.tuple(collectionOf('calendar'), viewer, now, house, item, standing);
const anyWorld = fc.tuple(collectionOf(...COLLECTION_KINDS), viewer, now, house);

/** Rights as numbers, the rule read line by line. */
function oracle(c: Collection, v: Viewer, at: number, h: HouseRules): { r: Rights; ceiling: number; owner: boolean } {
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
    if (!h.outsideExtras) for (const f of ['private', 'speaks', 'copies', 'shares']) flags.set(f, false);
  } else if (tier === 2) ceiling = SIGHT.indexOf(h.everyoneSight);
  sight = Math.min(sight, ceiling);
  if (c.kind !== 'calendar') {
    if (sight === 1) sight = 0;
    if (ceiling === 1) ceiling = 0;
    flags.set('copies', false);
    if (c.kind !== 'folder') flags.set('speaks', false);
  }
  if (!c.main) flags.set('copies', false);
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
    },
    ceiling,
    owner: false,
  };
}

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

describe('collections of other kinds and a second reading of them', () => {
  const kept = {
    visibility: fc.constantFrom('follow', 'open', 'outline', 'private'),
    createdBy: fc.constant('C'),
  } as const;
  const contact = fc.record({
    name: fc.constant('Marta'),
    role: fc.constant('auditor'),
    organisation: fc.constant(null),
    place: fc.constant('Faro'),
    addresses: fc.constant(['m@quill.example']),
    phones: fc.constant([]),
    notes: fc.constant('N'),
    categories: fc.constant([]),
    ...kept,
  });
  const task = fc.record({
    title: fc.constant('Sign'),
    due: fc.constant('2027-03-04'),
    done: fc.boolean(),
    belongsTo: fc.constant('Audit'),
    notes: fc.constant(null),
    link: fc.constant(null),
    categories: fc.constant([]),
    importance: fc.constant('high' as const),
    repeats: fc.constant(null),
    ...kept,
  });
  const message = fc.record({
    from: fc.constant('m@quill.example'),
    to: fc.constant(['ines@cloudmoor.example']),
    when: fc.constant('2027-03-01T09:00:00Z'),
    subject: fc.constant('Draft'),
    firstLine: fc.constant('Here it is'),
    attached: fc.boolean(),
    text: fc.constant('Here it is. All of it.'),
    attachments: fc.constant(['draft.pdf']),
    categories: fc.constant([]),
    ...kept,
  });
  const LADDER: Record<string, { title: string[]; outline: string[]; full: string[] }> = {
    contacts: {
      title: ['name'],
      outline: ['role', 'organisation', 'place'],
      full: ['addresses', 'phones', 'notes', 'categories'],
    },
    tasks: {
      title: ['title', 'due', 'done'],
      outline: ['belongsTo'],
      full: ['notes', 'link', 'categories', 'importance', 'repeats'],
    },
    folder: {
      title: ['from', 'to', 'when', 'subject'],
      outline: ['firstLine', 'attached'],
      full: ['text', 'attachments', 'categories'],
    },
  };

  test('show alike: the fields of a sight and of those below it; what is private is nowhere', () => {
    const any = fc.oneof(
      fc.record({ kind: fc.constant('contacts' as const), item: contact }),
      fc.record({ kind: fc.constant('tasks' as const), item: task }),
      fc.record({ kind: fc.constant('folder' as const), item: message }),
    );
    const met = new Set<string>();
    fc.assert(
      fc.property(any, anyWorld, rights, standing, ({ kind, item: it }, [c0, v, at, h], given, s) => {
        // Whoever is called Ada is given something by name, so that every sight is met often.
        const named0 = {
          key: 'ada',
          audience: { kind: 'person' as const, id: 'ada' },
          rights: given,
          from: null,
          until: null,
        };
        const c = { ...c0, kind, grants: [named0, ...c0.grants] };
        const { r, ceiling, owner } = oracle(c, v, at, h);
        const d = decide(c, v, at, h);
        const named = s.named && kind !== 'folder';
        let seen = r.sight === 'nothing' ? 0 : SIGHT.indexOf(r.sight);
        if (seen > 0) {
          if (owner || named || (s.created && r.change !== 'none')) seen = 4;
          else if (it.visibility === 'open') seen = ceiling;
          else if (it.visibility === 'outline') seen = r.change === 'all' ? 4 : Math.min(seen, 3);
          else if (it.visibility === 'private' && !r.private) seen = 0;
        }
        const ladder = LADDER[kind] as (typeof LADDER)[string];
        const want = [
          ...(seen > 1 ? ladder.title : []),
          ...(seen > 2 ? ladder.outline : []),
          ...(seen > 3 ? [...ladder.full, 'visibility', 'createdBy'] : []),
        ].sort();
        const view = projectOther(kind, it as OtherItems<string>[typeof kind], s, d);
        expect(view === null ? [] : Object.keys(view).sort()).toEqual(want);
        met.add(`${kind} ${seen}`);
        const facts = { shows: 'busy', visibility: it.visibility, cancelled: false, ownerAnswer: null } as const;
        const can = mayItem(facts, s, d);
        expect(can.answer).toBe(false);
        if (seen === 0 && r.sight !== 'nothing')
          expect(can).toEqual({ change: false, remove: false, suggest: false, answer: false });
      }),
      { numRuns: 6000 },
    );
    for (const kind of ['contacts', 'tasks', 'folder'])
      for (const n of [0, 2, 3, 4]) expect(met).toContain(`${kind} ${n}`);
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
