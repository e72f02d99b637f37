import { LIMITS, VISIBILITIES } from '../calendar/index.ts';
import type { FieldSpec } from '../fields/index.ts';

/** The versions of vCard that are read and written: RFC 2426 and RFC 6350. */
export const CARD_VERSIONS = ['3.0', '4.0'] as const;
export type CardVersion = (typeof CARD_VERSIONS)[number];

/** Where a mail address or a number belongs; an empty word says nothing of it. */
export const ADDRESS_PLACES = ['', 'work', 'home'] as const;
export const PHONE_PLACES = ['', 'work', 'mobile', 'home', 'fax'] as const;

/** Every field of a contact, once; the property is that of RFC 6350. Schemas, columns, views, patches and the trail are made of this table. */
export const CONTACT_FIELDS = {
  name: { type: 'line', most: LIMITS.title, required: true, sight: 'title', searched: true, file: 'FN' },
  role: { type: 'line', most: LIMITS.title, sight: 'outline', searched: true, file: 'TITLE' },
  organisation: { type: 'line', most: LIMITS.title, sight: 'outline', searched: true, file: 'ORG' },
  place: { type: 'line', most: LIMITS.place, sight: 'outline', searched: true, file: 'ADR' },
  addresses: {
    type: 'ways',
    most: 20,
    each: LIMITS.address,
    of: ADDRESS_PLACES,
    mail: true,
    sight: 'full',
    searched: true,
    file: 'EMAIL',
  },
  phones: { type: 'ways', most: 20, each: 80, of: PHONE_PLACES, sight: 'full', searched: true, file: 'TEL' },
  link: { type: 'link', most: LIMITS.link, sight: 'full', searched: true, file: 'URL' },
  notes: { type: 'text', most: LIMITS.notes, sight: 'full', searched: true, file: 'NOTE' },
  categories: {
    type: 'list',
    most: LIMITS.categories,
    each: LIMITS.category,
    sight: 'full',
    searched: true,
    file: 'CATEGORIES',
  },
  visibility: {
    type: 'choice',
    of: VISIBILITIES,
    fresh: 'follow',
    sight: 'full',
    decides: true,
    file: 'X-PARAMO-VISIBILITY',
  },
  createdBy: { type: 'made', sight: 'full' },
} as const satisfies Record<string, FieldSpec>;
