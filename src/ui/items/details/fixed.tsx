'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { said } from '../../common/refusal.ts';

/** Says that something stays where it is, whatever room is made, or no longer; of a series this one. */
export function Fixed({ item, onWrote }: { item: ItemWire; onWrote: (answer: WrittenAnswer) => void }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const [busy, setBusy] = useState(false);
  const is = item.asSet?.fixed === true;
  const set = async () => {
    setBusy(true);
    try {
      const body = { version: item.version ?? 0, scope: 'one' as const, fixed: !is, fields: {} };
      onWrote(await call('changeItem', { params: { item: item.id }, body }));
    } catch (error) {
      toast({ text: said(error, t('common.unreachable')).sentence });
    } finally {
      setBusy(false);
    }
  };
  return (
    <Button variant="outlined" aria-pressed={is} loading={busy} onClick={() => void set()}>
      {t(is ? 'openings.fixedIs' : 'openings.fixedNot')}
    </Button>
  );
}
