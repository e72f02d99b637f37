'use client';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call, sendAttachment } from '@/contract/call.ts';
import type { AttachmentsAnswer } from '@/contract/items/attachments.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';

/** The files of an item, to be saved by whoever sees it in full; added and taken away by whoever may change it. */
export function FilesCard({ item, calendar }: { item: ItemWire; calendar: string }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const client = useQueryClient();
  const input = useId();
  const [adding, setAdding] = useState<string | null>(null);
  const { attempt, refused } = useActing();
  const queryKey = KEYS.calendar(calendar, 'files', item.id, item.version ?? 0);
  const { data } = useQuery({
    queryKey,
    queryFn: () => call('listAttachments', { params: { item: item.id } }),
    placeholderData: (before) => before,
    retry: false,
    meta: { item: item.id },
  });
  const doing = async (work: () => Promise<AttachmentsAnswer>) => {
    return attempt(async () => {
      client.setQueryData(queryKey, await work());
      void client.invalidateQueries({ queryKey: KEYS.calendar(calendar, 'trail', item.id) });
    });
  };
  const add = async (files: readonly File[]) => {
    for (const file of files) {
      setAdding(file.name);
      if (!(await doing(() => sendAttachment(item.id, file)))) break;
    }
    setAdding(null);
  };
  const remove = async (key: string, name: string) => {
    const params = { attachment: key };
    if (!(await doing(() => call('removeAttachment', { params })))) return;
    toast({
      text: t('files.removed', { name }),
      undo: () => void doing(() => call('bringBackAttachment', { params })),
    });
  };
  if (!data || (data.files.length === 0 && !data.may)) return null;
  return (
    <section className={pageCss.card} aria-label={t('files.title')}>
      <h3>{t('files.title')}</h3>
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      <ul className="plain list gap-2 stack">
        {data.files.map((file) => (
          <li key={file.key} className="row spread nowrap">
            <span className="may-shrink anywhere">
              <a href={`/api/attachments/${file.key}`} download={file.name}>
                {file.name}
              </a>
              <span className="small soft block">
                {t('files.facts', { size: sizeText(file.bytes), by: file.by })}
                {file.ofSeries && `, ${t('files.ofSeries')}`}
              </span>
            </span>
            {data.may && !file.ofSeries && (
              <Button
                variant="text"
                aria-label={t('files.removeFile', { name: file.name })}
                onClick={() => void remove(file.key, file.name)}
              >
                {t('files.remove')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {data.may && (
        <div className="row above-2">
          <input
            id={input}
            type="file"
            multiple
            className="visually-hidden"
            aria-label={t('files.add')}
            onChange={(event) => {
              const files = [...(event.target.files ?? [])];
              event.target.value = '';
              void add(files);
            }}
          />
          <Button variant="outlined" component="label" htmlFor={input} tabIndex={-1} loading={adding !== null}>
            {t('files.add')}
          </Button>
          <span className="small soft" role="status">
            {adding === null ? t('files.help') : t('files.adding', { name: adding })}
          </span>
        </div>
      )}
    </section>
  );
}

function sizeText(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  return bytes < 1_000_000 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
}
