import Checkbox from '@mui/material/Checkbox';
import type { KeyboardEvent, ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { MessagesAnswer, MessageWire, ThreadWire } from '@/contract/messages.ts';
import { partsOf } from '@/core/mail/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { atText, whenText } from '../common/times.ts';
import { ANSWER_KEYS, type Invitation, useAnswering } from '../meetings/answering.tsx';
import messagesCss from './messages.module.css';

/** An invitation of a thread, as it is answered; `null` where the one who looks can't answer it. */
export function invitationOf(thread: ThreadWire, { owner, own }: MessagesAnswer): Invitation | null {
  if (!thread.mayAnswer || !thread.item || !thread.when) return null;
  return {
    item: thread.item,
    owner: owner.name,
    own,
    organiser: thread.organiser?.name ?? thread.organiser?.address ?? '',
    when: thread.when,
    repeats: thread.repeats,
    answered: thread.answered,
  };
}

/** One meeting's messages, or a mail and what answers it, as a row of a list. It is opened beside it; an invitation is answered from here by its numbers. */
export function ThreadRow(props: {
  thread: ThreadWire;
  messages: MessagesAnswer;
  current: boolean;
  ticked: boolean | null;
  onTick: (on: boolean) => void;
  /** Opens it; `another` where another time is to be said at once. */
  onOpen: (another: boolean) => void;
  onKey: (event: KeyboardEvent) => void;
}) {
  const { thread, messages, current, ticked, onTick, onOpen, onKey } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const invitation = invitationOf(thread, messages);
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
  const marks = [
    thread.messages.some((m) => m.flagged) ? t('folders.flagged') : null,
    thread.messages.some((m) => m.attached) ? t('folders.attached') : null,
    thread.messages.some((m) => m.private) ? t('folders.private') : null,
  ].filter(Boolean);
  const line = thread.withheld
    ? t('threads.withheld')
    : thread.answered
      ? t('meetings.answered', {
          name: thread.answered.name,
          answer: thread.answered.answer,
          at: atText(thread.answered.at, style),
        })
      : telling
        ? lineOf(telling)
        : null;
  const box = (
    <div
      className={`${messagesCss.line}${thread.unread > 0 ? ` ${messagesCss.unread}` : ''}`}
      data-current={current ? '' : undefined}
    >
      {ticked === null ? (
        <span />
      ) : (
        <Checkbox
          size="small"
          checked={ticked}
          onChange={(e) => onTick(e.target.checked)}
          slotProps={{ input: { 'aria-label': t('threads.tick', { title }) } }}
          className="no-room"
        />
      )}
      <button
        type="button"
        className={messagesCss.open}
        aria-expanded={current}
        data-thread
        data-title=""
        onClick={() => onOpen(false)}
        onKeyDown={onKey}
      >
        <span className={messagesCss.title}>
          {thread.unread > 0 && <b className="wrong">{t('messages.new')} </b>}
          {title}
          {thread.needs && thread.needs !== 'answer' && (
            <span className="small wrong"> · {t(`threads.because.${thread.needs}`)}</span>
          )}
          {thread.cancelled && <span className="small wrong"> · {t('threads.off')}</span>}
        </span>
        <span className="small soft">
          {[
            thread.kind === 'mail' && last ? whom(last) : null,
            thread.when ? whenText(thread.when, style) : null,
            thread.place,
            thread.organiser
              ? t('threads.calledBy', { name: thread.organiser.name ?? thread.organiser.address })
              : null,
            line && thread.kind === 'mail' ? line : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
        {thread.kind === 'meeting' && line && <span className="small">{line}</span>}
      </button>
      <span className="small soft right">
        {atText(thread.at, style)}
        {marks.length > 0 && (
          <>
            <br />
            {marks.join(', ')}
          </>
        )}
      </span>
    </div>
  );
  return invitation ? (
    <AnsweredByKeys invitation={invitation} onAnother={() => onOpen(true)}>
      {box}
    </AnsweredByKeys>
  ) : (
    box
  );

  function whom(m: MessageWire): string {
    if (m.sent) return t('folders.toWhom', { names: m.to.map((p) => p.name ?? p.address).join(', ') });
    const from = m.from.name ?? m.from.address;
    return m.by ? t('threads.for', { by: m.by.name ?? m.by.address, name: from }) : from;
  }
  function lineOf(m: MessageWire): string {
    if (thread.kind === 'mail') return m.sight === 'full' ? beginningOf(m.says) : (m.firstLine ?? '');
    const from = m.from.name ?? m.from.address;
    const names = m.by ? t('threads.for', { by: m.by.name ?? m.by.address, name: from }) : from;
    return t(`threads.kind.${m.kind}`, { who: names, answer: m.answer ?? 'none', says: m.says.slice(0, 120) });
  }
}

/** How what somebody wrote begins, beyond whom it greets. */
function beginningOf(text: string): string {
  const own = partsOf(text.slice(0, 2000)).filter((part) => !part.quoted);
  const lines = own.flatMap((part) => part.text.split('\n')).map((line) => line.trim());
  const [first = '', ...rest] = lines.filter((line) => line !== '');
  return (/,$/.test(first) && first.length < 40 && rest.length > 0 ? rest : [first, ...rest]).join(' ').slice(0, 160);
}

/** Up and down lead along the rows of a list that isn't drawn by itself. */
export function alongRows(event: KeyboardEvent): void {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
  const all = [...document.querySelectorAll<HTMLElement>('[data-thread]')];
  const next = all[all.indexOf(event.target as HTMLElement) + (event.key === 'ArrowDown' ? 1 : -1)];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function AnsweredByKeys(props: { invitation: Invitation; onAnother: () => void; children: ReactNode }) {
  const { invitation, onAnother, children } = props;
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
