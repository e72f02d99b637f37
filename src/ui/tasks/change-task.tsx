import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TaskPatch, TaskWire } from '@/contract/tasks.ts';
import { IMPORTANCES } from '@/core/calendar/index.ts';
import boardsCss from '../common/boards.module.css';
import { useActing } from '../common/fetched/acting.ts';
import { DateField } from '../common/fields/date-field.tsx';
import { TimeField } from '../common/fields/time-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { SeenChoice } from '../common/lists/seen-choice.tsx';
import { firstName } from '../common/token.tsx';
import { repeatKind, ruleFor, useRepeatWords } from '../items/form/repeat-kinds.ts';
import { GiveTask } from './give-task.tsx';
import type { OpenTask } from './open-task.ts';
import { Around } from './task-around.tsx';
import { type Typed, touched, typedOf } from './task-typed.ts';

const KINDS = ['none', 'DAILY', 'WEEKDAYS', 'WEEKLY', 'FORTNIGHT', 'MONTHLY', 'YEARLY'] as const;

/** The form of a task. Whatever is done with it here carries what is typed: nothing of that is lost. */
export function ChangeTask({ task, list, lists, onClose, onSaved, onStale }: OpenTask) {
  const t = useTranslations('tasks');
  const tr = useTranslations('form.repeat');
  const { style } = useFrame();
  const repeatWords = useRepeatWords();
  // What is typed stays, whatever is heard of the task meanwhile: saving says what it was typed over.
  const [from, setFrom] = useState({ version: task.version ?? 0, typed: typedOf(task, style.zone) });
  const [typed, setTyped] = useState(from.typed);
  const set = (more: Partial<Typed>) => setTyped({ ...typed, ...more });
  const changes = touched(from.typed, typed, style.zone);
  const isTouched = Object.keys(changes).length > 1 || Object.keys(changes.fields).length > 0;
  // Nothing typed: the panel shows the task as it is now.
  if (!isTouched && task.version !== from.version) {
    const now = { version: task.version ?? 0, typed: typedOf(task, style.zone) };
    setFrom(now);
    setTyped(now.typed);
  }
  const { attempt, busy, refused, fields } = useActing([
    'title',
    'due',
    'repeats',
    'notes',
    'link',
    'categories',
    'give',
    'list',
  ]);
  const write = (patch: Omit<TaskPatch, 'version'>, text: string) =>
    attempt(
      async () => {
        const answer = await call('changeTask', {
          params: { task: task.id },
          body: { ...patch, version: from.version },
        });
        if (answer.task) {
          const now = { version: answer.task.version ?? 0, typed: typedOf(answer.task, style.zone) };
          setFrom(now);
          setTyped(now.typed);
        }
        await onSaved(text, answer.undo, patch.list);
      },
      (why) => {
        if (why.code !== 'changedMeanwhile') return Object.keys(why.fields).length > 0 ? null : why.sentence;
        const now = why.data as TaskWire | null;
        if (now) setFrom({ version: now.version ?? 0, typed: typedOf(now, style.zone) });
        void onStale();
        return t('meanwhile');
      },
    );
  const remove = () =>
    attempt(async () => {
      const { undo } = await call('removeTask', { params: { task: task.id }, query: { version: from.version } });
      onClose();
      await onSaved(t('removed', { title: task.title }), undo);
    });
  const ofGiver = task.from !== null && task.from !== undefined;
  const kind = repeatKind(typed.repeats);
  const others = lists.filter(
    ({ key, may, owner }) => key !== list.key && may.add && owner.handle === list.owner.handle,
  );
  const text = (name: 'title' | 'notes' | 'link' | 'categories', more: object = {}) => (
    <TextField
      label={t(name)}
      value={typed[name]}
      disabled={ofGiver && name !== 'categories'}
      error={!!fields[name]}
      helperText={fields[name]}
      onChange={(event) => set({ [name]: event.target.value })}
      slotProps={{ inputLabel: { shrink: true } }}
      {...more}
    />
  );
  return (
    <form
      noValidate
      className="gap-6 stack"
      onSubmit={(event) => {
        event.preventDefault();
        if (isTouched) void write(changes, t('saved'));
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      {ofGiver && <p className="small soft">{t('ofGiver', { name: task.from?.for ?? '' })}</p>}
      {text('title', { multiline: true })}
      {!ofGiver && (
        <div className="stack with-time">
          <DateField
            label={t('due')}
            value={typed.day}
            error={fields.due}
            onChange={(day) => set(day === '' ? { day, time: '' } : { day })}
          />
          <TimeField
            label={t('time')}
            value={typed.time}
            error={undefined}
            onChange={(time) => set({ time })}
            onLeave={() => {}}
          />
        </div>
      )}
      {!ofGiver && task.tie === null && (
        <TextField
          select
          label={t('comesAgain')}
          value={kind === 'kept' ? 'kept' : kind}
          error={!!fields.repeats}
          helperText={fields.repeats ?? (typed.repeats ? repeatWords(typed.repeats) : undefined)}
          onChange={(event) => set({ repeats: ruleFor(event.target.value as 'DAILY', '', '') })}
        >
          {KINDS.map((one) => (
            <MenuItem key={one} value={one}>
              {tr(one)}
            </MenuItem>
          ))}
          {kind === 'kept' && <MenuItem value="kept">{repeatWords(typed.repeats)}</MenuItem>}
        </TextField>
      )}
      {text('notes', { multiline: true, minRows: 3, maxRows: 12 })}
      {!ofGiver && text('link')}
      {text('categories', { placeholder: t('categoriesHelp') })}
      {!ofGiver && (
        <TextField
          select
          label={t('importance')}
          value={typed.importance}
          onChange={(event) => set({ importance: event.target.value as Typed['importance'] })}
        >
          {IMPORTANCES.map((one) => (
            <MenuItem key={one} value={one}>
              {t(`importances.${one}`)}
            </MenuItem>
          ))}
        </TextField>
      )}
      <SeenChoice of="tasks" value={typed.visibility} onChange={(visibility) => set({ visibility })} />
      <div className={`row ${boardsCss['save-row']}`}>
        <Button type="submit" variant="contained" loading={busy} disabled={!isTouched}>
          {t('save', { own: String(list.own), name: firstName(list.owner.name) })}
        </Button>
        {task.may?.remove && (
          <Button variant="text" loading={busy} onClick={() => void remove()}>
            {t('remove')}
          </Button>
        )}
      </div>
      {!ofGiver && (
        <GiveTask
          task={task}
          list={list}
          error={fields.give}
          onGive={(to, name) =>
            void write({ ...changes, give: to }, to === null ? t('takenBack') : t('gave', { name }))
          }
        />
      )}
      {others.length > 0 && task.may?.remove && !ofGiver && (
        <TextField
          select
          label={t('moveTo')}
          value=""
          error={!!fields.list}
          helperText={fields.list}
          onChange={(event) => void write({ ...changes, list: event.target.value }, t('movedTo'))}
        >
          {others.map(({ key, name }) => (
            <MenuItem key={key} value={key}>
              {name || t('firstList')}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Around task={task} list={list} onFree={() => void write({ ...changes, tie: null }, t('freed'))} />
    </form>
  );
}
