'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Lane } from '@/contract/lanes.ts';
import boardsCss from '../../common/boards.module.css';
import { useActingWithToast } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { ColourDots } from '../../common/fields/colour-dots.tsx';
import { type Choice, choiceOption, fewChoices } from '../../common/fields/people-options.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { SightMeter } from '../../common/meters.tsx';
import lanesCss from '../views/lanes.module.css';

interface ToAdd extends Choice {
  readonly body: { people?: string[]; group?: string; calendars?: string[] };
}

/** The lanes one keeps: shown or not, under one's own name, in one's own colour and order; and the way to keep more. */
export function LanesPanel(props: { lanes: readonly Lane[]; board: string; onClose: () => void }) {
  const { lanes, board, onClose } = props;
  const t = useTranslations();
  const { attempt } = useActingWithToast();
  const tl = useTranslations('lanes');
  const { toast } = useFrame();
  const client = useQueryClient();
  const [opened, setOpened] = useState<string | null>(null);
  const act = async (work: () => Promise<unknown>) => {
    await attempt(async () => {
      await work();
    });
    await client.invalidateQueries({ queryKey: KEYS.lanes });
  };
  const change = (lane: Lane, body: { name?: string | null; colour?: number; shown?: boolean; looked?: true }) =>
    act(() => call('changeLane', { params: { lane: lane.key }, body }));
  const order = (lane: Lane, by: -1 | 1) => {
    const same = lanes.filter((one) => one.heading === lane.heading);
    const other = same[same.indexOf(lane) + by];
    if (!other) return;
    const keys = lanes.map((one) => one.key);
    const [a, b] = [keys.indexOf(lane.key), keys.indexOf(other.key)];
    keys[a] = other.key;
    keys[b] = lane.key;
    void act(() => call('orderLanes', { body: { lanes: keys } }));
  };
  /** One or all under a heading, and back in one press. */
  const drop = (list: readonly Lane[], text: string) =>
    act(async () => {
      for (const lane of list) await call('dropLane', { params: { lane: lane.key } });
      const again = {
        people: list.flatMap((lane) => (lane.of === null ? [lane.owner.handle] : [])),
        group: null,
        calendars: list.flatMap((lane) => (lane.of !== null && lane.calendar ? [lane.calendar] : [])),
      };
      toast({ text, undo: () => void act(() => call('saveLanes', { body: again })) });
    });
  return (
    <aside className={boardsCss.panel} aria-label={tl('title')}>
      <div className={boardsCss.for}>
        <span>{tl('title')}</span>
        <Button variant="text" onClick={onClose} className="low">
          {t('panel.close')}
        </Button>
      </div>
      <AddLanes
        onAdd={(body) => act(() => call('saveLanes', { body: { people: [], group: null, calendars: [], ...body } }))}
      />
      {(['run', 'look'] as const).map((heading) => {
        const list = lanes.filter((lane) => lane.heading === heading);
        if (list.length === 0) return null;
        const others = list.filter((lane) => !lane.own);
        return (
          <section key={heading}>
            <div className="row spread">
              <h3>{tl(heading)}</h3>
              {others.length > 1 && (
                <Button
                  variant="text"
                  className="tiny"
                  aria-label={tl('dropAllOf', { heading: tl(heading) })}
                  onClick={() => void drop(others, tl('droppedAll', { heading: tl(heading), count: others.length }))}
                >
                  {tl('dropAll')}
                </Button>
              )}
            </div>
            <ul className={lanesCss.list}>
              {list.map((lane, i) => (
                <li key={lane.key} className={`who-${lane.colour}`}>
                  <Checkbox
                    size="small"
                    // The board's own calendar is always on it.
                    checked={lane.shown || lane.calendar === board}
                    disabled={lane.calendar === board}
                    slotProps={{ input: { 'aria-label': tl('show', { name: nameOf(lane) }) } }}
                    onChange={(e) => void change(lane, { shown: e.target.checked })}
                    className="no-room"
                  />
                  <button
                    type="button"
                    className="plain row gap-4 may-shrink left"
                    aria-expanded={opened === lane.key}
                    onClick={() => {
                      setOpened(opened === lane.key ? null : lane.key);
                      if (lane.moved) void change(lane, { looked: true });
                    }}
                  >
                    <i className={lanesCss.dot} />
                    <span className="may-shrink">
                      <span className={`${lanesCss.name} block`}>{nameOf(lane)}</span>
                      {(lane.moved || lane.name) && (
                        <span className="small soft block">
                          {[lane.name ? ownName(lane) : null, lane.moved ? tl('moved') : null]
                            .filter(Boolean)
                            .join(' · ')}
                        </span>
                      )}
                    </span>
                  </button>
                  {lane.own ? <span /> : <SightMeter sight={lane.sight} />}
                  <span className="row gap-0">
                    <Button
                      variant="text"
                      disabled={i === 0}
                      aria-label={tl('up', { name: nameOf(lane) })}
                      onClick={() => order(lane, -1)}
                      className="tiny"
                    >
                      ↑
                    </Button>
                    <Button
                      variant="text"
                      disabled={i === list.length - 1}
                      aria-label={tl('down', { name: nameOf(lane) })}
                      onClick={() => order(lane, 1)}
                      className="tiny"
                    >
                      ↓
                    </Button>
                  </span>
                  {opened === lane.key && (
                    <LaneMore
                      lane={lane}
                      onChange={(body) => void change(lane, body)}
                      onDrop={() => void drop([lane], tl('dropped', { name: nameOf(lane) }))}
                    />
                  )}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <p className="small soft">{tl('help')}</p>
    </aside>
  );
}

const ownName = (lane: Lane): string => (lane.of === null ? lane.owner.name : `${lane.owner.name}, ${lane.of}`);
const nameOf = (lane: Lane): string => lane.name ?? ownName(lane);

function LaneMore(props: {
  lane: Lane;
  onChange: (body: { name?: string | null; colour?: number }) => void;
  onDrop: () => void;
}) {
  const { lane, onChange, onDrop } = props;
  const t = useTranslations('lanes');
  const ts = useTranslations();
  const [name, setName] = useState(lane.name ?? '');
  return (
    <div className={lanesCss.more}>
      <span className="small soft">{t('sees', { name: lane.owner.name, sight: ts(`sightWords.${lane.sight}`) })}</span>
      <TextField
        label={t('name')}
        value={name}
        placeholder={ownName(lane)}
        onChange={(e) => setName(e.target.value)}
        onBlur={() => name.trim() !== (lane.name ?? '') && onChange({ name: name.trim() || null })}
        onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLElement).blur()}
        slotProps={{ htmlInput: { maxLength: 80 }, inputLabel: { shrink: true } }}
      />
      <ColourDots label={t('colour')} value={lane.colour} onChange={(colour) => onChange({ colour })} />
      <Button variant="outlined" onClick={onDrop}>
        {t('drop')}
      </Button>
    </div>
  );
}

/** People, groups and further calendars to keep, by a few letters of their names. */
function AddLanes({ onAdd }: { onAdd: (body: ToAdd['body']) => Promise<void> }) {
  const t = useTranslations('lanes');
  const tm = useTranslations('meetings');
  const [typed, setTyped] = useState('');
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const groups = useQuery({
    queryKey: KEYS.groups,
    queryFn: () => call('listGroups', {}),
    staleTime: 60_000,
    retry: false,
  });
  const choices: ToAdd[] = [
    ...(directory.data?.people ?? []).flatMap((p): ToAdd[] => [
      {
        key: p.address,
        name: p.name,
        about: [p.role, p.site].filter(Boolean).join(' · '),
        body: { people: [p.handle] },
      },
      ...p.further.map((f) => ({ key: f.key, name: `${p.name}, ${f.name}`, about: '', body: { calendars: [f.key] } })),
    ]),
    ...(groups.data?.groups ?? []).map((g) => ({
      key: g.key,
      name: t('allOf', { name: g.name }),
      about: tm('group', { count: g.people }),
      body: { group: g.key },
    })),
  ];
  return (
    <Autocomplete<ToAdd>
      options={choices}
      value={null}
      inputValue={typed}
      onInputChange={(_, text, reason) => reason !== 'reset' && setTyped(text)}
      onChange={(_, choice) => {
        setTyped('');
        if (choice) void onAdd(choice.body);
      }}
      getOptionLabel={(o) => o.name}
      isOptionEqualToValue={(a, b) => a.key === b.key}
      filterOptions={fewChoices}
      noOptionsText={typed.trim() === '' ? t('keepHint') : t('nobody')}
      renderOption={choiceOption}
      renderInput={(params) => (
        <TextField
          {...params}
          label={t('keep')}
          placeholder={t('keepHint')}
          slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
        />
      )}
    />
  );
}
