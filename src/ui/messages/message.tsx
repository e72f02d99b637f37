import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { MessagesAnswer, MessageWire } from '@/contract/messages.ts';
import { partsOf } from '@/core/mail/index.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { useFrame } from '../common/frame-context.tsx';
import { atText, whenText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { useMeetingsAgain } from '../meetings/waiting.tsx';
import messagesCss from './messages.module.css';

/** One message: who, in whose name, what it says, what came with it, and how far its sender is known. */
export function Message(props: {
  message: MessageWire;
  messages: MessagesAnswer;
  /** What the thread is called, which isn't said again. */
  title: string;
}) {
  const { message: m, messages, title } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const again = useMeetingsAgain();
  const { attempt, busy } = useActingWithToast();
  const from = m.from.name ?? m.from.address;
  const names = m.by ? t('threads.for', { by: m.by.name ?? m.by.address, name: from }) : from;
  const take = async () => {
    await attempt(async () => {
      await call('takeMessage', { params: { message: m.key } });
    });
    again();
  };
  return (
    <div className={messagesCss.message}>
      <p className="small soft">
        {[
          m.sent
            ? t('threads.sentTo', { who: names, to: m.to.map((p) => p.name ?? p.address).join(', ') })
            : t('threads.from', { who: names, address: m.from.address }),
          atText(m.at, style),
          m.checked === false ? t('threads.notChecked') : null,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {m.kind === 'mail' ? (
        <>
          {m.subject && bare(m.subject) !== bare(title) && (
            <p>
              <b>{m.subject}</b>
            </p>
          )}
          {m.sight === 'full' ? (
            <Text text={m.says} />
          ) : (
            <p className="soft">
              {[m.firstLine, m.attached ? t('folders.attached') : null, t(`folders.seen.${m.sight}`)]
                .filter(Boolean)
                .join(' · ')}
            </p>
          )}
        </>
      ) : (
        <p className={messagesCss.text}>
          {t(`threads.kind.${m.kind}`, { who: firstName(from), answer: m.answer ?? 'none', says: '' })}
          {m.when && ` ${whenText(m.when, style)}.`}
          {m.says && ` “${m.says}”`}
        </p>
      )}
      {m.why && (
        <p className="small wrong">
          {t(`meetings.why.${m.why as 'again'}`, {
            from,
            answer: m.answer ?? 'none',
            attendee: m.attendee ?? t('meetings.someoneElse'),
          })}
        </p>
      )}
      {m.sentInstead && <p className="small wrong">{t('threads.sentInstead', { who: m.sentInstead })}</p>}
      {m.mark && (
        <p className={m.mark === 'automatic' ? 'small soft' : 'small wrong'}>
          {t(`threads.mark.${m.mark as 'leftOut'}`, { left: m.leftOut })}
        </p>
      )}
      {m.files.length > 0 && (
        <section className={messagesCss.files} aria-label={t('folders.files')}>
          {m.files.map((file, i) =>
            file.key === null ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: files have no other name, and never move
              <span key={i} className="small soft">
                {t('folders.fileNotKept', { name: file.name })}
              </span>
            ) : (
              <a
                key={file.key}
                className="small"
                href={`/api/messages/${m.key}/files/${file.key}`}
                target="_blank"
                rel="noreferrer noopener"
              >
                {t('folders.file', { name: file.name, kb: Math.max(1, Math.round(file.bytes / 1000)) })}
              </a>
            ),
          )}
        </section>
      )}
      {m.pending && messages.maySpeak && (
        <Button variant="outlined" loading={busy} onClick={() => void take()} className="own-width">
          {t('threads.take')}
        </Button>
      )}
    </div>
  );
}

const bare = (subject: string): string => subject.replace(/^((re|fwd?)\s*:\s*)+/i, '').trim();

/** A mail's text: what it repeats of another is folded away. */
function Text({ text }: { text: string }) {
  return partsOf(text).map((part, i) =>
    part.quoted ? (
      // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text never move
      <Quoted key={i} text={part.text} />
    ) : part.text.trim() === '' ? null : (
      // biome-ignore lint/suspicious/noArrayIndexKey: likewise
      <p key={i} className={messagesCss.text}>
        {part.text.trim()}
      </p>
    ),
  );
}

function Quoted({ text }: { text: string }) {
  const t = useTranslations('folders');
  const [open, setOpen] = useState(false);
  return (
    <div>
      <Button variant="text" className="small slim" aria-expanded={open} onClick={() => setOpen(!open)}>
        {t(open ? 'foldQuoted' : 'showQuoted', { lines: text.split('\n').length })}
      </Button>
      {open && <p className={`${messagesCss.text} ${messagesCss.quoted}`}>{text}</p>}
    </div>
  );
}
