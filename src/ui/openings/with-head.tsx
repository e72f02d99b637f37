'use client';
import { type ComponentType, useState } from 'react';
import type { BoardHead } from '@/contract/items/items.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import boardsCss from '../common/boards.module.css';
import { QueryState as Asking } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { DAY } from '../common/times.ts';
import { useBoardItems } from '../items/board/board-items.ts';
import css from './openings.module.css';

/** What a screen of openings stands on: whose calendar it is and what one may do there, today, and what has to be said. */
export interface OnHead {
  readonly head: BoardHead;
  readonly name: string;
  readonly today: number;
  readonly notice: string | null;
  readonly onNotice: (notice: string | null) => void;
}

/** A screen of openings on a calendar's head, live; nothing of it once that is gone. */
export function WithHead(props: { calendar: string; name: string; screen: ComponentType<OnHead> }) {
  const { calendar, name, screen: Screen } = props;
  const { style, now } = useFrame();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const dates = { from: dateText(today), to: dateText(today + DAY), zone: style.zone };
  const [notice, setNotice] = useState<string | null>(null);
  const { query, head, gone } = useBoardItems(calendar, dates, undefined, setNotice);
  if (head && !gone) return <Screen head={head} name={name} today={today} notice={notice} onNotice={setNotice} />;
  return (
    <div className={css.screen}>
      <Asking query={query} />
      {notice && <p className={boardsCss.notice}>{notice}</p>}
    </div>
  );
}
