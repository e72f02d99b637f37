'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire, WrittenAnswer } from '@/contract/items.ts';
import { IMPORTANCES, itemFields, KINDS, LIMITS, STATUSES, VISIBILITIES } from '@/core/calendar/index.ts';
import { topicOf } from '@/core/review/index.ts';
import { dateText, isZone, parseDate, parseInstant, parseWall, toWall, wallText } from '@/core/time/index.ts';
import { type KeptDraft, useKeepOnLeaving } from '../common/kept-drafts.ts';
import { readTime } from '../common/read-time.ts';
import { said } from '../common/refusal.ts';
import { clock, DAY } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { ZoneField } from '../common/zone-field.tsx';
import { useFrame } from '../frame/frame-context.tsx';
import { PanelHead, type RepeatKind, repeatKind, ruleFor } from './details.tsx';

interface Values {
  title: string;
  allDay: boolean;
  day: string;
  from: string;
  lastDay: string;
  to: string;
  zone: string;
  place: string;
  link: string;
  notes: string;
  kind: (typeof KINDS)[number];
  shows: (typeof STATUSES)[number];
  visibility: (typeof VISIBILITIES)[number];
  importance: (typeof IMPORTANCES)[number];
  repeat: RepeatKind;
  repeatUntil: string;
  briefing: string;
  scope: 'one' | 'all';
}

/** What a draft begins from: a time on the board, or an item that is being changed. */
export type Draft =
  | { readonly kind: 'new'; readonly start: number; readonly end: number }
  | { readonly kind: 'change'; readonly item: ItemWire };

/** What of a form is kept when it is left: what was typed, and what it was typed about. */
export interface KeptForm {
  readonly item: string | null;
  readonly start: number;
  readonly end: number;
  readonly values: Partial<Values>;
  readonly why: string;
}

/** Under which key a form's draft is kept: a change by its item, something new by when it was begun. */
export const keptKey = (draft: Draft, id: number): string =>
  draft.kind === 'change' ? `item ${draft.item.id}` : `new ${id}`;

const TIMES = new Set<keyof Values>(['allDay', 'day', 'from', 'lastDay', 'to', 'zone']);
const TEXTS = ['title', 'place', 'link', 'notes', 'kind', 'shows', 'visibility', 'importance', 'briefing'] as const;

function valuesOf(draft: Draft, zone: string): Values {
  const blank = {
    title: '',
    place: '',
    link: '',
    notes: '',
    kind: 'meeting',
    shows: 'busy',
    visibility: 'follow',
    importance: 'normal',
    repeat: 'none',
    repeatUntil: '',
    briefing: '',
    scope: 'one',
  } as const;
  const times = (start: number, end: number, allDay: boolean) => ({
    allDay,
    day: dateText(start),
    lastDay: dateText(allDay ? end - DAY : end),
    from: allDay ? '09:00' : wallText(start).slice(11, 16),
    to: allDay ? '10:00' : wallText(end).slice(11, 16),
  });
  if (draft.kind === 'new') return { ...blank, ...times(draft.start, draft.end, false), zone };
  const { item } = draft;
  const own = item.asSet?.zone && item.asSet.zone !== 'UTC' ? item.asSet.zone : zone;
  const [start, end] = item.allDay
    ? [parseDate(item.start) ?? 0, parseDate(item.end) ?? 0]
    : [toWall(own, parseInstant(item.start) ?? 0), toWall(own, parseInstant(item.end) ?? 0)];
  const until = /UNTIL=(\d{4})(\d{2})(\d{2})/.exec(item.repeats?.rule ?? '');
  return {
    ...blank,
    ...times(start, end, item.allDay),
    zone: own,
    title: item.title ?? '',
    place: item.place ?? '',
    link: item.link ?? '',
    notes: item.notes ?? '',
    kind: item.kind ?? 'meeting',
    shows: item.asSet?.shows ?? item.shows,
    visibility: item.visibility ?? 'follow',
    importance: item.importance ?? 'normal',
    repeat: item.repeats ? repeatKind(item.repeats.rule) : 'none',
    repeatUntil: until ? `${until[1]}-${until[2]}-${until[3]}` : '',
    briefing: item.briefing ?? '',
  };
}

