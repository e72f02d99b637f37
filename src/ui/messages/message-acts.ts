import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ChangeMessagesBody } from '@/contract/messages.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';

/** What is done to messages of a folder: it is said, what can be taken back has its press, and what shows messages is read anew. */
export function useMessageActs() {
  const t = useTranslations('folders');
  const { toast } = useFrame();
  const client = useQueryClient();
  const { attempt, busy } = useActingWithToast();
  const again = async () => {
    await client.invalidateQueries({ queryKey: KEYS.everyonesMessages });
    void client.invalidateQueries({ queryKey: KEYS.frame });
    void client.invalidateQueries({ queryKey: KEYS.desks });
  };
  const change = (folder: string, messages: readonly string[], what: Omit<ChangeMessagesBody, 'messages'>) =>
    call('changeMessages', { params: { folder }, body: { messages: [...messages], ...what } });
  /** Does one thing, and offers the one that undoes it. */
  const act = (
    folder: string,
    messages: readonly string[],
    what: Omit<ChangeMessagesBody, 'messages'>,
    text: string,
    back: { readonly folder: string; readonly what: Omit<ChangeMessagesBody, 'messages'> } | null,
  ): Promise<boolean> =>
    attempt(async () => {
      await change(folder, messages, what);
      const undo = () =>
        void attempt(async () => {
          if (back) await change(back.folder, messages, back.what);
          toast({ text: t('undone') });
          await again();
        });
      toast({ text, ...(back ? { undo } : {}) });
      await again();
    });
  return { act, again, busy };
}
