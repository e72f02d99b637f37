import type { AudienceWire, SightlineRow, SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { plain } from '../../common/fields/people-options.tsx';
import { listedAt, readTyped } from '../begin/typed.ts';

/** Somebody or a group that a line of a pasted list means; `audience` is `null` where it means nobody. */
export interface Meant {
  readonly word: string;
  readonly audience: AudienceWire | null;
  readonly name: string;
  readonly outside: boolean;
  /** Of a group, how many are in it. */
  readonly members: number | null;
}

/** Whom a line means: a name or an address of the directory, a group by its name, or an address outside; nobody otherwise. */
function meantBy(word: string, lines: SightlinesAnswer): Meant {
  const typed = readTyped(word);
  const named = lines.people.filter((p) => plain(p.name) === plain(word));
  const person = typed
    ? lines.people.find((p) => p.address === typed.address)
    : named.length === 1
      ? named[0]
      : undefined;
  const inside = { word, outside: false, members: null };
  if (person) return { ...inside, audience: { kind: 'person', id: person.handle }, name: person.name };
  const groups = lines.groups.filter((g) => plain(g.name) === plain(word));
  const [group] = groups;
  if (!typed && group && groups.length === 1 && named.length === 0)
    return { ...inside, audience: { kind: 'group', id: group.key }, name: group.name, members: group.members };
  if (!typed) return { ...inside, audience: null, name: word };
  const audience = { kind: 'address' as const, address: typed.address, ...(typed.name ? { name: typed.name } : {}) };
  return { ...inside, audience, name: typed.name || typed.address, outside: true };
}

/** All that a pasted list means, each once, and the words that mean nobody. */
export function readList(text: string, lines: SightlinesAnswer): { people: readonly Meant[]; unknown: string[] } {
  const found = text
    .split(/[\n,;]+/)
    .map((w) => w.trim())
    .filter(Boolean)
    .map((word) => meantBy(word, lines));
  return {
    people: [...new Map(found.filter((m) => m.audience).map((m) => [JSON.stringify(m.audience), m])).values()],
    unknown: found.filter((m) => !m.audience).map((m) => m.word),
  };
}

/** The row somebody has already: it is changed, and no second one made. */
export const rowOf = (lines: SightlinesAnswer, { audience }: Meant): SightlineRow | undefined =>
  lines.rows.find((r) => {
    if (audience?.kind === 'address') return r === listedAt(lines.rows, audience.address);
    if (audience?.kind !== 'person' && audience?.kind !== 'group') return false;
    return r.audience.kind === audience.kind && r.audience.id === audience.id;
  });
