import type { RightsWire } from './sight.ts';

type Reach = 'look' | 'add' | 'arrange' | 'words';

/** The word for a mix of add, change and remove; `words` where none fits. */
export function reachOf(r: RightsWire): Reach {
  if (!r.add && r.change === 'none' && r.remove === 'none') return 'look';
  if (r.add && r.change === 'own' && r.remove === 'own') return 'add';
  if (r.add && r.change === 'all' && r.remove === 'all') return 'arrange';
  return 'words';
}

/** What a mix of rights that is more than a sight is called, not counting what is let into, told of or set beside it; `null` for any other. */
export function callingOf(r: RightsWire): 'helper' | 'booker' | 'arranger' | 'delegate' | 'steward' | null {
  const reach = reachOf(r);
  const extras = [r.suggest && 'suggest', r.speaks && 'speaks', r.shares && 'shares'].filter(Boolean).join(' ');
  if (r.sight === 'busy' && reach === 'add' && extras === '') return 'booker';
  if (r.sight !== 'full') return null;
  if (reach === 'look') return extras === 'suggest' ? 'helper' : null;
  if (reach !== 'arrange') return null;
  return extras === '' ? 'arranger' : extras === 'speaks' ? 'delegate' : extras === 'speaks shares' ? 'steward' : null;
}
