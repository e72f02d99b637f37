'use client';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Checkbox from '@mui/material/Checkbox';
import TextField from '@mui/material/TextField';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { TaskWire } from '@/contract/tasks.ts';
import { PARTS, type Part, partOf, useDueWords } from '../common/due-words.ts';
import { useFrame } from '../common/frame-context.tsx';
import listsCss from '../common/lists/lists.module.css';
import { useRows } from '../common/lists/use-rows.ts';

type Line =
  | { readonly kind: 'head'; readonly part: Part; readonly count: number }
  | { readonly kind: 'task'; readonly task: TaskWire; readonly part: Part };

/** The tasks of a list in the parts they are due in; only what is seen is drawn. The arrows go from one to the next. */
export function TaskRows(props: {
  tasks: readonly TaskWire[];
  done: boolean;
  owner: string;
  current: string | null;
  more: boolean;
  onOpen: (task: TaskWire) => void;
  onTick: (task: TaskWire) => void;
  onAnswer: (task: TaskWire, yes: boolean, note: string) => void;
  /** The end of what is there was reached. */
  onEnd: () => void;
}) {
  const { tasks, done, more, onEnd } = props;
  const t = useTranslations('tasks');
  const { style, now } = useFrame();
  const lines = useMemo(() => linesOf(tasks, done, style.zone, now()), [tasks, done, style.zone, now]);
  const last = lines.findLast((line) => line.kind === 'head');
  const { box, virtual, shown, move } = useRows({
    count: lines.length,
    height: (i) => (lines[i]?.kind === 'head' ? 36 : 46),
    keyOf: (i) => {
      const line = lines[i];
      return line?.kind === 'task' ? line.task.id : (line?.part ?? i);
    },
    isRow: (i) => lines[i]?.kind === 'task',
    more,
    onEnd,
  });
  return (
    <div ref={box} className={listsCss.rows}>
      <ol style={{ height: virtual.getTotalSize() }} aria-label={t('tasks')}>
        {shown.map(({ index, key, start }) => {
          const line = lines[index];
          if (!line) return null;
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              style={{ transform: `translateY(${start}px)` }}
            >
              {line.kind === 'head' ? (
                <h2>
                  {t(`parts.${line.part}`)} {/* Of the last part there may be more than were fetched. */}
                  <span className="soft">{more && line === last ? `${line.count}+` : line.count}</span>
                </h2>
              ) : (
                <Row {...props} task={line.task} part={line.part} onKey={(event) => move(event, index)} />
              )}
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function linesOf(tasks: readonly TaskWire[], done: boolean, zone: string, now: number): Line[] {
  if (done) return tasks.map((task) => ({ kind: 'task', task, part: 'none' }));
  const parts = new Map<Part, TaskWire[]>(PARTS.map((part) => [part, []]));
  for (const task of tasks) parts.get(partOf(task.due, zone, now))?.push(task);
  return [...parts].flatMap(([part, some]): Line[] =>
    some.length === 0
      ? []
      : [{ kind: 'head', part, count: some.length }, ...some.map((task): Line => ({ kind: 'task', task, part }))],
  );
}

function Row(props: {
  task: TaskWire;
  part: Part;
  owner: string;
  current: string | null;
  onOpen: (task: TaskWire) => void;
  onTick: (task: TaskWire) => void;
  onAnswer: (task: TaskWire, yes: boolean, note: string) => void;
  onKey: (event: KeyboardEvent) => void;
}) {
  const { task, part, current } = props;
  const t = useTranslations('tasks');
  const words = useDueWords();
  const isWaiting = task.from?.said === 'asked';
  const marks = [
    task.belongsTo ? t(`ties.${task.tie?.as ?? 'part'}`, { title: task.belongsTo }) : '',
    task.from
      ? t('fromWhom', { by: task.from.by, for: task.from.for, same: String(task.from.by === task.from.for) })
      : '',
    task.given ? t(`given.${task.given.state}`, { name: task.given.to.name }) : '',
    task.repeats ? t('repeats') : '',
    task.visibility === 'private' ? t('private') : '',
  ].filter(Boolean);
  return (
    <div className={listsCss.row} data-current={task.id === current ? '' : undefined}>
      <Checkbox
        size="small"
        checked={task.done}
        disabled={task.may?.change !== true || isWaiting}
        onChange={() => props.onTick(task)}
        slotProps={{ input: { 'aria-label': t('tick', { title: task.title }) } }}
      />
      <ButtonBase
        data-title=""
        className={listsCss.what}
        aria-expanded={task.id === current}
        onClick={() => props.onOpen(task)}
        onKeyDown={props.onKey}
      >
        <span className={task.done ? listsCss.over : listsCss.title}>
          {task.importance === 'high' && <b className="wrong">{t('important')} </b>}
          {task.title}
        </span>
        {marks.length > 0 && <span className="small soft">{marks.join(' · ')}</span>}
      </ButtonBase>
      <span className={`small ${part === 'overdue' ? 'wrong' : 'soft'} ${listsCss.due}`}>{words(task)}</span>
      {isWaiting && task.may?.change && <Answer task={task} onAnswer={props.onAnswer} />}
    </div>
  );
}

/** Yes or no to what somebody else gave; a no may say why. */
function Answer({
  task,
  onAnswer,
}: {
  task: TaskWire;
  onAnswer: (task: TaskWire, yes: boolean, note: string) => void;
}) {
  const t = useTranslations('tasks');
  const [note, setNote] = useState<string | null>(null);
  if (note !== null)
    return (
      <form
        className={listsCss.answer}
        onSubmit={(event) => {
          event.preventDefault();
          onAnswer(task, false, note);
        }}
      >
        <TextField
          autoFocus
          label={t('why')}
          value={note}
          onChange={(event) => setNote(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 1000 } }}
        />
        <Button type="submit" variant="outlined">
          {t('sayNo')}
        </Button>
        <Button variant="text" onClick={() => setNote(null)}>
          {t('cancel')}
        </Button>
      </form>
    );
  return (
    <span className={listsCss.answer}>
      <Button
        variant="contained"
        aria-label={t('yesTo', { title: task.title })}
        onClick={() => onAnswer(task, true, '')}
      >
        {t('yes')}
      </Button>
      <Button variant="outlined" aria-label={t('noTo', { title: task.title })} onClick={() => setNote('')}>
        {t('no')}
      </Button>
    </span>
  );
}
