import { useEffect, useState } from 'react';
import { call } from '@/contract/call.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { type Preview, usePreview } from './preview.ts';
import { KEYS } from './query-keys.ts';

/** One of the choices beside some rights: what they become by it, or why it can't be made. */
interface Choice {
  readonly group: string;
  readonly value: string;
  readonly rights: RightsWire;
  readonly barred?: string | null;
  readonly needs?: string | null;
}

/**
 * Choosing rights one choice at a time, before saving. The server says what a choice comes to, given the rights so far; until it has
 * answered, the choice waits. `onChosen` gets the resulting rights. A choice that isn't allowed is held as `barred`, with its reason.
 */
export function useChoosing<C extends Choice>(
  preview: Preview<{ readonly choices: readonly C[] }>,
  onChosen: (rights: RightsWire) => void,
) {
  const { answer, settled } = preview;
  const [picked, setPicked] = useState<{ group: string; value: string } | null>(null);
  const [barred, setBarred] = useState<C | null>(null);
  useEffect(() => {
    if (!picked || !settled) return;
    const found = answer?.choices.find((c) => c.group === picked.group && c.value === picked.value);
    if (found?.barred) setBarred(found);
    else if (found && !found.needs) onChosen(found.rights);
    setPicked(null);
  }, [picked, settled, answer, onChosen]);
  return {
    pick: (group: string, value: string) => {
      setBarred(null);
      setPicked({ group, value });
    },
    barred,
    leaveBarred: () => setBarred(null),
    /** A choice is still to be carried out: what is saved now would be without it. */
    waits: picked !== null,
  };
}

/** Choices beside rights that aren't tied to one audience yet: in a request, or for several people at once. */
export function usePlainChoices(
  rights: RightsWire,
  onChosen: (rights: RightsWire) => void,
  kind: CollectionKind = 'calendar',
) {
  const preview = usePreview(KEYS.requestChoices(rights, kind), () =>
    call('accessRequestChoices', { body: { rights, kind } }),
  );
  return useChoosing(preview, onChosen);
}

/** Saving that may need a confirmation naming who will hear of it. `how` is the chosen way of saving, which the second press keeps. */
export function useConfirming<How>(save: (how: How) => unknown) {
  const [confirming, setConfirming] = useState<How | null>(null);
  return {
    confirming,
    press: (how: How, saidFirst: boolean) => {
      if (saidFirst) setConfirming(how);
      else void save(how);
    },
    yes: () => {
      if (confirming === null) return;
      setConfirming(null);
      void save(confirming);
    },
    no: () => setConfirming(null),
  };
}
