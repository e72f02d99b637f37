'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TimeShareWire, TimeUseAnswer } from '@/contract/time-use.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import timeUseCss from './time-use.module.css';

/** What shares of the time are wished for; saved where one is added or taken out. */
export function Wishes({ who, data }: { who: string; data: TimeUseAnswer }) {
  const t = useTranslations('timeUse');
  const tk = useTranslations('kinds');
  const { toast } = useFrame();
  const client = useQueryClient();
  const [what, setWhat] = useState('');
  const [percent, setPercent] = useState('');
  const { attempt, busy, refused } = useActing();
  const word = ({ by, name }: Pick<TimeShareWire, 'by' | 'name'>): string =>
    by === 'kind' ? tk(name as 'meeting') : by === 'side' ? t(`sides.${name as 'alone'}`) : name;
  const known = (one: TimeUseAnswer['period'] | null): Pick<TimeShareWire, 'by' | 'name'>[] =>
    one
      ? [
          ...one.kinds.map(({ name }) => ({ by: 'kind' as const, name })),
          ...(['alone', 'inside', 'outside'] as const).map((name) => ({ by: 'side' as const, name })),
          ...one.categories.map(({ name }) => ({ by: 'category' as const, name })),
        ].filter(({ name }) => name !== '')
      : [];
  const key = ({ by, name }: Pick<TimeShareWire, 'by' | 'name'>) => `${by}:${name}`;
  const choices = [
    ...new Map([...known(data.period), ...known(data.other)].map((one) => [key(one), one])).values(),
  ].filter((one) => !data.shares.some((share) => key(share) === key(one)));
  const save = async (shares: readonly TimeShareWire[]) => {
    const body = { shares: [...shares], version: data.version };
    const saved = await attempt(() => call('saveTimeShares', { params: { person: who }, body }));
    await client.invalidateQueries({ queryKey: KEYS.timeUses(who) });
    if (saved) toast({ text: t('saved') });
    return saved;
  };
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const chosen = choices.find((one) => key(one) === what);
    if (!chosen || percent.trim() === '') return;
    if (await save([...data.shares, { ...chosen, percent: Number(percent) }])) {
      setWhat('');
      setPercent('');
    }
  };
  return (
    <section className={timeUseCss.wish} aria-label={t('wish')}>
      {data.shares.map((share) => (
        <span key={key(share)} className={pageCss.tag}>
          {word(share)}: {share.percent} %
          <button
            type="button"
            className="plain"
            aria-label={`${t('drop')}: ${word(share)}`}
            disabled={busy}
            onClick={() => void save(data.shares.filter((one) => one !== share))}
          >
            ×
          </button>
        </span>
      ))}
      <form onSubmit={(event) => void add(event)} className="row" noValidate>
        <TextField
          select
          label={t('wishFor')}
          value={choices.some((one) => key(one) === what) ? what : ''}
          onChange={({ target }) => setWhat(target.value)}
          className="field-4"
        >
          {choices.map((one) => (
            <MenuItem key={key(one)} value={key(one)}>
              {word(one)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label={t('percent')}
          value={percent}
          onChange={({ target }) => setPercent(target.value)}
          className="field-1"
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        <Button type="submit" variant="outlined" loading={busy} disabled={what === '' || percent.trim() === ''}>
          {t('wish')}
        </Button>
      </form>
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
    </section>
  );
}
