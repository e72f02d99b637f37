'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { MessageBody } from '@/contract/sharing/sharing.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import pageCss from '../../common/page.module.css';

/** The message as it would arrive, at a press: in the reader's language, with what they can see and do. */
export function MessageShown({ calendar, who, body }: { calendar: string; who: string; body: MessageBody }) {
  const t = useTranslations('lines');
  const [open, setOpen] = useState(false);
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'message', body),
    queryFn: () => call('previewMessage', { params: { calendar }, body }),
    enabled: open,
    placeholderData: (was) => was,
  });
  return (
    <div className="gap-3 stack">
      <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)} className="low flush own-width">
        {open ? t('messageHide') : t('messageShow', { name: who })}
      </Button>
      {open && data && (
        <section className={pageCss.card} aria-label={t('messageLabel', { name: who })} lang={data.language}>
          <p className="small soft">{t(data.letter ? 'messageLetter' : 'messageHere', { name: who })}</p>
          {data.subject && (
            <p>
              <b>{data.subject}</b>
            </p>
          )}
          {data.lines.map((line) => (
            <p key={line} className="above-3 lines">
              {line}
            </p>
          ))}
        </section>
      )}
    </div>
  );
}
