import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';

/** A style written at an element whose every value is known beforehand: `style={{ gap: 8 }}` or `sx={{ mt: 1 }}`. */
const KNOWN = /(?:style|sx)=\{\{(?:\s*\w+:\s*(?:'[^']*'|-?[\d.]+),?)+\s*\}\}/g;

const TEXTS = ['src/ui', 'src/app'].flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.tsx'))
    .map((name): [string, string] => [name, readFileSync(join(folder, name), 'utf8')]),
);

test('layout has names: only what is computed, as where a block stands, is written at an element', () => {
  const found = TEXTS.flatMap(([file, text]) => [...text.matchAll(KNOWN)].map(([style]) => `${file}: ${style}`));
  expect(found).toEqual([]);
});

test('each name of the layout is used', () => {
  const names = [...readFileSync('src/ui/layout.css', 'utf8').matchAll(/^ {2}\.([a-z][\w-]*)(?=[ :])/gm)].map(
    ([, name]) => name,
  );
  const unused = names.filter((name) => !TEXTS.some(([, text]) => new RegExp(`["'\`\\s]${name}["'\`\\s]`).test(text)));
  expect(names.length).toBeGreaterThan(40);
  expect(unused).toEqual([]);
});
