import { createHash } from 'node:crypto';
import { bareIdFor } from '../../ids.ts';
import type { ListKind } from '../../repositories/lists.ts';
import type { ListReader } from '../../repositories/shown.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, type DecidedList, listReaderFor, noteUse } from '../deciding/index.ts';
import { holdsAll } from '../lists/index.ts';
import { MOST_BYTES, MOST_OBJECTS, type ObjectsWanted, type ProgramObject } from './program-object.ts';

/*
 * A list as the objects a program reads, each at exactly the sight of the viewer. What they may change is written as it is kept; all else as they
 * see it, under the id that the screen gives it.
 */

export const hash = (text: string): string => createHash('sha256').update(text).digest('base64url').slice(0, 22);

/** Objects of one list whose ids below full are looked through. */
const MOST_LOOKED = 20_000;

interface Stored {
  readonly id: number;
  readonly key: string;
  readonly listId: number;
  readonly removedAt: number | null;
}
interface Viewed {
  readonly id: string;
  readonly may?: { readonly change: boolean; readonly remove: boolean } | undefined;
}

/** Where what a list holds is kept. */
interface Rows<S> {
  readonly byId: (id: number) => S | null;
  readonly byKey: (key: string) => S | null;
  /** All that a reader is shown, in the order it was made: at most `most`. */
  readonly all: (reader: ListReader, most: number) => S[];
  /** What one's programs call them. */
  readonly byName: (name: string) => number | null;
  readonly names: ReadonlyMap<number, string>;
}

/** One list as one person's programs have it. */
export abstract class ListPrograms<K extends ListKind, S extends Stored, V extends Viewed> {
  /** Whether the viewer has all there is of it. */
  readonly all: boolean;
  private readonly reader: ListReader;
  private ids: ReadonlyMap<string, S> | null = null;
  constructor(
    readonly ctx: Context,
    readonly decided: DecidedList<K>,
    private readonly rows: Rows<S>,
    private readonly ending: '.ics' | '.vcf',
  ) {
    this.reader = listReaderFor(ctx.viewer.id, decided.decision);
    this.all = holdsAll(decided.decision);
  }

  /** Something of it as it is seen; `null` where it is left out. */
  abstract view(stored: S): V | null;
  /** The same as one object, as it is wanted. */
  abstract object(stored: S, view: V, wanted: Pick<ObjectsWanted, 'texts' | 'expand' | 'cards'>): ProgramObject;
  /** Whether it is among what is asked for by time, or by what stands in it. */
  abstract fits(stored: S, view: V, wanted: ObjectsWanted): boolean;

  protected nameOf(stored: S, view: V): string {
    return this.rows.names.get(stored.id) ?? `${view.id}${this.ending}`;
  }

  /** The refusal of what is here by another name: with that name, where the viewer sees it. */
  alreadyThere(stored: S): Refusal {
    const view = this.view(stored);
    return refuse('alreadyThere', view ? { data: this.nameOf(stored, view) } : {});
  }

  /** All that is shown of the list, and whether there is more than an answer holds. */
  shown(): { readonly objects: { stored: S; view: V }[]; readonly cut: boolean } {
    const rows = this.rows.all(this.reader, MOST_OBJECTS + 1);
    const objects = rows.slice(0, MOST_OBJECTS).flatMap((stored) => {
      const view = this.view(stored);
      return view ? [{ stored, view }] : [];
    });
    return { objects, cut: rows.length > MOST_OBJECTS };
  }

  /** Something of this list by its name; `null` where the viewer has none so. */
  find(name: string): { readonly stored: S; readonly view: V } | null {
    const given = this.rows.byName(name);
    const id = name.endsWith(this.ending) ? name.slice(0, -this.ending.length) : '';
    const stored = given !== null ? this.rows.byId(given) : /^[A-Za-z0-9_~-]{1,120}$/.test(id) ? this.byId(id) : null;
    if (!stored || stored.removedAt !== null || stored.listId !== this.decided.list.id) return null;
    const view = this.view(stored);
    return view && this.nameOf(stored, view) === name ? { stored, view } : null;
  }

  /** By the id it has on screen: its key for whoever sees it in full, one of their own for everybody else. */
  private byId(id: string): S | null {
    const known = this.rows.byKey(id);
    if (known) return known;
    this.ids ??= new Map(
      this.rows.all(this.reader, MOST_LOOKED).map((stored) => [bareIdFor(this.ctx.viewer.id, stored.key), stored]),
    );
    return this.ids.get(id) ?? null;
  }

  /** What is wanted of it, within the budget of an answer. */
  list(wanted: ObjectsWanted): Result<{ objects: ProgramObject[]; missing: string[]; cut: boolean }> {
    noteUse(this.ctx, this.decided.decision);
    const { names } = wanted;
    const missing: string[] = [];
    const shown = names ? { objects: [], cut: names.length > MOST_OBJECTS } : this.shown();
    const found = names
      ? names.slice(0, MOST_OBJECTS).flatMap((name) => {
          const one = this.find(name);
          if (!one) missing.push(name);
          return one ?? [];
        })
      : shown.objects;
    const objects: ProgramObject[] = [];
    let bytes = 0;
    let { cut } = shown;
    for (const { stored, view } of found) {
      if (!this.fits(stored, view, wanted)) continue;
      const object = this.object(stored, view, wanted);
      bytes += object.text?.length ?? 200;
      if (bytes > MOST_BYTES) {
        cut = true;
        break;
      }
      objects.push(object);
    }
    return ok({ objects, missing, cut });
  }
}
