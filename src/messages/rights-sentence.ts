import type { CollectionKind } from '@/core/collection/index.ts';
import { reachOf } from '../contract/sharing/reach.ts';
import type { RightsWire } from '../contract/sharing/sight.ts';

/** The texts of `sentence`, in whatever language. */
type Words = (key: never, values?: never) => string;

/**
 * What a set of rights lets somebody see and do, and what it doesn't, in words. `toOwner`: said to the owner themselves; `kind`: of what they are. Nobody
 * speaks from tasks or contacts, and their times are nothing by themselves.
 */
export function rightsSentence(
  words: Words,
  r: RightsWire,
  owner: string,
  toOwner: boolean,
  kind: CollectionKind = 'calendar',
): { does: string; cannot: string } {
  const t = words as unknown as (key: string, values?: Record<string, string>) => string;
  const join = (list: string[], word: string) =>
    list.length < 2 ? (list[0] ?? '') : `${list.slice(0, -1).join(', ')} ${word} ${list.at(-1)}`;
  const listed = kind !== 'calendar';
  const sees =
    r.sight === 'full'
      ? t('full', { private: r.private ? 'yes' : 'no' })
      : listed
        ? t(`${kind}.${r.sight === 'busy' ? 'nothing' : r.sight}`)
        : r.sight === 'busy' && !toOwner
          ? t('busyOf', { name: owner })
          : t(r.sight);
  const acts: string[] = [];
  const reach = reachOf(r);
  if (r.add) acts.push(t(listed ? `${kind}.mayAdd` : 'mayAdd').toLowerCase());
  if (reach === 'arrange') acts.push(t(listed ? `${kind}.mayChangeAll` : 'mayChangeAll'));
  else if (reach === 'add') acts.push(t('mayChangeOwn'));
  else if (reach === 'words' && (r.change !== 'none' || r.remove !== 'none'))
    acts.push(t('mixed', { change: r.change, remove: r.remove }));
  if (r.speaks) acts.push(t('speaks', { name: owner }));
  if (r.suggest && !r.add) acts.push(t('suggests'));
  if (r.shares) acts.push(t('shares'));
  if (r.copies) acts.push(t('copies'));
  if (r.absence) acts.push(t('absence', { name: owner }));
  const cannot: string[] = [];
  if (!r.add && r.change === 'none' && r.remove === 'none') cannot.push(t('cantChange'));
  if (r.sight !== 'nothing' && !r.private) cannot.push(t('cantPrivate'));
  if (r.add && !r.speaks && !listed) cannot.push(t('cantSpeak', { name: owner }));
  if (r.add && !r.shares) cannot.push(t('cantShare'));
  if (r.change === 'all') cannot.push(t(listed ? `${kind}.cantDelete` : 'cantDelete'));
  const does = acts.length > 0 ? `${sees.replace(/\.$/, '')}; ${join(acts, t('and'))}.` : sees;
  return { does, cannot: cannot.length > 0 ? t('cannot', { list: join(cannot, t('or')) }) : '' };
}
