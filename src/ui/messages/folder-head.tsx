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
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { NameForm } from '../common/lists/name-form.tsx';
import { RequestMore } from '../common/requests/request-more.tsx';
import { firstName } from '../common/token.tsx';
import messagesCss from './messages.module.css';

/** Of one folder: whose it is, who sees it, what was removed from it, and what else is done with all of it. */
export function FolderHead(props: {
  who: string;
  folder: FolderWire;
  folders: readonly FolderWire[];
  removed: boolean;
  onRemoved: () => void;
}) {
  const { who, folder, folders, removed, onRemoved } = props;
  const t = useTranslations('folders');
  const nameOf = useCollectionName();
  const { frame, toast } = useFrame();
  const router = useRouter();
  const client = useQueryClient();
  const { attempt, busy, refused, fields } = useActing(['name', 'parent']);
  const [naming, setNaming] = useState(false);
  const [moving, setMoving] = useState(false);
  const acted = frame.principals.some((p) => p.handle === folder.owner.handle);
  const query = new URLSearchParams({ c: folder.key, ...(acted ? {} : { of: folder.owner.handle }) });
  const again = () => client.invalidateQueries({ queryKey: KEYS.everyonesMessages });
  const remove = () =>
    attempt(async () => {
      await call('removeFolder', { params: { folder: folder.key } });
      const undo = () =>
        void attempt(async () => {
          await call('bringFolderBack', { params: { folder: folder.key } });
          await again();
        });
      toast({ text: t('folderRemoved', { name: folder.name }), undo });
      router.push(`/for/${who}/messages`);
      await again();
    });
  if (naming)
    return (
      <NameForm
        label={t('folderName')}
        save={t('rename')}
        cancel={t('cancel')}
        name={folder.name}
        wrong={fields.name ?? refused}
        busy={busy}
        className={messagesCss.naming ?? ''}
        onCancel={() => setNaming(false)}
        onSave={(name) =>
          void attempt(async () => {
            await call('changeFolder', { params: { folder: folder.key }, body: { name } });
            setNaming(false);
            await again();
          })
        }
      />
    );
  return (
    <div className={`${messagesCss.cards} small below-2`}>
      <div className={messagesCss.ways}>
        {!folder.own && <span className="soft">{folder.owner.name}</span>}
        {!folder.own && (!folder.may.add || folder.rights.sight !== 'full') && (
          <span className="soft">
            {!folder.may.add && t('readOnly', { name: firstName(folder.owner.name) })}{' '}
            <RequestMore
              handle={folder.owner.handle}
              name={folder.owner.name}
              of={{ ...folder, main: false, kind: 'folder' }}
              has={folder.rights}
              small
            />
          </span>
        )}
        {folder.may.share && (
          <Link href={`/for/${acted ? folder.owner.handle : frame.me.handle}/sightlines?${query}`}>{t('whoSees')}</Link>
        )}
        <Button variant="text" className="slim" aria-pressed={removed} onClick={onRemoved}>
          {removed ? t('removedBack') : t('removed')}
        </Button>
        {folder.may.rename && (
          <>
            <Button variant="text" className="slim" onClick={() => setNaming(true)}>
              {t('rename')}
            </Button>
            <Button variant="text" className="slim" onClick={() => setMoving(!moving)}>
              {t('moveFolder')}
            </Button>
            <Button variant="text" className="slim" loading={busy} onClick={() => void remove()}>
              {t('removeFolder')}
            </Button>
          </>
        )}
      </div>
      {moving && (
        <TextField
          select
          label={t('into')}
          value={folder.parent ?? 'top'}
          className="above-4 field-4"
          error={!!fields.parent}
          helperText={fields.parent}
          onChange={(event) =>
            void attempt(async () => {
              const parent = event.target.value === 'top' ? null : event.target.value;
              await call('moveFolder', { params: { folder: folder.key }, body: { parent } });
              setMoving(false);
              await again();
            })
          }
        >
          <MenuItem value="top">{t('onTop')}</MenuItem>
          {folders
            .filter((one) => one.own && one.key !== folder.key && one.role !== 'sent' && one.role !== 'drafts')
            .map((one) => (
              <MenuItem key={one.key} value={one.key}>
                {nameOf('folder', one.name)}
              </MenuItem>
            ))}
        </TextField>
      )}
      {refused && <p className="wrong">{refused}</p>}
    </div>
  );
}
