import type { InvitedInput, NewItem } from '@/contract/items/items.ts';
import type { FORWARD_CHANGED, WrittenFields } from '@/core/calendar/index.ts';
import type { Connection } from '../db/index.ts';
import { GROUPS_NOW } from './groups.ts';
import type { StoredItem } from './stored-item.ts';

/** What is kept of a change: the touched fields, and the time as instants (or day starts where all day). */
export interface SuggestedChange {
  readonly when: Pick<StoredItem, 'start' | 'end' | 'allDay'> | null;
  readonly fields: Partial<Pick<WrittenFields, (typeof FORWARD_CHANGED)[number]>>;
  readonly people?: readonly InvitedInput[] | undefined;
  readonly scope?: 'one' | 'all' | undefined;
}

/** What is put forward, by its kind. */
interface SuggestionBodies {
  readonly add: NewItem;
  readonly change: SuggestedChange;
  readonly remove: { readonly scope?: 'one' | 'all' | undefined } | null;
  readonly answer: { readonly answer: 'accepted' | 'tentative' | 'declined'; readonly comment: string };
}
export type PutForward = {
  [K in keyof SuggestionBodies]: { readonly kind: K; readonly body: SuggestionBodies[K] };
}[keyof SuggestionBodies];

/** A change put forward. `item` and `occurrence` (epoch milliseconds) name what it is about; `body` is what the contract read. */
export type Suggestion = PutForward & SuggestionRest;
interface SuggestionRest {
  readonly key: string;
  readonly collectionId: number;
  readonly personId: number;
  readonly at: number;
  readonly itemId: number | null;
  readonly occurrence: number | null;
  readonly version: number | null;
  readonly why: string;
  readonly state: 'open' | 'yes' | 'no' | 'withdrawn';
  readonly answeredBy: number | null;
  readonly answerNote: string;
}

interface Row {
  key: string;
  collection_id: number;
  person_id: number;
  at: number;
  kind: Suggestion['kind'];
  item_id: number | null;
  happening: number | null;
  version: number | null;
  body: string;
  why: string;
  state: Suggestion['state'];
  answered_by: number | null;
  answer_note: string;
}

const decode = (r: Row): Suggestion => ({
  key: r.key,
  collectionId: r.collection_id,
  personId: r.person_id,
  at: r.at,
  itemId: r.item_id,
  occurrence: r.happening,
  version: r.version,
  ...({ kind: r.kind, body: JSON.parse(r.body) } as PutForward),
  why: r.why,
  state: r.state,
  answeredBy: r.answered_by,
  answerNote: r.answer_note,
});

export function insertSuggestion(
  db: Connection,
  s: PutForward & Omit<SuggestionRest, 'state' | 'answeredBy' | 'answerNote'>,
): void {
  db.run(
    `INSERT INTO suggestion (key, collection_id, person_id, at, kind, item_id, happening, version, body, why)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    s.key,
    s.collectionId,
    s.personId,
    s.at,
    s.kind,
    s.itemId,
    s.occurrence,
    s.version,
    JSON.stringify(s.body),
    s.why,
  );
}

/**
 * The suggestions that wait on calendars where a person may change anything at all, as far as the rows of the grants say: one's own
 * calendars, and those with a grant that speaks to them and lets its audience add, change or remove. The oldest first. Which of
 * them they may answer is for the rule to decide.
 */
export function openSuggestionsNear(db: Connection, personId: number): Suggestion[] {
  return db
    .all<Row>(
      `SELECT s.* FROM suggestion s JOIN collection c ON c.id = s.collection_id
       WHERE s.state = 'open' AND s.person_id <> @personId AND (c.owner_id = @personId OR EXISTS (
         SELECT 1 FROM access_grant g WHERE g.collection_id = s.collection_id AND g.recorded_until IS NULL
           AND (g.may_add = 1 OR g.may_change <> 'none' OR g.may_remove <> 'none')
           AND (g.audience = 'everyone' OR g.person_id = @personId OR g.group_id IN (${GROUPS_NOW}))))
       ORDER BY s.id`,
      { personId },
    )
    .map(decode);
}

/** What a person put forward, the newest first. */
export function suggestionsOf(db: Connection, personId: number, most: number): Suggestion[] {
  return db
    .all<Row>('SELECT * FROM suggestion WHERE person_id = ? ORDER BY id DESC LIMIT ?', personId, most)
    .map(decode);
}

/** How many suggestions of a person wait, over all calendars. */
export function openSuggestionsOf(db: Connection, personId: number): number {
  return (
    db.get<{ n: number }>(`SELECT count(*) AS n FROM suggestion WHERE person_id = ? AND state = 'open'`, personId)?.n ??
    0
  );
}

export function suggestionByKey(db: Connection, key: string): Suggestion | null {
  const row = db.get<Row>('SELECT * FROM suggestion WHERE key = ?', key);
  return row ? decode(row) : null;
}

/** Answers a suggestion that is open; `undoKey` is the trail entry of the write that a yes made. */
export function closeSuggestion(
  db: Connection,
  key: string,
  a: { state: 'yes' | 'no' | 'withdrawn'; by: number; at: number; note: string; undoKey: string | null },
): void {
  db.run(
    `UPDATE suggestion SET state = ?, answered_by = ?, answered_at = ?, answer_note = ?, undo_key = ?
     WHERE key = ? AND state = 'open'`,
    a.state,
    a.by,
    a.at,
    a.note,
    a.undoKey,
    key,
  );
}

/** Takes back whatever a person put forward that still waits. */
export function withdrawAllOf(db: Connection, personId: number, at: number): void {
  db.run(
    `UPDATE suggestion SET state = 'withdrawn', answered_at = ? WHERE person_id = ? AND state = 'open'`,
    at,
    personId,
  );
}

/** Opens a suggestion again whose yes is undone, where the write with this trail key came of one. */
export function reopenSuggestion(db: Connection, undoKey: string): void {
  db.run(
    `UPDATE suggestion SET state = 'open', answered_by = NULL, answered_at = NULL, answer_note = '', undo_key = NULL
     WHERE undo_key = ?`,
    undoKey,
  );
}
