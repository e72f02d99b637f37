'use client';
import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { GiveBody, PreviewAnswer, SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import { dateText, toWall, weekStart } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useConfirming } from '../../common/fetched/choosing.ts';
import { usePreview } from '../../common/fetched/preview.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { fewPeople, personOption } from '../../common/fields/people-options.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { NOTHING } from '../../common/requests/plain-rights.ts';
import { DAY } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { Caution } from '../grants/caution.tsx';
import { aboutOf, ConfirmGive } from '../grants/confirm-give.tsx';
import { Opened } from '../grants/opened.tsx';
import { GiveRow } from './give-row.tsx';

type Person = SightlinesAnswer['people'][number];

const ACTS = ['arranger', 'delegate', 'steward'] as const;

/** The usual three layers as one step: what everyone inside gets, a few who see more, and who acts. All of it is given, or none. */
export function Layers(props: {
  calendar: string;
  lines: SightlinesAnswer;
  onDone: (text: string) => Promise<void>;
  onClose: () => void;
}) {
  const { calendar, lines, onDone, onClose } = props;
  const t = useTranslations();
  const { style, now } = useFrame();
  const owner = firstName(lines.owner.name);
  const everyone = lines.rows.find((r) => r.audience.kind === 'everyone');
  const standing = everyone?.grants.find((g) => g.from === null && g.until === null);
  const [all, setAll] = useState<(typeof SIGHTS)[number]>('busy');
  const [few, setFew] = useState<readonly Person[]>([]);
  const [fewSight, setFewSight] = useState<(typeof SIGHTS)[number]>('outline');
  const [acts, setActs] = useState<Person | null>(null);
  const [as, setAs] = useState<(typeof ACTS)[number]>('delegate');
  const [until, setUntil] = useState('');
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const { attempt, busy, refused } = useActing();
  // What the word for acting comes to is the server's to say.
  const week = weekStart(Math.floor(toWall(style.zone, now()) / DAY) * DAY);
  const range = { from: dateText(week), to: dateText(week + DAY), zone: style.zone };
  const preview = useQuery({
    queryKey: KEYS.calendar(calendar, 'layers', acts?.handle ?? ''),
    enabled: acts !== null,
    queryFn: () =>
      call('previewAccess', {
        params: { calendar },
        body: {
          audience: { kind: 'person', id: acts?.handle ?? '' },
          rights: null,
          seen: null,
          range,
        },
      }) as Promise<PreviewAnswer>,
  });
  const acting = preview.data?.choices.find((c) => c.group === 'preset' && c.value === as);
  // Whoever is listed already is changed: what stands there is replaced.
  const standsFor = (handle: string): string | null =>
    lines.rows
      .find((r) => r.audience.kind === 'person' && r.audience.id === handle)
      ?.grants.find((g) => g.from === null && g.until === null)?.key ?? null;
  const free = lines.people;
  const span = until === '' ? null : { from: null, until, zone: style.zone };
  const seenOf = (handle: string) => (span ? null : standsFor(handle));
  const listed = [...few, ...(acts ? [acts] : [])].filter((p) => standsFor(p.handle) !== null).map((p) => p.name);
  const everyoneChanged = (standing?.rights.sight ?? 'nothing') !== all;
  const give = async (tell: boolean) => {
    const telling = tell ? { note: '' } : null;
    const gives: GiveBody[] = [
      ...(everyoneChanged
        ? [
            {
              audience: { kind: 'everyone' as const },
              rights: rightsOfAll,
              seen: standing?.key ?? null,
              alsoPrivate: [...hidden],
            },
          ]
        : []),
      ...few.map((p) => ({
        audience: { kind: 'person' as const, id: p.handle },
        rights: { ...NOTHING, sight: fewSight },
        seen: seenOf(p.handle),
        span,
        tell: telling,
      })),
      ...(acts && acting
        ? [
            {
              audience: { kind: 'person' as const, id: acts.handle },
              rights: acting.rights,
              seen: seenOf(acts.handle),
              span,
              tell: telling,
            },
          ]
        : []),
    ];
    await attempt(async () => {
      await call('giveSeveral', { params: { calendar }, body: { gives } });
      onClose();
      await onDone(t('lines.layersDone'));
    });
  };
  // What everyone inside comes to, and which coming items they would read by it.
  const rightsOfAll = { ...NOTHING, sight: all };
  const ofAll = usePreview(
    KEYS.calendar(calendar, 'layers', 'everyone', all),
    everyoneChanged
      ? () =>
          call('previewAccess', {
            params: { calendar },
            body: { audience: { kind: 'everyone' }, rights: rightsOfAll, seen: standing?.key ?? null, range },
          }) as Promise<PreviewAnswer>
      : null,
  );
  const moved = everyoneChanged && ofAll.settled ? ofAll.answer?.moved : undefined;
  const saving = useConfirming(({ tell }: { tell: boolean }) => give(tell));
  const nothingToDo = !everyoneChanged && few.length === 0 && acts === null;
  const sightChoice = (label: string, value: (typeof SIGHTS)[number], set: (s: (typeof SIGHTS)[number]) => void) => (
    <TextField select label={label} value={value} onChange={(e) => set(e.target.value as typeof value)}>
      {SIGHTS.map((s) => (
        <MenuItem key={s} value={s}>
          {t(`sights.${s}`)}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <section className={`${pageCss.card} gap-5 stack`} aria-label={t('lines.layers')}>
      <p className="small soft">{t('lines.layersHelp')}</p>
      {refused && <Alert severity="error">{refused}</Alert>}
      {sightChoice(t('lines.layerAll'), all, (sight) => {
        setAll(sight);
        setHidden(new Set());
      })}
      {moved && ofAll.answer && ofAll.answer.opened.length > 0 && (
        <Opened items={ofAll.answer.opened} ticked={hidden} onTick={setHidden} />
      )}
      <Autocomplete
        multiple
        size="small"
        options={free.filter((p) => p.handle !== acts?.handle)}
        value={[...few]}
        getOptionLabel={(p) => p.name}
        getOptionKey={(p) => p.handle}
        filterOptions={fewPeople<Person>}
        renderOption={personOption}
        isOptionEqualToValue={(a, b) => a.handle === b.handle}
        onChange={(_, people) => setFew(people)}
        renderInput={(params) => <TextField {...params} label={t('lines.layerFew')} />}
      />
      {sightChoice(t('lines.layerFewSight'), fewSight, setFewSight)}
      <Autocomplete
        size="small"
        options={free.filter((p) => !few.some((f) => f.handle === p.handle))}
        value={acts}
        getOptionLabel={(p) => p.name}
        getOptionKey={(p) => p.handle}
        filterOptions={fewPeople<Person>}
        renderOption={personOption}
        isOptionEqualToValue={(a, b) => a.handle === b.handle}
        onChange={(_, p) => setActs(p)}
        renderInput={(params) => <TextField {...params} label={t('lines.layerActs', { owner })} />}
      />
      <TextField
        select
        label={t('lines.layerActsAs')}
        value={as}
        onChange={(e) => setAs(e.target.value as typeof as)}
        helperText={t(`presetHelp.${as}`)}
      >
        {ACTS.map((preset) => (
          <MenuItem key={preset} value={preset}>
            {t(`presets.${preset}`)}
          </MenuItem>
        ))}
      </TextField>
      {acts && acting && <Caution who={firstName(acts.name)} owner={owner} rights={acting.rights} />}
      <DateField
        label={t('lines.layerUntil')}
        value={until}
        error={undefined}
        help={t('ask.untilHelp')}
        onChange={setUntil}
      />
      {listed.length > 0 && <p className="small soft">{t('lines.pasteAlready', { list: listed.join(', ') })}</p>}
      {saving.confirming && moved ? (
        <ConfirmGive
          head={t('lines.confirmEveryoneHead', { ...aboutOf(lines, rightsOfAll), what: t(`sights.${all}`) })}
          text={t('lines.confirmEveryone', moved)}
          busy={busy}
          onYes={saving.yes}
          onNo={saving.no}
        />
      ) : (
        <GiveRow
          says={(tell) => t(tell ? 'lines.layersDo' : 'lines.layersQuietly')}
          off={nothingToDo || (acts !== null && !acting) || (everyoneChanged && !moved)}
          busy={busy}
          onGive={(tell) => saving.press({ tell }, moved !== undefined && moved.more + moved.less > 0)}
          onClose={onClose}
        />
      )}
    </section>
  );
}
