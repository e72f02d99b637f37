'use client';
import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AudienceWire, SightlineRow, SightlinesAnswer } from '@/contract/access.ts';
import { CallRefused, call } from '@/contract/call.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { ReachMeter, reachOf, SightMeter } from '../common/meters.tsx';
import { said } from '../common/refusal.ts';
import { dayMonth } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { useFrame } from '../frame/frame-context.tsx';
import { audienceParam } from './audience-param.ts';
import { Editor } from './editor.tsx';
import { Findings } from './findings.tsx';
import { NOTHING } from './grant-editor.tsx';
import { Several } from './several.tsx';

/** Who sees what in a calendar and who may do what; what each gets stands beside the choice. */
export function Sightlines({ calendar }: { calendar: string }) {
  const t = useTranslations('lines');
  const te = useTranslations('common');
  const tb = useTranslations('board');
  const { toast } = useFrame();
  const client = useQueryClient();
  const [chosen, setChosen] = useState('everyone');
  const [added, setAdded] = useState<{ audience: AudienceWire; name: string; detail: string }[]>([]);
  const [picking, setPicking] = useState<'one' | 'several' | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
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
  const fresh = added.filter((a) => !lines.rows.some((r) => audienceParam(r.audience) === audienceParam(a.audience)));
  const rows = [...lines.rows, ...fresh.map(draftRow)];
  const everyone = lines.rows.find((r) => r.audience.kind === 'everyone');
  const everyoneRow = everyone ?? draftRow({ audience: { kind: 'everyone' }, name: '', detail: '' });
  const current = rows.find((r) => audienceParam(r.audience) === chosen) ?? everyoneRow;
  const owner = firstName(lines.owner.name);
  const nameOf = (row: SightlineRow) => (row.audience.kind === 'everyone' ? t('everyoneInside') : row.who.name);
  const saved = async (text: string) => {
    toast({ text });
    await client.invalidateQueries({ queryKey: ['calendar', calendar] });
  };
  const suspend = async (suspended: boolean) => {
    setRefused(null);
    try {
      await call('suspendSharing', { params: { calendar }, body: { suspended } });
      await saved(suspended ? t('suspendedDone') : t('resumed'));
    } catch (error) {
      setRefused(said(error, te('unreachable')).sentence);
    }
  };
  return (
    <div className="sightlines">
      <header>
        <h1>{lines.own ? t('titleMine') : t('title', { name: lines.owner.name })}</h1>
        <span className="soft">
          {t('summary', { people: lines.rows.filter((r) => r.audience.kind !== 'everyone').length })}
        </span>
        <div className="push">
          {picking === 'one' ? (
            <Picker
              lines={lines}
              onPick={(audience, name, detail) => {
                setAdded((list) => [...list, { audience, name, detail }]);
                setChosen(audienceParam(audience));
                setPicking(null);
              }}
              onClose={() => setPicking(null)}
            />
          ) : (
            <>
              {lines.own && (
                <Button variant="outlined" onClick={() => void suspend(!lines.suspended)}>
                  {lines.suspended ? t('resume') : t('suspend')}
                </Button>
              )}
              <Button
                variant="outlined"
                aria-pressed={picking === 'several'}
                onClick={() => setPicking(picking ? null : 'several')}
              >
                {t('several')}
              </Button>
              <Button
                variant="contained"
                color="inherit"
                sx={{ bgcolor: 'var(--who)', color: 'var(--paper)' }}
                onClick={() => setPicking('one')}
              >
                {t('give')}
              </Button>
            </>
          )}
        </div>
      </header>
      <div className="col who-list">
        {refused && <Alert severity="error">{refused}</Alert>}
        {lines.suspended && (
          <Alert severity="warning" role="status">
            {t('suspended', { owner })}
          </Alert>
        )}
        <Findings
          calendar={calendar}
          onMended={async (text, undo) => {
            toast({
              text,
              ...(undo
                ? {
                    undo: () =>
                      void undo().finally(() => client.invalidateQueries({ queryKey: ['calendar', calendar] })),
                  }
                : {}),
            });
            await client.invalidateQueries({ queryKey: ['calendar', calendar] });
          }}
        />
        {picking === 'several' && (
          <Several calendar={calendar} lines={lines} onDone={saved} onClose={() => setPicking(null)} />
        )}
        <Groups
          rows={rows}
          everyone={everyoneRow}
          current={current}
          own={lines.own}
          owner={owner}
          onChoose={(row) => setChosen(audienceParam(row.audience))}
        />
      </div>
      <Editor
        key={audienceParam(current.audience)}
        calendar={calendar}
        row={current}
        lines={lines}
        everyone={everyone}
        name={nameOf(current)}
        onSaved={saved}
        onGone={() => {
          setAdded((list) => list.filter((a) => audienceParam(a.audience) !== audienceParam(current.audience)));
          setChosen('everyone');
        }}
      />
    </div>
  );
}

