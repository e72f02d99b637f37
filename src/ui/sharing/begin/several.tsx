'use client';
import Alert from '@mui/material/Alert';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { AudienceWire, SightlineRow, SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useConfirming, usePlainChoices } from '../../common/fetched/choosing.ts';
import type { Said } from '../../common/fetched/refusal.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { plain } from '../../common/fields/people-options.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { FREE_BUSY, NOTHING } from '../../common/requests/plain-rights.ts';
import { aboutOf, ConfirmGive } from '../grants/confirm-give.tsx';
import { type Undo, undoTakes } from '../grants/undo-grant.ts';
import { GiveRow } from './give-row.tsx';
import { listedAt, readTyped } from './typed.ts';

const REACHES = ['look', 'add', 'arrange'] as const;

const standingOf = (row: SightlineRow | undefined) => row?.grants.find((g) => g.from === null && g.until === null);

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
  onDone: (text: string, undo?: Undo) => Promise<void>;
  onClose: () => void;
}) {
  const { calendar, lines, onDone, onClose } = props;
  const t = useTranslations();
  const [text, setText] = useState('');
  const { style } = useFrame();
  const [chosen, setChosen] = useState(FREE_BUSY);
  const { pick } = usePlainChoices(chosen, setChosen);
  // In place of a level: they are shut out, or their rows taken away so that what everyone inside gets counts for them.
  const [instead, setInstead] = useState<'nothing' | 'everyone' | null>(null);
  const back = instead === 'everyone';
  const rights = instead === null ? chosen : NOTHING;
  const { sight } = rights;
  const [until, setUntil] = useState('');
  const { attempt, busy, refused } = useActing();
  const found = text
    .split(/[\n,;]+/)
    .map((w) => w.trim())
    .filter(Boolean)
    .map((word) => meantBy(word, lines));
  // Whoever is listed already is changed: what stands there is replaced.
  const rowOf = ({ audience }: Meant): SightlineRow | undefined =>
    lines.rows.find((r) =>
      audience?.kind === 'person'
        ? r.audience.kind === 'person' && r.audience.id === audience.id
        : audience?.kind === 'address' && r === listedAt(lines.rows, audience.address),
    );
  const unknown = found.filter((m) => !m.audience).map((m) => m.word);
  const people = [...new Map(found.filter((m) => m.audience).map((m) => [JSON.stringify(m.audience), m])).values()];
  const there = people.filter((m) => (rowOf(m)?.grants.length ?? 0) > 0).map((m) => m.name);
  const everyone = lines.rows.find((r) => r.audience.kind === 'everyone')?.effective.sight ?? 'nothing';
  const takes = people.flatMap((m) => {
    const row = rowOf(m);
    return (row?.grants ?? []).map((g) => ({ audience: row?.audience ?? { kind: 'everyone' as const }, seen: g.key }));
  });
  const outside = people.filter((m) => m.outside);
  const what = sight === 'nothing' ? t('presets.shutOut') : t(`sights.${sight}`);
  const give = async (tell: boolean) => {
    if (back) {
      const body = { takes: takes.map((one) => ({ ...one, tell: tell ? { note: '' } : null })) };
      await call('takeSeveral', { params: { calendar }, body });
      onClose();
      const undo = undoTakes(calendar, lines.rows, new Set(takes.map(({ seen }) => seen)), style.zone);
      await onDone(t('lines.pasteBackDone', { count: people.length, sight: t(`sightWords.${everyone}`) }), undo);
      return;
    }
    await call('giveSeveral', {
      params: { calendar },
      body: {
        gives: people.flatMap((m) =>
          m.audience
            ? [
                {
                  audience: rowOf(m)?.audience ?? m.audience,
                  rights,
                  seen: until === '' ? (standingOf(rowOf(m))?.key ?? null) : null,
                  span: until === '' ? null : { from: null, until, zone: style.zone },
                  tell: tell ? { note: '' } : null,
                },
              ]
            : [],
        ),
      },
    });
    onClose();
    await onDone(t('lines.pasteDone', { count: people.length, what }));
  };
  // Of one of them, with their name.
  const refusalOf = (s: Said) => {
    const [field, sentence] = Object.entries(s.fields)[0] ?? [];
    const who = people[Number(field?.split('.')[1] ?? Number.NaN)]?.word;
    return who && sentence ? `${who}: ${sentence}` : s.sentence;
  };
  const saving = useConfirming(({ tell }: { tell: boolean }) => attempt(() => give(tell), refusalOf));
  return (
    <section className={`${pageCss.card} gap-5 stack`} aria-label={t('lines.paste')}>
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
          saving.no();
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
        label={t('lines.pasteListed')}
        value=""
        onChange={(e) => setText((was) => [was.trim(), e.target.value].filter(Boolean).join('\n'))}
      >
        {lines.rows
          .filter((r) => r.audience.kind === 'person')
          .map((r) => (
            <MenuItem
              key={r.who.detail + r.who.name}
              value={r.outside ? (r.who.detail.split(' · ').at(-1) ?? '') : r.who.name}
            >
              {r.who.name}
            </MenuItem>
          ))}
      </TextField>
      <TextField
        select
        label={t('lines.pasteLevel')}
        value={instead ?? chosen.sight}
        onChange={({ target: { value } }) => {
          const none = value === 'nothing' || value === 'everyone' ? value : null;
          setInstead(none);
          if (none === null) pick('sight', value);
        }}
      >
        {SIGHTS.map((s) => (
          <MenuItem key={s} value={s}>
            {s === 'nothing' ? t('presets.shutOut') : t(`sights.${s}`)}
          </MenuItem>
        ))}
        <MenuItem value="everyone">{t('lines.pasteBack')}</MenuItem>
      </TextField>
      {back && (
        <div className="small">
          <p>{t('lines.pasteBackHelp', { sight: t(`sightWords.${everyone}`) })}</p>
          <ul className="dots">
            {people.map((m) => (
              <li key={m.word}>
                {t('lines.pasteBackOf', {
                  name: m.name,
                  before: t(`sightWords.${rowOf(m)?.effective.sight ?? everyone}`),
                  after: t(`sightWords.${m.outside ? 'nothing' : everyone}`),
                })}
              </li>
            ))}
          </ul>
        </div>
      )}
      <TextField
        select
        label={t('lines.mayDo')}
        value={reachOf(rights)}
        onChange={(e) => pick('reach', e.target.value)}
        disabled={sight === 'nothing'}
      >
        {REACHES.map((r) => (
          <MenuItem key={r} value={r}>
            {t(`reaches.${r}`)}, {t(`reachHelp.${r}`)}
          </MenuItem>
        ))}
      </TextField>
      <DateField
        label={t('lines.until')}
        value={until}
        error={undefined}
        help={t('ask.untilHelp')}
        onChange={setUntil}
      />
      {saving.confirming ? (
        <ConfirmGive
          head={null}
          text={t('lines.pasteConfirm', { ...aboutOf(lines, rights), count: outside.length, what })}
          busy={busy}
          onYes={saving.yes}
          onNo={saving.no}
        />
      ) : (
        <GiveRow
          says={(tell) =>
            t(`lines.${back ? 'pasteBack' : 'paste'}${tell ? 'Do' : 'Quietly'}`, { count: people.length })
          }
          off={people.length === 0 || (back && takes.length === 0)}
          busy={busy}
          onGive={(tell) => saving.press({ tell }, outside.length > 0 && sight !== 'nothing')}
          onClose={onClose}
        />
      )}
    </section>
  );
}
