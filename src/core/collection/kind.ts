/** The kinds of collection that can be shared, each given by itself. A `folder` holds messages. */
export const COLLECTION_KINDS = ['calendar', 'contacts', 'tasks', 'folder'] as const;
export type CollectionKind = (typeof COLLECTION_KINDS)[number];

/** What everybody inside begins with: a calendar, a list of tasks, an address book, and the four message folders. */
export const FIRST_COLLECTIONS = ['calendar', 'tasks', 'contacts', 'arrived', 'sent', 'drafts', 'filed'] as const;
export type FirstCollection = (typeof FIRST_COLLECTIONS)[number];

/** Of which kind that is. */
export const kindOfFirst = (first: FirstCollection): CollectionKind =>
  first === 'calendar' || first === 'tasks' || first === 'contacts' ? first : 'folder';
