'use client';
import Button from '@mui/material/Button';
import { useInfiniteQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { MessagesAnswer, ThreadWire } from '@/contract/messages.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { firstName } from '../common/token.tsx';
import { useMeetingsAgain } from '../meetings/waiting.tsx';
import { Thread } from './thread.tsx';
import threadsCss from './threads.module.css';
import { WriteMail } from './write-mail.tsx';

/** The messages of whom this window works for: what needs something first, then what waits for a yes (`between`), then the latest. */
export function Threads({ who, between }: { who: string; between: ReactNode }) {
  const t = useTranslations();
  const query = useInfiniteQuery({
    queryKey: KEYS.messages(who),
    queryFn: ({ pageParam }) =>
      call('listMessages', { params: { person: who }, query: pageParam === null ? {} : { before: pageParam } }),
    initialPageParam: null as number | null,
    getNextPageParam: (last: MessagesAnswer) => last.more,
    retry: false,
  });
  const [writing, setWriting] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const first = query.data?.pages[0];
  if (query.isError)
    return (
      <>
        <p className="soft">{t('threads.notYours')}</p>
        {between}
      </>
    );
  if (!first) return <p className="soft">{t('common.loading')}</p>;
  const seen = new Set<string>();
  const threads = (query.data?.pages ?? [])
    .flatMap((page) => page.threads)
    .filter((thread) => !seen.has(thread.key) && seen.add(thread.key));
  const needing = threads.filter((thread) => thread.needs !== null);
  const rest = threads.filter((thread) => thread.needs === null);
  const name = firstName(first.owner.name);
  const part = (list: readonly ThreadWire[]) =>
    list.map((thread) => (
      <Thread
        key={thread.key}
        thread={thread}
        messages={first}
        chosen={chosen.has(thread.key)}
        onChoose={(on) => {
          const next = new Set(chosen);
          if (on) next.add(thread.key);
          else next.delete(thread.key);
          setChosen(next);
        }}
      />
    ));
  return (
    <>
      <div className="row" style={{ justifyContent: 'space-between', marginBottom: 10 }}>
        <p className="soft">{t('threads.count', { count: needing.length, name, own: first.own ? 'yes' : 'no' })}</p>
        {first.maySpeak && !writing && (
          <Button variant="outlined" onClick={() => setWriting(true)}>
            {t('threads.write', { name, own: first.own ? 'yes' : 'no' })}
          </Button>
        )}
      </div>
      {first.forNobody > 0 && (
        <p className="small soft" role="status">
          {t('threads.forNobody', { count: first.forNobody })}
        </p>
      )}
      {writing && <WriteMail messages={first} answers={null} onDone={() => setWriting(false)} />}
      <Several threads={needing.filter((thread) => chosen.has(thread.key))} onDone={() => setChosen(new Set())} />
      {needing.length > 0 && (
        <section aria-label={t('threads.needs', { name, own: first.own ? 'yes' : 'no' })}>
          <h2 style={{ margin: '4px 0 8px' }}>{t('threads.needs', { name, own: first.own ? 'yes' : 'no' })}</h2>
          <ul className={threadsCss.list}>{part(needing)}</ul>
        </section>
      )}
      {between}
      {rest.length > 0 && (
        <section aria-label={t('threads.rest')}>
          <h2 style={{ margin: '14px 0 8px' }}>{t('threads.rest')}</h2>
          <ul className={threadsCss.list}>{part(rest)}</ul>
        </section>
      )}
      {threads.length === 0 && <p className="soft">{t('threads.none', { name, own: first.own ? 'yes' : 'no' })}</p>}
      {query.hasNextPage && (
        <Button variant="outlined" loading={query.isFetchingNextPage} onClick={() => void query.fetchNextPage()}>
          {t('threads.earlier')}
        </Button>
      )}
    </>
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
        const kept = results.filter((r) => r.status === 'rejected').length;
        toast({ text: kept === 0 ? t('meetings.takenBack') : t('threads.leftMeanwhile', { count: kept }) });
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
    <section className={threadsCss.several} aria-label={t('threads.several', { count: threads.length })}>
      <span>{t('threads.several', { count: threads.length })}</span>
      {(['accepted', 'tentative', 'declined'] as const).map((how) => (
        <Button key={how} variant="outlined" color="inherit" loading={busy} onClick={() => void answer(how)}>
          {t(`meetings.answer.${how}`)}
        </Button>
      ))}
    </section>
  );
}
