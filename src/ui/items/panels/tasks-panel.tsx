'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { dateText, wallText } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useDueWords } from '../../common/due-words.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { DateField } from '../../common/fields/date-field.tsx';
import { TimeField } from '../../common/fields/time-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import pageCss from '../../common/page.module.css';
import { DAY, MINUTE, whenText } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { PanelHead } from '../details/panel-head.tsx';
import { takeTask, useTaskDrops } from '../views/task-drop.ts';

const LENGTHS = [30, 60, 90, 120, 180] as const;
/** How long the time is that a task is let go into. */
const DROPPED = 60;

/** The owner's tasks beside their board: each let go over the hours, or given a time here, becomes time for work, and back. */
export function TasksPanel({ head, day, onClose }: { head: BoardHead; day: number; onClose: () => void }) {
  const t = useTranslations('tasks');
  const { style, toast } = useFrame();
  const client = useQueryClient();
  const person = head.owner.handle;
  const lists = useQuery({
    queryKey: KEYS.taskLists(person),
    queryFn: () => call('listTaskLists', { params: { person } }),
    retry: false,
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const list = lists.data?.lists.find(({ key }) => key === chosen) ?? lists.data?.lists[0];
  const query = useQuery({
    queryKey: KEYS.tasks(list?.key ?? '', false, 'beside'),
    queryFn: () => call('listTasks', { params: { list: list?.key ?? '' }, query: {} }),
    enabled: list !== undefined,
    retry: false,
  });
  const { attempt, busy, refused, fields } = useActing(['start']);
  const tasks = (query.data?.tasks ?? []).filter((task) => task.may?.change && task.from?.said !== 'asked');
  const set = (task: TaskWire, when: { start: number; end: number } | null, calendar: string | null = null) =>
    attempt(async () => {
      const at = when && {
        start: wallText(when.start),
        end: wallText(when.end),
        allDay: false,
        zone: style.zone,
      };
      await call('setTaskTime', {
        params: { task: task.id },
        body: { version: task.version ?? 0, calendar, when: at },
      });
      toast({ text: t(when ? 'timed' : 'untimed', { title: task.title }) });
      await Promise.all([
        client.invalidateQueries({ queryKey: KEYS.everyTask }),
        client.invalidateQueries({ queryKey: KEYS.calendar(head.calendar.key) }),
      ]);
    });
  useTaskDrops(({ task: key, lane, start }) => {
    const task = tasks.find(({ id }) => id === key);
    if (task) void set(task, { start, end: start + DROPPED * MINUTE }, lane.calendar);
  });
  return (
    <aside className={boardsCss.panel} aria-label={t('tasks')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('titleOf', { own: String(head.own), name: firstName(head.owner.name) })}</h2>
      <p className="small soft">{t('dragHelp')}</p>
      <QueryState query={lists} />
      {(lists.data?.lists.length ?? 0) > 1 && (
        <TextField
          select
          label={t('oneList')}
          value={list?.key ?? ''}
          onChange={(event) => setChosen(event.target.value)}
        >
          {lists.data?.lists.map(({ key, name }) => (
            <MenuItem key={key} value={key}>
              {name || t('firstList')}
            </MenuItem>
          ))}
        </TextField>
      )}
      {refused && <Alert severity="error">{refused}</Alert>}
      {query.data && tasks.length === 0 && <p className="soft">{t('none')}</p>}
      {tasks.map((task) => (
        <OneTask
          key={task.id}
          task={task}
          day={day}
          busy={busy}
          wrong={fields.start}
          onSet={(when) => set(task, when)}
        />
      ))}
      {query.data?.more != null && <p className="small soft">{t('cut')}</p>}
      {list && (
        <Link href={`/for/${person}/tasks?list=${list.key}`} className="small">
          {t('toList')}
        </Link>
      )}
    </aside>
  );
}

function OneTask(props: {
  task: TaskWire;
  day: number;
  busy: boolean;
  wrong: string | undefined;
  onSet: (when: { start: number; end: number } | null) => Promise<boolean>;
}) {
  const { task, busy, onSet } = props;
  const t = useTranslations('tasks');
  const { style } = useFrame();
  const words = useDueWords();
  const [typed, setTyped] = useState<{ day: string; time: string; minutes: number } | null>(null);
  const save = async () => {
    if (!typed) return;
    const start = Date.parse(`${typed.day}T${typed.time}:00Z`);
    if (await onSet({ start, end: start + typed.minutes * MINUTE })) setTyped(null);
  };
  return (
    <section
      className={`${pageCss.card} grab`}
      aria-label={task.title}
      draggable
      onDragStart={(event) => takeTask(event, task.id)}
    >
      <div className="line wrap middle spread">
        <div className={boardsCss.growing}>
          <b>{task.title}</b>
          <p className="small soft">
            {[words(task), task.time ? t('timeSet', { when: whenText({ ...task.time, allDay: false }, style) }) : '']
              .filter(Boolean)
              .join(' · ')}
          </p>
        </div>
        {!typed && (
          <div className="row">
            <Button
              variant="text"
              aria-label={t(task.time ? 'moveTimeOf' : 'setTimeOf', { title: task.title })}
              onClick={() =>
                setTyped({ day: dateText(Math.floor(props.day / DAY) * DAY), time: '09:00', minutes: DROPPED })
              }
            >
              {t(task.time ? 'moveTime' : 'setTime')}
            </Button>
            {task.time && (
              <Button
                variant="text"
                loading={busy}
                aria-label={t('noTimeOf', { title: task.title })}
                onClick={() => void onSet(null)}
              >
                {t('noTime')}
              </Button>
            )}
          </div>
        )}
      </div>
      {typed && (
        <form
          noValidate
          className="above-3 stack"
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <DateField
            label={t('day')}
            value={typed.day}
            error={props.wrong}
            onChange={(day) => setTyped({ ...typed, day })}
          />
          <div className="stack halves">
            <TimeField
              label={t('from')}
              value={typed.time}
              error={undefined}
              onChange={(time) => setTyped({ ...typed, time })}
              onLeave={() => {}}
            />
            <TextField
              select
              label={t('length')}
              value={typed.minutes}
              onChange={(event) => setTyped({ ...typed, minutes: Number(event.target.value) })}
            >
              {LENGTHS.map((minutes) => (
                <MenuItem key={minutes} value={minutes}>
                  {t('minutes', { minutes })}
                </MenuItem>
              ))}
            </TextField>
          </div>
          <div className="row">
            <Button type="submit" variant="contained" loading={busy}>
              {t('setTime')}
            </Button>
            <Button variant="text" onClick={() => setTyped(null)}>
              {t('cancel')}
            </Button>
          </div>
        </form>
      )}
    </section>
  );
}
