'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useRouter, useSearchParams } from 'next/navigation';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { DeskRowWire } from '@/contract/desk.ts';
import { useDesks } from '../common/fetched/desks.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { useStable } from '../common/stable.ts';
import { firstName } from '../common/token.tsx';
import { WhereNow } from '../common/where-now.tsx';
import deskCss from './desk.module.css';
import { useDeskKeys } from './desk-keys.ts';
import { DeskPanel } from './desk-panel.tsx';
import { DeskRow } from './desk-row.tsx';
import { type Taken, useDeskSteps } from './desk-steps.ts';
import { shortAt, useDeskWords } from './desk-words.ts';
import { Empty } from './empty.tsx';
import { KeysPanel } from './keys-panel.tsx';
import { PassOn, PutOff } from './put-off.tsx';
import { useGone, useSayOpen } from './row-presence.ts';
import { NOTHING_GIVEN, stepToSend } from './step-to-send.ts';
import { useOpenings } from './use-openings.ts';
import { Weights } from './weights.tsx';
import { whereOf } from './where.ts';

const PARTS = ['now', 'soon', 'time'] as const;
/** Wide enough for the panel to stand beside the list. */
const isWide = (): boolean => window.innerWidth > 760;
type Panel = 'row' | 'later' | 'pass' | 'keys' | 'weights' | null;

