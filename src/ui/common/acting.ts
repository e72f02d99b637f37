import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { useFrame } from './frame-context.tsx';
import { type Said, said, sentenceOf } from './refusal.ts';

/**
 * Acting on the server from one place of a screen: `attempt` does something and answers whether it was done; meanwhile `busy`, and where it
 * was refused, `refused` says why in a sentence until the next try. Who does more with a refusal takes it themselves (`onRefused`).
 */
export function useActing() {
  const t = useTranslations('common');
  const [refused, setRefused] = useState<string | null>(null);
  const { mutateAsync, isPending } = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    // Without a network it is said at once, and not tried by itself later.
    networkMode: 'always',
  });
  const attempt = async (work: () => Promise<unknown>, onRefused?: (why: Said) => void): Promise<boolean> => {
    setRefused(null);
    try {
      await mutateAsync(work);
      return true;
    } catch (error) {
      const why = said(error, t('unreachable'));
      if (onRefused) onRefused(why);
      else setRefused(sentenceOf(why));
      return false;
    }
  };
  return { attempt, busy: isPending, refused, setRefused };
}

/** The same where a place has no room for a sentence: the window's toast says why something was refused. */
export function useActingWithToast() {
  const { attempt, busy } = useActing();
  const { toast } = useFrame();
  return {
    attempt: (work: () => Promise<unknown>) => attempt(work, (why) => toast({ text: sentenceOf(why) })),
    busy,
  };
}
