'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { type KeyboardEvent, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { MessagesAnswer, MessageWire, ThreadWire } from '@/contract/messages.ts';
import { dateText, parseDate } from '@/core/time/index.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { atText, whenText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { ANSWER_KEYS, Answering, type Invitation, useAnswering } from '../meetings/answering.tsx';
import { AskedPeople } from '../meetings/asked-people.tsx';
import { useMeetingsAgain, Waiting } from '../meetings/waiting.tsx';
import threadsCss from './threads.module.css';
import { WriteMail } from './write-mail.tsx';

/** One meeting's messages, or a mail and what answers it. Its row opens it; an invitation is answered from the row by its numbers. */
export function Thread(props: {
  thread: ThreadWire;
  messages: MessagesAnswer;
  chosen: boolean;
  onChoose: (on: boolean) => void;
}) {
  const { thread, messages, chosen, onChoose } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const read = useRead(messages.owner.handle);
  const [open, setOpen] = useState(false);
  const [another, setAnother] = useState(false);
  const { owner, own } = messages;
  const invitation: Invitation | null =
    thread.mayAnswer && thread.item && thread.when
      ? {
          item: thread.item,
          owner: owner.name,
          own,
          organiser: thread.organiser?.name ?? thread.organiser?.address ?? '',
          when: thread.when,
          repeats: thread.repeats,
          answered: thread.answered,
        }
      : null;
  const toggle = () => {
    if (!open) read(thread.messages.filter((m) => m.unread).map((m) => m.key));
    setOpen(!open);
  };
  const last = thread.messages.at(-1);
  // The line that says why it is here, where it needs something; else what is new, else the latest.
  const telling =
    (thread.needs === 'counter' ? thread.messages.findLast((m) => m.kind === 'counter') : undefined) ??
    (thread.needs === 'answer'
      ? thread.messages.findLast((m) => m.kind === 'invitation' || m.kind === 'change')
      : undefined) ??
    (thread.needs === 'question' ? thread.messages.findLast((m) => m.pending) : undefined) ??
    thread.messages.findLast((m) => m.unread && !m.sent) ??
    last;
  const title = thread.withheld ? t('board.private') : (thread.title ?? t('threads.noSubject'));
  return (
    <li
      className={`${threadsCss.thread}${thread.needs ? ` ${threadsCss.needs}` : ''}${thread.unread > 0 ? ` ${threadsCss.unread}` : ''}`}
      aria-label={title}
    >
      <Row
        invitation={invitation}
        onAnother={() => {
          setOpen(true);
          setAnother(true);
        }}
      >
        <span>
          {thread.needs === 'answer' && invitation ? (
            <Tick label={t('threads.tick', { title })} on={chosen} onTick={onChoose} />
          ) : null}
        </span>
        <button type="button" className={threadsCss.open} aria-expanded={open} data-thread onClick={toggle}>
          <span className={threadsCss.title}>
            {thread.unread > 0 && <b className="wrong">{t('messages.new')} </b>}
            {title}
            {thread.needs && thread.needs !== 'answer' && (
              <span className="small wrong"> · {t(`threads.because.${thread.needs}`)}</span>
            )}
            {thread.cancelled && <span className="small wrong"> · {t('threads.off')}</span>}
          </span>
          <span className="small soft">
            {[
              thread.when ? whenText(thread.when, style) : null,
              thread.place,
              thread.organiser
                ? t('threads.calledBy', { name: thread.organiser.name ?? thread.organiser.address })
                : null,
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
          <span className="small">
            {thread.withheld
              ? t('threads.withheld')
              : thread.answered
                ? t('meetings.answered', {
                    name: thread.answered.name,
                    answer: thread.answered.answer,
                    at: atText(thread.answered.at, style),
                  })
                : telling
                  ? lineOf(telling)
                  : null}
          </span>
        </button>
        {invitation && thread.needs === 'answer' && !open ? (
          <Quick
            invitation={invitation}
            onAnother={() => {
              setOpen(true);
              setAnother(true);
            }}
          />
        ) : (
          <span className="small soft">{atText(thread.at, style)}</span>
        )}
      </Row>
      {open && !thread.withheld && (
        <div className={threadsCss.body}>
          <Waiting waiting={thread.waiting} name={owner.name} />
          {thread.messages.map((m) => (
            <Message key={m.key} message={m} messages={messages} />
          ))}
          {thread.part === 'organiser' && thread.item && <Called item={thread.item} messages={messages} />}
          {invitation && <Answering invitation={invitation} opened={another} onOpen={setAnother} />}
          {thread.part === 'organiser' && thread.item && thread.when && !thread.cancelled && (
            <Link href={`/for/${owner.handle}/openings?${new URLSearchParams({ item: thread.item })}`}>
              {t('openings.another')}
            </Link>
          )}
          {thread.item && thread.when && (
            <Link href={`/for/${owner.handle}/calendar?week=${dayOf(thread.when, style.zone)}`}>
              {t('threads.toCalendar')}
            </Link>
          )}
          {thread.kind === 'mail' && messages.maySpeak && last && <Reply messages={messages} last={last} />}
        </div>
      )}
    </li>
  );

  function lineOf(m: MessageWire): string {
    const from = m.from.name ?? m.from.address;
    const names = m.by ? t('threads.for', { by: m.by.name ?? m.by.address, name: from }) : from;
    return t(`threads.kind.${m.kind}`, { who: names, answer: m.answer ?? 'none', says: m.says.slice(0, 120) });
  }
}

const dayOf = (when: { start: string; allDay: boolean }, _zone: string): string =>
  dateText(parseDate(when.start.slice(0, 10)) ?? 0);

/** A row whose invitation its numbers answer, and up and down lead along. */
function Row(props: { invitation: Invitation | null; onAnother: () => void; children: React.ReactNode }) {
  const { invitation, onAnother, children } = props;
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const target = event.target as HTMLElement;
    if (!target.hasAttribute('data-thread')) return;
    const all = [...document.querySelectorAll<HTMLElement>('[data-thread]')];
    const next = all[all.indexOf(target) + (event.key === 'ArrowDown' ? 1 : -1)];
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  const line = (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys belong to the button inside, which has the focus
    <div className={threadsCss.line} onKeyDown={onKeyDown}>
      {children}
    </div>
  );
  return invitation ? (
    <Keys invitation={invitation} onAnother={onAnother}>
      {line}
    </Keys>
  ) : (
    line
  );
}

function Keys({
  invitation,
  onAnother,
  children,
}: {
  invitation: Invitation;
  onAnother: () => void;
  children: React.ReactNode;
}) {
  const { send, seen } = useAnswering(invitation);
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey || !(event.target as HTMLElement).hasAttribute('data-thread'))
      return;
    const answer = ANSWER_KEYS[Number(event.key) - 1];
    if (!answer) return;
    event.preventDefault();
    if (answer === 'another') onAnother();
    else void send({ answer, comment: '', seen, scope: 'all' });
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys belong to the button inside, which has the focus
    <div onKeyDown={onKeyDown}>{children}</div>
  );
}

