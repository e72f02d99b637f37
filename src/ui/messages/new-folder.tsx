import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { FolderWire } from '@/contract/messages.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import messagesCss from './messages.module.css';

/** Begins a folder of one's own, in another one or beside them. */
export function NewFolder(props: { who: string; lists: readonly FolderWire[]; onDone: () => void }) {
  const { who, lists, onDone } = props;
  const t = useTranslations('folders');
  const nameOf = useCollectionName();
  const client = useQueryClient();
  const router = useRouter();
  const [name, setName] = useState('');
  const goals = lists.filter((one) => one.own && one.role !== 'sent' && one.role !== 'drafts');
  const [parent, setParent] = useState(goals.find((one) => one.role === 'filed')?.key ?? 'top');
  const { attempt, busy, refused, fields } = useActing(['name', 'parent']);
  const save = () =>
    attempt(async () => {
      const body = { name, parent: parent === 'top' ? null : parent };
      const made = await call('addFolder', { params: { person: who }, body });
      await client.invalidateQueries({ queryKey: KEYS.everyonesMessages });
      onDone();
      router.push(`/for/${who}/messages?folder=${made.list}`);
    });
  return (
    <form
      noValidate
      aria-label={t('newFolder')}
      className={`${messagesCss.cards} stack`}
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <TextField
        autoFocus
        label={t('folderName')}
        value={name}
        error={!!fields.name || !!refused}
        helperText={fields.name ?? refused}
        onChange={(event) => setName(event.target.value)}
      />
      <TextField
        select
        label={t('into')}
        value={parent}
        error={!!fields.parent}
        helperText={fields.parent ?? t('intoHelp')}
        onChange={(event) => setParent(event.target.value)}
      >
        <MenuItem value="top">{t('onTop')}</MenuItem>
        {goals.map((one) => (
          <MenuItem key={one.key} value={one.key}>
            {nameOf('folder', one.name)}
          </MenuItem>
        ))}
      </TextField>
      <div className="row">
        <Button type="submit" variant="contained" loading={busy}>
          {t('begin')}
        </Button>
        <Button variant="text" onClick={onDone}>
          {t('cancel')}
        </Button>
      </div>
    </form>
  );
}
