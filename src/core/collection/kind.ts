/** The kinds of collection that can be shared, each given by itself. A `folder` holds messages. */
export const COLLECTION_KINDS = ['calendar', 'contacts', 'tasks', 'folder'] as const;
export type CollectionKind = (typeof COLLECTION_KINDS)[number];
