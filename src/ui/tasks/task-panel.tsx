'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import boardsCss from '../common/boards.module.css';
import { useDueWords } from '../common/due-words.ts';
import { useActing } from '../common/fetched/acting.ts';
import pageCss from '../common/page.module.css';
import { firstName } from '../common/token.tsx';
import { useRepeatWords } from '../items/form/repeat-kinds.ts';
import { ChangeTask } from './change-task.tsx';
import type { OpenTask } from './open-task.ts';
import { Around } from './task-around.tsx';

/** One task: all of it to change for whoever may, and to read for everybody else who sees it in full. */
export function TaskPanel(props: OpenTask) {
  const { task, list } = props;
  const t = useTranslations('tasks');
  return (
    <aside className={boardsCss.panel} aria-label={task.title}>
      <div className="row spread">
        <span className="small soft">
          {t('of', { own: String(list.own), name: list.owner.name, list: list.name || t('firstList') })}
        </span>
        <Button variant="text" onClick={props.onClose}>
          {t('close')}
        </Button>
      </div>
      {task.version === undefined ? (
        <Below {...props} />
      ) : task.may?.change ? (
        <ChangeTask {...props} />
      ) : (
        <Read task={task} list={list} />
      )}
    </aside>
  );
}

/** What is seen of a task below full: removed by whoever made it, where they may. */
function Below({ task, list, onClose, onSaved }: OpenTask) {
  const t = useTranslations('tasks');
  const words = useDueWords();
  const { attempt, busy, refused } = useActing();
  const remove = () =>
    attempt(async () => {
      const { undo } = await call('removeTask', { params: { task: task.id }, query: {} });
      onClose();
      await onSaved(t('removed', { title: task.title }), undo);
    });
  return (
    <>
      <h2>{task.title}</h2>
      <p>{words(task) || t('noDue')}</p>
      {task.belongsTo && <p className="soft">{task.belongsTo}</p>}
      <p className="small soft">{t('seenBelow', { name: firstName(list.owner.name) })}</p>
      {refused && <Alert severity="error">{refused}</Alert>}
      {task.mayRemove && (
        <Button variant="outlined" loading={busy} onClick={() => void remove()} className="own-width">
          {t('remove')}
        </Button>
      )}
    </>
  );
}

function Read({ task, list }: Pick<OpenTask, 'task' | 'list'>) {
  const t = useTranslations('tasks');
  const words = useDueWords();
  const repeatWords = useRepeatWords();
  const facts: readonly [string, string | null | undefined][] = [
    [t('due'), words(task) || t('noDue')],
    [t('comesAgain'), task.repeats ? repeatWords(task.repeats) : null],
    [t('notes'), task.notes],
    [t('link'), task.link],
    [t('categories'), task.categories?.join(', ')],
  ];
  return (
    <>
      <h2>{task.title}</h2>
      <p className="small soft">{t('readOnlyOne', { name: firstName(list.owner.name) })}</p>
      <dl className={pageCss.facts}>
        {facts.flatMap(([name, value]) =>
          value ? [<dt key={name}>{name}</dt>, <dd key={`${name} value`}>{value}</dd>] : [],
        )}
      </dl>
      <Around task={task} list={list} />
    </>
  );
}
