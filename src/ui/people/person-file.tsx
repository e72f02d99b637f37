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
import type { PersonChange, PersonFile, PersonWire } from '@/contract/people/people.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { fewPeople, personOption } from '../common/fields/people-options.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import pageCss from '../common/page.module.css';
import { clock, fullDay } from '../common/times.ts';
import { firstName } from '../common/token.tsx';

/** A person as an administrator keeps them: what the directory says, their way in, their Sightlines, and their leaving. */
export function PersonFilePanel(props: { handle: string; people: readonly PersonWire[]; onLeft: () => void }) {
  const { handle, people, onLeft } = props;
  const t = useTranslations('people');
  const { frame } = useFrame();
  const query = useQuery({
    queryKey: KEYS.person(handle),
    queryFn: () => call('readPerson', { params: { person: handle } }),
    retry: false,
  });
  const file = query.data;
  if (!file) return <QueryState query={query} />;
  return (
    <div className="gap-7 stack">
      <Directory file={file} />
      <section aria-label={t('sightlines')}>
        <Link href={`/for/${frame.me.handle}/sightlines?of=${handle}`}>{t('sightlinesOf', { name: file.name })}</Link>
      </section>
      <WayIn file={file} />
      {handle !== frame.me.handle && <Leaving file={file} people={people} onLeft={onLeft} />}
    </div>
  );
}

function Directory({ file }: { file: PersonFile }) {
  const t = useTranslations('people');
  const { toast } = useFrame();
  const client = useQueryClient();
  const { name, role, site, phone, kind, administrator } = file;
  const [change, setChange] = useState<PersonChange>({ name, role, site, phone, kind, administrator });
  const { attempt, busy, refused, fields } = useActing(['name', 'role', 'site', 'phone']);
  const input = (key: 'name' | 'role' | 'site' | 'phone', label: string) => (
    <TextField
      label={label}
      value={change[key]}
      error={!!fields[key]}
      helperText={fields[key]}
      onChange={(e) => setChange({ ...change, [key]: e.target.value })}
    />
  );
  return (
    <form
      noValidate
      className="gap-5 stack"
      onSubmit={(event) => {
        event.preventDefault();
        void attempt(async () => {
          await call('changePerson', { params: { person: file.handle }, body: change });
          toast({ text: t('saved') });
          await client.invalidateQueries();
        });
      }}
    >
      <p className="small soft">{file.address}</p>
      {refused && <Alert severity="error">{refused}</Alert>}
      {input('name', t('name'))}
      {input('role', t('role'))}
      {input('site', t('site'))}
      {input('phone', t('phone'))}
      <TextField
        select
        label={t('kind')}
        value={change.kind}
        onChange={(e) => setChange({ ...change, kind: e.target.value as PersonChange['kind'] })}
      >
        <MenuItem value="person">{t('kindPerson')}</MenuItem>
        <MenuItem value="role">{t('kindRole')}</MenuItem>
      </TextField>
      <FormControlLabel
        label={
          <>
            {t('administrator')} <small className="soft">{t('administratorHelp')}</small>
          </>
        }
        control={
          <Switch
            size="small"
            checked={change.administrator}
            onChange={(e) => setChange({ ...change, administrator: e.target.checked })}
          />
        }
      />
      <div>
        <Button type="submit" variant="contained" loading={busy}>
          {t('save')}
        </Button>
      </div>
    </form>
  );
}

function WayIn({ file }: { file: PersonFile }) {
  const t = useTranslations('people');
  const { style } = useFrame();
  const [made, setMade] = useState<{ path: string; until: string } | null>(null);
  const { attempt, busy, refused } = useActing();
  const until = made && toWall(style.zone, parseInstant(made.until) ?? 0);
  return (
    <section aria-label={t('signIn')} className="stack">
      <h3>{t('signIn')}</h3>
      <p className="small soft">{file.signsIn ? t('hasSignIn') : t('noSignIn')}</p>
      <p className="small soft">{t('wayInHelp', { name: firstName(file.name) })}</p>
      {refused && <Alert severity="error">{refused}</Alert>}
      {made && until !== null ? (
        <TextField
          label={t('wayInIs')}
          value={`${window.location.origin}${made.path}`}
          helperText={t('wayInUntil', { date: `${fullDay(until)}, ${clock(until, style.hours)}` })}
          slotProps={{
            htmlInput: { readOnly: true, onFocus: (e: React.FocusEvent<HTMLInputElement>) => e.target.select() },
          }}
        />
      ) : (
        <div>
          <Button
            variant="outlined"
            loading={busy}
            onClick={async () => {
              await attempt(async () => {
                setMade(await call('makeWayIn', { params: { person: file.handle } }));
              });
            }}
          >
            {t('wayIn')}
          </Button>
        </div>
      )}
    </section>
  );
}

