'use client';
import Alert from '@mui/material/Alert';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { callingOf, reachOf } from '@/contract/sharing/reach.ts';
import type { SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useConfirming, usePlainChoices } from '../../common/fetched/choosing.ts';
import { usePaused, usePreview } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import type { Said } from '../../common/fetched/refusal.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { useLevelName } from '../../common/requests/level-name.ts';
import { FREE_BUSY, NOTHING } from '../../common/requests/plain-rights.ts';
import { GiveRow } from '../begin/give-row.tsx';
import { aboutOf, ConfirmGive } from '../grants/confirm-give.tsx';
import type { Undo } from '../grants/undo-grant.ts';
import { changesBack, changesFor, isNone, type Level, NAMED } from './levels.ts';
import { type Meant, readList, rowOf } from './meant.ts';
import { SeveralRows } from './several-rows.tsx';

const REACHES = ['look', 'add', 'arrange'] as const;
const EXTRAS = ['suggest', 'private', 'speaks', 'copies', 'shares'] as const;
const PAUSE_MS = 300;

/**
 * A list of people, groups and addresses pasted at once: each gets the level that is chosen for all, or one of their own; all of it is done or none.
 * What each would come to is said before; who isn't found is named.
 */
export function Several(props: {
  calendar: string;
  lines: SightlinesAnswer;
  onDone: (text: string, undo?: Undo) => Promise<void>;
  onClose: () => void;
}) {
  const { calendar, lines, onDone, onClose } = props;
  const t = useTranslations();
  const levelName = useLevelName();
  const { style } = useFrame();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState(FREE_BUSY);
  const { pick, waits } = usePlainChoices(chosen, setChosen);
  // In place of a level: they are shut out, or their rows taken away.
  const [instead, setInstead] = useState<'shutOut' | 'back' | null>(null);
  const [owns, setOwns] = useState<Readonly<Record<string, string>>>({});
  const [until, setUntil] = useState('');
  const { attempt, busy, refused } = useActing();
  // The rights that levels by name come to, for those who get one of their own.
  const named = useQuery({
    queryKey: KEYS.requestChoices(FREE_BUSY, 'calendar'),
    queryFn: () => call('accessRequestChoices', { body: { rights: FREE_BUSY, kind: 'calendar' } }),
  });
  const common: Level = instead === 'back' ? 'back' : instead === 'shutOut' ? NOTHING : chosen;
  const { people, unknown } = readList(text, lines);
  /** The level of somebody; nothing where what theirs comes to isn't known yet. */
  const levelOf = ({ word }: Meant): Level | undefined => {
    const own = owns[word];
    if (own === undefined) return common;
    if (own === 'back') return 'back';
    if (own === 'shutOut') return NOTHING;
    return named.data?.choices.find((c) => c.group === 'preset' && c.value === own)?.rights;
  };
  // Whoever presses while a choice is on its way would give what was chosen before it.
  const unsettled = waits || people.some((meant) => levelOf(meant) === undefined);
  const planned = people.map((meant) => ({ meant, row: rowOf(lines, meant), level: levelOf(meant) ?? NOTHING }));
  const wanted = { calendar, until, zone: style.zone };
  const changing = planned.map((one) => ({
    ...one,
    changes: changesFor(one.meant, one.row, { ...wanted, level: one.level }),
  }));
  const changes = changing.flatMap((one) => one.changes);
  const settled = usePaused(JSON.stringify(changes), PAUSE_MS);
  const ready = settled === JSON.stringify(changes) && changes.length > 0;
  const comesTo = usePreview(
    KEYS.severalComesTo(settled),
    ready ? () => call('changeGrants', { body: { changes, dryRun: true } }) : null,
  );
  const results = comesTo.settled && ready ? (comesTo.answer?.results ?? []) : [];
  const at = changing.map((_, i) => changing.slice(0, i).reduce((sum, one) => sum + one.changes.length, 0));
  const there = planned.filter(({ row }) => (row?.grants.length ?? 0) > 0).map(({ meant }) => meant.name);
  const outside = planned.filter(({ meant }) => meant.outside);
  const hears = planned.flatMap(({ meant, level }) =>
    meant.outside && level !== 'back' && !isNone(level) ? [level] : [],
  );
  // Of those outside, whoever is let into most is who the confirmation is about.
  const most = hears.find((level) => level.private) ?? hears.find(({ sight }) => sight !== 'busy') ?? hears[0];
  const allBack = planned.length > 0 && planned.every(({ level }) => level === 'back');
  const whats = [...new Set(planned.flatMap(({ level }) => (level === 'back' ? [] : [levelName(level)])))];
  const give = async (tell: boolean) => {
    const note = tell ? '' : null;
    const body = {
      changes: planned.flatMap((one) => changesFor(one.meant, one.row, { ...wanted, level: one.level, note })),
      dryRun: false,
    };
    await call('changeGrants', { body });
    onClose();
    const back = changesBack(calendar, planned, until);
    const undo = back === null ? undefined : () => call('changeGrants', { body: { changes: back, dryRun: false } });
    const count = planned.length;
    const [what] = whats;
    await onDone(
      allBack
        ? t('lines.pasteBackDone', { count: changes.length })
        : whats.length === 1 && what && !planned.some(({ level }) => level === 'back')
          ? t('lines.pasteDone', { count, what })
          : t('lines.severalDone', { count }),
      undo,
    );
  };
  // Of one of them, with their name.
  const refusalOf = (s: Said) => {
    const [field, sentence] = Object.entries(s.fields)[0] ?? [];
    const n = Number(field?.split('.')[1] ?? Number.NaN);
    const who = changing.find((one, i) => n >= (at[i] ?? 0) && n < (at[i] ?? 0) + one.changes.length)?.meant.name;
    return who && sentence ? `${who}: ${sentence}` : s.sentence;
  };
  const saving = useConfirming(({ tell }: { tell: boolean }) => attempt(() => give(tell), refusalOf));
  const preset = instead ?? callingOf(chosen) ?? 'other';
  const choose = (group: string, value: string) => {
    saving.no();
    pick(group, value);
  };
  return (
    <section className={`${pageCss.card} gap-5 stack`} aria-label={t('lines.paste')}>
      {(refused ?? (ready ? comesTo.why && refusalOf(comesTo.why) : null)) && (
        <Alert severity="error">{refused ?? (comesTo.why && refusalOf(comesTo.why))}</Alert>
      )}
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
            outside.length > 0
              ? t('lines.pasteOutside', { list: outside.map(({ meant }) => meant.name).join(', ') })
              : null,
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
          .filter((r) => r.audience.kind === 'person' || r.audience.kind === 'group')
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
        value={preset}
        onChange={({ target: { value } }) => {
          const none = value === 'shutOut' || value === 'back' ? value : null;
          setInstead(none);
          if (none === null) choose('preset', value);
          else saving.no();
        }}
      >
        {preset === 'other' && <MenuItem value="other">{levelName(chosen)}</MenuItem>}
        {NAMED.map((name) => (
          <MenuItem key={name} value={name}>
            {t(`presets.${name}`)}
          </MenuItem>
        ))}
        <MenuItem value="back">{t('lines.pasteBack')}</MenuItem>
      </TextField>
      {instead === null && (
        <>
          <TextField
            select
            label={t('lines.mayDo')}
            value={reachOf(chosen)}
            onChange={(e) => choose('reach', e.target.value)}
          >
            {REACHES.map((r) => (
              <MenuItem key={r} value={r}>
                {t(`reaches.${r}`)}, {t(`reachHelp.${r}`)}
              </MenuItem>
            ))}
            {reachOf(chosen) === 'words' && <MenuItem value="words">{levelName(chosen)}</MenuItem>}
          </TextField>
          <fieldset className="bare row" aria-label={t('lines.severalExtras')}>
            {EXTRAS.map((extra) => (
              <FormControlLabel
                key={extra}
                control={
                  <Checkbox size="small" checked={chosen[extra]} onChange={(_, on) => choose(extra, String(on))} />
                }
                label={t(`extras.${extra}`)}
              />
            ))}
          </fieldset>
        </>
      )}
      <DateField
        label={t('lines.until')}
        value={until}
        error={undefined}
        help={t('ask.untilHelp')}
        onChange={(day) => {
          saving.no();
          setUntil(day);
        }}
      />
      {planned.length > 0 && (
        <SeveralRows
          rows={changing.map((one, i) => ({
            meant: one.meant,
            level: one.level,
            own: owns[one.meant.word] ?? null,
            result: one.changes.length > 0 ? results[at[i] ?? 0] : undefined,
          }))}
          onLevel={({ word }, level) => {
            saving.no();
            setOwns(({ [word]: _was, ...others }) => (level === null ? others : { ...others, [word]: level }));
          }}
        />
      )}
      {saving.confirming ? (
        <ConfirmGive
          head={null}
          text={t('lines.pasteConfirm', {
            ...aboutOf(lines, most ?? NOTHING),
            count: hears.length,
            what: [...new Set(hears.map(levelName))].join(', '),
          })}
          busy={busy}
          onYes={saving.yes}
          onNo={saving.no}
        />
      ) : (
        <GiveRow
          says={(tell) =>
            tell && !allBack && people.some(({ members }) => members !== null)
              ? t('lines.severalDo', { count: people.length })
              : t(`lines.${allBack ? 'pasteBack' : 'paste'}${tell ? 'Do' : 'Quietly'}`, { count: people.length })
          }
          off={changes.length === 0 || unsettled}
          busy={busy}
          onGive={(tell) => saving.press({ tell }, hears.length > 0)}
          onClose={onClose}
        />
      )}
    </section>
  );
}
