'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { LANGUAGE_NAMES, LANGUAGES } from '@/messages/languages.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { ColourDots } from '../common/fields/colour-dots.tsx';
import { dateWords } from '../common/fields/date-words.ts';
import { ZoneField } from '../common/fields/zone-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import sectionsCss from '../common/sections.module.css';
import { Sections } from '../common/sections.tsx';
import { DAY, fullDay, weekday } from '../common/times.ts';
import { Accounts } from './accounts.tsx';
import { signOut } from './finder-goals.ts';
import { ReminderWishes } from './reminder-wishes.tsx';
import { Tokens } from './tokens.tsx';
import { WorkHoursField } from './work-hours-field.tsx';

const MONDAY = 4 * DAY;

/** How times are shown, who sees one's calendars, the look, and where one is signed in. */
export function Settings() {
  const t = useTranslations();
  const { frame } = useFrame();
  const isRole = frame.hands !== null;
  return (
    <Sections>
      <h1>{t('settings.title')}</h1>
      <div className="page-narrow gap-8 above-7 stack">
        <Times />
        <ReminderWishes />
        <Sharing />
        <Look />
        <Tokens />
        {!isRole && <Accounts />}
        <Sessions />
      </div>
    </Sections>
  );
}

/** One of a few, each a press, with what it is for before them. `lang`: each value is the language its word is in. */
function OneOf<T extends string | number>(props: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  lang?: boolean;
  onChange: (value: T) => void;
}) {
  const { label, value, options, lang, onChange } = props;
  const id = useId();
  return (
    <div className="row">
      <span id={id} className="field-1">
        {label}
      </span>
      <ToggleButtonGroup
        exclusive
        value={value}
        aria-labelledby={id}
        onChange={(_, chosen: T | null) => chosen !== null && onChange(chosen)}
      >
        {options.map(([one, word]) => (
          <ToggleButton key={one} value={one} lang={lang ? String(one) : undefined} className="roomy oneline">
            {word}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </div>
  );
}

/** The same day in every order. */
const EXAMPLE = '2027-03-02';

function Times() {
  const t = useTranslations();
  const { frame, toast } = useFrame();
  const client = useQueryClient();
  const [phone, setPhone] = useState(frame.me.phone);
  const [zone, setZone] = useState(frame.me.zone);
  const [hours, setHours] = useState(frame.me.hours);
  const [weekFirst, setWeekFirst] = useState(frame.me.weekFirst);
  const [dateOrder, setDateOrder] = useState(frame.me.dateOrder);
  const [language, setLanguage] = useState(frame.me.language);
  const [secondZone, setSecondZone] = useState(frame.me.secondZone);
  const [workHours, setWorkHours] = useState(frame.me.workHours);
  const [colour, setColour] = useState(frame.me.colour % 6);
  const { attempt, refused, fields: wrong } = useActing(['zone', 'phone']);
  const body = { phone, zone, hours, weekFirst, dateOrder, language, secondZone, workHours, colour };
  const { me } = frame;
  const stood: typeof body = {
    phone: me.phone,
    zone: me.zone,
    hours: me.hours,
    weekFirst: me.weekFirst,
    dateOrder: me.dateOrder,
    language: me.language,
    secondZone: me.secondZone,
    workHours: me.workHours,
    colour: me.colour % 6,
  };
  const changed = JSON.stringify(body) !== JSON.stringify(stood);
  const save = () =>
    attempt(async () => {
      await call('savePreferences', { body });
      // Every text of the window is another's then.
      if (language !== frame.me.language) return window.location.reload();
      await client.invalidateQueries({ queryKey: KEYS.calendars });
      await client.invalidateQueries({ queryKey: KEYS.frame });
      toast({ text: t('settings.saved') });
    });
  return (
    <section className="gap-6 stack">
      <h2>{t('settings.times')}</h2>
      {refused && <Alert severity="error">{refused}</Alert>}
      <ZoneField label={t('settings.zone')} value={zone} wrong={wrong.zone} onChange={setZone} />
      <OneOf
        label={t('settings.language')}
        value={language}
        options={LANGUAGES.map((one) => [one, LANGUAGE_NAMES[one]])}
        lang
        onChange={setLanguage}
      />
      <OneOf
        label={t('settings.hours')}
        value={hours}
        options={[
          ['24', t('settings.h24')],
          ['12', t('settings.h12')],
        ]}
        onChange={setHours}
      />
      <OneOf
        label={t('settings.weekFirst')}
        value={weekFirst}
        options={[1, 6, 7].map((day) => [day, weekday(MONDAY + (day - 1) * DAY)])}
        onChange={setWeekFirst}
      />
      <OneOf
        label={t('settings.dateOrder')}
        value={dateOrder}
        options={(['dmy', 'mdy', 'ymd'] as const).map((order) => [order, dateWords(EXAMPLE, order)])}
        onChange={setDateOrder}
      />
      <div className="row bottom">
        {secondZone === null ? (
          <Button variant="outlined" onClick={() => setSecondZone(zone === 'UTC' ? 'Europe/Lisbon' : 'UTC')}>
            {t('settings.secondZoneAdd')}
          </Button>
        ) : (
          <>
            <ZoneField
              label={t('settings.secondZone')}
              value={secondZone}
              wrong={undefined}
              onChange={(z) => setSecondZone(z)}
            />
            <Button variant="text" onClick={() => setSecondZone(null)}>
              {t('settings.secondZoneDrop')}
            </Button>
          </>
        )}
      </div>
      <WorkHoursField value={workHours} onChange={setWorkHours} />
      <div className="row">
        <span className="field-1">{t('settings.colour')}</span>
        <ColourDots label={t('settings.colour')} value={colour} onChange={setColour} />
        <span className="small soft">{t('settings.colourHelp')}</span>
      </div>
      {frame.me.inside && (
        <>
          <h2>{t('settings.reached')}</h2>
          <TextField
            label={t('settings.phone')}
            type="tel"
            value={phone}
            error={wrong.phone !== undefined}
            helperText={wrong.phone ?? t('settings.phoneHelp')}
            onChange={(e) => setPhone(e.target.value)}
            className="field-5"
          />
        </>
      )}
      <div className={changed ? sectionsCss.save : ''}>
        <Button variant="contained" disabled={!changed} onClick={() => void save()}>
          {t('settings.save')}
        </Button>
      </div>
    </section>
  );
}

/** What stands of the sharing of one's own calendars, and the door to all of it. */
function Sharing() {
  const t = useTranslations();
  const { frame } = useFrame();
  const calendar = frame.principals.find((p) => p.own)?.calendar;
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'sightlines'),
    queryFn: () => call('listSightlines', { params: { calendar: calendar ?? '' } }),
    enabled: calendar !== undefined,
  });
  if (calendar === undefined) return null;
  const { data } = query;
  const everyone = data?.rows.find((r) => r.audience.kind === 'everyone');
  const more = data?.rows.filter((r) => r.audience.kind !== 'everyone').length ?? 0;
  const door = (c: string | null) => `/for/${frame.me.handle}/sightlines${c === null ? '' : `?c=${c}`}`;
  return (
    <section className="stack">
      <h2>{t('settings.sharing')}</h2>
      <QueryState query={query} />
      {data && (
        <p className="row spread">
          <span>
            {data.suspended
              ? t('settings.sharingSuspended')
              : t('settings.sharingNow', { sight: t(`sights.${everyone?.effective.sight ?? 'nothing'}`), more })}
          </span>
          <Link href={door(null)}>{t('settings.sharingGo')}</Link>
        </p>
      )}
      {data?.others.map((other) => (
        <p key={other.key} className="row spread">
          <span>{other.name}</span>
          <Link href={door(other.key)} aria-label={t('settings.sharingGoOf', { name: other.name })}>
            {t('settings.sharingGo')}
          </Link>
        </p>
      ))}
    </section>
  );
}

