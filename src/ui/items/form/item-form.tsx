'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import { LIMITS, VISIBILITIES } from '@/core/calendar/index.ts';
import { toWall, wallText } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { type SavedDraft, useSaveDraftOnLeaving } from '../../common/fetched/saved-drafts.ts';
import { readTime } from '../../common/fields/read-time.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { zonePlace } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { PeopleField } from '../../meetings/people-field.tsx';
import { Looking } from '../details/looking.tsx';
import { PanelHead } from '../details/panel-head.tsx';
import { TimeCheck } from '../times/time-check.tsx';
import { useFieldsFollow } from './fields-follow.ts';
import { GoneRow } from './gone-row.tsx';
import { wrongIn } from './item-checks.ts';
import { Conflict } from './item-conflict.tsx';
import itemFormCss from './item-form.module.css';
import { itemInputs } from './item-inputs.tsx';
import { ItemMore } from './item-more.tsx';
import { useItemPeople } from './item-people.ts';
import { AllDayRow, LooksSensitive, ScopeField } from './item-rows.tsx';
import { sendChange, sendForward, sendNew } from './item-sending.ts';
import {
  type Draft,
  FIELD,
  type FormDraft,
  isForward,
  spanText,
  type Values,
  valuesOf,
  whenOf,
} from './item-values.ts';
import { NewHead } from './new-head.tsx';
import { SaveRow } from './save-row.tsx';
import { useSensitiveTopic } from './sensitive-topic.ts';

/**
 * Makes or changes an item, in the details panel. Sends only what was touched; what was typed stays through every refusal.
 * Whoever may not make the change but may suggest it puts it forward in the same form, with the fields they see.
 * `gone` says that the item (or the right to it) is no longer there: what was not typed here is blanked.
 */