function Quick({ invitation, onAnother }: { invitation: Invitation; onAnother: () => void }) {
  const t = useTranslations('meetings');
  const { send, busy, seen } = useAnswering(invitation);
  return (
    <span className={threadsCss.quick}>
      {ANSWER_KEYS.map((answer, i) => (
        <Button
          key={answer}
          variant="outlined"
          color="inherit"
          loading={busy}
          sx={{ minHeight: 26, py: 0 }}
          onClick={() => (answer === 'another' ? onAnother() : void send({ answer, comment: '', seen, scope: 'all' }))}
        >
          {t(`answer.${answer}`)}
          <kbd>{i + 1}</kbd>
        </Button>
      ))}
    </span>
  );
}

/** One message: who, in whose name, what it says, and how far its sender is known. */
function Message({ message: m, messages }: { message: MessageWire; messages: MessagesAnswer }) {
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
    <div className={`${threadsCss.message}${m.sent ? ` ${threadsCss.mine}` : ''}`}>
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
          <p>
            <b>{m.subject}</b>
          </p>
          <p className={threadsCss.text}>{m.says}</p>
        </>
      ) : (
        <p className={threadsCss.text}>
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
        <p className="small soft">{t('threads.files', { names: m.files.map((f) => f.name).join(', ') })}</p>
      )}
      {m.pending && messages.maySpeak && (
        <Button variant="outlined" loading={busy} onClick={() => void take()} sx={{ justifySelf: 'start' }}>
          {t('threads.take')}
        </Button>
      )}
    </div>
  );
}

/** The meeting itself, as whoever runs the calendar needs it: who answered, and the times proposed. */
function Called({ item, messages }: { item: string; messages: MessagesAnswer }) {
  const query = useQuery({
    queryKey: KEYS.meeting(item),
    queryFn: () => call('readMeeting', { params: { item } }),
    retry: false,
  });
  if (query.data?.part !== 'organiser') return null;
  return <AskedPeople item={item} owner={messages.owner.name} own={messages.own} meeting={query.data} />;
}

function Reply({ messages, last }: { messages: MessagesAnswer; last: MessageWire }) {
  const t = useTranslations('threads');
  const [open, setOpen] = useState(false);
  if (open) return <WriteMail messages={messages} answers={last} onDone={() => setOpen(false)} />;
  return (
    <Button variant="outlined" onClick={() => setOpen(true)} sx={{ justifySelf: 'start' }}>
      {t('reply', { name: firstName(messages.owner.name), own: messages.own ? 'yes' : 'no' })}
    </Button>
  );
}

/** A box to tick an invitation for answering several. */
function Tick({ label, on, onTick }: { label: string; on: boolean; onTick: (on: boolean) => void }) {
  return (
    <Checkbox
      size="small"
      checked={on}
      onChange={(e) => onTick(e.target.checked)}
      slotProps={{ input: { 'aria-label': label } }}
      sx={{ p: 0 }}
    />
  );
}

/** Marks messages as read by whoever reads them here. */
function useRead(who: string): (keys: readonly string[]) => void {
  const client = useQueryClient();
  return (keys) => {
    if (keys.length === 0) return;
    call('readMessages', { params: { person: who }, body: { messages: [...keys] } })
      .then(() => {
        void client.invalidateQueries({ queryKey: KEYS.frame });
        void client.invalidateQueries({ queryKey: KEYS.messages(who) });
      })
      .catch(() => {});
  };
}
