'use client';
import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { AbsencesAnswer, AbsenceWire, CoverBody, NewAbsence } from '@/contract/absences.ts';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import type { PersonWire } from '@/contract/people/people.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { DateField } from '../../common/fields/date-field.tsx';
import { fewPeople, personOption } from '../../common/fields/people-options.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { language } from '../../common/language.ts';
import pageCss from '../../common/page.module.css';
import { DAY, fullDay } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { PanelHead } from '../details/panel-head.tsx';
import absencesCss from './absence-panel.module.css';

const day = (date: string): string => fullDay(parseDate(date) ?? 0);

/** Its days in words. */
const daysOf = ({ from, until }: { from: string; until: string }) => ({
  from: day(from),
  until: day(until),
  one: String(from === until),
});

/** The days on which somebody is away, what their mail is answered with meanwhile, and who covers. */
export function AbsencePanel({ head, onClose }: { head: BoardHead; onClose: () => void }) {
  const t = useTranslations('absences');
  const { toast } = useFrame();
  const client = useQueryClient();
  const queryKey = KEYS.calendar(head.calendar.key, 'absences');
  const person = head.owner.handle;
  const query = useQuery({ queryKey, queryFn: () => call('listAbsences', { params: { person } }), retry: false });
  /** `undefined`: nothing was chosen yet, and something new is begun where there is none. */
  const [editing, setEditing] = useState<AbsenceWire | 'new' | null>();
  const { attempt, busy, refused } = useActing();
  const { data } = query;
  const name = firstName(head.owner.name);
  const own = String(head.own);
  const put = (answer: AbsencesAnswer) => client.setQueryData(queryKey, answer);
  const may = data?.may.set === true;
  const isEmpty = data?.absences.length === 0;
  const form = data && may && (editing === undefined ? (isEmpty ? 'new' : null) : editing);
  const remove = async ({ key, from, until, inside, outside, cover, declines }: AbsenceWire) => {
    if (!(await attempt(async () => put(await call('removeAbsence', { params: { absence: key } }))))) return;
    const body = {
      from,
      until,
      inside,
      outside: outside ?? '',
      cover: cover?.handle ?? null,
      declines: declines === true,
    };
    const back = () => void attempt(async () => put(await call('addAbsence', { params: { person }, body })));
    toast({ text: t('removed'), undo: back });
  };
  const give = (one: AbsenceWire, further: CoverBody['further']) =>
    attempt(async () => {
      put(await call('giveCover', { params: { absence: one.key }, body: { further } }));
      const cover = firstName(one.cover?.name ?? '');
      toast({ text: one.covered ? t('gaveFurther', { cover }) : t('given', { cover, own, name }) });
    });
  return (
    <aside className={boardsCss.panel} aria-label={t('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('title')}</h2>
      <p className="small soft">{data && !may ? t('may', { name }) : t('help', { own, name })}</p>
      <QueryState query={query} />
      {refused && <Alert severity="error">{refused}</Alert>}
      {data && data.absences.length === 0 && !may && <p>{t('none', { own, name })}</p>}
      {data?.absences.map((one) =>
        form === one ? null : (
          <OneAbsence
            key={one.key}
            one={one}
            may={data.may}
            name={name}
            busy={busy}
            onChange={() => setEditing(one)}
            onRemove={() => void remove(one)}
            onGive={(further) => void give(one, further)}
          />
        ),
      )}
      {form && (
        <AbsenceForm
          key={form === 'new' ? 'new' : form.key}
          head={head}
          was={form === 'new' ? null : form}
          zone={data.owner.zone}
          onBehind={put}
          onTyped={() => setEditing(form)}
          onClose={isEmpty ? null : () => setEditing(null)}
          onSaved={(answer, body) => {
            put(answer);
            setEditing(null);
            toast({ text: t('saved', daysOf(body)) });
          }}
        />
      )}
      {may && !form && (
        <Button variant="outlined" onClick={() => setEditing('new')} className="own-width">
          {t('add')}
        </Button>
      )}
    </aside>
  );
}

function OneAbsence(props: {
  one: AbsenceWire;
  may: AbsencesAnswer['may'];
  name: string;
  busy: boolean;
  onChange: () => void;
  onRemove: () => void;
  onGive: (further: CoverBody['further']) => void;
}) {
  const { one, may, name, busy } = props;
  const t = useTranslations('absences');
  const said = one.inside || one.outside;
  const cover = one.cover?.name ?? '';
  const [further, setFurther] = useState<ReadonlySet<string>>(new Set());
  // What has been given meanwhile is no longer to be given.
  const open = one.further.filter((of) => !of.covered);
  const chosen = open.map(({ what }) => what).filter((what) => further.has(what));
  // A list or a folder may be given by who may not give the calendar, once that has been given.
  const gives = one.cover !== null && (may.cover || one.covered);
  const choose = (what: string, on: boolean) => {
    const next = new Set(further);
    if (on) next.add(what);
    else next.delete(what);
    setFurther(next);
  };
  return (
    <section className={pageCss.card} aria-label={t('days', daysOf(one))}>
      <b>
        {t('days', daysOf(one))}
        {one.now && <span className="small soft"> · {t('running')}</span>}
      </b>
      {one.inside && <p>“{one.inside}”</p>}
      {one.outside && one.outside !== one.inside && <p className="soft">“{one.outside}”</p>}
      {may.set && !said && <p className="wrong">{t('noText')}</p>}
      <p className={one.cover && !one.covered ? 'wrong' : 'small soft'}>
        {one.cover ? t(one.covered ? 'coveredBy' : 'notCovered', { name: cover }) : t('nobody')}
      </p>
      {may.set && (
        <p className="small soft">
          {[
            one.declines ? t('declining') : '',
            t('replies', { count: one.replies ?? 0 }),
            t('setBy', { name: one.setBy }),
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      )}
      {may.set && one.cover && !one.covered && !may.cover && <p className="small">{t('giveOther', { name })}</p>}
      {one.further.some((of) => of.covered) && (
        <p className="small soft">
          {t('hasFurther', {
            cover: firstName(cover),
            list: new Intl.ListFormat(language(), { type: 'conjunction' }).format(
              one.further.filter((of) => of.covered).map(({ what }) => t(`further.${what}`)),
            ),
          })}
        </p>
      )}
      {gives && open.length > 0 && (
        <fieldset className={absencesCss.further}>
          <legend className="small">{t('giveWith', { cover: firstName(cover) })}</legend>
          {open.map(({ what }) => (
            <FormControlLabel
              key={what}
              label={t(`further.${what}`)}
              control={
                <Checkbox
                  size="small"
                  checked={further.has(what)}
                  onChange={(event) => choose(what, event.target.checked)}
                />
              }
            />
          ))}
        </fieldset>
      )}
      {may.set && (
        <div className="row">
          {gives && (!one.covered || chosen.length > 0) && (
            <Button variant="contained" loading={busy} onClick={() => props.onGive(chosen)}>
              {t(one.covered ? 'giveMore' : 'give', { cover: firstName(cover) })}
            </Button>
          )}
          <Button variant="outlined" onClick={props.onChange}>
            {t('change')}
          </Button>
          <Button variant="text" loading={busy} onClick={props.onRemove}>
            {t('remove')}
          </Button>
        </div>
      )}
    </section>
  );
}

function AbsenceForm(props: {
  head: BoardHead;
  was: AbsenceWire | null;
  zone: string;
  /** Somebody else changed it meanwhile: how all stands now. */
  onBehind: (now: AbsencesAnswer) => void;
  onTyped: () => void;
  onClose: (() => void) | null;
  onSaved: (answer: AbsencesAnswer, body: NewAbsence) => void;
}) {
  const { head, was, zone } = props;
  const t = useTranslations('absences');
  const { now } = useFrame();
  const tomorrow = dateText(Math.floor(toWall(zone, now()) / DAY) * DAY + DAY);
  const [body, setBody] = useState<NewAbsence>({
    from: was?.from ?? tomorrow,
    until: was?.until ?? tomorrow,
    inside: was?.inside ?? '',
    outside: was?.outside ?? '',
    cover: was?.cover?.handle ?? null,
    declines: was?.declines ?? false,
  });
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const people = (directory.data?.people ?? []).filter((p) => p.handle !== head.owner.handle && !p.resource);
  const { attempt, busy, refused, fields } = useActing(['from', 'until', 'inside', 'outside', 'cover']);
  // Once it was said that somebody else changed it, theirs stands beside this, and saving again is meant.
  const [seen, setSeen] = useState(was?.version ?? 0);
  const set = (more: Partial<NewAbsence>) => {
    setBody({ ...body, ...more });
    props.onTyped();
  };
  const save = () =>
    attempt(
      async () => {
        const answer = was
          ? await call('changeAbsence', { params: { absence: was.key }, body: { ...body, version: seen } })
          : await call('addAbsence', { params: { person: head.owner.handle }, body });
        props.onSaved(answer, body);
      },
      (why) => {
        if (why.code !== 'changedMeanwhile') return Object.keys(why.fields).length > 0 ? null : why.sentence;
        const now = why.data as AbsencesAnswer;
        props.onBehind(now);
        setSeen(now.absences.find(({ key }) => key === was?.key)?.version ?? seen);
        return t('meanwhile');
      },
    );
  const text = (name: 'inside' | 'outside') => (
    <TextField
      label={t(name)}
      value={body[name]}
      multiline
      minRows={2}
      maxRows={8}
      error={!!fields[name]}
      helperText={fields[name] ?? (name === 'inside' ? t('insideHelp') : t('outsideHelp'))}
      onChange={(event) => set({ [name]: event.target.value })}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
  return (
    <form
      noValidate
      className="gap-6 stack"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      <DateField
        label={t('from')}
        value={body.from}
        error={fields.from}
        onChange={(from) => set({ from, ...(from > body.until ? { until: from } : {}) })}
      />
      <DateField label={t('until')} value={body.until} error={fields.until} onChange={(until) => set({ until })} />
      {text('inside')}
      {text('outside')}
      <Autocomplete<PersonWire>
        size="small"
        options={people}
        value={people.find(({ handle }) => handle === body.cover) ?? null}
        getOptionLabel={(p) => p.name}
        getOptionKey={(p) => p.handle}
        filterOptions={fewPeople}
        renderOption={personOption}
        isOptionEqualToValue={(a, b) => a.handle === b.handle}
        onChange={(_, person) => set({ cover: person?.handle ?? null })}
        renderInput={(params) => (
          <TextField {...params} label={t('cover')} error={!!fields.cover} helperText={fields.cover} />
        )}
      />
      <FormControlLabel
        className="choice top"
        label={
          <>
            {t('declines')}
            <span className="small soft block">{t('declinesHelp')}</span>
          </>
        }
        control={
          <Switch size="small" checked={body.declines} onChange={(event) => set({ declines: event.target.checked })} />
        }
      />
      <div className={`row ${boardsCss['save-row']}`}>
        <Button type="submit" variant="contained" loading={busy}>
          {t('save', { own: String(head.own), name: firstName(head.owner.name) })}
        </Button>
        {props.onClose && (
          <Button variant="text" onClick={props.onClose}>
            {t('cancel')}
          </Button>
        )}
      </div>
    </form>
  );
}
