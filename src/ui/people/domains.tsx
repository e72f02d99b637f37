'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';

/** The organisation's domains: what makes an address one of somebody inside. */
export function Domains({ mayChange }: { mayChange: boolean }) {
  const t = useTranslations('houseRules');
  const { toast } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEYS.domains, queryFn: () => call('readDomains', {}) });
  const [name, setName] = useState('');
  const { attempt, refused, fields } = useActing();
  const domains = query.data?.domains ?? [];
  // One of the list is wrong where it was typed; what is wrong with the whole list is said above it.
  const wrong = Object.entries(fields).find(([field]) => field.startsWith('domains.'))?.[1];
  const save = (next: readonly string[]): Promise<boolean> =>
    attempt(async () => {
      await call('changeDomains', { body: { domains: [...next] } });
      toast({ text: t('domainsSaved') });
      await client.invalidateQueries({ queryKey: KEYS.domains });
    });
  return (
    <section aria-label={t('domainsHead')} className="page-middle above-8 stack">
      <h2>{t('domainsHead')}</h2>
      <p className="small soft">{domains.length > 0 ? t('domainsHelp') : query.data && t('domainsNone')}</p>
      <QueryState query={query} />
      {refused && !wrong && <Alert severity="error">{refused}</Alert>}
      <div className="row">
        {domains.map((domain) => (
          <span key={domain} className={pageCss.tag}>
            {domain}
            {mayChange && (
              <button
                type="button"
                className="plain"
                aria-label={t('domainRemove', { name: domain })}
                onClick={() => void save(domains.filter((d) => d !== domain))}
              >
                ×
              </button>
            )}
          </span>
        ))}
      </div>
      {mayChange && (
        <form
          className="row top"
          onSubmit={async (event) => {
            event.preventDefault();
            if (await save([...domains, name])) setName('');
          }}
        >
          <TextField
            label={t('domain')}
            value={name}
            error={!!wrong}
            helperText={wrong}
            onChange={(e) => setName(e.target.value)}
            className="field-5"
          />
          <Button type="submit" variant="outlined" disabled={name.trim() === ''}>
            {t('domainAdd')}
          </Button>
        </form>
      )}
    </section>
  );
}
