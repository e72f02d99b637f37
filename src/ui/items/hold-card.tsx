'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items.ts';
import type { SeveralAnswer } from '@/contract/items-several.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { Asked } from '../common/asked.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { said } from '../common/refusal.ts';
import { clock, dayName } from '../common/times.ts';

/** The set a hold is one of: its other times, when it frees itself, who is asked once one is fixed; and the press that fixes this one. */
export function HoldCard({ item, onFixed }: { item: ItemWire; onFixed: (answer: SeveralAnswer) => void }) {
  const t = useTranslations('openings.held');
  const common = useTranslations('common');
  const { style } = useFrame();
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const query = useQuery({
    queryKey: ['calendar', 'holds', item.id, item.version],
    queryFn: () => call('readHolds', { params: { item: item.id } }),
    retry: false,
    gcTime: 0,
  });
  const hold = item.asSet?.hold;
  if (!hold) return null;
  const { letter, number, of } = hold;
  const at = (text: string) => {
    const wall = toWall(style.zone, parseInstant(text) ?? 0);
    return `${dayName(wall)}, ${clock(wall, style.hours)}`;
  };
  const fix = async () => {
    setBusy(true);
    setRefused(null);
    try {
      onFixed(await call('fixHold', { params: { item: item.id }, body: { version: item.version ?? 0 } }));
    } catch (error) {
      setRefused(said(error, common('unreachable')).sentence);
    } finally {
      setBusy(false);
    }
  };
  const { data } = query;
  const others = data?.times.filter((time) => !time.self) ?? [];
  const people = data?.people.map((p) => p.name ?? p.address) ?? [];
  return (
    <section aria-label={t('title', { letter, number, of })} style={{ display: 'grid', gap: 6 }}>
      <h3>{t('title', { letter, number, of })}</h3>
      {hold.lapses && <p className="small soft">{t('lapses', { time: at(hold.lapses) })}</p>}
      <Asked query={query} />
      {others.length > 0 && (
        <p className="small">
          {t('others', { count: others.length, times: others.map((time) => at(time.start)).join(' · ') })}
        </p>
      )}
      {data && (
        <p className="small soft">{t('asked', { count: people.length, names: people.slice(0, 4).join(', ') })}</p>
      )}
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      <Button variant="contained" loading={busy} onClick={() => void fix()} sx={{ justifySelf: 'start' }}>
        {t('fix', { count: people.length, others: others.length })}
      </Button>
    </section>
  );
}
