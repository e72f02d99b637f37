import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { TaskListWire, TaskWire } from '@/contract/tasks.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { atText, whenText } from '../common/times.ts';
import { foundAt } from '../items/panels/found-at.ts';

/** What a task belongs to, the time set aside for it, and who made it in whose name. */
export function Around({ task, list, onFree }: { task: TaskWire; list: TaskListWire; onFree?: () => void }) {
  const t = useTranslations('tasks');
  const { style, frame } = useFrame();
  const { tie, time, created, changed } = task;
  return (
    <div className="small soft gap-2 stack">
      {tie && (
        <p>
          {t(`tied.${tie.as}`, { days: tie.days })}{' '}
          {task.belongsTo ? (
            tie.item && tie.at ? (
              <Link
                href={foundAt(
                  { ...tie.at, owner: list.owner, of: tie.at.main ? null : '', item: { ...tie.at, id: tie.item } },
                  frame,
                  style,
                )}
              >
                {task.belongsTo}
              </Link>
            ) : (
              task.belongsTo
            )
          ) : (
            t('unseen')
          )}{' '}
          {onFree && (
            <Button variant="text" onClick={onFree} className="slim">
              {t('free')}
            </Button>
          )}
        </p>
      )}
      {time && <p>{t('timeSet', { when: whenText({ ...time, allDay: false }, style) })}</p>}
      {created && (
        <p>
          {t('made', {
            by: created.actor,
            for: created.principal,
            at: atText(created.at, style),
            same: String(created.actor === created.principal),
          })}
        </p>
      )}
      {changed && changed.at !== created?.at && (
        <p>
          {t('changedBy', {
            by: changed.actor,
            for: changed.principal,
            at: atText(changed.at, style),
            same: String(changed.actor === changed.principal),
          })}
        </p>
      )}
    </div>
  );
}
