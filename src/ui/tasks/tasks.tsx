'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call, sendTasks } from '@/contract/call.ts';
import type { TaskListWire, TasksAnswer, TaskWire } from '@/contract/tasks.ts';
import { useActing } from '../common/fetched/acting.ts';
import { Asked } from '../common/fetched/asked.tsx';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useTaskActs } from '../common/fetched/task-acts.ts';
import { useFrame } from '../common/frame-context.tsx';
import { ListFile } from '../common/lists/list-file.tsx';
import { ListNav } from '../common/lists/list-nav.tsx';
import listsCss from '../common/lists/lists.module.css';
import pageCss from '../common/page.module.css';
import { firstName } from '../common/token.tsx';
import { AddTask } from './add-task.tsx';
import { TaskPanel } from './task-panel.tsx';
import { TaskRows } from './task-rows.tsx';

/** Somebody's lists of tasks, the tasks of the chosen one, and the one that is looked at. */
export function Tasks({ who }: { who: string }) {
  const t = useTranslations('tasks');
  const query = useQuery({
    queryKey: KEYS.taskLists(who),
    queryFn: () => call('listTaskLists', { params: { person: who } }),
    retry: false,
  });
  const search = useSearchParams();
  const { frame, principal } = useFrame();
  const own = who === frame.me.handle;
  const gone = query.error instanceof CallRefused && query.error.body.code === 'notFound';
  if (gone)
    return (
      <div className={pageCss.state}>
        <h1>{t('titleOf', { own: 'false', name: firstName(principal?.name ?? '') })}</h1>
        <p>{t('notGiven', { name: firstName(principal?.name ?? '') })}</p>
      </div>
    );
  if (!query.data)
    return (
      <div className={pageCss.state}>
        <Asked query={query} />
      </div>
    );
  const { lists, others } = query.data;
  const counted = (list: TaskListWire) => ({
    ...list,
    count: list.open === null ? t('many') : list.open > 0 ? String(list.open) : '',
  });
  const wanted = search.get('list');
  const chosen = [...lists, ...others].find(({ key }) => key === wanted) ?? lists[0] ?? others[0];
  return (
    <div className={listsCss.page}>
      {(own || lists.length + others.length > 1) && (
        <ListNav
          of="tasks"
          who={who}
          lists={lists.map(counted)}
          others={others.map(counted)}
          chosen={chosen?.key ?? null}
        />
      )}
      {chosen ? (
        <TaskList key={chosen.key} who={who} list={chosen} lists={lists} />
      ) : (
        <p className={`${pageCss.state} soft`}>{t('noList')}</p>
      )}
    </div>
  );
}

function TaskList({ who, list: known, lists }: { who: string; list: TaskListWire; lists: readonly TaskListWire[] }) {
  const t = useTranslations('tasks');
  const { frame, toast } = useFrame();
  const router = useRouter();
  const search = useSearchParams();
  const done = search.get('done') === '1';
  const query = useInfiniteQuery({
    queryKey: KEYS.tasks(known.key, done),
    queryFn: ({ pageParam }) =>
      call('listTasks', {
        params: { list: known.key },
        query: { ...(done ? { done: '1' as const } : {}), ...(pageParam ? { after: pageParam } : {}) },
      }),
    initialPageParam: '',
    getNextPageParam: (page: TasksAnswer) => page.more ?? undefined,
    retry: false,
  });
  const { attempt, refused } = useActing();
  const list = query.data?.pages[0]?.list ?? known;
  const tasks = query.data?.pages.flatMap((page) => page.tasks) ?? [];
  const open = search.get('task');
  const current = tasks.find(({ id }) => id === open);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = query;
  // What an address names is opened wherever it stands in the list.
  const sought = open !== null && !current && hasNextPage && !isFetchingNextPage;
  useEffect(() => {
    if (sought) void fetchNextPage();
  }, [sought, fetchNextPage]);
  const go = (change: Readonly<Record<string, string | null>>) => {
    const next = new URLSearchParams(search);
    for (const [name, value] of Object.entries(change))
      if (value === null) next.delete(name);
      else next.set(name, value);
    window.history.replaceState(null, '', `?${next}`);
  };
  const { again, said, tick } = useTaskActs();
  const ticked = (task: TaskWire) =>
    attempt(
      () => tick(task),
      async (why) => {
        if (why.code === 'changedMeanwhile') await again();
      },
    );
  const answer = (task: TaskWire, yes: boolean, note: string) =>
    attempt(async () => {
      await call('answerTask', { params: { task: task.id }, body: { yes, note } });
      toast({ text: t(yes ? 'saidYes' : 'saidNo', { title: task.title }) });
      await again();
    });
  const owner = firstName(list.owner.name);
  const name = list.name || t('firstList');
  return (
    <>
      <main className={`${listsCss.main} who-${list.owner.colour % 6}`} aria-label={name}>
        <header className={listsCss.head}>
          <h1>{list.name ? list.name : t('titleOf', { own: String(list.own), name: owner })}</h1>
          <span className="soft small">
            {list.name && !list.own ? `${list.owner.name} · ` : ''}
            {list.open === null ? t('openMany') : t('openCount', { count: list.open })}
          </span>
          <span className={listsCss.push}>
            {list.may.share && (
              <Link
                href={`/for/${frame.principals.some((p) => p.handle === list.owner.handle) ? list.owner.handle : frame.me.handle}/sightlines?${new URLSearchParams(
                  { c: list.key, ...(list.own ? {} : { of: list.owner.handle }) },
                )}`}
              >
                {t('whoSees')}
              </Link>
            )}
            {list.may.files && (
              <ListFile
                of="tasks"
                href={`/api/lists/${list.key}/file`}
                accept=".ics,text/calendar"
                send={(file) => sendTasks(list.key, file)}
                onDone={said}
              />
            )}
            <Button variant="text" aria-pressed={done} onClick={() => go({ done: done ? null : '1', task: null })}>
              {t(done ? 'showOpen' : 'showDone')}
            </Button>
          </span>
        </header>
        {!list.may.add && <p className={`small soft ${listsCss.note}`}>{t('readOnly', { name: owner })}</p>}
        {refused && (
          <Alert severity="error" className={listsCss.note}>
            {refused}
          </Alert>
        )}
        {list.may.add && !done && <AddTask list={list} onAdded={said} />}
        <Asked query={query} />
        {query.data && tasks.length === 0 && (
          <p className={`soft ${listsCss.note}`}>{t(done ? 'noneDone' : list.may.add ? 'noneYet' : 'none')}</p>
        )}
        <TaskRows
          tasks={tasks}
          done={done}
          owner={owner}
          current={current?.id ?? null}
          onOpen={(task) => go({ task: task.id === current?.id ? null : task.id })}
          onTick={(task) => void ticked(task)}
          onAnswer={(task, yes, note) => void answer(task, yes, note)}
          onEnd={() => hasNextPage && !isFetchingNextPage && void fetchNextPage()}
          more={hasNextPage}
        />
      </main>
      {current && (
        <TaskPanel
          key={current.id}
          task={current}
          list={list}
          lists={lists}
          onClose={() => go({ task: null })}
          onSaved={async (text, undo, moved) => {
            if (moved) router.replace(`/for/${who}/tasks?list=${moved}`);
            await said(text, undo);
          }}
          onStale={again}
        />
      )}
    </>
  );
}
