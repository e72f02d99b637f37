'use client';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { parseDate } from '@/core/time/index.ts';
import { later } from '../../common/later.tsx';
import { MINUTE } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { useBoard } from './board-model.ts';
import { usePicks } from './picks.tsx';

const PickedBar = later(() => import('./picked-bar.tsx').then((m) => m.PickedBar));
const PickedDaysBar = later(() => import('./picked-bar.tsx').then((m) => m.PickedDaysBar));
const NINE = 9 * 60 * MINUTE;

/** What can be done with what is picked on a board: its items, and its days. */
export function BoardPicks({ head }: { head: BoardHead }) {
  const { days, selected, homeOf, writes, wroteSeveral, begin: beginForm } = useBoard();
  const t = useTranslations();
  const picks = usePicks();
  const names = [...picks.items.values()].map((item) => firstName(homeOf(item)?.head.owner.name ?? ''));
  const begin = (dates: readonly string[]) => {
    const day = parseDate(dates[0] ?? '') ?? days.first;
    const repeat = dates.length > 1 ? ('picked' as const) : ('none' as const);
    const values = { dates: [...dates], repeat };
    const [start, end] = [day + NINE, day + NINE + 60 * MINUTE];
    beginForm(head, start, end, { item: null, start, end, values, why: '', people: null });
    picks.clear();
  };
  const join = async (item: ItemWire, more: readonly string[]) => {
    const apart = await call('listApart', { params: { item: item.id } });
    const dates = [...new Set([...apart.days, ...more])].sort();
    const { id, version } = await writes.asWritten(item);
    const body = { version: version ?? 0, scope: 'all' as const, fields: {}, dates };
    const answer = await call('changeItem', { params: { item: id }, body });
    const home = homeOf(item);
    if (home) writes.wrote(home, answer, t('picked.joined', { count: more.length }));
  };
  return (
    <>
      {picks.items.size > 0 && (
        <PickedBar
          names={[...new Set(names)]}
          several={writes.several}
          onWritten={(answer, kind) => wroteSeveral(answer, t(`picked.done.${kind}`, { count: answer.written }))}
        />
      )}
      {picks.days.length > 0 && (
        <PickedDaysBar
          mayAdd={head.may.add}
          name={firstName(head.owner.name)}
          selected={selected}
          onNew={begin}
          onWritten={(answer) => wroteSeveral(answer, t('picked.copied', { count: answer.written }))}
          onJoined={join}
        />
      )}
    </>
  );
}
