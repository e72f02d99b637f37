'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call } from '@/contract/call.ts';
import type { MessagesAnswer, MessageWire, ThreadAnswer } from '@/contract/messages.ts';
import { useActing } from '../common/fetched/acting.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { firstName } from '../common/token.tsx';
import { readPeople } from '../meetings/read-people.ts';
import { useMeetingsAgain } from '../meetings/waiting.tsx';
import { ToField } from './to-field.tsx';

/** So long after the last stroke what was typed is kept as a draft. */
const PAUSE_MS = 700;

type Draft = NonNullable<ThreadAnswer['draft']>;

/**
 * Writes a mail in the name of whom this window works for. What is typed is kept among the drafts as one types, so that it is there on every device;
 * it stays through every refusal.
 */
export function WriteMail(props: {
  /** In whose name, and whether that is one's own. */
  owner: Pick<MessagesAnswer['owner'], 'handle' | 'name' | 'address'>;
  own: boolean;
  answers: MessageWire | null;
  draft: Draft | null;
  onDone: () => void;
}) {
  const { owner, own, answers, draft, onDone } = props;
  const t = useTranslations();
  const { frame, toast } = useFrame();
  const again = useMeetingsAgain();
  const [to, setTo] = useState(
    draft?.to ?? (answers ? (answers.sent ? answers.to : [answers.from]).map((p) => p.address).join(', ') : ''),
  );
  const [subject, setSubject] = useState(
    draft?.subject ?? (answers ? `Re: ${answers.subject.replace(/^(re:\s*)+/i, '')}` : ''),
  );
  const [text, setText] = useState(draft?.text ?? '');
  const { attempt, busy, refused, fields: wrong, setFields } = useActing(['to', 'subject', 'text']);
  const answered = draft ? draft.answers : (answers?.key ?? null);
  const savedDraft = useSavedMailDraft(owner.handle, { to, subject, text, answers: answered }, draft);
  const read = readPeople(to);
  const send = async () => {
    if (read.rest) {
      setFields({ to: t('meetings.nobody', { text: read.rest }) });
      return;
    }
    const draft = await savedDraft.hold();
    const sent = await attempt(async () => {
      await call('writeMail', {
        params: { person: owner.handle },
        body: {
          to: read.people.map(({ address, name }) => ({ address, name })),
          subject,
          text,
          answers: answered,
          draft,
        },
      });
      toast({ text: t('threads.mailSent', { count: read.people.length }) });
      onDone();
    });
    if (!sent) savedDraft.goOn();
    again();
  };
  const drop = async () => {
    if (!(await savedDraft.drop())) return;
    toast({ text: t('folders.draftDropped') });
    again();
    onDone();
  };
  return (
    <form
      className={`${pageCss.card} gap-5 stack`}
      aria-label={t('threads.mail')}
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      <p className="small soft">
        {own
          ? t('threads.asYourself')
          : t('threads.inName', { name: owner.name, address: owner.address, by: frame.me.name })}
      </p>
      {refused && <p className="wrong">{refused}</p>}
      <ToField value={to} wrong={wrong.to} autoFocus={!answers && !draft} onChange={setTo} />
      <TextField
        label={t('threads.subject')}
        value={subject}
        onChange={(e) => setSubject(e.target.value)}
        error={wrong.subject !== undefined}
        helperText={wrong.subject}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
      />
      <TextField
        label={t('threads.text')}
        value={text}
        autoFocus={!!answers || !!draft}
        multiline
        minRows={5}
        maxRows={16}
        onChange={(e) => setText(e.target.value)}
        error={wrong.text !== undefined}
        helperText={wrong.text}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 50_000 } }}
      />
      <div className="row">
        <Button type="submit" variant="contained" loading={busy}>
          {t('threads.send', { name: firstName(owner.name), own: own ? 'yes' : 'no', to: read.people.length })}
        </Button>
        <Button variant="outlined" onClick={onDone}>
          {t('folders.closeDraft')}
        </Button>
        {savedDraft.there && (
          <Button variant="text" onClick={() => void drop()}>
            {t('folders.dropDraft')}
          </Button>
        )}
        <span className="small soft" role="status">
          {t(`folders.draft.${savedDraft.state}`)}
        </span>
      </div>
    </form>
  );
}

interface Typed {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly answers: string | null;
}

/** Keeps what is typed as a draft, one saving after the other, each on the version of the one before. */
function useSavedMailDraft(person: string, typed: Typed, draft: Draft | null) {
  const client = useQueryClient();
  const said = JSON.stringify(typed);
  const settled = usePaused(said, PAUSE_MS);
  const at = useRef<{ key: string | null; version: number; folder: string | null; said: string }>({
    key: draft?.key ?? null,
    version: draft?.version ?? 0,
    folder: null,
    said,
  });
  const running = useRef<Promise<void>>(Promise.resolve());
  const over = useRef(false);
  const latest = useRef(said);
  latest.current = said;
  const [state, setState] = useState<'none' | 'saving' | 'kept' | 'apart' | 'failed'>(draft ? 'kept' : 'none');
  const apart = useRef(false);
  const save = useCallback(
    (what: string) => {
      const once = async (): Promise<void> => {
        const { key, version } = at.current;
        try {
          const body = { draft: key, version, ...(JSON.parse(what) as Typed) };
          const saved = await call('saveDraft', { params: { person }, body });
          at.current = { key: saved.draft, version: saved.version, folder: saved.folder, said: what };
          setState(apart.current ? 'apart' : 'kept');
        } catch (error) {
          const changed = error instanceof CallRefused && error.body.code === 'changedMeanwhile';
          if (!changed || key === null) return setState('failed');
          // Nobody's words take the place of another's: these are a draft of their own from here on.
          at.current = { key: null, version: 0, folder: null, said: '' };
          apart.current = true;
          await once();
        }
      };
      running.current = running.current.then(async () => {
        if (over.current || at.current.said === what) return;
        setState('saving');
        await once();
      });
      return running.current;
    },
    [person],
  );
  useEffect(() => {
    void save(settled);
  }, [settled, save]);
  // Leaving it before the pause is over loses nothing.
  useEffect(
    () => () => {
      void save(latest.current).then(() => client.invalidateQueries({ queryKey: KEYS.everyonesMessages }));
    },
    [save, client],
  );
  return {
    state,
    there: at.current.key !== null,
    /** Keeps nothing more of it while it is being sent; answers the draft it goes with. */
    hold: async (): Promise<string | null> => {
      over.current = true;
      await running.current;
      return at.current.key;
    },
    /** It wasn't sent after all: what was typed meanwhile is kept. */
    goOn: () => {
      over.current = false;
      void save(latest.current);
    },
    /** Throws it away; answers whether that was done. */
    drop: async (): Promise<boolean> => {
      over.current = true;
      await running.current;
      const { key } = at.current;
      if (key === null) return true;
      try {
        const folder = at.current.folder ?? (await folderOfDraft(key));
        if (folder) await call('changeMessages', { params: { folder }, body: { messages: [key], removed: true } });
        return true;
      } catch {
        over.current = false;
        setState('failed');
        return false;
      }
    },
  };
}

/** In which folder a draft is that wasn't saved here yet. */
async function folderOfDraft(key: string): Promise<string | null> {
  const { thread } = await call('readThread', { params: { message: key } });
  return thread.messages[0]?.folder ?? null;
}