function whenOf(v: Values) {
  if (v.allDay) {
    const last = parseDate(v.lastDay);
    return { start: v.day, end: last === null ? v.lastDay : dateText(last + DAY), allDay: true, zone: v.zone };
  }
  return { start: `${v.day}T${v.from}`, end: `${v.lastDay}T${v.to}`, allDay: false, zone: v.zone };
}

/** Whether what is typed into a draft is put forward rather than saved. */
export const isForward = (draft: Draft, head: BoardHead): boolean =>
  draft.kind === 'new' ? head.may.suggest : draft.item.maySuggest === true;

/** Where the server's field names stand in the form. */
const FIELD: Record<string, keyof Values> = { start: 'from', end: 'to', repeat: 'repeat', 'repeat.rule': 'repeat' };

/**
 * Makes or changes an item, in the details panel. Sends only what was touched; what was typed stays through every refusal.
 * Whoever may not make the change but may suggest it puts it forward in the same form, with the fields they see.
 * `gone` says that the item (or the right to it) is no longer there: what was not typed here is blanked.
 */
export function ItemForm(props: {
  draft: Draft;
  /** The key under which what is typed is kept when the form is left, and what was kept of it before. */
  keptAs: string;
  kept: KeptForm | null;
  head: BoardHead;
  gone: boolean;
  onSaved: (answer: WrittenAnswer) => void;
  onPutForward: () => void;
  onClose: () => void;
}) {
  const { draft, keptAs, kept, head, gone, onSaved, onPutForward, onClose } = props;
  const t = useTranslations();
  const tf = useTranslations('fields');
  const { style } = useFrame();
  const forward = isForward(draft, head);
  const has = (name: 'place' | 'notes' | 'link'): boolean => !forward || draft.kind === 'new' || name in draft.item;
  const [why, setWhy] = useState(kept?.why ?? '');
  const [more, setMore] = useState(draft.kind === 'change' || kept !== null);
  const [refused, setRefused] = useState<string | null>(null);
  const [whyWrong, setWhyWrong] = useState<string | null>(null);
  const [conflict, setConflict] = useState<ItemWire | null>(null);
  const [base, setBase] = useState<ItemWire | null>(draft.kind === 'change' ? draft.item : null);
  const form = useForm<Values>({ defaultValues: valuesOf(draft, style.zone) });
  const { control, register, handleSubmit, setError, clearErrors, watch, formState, setValue, getValues, resetField } =
    form;
  const { errors, dirtyFields, isSubmitting, isDirty } = formState;
  const [allDay, day, visibility, repeat, scope] = watch(['allDay', 'day', 'visibility', 'repeat', 'scope']);
  const [lastDay, from, to, kind] = watch(['lastDay', 'from', 'to', 'kind']);
  // What looks sensitive where many read titles is caught while it is typed.
  const [title, notes] = watch(['title', 'notes']);
  const open = visibility === 'follow' || visibility === 'open';
  const topic = head.widelyRead && open ? topicOf(`${title} ${notes}`) : null;
  const owner = firstName(head.owner.name);
  const series = base?.asSet?.series === true && base.repeats !== null;

  useEffect(() => {
    for (const [name, value] of Object.entries(kept?.values ?? {}))
      setValue(name as keyof Values, value as never, { shouldDirty: true });
  }, [kept, setValue]);
  const path = usePathname();
  const search = useSearchParams();
  const typed = watch();
  const over = useKeepOnLeaving(keptNow());
  function keptNow(): KeptDraft | null {
    const touched = Object.keys(dirtyFields) as (keyof Values)[];
    if ((!isDirty || touched.length === 0) && why === '') return null;
    const names = draft.kind === 'new' ? (Object.keys(typed) as (keyof Values)[]) : touched;
    const data: KeptForm = {
      item: draft.kind === 'change' ? draft.item.id : null,
      start: draft.kind === 'new' ? draft.start : 0,
      end: draft.kind === 'new' ? draft.end : 0,
      values: Object.fromEntries(names.map((name) => [name, typed[name]])),
      why,
    };
    const to = new URLSearchParams(search);
    to.delete('new');
    to.set('kept', keptAs);
    const { owner: whose } = head;
    const title = draft.kind === 'change' ? (draft.item.title ?? '') : typed.title;
    return { key: keptAs, title, owner: whose.name, colour: whose.colour, href: `${path}?${to}`, data };
  }

  useEffect(() => {
    if (!gone || draft.kind !== 'change') return;
    // What was only read here, and not typed, goes with the right to read it.
    for (const name of TEXTS)
      if (!getValuesDirty(name))
        setValue(
          name,
          name === 'title' || name === 'place' || name === 'link' || name === 'notes' || name === 'briefing'
            ? ''
            : getValues(name),
        );
    function getValuesDirty(name: keyof Values): boolean {
      return form.getFieldState(name).isDirty;
    }
  }, [gone, draft.kind, form, getValues, setValue]);

  useEffect(() => {
    // A whereabouts is open to whoever may look at all, unless it is made narrower.
    if (kind === 'whereabouts' && getValues('visibility') === 'follow' && draft.kind === 'new')
      setValue('visibility', 'open', { shouldDirty: true });
  }, [kind, draft.kind, getValues, setValue]);

  useEffect(() => {
    // Moving the start along with the day keeps a one-day item on one day.
    if (!allDay && lastDay < day) setValue('lastDay', day);
  }, [allDay, day, lastDay, setValue]);

  const checkHere = (v: Values): boolean => {
    clearErrors();
    let fine = true;
    const wrong = (name: keyof Values, message: string) => {
      setError(name, { message });
      fine = false;
    };
    const title = itemFields.title.safeParse(v.title);
    if (!title.success && (draft.kind === 'new' || dirtyFields.title))
      wrong('title', fieldText(title.error.issues[0]?.message ?? ''));
    if (v.link && !itemFields.link.safeParse(v.link).success) wrong('link', tf('link'));
    if (!isZone(v.zone)) wrong('zone', tf('zone'));
    const when = whenOf(v);
    if (parseDate(v.day) === null) wrong('day', tf('date'));
    else if (parseDate(v.lastDay) === null) wrong('lastDay', tf('date'));
    else if (!v.allDay && !readTime(v.from)) wrong('from', tf('time'));
    else if (!v.allDay && !readTime(v.to)) wrong('to', tf('time'));
    else if (when.end <= when.start) wrong(v.allDay ? 'lastDay' : 'to', tf('endBeforeStart'));
    return fine;
  };
  const fieldText = (code: string): string => {
    const [name, most] = code.split(':');
    return name === 'tooLong'
      ? tf('tooLong', { most: Number(most) })
      : name === 'titleMissing'
        ? tf('titleMissing')
        : tf('control');
  };

  const send = async (v: Values, version?: number): Promise<void> => {
    setRefused(null);
    if (!checkHere(v)) return;
    try {
      if (forward) {
        await putForward(v);
        over();
        onPutForward();
      } else {
        const answer = draft.kind === 'new' ? await create(v) : await change(v, version);
        over();
        onSaved(answer);
      }
    } catch (error) {
      const answer = said(error, t('common.unreachable'));
      if (answer.code === 'changedMeanwhile' && answer.data) {
        setConflict(answer.data as ItemWire);
        return;
      }
      setRefused(answer.sentence);
      setWhyWrong(answer.fields.why ?? null);
      for (const [name, message] of Object.entries(answer.fields)) {
        const field = FIELD[name] ?? (name as keyof Values);
        if (field in v)
          setError(field === 'from' && v.allDay ? 'day' : field === 'to' && v.allDay ? 'lastDay' : field, { message });
      }
    }
  };
  const text = (s: string) => s.trim() || null;
  const fresh = (v: Values) => ({
    when: whenOf(v),
    ...(v.repeat === 'none' ? {} : { repeat: { rule: ruleFor(v.repeat, v.repeatUntil) } }),
    title: v.title,
    kind: v.kind,
    place: text(v.place),
    notes: text(v.notes),
    link: text(v.link),
    shows: v.shows,
    visibility: v.visibility,
  });
  const create = (v: Values) =>
    call('createItem', {
      params: { calendar: head.calendar.key },
      body: { ...fresh(v), importance: v.importance, briefing: text(v.briefing) },
    });
  const changes = (v: Values) => {
    const touched = new Set(Object.keys(dirtyFields) as (keyof Values)[]);
    const fields = Object.fromEntries(
      TEXTS.filter((name) => touched.has(name)).map((name) => [
        name,
        ['place', 'link', 'notes', 'briefing'].includes(name) ? text(v[name]) : v[name],
      ]),
    );
    return { touched, fields, times: [...touched].some((name) => TIMES.has(name)) };
  };
  const putForward = (v: Values) => {
    const params = { calendar: head.calendar.key };
    if (draft.kind === 'new') return call('putForward', { params, body: { kind: 'add', item: fresh(v), why } });
    const { fields, times } = changes(v);
    const when = times ? { when: whenOf(v) } : {};
    return call('putForward', { params, body: { kind: 'change', item: draft.item.id, ...when, fields, why } });
  };
  const change = (v: Values, version?: number) => {
    const { touched, fields, times } = changes(v);
    const repeats = touched.has('repeat') || touched.has('repeatUntil');
    return call('changeItem', {
      params: { item: base?.id ?? '' },
      body: {
        version: version ?? base?.version ?? base?.asSet?.version ?? 0,
        scope: series ? v.scope : 'one',
        ...(times ? { when: whenOf(v) } : {}),
        ...(repeats && v.repeat !== 'kept' ? { repeat: { rule: ruleFor(v.repeat, v.repeatUntil) } } : {}),
        fields,
      },
    });
  };
  const helper = (name: keyof Values) => errors[name]?.message;
  const input = (name: keyof Values, label: string, more: object = {}) => (
    <TextField
      label={label}
      error={!!errors[name]}
      helperText={helper(name)}
      {...register(name)}
      slotProps={{ inputLabel: { shrink: true } }}
      {...more}
    />
  );
  const choice = (
    name: 'kind' | 'shows' | 'visibility' | 'importance' | 'repeat',
    label: string,
    options: [string, string][],
    help?: string,
  ) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <TextField
          select
          label={label}
          {...field}
          error={!!errors[name]}
          helperText={helper(name) ?? help}
          slotProps={{ inputLabel: { shrink: true }, select: { native: false } }}
        >
          {options.map(([value, word]) => (
            <MenuItem key={value} value={value}>
              {word}
            </MenuItem>
          ))}
        </TextField>
      )}
    />
  );
  // Typed as one likes (930, 9:30, 2pm), shown by one's own clock once left.
  const timeInput = (name: 'from' | 'to', label: string) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <TimeField
          label={label}
          value={field.value}
          error={helper(name)}
          onChange={field.onChange}
          onLeave={(was, is) => name === 'from' && keepLength(was, is)}
        />
      )}
    />
  );
  const keepLength = (was: string, is: string) => {
    const minutes = (s: string) => Number(s.slice(0, 2)) * 60 + Number(s.slice(3));
    const length = minutes(to) - minutes(was);
    const end = minutes(is) + length;
    if (readTime(was) && readTime(is) && readTime(to) && length > 0 && end < 24 * 60 && lastDay === day)
      setValue('to', `${String(Math.floor(end / 60)).padStart(2, '0')}:${String(end % 60).padStart(2, '0')}`, {
        shouldDirty: true,
      });
  };
  const kinds = ['none', 'DAILY', 'WEEKDAYS', 'WEEKLY', 'FORTNIGHT', 'MONTHLY', 'YEARLY'] as const;
  const heading = forward
    ? t(draft.kind === 'new' ? 'form.forwardNew' : 'form.forwardChange')
    : t(draft.kind === 'new' ? 'form.new' : 'form.change');
  return (
    <aside className="panel" aria-label={heading}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{heading}</h2>
      {forward && (
        <p className="small soft">
          {t('form.forwardHelp', { name: owner })}
          {draft.kind === 'change' && draft.item.repeats && ` ${t('form.forwardOne')}`}
        </p>
      )}
      {refused && <Alert severity="error">{refused}</Alert>}
      {conflict && (
        <Conflict
          theirs={conflict}
          mine={getValues()}
          touched={new Set(Object.keys(dirtyFields))}
          onKeep={() => {
            setConflict(null);
            setBase(conflict);
            void handleSubmit((v) => send(v, conflict.version))();
          }}
          onTake={() => {
            setConflict(null);
            setBase(conflict);
            const fresh = valuesOf({ kind: 'change', item: conflict }, style.zone);
            for (const name of Object.keys(fresh) as (keyof Values)[]) resetField(name, { defaultValue: fresh[name] });
          }}
        />
      )}
      <form onSubmit={handleSubmit((v) => send(v))} noValidate>
        {input('title', t('form.title'), {
          autoFocus: true,
          slotProps: { inputLabel: { shrink: true }, htmlInput: { maxLength: LIMITS.title } },
        })}
        <div className="pair">
          {input('day', t('form.day'), { type: 'date' })}
          {(allDay || lastDay !== day || more) && input('lastDay', t('form.until'), { type: 'date' })}
        </div>
        {!allDay && (
          <div className="pair">
            {timeInput('from', t('form.from'))}
            {timeInput('to', t('form.to'))}
          </div>
        )}
        <div className="row" style={{ justifyContent: 'space-between' }}>
          <Controller
            name="allDay"
            control={control}
            render={({ field }) => (
              <FormControlLabel
                control={
                  <Checkbox size="small" checked={field.value} onChange={(e) => field.onChange(e.target.checked)} />
                }
                label={t('form.allDay')}
                slotProps={{ typography: { variant: 'body1' } }}
              />
            )}
          />
          <span className="small soft">
            {!allDay && readTime(from) === from && readTime(to) === to && from < to ? spanText(from, to) : ''}
          </span>
        </div>
        {has('place') && input('place', t('form.place'))}
        {(!forward || draft.kind === 'new') &&
          choice(
            'visibility',
            t('form.visibility'),
            VISIBILITIES.map((v) => [v, t(`visibilities.${v}`)]),
            t(`visibilityHelp.${visibility}`),
          )}
        {topic && (
          <div className="row" role="status">
            <span className="small wrong">{t('form.looksSensitive', { topic: t(`topics.${topic}`) })}</span>
            <Button
              variant="outlined"
              sx={{ minHeight: 26, py: 0 }}
              onClick={() => setValue('visibility', 'private', { shouldDirty: true })}
            >
              {t('form.markPrivate')}
            </Button>
          </div>
        )}
        {visibility === 'private' && !head.rights.private && !forward && (
          <Alert severity="warning">{t('form.privateWarning')}</Alert>
        )}
        {more && forward && draft.kind === 'change' && (
          <>
            {has('link') && input('link', t('form.link'))}
            {has('notes') && input('notes', t('form.notes'), { multiline: true, minRows: 2, maxRows: 8 })}
          </>
        )}
        {more && !(forward && draft.kind === 'change') && (
          <>
            <div className="pair">
              {choice(
                'kind',
                t('form.kind'),
                KINDS.map((k) => [k, t(`kinds.${k}`)]),
              )}
              {kind === 'whereabouts' ? (
                <p className="small soft">{t('form.whereaboutsFree')}</p>
              ) : (
                choice(
                  'shows',
                  t('form.shows'),
                  STATUSES.map((s) => [s, t(`statuses.${s}`)]),
                )
              )}
            </div>
            {(draft.kind === 'new' || scope === 'all' || !series) && (
              <div className="pair">
                {choice('repeat', t('form.repeats'), [
                  ...kinds.map((k): [string, string] => [k, t(`form.repeat.${k}`)]),
                  ...(repeat === 'kept'
                    ? [['kept', t('form.repeat.kept', { rule: base?.repeats?.rule ?? '' })] as [string, string]]
                    : []),
                ])}
                {repeat !== 'none' &&
                  repeat !== 'kept' &&
                  input('repeatUntil', t('form.repeatUntil'), { type: 'date' })}
              </div>
            )}
            {!allDay && (
              <Controller
                name="zone"
                control={control}
                render={({ field }) => (
                  <ZoneField
                    label={t('form.zone')}
                    value={field.value}
                    wrong={helper('zone')}
                    onChange={field.onChange}
                  />
                )}
              />
            )}
            {input('link', t('form.link'))}
            {input('notes', t('form.notes'), { multiline: true, minRows: 2, maxRows: 8 })}
            {!forward &&
              choice(
                'importance',
                t('form.importance'),
                IMPORTANCES.map((i) => [i, t(`importances.${i}`)]),
              )}
            {!forward &&
              (head.own || (head.rights.change === 'all' && head.rights.speaks)) &&
              input('briefing', t('form.briefing'), {
                multiline: true,
                minRows: 2,
                helperText: t('form.briefingHelp', { name: owner }),
              })}
          </>
        )}
        {series && (
          <Controller
            name="scope"
            control={control}
            render={({ field }) => (
              <TextField select label={t('form.scope')} {...field} slotProps={{ inputLabel: { shrink: true } }}>
                <MenuItem value="one">{t('form.one')}</MenuItem>
                <MenuItem value="all">{t('form.all')}</MenuItem>
              </TextField>
            )}
          />
        )}
        {(!forward || has('notes')) && (
          <div className="row">
            <Button variant="text" onClick={() => setMore(!more)} aria-expanded={more}>
              {more ? t('form.less') : t('form.more')}
            </Button>
          </div>
        )}
        {forward && (
          <TextField
            label={t('form.why')}
            value={why}
            onChange={(e) => setWhy(e.target.value)}
            multiline
            minRows={2}
            maxRows={6}
            error={!!whyWrong}
            helperText={whyWrong ?? t('form.whyHelp', { name: owner })}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 1000 } }}
          />
        )}
        <div className="row save-row">
          <Button
            type="submit"
            variant="contained"
            color="inherit"
            loading={isSubmitting}
            sx={{ bgcolor: 'var(--who)', color: 'var(--paper)' }}
          >
            {forward
              ? t(head.calendar.main ? 'form.forward' : 'form.forwardFurther', {
                  name: owner,
                  calendar: head.calendar.name,
                })
              : head.calendar.main
                ? head.own
                  ? t('form.saveMine')
                  : t('form.save', { name: owner })
                : t(head.own ? 'form.saveMineFurther' : 'form.saveFurther', {
                    name: owner,
                    calendar: head.calendar.name,
                  })}
          </Button>
          <Button
            variant="outlined"
            onClick={() => {
              over();
              onClose();
            }}
          >
            {isDirty ? t('form.discard') : t('form.cancel')}
          </Button>
        </div>
      </form>
    </aside>
  );
}

