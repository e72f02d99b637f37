import type { ZoneDefinition } from '../../time/index.ts';
import { defineZone, isDefined, isZone, offsetAt } from '../../time/index.ts';
import { agrees, definitionOf, filledUp } from './definition.ts';
import type { Block } from './lines.ts';
import { insideOf } from './property.ts';

/** A zone that a file defined and that no named zone stands for: the name it has here, the one it has in the file, its text. */
export interface FileZone {
  readonly name: string;
  readonly tzid: string;
  readonly text: string;
  readonly definition: ZoneDefinition;
  /** A named zone that shows the same at the time it was read for: for screens that can only show named ones. */
  readonly near: string;
}

/** What a file means by a TZID. */
interface Meaning {
  readonly named: string | null;
  readonly defined: { readonly name: string; readonly text: string; readonly definition: ZoneDefinition } | null;
}

const YEAR = 366 * 86_400_000;
/** A definition that begins before is taken to tell of all years. */
const LONG_AGO = 2 * YEAR;
/** Definitions of some years with the others filled up, by their names here: worked out once. */
const wholes = new Map<string, ZoneDefinition>();

/** Finds a zone of the time zone database in a TZID: the name itself, or its last two or three path parts. */
function zoneByName(tzid: string): string | null {
  const name = tzid.trim();
  if (isZone(name)) return name;
  const parts = name.split('/').filter(Boolean);
  for (const n of [3, 2]) {
    const tail = parts.slice(-n).join('/');
    if (parts.length > n && tail.includes('/') && isZone(tail)) return tail;
  }
  return null;
}

/**
 * The zones of one file. Its own VTIMEZONEs are the truth for the times they tell of (RFC 5545 3.6.5): instants are taken from them, and a named
 * zone stands for one only where it shows the same over the item's whole life and the year around it.
 */
export class FileZones {
  private readonly texts = new Map<string, string>();
  private readonly meanings = new Map<string, Meaning | null>();
  private readonly chosen = new Map<string, string>();
  private readonly used = new Map<string, FileZone>();

  /** `candidates`: named zones that may stand for a definition without one, the likeliest first. `nameOf` names a definition by its text. */
  constructor(
    blocks: readonly Block[],
    private readonly candidates: readonly string[],
    private readonly nameOf: (text: string) => string,
  ) {
    for (const block of blocks) {
      if (block.name !== 'VTIMEZONE') continue;
      const tzid = insideOf(block.text)
        .properties.find((p) => p.name === 'TZID')
        ?.value.trim();
      if (tzid) this.texts.set(tzid, block.text);
    }
  }

  /** The zone whose clock a TZID's times are on; `null` where the file says nothing that is known. */
  clockOf(tzid: string): string | null {
    const meaning = this.meaningOf(tzid);
    return meaning && (meaning.defined?.name ?? meaning.named);
  }

  /** The zone to keep an item in that lives from one instant to another, `how` it was found where that is not by its name. */
  keptFor(tzid: string, from: number, until: number): { zone: string; how: 'name' | 'offsets' | 'definition' } | null {
    const meaning = this.meaningOf(tzid);
    if (!meaning) return null;
    const { defined, named } = meaning;
    if (!defined) return { zone: named as string, how: 'name' };
    if (named && agrees(defined.name, defined.definition, named, from, until)) return { zone: named, how: 'name' };
    if (!named) {
      const key = `${tzid}\n${from}\n${until}`;
      const zone =
        this.chosen.get(key) ??
        this.candidates.find((c) => agrees(defined.name, defined.definition, c, from - YEAR, until + YEAR)) ??
        '';
      this.chosen.set(key, zone);
      if (zone) return { zone, how: 'offsets' };
    }
    if (!this.used.has(defined.name)) {
      const near = named ?? this.candidates.find((c) => offsetAt(c, from) === offsetAt(defined.name, from)) ?? 'UTC';
      this.used.set(defined.name, { ...defined, tzid, near });
    }
    return { zone: defined.name, how: 'definition' };
  }

  /** The zone with a name that a TZID means at an instant, where it means one. */
  namedFor(tzid: string, at: number): string | null {
    const meaning = this.meaningOf(tzid);
    if (!meaning) return null;
    const { defined, named } = meaning;
    if (!defined) return named;
    if (named && agrees(defined.name, defined.definition, named, at, at)) return named;
    return this.candidates.find((c) => agrees(defined.name, defined.definition, c, at - YEAR, at + YEAR)) ?? null;
  }

  /** The definitions that items are kept in. */
  inUse(): FileZone[] {
    return [...this.used.values()];
  }

  private meaningOf(tzid: string): Meaning | null {
    let meaning = this.meanings.get(tzid);
    if (meaning === undefined) {
      meaning = this.read(tzid);
      this.meanings.set(tzid, meaning);
    }
    return meaning;
  }

  private read(tzid: string): Meaning | null {
    const named = zoneByName(tzid);
    const text = this.texts.get(tzid.trim());
    const definition = text === undefined ? null : definitionOf(text);
    if (text === undefined || !definition) return named ? { named, defined: null } : null;
    const { covers, ...said } = definition;
    // A definition of some years is right for those; for all others the zone of that name is.
    const part = named !== null && (Number.isFinite(covers.last) || covers.first > LONG_AGO);
    const name = this.nameOf(part ? `${text}\n${named}` : text);
    const whole = part ? (wholes.get(name) ?? filledUp(definition, named)) : said;
    if (wholes.size > 500) wholes.clear();
    if (part) wholes.set(name, whole);
    if (!isDefined(name)) defineZone(name, whole);
    return { named, defined: { name, text, definition: whole } };
  }
}
