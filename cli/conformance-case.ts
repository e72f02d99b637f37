import { z } from 'zod';
import {
  type Collection,
  decide,
  type Grant,
  may,
  mayItem,
  project,
  projectOther,
  STARTING_HOUSE_RULES,
  type Standing,
  type Viewer,
} from '../src/core/access/index.ts';
import { type Item, SCOPES, SIGHTS } from '../src/core/calendar/index.ts';
import { COLLECTION_KINDS, type OtherItems } from '../src/core/collection/index.ts';
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
  absence: flag,
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

/** An item of contacts, tasks or a message folder: its fields are those of `otherPolicies`. */
const otherItemSchema = z.looseObject({
  visibility: z.enum(['follow', 'open', 'outline', 'private']).optional(),
  createdBy: z.string().nullish(),
});

/** A case file as `docs/access.md` describes it. */
const caseShape = z.object({
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
  collection: z.object({
    kind: z.enum(COLLECTION_KINDS).default('calendar'),
    owner: z.string(),
    suspended: flag,
    grants: z.array(grantSchema).default([]),
  }),
  items: z.array(z.unknown()).default([]),
  viewer: z.union([z.object({ person: z.string() }), z.object({ link: z.string() })]),
  expect: z.object({
    decision: z.record(z.string(), z.unknown()).optional(),
    items: z.array(z.unknown()).optional(),
    may: z.record(z.string(), z.unknown()).optional(),
  }),
});

export const caseSchema = caseShape.transform((file, ctx) => {
  const { kind } = file.collection;
  const items = z.array(kind === 'calendar' ? itemSchema : otherItemSchema).safeParse(file.items);
  if (items.success) return { ...file, items: items.data };
  for (const issue of items.error.issues)
    ctx.addIssue({ code: 'custom', message: issue.message, path: ['items', ...issue.path] });
  return z.NEVER;
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
  const { kind, owner, suspended } = file.collection;
  const collection: Collection = { kind, main: true, owner, suspended, grants };
  const decision = decide(collection, viewer, parseInstant(file.now) as number, file.houseRules);
  const seen = file.items.map((item) => {
    const stands = standing(item as unknown as Item<string, string>, file);
    if (kind === 'calendar') {
      const it = item as unknown as Item<string, string>;
      return { view: project(it, stands, decision), may: mayItem(it, stands, decision) };
    }
    const it = { visibility: 'follow', ...item } as unknown as OtherItems<string>[typeof kind];
    const facts = { visibility: it.visibility, shows: 'busy', cancelled: false, ownerAnswer: null } as const;
    return { view: projectOther(kind, it, stands, decision), may: mayItem(facts, stands, decision) };
  });
  // The right to set the away notice is asked for where a case speaks of it alone: cases are also written by those who know five extras.
  const { absence, ...five } = decision.rights;
  const speaksOfIt = 'absence' in (file.expect.decision ?? {});
  return {
    decision: speaksOfIt ? { ...five, absence } : five,
    items: seen.map(({ view }) => withoutAbsent(view)),
    may: { ...may(decision), items: seen.map((s) => s.may) },
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
