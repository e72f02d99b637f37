'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import type { ItemTasksAnswer, TaskWire } from '@/contract/tasks.ts';
import { useDueWords } from '../../common/due-words.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useTaskActs } from '../../common/fetched/task-acts.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import pageCss from '../../common/page.module.css';
import { firstName } from '../../common/token.tsx';

const AS = ['prepare', 'bring', 'followUp'] as const;

/** What is to be prepared for an item, brought to it or followed up: ticked off here, and added by whoever keeps a list of its owner's. */
export function ItemTasks({ item, head }: { item: ItemWire; head: BoardHead }) {
  const t = useTranslations('tasks');
  const query = useQuery({
    queryKey: KEYS.tasksOfItem(item.id),
    queryFn: () => call('listItemTasks', { params: { item: item.id } }),
    retry: false,
  });
  const { again, tick } = useTaskActs();
  const { attempt, refused } = useActing();
  const [adding, setAdding] = useState(false);
  const answer: ItemTasksAnswer | undefined = query.data;
  if (!answer || (answer.tasks.length === 0 && answer.lists.length === 0)) return null;
  const { tasks, lists, cut } = answer;
  const ticked = (task: TaskWire) =>
    attempt(
      () => tick(task),
      async (why) => {
        if (why.code === 'changedMeanwhile') await again();
      },
    );
  return (
    <section className={pageCss.card} aria-label={t('forThis')}>
      <h3>{t('forThis')}</h3>
      {refused && <Alert severity="error">{refused}</Alert>}
      {tasks.map((task) => (
        <OneTask key={task.id} task={task} head={head} onTick={() => void ticked(task)} />
      ))}
      {cut && <p className="small soft">{t('cut')}</p>}
      {lists.length > 0 &&
        (adding ? (
          <AddToItem item={item} head={head} lists={lists} onClose={() => setAdding(false)} />
        ) : (
          <Button variant="text" onClick={() => setAdding(true)}>
            {t('addForThis')}
          </Button>
        ))}
    </section>
  );
}

function OneTask({ task, head, onTick }: { task: TaskWire; head: BoardHead; onTick: () => void }) {
  const t = useTranslations('tasks');
  const { frame } = useFrame();
  const words = useDueWords();
  const runs = frame.principals.some(({ handle, tasks }) => handle === head.owner.handle && tasks);
  const who = runs ? head.owner.handle : frame.me.handle;
  const at = new URLSearchParams({ list: task.list, task: task.id, ...(task.done ? { done: '1' } : {}) });
  return (
    <div className="gap-2 line middle">
      <Checkbox
        size="small"
        checked={task.done}
        disabled={task.may?.change !== true}
        onChange={onTick}
        slotProps={{ input: { 'aria-label': t('tick', { title: task.title }) } }}
      />
      <span>
        <Link href={`/for/${who}/tasks?${at}`}>{task.title}</Link>{' '}
        <span className="small soft">
          {[task.tie ? t(`tieNames.${task.tie.as}`) : '', words(task)].filter(Boolean).join(' · ')}
        </span>
      </span>
    </div>
  );
}

function AddToItem(props: { item: ItemWire; head: BoardHead; lists: ItemTasksAnswer['lists']; onClose: () => void }) {
  const { item, head, lists, onClose } = props;
  const t = useTranslations('tasks');
  const { said } = useTaskActs();
  const [title, setTitle] = useState('');
  const [as, setAs] = useState<(typeof AS)[number]>('prepare');
  const [days, setDays] = useState('1');
  const [list, setList] = useState(lists[0]?.key ?? '');
  const { attempt, busy, refused, fields, clear } = useActing(['title', 'tie']);
  const add = () =>
    attempt(async () => {
      const tie = { item: item.id, as, days: days.trim() === '' ? 0 : Number(days) };
      const { undo } = await call('addTask', { params: { list }, body: { title, tie } });
      onClose();
      await said(t('added', { own: String(head.own), name: firstName(head.owner.name) }), undo);
    });
  return (
    <form
      noValidate
      className="gap-5 above-4 stack"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        autoFocus
        label={t('what', { own: String(head.own), name: firstName(head.owner.name) })}
        value={title}
        error={!!fields.title}
        helperText={fields.title}
        onChange={(event) => {
          setTitle(event.target.value);
          clear();
        }}
        slotProps={{ htmlInput: { maxLength: 300, autoComplete: 'off' } }}
      />
      <div className="stack with-time">
        <TextField
          select
          label={t('tieAs')}
          value={as}
          onChange={(event) => setAs(event.target.value as (typeof AS)[number])}
        >
          {AS.map((one) => (
            <MenuItem key={one} value={one}>
              {t(`tieNames.${one}`)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label={t(as === 'followUp' ? 'daysAfter' : 'daysBefore')}
          value={days}
          error={!!fields.tie}
          helperText={fields.tie}
          onChange={(event) => {
            setDays(event.target.value);
            clear();
          }}
          slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 4 } }}
        />
      </div>
      {lists.length > 1 && (
        <TextField select label={t('oneList')} value={list} onChange={(event) => setList(event.target.value)}>
          {lists.map(({ key, name }) => (
            <MenuItem key={key} value={key}>
              {name || t('firstList')}
            </MenuItem>
          ))}
        </TextField>
      )}
      <div className="row">
        <Button type="submit" variant="contained" loading={busy}>
          {t('add')}
        </Button>
        <Button variant="text" onClick={onClose}>
          {t('cancel')}
        </Button>
      </div>
    </form>
  );
}
