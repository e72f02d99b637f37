'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { DaysField } from '../form/days-field.tsx';

/** Puts another like an item on each of some days, in one act and without its people. */
export function CopyOnDays({ item, onCopied }: { item: ItemWire; onCopied: (answer: SeveralAnswer) => void }) {
  const t = useTranslations();
  const [days, setDays] = useState<string[]>([]);
  const { attempt, busy, refused } = useActing();
  const put = () =>
    attempt(async () => {
      onCopied(await call('copyItem', { params: { item: item.id }, body: { dates: days } }));
      setDays([]);
    });
  return (
    <div className="gap-3 above-4 stack">
      <DaysField days={days} error={refused ?? undefined} onChange={setDays} />
      <div className="row">
        <Button variant="contained" disabled={days.length === 0} loading={busy} onClick={() => void put()}>
          {t('picked.copyOn', { count: days.length, title: item.title ?? '' })}
        </Button>
      </div>
    </div>
  );
}
