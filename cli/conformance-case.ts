import { z } from 'zod';
import {
  type Collection,
  decide,
  type Grant,
  may,
  mayItem,
  project,
  STARTING_HOUSE_RULES,
  type Standing,
  type Viewer,
} from '../src/core/access/index.ts';
import { type Item, SCOPES, SIGHTS } from '../src/core/calendar/index.ts';
import { parseInstant } from '../src/core/time/index.ts';

const sight = z.enum(SIGHTS);
const scope = z.enum(SCOPES);
const flag = z.boolean().default(false);
const instant = z
  .string()
  .refine((s) => parseInstant(s) !== null, 'not an instant')
  .nullish();

const grantSchema = z.object({
  audience: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('person'), id: z.string() }),
    z.object({ kind: z.literal('group'), id: z.string() }),
    z.object({ kind: z.literal('everyone') }),
    z.object({ kind: z.literal('link'), id: z.string() }),
  ]),
  sight,
  add: flag,
  change: scope.default('none'),
  remove: scope.default('none'),
  suggest: flag,
  private: flag,
  speaks: flag,
  copies: flag,
  shares: flag,
  from: instant,
  until: instant,
});

const itemSchema = z.looseObject({
  shows: z.enum(['free', 'tentative', 'busy', 'away']),
  visibility: z.enum(['follow', 'open', 'outline', 'private']),
  cancelled: flag,
  ownerAnswer: z.enum(['needs-action', 'accepted', 'declined', 'tentative']).nullish(),
  organiser: z.string().nullish(),
  attendees: z.array(z.string()).nullish(),
  createdBy: z.string().nullish(),
});

/** A case file as `docs/access.md` describes it. */
export const caseSchema = z.object({
  name: z.string().default(''),
  now: z.string().refine((s) => parseInstant(s) !== null, 'not an instant'),
  houseRules: z
    .object({
      everyoneSight: sight.default(STARTING_HOUSE_RULES.everyoneSight),
      outsideSight: sight.default(STARTING_HOUSE_RULES.outsideSight),
      outsideReach: scope.default(STARTING_HOUSE_RULES.outsideReach),
      outsideExtras: flag,
      linkSight: sight.default(STARTING_HOUSE_RULES.linkSight),
    })
    .default(STARTING_HOUSE_RULES),
  people: z.record(z.string(), z.object({ inside: flag })).default({}),
  groups: z.record(z.string(), z.array(z.string())).default({}),
  collection: z.object({ owner: z.string(), suspended: flag, grants: z.array(grantSchema).default([]) }),
  items: z.array(itemSchema).default([]),
  viewer: z.union([z.object({ person: z.string() }), z.object({ link: z.string() })]),
  expect: z.object({
    decision: z.record(z.string(), z.unknown()).optional(),
    items: z.array(z.unknown()).optional(),
    may: z.record(z.string(), z.unknown()).optional(),
  }),
});
export type CaseFile = z.infer<typeof caseSchema>;

/** What the rule answers for a case, in the shape of its `expect`. */
export function runCase(file: CaseFile): CaseFile['expect'] {
  const viewer = viewerOf(file);
  const grants: Grant[] = file.collection.grants.map(({ audience, from, until, ...rights }, index) => ({
    key: String(index),
    audience,
    rights,
    from: from ? parseInstant(from) : null,
    until: until ? parseInstant(until) : null,
  }));
  const collection: Collection = { owner: file.collection.owner, suspended: file.collection.suspended, grants };
  const decision = decide(collection, viewer, parseInstant(file.now) as number, file.houseRules);
  const items = file.items as unknown as Item<string, string>[];
  const standings = items.map((item) => standing(item, file));
  return {
    decision: { ...decision.rights },
    items: items.map((item, i) => withoutAbsent(project(item, standings[i] as Standing, decision))),
    may: {
      ...may(decision),
      items: items.map((item, i) => mayItem(item, standings[i] as Standing, decision)),
    },
  };
}

function viewerOf(file: CaseFile): Viewer {
  if ('link' in file.viewer) return { kind: 'link', id: file.viewer.link };
  const id = file.viewer.person;
  const groups = Object.entries(file.groups).filter(([, members]) => members.includes(id));
  return { kind: 'person', id, inside: file.people[id]?.inside ?? false, groups: new Set(groups.map(([g]) => g)) };
}

function standing(item: Item<string, string>, file: CaseFile): Standing {
  const person = 'person' in file.viewer ? file.viewer.person : null;
  const { owner } = file.collection;
  const attendees = item.attendees ?? [];
  return {
    named: person !== null && (item.organiser === person || attendees.includes(person)),
    created: person !== null && item.createdBy === person,
    ownerInvited: attendees.includes(owner) && item.organiser !== owner,
  };
}

function withoutAbsent(view: object | null): unknown {
  return view && Object.fromEntries(Object.entries(view).filter(([, value]) => value !== undefined));
}
