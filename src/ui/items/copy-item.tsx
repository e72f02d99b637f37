'use client';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items.ts';
import { dateText, toWall, wallText } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { keepDraft } from '../common/kept-drafts.ts';
import { DAY, wallsOf } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import type { KeptForm } from './item-values.ts';

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
    keepDraft({ key, title: item.title ?? '', owner: owner.name, colour: owner.colour, href, data });
    router.push(href);
  };
  return (
    <Button variant="outlined" onClick={copy}>
      {here ? t('copy') : t('copyMine')}
    </Button>
  );
}

/** A form filled in with what is seen of an item, at a time. With a `title` of its own it is a copy elsewhere: how others see it there is for its form. */
export function copyOf(item: ItemWire, start: number, end: number, title: string | null): KeptForm {
  const text = (wall: number) => wallText(wall).slice(11, 16);
  const times = item.allDay
    ? { allDay: true, day: dateText(start), lastDay: dateText(end - DAY) }
    : { allDay: false, day: dateText(start), lastDay: dateText(end), from: text(start), to: text(end) };
  const here = title === null;
  return {
    item: null,
    start,
    end,
    values: {
      ...times,
      title: title ?? item.title ?? '',
      place: item.place ?? '',
      notes: item.notes ?? '',
      link: item.link ?? '',
      ...(item.kind ? { kind: item.kind } : {}),
      ...(here && item.visibility ? { visibility: item.visibility } : {}),
      ...(item.asSet && here ? { shows: item.asSet.shows } : {}),
    },
    why: '',
    people: null,
  };
}
