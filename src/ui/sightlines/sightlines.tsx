'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AudienceWire, SightlineRow, SightlinesAnswer } from '@/contract/access.ts';
import { CallRefused, call } from '@/contract/call.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { ReachMeter, SightMeter } from '../common/meters.tsx';
import { dayMonth } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { useFrame } from '../frame/frame-context.tsx';
import { Editor, NOTHING } from './editor.tsx';

/** One name for an audience, to compare and to remember by. */
export const audienceKey = (a: AudienceWire): string => (a.kind === 'everyone' ? 'everyone' : `${a.kind}:${a.id}`);

/** Who sees what in a calendar and who may do what; what each gets stands beside the choice. */
export function Sightlines({ calendar }: { calendar: string }) {
  const t = useTranslations('lines');
  const tb = useTranslations('board');
  const { toast } = useFrame();
  const client = useQueryClient();
  const [chosen, setChosen] = useState('everyone');
  const [added, setAdded] = useState<{ audience: AudienceWire; name: string; detail: string }[]>([]);
  const [picking, setPicking] = useState(false);
  const query = useQuery({
    queryKey: ['calendar', calendar, 'sightlines'],
    queryFn: () => call('listSightlines', { params: { calendar } }),
    retry: false,
  });
  if (query.isPending)
    return (
      <p className="state soft" role="status">
        {t('loading')}
      </p>
    );
  if (query.isError) {
    return (
      <div className="state" role="alert">
        <p>{query.error instanceof CallRefused ? query.error.message : t('failed')}</p>
        <Button variant="outlined" onClick={() => void query.refetch()}>
          {tb('again')}
        </Button>
      </div>
    );
  }
  const lines = query.data;
  const fresh = added.filter((a) => !lines.rows.some((r) => audienceKey(r.audience) === audienceKey(a.audience)));
  const rows = [...lines.rows, ...fresh.map((a) => draftRow(a))];
  const everyone =
    rows.find((r) => r.audience.kind === 'everyone') ??
    draftRow({ audience: { kind: 'everyone' }, name: '', detail: '' });
  const current = rows.find((r) => audienceKey(r.audience) === chosen) ?? everyone;
  const owner = firstName(lines.owner.name);
  const nameOf = (row: SightlineRow) => (row.audience.kind === 'everyone' ? t('everyoneInside') : row.who.name);
  return (
    <div className="sightlines">
      <header>
        <h1>{lines.own ? t('titleMine') : t('title', { name: lines.owner.name })}</h1>
        <span className="soft">
          {t('summary', { people: lines.rows.filter((r) => r.audience.kind !== 'everyone').length })}
        </span>
        <div className="push">
          {picking ? (
            <Picker
              lines={lines}
              onPick={(audience, name, detail) => {
                setAdded((list) => [...list, { audience, name, detail }]);
                setChosen(audienceKey(audience));
                setPicking(false);
              }}
              onClose={() => setPicking(false)}
            />
          ) : (
            <Button
              variant="contained"
              color="inherit"
              sx={{ bgcolor: 'var(--who)', color: 'var(--paper)' }}
              onClick={() => setPicking(true)}
            >
              {t('give')}
            </Button>
          )}
        </div>
      </header>
      <div className="col who-list">
        <Groups
          rows={rows}
          everyone={everyone}
          current={current}
          own={lines.own}
          owner={owner}
          onChoose={(row) => setChosen(audienceKey(row.audience))}
        />
      </div>
      <Editor
        key={audienceKey(current.audience)}
        calendar={calendar}
        row={current}
        lines={lines}
        everyone={everyone}
        name={nameOf(current)}
        onSaved={async (text) => {
          toast({ text });
          await client.invalidateQueries({ queryKey: ['calendar', calendar] });
        }}
        onTaken={async (text) => {
          toast({ text });
          setAdded((list) => list.filter((a) => audienceKey(a.audience) !== audienceKey(current.audience)));
          setChosen('everyone');
          await client.invalidateQueries({ queryKey: ['calendar', calendar] });
        }}
      />
    </div>
  );
}

/** A row for somebody who has no grant yet. */
function draftRow(a: { audience: AudienceWire; name: string; detail: string }): SightlineRow {
  return {
    key: '',
    audience: a.audience,
    who: { name: a.name, detail: a.detail },
    rights: NOTHING,
    effective: NOTHING,
    cutBy: [],
    preset: null,
    since: '',
    given: { actor: '', principal: '' },
  };
}