function Leaving(props: { file: PersonFile; people: readonly PersonWire[]; onLeft: () => void }) {
  const { file, people, onLeft } = props;
  const t = useTranslations();
  const { toast } = useFrame();
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [heir, setHeir] = useState<PersonWire | null>(null);
  const [sure, setSure] = useState(false);
  const { attempt, busy, refused, fields, setFields } = useActing(['to']);
  const name = firstName(file.name);
  const leave = async () => {
    const left = await attempt(async () => {
      await call('leave', { params: { person: file.handle }, body: { to: heir?.handle ?? null } });
      toast({ text: t('people.left', { name: file.name }) });
      await client.invalidateQueries();
      onLeft();
    });
    if (!left) setSure(false);
  };
  const list = (head: string, lines: readonly string[]) => (
    <>
      <dt>{head}</dt>
      <dd>
        {lines.length === 0 ? <span className="soft">{t('people.leavingNone')}</span> : null}
        {lines.map((line) => (
          <span key={line} className="block">
            {line}
          </span>
        ))}
      </dd>
    </>
  );
  return (
    <section aria-label={t('people.leaving')} className="stack">
      <Button
        variant="text"
        color="error"
        aria-expanded={open}
        className="flush own-width clay"
        onClick={() => setOpen(!open)}
      >
        {t('people.leaving')}
      </Button>
      {open && (
        <div className={`${pageCss.card} ${pageCss['wrong-card']} gap-5 stack`}>
          <p>{t('people.leavingIntro', { name })}</p>
          <dl className={`${pageCss.facts} small`}>
            {list(
              t('people.leavingGrants'),
              file.grants.map((g) =>
                t('people.leavingGrant', {
                  owner: g.owner,
                  what: g.preset ? t(`presets.${g.preset as 'full'}`) : t('reaches.words'),
                }),
              ),
            )}
            {list(t('people.leavingGroups'), file.groups)}
            {list(
              t('people.leavingCalendars'),
              file.calendars.map((c) => (c.main ? t('board.mainCalendar') : c.name)),
            )}
          </dl>
          {refused && <Alert severity="error">{refused}</Alert>}
          <Autocomplete
            size="small"
            options={people.filter((p) => p.handle !== file.handle && p.kind === 'person')}
            value={heir}
            getOptionLabel={(p) => p.name}
            getOptionKey={(p) => p.handle}
            filterOptions={fewPeople}
            renderOption={personOption}
            isOptionEqualToValue={(a, b) => a.handle === b.handle}
            onChange={(_, p) => {
              setHeir(p);
              setSure(false);
            }}
            renderInput={(params) => (
              <TextField {...params} label={t('people.leavingTo')} error={!!fields.to} helperText={fields.to} />
            )}
          />
          {sure ? (
            <div role="alert" className="stack">
              <p>{t('people.leavingConfirm', { name: file.name, heir: heir?.name ?? '' })}</p>
              <div className="row">
                <Button variant="contained" color="error" autoFocus loading={busy} onClick={() => void leave()}>
                  {t('people.leavingYes')}
                </Button>
                <Button variant="outlined" onClick={() => setSure(false)}>
                  {t('lines.confirmNot')}
                </Button>
              </div>
            </div>
          ) : (
            <div>
              <Button
                variant="outlined"
                color="error"
                onClick={() => (heir ? setSure(true) : setFields({ to: t('fields.heir') }))}
              >
                {t('people.leavingDo', { name })}
              </Button>
            </div>
          )}
        </div>
      )}
    </section>
  );
}
