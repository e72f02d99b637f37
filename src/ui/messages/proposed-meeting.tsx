import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Principal } from '@/contract/frame.ts';
import type { MessageWire } from '@/contract/messages.ts';
import { readProposedMeeting } from '@/core/mail/index.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { saveDraft } from '../common/fetched/saved-drafts.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { clock, DAY, fullDay, MINUTE } from '../common/times.ts';
import { formOf } from '../items/form/form-of.ts';
import { bodyOf, paramsOf, plainRequest, type TimesRequest } from '../items/times/times-request.ts';
import messagesCss from './messages.module.css';

/** Times that are offered at once, and people who are taken over from a mail. */
const MOST_TIMES = 3;
const MOST_PEOPLE = 20;

/**
 * What a mail asks for in its writer's own words, where that is a meeting: who, how long, and times that work. It is an offer: pressing one opens the form with
 * all of it, and nothing is done before that is sent.
 */
export function ProposedMeetingOffer(props: { message: MessageWire; owner: string; principal: Principal }) {
  const { message, owner, principal } = props;
  const t = useTranslations('folders');
  const { style, now } = useFrame();
  const router = useRouter();
  const journeys = useQuery({
    queryKey: KEYS.journeys,
    queryFn: () => call('listJourneys', {}),
    staleTime: 300_000,
    retry: false,
  });
  const places = [...new Set((journeys.data?.journeys ?? []).flatMap((journey) => journey.slice(0, 2) as string[]))];
  const dayOf = (instant: number) => Math.floor(toWall(style.zone, instant) / DAY) * DAY;
  const today = dayOf(now());
  const proposed = readProposedMeeting(message.says, {
    today: dayOf(parseInstant(message.at) ?? 0),
    dateOrder: style.dateOrder,
    places,
  });
  const day = proposed?.day ? (parseDate(proposed.day) ?? today) : today;
  const length = proposed?.length ?? 30;
  const others = [message.from, ...message.to].filter(({ address }) => address.toLowerCase() !== owner.toLowerCase());
  const people = [...new Map(others.map((one) => [one.address.toLowerCase(), one])).values()]
    .slice(0, MOST_PEOPLE)
    .map(({ address, name }) => ({ address: address.toLowerCase(), name, role: 'must' as const, group: null }));
  const request: TimesRequest = {
    ...plainRequest(dateText(Math.max(today, day))),
    days: proposed?.day ? 5 : 14,
    length,
    place: proposed?.place ?? '',
    people,
  };
  const body = bodyOf(request, style.zone, false);
  const found = useQuery({
    queryKey: KEYS.calendar(principal.calendar, 'openings', 'asked', JSON.stringify(body)),
    queryFn: () => call('findTimes', { params: { calendar: principal.calendar }, body }),
    enabled: proposed !== null,
    staleTime: 60_000,
    retry: false,
  });
  if (!proposed) return null;
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  const wanted =
    proposed.day && proposed.from
      ? day + (Number(proposed.from.slice(0, 2)) * 60 + Number(proposed.from.slice(3))) * MINUTE
      : null;
  const runs = (found.data?.runs ?? []).map((run) => ({ from: wall(run.from), to: wall(run.to) }));
  const fits = wanted !== null && runs.some((run) => wanted >= run.from && wanted <= run.to);
  const starts = [...(fits && wanted !== null ? [wanted] : []), ...runs.map((run) => run.from)];
  const times = [...new Set(starts)].slice(0, MOST_TIMES);
  const title = message.subject.replace(/^((re|fwd?|aw|wg)\s*:\s*)+/i, '').trim();
  const make = (start: number) => {
    const form = formOf({ start, end: start + length * MINUTE, people, place: request.place, rule: null }, null, title);
    const key = `asked ${start} ${message.key}`;
    const href = `/for/${principal.handle}/calendar?${new URLSearchParams({ week: dateText(start), kept: key })}`;
    saveDraft({ key, title, owner: principal.name, colour: principal.colour, href, data: form });
    router.push(href);
  };
  const who = message.from.name ?? message.from.address;
  return (
    <section className={messagesCss.asks} aria-label={t('asksTitle', { who })}>
      <p>
        <b>{t('asksTitle', { who })}</b> “{proposed.said}”
      </p>
      <p className="small soft">
        {[
          wanted !== null ? `${fullDay(wanted)}, ${clock(wanted, style.hours)}` : proposed.day ? fullDay(day) : null,
          t('asksLength', { minutes: length, said: proposed.length === null ? 'no' : 'yes' }),
          proposed.place,
          people.length > 1 ? t('asksWith', { names: people.map((p) => p.name ?? p.address).join(', ') }) : null,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {found.isError && <p className="small wrong">{t('asksFailed')}</p>}
      {wanted !== null && found.data && !fits && (
        <p className="small wrong">
          {wanted < toWall(style.zone, now()) ? t('asksOver') : t('asksTaken', { time: clock(wanted, style.hours) })}
        </p>
      )}
      <div className={messagesCss.acts}>
        {times.map((start, i) => (
          <Button key={start} variant={i === 0 ? 'contained' : 'outlined'} onClick={() => make(start)}>
            {t('makeMeeting', {
              first: i === 0 ? 'yes' : 'no',
              time: `${fullDay(start)}, ${clock(start, style.hours)}–${clock(start + length * MINUTE, style.hours)}`,
            })}
          </Button>
        ))}
        <Link className="small" href={`/for/${principal.handle}/openings?${paramsOf(request)}`}>
          {t('asksMore')}
        </Link>
      </div>
      <p className="small soft">{t('asksNothing')}</p>
    </section>
  );
}