function Groups(props: {
  rows: readonly SightlineRow[];
  everyone: SightlineRow;
  current: SightlineRow;
  own: boolean;
  owner: string;
  onChoose: (row: SightlineRow) => void;
}) {
  const { rows, everyone, current, own, owner, onChoose } = props;
  const t = useTranslations();
  const named = rows.filter((r) => r.audience.kind !== 'everyone');
  const acts = (r: SightlineRow) => r.rights.add || r.rights.change !== 'none' || r.rights.suggest || r.rights.speaks;
  const sections: [string, SightlineRow[]][] = [
    [t('lines.everyone'), [everyone]],
    [own ? t('lines.acting') : t('lines.actingFor', { name: owner }), named.filter((r) => acts(r))],
    [t('lines.more'), named.filter((r) => !acts(r) && (r.rights.sight !== 'nothing' || r.key === ''))],
    [t('lines.out'), named.filter((r) => !acts(r) && r.rights.sight === 'nothing' && r.key !== '')],
  ];
  return (
    <>
      <div className="who-row small soft" style={{ padding: '0 12px' }}>
        <span />
        <span>{t('lines.sees')}</span>
        <span>{t('lines.mayDo')}</span>
      </div>
      {sections.map(
        ([head, list]) =>
          list.length > 0 && (
            <section key={head} aria-label={head}>
              <h2>{head}</h2>
              {list.map((row) => (
                <WhoRow
                  key={audienceKey(row.audience)}
                  row={row}
                  current={row === current}
                  everyone={everyone}
                  onChoose={() => onChoose(row)}
                />
              ))}
            </section>
          ),
      )}
    </>
  );
}

function WhoRow(props: { row: SightlineRow; current: boolean; everyone: SightlineRow; onChoose: () => void }) {
  const { row, current, everyone, onChoose } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const out = row.key !== '' && row.rights.sight === 'nothing' && row.audience.kind !== 'everyone';
  const since = row.since
    ? t('lines.since', { date: dayMonth(toWall(style.zone, parseInstant(row.since) ?? 0)) })
    : null;
  const level = row.preset ? t(`presets.${row.preset as 'full'}`) : t(`sights.${row.rights.sight}`);
  const sub =
    row.audience.kind === 'everyone'
      ? t('lines.everyoneDetail')
      : row.key === ''
        ? t('lines.unsaved')
        : out
          ? t('lines.outDetail', { sight: t(`sightWords.${everyone.effective.sight}`) })
          : [
              level,
              row.rights.private ? t('extras.private').toLowerCase() : null,
              row.audience.kind === 'group' ? t('lines.groupOf', { count: Number(row.who.detail) }) : null,
              since,
            ]
              .filter(Boolean)
              .join(' · ');
  return (
    <button
      type="button"
      className={`plain who-row${out ? ' out' : ''}`}
      aria-current={current ? 'true' : undefined}
      onClick={onChoose}
    >
      <span>
        <span className="name">{row.audience.kind === 'everyone' ? t('lines.everyoneInside') : row.who.name}</span>
        <span className="sub">{sub}</span>
      </span>
      <SightMeter sight={row.effective.sight} />
      <ReachMeter rights={row.effective} />
    </button>
  );
}

function Picker(props: {
  lines: SightlinesAnswer;
  onPick: (audience: AudienceWire, name: string, detail: string) => void;
  onClose: () => void;
}) {
  const { lines, onPick, onClose } = props;
  const t = useTranslations('lines');
  const options = [
    ...lines.people.map((p) => ({
      audience: { kind: 'person', id: p.handle } as AudienceWire,
      name: p.name,
      detail: [p.detail, p.address].filter(Boolean).join(' · '),
    })),
    ...lines.groups.map((g) => ({
      audience: { kind: 'group', id: g.key } as AudienceWire,
      name: g.name,
      detail: String(g.members),
    })),
  ];
  return (
    <Autocomplete
      sx={{ width: 320 }}
      openOnFocus
      options={options}
      getOptionLabel={(o) => o.name}
      getOptionKey={(o) => audienceKey(o.audience)}
      filterOptions={(list, { inputValue }) => {
        const words = inputValue.toLowerCase().split(/\s+/).filter(Boolean);
        return list.filter((o) => words.every((w) => `${o.name} ${o.detail}`.toLowerCase().includes(w))).slice(0, 40);
      }}
      onChange={(_, o) => o && onPick(o.audience, o.name, o.detail)}
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      renderOption={({ key, ...p }, o) => (
        <li key={key} {...p} style={{ display: 'block' }}>
          {o.name}
          <span className="small soft" style={{ display: 'block' }}>
            {o.audience.kind === 'group' ? t('groupOf', { count: Number(o.detail) }) : o.detail}
          </span>
        </li>
      )}
      renderInput={(params) => <TextField {...params} autoFocus label={t('pick')} placeholder={t('pickHelp')} />}
    />
  );
}
