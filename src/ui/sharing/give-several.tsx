import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { PersonWire } from '@/contract/people/people.ts';
import type { ChangesAnswer } from '@/contract/sharing/changes.ts';
import type { EverythingAnswer } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { DateField } from '../common/fields/date-field.tsx';
import { fewPeople, personOption } from '../common/fields/people-options.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { NOTHING } from '../common/requests/plain-rights.ts';
import { firstName } from '../common/token.tsx';
import { useSentence } from './sentence.tsx';

const SIGHTS = ['title', 'outline', 'full'] as const;
const REACHES = {
  look: { add: false, change: 'none', remove: 'none' },
  add: { add: true, change: 'own', remove: 'own' },
  arrange: { add: true, change: 'all', remove: 'all' },
} as const;

type One = EverythingAnswer['all'][number];

/**
 * Gives one person several of somebody's collections in one act, for a time or as long as it stands: first each is named with what it would come to, then all of
 * them are given or none.
 */
export function GiveSeveral(props: { of: EverythingAnswer; chosen: readonly One[]; onDone: () => void }) {
  const { of, chosen, onDone } = props;
  const t = useTranslations('everything');
  const sights = useTranslations('sights');
  const nameOf = useCollectionName();
  const sentence = useSentence();
  const { style, toast } = useFrame();
  const client = useQueryClient();
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const [who, setWho] = useState<PersonWire | null>(null);
  const [sight, setSight] = useState<(typeof SIGHTS)[number]>('full');
  const [reach, setReach] = useState<keyof typeof REACHES>('look');
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  const [comesTo, setComesTo] = useState<{ for: string; answer: ChangesAnswer } | null>(null);
  const { attempt, busy, refused, fields, setFields } = useActing(['who', 'from', 'until']);
  const rights: RightsWire = { ...NOTHING, sight, ...REACHES[reach] };
  const span = from || until ? { from: from || null, until: until || null, zone: style.zone } : null;
  const changes = chosen.map((one) => ({
    calendar: one.key,
    audience: { kind: 'person' as const, id: who?.handle ?? '' },
    rights,
    ...(span ? { span } : {}),
    note: '',
  }));
  const said = JSON.stringify(changes);
  const ready = comesTo?.for === said ? comesTo.answer : null;
  const look = () => {
    if (!who) return setFields({ who: t('whoFirst') });
    void attempt(async () => {
      const answer = await call('changeGrants', { body: { changes, dryRun: true } });
      setComesTo({ for: said, answer });
    });
  };
  const give = () =>
    attempt(async () => {
      await call('changeGrants', { body: { changes, dryRun: false } });
      toast({ text: t('gave', { count: changes.length, who: who?.name ?? '' }) });
      await client.invalidateQueries({ queryKey: KEYS.everything(of.owner.handle) });
      onDone();
    });
  const called = (one: One): string => (one.main ? nameOf('calendar', '') : nameOf(one.kind, one.name));
  return (
    <section className={`${pageCss.card} page-wide gap-5 below-7 stack`} aria-label={t('giveSeveral')}>
      <h2>{t('giveThese', { names: chosen.map(called).join(', ') })}</h2>
      <div className="row top">
        <Autocomplete<PersonWire>
          className="field-4"
          options={(directory.data?.people ?? []).filter((p) => p.handle !== of.owner.handle && !p.resource)}
          value={who}
          getOptionLabel={(p) => p.name}
          getOptionKey={(p) => p.handle}
          filterOptions={fewPeople}
          renderOption={personOption}
          isOptionEqualToValue={(a, b) => a.handle === b.handle}
          onChange={(_, person) => setWho(person)}
          renderInput={(params) => (
            <TextField {...params} label={t('toWhom')} error={!!fields.who} helperText={fields.who} />
          )}
        />
        <TextField
          select
          label={t('sees')}
          value={sight}
          className="field-2"
          onChange={(e) => setSight(e.target.value as (typeof SIGHTS)[number])}
        >
          {SIGHTS.map((one) => (
            <MenuItem key={one} value={one}>
              {sights(one)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label={t('mayDo')}
          value={reach}
          className="field-3"
          onChange={(e) => setReach(e.target.value as keyof typeof REACHES)}
        >
          {(Object.keys(REACHES) as (keyof typeof REACHES)[]).map((one) => (
            <MenuItem key={one} value={one}>
              {t('may', { reach: one })}
            </MenuItem>
          ))}
        </TextField>
        <DateField label={t('from')} value={from} error={fields.from} width={220} onChange={setFrom} />
        <DateField label={t('until')} value={until} error={fields.until} width={220} onChange={setUntil} />
      </div>
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      {ready && (
        <ul className="dots">
          {chosen.map((one, i) => {
            const result = ready.results[i];
            const words = sentence(rights, firstName(of.owner.name), of.own, one.kind);
            return (
              <li key={one.key}>
                <b>{called(one)}</b>: {words.does}{' '}
                <span className="soft">{result?.before ? t('instead') : t('fresh')}</span>
              </li>
            );
          })}
        </ul>
      )}
      <div className="row">
        {ready ? (
          <Button variant="contained" loading={busy} onClick={() => void give()}>
            {t('giveNow', { count: changes.length, who: firstName(who?.name ?? '') })}
          </Button>
        ) : (
          <Button variant="contained" loading={busy} onClick={look}>
            {t('look')}
          </Button>
        )}
        <Button variant="text" onClick={onDone}>
          {t('cancel')}
        </Button>
      </div>
    </section>
  );
}
