'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import { MOST_HELD } from '@/contract/mosts.ts';
import { instantText } from '@/core/time/index.ts';
import { LANGUAGE_NAMES, LANGUAGES } from '@/messages/languages.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { ZoneField } from '../../common/fields/zone-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import type { InvitedPerson } from '../../meetings/heard.ts';
import { timesText } from './times-text.ts';

const LAPSES = [1, 2, 7, 14] as const;

/** What can be done with the times that were chosen: held for one meeting in one act, or said as text in somebody's zone and language. */
export function ChosenTimes(props: {
  head: BoardHead;
  starts: readonly string[];
  length: number;
  place: string;
  people: readonly InvitedPerson[];
  onLeave: () => void;
  onHeld: (answer: SeveralAnswer) => void;
}) {
  const { head, starts, length, place, people, onLeave, onHeld } = props;
  const t = useTranslations('openings.chosen');
  const { style, now, toast } = useFrame();
  const [title, setTitle] = useState('');
  const [days, setDays] = useState<(typeof LAPSES)[number]>(7);
  const [zone, setZone] = useState(style.zone);
  const [language, setLanguage] = useState(style.language);
  const { attempt, busy, refused, fields } = useActing(['title']);
  const known = isKnown(zone);
  const text = known ? timesText(starts, length, zone, language) : '';
  const hold = async () => {
    await attempt(async () => {
      const invited = people.map(({ address, name, role, group }) => ({
        address,
        name,
        role,
        group: group?.key ?? null,
      }));
      const lapses = instantText(now() + days * DAY);
      const body = {
        title,
        place: place || null,
        people: invited,
        length,
        starts: [...starts],
        zone: style.zone,
        lapses,
      };
      onHeld(await call('holdTimes', { params: { calendar: head.calendar.key }, body }));
    });
  };
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    toast({ text: t('copied', { count: starts.length }) });
  };
  return (
    <section aria-label={t('title', { count: starts.length })} className="stack">
      <h3>{t('title', { count: starts.length })}</h3>
      {starts.length > MOST_HELD && <p className="small wrong">{t('tooMany', { most: MOST_HELD })}</p>}
      <TextField
        label={t('for')}
        value={title}
        error={!!fields.title}
        helperText={fields.title}
        onChange={(e) => setTitle(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
      />
      <TextField
        select
        label={t('lapse')}
        value={days}
        onChange={(e) => setDays(LAPSES.find((d) => d === Number(e.target.value)) ?? 7)}
      >
        {LAPSES.map((d) => (
          <MenuItem key={d} value={d}>
            {t('after', { days: d })}
          </MenuItem>
        ))}
      </TextField>
      {refused && (
        <p className="wrong small" role="alert">
          {refused}
        </p>
      )}
      <span className="row">
        <Button variant="contained" loading={busy} onClick={() => void hold()}>
          {t('hold', { count: starts.length, own: head.own ? 'yes' : 'no', name: firstName(head.owner.name) })}
        </Button>
        <Button variant="text" onClick={onLeave}>
          {t('leave')}
        </Button>
      </span>
      <ZoneField label={t('zone')} value={zone} wrong={known ? undefined : t('zoneWrong')} onChange={setZone} />
      <TextField
        select
        label={t('language')}
        value={language}
        onChange={(e) => setLanguage(LANGUAGES.find((l) => l === e.target.value) ?? language)}
      >
        {LANGUAGES.map((l) => (
          <MenuItem key={l} value={l}>
            {LANGUAGE_NAMES[l]}
          </MenuItem>
        ))}
      </TextField>
      {text && <p className="small lines">{text}</p>}
      <Button variant="outlined" disabled={!known} onClick={() => void copy()} className="own-width">
        {t('copy')}
      </Button>
    </section>
  );
}

function isKnown(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
