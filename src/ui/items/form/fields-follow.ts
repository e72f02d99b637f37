import { useEffect } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { FORM_FIELDS } from '@/core/calendar/index.ts';
import { type Draft, isTyped, type Values } from './item-values.ts';

/** Fields that follow what happens around the form: the right to the item ends, or it becomes a whereabouts. */
export function useFieldsFollow(
  { getFieldState, getValues, setValue }: UseFormReturn<Values>,
  { draft, kind, gone }: { readonly draft: Draft; readonly kind: Values['kind']; readonly gone: boolean },
): void {
  useEffect(() => {
    if (!gone || draft.kind !== 'change') return;
    // When access ends, fields that were only read are blanked; what was typed stays.
    for (const name of FORM_FIELDS) if (isTyped(name) && !getFieldState(name).isDirty) setValue(name, '');
    if (!getFieldState('categories').isDirty) setValue('categories', '');
  }, [gone, draft.kind, getFieldState, setValue]);
  useEffect(() => {
    // A whereabouts is open to whoever may look at all, unless it is made narrower.
    if (kind === 'whereabouts' && getValues('visibility') === 'follow' && draft.kind === 'new')
      setValue('visibility', 'open', { shouldDirty: true });
  }, [kind, draft.kind, getValues, setValue]);
}
