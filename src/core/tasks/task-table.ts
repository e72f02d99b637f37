import { IMPORTANCES, LIMITS, VISIBILITIES } from '../calendar/index.ts';
import type { FieldSpec } from '../fields/index.ts';

/** Every field of a task, once; the property is that of RFC 5545, 3.6.2. Schemas, columns, views, patches and the trail are made of this table. */
export const TASK_FIELDS = {
  title: { type: 'line', most: LIMITS.title, required: true, sight: 'title', searched: true, file: 'SUMMARY' },
  /** A date, or an instant; both as text. */
  due: { type: 'made', sight: 'title' },
  done: { type: 'made', sight: 'title' },
  /** The title of what it is part of. */
  belongsTo: { type: 'made', sight: 'outline' },
  notes: { type: 'text', most: LIMITS.notes, sight: 'full', searched: true, file: 'DESCRIPTION' },
  link: { type: 'link', most: LIMITS.link, sight: 'full', searched: true, file: 'URL' },
  categories: {
    type: 'list',
    most: LIMITS.categories,
    each: LIMITS.category,
    sight: 'full',
    searched: true,
    file: 'CATEGORIES',
  },
  importance: { type: 'choice', of: IMPORTANCES, fresh: 'normal', sight: 'full', file: 'PRIORITY' },
  repeats: { type: 'made', sight: 'full' },
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
