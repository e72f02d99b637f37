import type { Connection } from '../db/index.ts';

/** Where something that arrives is filed: all that is said of it must fit. */
export interface MailRule {
  /** In the address or the name of who it is from. */
  readonly sender: string | null;
  /** Words of its subject or its text. */
  readonly words: string | null;
  /** It is about a meeting. */
  readonly meeting: boolean;
  readonly folderId: number;
}

interface Row {
  sender: string | null;
  words: string | null;
  meeting: 0 | 1;
  folder_id: number;
}

/** The rules of somebody, in the order they are asked. */
export const mailRulesOf = (db: Connection, personId: number): MailRule[] =>
  db
    .all<Row>('SELECT sender, words, meeting, folder_id FROM mail_rule WHERE person_id = ? ORDER BY position', personId)
    .map((r) => ({ sender: r.sender, words: r.words, meeting: r.meeting === 1, folderId: r.folder_id }));

/** Puts all of somebody's rules in the place of those that stood. */
export function saveMailRules(db: Connection, personId: number, rules: readonly MailRule[]): void {
  db.run('DELETE FROM mail_rule WHERE person_id = ?', personId);
  for (const [position, r] of rules.entries())
    db.run(
      'INSERT INTO mail_rule (person_id, position, sender, words, meeting, folder_id) VALUES (?, ?, ?, ?, ?, ?)',
      personId,
      position,
      r.sender,
      r.words,
      Number(r.meeting),
      r.folderId,
    );
}