function spanText(from: string, to: string): string {
  const minutes = (s: string) => Number(s.slice(0, 2)) * 60 + Number(s.slice(3));
  const length = minutes(to) - minutes(from);
  return length >= 60 ? `${Math.floor(length / 60)} h${length % 60 ? ` ${length % 60} min` : ''}` : `${length} min`;
}

/** A time of day, typed freely; kept as `HH:MM`, or as it was typed where it is no time. */
function TimeField(props: {
  label: string;
  value: string;
  error: string | undefined;
  onChange: (value: string) => void;
  onLeave: (was: string, is: string) => void;
}) {
  const { label, value, error, onChange, onLeave } = props;
  const { style } = useFrame();
  const shown = readTime(value) === value ? clock(parseWall(`1970-01-01T${value}`) ?? 0, style.hours) : value;
  const [typed, setTyped] = useState<string | null>(null);
  const entered = useRef(value);
  return (
    <TextField
      label={label}
      value={typed ?? shown}
      error={!!error}
      helperText={error}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { autoComplete: 'off' } }}
      onFocus={(event) => {
        setTyped(shown);
        if (readTime(value)) entered.current = value;
        event.target.select();
      }}
      onChange={(event) => {
        setTyped(event.target.value);
        onChange(readTime(event.target.value) ?? event.target.value);
      }}
      onBlur={() => {
        setTyped(null);
        if (entered.current !== value) onLeave(entered.current, value);
      }}
    />
  );
}

