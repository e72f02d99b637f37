import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { dateText, parseDate } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { atText, fullDay, wallsOf, whenText } from '../common/times.ts';

/** When one last met them, the meetings with them that one may see, and the mail. */
export function AroundContact({ id }: { id: string }) {
  const t = useTranslations('contacts');
  const { frame, style } = useFrame();
  const { data } = useQuery({
    queryKey: KEYS.aroundContact(id),
    queryFn: () => call('listAroundContact', { params: { contact: id } }),
    retry: false,
  });
  if (!data) return null;
  const { meetings, messages, lastMet, cut } = data;
  // Whose messages have a screen in this window: one's own, and of whom one acts for.
  const opens = (owner: string): boolean => frame.principals.some((p) => p.handle === owner);
  const whereOf = (meeting: (typeof meetings)[number]) => {
    const acted = frame.principals.some((p) => p.handle === meeting.owner.handle);
    const week = dateText(wallsOf(meeting, style.zone).start);
    const query = new URLSearchParams({
      week,
      item: meeting.item,
      ...(acted ? {} : { of: meeting.owner.handle }),
      ...(meeting.main ? {} : { c: meeting.calendar }),
    });
    return `/for/${acted ? meeting.owner.handle : frame.me.handle}/calendar?${query}`;
  };
  return (
    <section aria-label={t('around')} className="gap-3 stack">
      <h3>{t('around')}</h3>
      <p className="small">{lastMet ? t('lastMet', { day: fullDay(parseDate(lastMet) ?? 0) }) : t('neverMet')}</p>
      <ul className="list gap-2 stack">
        {meetings.map((meeting) => (
          <li key={meeting.item}>
            <Link href={whereOf(meeting)}>{meeting.title ?? t('untitledMeeting')}</Link>{' '}
            <span className="small soft">
              {[whenText(meeting, style), meeting.owner.handle === frame.me.handle ? '' : meeting.owner.name]
                .filter(Boolean)
                .join(' · ')}
            </span>
          </li>
        ))}
      </ul>
      {messages.length > 0 && (
        <>
          <h3>{t('mail')}</h3>
          <ul className="list gap-2 stack">
            {messages.map((message) => (
              <li key={message.message}>
                {opens(message.owner) ? (
                  <Link href={`/for/${message.owner}/messages?${new URLSearchParams({ message: message.message })}`}>
                    {message.subject || t('noSubject')}
                  </Link>
                ) : (
                  <span>{message.subject || t('noSubject')}</span>
                )}{' '}
                <span className="small soft">
                  {t(message.incoming ? 'came' : 'went', { at: atText(message.at, style) })}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {cut && <p className="small soft">{t('aroundCut')}</p>}
    </section>
  );
}
