/** The kinds of collection that can be shared. A `folder` holds messages. */
export const COLLECTION_KINDS = ['calendar', 'contacts', 'tasks', 'folder'] as const;
export type CollectionKind = (typeof COLLECTION_KINDS)[number];
/** Those that are given: messages are each their parties’ own so far. */
export const GIVEN_KINDS = ['calendar', 'tasks', 'contacts'] as const;
export type GivenKind = (typeof GIVEN_KINDS)[number];
