/** What a viewer sees of items, lowest first. */
export const SIGHTS = ['nothing', 'busy', 'title', 'outline', 'full'] as const;
export type Sight = (typeof SIGHTS)[number];

/** How far changing or removing goes, lowest first; `own` means items the viewer added. */
export const SCOPES = ['none', 'own', 'all'] as const;
export type Scope = (typeof SCOPES)[number];