/** Both versions side by side, field by field: what someone else saved, and what was typed here. */
function Conflict(props: {
  theirs: ItemWire;
  mine: Values;
  touched: ReadonlySet<string>;
  onKeep: () => void;
  onTake: () => void;
}) {
  const { theirs, mine, touched, onKeep, onTake } = props;
  const t = useTranslations('form');
  const { style } = useFrame();
  const now = valuesOf({ kind: 'change', item: theirs }, style.zone);
  const differing = (Object.keys(now) as (keyof Values)[]).filter(
    (k) => touched.has(k) && String(now[k]) !== String(mine[k]),
  );
  return (
    <div className="card wrong-card" role="alert">
      <p>
        <b>{t('conflict', { name: theirs.asSet?.changed.actor ?? t('someone') })}</b>
      </p>
      {differing.map((k) => (
        <p key={k} className="small">
          {t('conflictField', { value: String(now[k]) || '–' })} <span className="soft">→ {String(mine[k])}</span>
        </p>
      ))}
      <div className="row" style={{ marginTop: 8 }}>
        <Button variant="outlined" onClick={onKeep}>
          {t('keepMine')}
        </Button>
        <Button variant="outlined" onClick={onTake}>
          {t('takeTheirs')}
        </Button>
      </div>
    </div>
  );
}
