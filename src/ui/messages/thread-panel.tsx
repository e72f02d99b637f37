import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { FolderWire, MessagesAnswer, ThreadWire } from '@/contract/messages.ts';
import { dateText } from '@/core/time/index.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { wallsOf, whenText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { Answering } from '../meetings/answering.tsx';
import { InvitedPeople } from '../meetings/invited-people.tsx';
import { Waiting } from '../meetings/waiting.tsx';
import { DaysConcerned } from './days-concerned.tsx';
import { Message } from './message.tsx';
import { useMessageActs } from './message-acts.ts';
import messagesCss from './messages.module.css';
import { ProposedMeetingOffer } from './proposed-meeting.tsx';
import { invitationOf } from './thread-row.tsx';
import { WriteMail } from './write-mail.tsx';

/** One thread beside the list: what it is about, the days concerned, what can be answered, what was said, and the line to write back. */
export function ThreadPanel(props: {
  thread: ThreadWire;
  messages: MessagesAnswer;
  folders: readonly FolderWire[];
  /** The folder that is looked into, and whether at what was removed from it. */
  folder: FolderWire | null;
  removed: boolean;
  another: boolean;
  onAnother: (on: boolean) => void;
  onClose: () => void;
}) {
  const { thread: listed, messages, folders, folder, removed, another, onAnother, onClose } = props;
  const t = useTranslations();
  const { style, frame } = useFrame();
  const latest = listed.messages.at(-1);
  const whole = useQuery({
    queryKey: KEYS.thread(messages.owner.handle, latest?.key ?? '', latest?.at ?? ''),
    queryFn: () => call('readThread', { params: { message: latest?.key ?? '' } }),
    enabled: listed.kind === 'mail' && latest?.sight === 'full' && !removed,
    retry: false,
  });
  const [writing, setWriting] = useState(false);
  const { owner, own } = messages;
  const thread = whole.data?.thread ?? listed;
  const draft = whole.data?.draft ?? null;
  const invitation = invitationOf(thread, messages);
  const last = thread.messages.at(-1);
  const heard = thread.messages.findLast((m) => !m.sent && m.sight === 'full');
  const principal = frame.principals.find((p) => p.handle === owner.handle) ?? null;
  const name = firstName(owner.name);
  const title = thread.withheld ? t('board.private') : (thread.title ?? t('threads.noSubject'));
  return (
    <aside
      className={messagesCss.panel}
      aria-label={title}
      onKeyDown={(e) => {
        if (e.key !== 'Escape' || e.defaultPrevented) return;
        e.stopPropagation();
        onClose();
      }}
    >
      <div className={messagesCss.for}>
        <span>{own ? t('folders.yours') : t('folders.for', { name: owner.name })}</span>
        <Button variant="text" className="low" onClick={onClose}>
          {t('panel.close')}
        </Button>
      </div>
      <h1>{title}</h1>
      {thread.kind === 'meeting' && (
        <p className="soft">
          {[
            thread.when ? whenText(thread.when, style) : null,
            thread.place,
            thread.organiser
              ? t('threads.calledBy', { name: thread.organiser.name ?? thread.organiser.address })
              : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      )}
      {thread.withheld ? (
        <p>{t('threads.withheld')}</p>
      ) : (
        <>
          {folder && (removed || folder.role !== 'drafts') && (
            <Acts thread={listed} folder={folder} folders={folders} removed={removed} onGone={onClose} />
          )}
          <Waiting waiting={thread.waiting} name={owner.name} />
          {principal && thread.kind === 'meeting' && !thread.cancelled && (
            <DaysConcerned thread={thread} calendar={principal.calendar} />
          )}
          {thread.part === 'organiser' && thread.item && <Called item={thread.item} messages={messages} />}
          {invitation && <Answering invitation={invitation} opened={another} onOpen={onAnother} />}
          {heard && principal && thread.kind === 'mail' && !removed && (
            <ProposedMeetingOffer message={heard} owner={owner.address} principal={principal} />
          )}
          {draft ? (
            <WriteMail
              key={draft.key}
              owner={draft.owner}
              own={draft.owner.handle === frame.me.handle}
              answers={null}
              draft={draft}
              onDone={onClose}
            />
          ) : (
            thread.messages.map((m) => <Message key={m.key} message={m} messages={messages} title={title} />)
          )}
          <div className={messagesCss.ways}>
            {thread.part === 'organiser' && thread.item && thread.when && !thread.cancelled && (
              <Link href={`/for/${owner.handle}/openings?${new URLSearchParams({ item: thread.item })}`}>
                {t('openings.another')}
              </Link>
            )}
            {thread.item && thread.when && principal && (
              <Link href={`/for/${owner.handle}/calendar?week=${dateText(wallsOf(thread.when, style.zone).start)}`}>
                {t('threads.toCalendar')}
              </Link>
            )}
          </div>
          {thread.kind === 'mail' && !draft && !removed && messages.maySpeak && last?.sight === 'full' && (
            <div className="at-bottom">
              {writing ? (
                <WriteMail
                  owner={owner}
                  own={own}
                  answers={heard ?? last}
                  draft={null}
                  onDone={() => setWriting(false)}
                />
              ) : (
                <Button
                  fullWidth
                  variant="outlined"
                  color="inherit"
                  className={`from-start ${messagesCss.below}`}
                  onClick={() => setWriting(true)}
                >
                  {t('threads.reply', { name, own: own ? 'yes' : 'no' })}
                </Button>
              )}
            </div>
          )}
        </>
      )}
    </aside>
  );
}

/** The thread of one message that is known by its key alone. */
export function NamedThread(props: {
  message: string;
  messages: MessagesAnswer;
  folders: readonly FolderWire[];
  folder: FolderWire | null;
  onClose: () => void;
}) {
  const { message, messages, folders, folder, onClose } = props;
  const t = useTranslations('folders');
  const [another, setAnother] = useState(false);
  const query = useQuery({
    queryKey: KEYS.thread(messages.owner.handle, message, ''),
    queryFn: () => call('readThread', { params: { message } }),
    retry: false,
  });
  if (query.data)
    return (
      <ThreadPanel
        thread={query.data.thread}
        messages={messages}
        folders={folders}
        folder={folder}
        removed={false}
        another={another}
        onAnother={setAnother}
        onClose={onClose}
      />
    );
  return (
    <aside className={messagesCss.panel} aria-label={t('list')}>
      {query.isError ? <p>{t('notThere')}</p> : <QueryState query={query} />}
    </aside>
  );
}

/** What is done with a thread's messages in this folder, as far as one may: each with its way back. */
function Acts(props: {
  thread: ThreadWire;
  folder: FolderWire;
  folders: readonly FolderWire[];
  removed: boolean;
  onGone: () => void;
}) {
  const { thread, folder, folders, removed, onGone } = props;
  const t = useTranslations('folders');
  const nameOf = useCollectionName();
  const { act, busy } = useMessageActs();
  const here = thread.messages.filter((m) => m.folder === folder.key);
  const keys = here.map((m) => m.key);
  const flagged = here.some((m) => m.flagged);
  const isPrivate = here.some((m) => m.private);
  const may = (what: 'change' | 'remove') => here.length > 0 && here.every((m) => m.may[what]);
  const count = keys.length;
  const title = thread.title ?? t('noTitle');
  if (removed)
    return may('remove') ? (
      <div className={messagesCss.acts}>
        <Button
          variant="outlined"
          loading={busy}
          onClick={async () => {
            const back = { folder: folder.key, what: { removed: true } };
            if (await act(folder.key, keys, { removed: false }, t('broughtBack', { title }), back)) onGone();
          }}
        >
          {t('bringBack')}
        </Button>
      </div>
    ) : null;
  const goals = folders.filter(
    (one) =>
      one.owner.handle === folder.owner.handle &&
      one.key !== folder.key &&
      one.may.add &&
      one.role !== 'sent' &&
      one.role !== 'drafts',
  );
  return (
    <div className={messagesCss.acts}>
      {may('change') && (
        <Button
          variant="outlined"
          color="inherit"
          aria-pressed={flagged}
          loading={busy}
          onClick={() => {
            const back = { folder: folder.key, what: { flagged } };
            const words = t(flagged ? 'unflaggedDone' : 'flaggedDone', { title });
            void act(folder.key, keys, { flagged: !flagged }, words, back);
          }}
        >
          {t(flagged ? 'unflag' : 'flag')}
        </Button>
      )}
      {folder.own && (
        <Button
          variant="outlined"
          color="inherit"
          aria-pressed={isPrivate}
          loading={busy}
          onClick={() => {
            const back = { folder: folder.key, what: { private: isPrivate } };
            const words = t(isPrivate ? 'openDone' : 'privateDone', { title });
            void act(folder.key, keys, { private: !isPrivate }, words, back);
          }}
        >
          {t(isPrivate ? 'makeOpen' : 'makePrivate')}
        </Button>
      )}
      {may('remove') && (
        <Button
          variant="outlined"
          color="inherit"
          loading={busy}
          onClick={async () => {
            const back = { folder: folder.key, what: { removed: false } };
            if (await act(folder.key, keys, { removed: true }, t('removedDone', { title, count }), back)) onGone();
          }}
        >
          {t('remove')}
        </Button>
      )}
      {may('remove') && goals.length > 0 && (
        <TextField
          select
          label={t('fileInto')}
          value=""
          className="field-1"
          fullWidth={false}
          onChange={async (event) => {
            const to = goals.find((one) => one.key === event.target.value);
            if (!to) return;
            const back = { folder: to.key, what: { to: folder.key } };
            const words = t('filedDone', { title, folder: nameOf('folder', to.name) });
            if (await act(folder.key, keys, { to: to.key }, words, back)) onGone();
          }}
        >
          {goals.map((one) => (
            <MenuItem key={one.key} value={one.key}>
              {nameOf('folder', one.name)}
            </MenuItem>
          ))}
        </TextField>
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
  return <InvitedPeople item={item} owner={messages.owner.name} own={messages.own} meeting={query.data} />;
}
