'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { PreviewAnswer, SightlineRow, SightlinesAnswer } from '@/contract/access.ts';
import { call } from '@/contract/call.ts';
import type { RightsWire } from '@/contract/sight.ts';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { dateText, parseInstant, toWall, weekStart } from '@/core/time/index.ts';
import { type Reach, reachOf } from '../common/meters.tsx';
import { said } from '../common/refusal.ts';
import { DAY, fullDay } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { useFrame } from '../frame/frame-context.tsx';
import { useSentence } from './sentence.tsx';
import { TheirView } from './their-view.tsx';

export const NOTHING: RightsWire = {
  sight: 'nothing',
  add: false,
  change: 'none',
  remove: 'none',
  suggest: false,
  private: false,
  speaks: false,
  copies: false,
  shares: false,
};
const EXTRAS = ['suggest', 'private', 'speaks', 'copies', 'shares'] as const;
const REACHES: Record<Exclude<Reach, 'words'>, Pick<RightsWire, 'add' | 'change' | 'remove'>> = {
  look: { add: false, change: 'none', remove: 'none' },
  add: { add: true, change: 'own', remove: 'own' },
  arrange: { add: true, change: 'all', remove: 'all' },
};

/** What one audience gets, and beside it their view of the week as chosen and as before. */
export function Editor(props: {
  calendar: string;
  row: SightlineRow;
  lines: SightlinesAnswer;
  everyone: SightlineRow;
  name: string;
  onSaved: (text: string) => Promise<void>;
  onTaken: (text: string) => Promise<void>;
}) {
  const { calendar, row, lines, everyone, name, onSaved, onTaken } = props;
  const t = useTranslations();
  const { style, now } = useFrame();
  // Somebody new starts no higher than what everyone gets.
  const start = row.key === '' ? { ...NOTHING, sight: everyone.key ? everyone.rights.sight : 'nothing' } : row.rights;
  // What is chosen and not saved; it stays when the row changes under it.
  const [chosen, setChosen] = useState<RightsWire | null>(null);
  const rights = chosen ?? start;
  const [taking, setTaking] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [fields, setFields] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const [week, setWeek] = useState(() => weekStart(toWall(style.zone, now()), style.weekFirst));
  const sentence = useSentence();
  const owner = firstName(lines.owner.name);
  const everyoneRow = row.audience.kind === 'everyone';
  const dirty = row.key === '' || JSON.stringify(rights) !== JSON.stringify(row.rights);
  const range = { from: dateText(week), to: dateText(week + 7 * DAY), zone: style.zone };
  const preview = useQuery({
    queryKey: ['calendar', calendar, 'preview', row.audience, taking ? null : rights, range],
    queryFn: () =>
      call('previewAccess', {
        params: { calendar },
        body: { audience: row.audience, rights: taking ? null : rights, range },
      }) as Promise<PreviewAnswer>,
    placeholderData: keepPreviousData,
  });
  const answer = preview.data;
  const barredFor = (right: string, value: string) =>
    answer?.barred.find((b) => b.right === right && b.value === value)?.reason ?? null;
  const why = (reason: string | null) => (reason ? t(`lines.barred.${reason as 'giverHoldsLess'}`) : undefined);

  // Choosing a sight that something chosen before doesn't fit lowers that with it, the way the server's fit answered.
  const choose = (next: RightsWire) => {
    setRefused(null);
    setFields({});
    setTaking(false);
    setChosen(next);
  };
  const setSight = (sight: RightsWire['sight']) => {
    if (sight === 'nothing') choose({ ...NOTHING });
    else if (sight !== 'full') {
      const lower = (scope: RightsWire['change']) => (scope === 'all' ? 'own' : scope);
      choose({
        ...rights,
        sight,
        change: lower(rights.change),
        remove: lower(rights.remove),
        private: false,
        speaks: false,
        copies: false,
        shares: false,
      });
    } else choose({ ...rights, sight });
  };
  const setReach = (reach: Exclude<Reach, 'words'>) => {
    const next = { ...rights, ...REACHES[reach] };
    choose({
      ...next,
      sight: reach === 'arrange' ? 'full' : next.sight === 'nothing' && reach !== 'look' ? 'busy' : next.sight,
      suggest: next.add ? false : next.suggest,
      speaks: next.add && next.speaks,
      shares: reach === 'arrange' && next.shares,
    });
  };
  const setExtra = (extra: (typeof EXTRAS)[number], on: boolean) => choose({ ...rights, [extra]: on });

  const save = async () => {
    setBusy(true);
    setRefused(null);
    try {
      await call('giveAccess', {
        params: { calendar },
        body: { audience: row.audience, rights, seen: row.key || null },
      });
      const what = presetName(rights);
      await onSaved(everyoneRow ? t('lines.savedEveryone', { what }) : t('lines.saved', { name, what }));
      setChosen((now) => (now === chosen ? null : now));
    } catch (error) {
      const s = said(error, t('common.unreachable'));
      setRefused(s.code === 'changedMeanwhile' ? t('lines.stale') : s.sentence);
      setFields(s.fields);
    } finally {
      setBusy(false);
    }
  };
  const take = async () => {
    setBusy(true);
    try {
      await call('takeAccess', { params: { calendar }, body: { audience: row.audience, seen: row.key } });
      await onTaken(t('lines.taken', { name }));
    } catch (error) {
      setRefused(said(error, t('common.unreachable')).sentence);
    } finally {
      setBusy(false);
    }
  };
  const presetName = (r: RightsWire): string => {
    const preset = lines.presets.find(
      (p) => JSON.stringify({ ...p.rights, private: r.private, copies: r.copies }) === JSON.stringify(r),
    );
    return preset
      ? t(`presets.${preset.name as 'full'}`)
      : `${t(`sights.${r.sight}`)}, ${t(`reaches.${reachOf(r)}`).toLowerCase()}`;
  };
  const words = sentence(
    answer && !preview.isPlaceholderData && row.cutBy.length > 0 ? answer.effective : rights,
    owner,
  );
  const acting = ['helper', 'booker', 'arranger', 'delegate', 'steward'] as const;
  const reach = reachOf(rights);
  const who = everyoneRow ? name : firstName(name);
  return (
    <>
      <div className="col">
        <div className="editor">
          <div>
            <h2>{name}</h2>
            <p className="small soft">
              {[
                row.audience.kind === 'group' ? t('lines.groupOf', { count: Number(row.who.detail) }) : row.who.detail,
                row.since
                  ? t('lines.since', { date: fullDay(toWall(style.zone, parseInstant(row.since) ?? 0)) })
                  : null,
                row.given.actor && row.given.actor !== row.given.principal ? t('lines.givenFor', row.given) : null,
              ]
                .filter(Boolean)
                .join(' · ')}
            </p>
          </div>
          <div className="card" aria-live="polite">
            <p>
              <b>{who}</b> {words.does} <span className="soft">{words.cannot}</span>
            </p>
            {row.cutBy.length > 0 && <p className="wrong small">{t('lines.cutBy', { rules: row.cutBy.join(', ') })}</p>}
          </div>
          {refused && <Alert severity="error">{refused}</Alert>}
          {!everyoneRow && (
            <>
              <h3 id="as-whole">{t('lines.asWhole')}</h3>
              <ToggleButtonGroup
                exclusive
                className="seg reach"
                aria-labelledby="as-whole"
                value={
                  lines.presets.find(
                    (p) =>
                      JSON.stringify({ ...p.rights, private: rights.private, copies: rights.copies }) ===
                      JSON.stringify(rights),
                  )?.name ?? null
                }
                onChange={(_, preset: string | null) => {
                  const found = lines.presets.find((p) => p.name === preset);
                  if (found) choose({ ...found.rights, private: false, copies: false });
                }}
              >
                {acting.map((preset) => (
                  <ToggleButton key={preset} value={preset}>
                    {t(`presets.${preset}`)}
                    <small>{t(`presetHelp.${preset}`)}</small>
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
            </>
          )}
          <h3 id="sees">{t('lines.seesHead')}</h3>
          <ToggleButtonGroup
            exclusive
            className="seg sight"
            aria-labelledby="sees"
            value={rights.sight}
            onChange={(_, s: RightsWire['sight'] | null) => s && setSight(s)}
          >
            {SIGHTS.map((s) => (
              <ToggleButton
                key={s}
                value={s}
                disabled={barredFor('sight', s) !== null}
                title={why(barredFor('sight', s))}
              >
                {!everyoneRow && s === 'nothing' ? t('presets.shutOut') : t(`sights.${s}`)}
                <small>{t(`sightHelp.${s}`)}</small>
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <FieldWrong text={fields.sight} />
          <BarredWhy answer={answer} />
          <h3 id="may-do">{t('lines.mayHead')}</h3>
          <ToggleButtonGroup
            exclusive
            className="seg reach"
            aria-labelledby="may-do"
            value={reach}
            onChange={(_, r: Reach | null) => {
              if (r && r !== 'words') setReach(r);
              else if (r === 'words')
                choose({
                  ...rights,
                  sight: rights.sight === 'nothing' ? 'busy' : rights.sight,
                  add: true,
                  change: 'own',
                  remove: 'none',
                });
            }}
          >
            {(['look', 'add', 'arrange', 'words'] as const).map((r) => (
              <ToggleButton
                key={r}
                value={r}
                disabled={r === 'arrange' && barredFor('change', 'all') !== null}
                title={r === 'arrange' ? why(barredFor('change', 'all')) : undefined}
              >
                {t(`reaches.${r}`)}
                <small>{t(`reachHelp.${r}`)}</small>
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          {reach === 'words' && (
            <div className="row">
              <FormControlLabel
                label={t('lines.addRight')}
                control={
                  <Switch
                    size="small"
                    checked={rights.add}
                    onChange={(e) =>
                      choose({ ...rights, add: e.target.checked, speaks: e.target.checked && rights.speaks })
                    }
                  />
                }
              />
              {(['change', 'remove'] as const).map((right) => (
                <TextField
                  key={right}
                  select
                  label={right === 'change' ? t('lines.change') : t('lines.removeRight')}
                  value={rights[right]}
                  onChange={(e) => choose({ ...rights, [right]: e.target.value as RightsWire['change'] })}
                >
                  {SCOPES.filter((s) => s !== 'all' || rights.sight === 'full').map((s) => (
                    <MenuItem key={s} value={s}>
                      {t(`scopes.${s}`)}
                    </MenuItem>
                  ))}
                </TextField>
              ))}
            </div>
          )}
          <FieldWrong text={fields.change ?? fields.remove ?? fields.add} />
          {!everyoneRow && (
            <div className="extras">
              {EXTRAS.map((extra) => {
                const reason = barredFor(extra, 'true');
                const misfit = needs(rights, extra);
                return (
                  <FormControlLabel
                    key={extra}
                    className="extra"
                    disabled={!rights[extra] && (reason !== null || misfit !== null)}
                    control={
                      <Switch
                        size="small"
                        checked={rights[extra]}
                        onChange={(e) => setExtra(extra, e.target.checked)}
                      />
                    }
                    label={
                      <>
                        {t(`extras.${extra}`)}
                        <small>
                          {fields[extra] ??
                            why(reason) ??
                            (misfit && !rights[extra] ? t(`lines.misfit.${misfit}`) : t(`extrasHelp.${extra}`))}
                        </small>
                      </>
                    }
                  />
                );
              })}
            </div>
          )}
          {taking && answer ? (
            <div className="card wrong-card" role="alert">
              <h3>{t('lines.takeTitle', { name: who })}</h3>
              <p>
                {t('lines.takeThen', {
                  name: who,
                  sight: t(`sightWords.${answer.without.sight}`),
                  step: answer.withoutStep,
                })}
              </p>
              <p className="small soft">{t('lines.shutOutInstead')}</p>
              <div className="row" style={{ marginTop: 8 }}>
                <Button variant="contained" color="error" loading={busy} onClick={take}>
                  {t('lines.takeDo')}
                </Button>
                <Button variant="outlined" onClick={() => setTaking(false)}>
                  {t('lines.leave')}
                </Button>
              </div>
            </div>
          ) : (
            <div className="row" style={{ marginTop: 6 }}>
              <Button
                variant="contained"
                color="inherit"
                disabled={!dirty}
                loading={busy}
                onClick={save}
                sx={dirty ? { bgcolor: 'var(--who)', color: 'var(--paper)' } : {}}
              >
                {everyoneRow ? t('lines.saveEveryone') : t('lines.save', { name: who })}
              </Button>
              {dirty && row.key !== '' && (
                <Button variant="outlined" onClick={() => setChosen(null)}>
                  {t('lines.leave')}
                </Button>
              )}
              {dirty && <span className="small wrong">{t('lines.unsaved')}</span>}
              {row.key !== '' && !everyoneRow && (
                <Button
                  variant="text"
                  color="error"
                  sx={{ ml: 'auto', color: 'var(--clay)' }}
                  onClick={() => setTaking(true)}
                >
                  {t('lines.take')}
                </Button>
              )}
            </div>
          )}
        </div>
      </div>
      <TheirView
        calendar={calendar}
        name={everyoneRow ? null : who}
        own={lines.own}
        answer={answer}
        failed={preview.isError}
        dirty={dirty || taking}
        week={week}
        onWeek={setWeek}
      />
    </>
  );
}

function FieldWrong({ text }: { text: string | undefined }) {
  return text ? <p className="small wrong">{text}</p> : null;
}

/** What a house rule keeps from being chosen, said in words where it bites. */
function BarredWhy({ answer }: { answer: PreviewAnswer | undefined }) {
  const t = useTranslations('lines.barred');
  const reasons = [...new Set((answer?.barred ?? []).map((b) => b.reason))];
  return reasons.map((reason) => (
    <p key={reason} className="small soft">
      {t(reason as 'giverHoldsLess')}
    </p>
  ));
}

/** What would have to be chosen before an extra can be; `null` where nothing. */
function needs(
  rights: RightsWire,
  extra: (typeof EXTRAS)[number],
): 'sight' | 'fullSight' | 'add' | 'arrangeAll' | null {
  if (rights.sight === 'nothing') return 'sight';
  if (extra !== 'suggest' && extra !== 'shares' && rights.sight !== 'full') return 'fullSight';
  if (extra === 'speaks' && !rights.add) return 'add';
  if (extra === 'shares' && (rights.change !== 'all' || rights.remove !== 'all')) return 'arrangeAll';
  return null;
}
