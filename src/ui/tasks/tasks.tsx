'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { call, sendTasks } from '@/contract/call.ts';
import type { TaskListWire, TasksAnswer, TaskWire } from '@/contract/tasks.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useTaskActs } from '../common/fetched/task-acts.ts';
import { useFrame } from '../common/frame-context.tsx';
import { ListFile } from '../common/lists/list-file.tsx';
import { ListHead } from '../common/lists/list-head.tsx';
import listsCss from '../common/lists/lists.module.css';
import { ListsPage } from '../common/lists/lists-page.tsx';
import { firstName } from '../common/token.tsx';
import { useAddress } from '../common/use-address.ts';
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
  const count = (list: TaskListWire) => (list.open === null ? t('many') : list.open > 0 ? String(list.open) : '');
  return (
    <ListsPage of="tasks" who={who} query={query} count={count}>
      {(chosen, lists) => <TaskList key={chosen.key} who={who} list={chosen} lists={lists} />}
    </ListsPage>
  );
}

function TaskList({ who, list: known, lists }: { who: string; list: TaskListWire; lists: readonly TaskListWire[] }) {
  const t = useTranslations('tasks');
  const { toast } = useFrame();
  const router = useRouter();
  const { search, go } = useAddress();
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
        <ListHead
          of="tasks"
          list={list}
          count={list.open === null ? t('openMany') : t('openCount', { count: list.open })}
        >
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
        </ListHead>
        {refused && (
          <Alert severity="error" className={listsCss.note}>
            {refused}
          </Alert>
        )}
        {list.may.add && !done && <AddTask list={list} onAdded={said} />}
        <QueryState query={query} />
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
