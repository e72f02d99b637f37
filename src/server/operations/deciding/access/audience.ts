import type { AudienceWire } from '@/contract/sharing/sharing.ts';
import type { Viewer } from '@/core/access/index.ts';
import { newKey } from '../../../ids.ts';
import type { SharedCollection } from '../../../repositories/collections.ts';
import { domains } from '../../../repositories/domains.ts';
import { grantsEverNaming, type StoredAudience, type StoredGrant } from '../../../repositories/grants.ts';
import { type Group, groupById, groupByKey, groupsAround } from '../../../repositories/groups.ts';
import { type Link, linkByKey } from '../../../repositories/links.ts';
import { outsiderName } from '../../../repositories/outsider-names.ts';
import { type Person, personByAddress, personByHandle, personById } from '../../../repositories/people.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { viewerOf } from './deciding.ts';

/** What has to be made before an audience can be given something: an outside person, or a link. */
type ToMake =
  | { readonly kind: 'person'; readonly address: string; readonly name: string }
  | { readonly kind: 'link'; readonly key: string; readonly name: string };

/** An audience of something shared: how it is stored, whom it names, and a viewer who gets what it gets. */
export interface FoundAudience {
  readonly wire: AudienceWire;
  readonly stored: StoredAudience;
  readonly person: Person | null;
  readonly link: Link | null;
  readonly viewer: Viewer;
  readonly name: string;
  readonly detail: string;
  readonly outside: boolean;
  readonly toMake: ToMake | null;
}

const wrong = (code: string): Refusal => refuse('badInput', { fields: { audience: code } });

/**
 * Finds an audience of something shared by what the browser calls it, or refuses at the field `audience`. Somebody outside is found
 * by handle only where they were once named on it; by a typed address always, and is then made when given something. A link shows a calendar
 * and nothing else.
 */
export function findAudience(
  ctx: Context,
  wire: AudienceWire,
  shared: Pick<SharedCollection, 'id' | 'kind'>,
): FoundAudience | Refusal {
  switch (wire.kind) {
    case 'everyone':
      return everyone(wire);
    case 'person': {
      const person = personByHandle(ctx.db, wire.id);
      const known = person && (person.inside || grantsEverNaming(ctx.db, shared.id, person.id));
      return person && known ? ofPerson(ctx, person, shared.id) : wrong('audience');
    }
    case 'group': {
      const group = groupByKey(ctx.db, wire.id);
      return group ? ofGroup(ctx, group) : wrong('audience');
    }
    case 'link': {
      const link = linkByKey(ctx.db, wire.id);
      return link?.collectionId === shared.id ? ofLink(link) : wrong('audience');
    }
    case 'address':
      return ofAddress(ctx, wire, shared.id);
    case 'newLink': {
      if (shared.kind !== 'calendar') return wrong('linkCalendarOnly');
      const key = newKey();
      return {
        ...ofNobody,
        wire,
        stored: { kind: 'link', link: key },
        viewer: { kind: 'link', id: key },
        name: wire.name,
        outside: true,
        toMake: { kind: 'link', key, name: wire.name },
      };
    }
    default:
      return wire satisfies never;
  }
}

/** Reads an audience as it stands in an address: `everyone`, `person:HANDLE`, `group:KEY` or `link:KEY`. */
export function findAudienceParam(
  ctx: Context,
  param: string,
  shared: Pick<SharedCollection, 'id' | 'kind'>,
): FoundAudience | Refusal {
  const [kind = '', id = ''] = param.split(':');
  if (kind === 'everyone') return everyone({ kind });
  return kind === 'person' || kind === 'group' || kind === 'link'
    ? findAudience(ctx, { kind, id }, shared)
    : wrong('audience');
}

