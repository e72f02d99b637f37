'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { HoldsAnswer } from '@/contract/meetings/holds.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { sentenceOf } from '../../common/fetched/refusal.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, dayName } from '../../common/times.ts';

/** The set a hold is one of: its other times, when it frees itself, who is asked once one is fixed; and the press that fixes this one. */
export function HoldCard({ item, onFixed }: { item: ItemWire; onFixed: (answer: SeveralAnswer) => void }) {
  const t = useTranslations('openings.held');
  const { style } = useFrame();
  const { attempt, busy, refused, setRefused } = useActing();
  const query = useQuery({
    queryKey: KEYS.holds(item.id, item.version),
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
    await attempt(async () => {
      onFixed(await call('fixHold', { params: { item: item.id }, body: { version: item.version ?? 0 } }));
    });
  };
  const { data } = query;
  const others = data?.times.filter((time) => !time.self) ?? [];
  const people = data?.people.map((p) => p.name ?? p.address) ?? [];
  return (
    <section aria-label={t('title', { letter, number, of })} className="gap-3 stack">
      <h3>{t('title', { letter, number, of })}</h3>
      {hold.lapses && <p className="small soft">{t('lapses', { time: at(hold.lapses) })}</p>}
      <QueryState query={query} />
      {others.length > 0 && (
        <p className="small">
          {t('others', { count: others.length, times: others.map((time) => at(time.start)).join(' · ') })}
        </p>
      )}
      {data && (
        <p className="small soft">{t('asked', { count: people.length, names: people.slice(0, 4).join(', ') })}</p>
      )}
      {data && <OfferOf item={item} data={data} onRefused={setRefused} />}
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      <Button variant="contained" loading={busy} onClick={() => void fix()} className="own-width">
        {t('fix', { count: people.length, others: others.length })}
      </Button>
    </section>
  );
}

/** Offers the set on a page for somebody without an account, worded as one likes; or the address where it is, and what ends it. */
function OfferOf({ item, data, onRefused }: { item: ItemWire; data: HoldsAnswer; onRefused: (why: string) => void }) {
  const t = useTranslations('openings.held');
  const { attempt } = useActing();
  const client = useQueryClient();
  const { toast } = useFrame();
  const [words, setWords] = useState(item.title ?? '');
  const act = async (work: () => Promise<unknown>) => {
    await attempt(
      async () => {
        await work();
        await client.invalidateQueries({ queryKey: KEYS.holds() });
      },
      (answer) => {
        onRefused(sentenceOf(answer));
      },
    );
  };
  const params = { item: item.id };
  if (data.offer?.address) {
    const address = `${window.location.origin}${data.offer.address}`;
    return (
      <section className="gap-3 stack">
        <p className="small">{t('offered')}</p>
        <a className="small anywhere" href={data.offer.address} target="_blank" rel="noreferrer">
          {address}
        </a>
        <span className="row">
          <Button
            variant="outlined"
            onClick={() => void navigator.clipboard.writeText(address).then(() => toast({ text: t('addressCopied') }))}
          >
            {t('copyAddress')}
          </Button>
          <Button variant="text" onClick={() => void act(() => call('withdrawOffer', { params }))}>
            {t('withdraw')}
          </Button>
        </span>
      </section>
    );
  }
  return (
    <section className="gap-3 stack">
      <TextField
        label={t('offerWords')}
        value={words}
        onChange={(e) => setWords(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
      />
      <Button
        variant="outlined"
        className="own-width"
        onClick={() => void act(() => call('makeOffer', { params, body: { words } }))}
      >
        {t('offer')}
      </Button>
    </section>
  );
}
