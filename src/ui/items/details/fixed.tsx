'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import { useActingWithToast } from '../../common/fetched/acting.ts';

/** Says that something stays where it is, whatever room is made, or no longer; of a series this one. */
export function Fixed({ item, onWrote }: { item: ItemWire; onWrote: (answer: WrittenAnswer) => void }) {
  const t = useTranslations();
  const { attempt, busy } = useActingWithToast();
  const is = item.asSet?.fixed === true;
  const set = async () => {
    await attempt(async () => {
      const body = { version: item.version ?? 0, scope: 'one' as const, fixed: !is, fields: {} };
      onWrote(await call('changeItem', { params: { item: item.id }, body }));
    });
  };
  return (
    <Button variant="outlined" aria-pressed={is} loading={busy} onClick={() => void set()}>
      {t(is ? 'openings.fixedIs' : 'openings.fixedNot')}
    </Button>
  );
}
