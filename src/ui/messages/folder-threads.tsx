import { useTranslations } from 'use-intl';
import type { ThreadWire } from '@/contract/messages.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { useRows } from '../common/lists/use-rows.ts';
import { DAY } from '../common/times.ts';
import messagesCss from './messages.module.css';
import { ThreadRow } from './thread-row.tsx';
import type { Threads } from './use-threads.ts';

type Line = { readonly heading: string } | { readonly thread: ThreadWire };

/** A folder's threads under their days; only what is seen is drawn. The arrows go from one to the next. */
export function FolderThreads(props: {
  of: Threads;
  current: string | null;
  onOpen: (thread: ThreadWire, another: boolean) => void;
  none: string;
}) {
  const { of, current, onOpen, none } = props;
  const { query, first, threads } = of;
  const t = useTranslations('folders');
  const { style, now } = useFrame();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const dayOf = (thread: ThreadWire) => Math.floor(toWall(style.zone, parseInstant(thread.at) ?? 0) / DAY) * DAY;
  const whenOf = (thread: ThreadWire): 'today' | 'yesterday' | 'week' | 'earlier' => {
    const ago = (today - dayOf(thread)) / DAY;
    return ago <= 0 ? 'today' : ago === 1 ? 'yesterday' : ago < 7 ? 'week' : 'earlier';
  };
  const lines: Line[] = [];
  let before = '';
  for (const thread of threads) {
    const when = whenOf(thread);
    if (when !== before) lines.push({ heading: t(`when.${when}`) });
    before = when;
    lines.push({ thread });
  }
  const { box, virtual, shown, move } = useRows({
    count: lines.length,
    height: (i) => ('heading' in (lines[i] ?? { heading: '' }) ? 34 : 62),
    keyOf: (i) => {
      const line = lines[i];
      return line && 'thread' in line ? line.thread.key : `heading ${i}`;
    },
    isRow: (i) => 'thread' in (lines[i] ?? { heading: '' }),
    more: query.hasNextPage,
    onEnd: () => {
      if (!query.isFetchingNextPage) void query.fetchNextPage();
    },
  });
  return (
    <div ref={box} className={messagesCss.list}>
      <QueryState query={query} />
      {first && threads.length === 0 && <p className={messagesCss.empty}>{none}</p>}
      <ol className={messagesCss.virtual} style={{ height: virtual.getTotalSize() }} aria-label={t('list')}>
        {shown.map(({ index, key, start }) => {
          const line = lines[index];
          if (!line || !first) return null;
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              style={{ transform: `translateY(${start}px)` }}
            >
              {'heading' in line ? (
                <h2>{line.heading}</h2>
              ) : (
                <ThreadRow
                  thread={line.thread}
                  messages={first}
                  current={line.thread.key === current}
                  ticked={null}
                  onTick={() => {}}
                  onOpen={(another) => onOpen(line.thread, another)}
                  onKey={(event) => move(event, index)}
                />
              )}
            </li>
          );
        })}
      </ol>
    </div>
  );
}
