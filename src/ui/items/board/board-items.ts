'use client';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call } from '@/contract/call.ts';
import type { BoardHead, ItemsAnswer, ItemsQuery } from '@/contract/items/items.ts';
import { parseInstant } from '@/core/time/index.ts';
import type { Dates } from '../../common/fetched/live-items.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { firstName } from '../../common/token.tsx';
import { itemsTogether } from './board-lanes.ts';

const HEAD_SIGHT = (head: BoardHead) => JSON.stringify(head.rights);

/**
 * What a board shows of a calendar, live: its items and head, `gone` where they may no longer be seen. `onNotice` is told when what one
 * sees here changes while one looks.
 */
export function useBoardItems(
  calendar: string,
  dates: Dates,
  as: string | undefined,
  onNotice: (sentence: string) => void,
) {
  const t = useTranslations();
  const { now } = useFrame();
  const client = useQueryClient();
  // An answer holds so much; the rest is asked for when somebody wants it.
  const [answers, setAnswers] = useState(1);
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'items', dates.from, dates.to, dates.zone, as ?? '', answers),
    queryFn: () =>
      as === undefined && answers === 1
        ? itemsTogether(calendar, dates)
        : itemsIn(calendar, { ...dates, ...(as === undefined ? {} : { as }) }, answers),
    ...(as === undefined && answers === 1 ? { meta: { follows: { as: 'items' as const, dates } } } : {}),
    retry: (tries, error) => !(error instanceof CallRefused) && tries < 1,
  });
  const gone = query.error instanceof CallRefused && ['notFound', 'signedOut'].includes(query.error.body.code);
  // Once refused, nothing of what was shown before stays on the screen.
  const data = gone ? undefined : query.data;
  const head = data?.head;

  // Says so when what one sees here changes while one looks.
  const lastHead = useRef<BoardHead | null>(null);
  useEffect(() => {
    const before = lastHead.current;
    if (gone && before) {
      onNotice(t('board.accessGone', { name: firstName(before.owner.name) }));
      client.removeQueries({ queryKey: KEYS.calendar(calendar, 'load') });
      lastHead.current = null;
    }
    if (!head) return;
    // Looking through other eyes, or back through one's own, is no change of access.
    if (before && before.as === head.as && HEAD_SIGHT(before) !== HEAD_SIGHT(head)) {
      const who = firstName(head.owner.name);
      onNotice(t('board.accessChanged', { name: who, sight: t(`sightWords.${head.rights.sight}`) }));
    }
    lastHead.current = head;
  }, [head, gone, calendar, client, t, onNotice]);

  // A dated grant changes by itself: the window knows when, and asks again then.
  const changesAt = head?.accessChangesAt ?? null;
  useEffect(() => {
    if (!changesAt) return;
    const wait = (parseInstant(changesAt) ?? 0) - now();
    if (wait > 2 ** 31 - 1) return;
    const timer = setTimeout(() => {
      client.removeQueries({ queryKey: KEYS.calendar(calendar), type: 'inactive' });
      void client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
    }, Math.max(0, wait) + 20);
    return () => clearTimeout(timer);
  }, [changesAt, calendar, client, now]);

  const lastKnown = useCallback(() => lastHead.current, []);
  return { query, data, head, lastKnown, gone, showMore: () => setAnswers((n) => n + 1) };
}

/** What happens in some days, as many answers of it as are wanted, one behind the other. */
async function itemsIn(calendar: string, query: ItemsQuery, answers: number): Promise<ItemsAnswer> {
  const fetchPage = (after: number) => call('listItems', { params: { calendar }, query: { ...query, after } });
  let all = (await fetchPage(0)) as ItemsAnswer;
  for (let n = 1; n < answers && all.more !== null; n++) {
    const next = (await fetchPage(all.more)) as ItemsAnswer;
    all = { ...next, items: [...all.items, ...next.items] };
  }
  return all;
}
