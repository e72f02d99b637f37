'use client';
import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { PersonWire } from '@/contract/people/people.ts';
import type { OwnAccessRequest } from '@/contract/sharing/access-requests.ts';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { type CollectionKind, FIRST_COLLECTIONS, type FirstCollection, kindOfFirst } from '@/core/collection/index.ts';
import boardsCss from '../boards.module.css';
import { useCollectionName } from '../collection-name.ts';
import { useActing } from '../fetched/acting.ts';
import { usePlainChoices } from '../fetched/choosing.ts';
import { KEYS } from '../fetched/query-keys.ts';
import { DateField } from '../fields/date-field.tsx';
import { LevelChoice } from '../fields/level-choice.tsx';
import { fewPeople, personOption } from '../fields/people-options.tsx';
import { type AccessSubject, useFrame } from '../frame-context.tsx';
import { OF_KIND } from '../of-kind.ts';
import { firstName } from '../token.tsx';
import { AccessRequestState } from './access-request-state.tsx';
import { requestTo, useAccessRequests } from './own-access-requests.ts';
import { FREE_BUSY } from './plain-rights.ts';

const SIGHTS = ['busy', 'title', 'outline', 'full'] as const;
const REACHES = ['look', 'add', 'arrange'] as const;
type Sight = (typeof SIGHTS)[number];

/** What can be asked for of a kind: being free or busy is said of calendars alone. */
const sightsOf = (kind: CollectionKind): readonly Sight[] => (kind === 'calendar' ? SIGHTS : SIGHTS.slice(1));

/** The next that is worth asking for, where one has something already. */
function nextUp(has: RightsWire | null | undefined, sights: readonly Sight[]): RightsWire {
  const at = has ? ['nothing', ...sights].indexOf(has.sight) : 0;
  const sight = sights[Math.min(at, sights.length - 1)] ?? 'full';
  return {
    ...FREE_BUSY,
    ...(has && has.sight !== 'nothing' ? { add: has.add, change: has.change, remove: has.remove } : {}),
    sight,
  };
}

/** Asks for access where it was refused: of whom, to see and do what, why, for how long, and what one shows in return. */
export function AccessRequestPanel({ subject, onClose }: { subject: AccessSubject; onClose: () => void }) {
  const t = useTranslations('ask');
  const common = useTranslations('panel');
  const [chosen, setChosen] = useState<PersonWire | null>(null);
  const people = chosen ? [chosen] : subject.people;
  const [only] = people;
  const requests = useAccessRequests();
  const [what, setWhat] = useState<FirstCollection>(subject.what ?? 'calendar');
  const nameOf = useCollectionName();
  const further = subject.further ?? null;
  const current =
    only && people.length === 1
      ? requestTo(requests.data?.own ?? [], only.handle, what, further?.key ?? null)
      : undefined;
  // What one has is known of what the panel was opened about alone.
  const has = what === (subject.what ?? 'calendar') ? (subject.has ?? chosen?.rights) : null;
  const title =
    people.length > 1
      ? t('titleSeveral', { count: people.length })
      : only
        ? t('title', { name: only.name })
        : t('titleNobody');
  return (
    <aside
      className={boardsCss.panel}
      data-ask
      aria-label={title}
      onKeyDown={(e) => {
        if (e.key !== 'Escape' || e.defaultPrevented) return;
        e.stopPropagation();
        onClose();
      }}
    >
      <div className={boardsCss.for}>
        <span>{t('inYourName')}</span>
        <Button variant="text" className="low" onClick={onClose}>
          {common('close')}
        </Button>
      </div>
      <h2>{title}</h2>
      {further && <p className="small soft">{t('about', { name: nameOf(further.kind, further.name) })}</p>}
      {subject.people.length === 0 && <WhomField value={chosen} onChange={setChosen} />}
      {!further && (
        <TextField
          select
          label={t('what')}
          value={what}
          onChange={(e) => setWhat(FIRST_COLLECTIONS.find((one) => one === e.target.value) ?? 'calendar')}
        >
          {FIRST_COLLECTIONS.map((one) => (
            <MenuItem key={one} value={one}>
              {t(`whats.${one}`)}
            </MenuItem>
          ))}
        </TextField>
      )}
      {current && current.state !== 'takenBack' && <AccessRequestState request={current} />}
      {people.length > 0 && !requests.isPending && current?.state !== 'open' && (
        <Form
          key={`${only?.handle} ${what}`}
          people={people}
          what={what}
          further={further?.key ?? null}
          kind={further?.kind ?? kindOfFirst(what)}
          has={has}
          current={current}
          onClose={onClose}
        />
      )}
    </aside>
  );
}

