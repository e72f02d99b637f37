import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ThreadWire } from '@/contract/messages.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { useFrame } from '../common/frame-context.tsx';
import { firstName } from '../common/token.tsx';
import { useMeetingsAgain } from '../meetings/waiting.tsx';
import messagesCss from './messages.module.css';
import { alongRows, ThreadRow } from './thread-row.tsx';
import type { Threads } from './use-threads.ts';

/** What needs somebody, then what waits for a yes (`between`), then the latest, then what one was told (`after`). */
export function NeedingThreads(props: {
  of: Threads;
  current: string | null;
  onOpen: (thread: ThreadWire, another: boolean) => void;
  between: ReactNode;
  /** How many of those need them too. */
  waiting: number;
  after: ReactNode;
}) {
  const { of, current, onOpen, between, waiting, after } = props;
  const { query, first, threads } = of;
  const t = useTranslations();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  if (query.isError)
    return (
      <div className={messagesCss.list}>
        <p className="soft">{t('threads.notYours')}</p>
        <div className={messagesCss.cards}>
          {between}
          {after}
        </div>
      </div>
    );
  if (!first) return <p className={messagesCss.empty}>{t('common.loading')}</p>;
  const needing = threads.filter((thread) => thread.needs !== null);
  const rest = threads.filter((thread) => thread.needs === null);
  const words = { name: firstName(first.owner.name), own: first.own ? 'yes' : 'no' };
  const tick = (key: string, on: boolean) => {
    const next = new Set(ticked);
    if (on) next.add(key);
    else next.delete(key);
    setTicked(next);
  };
  const part = (list: readonly ThreadWire[]) =>
    list.map((thread) => (
      <li key={thread.key} aria-label={thread.withheld ? t('board.private') : (thread.title ?? '')}>
        <ThreadRow
          thread={thread}
          messages={first}
          current={thread.key === current}
          ticked={thread.needs === 'answer' && thread.mayAnswer ? ticked.has(thread.key) : null}
          onTick={(on) => tick(thread.key, on)}
          onOpen={(another) => onOpen(thread, another)}
          onKey={alongRows}
        />
      </li>
    ));
  return (
    <div className={messagesCss.list}>
      <p className="soft small">{t('threads.count', { ...words, count: needing.length + waiting })}</p>
      {first.forNobody > 0 && (
        <p className="small soft" role="status">
          {t('threads.forNobody', { count: first.forNobody })}
        </p>
      )}
      <Several threads={needing.filter((thread) => ticked.has(thread.key))} onDone={() => setTicked(new Set())} />
      {needing.length > 0 && (
        <section aria-label={t('threads.needs', words)}>
          <h2>{t('threads.needs', words)}</h2>
          <ul className={messagesCss.plain}>{part(needing)}</ul>
        </section>
      )}
      <div className={messagesCss.cards}>{between}</div>
      {rest.length > 0 && (
        <section aria-label={t('threads.rest')}>
          <h2>{t('threads.rest')}</h2>
          <ul className={messagesCss.plain}>{part(rest)}</ul>
        </section>
      )}
      {threads.length === 0 && <p className="soft">{t('threads.none', words)}</p>}
      {query.hasNextPage && (
        <div className={messagesCss.cards}>
          <Button variant="outlined" loading={query.isFetchingNextPage} onClick={() => void query.fetchNextPage()}>
            {t('threads.earlier')}
          </Button>
        </div>
      )}
      <div className={messagesCss.cards}>{after}</div>
    </div>
  );
}

/** Those that are ticked, answered at once. */
function Several({ threads, onDone }: { threads: readonly ThreadWire[]; onDone: () => void }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const again = useMeetingsAgain();
  const { attempt, busy } = useActingWithToast();
  if (threads.length === 0) return null;
  const answer = async (how: 'accepted' | 'tentative' | 'declined') => {
    await attempt(async () => {
      const answers = threads.flatMap((thread) =>
        thread.item
          ? { item: thread.item, answer: how, seen: thread.answered?.answer ?? ('needs-action' as const) }
          : [],
      );
      const { answered } = await call('answerSeveral', { body: { answers } });
      const done = answered.filter((one) => one.refused === null);
      const back = async () => {
        const keys = done.flatMap((one) => one.sending ?? []);
        const results = await Promise.allSettled(keys.map((sending) => call('takeBack', { params: { sending } })));
        const refusedCount = results.filter((r) => r.status === 'rejected').length;
        toast({
          text: refusedCount === 0 ? t('meetings.takenBack') : t('threads.leftMeanwhile', { count: refusedCount }),
        });
        again();
      };
      toast({
        text: t('threads.answeredSeveral', { count: done.length, refused: answered.length - done.length }),
        undo: () => void back(),
        undoWord: t('meetings.takeBack'),
      });
      onDone();
    });
    again();
  };
  return (
    <section className={messagesCss.several} aria-label={t('threads.several', { count: threads.length })}>
      <span>{t('threads.several', { count: threads.length })}</span>
      {(['accepted', 'tentative', 'declined'] as const).map((how) => (
        <Button key={how} variant="outlined" color="inherit" loading={busy} onClick={() => void answer(how)}>
          {t(`meetings.answer.${how}`)}
        </Button>
      ))}
    </section>
  );
}
