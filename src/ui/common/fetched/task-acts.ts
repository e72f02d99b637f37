import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { useFrame } from '../frame-context.tsx';
import { useActingWithToast } from './acting.ts';
import { KEYS } from './query-keys.ts';

/** What is done with tasks wherever they are shown: each says what it did, offers to take it back, and reads anew what shows tasks. */
export function useTaskActs() {
  const t = useTranslations('tasks');
  const { toast } = useFrame();
  const client = useQueryClient();
  const quietly = useActingWithToast();
  const again = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: KEYS.everyTask }),
      client.invalidateQueries({ queryKey: KEYS.desks }),
    ]);
  const said = async (text: string, undo: string) => {
    const back = () =>
      void quietly.attempt(async () => {
        await call('undo', { body: { undo } });
        toast({ text: t('undone') });
        await again();
      });
    toast({ text, ...(undo ? { undo: back } : {}) });
    await again();
  };
  /** Says that a task is done, or open again. */
  const tick = async (task: TaskWire) => {
    const { undo } = await call('changeTask', {
      params: { task: task.id },
      body: { version: task.version ?? 0, done: !task.done, fields: {} },
    });
    await said(t(task.done ? 'openAgain' : task.repeats ? 'doneComes' : 'doneNow', { title: task.title }), undo);
  };
  return { again, said, tick };
}
