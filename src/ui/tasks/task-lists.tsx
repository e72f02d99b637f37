'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TaskListWire } from '@/contract/tasks.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import tasksCss from './tasks.module.css';

/** The lists one may open: somebody's, and with one's own those of others, each under its owner's name. */
export function TaskLists(props: {
  who: string;
  lists: readonly TaskListWire[];
  others: readonly TaskListWire[];
  chosen: string | null;
}) {
  const { who, lists, others, chosen } = props;
  const t = useTranslations('tasks');
  const { frame } = useFrame();
  const owners = [...new Map(others.map(({ owner }) => [owner.handle, owner])).values()];
  const own = who === frame.me.handle;
  return (
    <nav className={tasksCss.lists} aria-label={t('lists')}>
      <ul>
        {lists.map((list) => (
          <One key={list.key} who={who} list={list} chosen={list.key === chosen} />
        ))}
      </ul>
      {own && <ListActs list={lists.find(({ key }) => key === chosen) ?? null} />}
      {owners.map((owner) => (
        <section key={owner.handle} aria-label={owner.name}>
          <h2 className="small soft">{owner.name}</h2>
          <ul>
            {others
              .filter((list) => list.owner.handle === owner.handle)
              .map((list) => (
                <One key={list.key} who={who} list={list} chosen={list.key === chosen} />
              ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

function One({ who, list, chosen }: { who: string; list: TaskListWire; chosen: boolean }) {
  const t = useTranslations('tasks');
  return (
    <li className={`who-${list.owner.colour % 6}`}>
      <Link href={`/for/${who}/tasks?list=${list.key}`} aria-current={chosen ? 'true' : undefined}>
        <span>{list.name || t('firstList')}</span>
        <span className="soft small">{list.open === null ? t('many') : list.open > 0 ? list.open : ''}</span>
      </Link>
    </li>
  );
}

/** Beginning a further list, naming the chosen one otherwise, and taking it away. */
function ListActs({ list }: { list: TaskListWire | null }) {
  const t = useTranslations('tasks');
  const { frame, toast } = useFrame();
  const client = useQueryClient();
  const router = useRouter();
  const [naming, setNaming] = useState<'new' | 'other' | null>(null);
  const [name, setName] = useState('');
  const { attempt, busy, refused, fields } = useActing(['name']);
  const me = frame.me.handle;
  const again = () => client.invalidateQueries({ queryKey: KEYS.everyTask });
  const save = () =>
    attempt(async () => {
      if (naming === 'new') {
        const made = await call('addTaskList', { params: { person: me }, body: { name } });
        router.push(`/for/${me}/tasks?list=${made.list}`);
      } else if (list) await call('changeTaskList', { params: { list: list.key }, body: { name } });
      setNaming(null);
      await again();
    });
  const remove = (key: string, called: string) =>
    attempt(async () => {
      await call('removeTaskList', { params: { list: key } });
      const undo = () =>
        void attempt(async () => {
          await call('bringTaskListBack', { params: { list: key } });
          await again();
          router.push(`/for/${me}/tasks?list=${key}`);
        });
      toast({ text: t('listRemoved', { name: called }), undo });
      router.push(`/for/${me}/tasks`);
      await again();
    });
  if (naming)
    return (
      <form
        noValidate
        className={tasksCss.naming}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <TextField
          autoFocus
          label={t('listName')}
          value={name}
          error={!!fields.name || !!refused}
          helperText={fields.name ?? refused}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="row">
          <Button type="submit" variant="contained" loading={busy}>
            {t(naming === 'new' ? 'begin' : 'rename')}
          </Button>
          <Button variant="text" onClick={() => setNaming(null)}>
            {t('cancel')}
          </Button>
        </div>
      </form>
    );
  return (
    <div className={tasksCss.acts}>
      <Button
        variant="text"
        onClick={() => {
          setName('');
          setNaming('new');
        }}
      >
        {t('newList')}
      </Button>
      {list?.may.rename && (
        <Button
          variant="text"
          onClick={() => {
            setName(list.name);
            setNaming('other');
          }}
        >
          {t('rename')}
        </Button>
      )}
      {list?.may.remove && (
        <Button variant="text" loading={busy} onClick={() => void remove(list.key, list.name)}>
          {t('removeList')}
        </Button>
      )}
      {refused && <p className="wrong small">{refused}</p>}
    </div>
  );
}
