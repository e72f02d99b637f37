import type { RightsWire } from './sight.ts';

type Reach = 'look' | 'add' | 'arrange' | 'words';

/** The word for a mix of add, change and remove; `words` where none fits. */
export function reachOf(r: RightsWire): Reach {
  if (!r.add && r.change === 'none' && r.remove === 'none') return 'look';
  if (r.add && r.change === 'own' && r.remove === 'own') return 'add';
  if (r.add && r.change === 'all' && r.remove === 'all') return 'arrange';
  return 'words';
}
