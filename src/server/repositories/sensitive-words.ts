import type { OwnWord } from '@/core/review/index.ts';
import type { Connection } from '../db/index.ts';

/** A person's own words, by which an item looks sensitive to them, or doesn't. */
export function sensitiveWordsOf(db: Connection, personId: number): OwnWord[] {
  return db.all<OwnWord>('SELECT word, topic FROM sensitive_word WHERE person_id = ? ORDER BY word', personId);
}

/** Puts a list of words in place of the one before. */
export function replaceSensitiveWords(db: Connection, personId: number, words: readonly OwnWord[]): void {
  db.run('DELETE FROM sensitive_word WHERE person_id = ?', personId);
  for (const { word, topic } of words)
    db.run('INSERT OR REPLACE INTO sensitive_word (person_id, word, topic) VALUES (?, ?, ?)', personId, word, topic);
}
