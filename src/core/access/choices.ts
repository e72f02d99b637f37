import { SCOPES, type Sight } from '../calendar/index.ts';
import { PRESETS, type Preset } from './preset.ts';
import { EXTRAS, type Extra, fitRights, type Misfit, type Offered, type Rights } from './rights.ts';

/** One thing that can be chosen for a grant: the rights it comes to, or what would have to be raised first. */
export interface Choice {
  readonly group: 'preset' | 'sight' | 'reach' | 'add' | 'change' | 'remove' | Extra;
  readonly value: string;
  readonly rights: Rights;
  /** Set where the choice doesn't fit the rest: choosing it would change nothing. */
  readonly needs: Misfit['needs'] | null;
}

/** What the three words for reach come to. */
const REACHES = {
  look: { add: false, change: 'none', remove: 'none' },
  add: { add: true, change: 'own', remove: 'own' },
  arrange: { add: true, change: 'all', remove: 'all' },
} as const satisfies Record<string, Pick<Rights, 'add' | 'change' | 'remove'>>;

/**
 * Every choice that stands beside some rights, with what choosing it comes to: lower sight takes along what it can't carry,
 * arranging raises sight to full, an extra that doesn't fit names what to raise.
 */
export function choicesFor(now: Rights, offered: Offered): Choice[] {
  const fitted = (rights: Rights): Rights => fitRights(rights, offered).rights;
  const plain = (group: Choice['group'], value: string, rights: Rights): Choice => ({
    group,
    value,
    rights: fitted(rights),
    needs: null,
  });
  const least = offered.sights.find((sight) => sight !== 'nothing') ?? 'nothing';
  const seen = (sight: Sight): Sight => (sight === 'nothing' ? least : sight);
  const scopes = (right: 'change' | 'remove') =>
    SCOPES.map((scope): Choice => {
      const sight = scope === 'all' ? 'full' : seen(now.sight);
      return plain(right, scope, { ...now, sight, [right]: scope });
    });
  return [
    ...(Object.keys(PRESETS) as Preset[]).map((preset) => plain('preset', preset, PRESETS[preset])),
    ...offered.sights.map((sight) => plain('sight', sight, { ...now, sight })),
    plain('reach', 'look', { ...now, ...REACHES.look }),
    plain('reach', 'add', { ...now, ...REACHES.add, sight: seen(now.sight), suggest: false }),
    plain('reach', 'arrange', { ...now, ...REACHES.arrange, sight: 'full', suggest: false }),
    plain('reach', 'words', {
      ...now,
      add: true,
      change: 'own',
      remove: 'none',
      sight: seen(now.sight),
      suggest: false,
    }),
    plain('add', 'true', { ...now, add: true, sight: seen(now.sight) }),
    plain('add', 'false', { ...now, add: false }),
    ...scopes('change'),
    ...scopes('remove'),
    ...EXTRAS.flatMap((extra): Choice[] => {
      const on = fitRights({ ...now, [extra]: true }, offered);
      const misfit = on.lowered.find((m) => m.right === extra);
      return [
        { group: extra, value: 'true', rights: on.rights, needs: misfit?.needs ?? null },
        plain(extra, 'false', { ...now, [extra]: false }),
      ];
    }),
  ];
}
