'use client';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { saveDraft } from '../../common/fetched/saved-drafts.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { wallsOf } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { copyOf } from '../form/item-values.ts';

/**
 * Makes another like an item: in the same calendar, or, where one may not write there, in one's own, with what one sees of it and nobody
 * asked. The form opens filled in; nothing is saved before it is.
 */
export function CopyItem({ item, head }: { item: ItemWire; head: BoardHead }) {
  const t = useTranslations('panel');
  const { frame, style } = useFrame();
  const router = useRouter();
  const mine = frame.principals.find((p) => p.own);
  const here = head.may.add;
  const owner = here ? frame.principals.find((p) => p.handle === head.owner.handle) : mine;
  if (!owner || item.title === undefined || head.as) return null;
  const copy = () => {
    const { start, end } = wallsOf(item, style.zone);
    const key = `new copy ${item.id} ${toWall(style.zone, Date.now())}`;
    const title = here ? null : t('copyTitle', { title: item.title ?? '', name: firstName(head.owner.name) });
    const data = copyOf(item, start, end, title);
    const further = here && !head.calendar.main ? `&c=${encodeURIComponent(head.calendar.key)}` : '';
    const href = `/for/${owner.handle}/calendar?week=${dateText(start)}&kept=${encodeURIComponent(key)}${further}`;
    saveDraft({ key, title: item.title ?? '', owner: owner.name, colour: owner.colour, href, data });
    router.push(href);
  };
  return (
    <Button variant="outlined" onClick={copy}>
      {here ? t('copy') : t('copyMine')}
    </Button>
  );
}
