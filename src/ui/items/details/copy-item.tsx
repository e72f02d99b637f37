'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { wallsOf } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { copyOf } from '../form/item-values.ts';
import { useMine, useOpenCopy } from '../form/open-copy.ts';

/**
 * Makes another like an item: in the same calendar, or, where one may not write there, in one's own, with what one sees of it and nobody
 * asked. The form opens filled in; nothing is saved before it is.
 */
export function CopyItem({ item, head }: { item: ItemWire; head: BoardHead }) {
  const t = useTranslations('panel');
  const { style } = useFrame();
  const openCopy = useOpenCopy();
  const mine = useMine();
  const here = head.may.add;
  const { key, name, main } = head.calendar;
  const target = here ? { key, name, main, owner: { ...head.owner, own: head.own } } : mine;
  if (!target || item.title === undefined || head.as) return null;
  const copy = () => {
    const { start, end } = wallsOf(item, style.zone);
    const title = here ? null : t('copyTitle', { title: item.title ?? '', name: firstName(head.owner.name) });
    openCopy(target, copyOf(item, start, end, title), { id: item.id, title: item.title ?? '' });
  };
  return (
    <Button variant="outlined" onClick={copy}>
      {here ? t('copy') : t('copyMine')}
    </Button>
  );
}
