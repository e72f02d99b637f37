'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { MeetingAnswer } from '@/contract/meetings/meetings.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { useFrame } from '../common/frame-context.tsx';
import { whenText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import meetingsCss from './meetings.module.css';
import { useLeaving, useMeetingsAgain } from './waiting.tsx';

/** Whom a meeting asks and what each answered, with what may be done about it: a proposed time taken or left, a nudge, mail sent again. */
export function InvitedPeople(props: { item: string; owner: string; own: boolean; meeting: MeetingAnswer }) {
  const { item, owner, own, meeting } = props;
  const tm = useTranslations('meetings');
  const { style } = useFrame();
  const leaving = useLeaving();
  const again = useMeetingsAgain();
  const { attempt, busy } = useActingWithToast();
  const act = async (body: Parameters<typeof call<'actOnMeeting'>>[1]['body']) => {
    await attempt(async () => {
      const answer = await call('actOnMeeting', { params: { item }, body });
      if (answer.sending) leaving(answer.sending, owner, own);
    });
    again();
  };
  const silent = meeting.people.filter((p) => p.asked && p.answer === 'needs-action' && p.kind === 'person');
  return (
    <div className="stack">
      <p className="small soft">
        {tm('counts', {
          yes: meeting.people.filter((p) => p.answer === 'accepted').length,
          no: meeting.people.filter((p) => p.answer === 'declined').length,
          open: meeting.people.filter((p) => p.answer === 'needs-action').length,
        })}
      </p>
      <ul className={meetingsCss.people}>
        {meeting.people.map((p) => (
          <li key={p.address}>
            <span className={meetingsCss.who}>
              {p.name ?? p.address}
              <small>
                {[
                  p.outside ? tm('outside') : null,
                  p.role === 'may' ? tm('role.may') : null,
                  p.asked ? null : tm('notAsked'),
                  p.group ? p.group.name : null,
                  p.sentBy ? tm('insteadOf', { name: p.sentBy }) : null,
                  p.sends ? tm('sends', { name: p.sends }) : null,
                  p.by ? tm('answeredBy', { name: p.by }) : null,
                  p.mail === 'failed' ? tm('mailFailed') : null,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </small>
            </span>
            <span className={p.answer === 'declined' ? 'small wrong' : 'small'}>{tm(`gave.${p.answer}`)}</span>
            <span />
            {p.comment && <span className={`small ${meetingsCss.wide}`}>“{p.comment}”</span>}
            {p.mail === 'failed' && meeting.may.change && (
              <Button
                variant="outlined"
                className={meetingsCss.wide}
                loading={busy}
                onClick={() => void act({ act: 'mailAgain', attendee: p.address })}
              >
                {tm('mailAgain')}
              </Button>
            )}
            {p.counter && (
              <span className={`${meetingsCss.wide} ${meetingsCss.said}`}>
                {tm('wants', { when: whenText(p.counter.when, style) })}
                {p.counter.comment && ` “${p.counter.comment}”`}
                {meeting.may.change && (
                  <span className={`${meetingsCss.row} above-2`}>
                    <Button
                      variant="contained"
                      loading={busy}
                      onClick={() => void act({ act: 'takeCounter', attendee: p.address, version: meeting.version })}
                    >
                      {tm('takeTime', { count: meeting.people.filter((one) => one.asked).length })}
                    </Button>
                    <Button
                      variant="outlined"
                      loading={busy}
                      onClick={() => void act({ act: 'declineCounter', attendee: p.address, comment: '' })}
                    >
                      {tm('leaveTime', { name: firstName(p.name ?? p.address) })}
                    </Button>
                  </span>
                )}
              </span>
            )}
          </li>
        ))}
      </ul>
      {silent.length > 0 && meeting.may.change && meeting.state === 'sent' && (
        <Button variant="outlined" loading={busy} onClick={() => void act({ act: 'nudge', whom: null })}>
          {tm('nudge', { count: silent.length, name: firstName(owner), own: own ? 'yes' : 'no' })}
        </Button>
      )}
    </div>
  );
}
