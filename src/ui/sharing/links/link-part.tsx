'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { LinkShown } from '@/contract/sharing/links.ts';
import { LANGUAGE_NAMES, LANGUAGES } from '@/messages/languages.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { ZoneField } from '../../common/fields/zone-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { useHydrated } from '../../common/hydrated.ts';

/** How far ahead a link may show, in days. */
const AHEAD = [7, 14, 28, 56, 92, 183, 366] as const;

/** A link's name while it is made; afterwards its addresses, each with who can open it, and how it shows what it shows. */
export function LinkPart(props: {
  calendar: string;
  /** Whose it is: where those who sign in find the same calendar. */
  owner: string;
  linkKey: string | null;
  path: string | null;
  shown: LinkShown | null;
  named: boolean;
  main: boolean;
  name: string;
  wrong: string | undefined;
  onName: (name: string) => void;
}) {
  const { calendar, owner, linkKey, path, shown, named, main, name, wrong, onName } = props;
  const t = useTranslations('lines');
  const hydrated = useHydrated();
  const origin = hydrated ? window.location.origin : '';
  const secret = path?.slice('/see/'.length) ?? '';
  return (
    <div className="stack">
      {!named && (
        <TextField
          label={t('linkName')}
          value={name}
          autoFocus
          error={!!wrong}
          helperText={wrong ?? t('linkNameHelp')}
          onChange={(e) => onName(e.target.value)}
        />
      )}
      <p className="small soft">{t('linkHelp')}</p>
      {main && <p className="small wrong">{t('linkWarn')}</p>}
      {named && !path && <p className="small soft">{t('linkHidden')}</p>}
      {path && hydrated && (
        <>
          <h3>{t('linkWhoever')}</h3>
          <Address label={t('linkAddress')} address={`${origin}${path}`} open={path} openLabel={t('linkOpen')} />
          <Address
            label={t('linkFeed')}
            address={`${origin}/api/links/${secret}/calendar.ics`}
            help={t('linkFeedHelp')}
          />
          <Address
            label={t('linkFreeBusy')}
            address={`${origin}/api/links/${secret}/free-busy.ifb`}
            help={t('linkFreeBusyHelp')}
          />
          <Address
            label={t('linkPlain')}
            address={`${origin}/shown/${secret}`}
            open={`/shown/${secret}`}
            openLabel={t('linkPlainOpen')}
          />
          {shown?.framedBy && (
            <Address
              label={t('linkSnippet', { site: shown.framedBy })}
              address={`<iframe src="${origin}/shown/${secret}" title="${t('linkSnippetTitle')}" width="100%" height="560" loading="lazy" style="border:0"></iframe>`}
            />
          )}
          <h3>{t('linkSignedIn')}</h3>
          <Address
            label={t('linkSignedInAddress')}
            address={`${origin}/look?of=${owner}${main ? '' : `&c=${calendar}`}`}
            help={t('linkSignedInHelp')}
          />
          {shown && linkKey && <Shown key={JSON.stringify(shown)} calendar={calendar} link={linkKey} shown={shown} />}
        </>
      )}
    </div>
  );
}

/** An address to copy, and where it leads. */
function Address(props: { label: string; address: string; help?: string; open?: string; openLabel?: string }) {
  const { label, address, help, open, openLabel } = props;
  const t = useTranslations('lines');
  const { toast } = useFrame();
  return (
    <div className="row nowrap top">
      <TextField
        label={label}
        value={address}
        helperText={help}
        slotProps={{
          htmlInput: { readOnly: true, onFocus: (e: React.FocusEvent<HTMLInputElement>) => e.target.select() },
        }}
      />
      <Button
        variant="outlined"
        aria-label={t('linkCopyOf', { what: label })}
        onClick={async () => {
          await navigator.clipboard.writeText(address);
          toast({ text: t('linkCopied') });
        }}
      >
        {t('linkCopy')}
      </Button>
      {open && (
        <a href={open} target="_blank" rel="noreferrer" className="oneline above-4">
          {openLabel}
        </a>
      )}
    </div>
  );
}

/** How far ahead a link shows, in which language and zone, and which website may show its page in a frame. */
function Shown({ calendar, link, shown }: { calendar: string; link: string; shown: LinkShown }) {
  const t = useTranslations('lines');
  const { toast } = useFrame();
  const client = useQueryClient();
  const [values, setValues] = useState(shown);
  const { attempt, busy, refused, fields } = useActing(['ahead', 'zone', 'framedBy', 'booking']);
  const save = () =>
    attempt(async () => {
      await call('setLinkShown', { params: { calendar, link }, body: values });
      toast({ text: t('linkShownSaved') });
      await client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
    });
  const days = AHEAD.some((d) => d === values.ahead) ? AHEAD : [...AHEAD, values.ahead].sort((a, b) => a - b);
  return (
    <section aria-label={t('linkShownHead')} className="stack">
      <h3>{t('linkShownHead')}</h3>
      {refused && <p className="small wrong">{refused}</p>}
      <TextField
        select
        label={t('linkAhead')}
        value={values.ahead}
        error={!!fields.ahead}
        helperText={fields.ahead}
        onChange={(e) => setValues({ ...values, ahead: Number(e.target.value) })}
      >
        {days.map((d) => (
          <MenuItem key={d} value={d}>
            {t('linkAheadDays', { count: d })}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label={t('linkLanguage')}
        value={values.language ?? ''}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        onChange={(e) => setValues({ ...values, language: (e.target.value || null) as LinkShown['language'] })}
      >
        <MenuItem value="">{t('linkLanguageOwn')}</MenuItem>
        {LANGUAGES.map((one) => (
          <MenuItem key={one} value={one}>
            {LANGUAGE_NAMES[one]}
          </MenuItem>
        ))}
      </TextField>
      <ZoneField
        label={t('linkZone')}
        value={values.zone ?? ''}
        wrong={fields.zone}
        onChange={(zone) => setValues({ ...values, zone: zone || null })}
      />
      <TextField
        label={t('linkFramed')}
        value={values.framedBy ?? ''}
        error={!!fields.framedBy}
        helperText={fields.framedBy ?? t('linkFramedHelp')}
        placeholder="https://www.cloudmoor.example"
        onChange={(e) => setValues({ ...values, framedBy: e.target.value || null })}
      />
      <TextField
        label={t('linkBooking')}
        value={values.booking ?? ''}
        error={!!fields.booking}
        helperText={fields.booking ?? t('linkBookingHelp')}
        multiline
        maxRows={4}
        onChange={(e) => setValues({ ...values, booking: e.target.value || null })}
      />
      <div>
        <Button
          variant="outlined"
          loading={busy}
          disabled={JSON.stringify(values) === JSON.stringify(shown)}
          onClick={() => void save()}
        >
          {t('linkShownSave')}
        </Button>
      </div>
    </section>
  );
}
