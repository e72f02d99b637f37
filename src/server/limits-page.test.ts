import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';

/** A map or a set that lives as long as the process: at the top of a module, or on what all bundles share. */
const LASTING =
  /^(?:export )?(?:const|let) \w+[^=\n]*= new (?:Map|Set|WeakMap)(?:<[^()]*>)?\(\)|globalThis as \{[^}]*Map</m;

test('the page of limits lists every map that a process keeps', () => {
  const page = readFileSync('docs/limits.md', 'utf8');
  const files = ['src/core', 'src/server'].flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
      .map((name) => join(folder, name)),
  );
  const keeping = files.filter((file) => LASTING.test(readFileSync(file, 'utf8')));
  expect(keeping.length).toBeGreaterThan(8);
  expect(keeping.filter((file) => !page.includes(`\`${file.slice('src/'.length)}\``))).toEqual([]);
});