/** Of whom, where that isn't known: the directory. What somebody has is not confirmed by asking them. */
function WhomField({ value, onChange }: { value: PersonWire | null; onChange: (person: PersonWire | null) => void }) {
  const t = useTranslations('ask');
  const { frame } = useFrame();
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  return (
    <Autocomplete<PersonWire>
      size="small"
      options={(directory.data?.people ?? []).filter((p) => p.handle !== frame.me.handle && !p.resource)}
      value={value}
      getOptionLabel={(p) => p.name}
      getOptionKey={(p) => p.handle}
      filterOptions={fewPeople}
      renderOption={personOption}
      isOptionEqualToValue={(a, b) => a.handle === b.handle}
      onChange={(_, person) => onChange(person)}
      renderInput={(params) => <TextField {...params} autoFocus label={t('whom')} />}
    />
  );
}

function Form(props: {
  people: AccessSubject['people'];
  what: FirstCollection;
  further: string | null;
  kind: CollectionKind;
  has: RightsWire | null | undefined;
  current: OwnAccessRequest | undefined;
  onClose: () => void;
}) {
  const { people, what, further, kind, has, current, onClose } = props;
  const t = useTranslations();
  const ta = useTranslations('ask');
  const { frame, style, toast } = useFrame();
  const client = useQueryClient();
  const sights = sightsOf(kind);
  const of = OF_KIND[kind];
  const [rights, setRights] = useState<RightsWire>(() => nextUp(current?.has ?? has, sights));
  const [why, setWhy] = useState('');
  const [until, setUntil] = useState('');
  const [offers, setOffers] = useState<Sight | null>(null);
  const { attempt, busy, refused, fields } = useActing(['why', 'until', 'sight', 'offers', 'what']);
  const { pick } = usePlainChoices(rights, setRights, kind);
  const [only] = people;
  const name = people.length === 1 && only ? firstName(only.name) : '';
  const own = frame.principals.some((p) => p.own);
  const send = () =>
    attempt(async () => {
      const span = until ? { from: null, until, zone: style.zone } : null;
      const to = people.map((p) => p.handle);
      const { asked: sent } = await call('requestAccess', {
        body: { to, what, calendar: further, rights, span, why, offers },
      });
      toast({ text: ta('done', { count: sent, name: only?.name ?? '' }) });
      await client.invalidateQueries({ queryKey: KEYS.accessRequests });
      onClose();
    });
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      {has && has.sight !== 'nothing' && people.length === 1 && (
        <p className="small soft">{ta('has', { name, kind, sight: t(`sightWords.${has.sight}`) })}</p>
      )}
      <LevelChoice
        id="ask-sight"
        label={ta('see')}
        as="sight"
        value={rights.sight}
        levels={sights.map((value) => ({ value, word: t(`sights.${value}`), help: t(`sightHelp${of}.${value}`) }))}
        onPick={(value) => pick('sight', value)}
      />
      {(fields.what ?? fields.sight) && <p className="small wrong">{fields.what ?? fields.sight}</p>}
      <LevelChoice
        id="ask-reach"
        label={ta('do')}
        as="reach"
        value={reachOf(rights)}
        levels={REACHES.map((value) => ({
          value,
          word: t(`reaches.${value}`),
          help: t(value === 'arrange' ? `reachHelp.arrange${of}` : `reachHelp.${value}`),
        }))}
        onPick={(value) => pick('reach', value)}
      />
      <TextField
        label={ta('why')}
        value={why}
        multiline
        maxRows={5}
        error={!!fields.why}
        helperText={fields.why}
        onChange={(e) => setWhy(e.target.value)}
      />
      <DateField label={ta('until')} value={until} error={fields.until} help={ta('untilHelp')} onChange={setUntil} />
      {own && (
        <FormControlLabel
          className="choice"
          label={ta('offer', { count: people.length, name })}
          control={
            <Switch
              size="small"
              checked={offers !== null}
              onChange={(e) => setOffers(e.target.checked ? (sights[0] ?? null) : null)}
            />
          }
        />
      )}
      {offers !== null && (
        <TextField
          select
          label={ta('offerLevel')}
          value={offers}
          error={!!fields.offers}
          helperText={fields.offers ?? ta('offerHelp')}
          onChange={(e) => setOffers(e.target.value as typeof offers)}
        >
          {sights.map((s) => (
            <MenuItem key={s} value={s}>
              {t(`sights.${s}`)}, {t(`sightHelp${of}.${s}`)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <p className="small soft">{people.length === 1 ? ta('goesTo', { name }) : ta('goesToSeveral')}</p>
      <div>
        <Button type="submit" variant="contained" loading={busy}>
          {people.length === 1 ? ta('send', { name }) : ta('sendSeveral', { count: people.length })}
        </Button>
      </div>
    </form>
  );
}
