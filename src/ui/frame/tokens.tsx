'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { DateField } from '../common/fields/date-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { atText, fullDay } from '../common/times.ts';

/** What programs of one's own come in by: made with their limits, shown once, withdrawn. */
export function Tokens() {
  const t = useTranslations('tokens');
  const { frame, style, toast } = useFrame();
  const query = useQuery({ queryKey: KEYS.tokens, queryFn: () => call('listTokens', {}) });
  const [making, setMaking] = useState(false);
  const [secret, setSecret] = useState<string | null>(null);
  const [looked, setLooked] = useState<string | null>(null);
  const day = (instant: string, back = 0) => fullDay(toWall(style.zone, (parseInstant(instant) ?? 0) - back));
  const withdraw = async (key: string) => {
    await call('withdrawToken', { params: { token: key } }).catch(() => {});
    toast({ text: t('withdrawn') });
    await query.refetch();
  };
  return (
    <section className="stack">
      <h2>{t('title')}</h2>
      <p className="small soft">{t('help')}</p>
      <QueryState query={query} />
      <ul className="list">
        {query.data?.tokens.map((one) => (
          <li key={one.key} className="row ruled">
            <span className="grow">
              {one.name}{' '}
              <span className="small soft">
                {[
                  t(one.reads ? 'reads' : 'writes'),
                  one.calendar ? t('only', { name: one.calendar.name }) : null,
                  one.until ? t(one.ended ? 'ended' : 'until', { date: day(one.until, 1) }) : null,
                  one.used ? t('used', { date: day(one.used) }) : t('unused'),
                  one.withdrawn ? t('withdrawnOn', { date: day(one.withdrawn) }) : null,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
            </span>
            <span className="row at-end">
              <Button
                variant="text"
                aria-expanded={looked === one.key}
                aria-label={t('didOf', { name: one.name })}
                onClick={() => setLooked(looked === one.key ? null : one.key)}
              >
                {t('did')}
              </Button>
              {!one.withdrawn && (
                <Button
                  variant="outlined"
                  aria-label={t('withdrawOf', { name: one.name })}
                  onClick={() => void withdraw(one.key)}
                >
                  {t('withdraw')}
                </Button>
              )}
            </span>
            {looked === one.key && <Acts token={one.key} />}
          </li>
        ))}
      </ul>
      {secret && (
        <div className={`${pageCss.card} stack`} role="alert">
          <p>{t('once')}</p>
          <TextField
            label={t('secret')}
            value={secret}
            slotProps={{
              htmlInput: { readOnly: true, onFocus: (e: React.FocusEvent<HTMLInputElement>) => e.target.select() },
            }}
          />
          <TextField
            label={t('server')}
            value={`${window.location.origin}/dav/`}
            helperText={t('serverHelp', { address: frame.me.address })}
            slotProps={{
              htmlInput: { readOnly: true, onFocus: (e: React.FocusEvent<HTMLInputElement>) => e.target.select() },
            }}
          />
          <div className="row">
            <Button
              variant="outlined"
              onClick={async () => {
                await navigator.clipboard.writeText(secret);
                toast({ text: t('copied') });
              }}
            >
              {t('copy')}
            </Button>
            <Button variant="text" onClick={() => setSecret(null)}>
              {t('gone')}
            </Button>
          </div>
        </div>
      )}
      {making ? (
        <MakeToken
          onMade={(made) => {
            setMaking(false);
            setSecret(made);
            void query.refetch();
          }}
          onClose={() => setMaking(false)}
        />
      ) : (
        <div>
          <Button variant="outlined" onClick={() => setMaking(true)}>
            {t('make')}
          </Button>
        </div>
      )}
    </section>
  );
}

/** The acts that have words of their own; the others are changes of some other kind. */
const WORDED = {
  createItem: 'added',
  changeItem: 'changed',
  changeSeveral: 'changed',
  removeItem: 'removed',
  undo: 'undone',
  putObject: 'program',
  deleteObject: 'programRemoved',
  answerItem: 'answered',
  answerSeveral: 'answered',
  writeMail: 'mail',
  giveAccess: 'given',
  giveSeveral: 'given',
  changeGrants: 'given',
  takeAccess: 'taken',
  takeSeveral: 'taken',
  beginCalendar: 'begun',
} as const;

/** What a token wrote, the latest first. */
function Acts({ token }: { token: string }) {
  const t = useTranslations('tokens');
  const { style } = useFrame();
  const query = useQuery({
    queryKey: KEYS.tokenActs(token),
    queryFn: () => call('readTokenActs', { params: { token } }),
  });
  return (
    <div className="own-line">
      <QueryState query={query} />
      {query.data?.acts.length === 0 && <p className="small soft">{t('didNothing')}</p>}
      <ol className="small soft dots box">
        {query.data?.acts.map((act, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the list is shown as it came and never reordered.
          <li key={i}>
            {[atText(act.at, style), t(`acts.${WORDED[act.act as keyof typeof WORDED] ?? 'other'}`), act.calendar]
              .filter(Boolean)
              .join(' · ')}
          </li>
        ))}
      </ol>
      {query.data?.cut && <p className="small soft">{t('didMore')}</p>}
    </div>
  );
}

function MakeToken({ onMade, onClose }: { onMade: (secret: string) => void; onClose: () => void }) {
  const t = useTranslations('tokens');
  const tc = useTranslations();
  const { frame } = useFrame();
  const [name, setName] = useState('');
  const [reads, setReads] = useState(true);
  const [calendar, setCalendar] = useState('');
  const [until, setUntil] = useState('');
  const { attempt, busy, refused, fields } = useActing(['name', 'calendar', 'until']);
  const make = () =>
    attempt(async () => {
      const body = { name, reads, calendar: calendar || null, until: until || null };
      onMade((await call('makeToken', { body })).secret);
    });
  return (
    <form
      noValidate
      className={`${pageCss.card} gap-5 stack`}
      onSubmit={(e) => {
        e.preventDefault();
        void make();
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        label={t('name')}
        value={name}
        autoFocus
        error={!!fields.name}
        helperText={fields.name ?? t('nameHelp')}
        onChange={(e) => setName(e.target.value)}
      />
      <TextField
        select
        label={t('calendar')}
        value={calendar}
        error={!!fields.calendar}
        helperText={fields.calendar}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        onChange={(e) => setCalendar(e.target.value)}
      >
        <MenuItem value="">{t('all')}</MenuItem>
        {frame.principals.map((p) => (
          <MenuItem key={p.calendar} value={p.calendar}>
            {t('only', { name: p.name })}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        className="choice"
        label={t('mayWrite')}
        control={<Switch size="small" checked={!reads} onChange={(e) => setReads(!e.target.checked)} />}
      />
      <DateField label={t('end')} value={until} error={fields.until} help={tc('ask.untilHelp')} onChange={setUntil} />
      <div className="row">
        <Button type="submit" variant="contained" loading={busy}>
          {t('makeDo')}
        </Button>
        <Button variant="outlined" onClick={onClose}>
          {tc('form.cancel')}
        </Button>
      </div>
    </form>
  );
}