/** What somebody to whom access was given is called; `everyone` for all inside, `null` where a row it names is gone. */
export function audienceNamed(ctx: Context, a: StoredAudience): string | null {
  if (a.kind === 'everyone') return 'everyone';
  if (a.kind === 'person') return personById(ctx.db, a.personId)?.name ?? null;
  if (a.kind === 'group') return groupById(ctx.db, a.groupId)?.name ?? null;
  return linkByKey(ctx.db, a.link)?.name ?? null;
}

/** The audience a stored grant speaks to; `null` where a row it names is gone. */
export function audienceOf(ctx: Context, grant: StoredGrant): FoundAudience | null {
  const a = grant.audience;
  if (a.kind === 'everyone') return everyone({ kind: 'everyone' });
  if (a.kind === 'person') {
    const person = personById(ctx.db, a.personId);
    return person && ofPerson(ctx, person, grant.collectionId);
  }
  if (a.kind === 'group') {
    const group = groupById(ctx.db, a.groupId);
    return group ? ofGroup(ctx, group) : null;
  }
  const link = linkByKey(ctx.db, a.link);
  return link && ofLink(link);
}

/** The domain of an e-mail address. */
export const domainOf = (address: string): string => address.slice(address.lastIndexOf('@') + 1);

const ofNobody = {
  person: null,
  link: null,
  detail: '',
  outside: false,
  toMake: null,
} as const;

function ofPerson(ctx: Context, person: Person, sharedId: number): FoundAudience {
  return {
    ...ofNobody,
    wire: { kind: 'person', id: person.handle },
    stored: { kind: 'person', personId: person.id },
    person,
    viewer: viewerOf(ctx.db, person),
    // People outside have a name on each collection: what others call them is not shown here.
    name: person.inside ? person.name : (outsiderName(ctx.db, sharedId, person.id) ?? person.address),
    detail: [person.role, person.address].filter(Boolean).join(' · '),
    outside: !person.inside,
  };
}

function ofAddress(ctx: Context, wire: AudienceWire & { kind: 'address' }, sharedId: number): FoundAudience | Refusal {
  const { address } = wire;
  const person = personByAddress(ctx.db, address);
  const ours = domains(ctx.db).includes(domainOf(address));
  if (person?.inside) return ofPerson(ctx, person, sharedId);
  if (ours) return wrong(person ? 'audienceLeft' : 'addressInside');
  if (person && grantsEverNaming(ctx.db, sharedId, person.id)) return ofPerson(ctx, person, sharedId);
  // The answer is the same whether the address is known elsewhere or not, so that typing one tells nothing.
  const name = wire.name?.trim() || address;
  return {
    ...ofNobody,
    wire,
    stored: { kind: 'person', personId: person?.id ?? 0 },
    viewer: person
      ? viewerOf(ctx.db, person)
      : { kind: 'person', id: 'not here yet', inside: false, groups: new Set() },
    person,
    name,
    detail: address,
    outside: true,
    toMake: { kind: 'person', address, name },
  };
}

// Somebody inside who isn't named anywhere stands for everyone; somebody who is only in this group stands for the group.
function ofGroup(ctx: Context, group: Group): FoundAudience {
  return {
    ...ofNobody,
    wire: { kind: 'group', id: group.key },
    stored: { kind: 'group', groupId: group.id },
    viewer: {
      kind: 'person',
      id: 'no one by name',
      inside: true,
      groups: new Set(groupsAround(ctx.db, group.id).map(String)),
    },
    name: group.name,
    detail: String(group.members),
  };
}

function ofLink(link: Link): FoundAudience {
  return {
    ...ofNobody,
    wire: { kind: 'link', id: link.key },
    stored: { kind: 'link', link: link.key },
    link,
    viewer: { kind: 'link', id: link.key },
    name: link.name,
    outside: true,
  };
}

function everyone(wire: AudienceWire): FoundAudience {
  return {
    ...ofNobody,
    wire,
    stored: { kind: 'everyone' },
    viewer: { kind: 'person', id: 'no one by name', inside: true, groups: new Set() },
    name: '',
  };
}

export function sameAudience(a: StoredAudience, b: StoredAudience): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
