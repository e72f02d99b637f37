'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AnswerBody } from '@/contract/meetings/meetings.ts';
import { dateText, parseDate, wallText } from '@/core/time/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { sentenceOf } from '../common/fetched/refusal.ts';
import { DateField } from '../common/fields/date-field.tsx';
import { TimeField } from '../common/fields/time-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { atText, DAY, wallsOf } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import meetingsCss from './meetings.module.css';
import { useLeaving, useMeetingsAgain } from './waiting.tsx';

export const ANSWER_KEYS = ['accepted', 'tentative', 'declined', 'another'] as const;
type Answering = (typeof ANSWER_KEYS)[number];
type Seen = AnswerBody['seen'];

/** An invitation as it is to be answered: where, in whose name, and how it stood when it was looked at. */
export interface Invitation {
  readonly item: string;
  readonly owner: string;
  readonly own: boolean;
  readonly organiser: string;
  readonly when: { readonly start: string; readonly end: string; readonly allDay: boolean };
  readonly repeats: boolean;
  readonly answered: { readonly answer: Seen; readonly name: string; readonly at: string } | null;
}

/** Sends an answer; what is refused is said at its place. Answers whether it was taken. */
export function useAnswering(invitation: Invitation) {
  const leaving = useLeaving();
  const again = useMeetingsAgain();
  const { toast } = useFrame();
  const { attempt, busy, refused } = useActing();
  const seen: Seen = invitation.answered?.answer ?? 'needs-action';
  const send = async (body: AnswerBody): Promise<boolean> => {
    const taken = await attempt(
      async () => {
        const answer = await call('answerItem', { params: { item: invitation.item }, body });
        if (answer.sending) leaving(answer.sending, invitation.owner, invitation.own);
      },
      (why) => {
        toast({ text: sentenceOf(why) });
        return sentenceOf(why);
      },
    );
    again();
    return taken;
  };
  return { send, busy, refused, seen };
}

/** The four answers to an invitation, each by its number, with a few words; another time opens its own lines. */
export function Answering(props: {
  invitation: Invitation;
  /** Which of the four is being given now: by a key of the row around it. */
  opened: boolean;
  onOpen: (opened: boolean) => void;
}) {
  const { invitation, opened, onOpen } = props;
  const t = useTranslations('meetings');
  const { style } = useFrame();
  const { send, busy, refused, seen } = useAnswering(invitation);
  const [words, setWords] = useState('');
  const { start, end } = wallsOf(invitation.when, style.zone);
  const [day, setDay] = useState(dateText(start));
  const [from, setFrom] = useState(wallText(start).slice(11, 16));
  const [to, setTo] = useState(wallText(end).slice(11, 16));
  const [scope, setScope] = useState<'one' | 'all'>('all');
  const { answered } = invitation;
  const name = firstName(invitation.owner);
  const give = async (answer: Answering) => {
    if (answer === 'another') {
      onOpen(!opened);
      return;
    }
    if (await send({ answer, comment: words, seen, scope: invitation.repeats ? scope : 'all' })) setWords('');
  };
  const propose = async () => {
    const allDay = invitation.when.allDay;
    const length = Math.max(1, Math.round((end - start) / DAY));
    const until = dateText((parseDate(day) ?? start) + length * DAY);
    const when = allDay
      ? { start: day, end: until, allDay, zone: style.zone }
      : { start: `${day}T${from}`, end: `${day}T${to}`, allDay, zone: style.zone };
    if (await send({ answer: 'another', when, comment: words, seen, scope: 'all' })) {
      setWords('');
      onOpen(false);
    }
  };
  return (
    <div className="stack">
      {answered && (
        <p className={meetingsCss.said}>
          {t('answered', {
            name: answered.name,
            answer: answered.answer,
            at: atText(answered.at, style),
          })}
        </p>
      )}
      {refused && <p className="wrong">{refused}</p>}
      <TextField
        label={t('words', { name: firstName(invitation.organiser) })}
        value={words}
        onChange={(e) => setWords(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 2000 } }}
      />
      {invitation.repeats && (
        <TextField
          select
          label={t('scope')}
          value={scope}
          onChange={(e) => setScope(e.target.value as 'one' | 'all')}
          slotProps={{ inputLabel: { shrink: true }, select: { native: true } }}
        >
          <option value="all">{t('scopeAll')}</option>
          <option value="one">{t('scopeOne')}</option>
        </TextField>
      )}
      <section
        className={meetingsCss.answers}
        aria-label={t('answerFor', { name, own: invitation.own ? 'yes' : 'no' })}
      >
        {ANSWER_KEYS.map((answer, i) => (
          <Button
            key={answer}
            variant={answered?.answer === answer ? 'contained' : 'outlined'}
            color="inherit"
            loading={busy}
            aria-expanded={answer === 'another' ? opened : undefined}
            aria-keyshortcuts={String(i + 1)}
            onClick={() => void give(answer)}
          >
            {t(`answer.${answer}`)}
            <kbd>{i + 1}</kbd>
          </Button>
        ))}
      </section>
      {opened && (
        <div className="stack">
          <DateField label={t('anotherDay')} value={day} error={undefined} onChange={setDay} />
          {!invitation.when.allDay && (
            <div className="stack halves">
              <TimeField
                label={t('anotherFrom')}
                value={from}
                error={undefined}
                onChange={setFrom}
                onLeave={() => {}}
              />
              <TimeField label={t('anotherTo')} value={to} error={undefined} onChange={setTo} onLeave={() => {}} />
            </div>
          )}
          <Button variant="contained" loading={busy} onClick={() => void propose()}>
            {t('propose', { organiser: firstName(invitation.organiser), name, own: invitation.own ? 'yes' : 'no' })}
          </Button>
        </div>
      )}
      <p className="small soft">
        {t('answersGo', { name, own: invitation.own ? 'yes' : 'no', organiser: invitation.organiser })}
      </p>
    </div>
  );
}
