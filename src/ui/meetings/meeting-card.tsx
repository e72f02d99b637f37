'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import type { MeetingAnswer } from '@/contract/meetings/meetings.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { isSpokenFor } from '../common/keys.ts';
import pageCss from '../common/page.module.css';
import { ANSWER_KEYS, Answering, type Invitation, useAnswering } from './answering.tsx';
import { InvitedPeople } from './invited-people.tsx';
import { Waiting } from './waiting.tsx';

/** A meeting as whoever runs the calendar needs it: answering it, or who answered, what waits, and what came that a person has to look at. */
export function MeetingCard({ item, head }: { item: ItemWire; head: BoardHead }) {
  const t = useTranslations('meetings');
  const runs = head.may.speak || item.may?.change === true;
  const query = useQuery({
    queryKey: KEYS.meeting(item.id),
    queryFn: () => call('readMeeting', { params: { item: item.id } }),
    enabled: runs && item.visibility !== undefined,
    retry: false,
  });
  const meeting = query.data;
  // Whoever speaks answers what they don't see in full too.
  if (!meeting) return item.mayAnswer && !('notes' in item) ? <Answers item={item} head={head} meeting={null} /> : null;
  if (meeting.part === 'none') return item.mayAnswer ? <Answers item={item} head={head} meeting={meeting} /> : null;
  const name = head.owner.name;
  return (
    <section aria-label={t('card')} className="gap-5 stack">
      <Waiting waiting={meeting.waiting} name={name} />
      {meeting.part === 'attendee' && item.mayAnswer && meeting.state === 'sent' && (
        <Answers item={item} head={head} meeting={meeting} />
      )}
      {meeting.part === 'attendee' && meeting.organiser && meeting.sentFor && (
        <p className="small soft">
          {t('sentFor', { name: meeting.organiser.name ?? meeting.organiser.address, by: meeting.sentFor })}
        </p>
      )}
      {meeting.classified && (
        <p className="small soft">
          {t(meeting.classified === 'private' ? 'calledPrivate' : 'calledForFew', {
            name: meeting.organiser?.name ?? meeting.organiser?.address ?? '',
          })}
        </p>
      )}
      {meeting.part === 'organiser' && (
        <InvitedPeople item={item.id} owner={head.owner.name} own={head.own} meeting={meeting} />
      )}
      {meeting.questions.map((q) => (
        <p key={`${q.why} ${q.from} ${q.says} ${q.answer}`} className={`${pageCss.card} ${pageCss['wrong-card']}`}>
          {t(`why.${q.why as 'notInvited'}`, {
            from: q.from,
            answer: q.answer ?? 'none',
            attendee: q.attendee ?? t('someoneElse'),
          })}
          {q.says && ` “${q.says}”`}
        </p>
      ))}
    </section>
  );
}

function Answers({ item, head, meeting }: { item: ItemWire; head: BoardHead; meeting: MeetingAnswer | null }) {
  const t = useTranslations('meetings');
  const [opened, setOpened] = useState(false);
  const invitation: Invitation = {
    item: item.id,
    owner: head.owner.name,
    own: head.own,
    organiser: meeting?.organiser?.name ?? meeting?.organiser?.address ?? t('someone'),
    when: item,
    repeats: item.repeats != null,
    answered: meeting?.answered ?? null,
  };
  const { send, seen } = useAnswering(invitation);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isSpokenFor(event)) return;
      const answer = ANSWER_KEYS[Number(event.key) - 1];
      if (!answer) return;
      event.preventDefault();
      if (answer === 'another') setOpened(true);
      else void send({ answer, comment: '', seen, scope: 'all' });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  return <Answering invitation={invitation} opened={opened} onOpen={setOpened} />;
}
