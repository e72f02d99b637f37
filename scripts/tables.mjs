// @ts-check
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import Database from 'better-sqlite3';

/* Draws the tables as they stand after the last migration: `node scripts/tables.mjs` writes docs/tables.md. */
const MIGRATIONS = 'src/server/db/migrations';

/** The page: a diagram of which table points at which, then each table with its columns. */
export function tablesPage() {
  const db = new Database(':memory:');
  db.pragma('foreign_keys = OFF');
  for (const name of readdirSync(MIGRATIONS).sort()) db.exec(readFileSync(join(MIGRATIONS, name), 'utf8'));
  const tables = /** @type {string[]} */ (
    db
      .prepare(
        "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'item_text_%' ORDER BY name",
      )
      .pluck()
      .all()
  );
  /** @param {string} table @param {string} what */
  const about = (table, what) => /** @type {any[]} */ (db.pragma(`${what}(${table})`));
  const arrows = tables.flatMap((table) =>
    [...new Set(about(table, 'foreign_key_list').map((key) => `${key.table}`))].map(
      (to) => `  ${to} ||--o{ ${table} : ""`,
    ),
  );
  const lists = tables.map((table) => {
    const keys = new Map(about(table, 'foreign_key_list').map((key) => [key.from, key.table]));
    const columns = about(table, 'table_info').map((one) => {
      const to = keys.get(one.name);
      return `\`${one.name}\`${one.notnull || one.pk ? '' : '?'}${to ? ` → ${to}` : ''}`;
    });
    return `| ${table} | ${columns.join(', ')} |`;
  });
  db.close();
  return [
    '# Tables',
    '',
    'Made from the migrations by `node scripts/tables.mjs`; a test fails where this page is not what they come to. A `?` may be nothing.',
    '',
    '```mermaid',
    'erDiagram',
    ...arrows,
    '```',
    '',
    '| table | columns |',
    '| --- | --- |',
    ...lists,
    '',
  ].join('\n');
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) writeFileSync('docs/tables.md', tablesPage());
