'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AudienceWire, SightlinesAnswer } from '@/contract/sharing.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import pageCss from '../common/page.module.css';
import { plain } from '../common/people-options.tsx';
import { said } from '../common/refusal.ts';
import { ConfirmGive } from './confirm-give.tsx';
import { NOTHING } from './grant-rights.ts';
import { readTyped } from './typed.ts';

interface Meant {
  readonly word: string;
  readonly audience: AudienceWire | null;
  readonly name: string;
  readonly outside: boolean;
}

/** Whom a line of a pasted list means: a name or an address of the directory, or an address outside; nobody otherwise. */
function meantBy(word: string, lines: SightlinesAnswer): Meant {
  const typed = readTyped(word);
  const named = lines.people.filter((p) => plain(p.name) === plain(word));
  const person = typed
    ? lines.people.find((p) => p.address === typed.address)
    : named.length === 1
      ? named[0]
      : undefined;
  if (person) return { word, audience: { kind: 'person', id: person.handle }, name: person.name, outside: false };
  if (!typed) return { word, audience: null, name: word, outside: false };
  const audience = { kind: 'address' as const, address: typed.address, ...(typed.name ? { name: typed.name } : {}) };
  return { word, audience, name: typed.name || typed.address, outside: true };
}

/** A list of people pasted at once: each gets the same sight, all of them or none; who isn't found and who is there already is named. */
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
  const [tell, setTell] = useState(false);
  const [confirming, setConfirming] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const found = text
    .split(/[\n,;]+/)
    .map((w) => w.trim())
    .filter(Boolean)
    .map((word) => meantBy(word, lines));
  const named = new Set(
    lines.rows.flatMap((r) => (r.audience.kind === 'person' && r.grants.length > 0 ? [r.audience.id] : [])),
  );
  const addresses = new Set(lines.rows.map((r) => r.who.detail));
  const isThere = (m: Meant): boolean =>
    (m.audience?.kind === 'person' && named.has(m.audience.id)) ||
    (m.audience?.kind === 'address' && addresses.has(m.audience.address));
  const unknown = found.filter((m) => !m.audience).map((m) => m.word);
  const there = found.filter(isThere).map((m) => m.name);
  const people = [
    ...new Map(found.filter((m) => m.audience && !isThere(m)).map((m) => [JSON.stringify(m.audience), m])).values(),
  ];
  const outside = people.filter((m) => m.outside);
  const what = sight === 'nothing' ? t('presets.shutOut') : t(`sights.${sight}`);
  const give = async () => {
    setBusy(true);
    setRefused(null);
    try {
      await call('giveSeveral', {
        params: { calendar },
        body: {
          gives: people.flatMap(({ audience }) =>
            audience ? [{ audience, rights: { ...NOTHING, sight }, seen: null, tell: tell ? { note: '' } : null }] : [],
          ),
        },
      });
      onClose();
      await onDone(t('lines.pasteDone', { count: people.length, what }));
    } catch (error) {
      const s = said(error, t('common.unreachable'));
      const [field, sentence] = Object.entries(s.fields)[0] ?? [];
      const who = people[Number(field?.split('.')[1] ?? Number.NaN)]?.word;
      setRefused(who && sentence ? `${who}: ${sentence}` : s.sentence);
      setConfirming(false);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className={pageCss.card} aria-label={t('lines.paste')} style={{ display: 'grid', gap: 10 }}>
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        label={t('lines.paste')}
        multiline
        minRows={3}
        maxRows={8}
        autoFocus
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setConfirming(false);
        }}
        error={unknown.length > 0}
        helperText={
          [
            unknown.length > 0 ? t('lines.pasteWrong', { list: unknown.join(', ') }) : null,
            outside.length > 0 ? t('lines.pasteOutside', { list: outside.map((m) => m.name).join(', ') }) : null,
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
      <FormControlLabel
        label={t('lines.pasteTell')}
        control={<Switch size="small" checked={tell} onChange={(e) => setTell(e.target.checked)} />}
      />
      {confirming ? (
        <ConfirmGive
          head={null}
          text={t('lines.pasteConfirm', { count: outside.length, what })}
          busy={busy}
          onYes={() => void give()}
          onNo={() => setConfirming(false)}
        />
      ) : (
        <div className="row">
          <Button
            variant="contained"
            disabled={people.length === 0}
            loading={busy}
            onClick={() => (outside.length > 0 && sight !== 'nothing' ? setConfirming(true) : void give())}
          >
            {t('lines.pasteDo', { count: people.length })}
          </Button>
          <Button variant="outlined" onClick={onClose}>
            {t('form.cancel')}
          </Button>
        </div>
      )}
    </section>
  );
}
