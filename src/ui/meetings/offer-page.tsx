'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call } from '@/contract/call.ts';
import { parseInstant } from '@/core/time/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { said } from '../common/fetched/refusal.ts';
import hillsCss from '../common/hills.module.css';
import { Mark } from '../common/hills.tsx';
import { useHydrated } from '../common/hydrated.ts';
import { locale } from '../common/language.ts';
import { zonePlace } from '../common/times.ts';
import offerCss from './offer-page.module.css';

/** Times that are offered to whoever holds the address, on their own clock: one is chosen by giving a name and an address. */
export function OfferPage({ offer }: { offer: string }) {
  const t = useTranslations('offer');
  const common = useTranslations('common');
  const hydrated = useHydrated();
  const zone = hydrated ? Intl.DateTimeFormat().resolvedOptions().timeZone : 'UTC';
  const [chosen, setChosen] = useState<string | null>(null);
  const [name, setName] = useState('');
  const [address, setAddress] = useState('');
  const { attempt, busy, refused, fields: wrong } = useActing(['name', 'address']);
  const [done, setDone] = useState<{ start: string; end: string; words: string } | null>(null);
  const query = useQuery({
    queryKey: KEYS.offer(offer),
    queryFn: () => call('readOffer', { params: { offer } }),
    enabled: hydrated && done === null,
    refetchInterval: 30_000,
    retry: (tries, error) => !(error instanceof CallRefused) && tries < 1,
  });
  const day = (text: string) =>
    new Intl.DateTimeFormat(locale(), { timeZone: zone, weekday: 'long', day: 'numeric', month: 'long' }).format(
      parseInstant(text) ?? 0,
    );
  const hour = (text: string) =>
    new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(
      parseInstant(text) ?? 0,
    );
  const whole = (time: { start: string; end: string }) =>
    t('time', { day: day(time.start), from: hour(time.start), to: hour(time.end) });
  const gone = query.error instanceof CallRefused;
  const data = gone ? undefined : query.data;
  const choose = async () => {
    if (chosen === null) return;
    await attempt(
      async () => setDone(await call('chooseOffer', { params: { offer }, body: { start: chosen, name, address } })),
      ({ fields, sentence }) => {
        if (Object.keys(fields).length > 0) return null;
        // What is left is read again: what was typed stays.
        setChosen(null);
        void query.refetch();
        return sentence;
      },
    );
  };
  return (
    <main className={`${offerCss.page} who-2`}>
      <header className={`${hillsCss.brand} row`}>
        <Mark /> Paramo
      </header>
      {done ? (
        <section className={offerCss.card}>
          <h1>{t('done')}</h1>
          <p>
            <b>{done.words}</b>
            <br />
            {whole(done)}
          </p>
          <p className="soft">{t('doneMore', { address })}</p>
        </section>
      ) : gone ? (
        <section className={offerCss.card}>
          <h1>{t('gone')}</h1>
          <p className="soft">{said(query.error, common('unreachable')).sentence}</p>
        </section>
      ) : (
        <section className={offerCss.card}>
          <h1>{data?.words ?? t('title')}</h1>
          <QueryState query={query} />
          {refused && (
            <p className="wrong" role="alert">
              {refused}
            </p>
          )}
          {data && (
            <>
              <p className="soft">{t('lead', { minutes: data.minutes, place: zonePlace(zone) })}</p>
              <ul className={offerCss.times} aria-label={t('times')}>
                {data.times.map((time) => (
                  <li key={time.start}>
                    <button
                      type="button"
                      className={`plain ${offerCss.time}`}
                      aria-pressed={chosen === time.start}
                      onClick={() => setChosen(time.start)}
                    >
                      {whole(time)}
                    </button>
                  </li>
                ))}
              </ul>
              {chosen !== null && (
                <form
                  className={offerCss.form}
                  onSubmit={(event) => {
                    event.preventDefault();
                    void choose();
                  }}
                >
                  <TextField
                    label={t('name')}
                    value={name}
                    error={!!wrong.name}
                    helperText={wrong.name}
                    autoComplete="name"
                    onChange={(e) => setName(e.target.value)}
                    slotProps={{ htmlInput: { maxLength: 120 } }}
                  />
                  <TextField
                    label={t('address')}
                    type="email"
                    value={address}
                    error={!!wrong.address}
                    helperText={wrong.address ?? t('addressWhy')}
                    autoComplete="email"
                    onChange={(e) => setAddress(e.target.value)}
                    slotProps={{ htmlInput: { maxLength: 254 } }}
                  />
                  <Button type="submit" variant="contained" loading={busy}>
                    {t('choose')}
                  </Button>
                </form>
              )}
            </>
          )}
        </section>
      )}
    </main>
  );
}
