import type { AudienceWire } from '@/contract/access.ts';
import type { Viewer } from '@/core/access/index.ts';
import type { StoredAudience, StoredGrant } from '../repositories/grants.ts';
import { allGroups, type Group } from '../repositories/groups.ts';
import { type Person, personByHandle, personById } from '../repositories/people.ts';
import type { Context } from './context.ts';
import { viewerOf } from './deciding.ts';

/** An audience found in the directory: how it is stored, whom it names, and a viewer who gets what it gets. */
export interface FoundAudience {
  readonly wire: AudienceWire;
  readonly stored: StoredAudience;
  readonly person: Person | null;
  readonly viewer: Viewer;
  readonly name: string;
  readonly detail: string;
}

/** Finds an audience by what the browser calls it; `null` where the directory has none such. */
export function findAudience(ctx: Context, wire: AudienceWire): FoundAudience | null {
  if (wire.kind === 'everyone') return everyone(wire);
  if (wire.kind === 'person') {
    const person = personByHandle(ctx.db, wire.id);
    return person && ofPerson(ctx, person);
  }
  const group = allGroups(ctx.db).find((g) => g.key === wire.id);
  return group ? ofGroup(group) : null;
}

/** The audience a stored grant speaks to; `null` for a link, which Sightlines doesn't list yet. */
export function audienceOf(ctx: Context, grant: StoredGrant): FoundAudience | null {
  const a = grant.audience;
  if (a.kind === 'everyone') return everyone({ kind: 'everyone' });
  if (a.kind === 'person') {
    const person = personById(ctx.db, a.personId);
    return person && ofPerson(ctx, person);
  }
  if (a.kind === 'group') {
    const group = allGroups(ctx.db).find((g) => g.id === a.groupId);
    return group ? ofGroup(group) : null;
  }
  return null;
}

function ofPerson(ctx: Context, person: Person): FoundAudience {
  return {
    wire: { kind: 'person', id: person.handle },
    stored: { kind: 'person', personId: person.id },
    person,
    viewer: viewerOf(ctx.db, person),
    name: person.name,
    detail: [person.role, person.address].filter(Boolean).join(' · '),
  };
}

// Someone inside who is named nowhere stands for everyone, and one who is in this group alone for the group.
function ofGroup(group: Group): FoundAudience {
  return {
    wire: { kind: 'group', id: group.key },
    stored: { kind: 'group', groupId: group.id },
    person: null,
    viewer: { kind: 'person', id: 'no one by name', inside: true, groups: new Set([String(group.id)]) },
    name: group.name,
    detail: String(group.members),
  };
}

function everyone(wire: AudienceWire): FoundAudience {
  return {
    wire,
    stored: { kind: 'everyone' },
    person: null,
    viewer: { kind: 'person', id: 'no one by name', inside: true, groups: new Set() },
    name: '',
    detail: '',
  };
}

export function sameAudience(a: StoredAudience, b: StoredAudience): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
