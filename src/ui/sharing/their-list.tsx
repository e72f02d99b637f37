'use client';
import { useTranslations } from 'use-intl';
import type { ContactWire } from '@/contract/contacts.ts';
import type { PreviewAnswer } from '@/contract/sharing/sharing.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import type { OtherKind } from '@/core/collection/index.ts';
import { useDueWords } from '../common/due-words.ts';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { atText } from '../common/times.ts';

interface Shown {
  readonly answer: PreviewAnswer;
  readonly which: Which;
}

/** The first of a list, an address book or a folder exactly as an audience gets them, as chosen and as before. */
export function TheirList({ kind, ...shown }: Shown & { readonly kind: OtherKind }) {
  if (kind === 'tasks') return <TheirTasks {...shown} />;
  return kind === 'contacts' ? <TheirContacts {...shown} /> : <TheirMessages {...shown} />;
}

type Which = 'after' | 'before' | 'both';

function TheirTasks({ answer, which }: Shown) {
  const t = useTranslations();
  const words = useDueWords();
  const line = (task: TaskWire) => ({
    id: task.id,
    title: task.title,
    more: [words(task), task.belongsTo, task.notes],
  });
  return (
    <Lines
      which={which}
      before={answer.tasksBefore.map(line)}
      after={answer.tasks.map(line)}
      none={t('lines.noTasks')}
    />
  );
}

function TheirContacts({ answer, which }: Shown) {
  const t = useTranslations();
  const line = (contact: ContactWire) => ({
    id: contact.id,
    title: contact.name,
    more: [
      contact.role,
      contact.organisation,
      contact.place,
      ...(contact.addresses ?? []).map(({ value }) => value),
      ...(contact.phones ?? []).map(({ value }) => value),
      contact.notes,
    ],
  });
  return (
    <Lines
      which={which}
      before={answer.contactsBefore.map(line)}
      after={answer.contacts.map(line)}
      none={t('lines.noContacts')}
    />
  );
}

function TheirMessages({ answer, which }: Shown) {
  const t = useTranslations();
  const { style } = useFrame();
  const line = ({ id, from, at, subject, firstLine, text }: PreviewAnswer['messages'][number]) => ({
    id,
    title: subject || t('threads.noSubject'),
    more: [from, atText(at, style), text === null ? firstLine : text.slice(0, 200)],
  });
  return (
    <Lines
      which={which}
      before={answer.messagesBefore.map(line)}
      after={answer.messages.map(line)}
      none={t('lines.noFolder')}
    />
  );
}

interface Line {
  readonly id: string;
  readonly title: string;
  readonly more: readonly (string | null | undefined)[];
}

function Lines(props: { which: Which; before: readonly Line[]; after: readonly Line[]; none: string }) {
  const { which, before, after, none } = props;
  const t = useTranslations();
  const lists = which === 'both' ? [before, after] : [which === 'before' ? before : after];
  return lists.map((lines, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: the first is before, the second after
    <div key={i} className={`${pageCss.card} below-4`}>
      {lists.length > 1 && <p className="small soft">{i === 0 ? t('lines.before') : t('lines.after')}</p>}
      {lines.length === 0 && <p className="soft">{none}</p>}
      <ul className="list gap-3 stack">
        {lines.map(({ id, title, more }) => (
          <li key={id}>
            <span>{title}</span> <span className="small soft">{more.filter(Boolean).join(' · ')}</span>
          </li>
        ))}
      </ul>
    </div>
  ));
}
