import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';

test('the page of tables is what the migrations come to', () => {
  const page = execFileSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { tablesPage } from './scripts/tables.mjs'; process.stdout.write(tablesPage());`,
    ],
    { encoding: 'utf8' },
  );
  expect(readFileSync('docs/tables.md', 'utf8')).toBe(page);
});
