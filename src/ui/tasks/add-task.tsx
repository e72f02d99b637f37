'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { TaskListWire } from '@/contract/tasks.ts';
import { useActing } from '../common/fetched/acting.ts';
import { DateField } from '../common/fields/date-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import listsCss from '../common/lists/lists.module.css';
import { firstName } from '../common/token.tsx';

/** One line that adds: what is to be done, and by when where that matters. The rest is said where it is opened. */
export function AddTask({
  list,
  onAdded,
}: {
  list: TaskListWire;
  onAdded: (text: string, undo: string) => Promise<void>;
}) {
  const t = useTranslations('tasks');
  const { style } = useFrame();
  const [title, setTitle] = useState('');
  const [due, setDue] = useState('');
  const line = useRef<HTMLInputElement>(null);
  const { attempt, busy, refused, fields, clear } = useActing(['title', 'due']);
  const add = () =>
    attempt(async () => {
      const { undo } = await call('addTask', {
        params: { list: list.key },
        body: { title, due: due === '' ? null : { at: due, zone: style.zone } },
      });
      setTitle('');
      line.current?.focus();
      await onAdded(t('added', { own: String(list.own), name: firstName(list.owner.name) }), undo);
    });
  return (
    <form
      noValidate
      className={listsCss.add}
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <TextField
        inputRef={line}
        label={t('what', { own: String(list.own), name: firstName(list.owner.name) })}
        value={title}
        error={!!fields.title || !!refused}
        helperText={fields.title ?? refused}
        onChange={(event) => {
          setTitle(event.target.value);
          clear();
        }}
        slotProps={{ htmlInput: { maxLength: 300, autoComplete: 'off' } }}
      />
      <DateField label={t('due')} value={due} error={fields.due} width={180} onChange={setDue} />
      <Button type="submit" variant="contained" loading={busy}>
        {t('add')}
      </Button>
    </form>
  );
}
