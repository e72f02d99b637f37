'use client';
import { type ReactNode, useState } from 'react';
import type { BoardHead } from '@/contract/items.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { Asked as Asking } from '../common/asked.tsx';
import boardsCss from '../common/boards.module.css';
import { useFrame } from '../common/frame-context.tsx';
import { DAY } from '../common/times.ts';
import { useBoardItems } from '../items/board-items.ts';
import css from './openings.module.css';

/** What a screen of openings stands on: whose calendar it is and what one may do there, live; nothing of it once that is gone. */
export function WithHead(props: {
  calendar: string;
  children: (
    head: BoardHead,
    today: number,
    notice: string | null,
    onNotice: (notice: string | null) => void,
  ) => ReactNode;
}) {
  const { calendar, children } = props;
  const { style, now } = useFrame();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const dates = { from: dateText(today), to: dateText(today + DAY), zone: style.zone };
  const [notice, setNotice] = useState<string | null>(null);
  const { query, head, gone } = useBoardItems(calendar, dates, undefined, setNotice);
  if (head && !gone) return children(head, today, notice, setNotice);
  return (
    <div className={css.screen}>
      <Asking query={query} />
      {notice && <p className={boardsCss.notice}>{notice}</p>}
    </div>
  );
}
