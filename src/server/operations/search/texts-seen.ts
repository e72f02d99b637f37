import type { Decision } from '@/core/access/index.ts';
import type { ListTexts } from '../../repositories/shown.ts';

/**
 * In which texts of a list's things words are looked for: below full only what is seen at that sight, and all of what is open to everybody or one's own,
 * so that what isn't seen takes none of the room.
 */
export function textsSeenOf<F extends string>(
  viewer: number,
  { rights: { sight, change } }: Decision,
  fields: readonly F[],
  sights: Readonly<Record<F, 'title' | 'outline' | 'full'>>,
): ListTexts[] {
  if (sight === 'full') return [{ columns: fields }];
  return [
    {
      columns: fields.filter((name) => sights[name] === 'title' || (sight === 'outline' && sights[name] === 'outline')),
    },
    { columns: fields, of: { visibility: 'open' } },
    ...(change === 'none' ? [] : [{ columns: fields, of: { createdBy: viewer } }]),
  ];
}
