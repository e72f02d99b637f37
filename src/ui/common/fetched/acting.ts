import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { useFrame } from '../frame-context.tsx';
import { type Said, said, sentenceOf } from './refusal.ts';

/** Sentences at the fields of a form, by the field's name. */
type FieldSentences = Readonly<Record<string, string>>;

const NO_FIELDS: FieldSentences = {};

/**
 * Acting on the server from one place of a screen. `attempt` runs something and answers whether it succeeded; `busy` is true meanwhile.
 * After a refusal, and until the next attempt, `fields` holds the sentences for single fields and `refused` the sentence for the whole
 * form. `refused` is null where `atFields` (the fields that show their own sentence) cover the refusal. `onRefused` takes a refusal
 * instead; a text it returns becomes `refused`.
 */
export function useActing(atFields: readonly string[] = []) {
  const t = useTranslations('common');
  const [refused, setRefused] = useState<string | null>(null);
  const [fields, setFields] = useState(NO_FIELDS);
  const { mutateAsync, isPending } = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    // Without a network it is said at once, and not tried by itself later.
    networkMode: 'always',
  });
  const clear = () => {
    setRefused(null);
    setFields(NO_FIELDS);
  };
  const attempt = async (
    work: () => Promise<unknown>,
    onRefused: (why: Said) => unknown = (why) => sentenceAbove(why, atFields),
  ): Promise<boolean> => {
    clear();
    try {
      await mutateAsync(work);
      return true;
    } catch (error) {
      const why = said(error, t('unreachable'));
      const says = onRefused(why);
      setFields(why.fields);
      if (typeof says === 'string') setRefused(says);
      return false;
    }
  };
  return { attempt, busy: isPending, refused, setRefused, fields, setFields, clear };
}

/** What is said above a form: the first sentence that isn't said at its field. */
function sentenceAbove(why: Said, atFields: readonly string[]): string | null {
  const names = Object.keys(why.fields);
  const left = names.find((name) => !atFields.includes(name));
  return left === undefined && names.length > 0 ? null : ((left && why.fields[left]) ?? why.sentence);
}

/** The same where a place has no room for a sentence: the window's toast says why something was refused. */
export function useActingWithToast() {
  const { attempt, busy } = useActing();
  const { toast } = useFrame();
  return {
    attempt: (work: () => Promise<unknown>) =>
      attempt(work, (why) => {
        toast({ text: sentenceOf(why) });
      }),
    busy,
  };
}
