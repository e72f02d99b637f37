'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { SightlinesAnswer } from '@/contract/access.ts';
import { call } from '@/contract/call.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import { said } from '../common/refusal.ts';
import { NOTHING } from './grant-editor.tsx';

const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .trim();

/** A list of people pasted at once: each gets the same sight; who isn't found and who is there already is named. */
export function Several(props: {
  calendar: string;
  lines: SightlinesAnswer;
  onDone: (text: string) => Promise<void>;
  onClose: () => void;
}) {
  const { calendar, lines, onDone, onClose } = props;
  const t = useTranslations();
  const [text, setText] = useState('');
  const [sight, setSight] = useState<(typeof SIGHTS)[number]>('busy');
  const [refused, setRefused] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const wanted = text
    .split(/[\n,;]+/)
    .map((w) => w.trim())
    .filter(Boolean);
  const found = wanted.map((word) => {
    const address = /<([^>]+)>/.exec(word)?.[1] ?? word;
    const person = lines.people.find((p) => plain(p.name) === plain(word) || p.address === plain(address));
    return { word, person };
  });
  const named = new Set(
    lines.rows.flatMap((r) => (r.audience.kind === 'person' && r.grants.length > 0 ? [r.audience.id] : [])),
  );
  const unknown = found.filter((f) => !f.person).map((f) => f.word);
  const there = found.flatMap((f) => (f.person && named.has(f.person.handle) ? [f.person.name] : []));
  const people = [
    ...new Map(
      found.flatMap((f) => (f.person && !named.has(f.person.handle) ? [[f.person.handle, f.person]] : [])),
    ).values(),
  ];
  const give = async () => {
    setBusy(true);
    setRefused(null);
    let done = 0;
    try {
      for (const person of people) {
        await call('giveAccess', {
          params: { calendar },
          body: { audience: { kind: 'person', id: person.handle }, rights: { ...NOTHING, sight }, seen: null },
        });
        done++;
      }
      onClose();
    } catch (error) {
      setRefused(said(error, t('common.unreachable')).sentence);
    } finally {
      setBusy(false);
      if (done > 0) await onDone(t('lines.pasteDone', { count: done, what: t(`sights.${sight}`) }));
    }
  };
  return (
    <section className="card" aria-label={t('lines.paste')} style={{ display: 'grid', gap: 10 }}>
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        label={t('lines.paste')}
        multiline
        minRows={3}
        maxRows={8}
        autoFocus
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={unknown.length > 0}
        helperText={
          [
            unknown.length > 0 ? t('lines.pasteUnknown', { list: unknown.join(', ') }) : null,
            there.length > 0 ? t('lines.pasteAlready', { list: there.join(', ') }) : null,
          ]
            .filter(Boolean)
            .join(' ') || t('lines.pasteHelp')
        }
      />
      <TextField
        select
        label={t('lines.pasteLevel')}
        value={sight}
        onChange={(e) => setSight(e.target.value as typeof sight)}
      >
        {SIGHTS.map((s) => (
          <MenuItem key={s} value={s}>
            {s === 'nothing' ? t('presets.shutOut') : t(`sights.${s}`)}
          </MenuItem>
        ))}
      </TextField>
      <div className="row">
        <Button variant="contained" disabled={people.length === 0} loading={busy} onClick={give}>
          {t('lines.pasteDo', { count: people.length })}
        </Button>
        <Button variant="outlined" onClick={onClose}>
          {t('form.cancel')}
        </Button>
      </div>
    </section>
  );
}