function Look() {
  const t = useTranslations('settings');
  const { mode, setMode } = useColorScheme();
  return (
    <section>
      <h2 id="look-label" className="below-4">
        {t('look')}
      </h2>
      <ToggleButtonGroup
        exclusive
        value={mode ?? 'system'}
        aria-labelledby="look-label"
        onChange={(_, v: 'light' | 'dark' | 'system' | null) => v && setMode(v)}
      >
        {(['light', 'dark', 'system'] as const).map((m) => (
          <ToggleButton key={m} value={m} className="roomy">
            {t(m)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </section>
  );
}

function Sessions() {
  const t = useTranslations('settings');
  const { toast } = useFrame();
  const query = useQuery({ queryKey: KEYS.sessions, queryFn: () => call('listSessions', {}) });
  const withdraw = async (id: string) => {
    await call('withdrawSession', { params: { session: id } }).catch(() => {});
    toast({ text: t('withdrawn') });
    await query.refetch();
  };
  return (
    <section>
      <h2 className="below-4">{t('sessions')}</h2>
      <ul className="list">
        {query.data?.sessions.map((s) => (
          <li key={s.id} className="row ruled">
            <span>
              {browserName(s.browser) ?? t('unknownBrowser')}{' '}
              <span className="small soft">
                {s.current ? t('this') : t('since', { date: fullDay(Date.parse(s.since)) })}
              </span>
            </span>
            {!s.current && (
              <Button variant="outlined" className="at-end" onClick={() => void withdraw(s.id)}>
                {t('withdraw')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <div className="above-6">
        <Button variant="outlined" onClick={() => void signOut()}>
          {t('signOut')}
        </Button>
      </div>
    </section>
  );
}

/** The kind of device out of a browser's own description of itself. */
function browserName(agent: string): string | null {
  return /\(([^;)]+)/.exec(agent)?.[1] ?? null;
}
