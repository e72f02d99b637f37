'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AccountsAnswer } from '@/contract/people/accounts.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { clock, fullDay } from '../common/times.ts';
import frameCss from './frame.module.css';

/** One's other accounts, tied by a code that is made in the one and given in the other: whoever can do both is in both. */
export function Accounts() {
  const t = useTranslations('accounts');
  const { style, toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEYS.accounts, queryFn: () => call('listAccounts', {}) });
  const [made, setMade] = useState<{ code: string; until: string } | null>(null);
  const [code, setCode] = useState('');
  const { attempt, busy, refused } = useActing();
  const wall = (instant: string) => toWall(style.zone, parseInstant(instant) ?? 0);
  const doing = (work: () => Promise<AccountsAnswer>, done: string) =>
    attempt(async () => {
      client.setQueryData(KEYS.accounts, await work());
      setCode('');
      toast({ text: done });
    });
  const make = () => attempt(async () => setMade(await call('makeAccountCode', {})));
  return (
    <section className="stack">
      <h2>{t('title')}</h2>
      <p className="small soft">{t('help')}</p>
      <QueryState query={query} />
      <ul className="list">
        {query.data?.tied.map((one) => (
          <li key={one.handle} className="row ruled">
            <span>
              {one.name}{' '}
              <span className="small soft">
                {one.address} · {t('since', { date: fullDay(wall(one.since)) })}
              </span>
            </span>
            <Button
              variant="outlined"
              className="at-end"
              aria-label={t('untieOf', { address: one.address })}
              onClick={() => void doing(() => call('untieAccount', { params: { person: one.handle } }), t('untied'))}
            >
              {t('untie')}
            </Button>
          </li>
        ))}
      </ul>
      {made && (
        <div className={`${pageCss.card} gap-2 stack`} role="status">
          <b className={frameCss.code}>{made.code}</b>
          <p className="small soft">{t('made', { time: clock(wall(made.until), style.hours) })}</p>
        </div>
      )}
      <form
        noValidate
        className="row above-4 top"
        onSubmit={(event) => {
          event.preventDefault();
          void doing(() => call('tieAccount', { body: { code } }), t('done'));
        }}
      >
        <TextField
          label={t('code')}
          value={code}
          error={refused !== null}
          helperText={refused}
          onChange={(event) => setCode(event.target.value)}
          fullWidth={false}
          className={frameCss.half}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 40, autoComplete: 'off' } }}
        />
        <Button type="submit" variant="outlined" loading={busy}>
          {t('tie')}
        </Button>
      </form>
      <div>
        <Button variant="outlined" onClick={() => void make()}>
          {t('make')}
        </Button>
      </div>
    </section>
  );
}
