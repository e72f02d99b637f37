'use client';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import { parseDate } from '@/core/time/index.ts';
import { later } from '../../common/later.tsx';
import { MINUTE } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import type { FormDraft } from '../form/item-values.ts';
import type { Home } from './item-writes.ts';
import { usePicks } from './picks.tsx';

const PickedBar = later(() => import('./picked-bar.tsx').then((m) => m.PickedBar));
const PickedDaysBar = later(() => import('./picked-bar.tsx').then((m) => m.PickedDaysBar));
const NINE = 9 * 60 * MINUTE;

/** What can be done with what is picked on a board: its items, and its days. */
export function BoardPicks(props: {
  head: BoardHead;
  /** The first day that is shown. */
  first: number;
  selected: ItemWire | null;
  homeOf: (item: ItemWire) => Home | undefined;
  onWritten: (answer: SeveralAnswer, text: string) => void;
  onJoined: (answer: WrittenAnswer, text: string) => void;
  onNew: (kept: FormDraft) => void;
}) {
  const { head, first, selected, homeOf, onWritten, onJoined, onNew } = props;
  const t = useTranslations();
  const picks = usePicks();
  const names = [...picks.items.values()].map((item) => firstName(homeOf(item)?.head.owner.name ?? ''));
  const begin = (days: readonly string[]) => {
    const day = parseDate(days[0] ?? '') ?? first;
    const repeat = days.length > 1 ? ('picked' as const) : ('none' as const);
    const values = { dates: [...days], repeat };
    onNew({ item: null, start: day + NINE, end: day + NINE + 60 * MINUTE, values, why: '', people: null });
    picks.clear();
  };
  const join = async (item: ItemWire, days: readonly string[]) => {
    const apart = await call('listApart', { params: { item: item.id } });
    const dates = [...new Set([...apart.days, ...days])].sort();
    const body = { version: item.version ?? 0, scope: 'all' as const, fields: {}, dates };
    const answer = await call('changeItem', { params: { item: item.id }, body });
    onJoined(answer, t('picked.joined', { count: days.length }));
  };
  return (
    <>
      {picks.items.size > 0 && (
        <PickedBar
          names={[...new Set(names)]}
          onWritten={(answer, kind) => onWritten(answer, t(`picked.done.${kind}`, { count: answer.written }))}
        />
      )}
      {picks.days.length > 0 && (
        <PickedDaysBar
          mayAdd={head.may.add}
          name={firstName(head.owner.name)}
          selected={selected}
          onNew={begin}
          onWritten={(answer) => onWritten(answer, t('picked.copied', { count: answer.written }))}
          onJoined={join}
        />
      )}
    </>
  );
}
