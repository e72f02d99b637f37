import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { LANGUAGES, languageOf } from './languages.ts';
import { TEXTS } from './texts.ts';

/** Every text by its path. */
function leaves(texts: object, below = ''): [string, string][] {
  return Object.entries(texts).flatMap(([key, value]) =>
    typeof value === 'string' ? [[below + key, value] as [string, string]] : leaves(value as object, `${below}${key}.`),
  );
}

/** The arguments of an ICU message, each with its kind, in the order of their names: `count plural`, `name`. Throws where a brace is open. */
function argumentsOf(message: string): string[] {
  const found = new Set<string>();
  let at = 0;
  const text = (depth: number): void => {
    while (at < message.length) {
      if (message[at] === '}') {
        if (depth === 0) throw new Error(`a brace too many in: ${message}`);
        return;
      }
      if (message[at] === '{') argument(depth);
      else at++;
    }
    if (depth > 0) throw new Error(`a brace is open in: ${message}`);
  };
  const argument = (depth: number): void => {
    const head = /^\{\s*(\w+)\s*(?:,\s*(\w+)\s*(,)?)?/.exec(message.slice(at));
    if (!head) throw new Error(`no argument at ${at} of: ${message}`);
    at += head[0].length;
    found.add([head[1], head[2]].filter(Boolean).join(' '));
    if (head[2] === 'plural' || head[2] === 'select') {
      for (;;) {
        const choice = /^\s*(=-?\d+|[^\s{}=]+)\s*\{/.exec(message.slice(at));
        if (!choice) break;
        at += choice[0].length;
        text(depth + 1);
        at++;
      }
    }
    const rest = /^[^{}]*\}/.exec(message.slice(at));
    if (!rest) throw new Error(`a brace is open in: ${message}`);
    at += rest[0].length;
  };
  text(0);
  return [...found].sort();
}

/** The names alone: what one language chooses by, another only says. */
const namesOf = (message: string): string[] => [...new Set(argumentsOf(message).map((one) => one.split(' ')[0] ?? ''))];

const english = leaves(TEXTS.en);

describe.each(LANGUAGES.filter((language) => language !== 'en'))('the texts in %s', (language) => {
  const texts = new Map(leaves(TEXTS[language]));
  test('are as many as in English, none missing and none too many', () => {
    expect([...texts.keys()].sort()).toEqual(english.map(([key]) => key).sort());
  });
  test('take the same values', () => {
    for (const [key, value] of english)
      expect([key, ...namesOf(texts.get(key) ?? '')]).toEqual([key, ...namesOf(value)]);
  });
  test('are translated: a sentence that reads as in English is a name', () => {
    const same = english.filter(
      ([key, value]) => /\p{L}{3,} \p{L}+ \p{L}{3,}/u.test(value) && texts.get(key) === value,
    );
    expect(same.map(([key]) => key)).toEqual([]);
  });
});

test('no text is there that nothing shows', () => {
  const sources = (folder: string): string[] =>
    readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) return sources(path);
      return /\.tsx?$/.test(entry.name) && !/\.test\.ts$/.test(entry.name) ? [readFileSync(path, 'utf8')] : [];
    });
  const all = sources('src').join('\n');
  // A text is named whole or by its end; or its group is, with the end worked out: `statuses.${shows}`, or a translator of that group.
  const named = (path: string): boolean => {
    const parts = path.split('.');
    const last = parts.at(-1) ?? '';
    const escaped = last.replace(/[-/\\^$*+?.()|[\]{}]/g, '\\$&');
    if (new RegExp(`['"\`.]${escaped}['"\`]`).test(all)) return true;
    for (let n = parts.length - 1; n > 0; n--) {
      const group = parts[n - 1] as string;
      const end = parts[n] as string;
      const start = end.replace(/[A-Z_].*$/, '');
      if (all.includes(`${group}.\${`) || all.includes(`${group}.${start}\${`) || all.includes(`.${group}.\${`))
        return true;
      if (
        new RegExp(`(?:useTranslations|namespace:)[ (]*['"](?:\\w+\\.)*${group}['"]`).test(all) &&
        n < parts.length - 1
      )
        return true;
    }
    return false;
  };
  expect(english.map(([key]) => key).filter((key) => !named(key))).toEqual([]);
});

test('the language that is wished for most is spoken, English where it isn’t ours', () => {
  expect(languageOf('pt-PT,pt;q=0.9,en;q=0.8')).toBe('pt');
  expect(languageOf('de, en;q=0.5, pt;q=0.7')).toBe('pt');
  expect(languageOf('en-US,en;q=0.9,pt;q=0.2')).toBe('en');
  expect(languageOf('pt;q=0, en')).toBe('en');
  expect([languageOf(null), languageOf(''), languageOf(';;;,q=')]).toEqual(['en', 'en', 'en']);
});
