'use client';
import Popover from '@mui/material/Popover';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { parseDate } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { language } from '../../common/language.ts';
import { dayName } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { PeopleField } from '../../meetings/people-field.tsx';
import css from './request-line.module.css';
import { HowFields, LengthFields, WhenFields, WhereFields } from './times-fields.tsx';
import type { TimesRequest } from './times-request.ts';

/** Names that are spelled out; of more the rest is counted. */
const MOST_NAMED = 5;

/** What is asked, in one line of words: each is pressed to change it. */
export function RequestLine(props: {
  head: BoardHead;
  request: TimesRequest;
  /** Who of those who come isn't known, by name or address. */
  unknown: readonly string[];
  onChange: (change: Partial<TimesRequest>) => void;
  /** In a panel it is written smaller. */
  small?: boolean;
}) {
  const { head, request, unknown, onChange, small = false } = props;
  const t = useTranslations('openings');
  const { frame, style } = useFrame();
  const whom = head.own ? '' : firstName(head.owner.name);
  const fields = { request, onChange };
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const names = (role: 'must' | 'may') => {
    const all = request.people.filter((p) => p.role === role);
    const few = all.slice(0, all.length > MOST_NAMED ? MOST_NAMED - 1 : MOST_NAMED).map((p) => {
      const known = directory.data?.people.find((one) => one.address === p.address);
      const name = p.name ?? known?.name ?? p.address;
      const short = known?.resource ? name : firstName(name);
      return unknown.includes(name) ? t('line.notKnown', { name: short }) : short;
    });
    return listed(few.length < all.length ? [...few, t('line.more', { count: all.length - few.length })] : few);
  };
  const [must, may] = [names('must'), names('may')];
  const from = parseDate(request.from);
  const place = request.place.trim();
  return (
    <p className={small ? `${css.line} ${css.small}` : css.line}>
      <span>{head.own ? t('line.forMe') : t('line.for', { name: whom })}</span>{' '}
      <Phrase words={t('minutes', { count: request.length })} label={t('length')}>
        <LengthFields {...fields} />
      </Phrase>
      {request.padding > 0 && ` ${t('line.padding', { count: request.padding })}`}{' '}
      <Phrase
        words={
          request.people.length === 0
            ? t('line.alone')
            : t('line.with', { must, may, has: must === '' ? 'may' : may === '' ? 'must' : 'both' })
        }
        label={t('line.who')}
      >
        <PeopleField
          calendar={head.calendar.key}
          owner={head.own ? frame.me.address : ''}
          people={request.people}
          when={null}
          item={null}
          disabled={false}
          onChange={(people) => onChange({ people })}
        />
      </Phrase>
      ,{' '}
      <Phrase
        words={[
          place === '' ? (request.seats === null ? t('line.anywhere') : null) : t('line.at', { place }),
          place !== '' && request.there ? t('line.there', { name: whom, own: head.own ? 'yes' : 'no' }) : null,
          request.seats === null ? null : t('line.room', { seats: request.seats, site: request.site.trim() || 'none' }),
        ]
          .filter(Boolean)
          .join(', ')}
        label={t('line.where')}
      >
        <WhereFields {...fields} whom={whom} />
      </Phrase>
      ,{' '}
      <Phrase
        words={[
          t('line.when', {
            day: from === null ? request.from : dayName(from),
            days: t('days', { count: request.days }),
          }),
          request.series ? t('line.series', { every: request.series.every, times: request.series.times }) : null,
        ]
          .filter(Boolean)
          .join(', ')}
        label={t('within')}
      >
        <WhenFields {...fields} />
      </Phrase>
      ,{' '}
      <Phrase
        words={`${t(request.anyTime ? 'line.anyTime' : 'line.hours')}${request.over ? `, ${t('line.over')}` : ''}`}
        label={t('line.how')}
      >
        <HowFields {...fields} />
      </Phrase>
      .{style.zone !== frame.me.zone && ` ${style.zone}`}
    </p>
  );
}

/** Some words of the line, and what changes them. */
function Phrase({ words, label, children }: { words: string; label: string; children: ReactNode }) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  return (
    <>
      <button
        type="button"
        className={`plain ${css.phrase}`}
        aria-haspopup="dialog"
        aria-expanded={at !== null}
        onClick={(event) => setAt(event.currentTarget)}
      >
        <span className="visually-hidden">{label}: </span>
        {words}
      </button>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': label, className: css.sheet } }}
      >
        {children}
      </Popover>
    </>
  );
}

const listed = (names: readonly string[]): string =>
  new Intl.ListFormat(language(), { type: 'conjunction' }).format(names);
