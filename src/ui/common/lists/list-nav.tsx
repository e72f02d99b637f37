'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../fetched/acting.ts';
import { KEYS } from '../fetched/query-keys.ts';
import { useFrame } from '../frame-context.tsx';
import { Link } from '../link.tsx';
import listsCss from './lists.module.css';
import { NameForm } from './name-form.tsx';

/** What a screen shows lists of: it is the name of its section, and of its words. */
export type ListsOf = 'tasks' | 'contacts';

/** A list as it stands among others. */
export interface Listed {
  readonly key: string;
  readonly name: string;
  readonly owner: { readonly handle: string; readonly name: string; readonly colour: number };
  readonly may: { readonly rename: boolean; readonly remove: boolean };
  /** How much is in it, in words. */
  readonly count: string;
}

/** The lists one may open: somebody's, and with one's own those of others, each under its owner's name. */
export function ListNav(props: {
  of: ListsOf;
  who: string;
  lists: readonly Listed[];
  others: readonly Listed[];
  chosen: string | null;
}) {
  const { of, who, lists, others, chosen } = props;
  const t = useTranslations(of);
  const { frame } = useFrame();
  const owners = [...new Map(others.map(({ owner }) => [owner.handle, owner])).values()];
  const own = who === frame.me.handle;
  return (
    <nav className={listsCss.lists} aria-label={t('lists')}>
      <ul>
        {lists.map((list) => (
          <One key={list.key} of={of} who={who} list={list} chosen={list.key === chosen} />
        ))}
      </ul>
      {own && <ListActs of={of} list={lists.find(({ key }) => key === chosen) ?? null} />}
      {owners.map((owner) => (
        <section key={owner.handle} aria-label={owner.name}>
          <h2 className="small soft">{owner.name}</h2>
          <ul>
            {others
              .filter((list) => list.owner.handle === owner.handle)
              .map((list) => (
                <One key={list.key} of={of} who={who} list={list} chosen={list.key === chosen} />
              ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

function One({ of, who, list, chosen }: { of: ListsOf; who: string; list: Listed; chosen: boolean }) {
  const t = useTranslations(of);
  return (
    <li className={`who-${list.owner.colour % 6}`}>
      <Link href={`/for/${who}/${of}?list=${list.key}`} aria-current={chosen ? 'true' : undefined}>
        <span>{list.name || t('firstList')}</span>
        <span className="soft small">{list.count}</span>
      </Link>
    </li>
  );
}

/** Beginning a further list, naming the chosen one otherwise, and taking it away. */
function ListActs({ of, list }: { of: ListsOf; list: Listed | null }) {
  const t = useTranslations(of);
  const { frame, toast } = useFrame();
  const client = useQueryClient();
  const router = useRouter();
  const [naming, setNaming] = useState<'new' | 'other' | null>(null);
  const { attempt, busy, refused, fields } = useActing(['name']);
  const me = frame.me.handle;
  const again = () => client.invalidateQueries({ queryKey: of === 'tasks' ? KEYS.everyTask : KEYS.everyContact });
  const save = (name: string) =>
    attempt(async () => {
      if (naming === 'new') {
        const made = await call(of === 'tasks' ? 'addTaskList' : 'addAddressBook', {
          params: { person: me },
          body: { name },
        });
        router.push(`/for/${me}/${of}?list=${made.list}`);
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
          router.push(`/for/${me}/${of}?list=${key}`);
        });
      toast({ text: t('listRemoved', { name: called }), undo });
      router.push(`/for/${me}/${of}`);
      await again();
    });
  if (naming)
    return (
      <NameForm
        key={naming}
        label={t('listName')}
        save={t(naming === 'new' ? 'begin' : 'rename')}
        cancel={t('cancel')}
        name={naming === 'new' ? '' : (list?.name ?? '')}
        wrong={fields.name ?? refused}
        busy={busy}
        className={listsCss.naming ?? ''}
        onCancel={() => setNaming(null)}
        onSave={(name) => void save(name)}
      />
    );
  return (
    <div className={listsCss.acts}>
      <Button variant="text" onClick={() => setNaming('new')}>
        {t('newList')}
      </Button>
      {list?.may.rename && (
        <Button variant="text" onClick={() => setNaming('other')}>
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
