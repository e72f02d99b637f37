'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import type { SearchAnswer } from '@/contract/search.ts';
import { KINDS } from '@/core/calendar/index.ts';
import { parseDate } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { DateField } from '../../common/fields/date-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { whenText } from '../../common/times.ts';
import { PanelHead } from '../details/panel-head.tsx';
import { foundAt } from './found-at.ts';
import type { Sought } from './sought.ts';

/** So long after the last stroke it is looked for. */
const PAUSE_MS = 150;
const KIND_CHOICES = ['any', ...KINDS] as const;

/**
 * Looks for items by words, people, place, kind and date, in the calendars one keeps or in all one may look into; the weeks above show on
 * which days of this calendar something is found.
 */
export function SearchPanel(props: {
  head: BoardHead;
  sought: Sought;
  onSought: (sought: Sought) => void;
  onClose: () => void;
}) {
  const { head, sought, onSought, onClose } = props;
  const t = useTranslations('search');
  const tk = useTranslations('kinds');
  const td = useTranslations('fields');
  const { frame, style } = useFrame();
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [everywhere, setEverywhere] = useState(false);
  const wrong = (date: string) => (date !== '' && parseDate(date) === null ? td('date') : undefined);
  // What is typed is shown at once; the address, and the weeks that follow it, a moment later.
  const [typed, setTyped] = useState(sought.words);
  const sent = useRef(sought.words);
  const seek = useEffectEvent((words: string) => onSought({ ...sought, words }));
  useEffect(() => {
    if (typed === sent.current) return;
    const timer = setTimeout(() => {
      sent.current = typed;
      seek(typed);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  useEffect(() => {
    if (sought.words === sent.current) return;
    sent.current = sought.words;
    setTyped(sought.words);
  }, [sought.words]);
  const words = sought.words.trim();
  const dates = {
    ...(from !== '' && !wrong(from) ? { from } : {}),
    ...(to !== '' && !wrong(to) ? { to } : {}),
  };
  const terms = { words, ...(sought.kind ? { kind: sought.kind } : {}), ...dates };
  const query = useQuery({
    queryKey: KEYS.found(JSON.stringify([terms, everywhere])),
    queryFn: () => call('search', { query: { ...terms, ...(everywhere ? { everywhere: '1' as const } : {}) } }),
    enabled: words.length >= 2,
    placeholderData: (before) => before,
    retry: false,
  });
  const data = words.length >= 2 ? (query.data as SearchAnswer | undefined) : undefined;
  return (
    <aside className={boardsCss.panel} aria-label={t('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('title')}</h2>
      <TextField
        label={t('words')}
        value={typed}
        autoFocus
        onChange={(e) => setTyped(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 200 } }}
      />
      <TextField
        select
        label={t('kind')}
        value={sought.kind ?? 'any'}
        onChange={(e) => onSought({ ...sought, kind: KINDS.find((k) => k === e.target.value) ?? null })}
      >
        {KIND_CHOICES.map((k) => (
          <MenuItem key={k} value={k}>
            {k === 'any' ? t('anyKind') : tk(k)}
          </MenuItem>
        ))}
      </TextField>
      <span className="row top">
        <DateField label={t('from')} value={from} error={wrong(from)} onChange={setFrom} />
        <DateField label={t('to')} value={to} error={wrong(to)} onChange={setTo} />
      </span>
      <FormControlLabel
        control={<Checkbox size="small" checked={everywhere} onChange={(e) => setEverywhere(e.target.checked)} />}
        label={t('everywhere')}
        slotProps={{ typography: { variant: 'body2' } }}
      />
      {typed.trim().length < 2 && <p className="small soft">{t('more')}</p>}
      {words.length >= 2 && <QueryState query={query} />}
      {data && (
        <p className="small soft" role="status">
          {t('count', { count: data.found.length, cut: data.cut ? 'yes' : 'no' })}
        </p>
      )}
      {data && data.found.length > 0 && (
        <ol className="list gap-2 stack" aria-label={t('found')}>
          {data.found.map((one) => (
            <li key={`${one.calendar} ${one.item.id}`} className={`who-${one.owner.colour % 6}`}>
              <Link className={`plain ${boardsCss.found}`} href={foundAt(one, frame, style, sought)} prefetch={false}>
                <b>{one.item.title}</b>
                <span className="small soft block">
                  {[whenText(one.item, style), one.item.place, one.of ?? one.owner.name].filter(Boolean).join(' · ')}
                </span>
              </Link>
            </li>
          ))}
        </ol>
      )}
    </aside>
  );
}
