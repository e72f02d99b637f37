import type Database from 'better-sqlite3';

/** Where a repeat's rule stands within JSON: what was said of meetings, and what is on its way or waits for a yes. */
const PLACES = [
  ['meeting', 'state'],
  ['delivery', 'what'],
  ['message', 'facts'],
  ['suggestion', 'body'],
] as const;

/**
 * Takes the Z from the ends of rules within JSON, as migration 0046 does in columns of their own: a meeting would else be held to have
 * changed its time. What the trail holds stays as it was chained.
 */
export function endRulesOnWallClock(raw: Database.Database): void {
  for (const [table, column] of PLACES) {
    const rows = raw.prepare(`SELECT id, ${column} AS text FROM ${table} WHERE ${column} LIKE '%UNTIL=%Z%'`).all();
    const put = raw.prepare(`UPDATE ${table} SET ${column} = ? WHERE id = ?`);
    for (const { id, text } of rows as { id: number; text: string }[])
      put.run(text.replace(/(UNTIL=\d{8}T\d{6})Z/g, '$1'), id);
  }
}
