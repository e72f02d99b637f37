import { z } from 'zod';
import { type Version, version } from '../version.ts';
import { type ItemWire, itemWire, loadDay } from './items.ts';

/**
 * The changed occurrences as the listener sees them. `gone` are ids that show nothing more; `shown` what there is now, new or changed.
 * `within` says for which instants that is all of it, where a series changed beyond; `null` for everywhere. `days` are the booked
 * minutes of the days it touches, in the listener's own zone, where there are few.
 */
const seenChange = z.strictObject({
  within: z.strictObject({ from: z.string(), to: z.string() }).nullable(),
  gone: z.array(z.string()),
  shown: z.array(itemWire),
  days: z.strictObject({ zone: z.string(), days: z.array(loadDay) }).nullable(),
});
export interface SeenChange {
  readonly within: { readonly from: string; readonly to: string } | null;
  readonly gone: readonly string[];
  readonly shown: readonly ItemWire[];
  readonly days: { readonly zone: string; readonly days: readonly z.infer<typeof loadDay>[] } | null;
}

/**
 * What a window is told. `changed` follows one version of what the listener sees of a calendar and leads to the next; without `seen`
 * it has to be asked for again. `access`: what they may see there changed. `looking`: somebody else opened or left an item they have open. `told`: something came for them. `desk`: somebody opened or left a row they may have too. `tasks`: what they see of a list of tasks changed. `begun`: the first word to a window that named its page; where it isn't `held`, something may have been missed. `over`: the last word.
 */
export const liveMessage = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('changed'),
    calendar: z.string(),
    follows: version,
    version,
    seen: seenChange.nullable(),
  }),
  z.strictObject({ kind: z.literal('access'), calendar: z.string() }),
  z.strictObject({ kind: z.literal('looking'), item: z.string() }),
  z.strictObject({ kind: z.literal('told') }),
  z.strictObject({ kind: z.literal('desk'), for: z.string() }),
  z.strictObject({ kind: z.enum(['tasks', 'contacts', 'folder']), list: z.string() }),
  z.strictObject({ kind: z.literal('begun'), held: z.boolean() }),
  z.strictObject({ kind: z.literal('over') }),
]);
export interface ChangedMessage {
  readonly kind: 'changed';
  readonly calendar: string;
  readonly follows: Version;
  readonly version: Version;
  readonly seen: SeenChange | null;
}
export type LiveMessage =
  | ChangedMessage
  | { readonly kind: 'access'; readonly calendar: string }
  | { readonly kind: 'looking'; readonly item: string }
  | { readonly kind: 'desk'; readonly for: string }
  | { readonly kind: 'tasks' | 'contacts' | 'folder'; readonly list: string }
  | { readonly kind: 'begun'; readonly held: boolean }
  | { readonly kind: 'told' | 'over' };