/** What needs deciding: one list over everybody one acts for, or over one of them, the most pressing first, each row decided with a key. */
export function DeskScreen({ who }: { who: string }) {
  const t = useTranslations('desk');
  const tc = useTranslations('common');
  const tb = useTranslations('board');
  const td = useTranslations('days');
  const { frame, style } = useFrame();
  const router = useRouter();
  const search = useSearchParams();
  const mine = frame.me.handle;
  const only = who !== mine ? who : search.get('only') === mine ? mine : null;
  const handles = frame.principals.map(({ handle }) => handle).filter((handle) => only === null || handle === only);
  const desks = useDesks(handles, true);
  const kind = search.get('kind');
  const rows = desks.rows.filter((row) => kind === null || row.kind === kind);
  const { words, actName } = useDeskWords();
  const steps = useDeskSteps();
  const [selectedKey, setSelectedKey] = useState<string | null>(null);
  const [stepAt, setStepAt] = useState(1);
  const [typing, setTyping] = useState(false);
  const [given, setGiven] = useState(NOTHING_GIVEN);
  const [picked, setPicked] = useState<readonly string[]>([]);
  const [panel, setPanel] = useState<Panel>(null);
  const at = rows.findIndex(({ key }) => key === selectedKey);
  const was = useRef(0);
  if (at >= 0) was.current = at;
  // A row that went leaves the next in its place.
  const selected = rows[at >= 0 ? at : Math.min(was.current, rows.length - 1)];
  const goneBy = useGone(selectedKey, selectedKey !== null && at < 0 && !desks.pending);
  const openings = useOpenings(selected);
  const moveTo = openings.starts[0] ? shortAt(openings.starts[0], style) : null;
  const principal = desks.principals.find(({ handle }) => handle === selected?.for);
  const goal = selected && principal ? whereOf(selected, principal.calendar, style.zone) : '';
  useSayOpen(selected, panel !== null && panel !== 'weights');

  // The same for each row as long as the screen lives, so that a key draws the rows it concerns and no others.
  const select = useStable((key: string, open = true) => {
    setSelectedKey(key);
    setStepAt(1);
    setTyping(false);
    setGiven(NOTHING_GIVEN);
    steps.clear();
    if (open) setPanel('row');
  });
  const move = (by: -1 | 1) => {
    const next = rows[Math.max(0, Math.min(rows.length - 1, (at >= 0 ? at : was.current) + (selectedKey ? by : 0)))];
    if (!next) return;
    select(next.key, isWide());
    document.getElementById(`row-${next.key}`)?.scrollIntoView({ block: 'nearest' });
  };

  /** The rows a step is taken for: those picked, where they are of one kind, or the one. */
  const meant = (row: DeskRowWire): readonly DeskRowWire[] => {
    const all = rows.filter(({ key, kind: of }) => picked.includes(key) && of === row.kind);
    return picked.includes(row.key) && all.length > 1 ? all : [row];
  };
  const take = async (row: DeskRowWire, list: readonly Taken[], says: string) => {
    if (!(await steps.take(list, says))) return;
    was.current = rows.findIndex(({ key }) => key === row.key);
    setPicked([]);
    setStepAt(1);
    setGiven(NOTHING_GIVEN);
    setPanel((now) => (now === 'weights' ? now : isWide() ? 'row' : null));
  };
  const say = (row: DeskRowWire, step: Taken['step'], says: string) =>
    void take(
      row,
      meant(row).map((one) => ({ row: one, step })),
      says,
    );
  /** Takes a step by its number; what needs more than the press is looked at in the panel, and what has its own screen opens there. */
  const run = useStable((key: string, n: number) => {
    const row = rows.find((one) => one.key === key);
    const act = row?.steps.find((one) => one.n === n)?.act;
    const whose = desks.principals.find(({ handle }) => handle === row?.for);
    if (!row || !act || !whose) return;
    // What was typed for the open row goes with all that are picked with it; a choice among times is that row's alone.
    const typed =
      row.key === selected?.key ? { ...NOTHING_GIVEN, words: given.words, text: given.text } : NOTHING_GIVEN;
    const list = meant(row).flatMap((one): Taken[] => {
      const open = one.key === selected?.key;
      const has = one.steps.some((step) => step.act === act);
      const step = has ? stepToSend(one, act, open ? given : typed, open ? openings.starts : [], style) : null;
      return step ? [{ row: one, step }] : [];
    });
    if (list.some((one) => one.row === row)) {
      const name = act === 'another' ? t('acts.move') : actName(act, row);
      void take(row, list, act === 'left' ? t('done.left') : t('done.other', { act: name }));
    } else if ((act === 'another' && !(row === selected && openings.none)) || act === 'place' || act === 'link') {
      if (row !== selected) select(row.key);
      setSelectedKey(row.key);
      setPanel('row');
      setStepAt(n);
      setTyping(true);
    } else router.push(whereOf(row, whose.calendar, style.zone));
  });
  useDeskKeys({
    move,
    step: (n) => selected && run(selected.key, n),
    later: () => selected && setPanel('later'),
    pass: () => principal && principal.acts.length > 0 && setPanel('pass'),
    undo: steps.undo,
    open: () => goal && router.push(goal),
    pick: () => {
      if (!selected) return;
      setSelectedKey(selected.key);
      setPicked((now) =>
        now.includes(selected.key)
          ? now.filter((key) => key !== selected.key)
          : [...now.filter((key) => rows.some((row) => row.key === key && row.kind === selected.kind)), selected.key],
      );
    },
    // All of one kind for one person: what is answered at once is never in two names.
    pickAll: () => {
      if (!selected) return;
      setSelectedKey(selected.key);
      setPicked(rows.filter((row) => row.kind === selected.kind && row.for === selected.for).map(({ key }) => key));
    },
    help: () => setPanel((now) => (now === 'keys' ? 'row' : 'keys')),
    close: () => {
      setPanel(null);
      setPicked([]);
    },
  });
  const filter = (more: string) => {
    const next = new URLSearchParams(search);
    if (more) next.set('kind', more);
    else next.delete('kind');
    window.history.replaceState(null, '', `?${next}`);
  };
  const kindsHere = [...new Set(desks.rows.map((row) => row.kind))];
  const weighted = only !== null || handles.length === 1 ? desks.principals[0] : undefined;
  const today = rows.filter((row) => row.part === 'now').length;
  // Of several, the one of whom something begins first.
  const soonest = desks.principals
    .filter((p) => p.next !== null && (p.handle !== mine || handles.length === 1))
    .sort((a, b) => (a.next?.start ?? '').localeCompare(b.next?.start ?? ''))[0]?.handle;
  const colours = new Map(desks.principals.map((p) => [p.handle, p]));
  const shown = panel === 'row' || panel === null ? (selected ? 'row' : null) : panel;
  return (
    <div className={deskCss.desk}>
      <header className={deskCss.head}>
        <h1>
          {desks.pending && rows.length === 0
            ? tc('loading')
            : only !== null && only !== mine
              ? t('titleOf', { count: rows.length, name: firstName(desks.principals[0]?.name ?? '') })
              : t('title', { count: rows.length })}
        </h1>
        <span className="soft">{rows.length > 0 && t('today', { count: today })}</span>
        {soonest && <WhereNow handle={soonest} />}
        <div className={deskCss.push}>
          {(['morning', 'evening'] as const).map((part) => (
            <Link key={part} href={`/for/${only ?? mine}/day?of=${part}`}>
              {td(`${part}.title`)}
            </Link>
          ))}
          {desks.later > 0 && <span>{t('later', { count: desks.later })}</span>}
          {kindsHere.length > 1 && (
            <TextField
              select
              size="small"
              label={t('kinds')}
              value={kind ?? ''}
              onChange={(event) => filter(event.target.value)}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              className="field-2"
            >
              <MenuItem value="">{t('allKinds')}</MenuItem>
              {kindsHere.map((one) => (
                <MenuItem key={one} value={one}>
                  {t(`kindNames.${one}`)}
                </MenuItem>
              ))}
            </TextField>
          )}
          {weighted && (
            <Button variant="text" onClick={() => setPanel('weights')}>
              {t('weights.open')}
            </Button>
          )}
          <span className={weighted ? 'visually-hidden' : deskCss.hints}>
            <kbd>↑</kbd> <kbd>↓</kbd> {t('keys.move')} <kbd>1</kbd>–<kbd>4</kbd> {t('keys.do')}
          </span>
          <Button variant="text" onClick={() => setPanel('keys')}>
            <kbd>?</kbd>&nbsp;{t('keys.help')}
          </Button>
        </div>
      </header>
      <section className={deskCss.list} aria-label={t('list')}>
        {desks.failed && (
          <p role="alert" className="inset">
            {desks.failed.message || tc('unreachable')} <Button onClick={desks.again}>{tb('again')}</Button>
          </p>
        )}
        {desks.cut && <p className="inset">{t('cut')}</p>}
        {picked.length > 1 && (
          <p role="status" className="inset">
            {t('picked', { count: picked.length })}
          </p>
        )}
        {goneBy && goneBy.by !== frame.me.name && (
          <p role="status" className="wrong inset">
            {goneBy.by === null
              ? t('gone')
              : t('goneBy', {
                  name: goneBy.by,
                  act: t.has(`acts.${goneBy.act as 'yes'}`)
                    ? t(`acts.${goneBy.act as 'yes'}`, { when: '', cover: '' })
                    : t('panel.passOn'),
                })}
          </p>
        )}
        {PARTS.map((part) => {
          const list = rows.filter((row) => row.part === part);
          if (list.length === 0) return null;
          return (
            <div key={part}>
              <h2>{t(`parts.${part}`)}</h2>
              <ol>
                {list.map((row) => (
                  <DeskRow
                    key={row.key}
                    row={row}
                    whose={colours.get(row.for) ?? { name: '', colour: 0 }}
                    selected={row.key === selected?.key}
                    picked={picked.includes(row.key)}
                    moveTo={row.key === selected?.key ? moveTo : null}
                    busy={steps.busy}
                    onSelect={select}
                    onStep={run}
                  />
                ))}
              </ol>
            </div>
          );
        })}
        {!desks.pending && rows.length === 0 && !desks.failed && <Empty principals={desks.principals} />}
      </section>
      {shown === 'row' && selected && principal && (
        <DeskPanel
          key={`${selected.key} ${typing}`}
          given={given}
          openings={openings}
          onGiven={(more) => {
            // What is typed stays with its row, wherever that goes in the list.
            setSelectedKey(selected.key);
            setGiven((was) => ({ ...was, ...more }));
          }}
          row={selected}
          next={rows[rows.indexOf(selected) + 1]}
          principal={principal}
          twin={selected.twin ? colours.get(selected.twin.for) : undefined}
          step={stepAt}
          goal={goal}
          busy={steps.busy}
          refused={steps.refused}
          fields={steps.fields}
          typing={typing}
          quiet={panel === null}
          onStep={(n) => {
            setSelectedKey(selected.key);
            setStepAt(n);
            setGiven((was) => ({ ...was, choice: null }));
          }}
          onTake={(n) => run(selected.key, n)}
          onLater={() => setPanel('later')}
          onPass={() => setPanel('pass')}
          onClose={() => setPanel(null)}
        />
      )}
      {(shown === 'later' || shown === 'pass') && selected && principal && (
        <aside className={`${deskCss.panel} who-${principal.colour % 6}`} aria-label={t('panel.label')}>
          <div className={deskCss.for}>
            {principal.own ? t('panel.mine') : t('panel.for', { name: principal.name })}
          </div>
          <h2>{words(selected).title}</h2>
          {shown === 'later' ? (
            <PutOff
              row={selected}
              wrong={steps.fields.until ?? null}
              onGo={(until, says) => say(selected, { act: 'later', until }, says)}
              onClose={() => setPanel('row')}
            />
          ) : (
            <PassOn
              acts={principal.acts}
              wrong={steps.fields.to ?? null}
              onGo={({ handle, name }, line) =>
                say(selected, { act: 'passed', to: handle, line }, t('done.passed', { name }))
              }
              onClose={() => setPanel('row')}
            />
          )}
        </aside>
      )}
      {shown === 'weights' && weighted && <Weights principal={weighted} onClose={() => setPanel(null)} />}
      {shown === 'keys' && <KeysPanel onClose={() => setPanel('row')} />}
    </div>
  );
}
