import { NO_RIGHTS, type Rights } from './rights.ts';

const arrange = { ...NO_RIGHTS, sight: 'full', add: true, change: 'all', remove: 'all' } as const;

/** The named mixes of rights. None lets into what is private or tells of invitations: those are a choice of their own. */
export const PRESETS = {
  shutOut: NO_RIGHTS,
  freeBusy: { ...NO_RIGHTS, sight: 'busy' },
  titles: { ...NO_RIGHTS, sight: 'title' },
  outline: { ...NO_RIGHTS, sight: 'outline' },
  full: { ...NO_RIGHTS, sight: 'full' },
  helper: { ...NO_RIGHTS, sight: 'full', suggest: true },
  booker: { ...NO_RIGHTS, sight: 'busy', add: true, change: 'own', remove: 'own' },
  arranger: arrange,
  delegate: { ...arrange, speaks: true, absence: true },
  steward: { ...arrange, speaks: true, absence: true, shares: true },
} as const satisfies Record<string, Rights>;

export type Preset = keyof typeof PRESETS;

/** Rights that are a choice of their own beside any preset. */
const NOT_COUNTED: ReadonlySet<keyof Rights> = new Set(['private', 'copies', 'absence']);

/** The preset whose rights these are, not counting `private`, `copies` and `absence`; `null` for any other mix. */
export function presetOf(rights: Rights): Preset | null {
  for (const [name, preset] of Object.entries(PRESETS) as [Preset, Rights][]) {
    const same = (Object.keys(preset) as (keyof Rights)[]).every(
      (key) => NOT_COUNTED.has(key) || preset[key] === rights[key],
    );
    if (same) return name;
  }
  return null;
}
