import type Database from 'better-sqlite3';
import { openAccountsFile } from '../db/index.ts';
import { settings } from '../settings.ts';

const holder = globalThis as { paramoSessions?: Database.Statement };

/** Whether a session stands at this instant: one look, without waiting, so that it can be asked within a transaction. */
export function sessionHolds(id: string): boolean {
  holder.paramoSessions ??= openAccountsFile(settings().data).prepare('SELECT expiresAt FROM session WHERE id = ?');
  const row = holder.paramoSessions.get(id) as { expiresAt: string | number } | undefined;
  return row !== undefined && new Date(row.expiresAt).getTime() > Date.now();
}
