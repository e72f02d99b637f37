import type { Connection } from '../../db/index.ts';
import { personByHandle } from '../../repositories/people.ts';

/** A handle nobody has, as near to a wish as plain letters allow. */
export function freeHandle(db: Connection, wish: string): string {
  const plain =
    wish
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 30) || 'person';
  for (let n = 1; ; n++) {
    const handle = n === 1 ? plain : `${plain}-${n}`;
    if (!personByHandle(db, handle)) return handle;
  }
}
