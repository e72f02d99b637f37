'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { sendTasks } from '@/contract/call.ts';
import type { TaskListWire, TasksBroughtIn } from '@/contract/tasks.ts';
import { useActing } from '../common/fetched/acting.ts';

/** A list as a file, and the tasks of a file into it: for whoever may have all of it. */
export function TaskFile({
  list,
  onDone,
}: {
  list: TaskListWire;
  onDone: (text: string, undo: string) => Promise<void>;
}) {
  const t = useTranslations('tasks');
  const input = useRef<HTMLInputElement>(null);
  const [problems, setProblems] = useState<TasksBroughtIn | null>(null);
  const { attempt, busy, refused } = useActing();
  const bring = (file: File) =>
    attempt(async () => {
      const done = await sendTasks(list.key, file);
      setProblems(done.left > 0 ? done : null);
      await onDone(t('imported', { added: done.added, changed: done.changed, same: done.same }), done.undo);
    });
  return (
    <>
      <Button variant="text" component="a" href={`/api/lists/${list.key}/file`} download>
        {t('export')}
      </Button>
      <Button variant="text" loading={busy} onClick={() => input.current?.click()}>
        {t('import')}
      </Button>
      <input
        ref={input}
        type="file"
        accept=".ics,text/calendar"
        hidden
        aria-label={t('import')}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void bring(file);
        }}
      />
      {refused && <Alert severity="error">{refused}</Alert>}
      {problems && (
        <Alert severity="warning" onClose={() => setProblems(null)}>
          {t('importProblems', {
            count: problems.left,
            list: problems.problems
              .slice(0, 5)
              .map(({ line, title }) => t('importLine', { line, title: title ?? t('untitled') }))
              .join(', '),
          })}
        </Alert>
      )}
    </>
  );
}
