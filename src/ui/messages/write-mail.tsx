'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { MessagesAnswer, MessageWire } from '@/contract/messages.ts';
import { useActing } from '../common/fetched/acting.ts';
import { useFrame } from '../common/frame-context.tsx';
import pageCss from '../common/page.module.css';
import { firstName } from '../common/token.tsx';
import { readPeople } from '../meetings/read-people.ts';
import { useMeetingsAgain } from '../meetings/waiting.tsx';

/** Writes a mail in the name of whom this window works for; what was typed stays through every refusal. */
export function WriteMail(props: { messages: MessagesAnswer; answers: MessageWire | null; onDone: () => void }) {
  const { messages, answers, onDone } = props;
  const t = useTranslations();
  const { frame, toast } = useFrame();
  const again = useMeetingsAgain();
  const [to, setTo] = useState(
    answers ? (answers.sent ? answers.to : [answers.from]).map((p) => p.address).join(', ') : '',
  );
  const [subject, setSubject] = useState(answers ? `Re: ${answers.subject.replace(/^(re:\s*)+/i, '')}` : '');
  const [text, setText] = useState('');
  const { attempt, busy, refused, fields: wrong, setFields } = useActing(['to', 'subject', 'text']);
  const { owner, own } = messages;
  const read = readPeople(to);
  const send = async () => {
    if (read.rest) {
      setFields({ to: t('meetings.nobody', { text: read.rest }) });
      return;
    }
    await attempt(async () => {
      await call('writeMail', {
        params: { person: owner.handle },
        body: {
          to: read.people.map(({ address, name }) => ({ address, name })),
          subject,
          text,
          answers: answers?.key ?? null,
        },
      });
      toast({ text: t('threads.mailSent', { count: read.people.length }) });
      onDone();
    });
    again();
  };
  return (
    <form
      className={pageCss.card}
      style={{ display: 'grid', gap: 10, marginBottom: 12 }}
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
      <TextField
        label={t('threads.to')}
        value={to}
        autoFocus={!answers}
        onChange={(e) => setTo(e.target.value)}
        error={wrong.to !== undefined}
        helperText={wrong.to ?? t('threads.toHelp')}
        slotProps={{ inputLabel: { shrink: true } }}
      />
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
        autoFocus={!!answers}
        multiline
        minRows={4}
        maxRows={16}
        onChange={(e) => setText(e.target.value)}
        error={wrong.text !== undefined}
        helperText={wrong.text}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 50_000 } }}
      />
      <div className="row">
        <Button
          type="submit"
          variant="contained"
          color="inherit"
          loading={busy}
          sx={{ bgcolor: 'var(--who)', color: 'var(--paper)' }}
        >
          {t('threads.send', { name: firstName(owner.name), own: own ? 'yes' : 'no', to: read.people.length })}
        </Button>
        <Button variant="outlined" onClick={onDone}>
          {text ? t('form.discard') : t('form.cancel')}
        </Button>
      </div>
    </form>
  );
}
