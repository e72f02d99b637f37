import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useFrame } from '../frame-context.tsx';
import { useActingWithToast } from './acting.ts';
import { KEYS } from './query-keys.ts';

/** What follows an act on contacts: it is said, can be taken back, and what shows contacts is read anew. */
export function useContactActs() {
  const t = useTranslations('contacts');
  const { toast } = useFrame();
  const client = useQueryClient();
  const quietly = useActingWithToast();
  const again = () => client.invalidateQueries({ queryKey: KEYS.everyContact });
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
  return { again, said };
}
