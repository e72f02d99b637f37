'use client';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { readRepeatWords } from '@/core/sentence/index.ts';
import { parseDate, parseWall, toWall } from '@/core/time/index.ts';
import { usePaused, usePreview } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { sentenceOf } from '../../common/fetched/refusal.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, DAY, fullDay } from '../../common/times.ts';
import { useRepeatWords } from './repeat-kinds.ts';

const PAUSE_MS = 300;
interface When {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
}

/** A repeat as it is said, read back in words with its next dates; what can't be read is told so, and what is there stays. */
export function RepeatSaid(props: { rule: string; error: string | undefined; onChange: (rule: string) => void }) {
  const { rule, error, onChange } = props;
  const t = useTranslations('form');
  const { style, now } = useFrame();
  const words = useRepeatWords();
  const [text, setText] = useState(rule === '' ? '' : words(rule));
  const [wrong, setWrong] = useState(false);
  return (
    <TextField
      label={t('repeatSaid')}
      placeholder={t('repeatSaidHint')}
      value={text}
      error={error !== undefined || wrong}
      helperText={error ?? (wrong ? t('repeatSaidWrong') : rule === '' ? undefined : words(rule))}
      onChange={(e) => {
        setText(e.target.value);
        const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
        const read = readRepeatWords(e.target.value, { today, language: style.language, dateOrder: style.dateOrder });
        setWrong(e.target.value.trim() !== '' && read === null);
        onChange(read === null ? '' : read.replace(/UNTIL=(\d{8})$/, 'UNTIL=$1T235959'));
      }}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 120 } }}
    />
  );
}

/** The next dates of a repeat, and those that a clock change leaves out. */
export function NextDates({ rule, when }: { rule: string | null; when: When | null }) {
  const t = useTranslations('form');
  const { style } = useFrame();
  const body = rule && when ? JSON.stringify({ when, rule }) : null;
  const paused = usePaused(body, PAUSE_MS);
  const { answer, why } = usePreview(
    KEYS.repeat(paused),
    paused === null ? null : () => call('previewRepeat', { body: JSON.parse(paused) }),
  );
  if (body === null) return null;
  if (why) return <span className="small wrong">{sentenceOf(why)}</span>;
  if (!answer) return null;
  const { dates, skipped, ends } = answer;
  const first = dates[0]?.slice(11);
  const words = (text: string) => {
    const wall = parseDate(text.slice(0, 10)) ?? 0;
    const time = text.slice(11);
    return time && time !== first ? `${fullDay(wall)}, ${clock(parseWall(text) ?? 0, style.hours)}` : fullDay(wall);
  };
  return (
    <span className="small soft" role="status">
      {t('nextDates', { dates: dates.map(words).join(' · '), ends: ends ? 'yes' : 'no' })}
      {skipped.length > 0 && <span className="wrong"> {t('skipped', { dates: skipped.map(words).join(', ') })}</span>}
    </span>
  );
}