/** A row for somebody who has no grant yet. */
function draftRow(a: { audience: AudienceWire; name: string; detail: string }): SightlineRow {
  return { audience: a.audience, who: { name: a.name, detail: a.detail }, effective: NOTHING, cutBy: [], grants: [] };
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
  const live = (r: SightlineRow) => r.grants.filter((g) => g.state !== 'ended');
  const acts = (r: SightlineRow) =>
    live(r).some(({ rights: g }) => g.add || g.change !== 'none' || g.suggest || g.speaks);
  const ended = (r: SightlineRow) => r.grants.length > 0 && live(r).length === 0;
  const out = (r: SightlineRow) => live(r).length > 0 && live(r).every((g) => g.rights.sight === 'nothing');
  const sections: [string, SightlineRow[]][] = [
    [t('lines.everyone'), [everyone]],
    [own ? t('lines.acting') : t('lines.actingFor', { name: owner }), named.filter((r) => acts(r))],
    [t('lines.more'), named.filter((r) => !acts(r) && !out(r) && !ended(r))],
    [t('lines.out'), named.filter((r) => out(r))],
    [t('lines.endedHead'), named.filter((r) => ended(r))],
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
                  key={audienceParam(row.audience)}
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
  const grant =
    row.grants.find((g) => g.state === 'now') ?? row.grants.find((g) => g.state === 'toCome') ?? row.grants[0];
  const out = grant !== undefined && grant.rights.sight === 'nothing' && row.audience.kind !== 'everyone';
  const day = (instant: string | null, back = 0) =>
    instant ? dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back)) : '';
  const level = grant
    ? grant.preset
      ? t(`presets.${grant.preset as 'full'}`)
      : `${t(`sights.${grant.rights.sight}`)}, ${t(`reaches.${reachOf(grant.rights)}`).toLowerCase()}`
    : '';
  const dates = grant
    ? grant.state === 'ended'
      ? t('lines.ended', { date: day(grant.until, 1) })
      : [
          grant.state === 'toCome' ? t('lines.toCome', { date: day(grant.from) }) : null,
          grant.until
            ? t('lines.ends', { date: day(grant.until, 1) })
            : grant.state === 'now'
              ? t('lines.since', { date: day(grant.since) })
              : null,
        ]
          .filter(Boolean)
          .join(', ')
    : '';
  const sub =
    row.audience.kind === 'everyone'
      ? t('lines.everyoneDetail')
      : !grant
        ? t('lines.unsaved')
        : out && grant.state === 'now'
          ? t('lines.outDetail', { sight: t(`sightWords.${everyone.effective.sight}`) })
          : [
              level,
              grant.rights.private ? t('extras.private').toLowerCase() : null,
              row.audience.kind === 'group' ? t('lines.groupOf', { count: Number(row.who.detail) }) : null,
              dates,
              grant.told || row.audience.kind === 'group' ? null : t('lines.notTold'),
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
      getOptionKey={(o) => audienceParam(o.audience)}
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
