import type { FieldName, Item, ItemView, Status } from '../calendar/index.ts';
import type { Decision } from './decide.ts';
import { fieldPolicy } from './field-policy.ts';
import { effectiveStatus, type SeenAs, type Standing, seenAs } from './see.ts';

/** Builds what one way of seeing gives of an item; `shows` is its effective status. */
export type Build = <P, A>(item: Item<P, A>, shows: Status) => ItemView<P, A>;

const LADDER = ['busy', 'title', 'outline', 'full', 'briefed'] as const;

/** The fields of a way of seeing: its own and those of the ways below it. */
function fieldsOf(seen: SeenAs): FieldName[] {
  const rank = LADDER.indexOf(seen === 'withheld' ? 'busy' : seen);
  const names = Object.keys(fieldPolicy) as FieldName[];
  return names.filter((name) => {
    const from = fieldPolicy[name];
    return from !== 'never' && LADDER.indexOf(from) <= rank;
  });
}

/**
 * One builder a way of seeing, field by field from nothing, so that a field whose sight is another is in no view. Each is one object
 * literal made of the table: a loop over it would cost several times as much for each of thousands of items.
 */
function builder(seen: SeenAs): Build {
  const values = fieldsOf(seen).map((name) => (name === 'shows' ? 'shows' : `${name}: item.${name}`));
  if (seen === 'withheld') values.push('withheld: true');
  return new Function('item', 'shows', `return { ${values.join(', ')} };`) as Build;
}

const BUILD: Record<SeenAs, Build> = {
  busy: builder('busy'),
  withheld: builder('withheld'),
  title: builder('title'),
  outline: builder('outline'),
  full: builder('full'),
  briefed: builder('briefed'),
};

/** The builder for a way of seeing under a decision. Where titles aren't seen, a withheld item looks like any other busy block. */
export function buildFor(seen: SeenAs, decision: Decision): Build {
  return BUILD[seen === 'withheld' && decision.rights.sight === 'busy' ? 'busy' : seen];
}

/**
 * What a viewer may be given of one item under a decision; `null` where the item is left out. Without ids: those are the
 * caller's, and below `full` must be opaque. Only this file makes an `ItemView`.
 */
export function project<P, A>(item: Item<P, A>, standing: Standing, decision: Decision): ItemView<P, A> | null {
  const seen = seenAs(item, standing, decision);
  return seen === null ? null : buildFor(seen, decision)(item, effectiveStatus(item));
}