export function ItemForm(props: {
  draft: Draft;
  /** The key under which what is typed is kept when the form is left, and what was kept of it before. */
  savedAs: string;
  savedDraft: FormDraft | null;
  head: BoardHead;
  gone: boolean;
  onSaved: (answer: WrittenAnswer) => void;
  onPutForward: () => void;
  onClose: () => void;
}) {
  const { draft, savedAs, savedDraft, head, gone, onSaved, onPutForward, onClose } = props;
  const t = useTranslations();
  const tf = useTranslations('fields');
  const { style, live } = useFrame();
  // What could not be sent since the connection was gone, and goes as soon as it is back.
  const [waits, setWaits] = useState(false);
  const forward = isForward(draft, head);
  const has = (name: 'place' | 'notes' | 'link'): boolean => !forward || draft.kind === 'new' || name in draft.item;
  const [why, setWhy] = useState(savedDraft?.why ?? '');
  const [more, setMore] = useState(draft.kind === 'change' || savedDraft !== null);
  const { attempt, refused, fields, clear } = useActing();
  const [conflict, setConflict] = useState<ItemWire | null>(null);
  const [base, setBase] = useState<ItemWire | null>(draft.kind === 'change' ? draft.item : null);
  const form = useForm<Values>({ defaultValues: valuesOf(draft, style.zone) });
  const { control, handleSubmit, setError, clearErrors, watch, formState, setValue, getValues, resetField } = form;
  const { dirtyFields, isSubmitting, isDirty } = formState;
  const [allDay, day, visibility, scope] = watch(['allDay', 'day', 'visibility', 'scope']);
  const [lastDay, from, to, kind] = watch(['lastDay', 'from', 'to', 'kind']);
  // What looks sensitive where many read titles is caught while it is typed.
  const [title, notes] = watch(['title', 'notes']);
  const folk = useItemPeople(draft, head, forward, savedDraft?.people ?? null);
  const open = visibility === 'follow' || visibility === 'open';
  const topicOf = useSensitiveTopic(head);
  const topic = open ? topicOf(`${title} ${notes}`) : null;
  const owner = firstName(head.owner.name);
  const series = base?.asSet?.series === true && base.repeats !== null;

  useEffect(() => {
    for (const [name, value] of Object.entries(savedDraft?.values ?? {}))
      setValue(name as keyof Values, value as never, { shouldDirty: true });
  }, [savedDraft, setValue]);
  const path = usePathname();
  const search = useSearchParams();
  const typed = watch();
  const over = useSaveDraftOnLeaving(draftNow());
  function draftNow(): SavedDraft | null {
    const touched = Object.keys(dirtyFields) as (keyof Values)[];
    if ((!isDirty || touched.length === 0) && why === '' && !folk.touched) return null;
    const names = draft.kind === 'new' ? (Object.keys(typed) as (keyof Values)[]) : touched;
    const data: FormDraft = {
      item: draft.kind === 'change' ? draft.item.id : null,
      start: draft.kind === 'new' ? draft.start : 0,
      end: draft.kind === 'new' ? draft.end : 0,
      values: Object.fromEntries(names.map((name) => [name, typed[name]])),
      why,
      people: folk.touched ? folk.people : null,
    };
    const to = new URLSearchParams(search);
    to.delete('new');
    to.set('kept', savedAs);
    const { owner: whose } = head;
    const title = draft.kind === 'change' ? (draft.item.title ?? '') : typed.title;
    return { key: savedAs, title, owner: whose.name, colour: whose.colour, href: `${path}?${to}`, data };
  }

  useFieldsFollow(form, { draft, kind, gone });

  const checkHere = (v: Values): boolean => {
    clearErrors();
    const wrong = wrongIn(v, draft.kind === 'new' || dirtyFields.title === true);
    for (const [name, code] of wrong) setError(name, { message: fieldText(code) });
    return wrong.length === 0;
  };
  const fieldText = (code: string): string => {
    const [name = '', most] = code.split(':');
    return name === 'tooLong' ? tf('tooLong', { most: Number(most) }) : tf(name as 'title');
  };

  const send = async (v: Values, version?: number): Promise<void> => {
    clear();
    setWaits(false);
    if (!checkHere(v)) return;
    const touched = new Set(Object.keys(dirtyFields) as (keyof Values)[]);
    const sendIt = async () => {
      if (forward) {
        await sendForward(
          head.calendar.key,
          draft.kind === 'new' ? null : draft.item.id,
          v,
          touched,
          why,
          folk.touched ? folk.people : null,
        );
        over();
        onPutForward();
      } else {
        const seen = version ?? base?.version ?? base?.asSet?.version ?? 0;
        const answer =
          draft.kind === 'new'
            ? await sendNew(head.calendar.key, v, folk.people)
            : await sendChange(base?.id ?? '', seen, series ? v.scope : 'one', v, touched, {
                list: folk.touched ? folk.people : null,
                tellAll: folk.tellAll,
              });
        over();
        onSaved(answer);
      }
    };
    await attempt(sendIt, (answer) => {
      // With the live connection gone too, nothing can have arrived: sending again creates it once.
      if (answer.code === 'unreachable' && live.kind === 'off') {
        setWaits(true);
        return null;
      }
      if (answer.code === 'changedMeanwhile' && answer.data) {
        setConflict(answer.data as ItemWire);
        return null;
      }
      for (const [name, message] of Object.entries(answer.fields)) {
        const field = FIELD[name] ?? (name as keyof Values);
        if (field in v)
          setError(field === 'from' && v.allDay ? 'day' : field === 'to' && v.allDay ? 'lastDay' : field, { message });
      }
      return answer.sentence;
    });
  };
  useEffect(() => {
    if (!waits || live.kind !== 'live') return;
    setWaits(false);
    void handleSubmit((v) => send(v))();
  });
  const keepLength = (was: string, is: string) => {
    const minutes = (s: string) => Number(s.slice(0, 2)) * 60 + Number(s.slice(3));
    const length = minutes(to) - minutes(was);
    const end = minutes(is) + length;
    if (readTime(was) && readTime(is) && readTime(to) && length > 0 && end < 24 * 60 && lastDay === day)
      setValue('to', `${String(Math.floor(end / 60)).padStart(2, '0')}:${String(end % 60).padStart(2, '0')}`, {
        shouldDirty: true,
      });
  };
  const sends = folk.sends((formState.defaultValues ?? typed) as Values, typed);
  const { helper, input, choice, richInput, dateInput, timeInput } = itemInputs(form, keepLength);
  const typedWhen =
    readTime(from) === from && readTime(to) === to && (from < to || typed.endZone !== '') && !allDay
      ? whenOf(typed)
      : allDay && day && lastDay
        ? whenOf(typed)
        : null;
  // What others call is read here, and typed over nowhere.
  const own = folk.theirs === null ? {} : { disabled: true };
  const leave = () => {
    over();
    onClose();
  };
  const heading = forward
    ? t(draft.kind === 'new' ? 'form.forwardNew' : 'form.forwardChange')
    : t(draft.kind === 'new' ? 'form.new' : 'form.change');
  return (
    <aside className={boardsCss.panel} aria-label={heading}>
      {draft.kind === 'new' && !forward && !gone ? (
        <NewHead {...{ head, typed, dirtyFields, onClose }} people={folk.touched ? folk.people : null} onOver={leave} />
      ) : (
        <PanelHead head={head} onClose={onClose} />
      )}
      {base && !forward && !gone && <Looking item={base.id} types />}
      <h2>{heading}</h2>
      {forward && (
        <p className="small soft">
          {t('form.forwardHelp', { name: owner })}
          {draft.kind === 'change' && draft.item.repeats && ` ${t('form.forwardOne')}`}
        </p>
      )}
      {refused && <Alert severity="error">{refused}</Alert>}
      {waits && (
        <Alert
          severity="info"
          action={
            <Button variant="text" onClick={() => setWaits(false)}>
              {t('form.waitsNot')}
            </Button>
          }
        >
          {t('form.waits')}
        </Alert>
      )}
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
          ...own,
          autoFocus: true,
          slotProps: { inputLabel: { shrink: true }, htmlInput: { maxLength: LIMITS.title } },
        })}
        <div className={itemFormCss.pair}>
          {dateInput('day', t('form.day'))}
          {(allDay || lastDay !== day || more) && dateInput('lastDay', t('form.until'))}
        </div>
        {!allDay && (
          <div className={itemFormCss.pair}>
            {timeInput('from', t('form.from'))}
            {timeInput('to', typed.endZone ? t('form.toIn', { place: zonePlace(typed.endZone) }) : t('form.to'))}
          </div>
        )}
        <AllDayRow
          control={control}
          length={!allDay && readTime(from) === from && readTime(to) === to && from < to ? spanText(from, to) : ''}
        />
        {!forward && !gone && folk.theirs === null && (
          <TimeCheck
            head={head}
            body={
              typedWhen && {
                when: typedWhen,
                item: base?.id ?? null,
                people: folk.people.map(({ address, role }) => ({ address, must: role === 'must' })),
                place: typed.place || null,
                shows: typed.shows,
                kind: typed.kind,
              }
            }
            onTake={(start, end) => {
              const [a, b] = [wallText(toWall(typed.zone, start)), wallText(toWall(typed.endZone || typed.zone, end))];
              const times = {
                day: a.slice(0, 10),
                lastDay: b.slice(0, 10),
                from: a.slice(11, 16),
                to: b.slice(11, 16),
              };
              for (const name of ['day', 'lastDay', 'from', 'to'] as const)
                setValue(name, times[name], { shouldDirty: true });
            }}
          />
        )}
        {has('place') && input('place', t('form.place'), own)}
        {folk.theirs === null && (!forward || draft.kind === 'new' || draft.item.attendees !== undefined) && (
          <PeopleField
            calendar={head.calendar.key}
            owner={folk.owner}
            people={folk.people}
            when={typedWhen}
            item={base?.id ?? null}
            disabled={gone}
            onChange={folk.setPeople}
          />
        )}
        {folk.meeting?.state === 'sent' && folk.theirs === null && (
          <FormControlLabel
            control={
              <Checkbox size="small" checked={folk.tellAll} onChange={(e) => folk.setTellAll(e.target.checked)} />
            }
            label={t('form.tellAll')}
            slotProps={{ typography: { variant: 'body1' } }}
          />
        )}
        {folk.theirs !== null && <Alert severity="info">{t('form.theirs', { name: folk.theirs })}</Alert>}
        {(!forward || draft.kind === 'new') &&
          choice(
            'visibility',
            t('form.visibility'),
            VISIBILITIES.map((v) => [v, t(`visibilities.${v}`)]),
            t(`visibilityHelp.${visibility}`),
          )}
        {topic && (
          <LooksSensitive topic={topic} onPrivate={() => setValue('visibility', 'private', { shouldDirty: true })} />
        )}
        {visibility === 'private' && !head.may.seePrivate && !forward && (
          <Alert severity="warning">{t('form.privateWarning')}</Alert>
        )}
        {more && forward && draft.kind === 'change' && (
          <>
            {has('link') && input('link', t('form.link'))}
            {has('notes') && richInput('notes', t('form.notes'))}
          </>
        )}
        {more && !(forward && draft.kind === 'change') && (
          <ItemMore
            form={form}
            inputs={{ helper, input, choice, richInput, dateInput }}
            forward={forward}
            repeats={draft.kind === 'new' || scope !== 'one' || !series}
            picked={base?.repeats?.rule === null ? base.id : null}
            savedRule={base?.repeats?.rule ?? ''}
            own={own}
            briefed={!forward && head.may.whole}
            owner={owner}
            when={typedWhen}
          />
        )}
        {series && <ScopeField control={control} />}
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
            error={!!fields.why}
            helperText={fields.why ?? t('form.whyHelp', { name: owner })}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 1000 } }}
          />
        )}
        {gone ? (
          <GoneRow draft={draft} head={head} typed={typed} onOver={leave} />
        ) : (
          <SaveRow
            head={head}
            forward={forward}
            busy={isSubmitting}
            typed={isDirty || folk.touched}
            sends={sends}
            onLeave={leave}
          />
        )}
      </form>
    </aside>
  );
}
