import { z } from 'zod';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';

/** A full set of rights, as a grant holds it and as a decision answers it. */
export const rightsSchema = z.strictObject({
  sight: z.enum(SIGHTS),
  add: z.boolean(),
  change: z.enum(SCOPES),
  remove: z.enum(SCOPES),
  suggest: z.boolean(),
  private: z.boolean(),
  speaks: z.boolean(),
  copies: z.boolean(),
  shares: z.boolean(),
});
export type RightsWire = z.infer<typeof rightsSchema>;

type Reach = 'look' | 'add' | 'arrange' | 'words';

/** The word for a mix of add, change and remove; `words` where none fits. */
export function reachOf(r: RightsWire): Reach {
  if (!r.add && r.change === 'none' && r.remove === 'none') return 'look';
  if (r.add && r.change === 'own' && r.remove === 'own') return 'add';
  if (r.add && r.change === 'all' && r.remove === 'all') return 'arrange';
  return 'words';
}
