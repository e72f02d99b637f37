'use client';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter, useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import boardsCss from '../common/boards.module.css';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { sentenceOf } from '../common/fetched/refusal.ts';
import { saveDraft } from '../common/fetched/saved-drafts.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { clock, dayName, whenText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { useItemWrites } from '../items/board/item-writes.ts';
import { formOf } from '../items/form/form-of.ts';
import { sendMeant } from '../items/form/item-sending.ts';
import { useMetMost } from '../items/times/met-most.ts';
import { MetMostRow } from '../items/times/met-most-row.tsx';
import { RequestLine } from '../items/times/request-line.tsx';
import { WishFields } from '../items/times/times-fields.tsx';
import { type Taken, TimesFound } from '../items/times/times-found.tsx';
import {
  paramsOf,
  requestAbout,
  requestFromParams,
  type TimesRequest,
  useTimes,
} from '../items/times/times-request.ts';
import { CountSheet, hoursOf } from './count-sheet.tsx';
import { DayLanes, dayOfWall } from './day-lanes.tsx';
import css from './openings.module.css';
import { type OnHead, WithHead } from './with-head.tsx';

/** The search for times from nothing, for whom this window works: what is asked as a line of words, the days, and everybody's lanes. */
export function OpeningsScreen(props: { calendar: string; name: string }) {
  return <WithHead {...props} screen={Search} />;
}

function Search({ head, name, today, notice, onNotice }: OnHead) {
  const t = useTranslations('openings');
  const { attempt } = useActing();
  const all = useTranslations();
  const { style } = useFrame();
  const client = useQueryClient();
  const router = useRouter();
  const params = useSearchParams();
  const calendar = head.calendar.key;
  const [request, setRequest] = useState<TimesRequest>(() =>
    requestFromParams(new URLSearchParams(params), dateText(today)),
  );
  // What stands already is asked for as it stands: as long, with who comes to it, where it is.
  const item = useQuery({
    queryKey: KEYS.calendar(calendar, 'item', request.item),
    queryFn: () => call('readItem', { params: { item: request.item ?? '' } }),
    enabled: request.item !== null && !params.has('length'),
    retry: false,
  });
  const about = item.data;
  const [read, setRead] = useState<string | null>(null);
  if (about && read !== about.id) {
    setRead(about.id);
    setRequest((was) => ({ ...was, ...requestAbout(about, style.zone) }));
  }
  // The last that was walked stays in the lanes while one reads there.
  const [stood, setStood] = useState<{ start: number; end: number } | null>(null);
  const add = (people: TimesRequest['people']) => {
    setStood(null);
    setRequest((was) => {
      const known = new Set(was.people.map(({ address }) => address));
      return { ...was, people: [...was.people, ...people.filter(({ address }) => !known.has(address))] };
    });
  };
  const met = useMetMost(calendar, head.owner.handle, today, request.people.length === 0);
  // Who is named in the address by a handle is found in the directory, once that is there.
  const named = [...params.getAll('with'), ...params.getAll('maybe')].filter((one) => !one.includes('@'));
  const directory = useQuery({
    queryKey: KEYS.people,
    queryFn: () => call('listPeople', {}),
    staleTime: 60_000,
    enabled: named.length > 0,
  });
  const [looked, setLooked] = useState(named.length === 0);
  if (!looked && directory.data) {
    setLooked(true);
    const may = params.getAll('maybe');
    add(
      directory.data.people
        .filter(({ handle }) => named.includes(handle) && handle !== head.owner.handle)
        .map(({ address, handle, name }) => ({
          address,
          name,
          role: may.includes(handle) ? ('may' as const) : ('must' as const),
          group: null,
        })),
    );
  }
  const [walked, setWalked] = useState<{ start: number; end: number } | null>(null);
  const [title, setTitle] = useState('');
  const found = useTimes(calendar, request, style.zone, true);
  const { data } = found;
  const { wrote, wroteMany } = useItemWrites(
    () => ({ calendar, head }),
    onNotice,
    () => {},
  );
  const walk = (time: { start: number; end: number } | null) => {
    setWalked(time);
    if (time) setStood(time);
  };
  const wall = (text: string) => toWall(style.zone, Date.parse(text));
  const best = data?.runs[0];
  const shown = walked ?? stood ?? (best ? { start: wall(best.from), end: wall(best.end) } : null);
  const take = (taken: Taken) => {
    const form = formOf(taken, request.item, title.trim());
    const key = `openings ${taken.start} ${request.item ?? ''}`;
    const to = new URLSearchParams({ week: dateText(taken.start), kept: key });
    const href = `/for/${head.owner.handle}/calendar?${to}`;
    saveDraft({ key, title: title.trim(), owner: name, colour: head.owner.colour, href, data: form });
    router.push(href);
  };
  const send = async (taken: Taken) => {
    onNotice(null);
    await attempt(
      async () => {
        const form = formOf(taken, null, title.trim());
        const times = formOf(taken, '', '').values;
        const answer = await sendMeant(calendar, { values: { ...times, ...form.values } }, style.zone, taken.people);
        setTitle('');
        wrote(
          { calendar, head },
          answer,
          head.own ? all('board.savedMine') : all('board.saved', { name: firstName(name) }),
        );
      },
      (answer) => {
        onNotice(sentenceOf(answer));
      },
    );
  };
  const maySend =
    head.may.add && request.item === null && title.trim() !== '' && (head.may.speak || request.people.length === 0);
  const hours = hoursOf(
    data?.sheet ?? [],
    (data?.runs ?? []).map((run) => ({ from: wall(run.from), end: wall(run.end) })),
  );
  return (
    <div className={`${css.screen} who-${head.owner.colour % 6}`}>
      <div className={css.asked}>
        <h1 className="visually-hidden">{t('title')}</h1>
        <RequestLine
          head={head}
          request={request}
          unknown={data?.unknown ?? []}
          onChange={(more) => {
            setStood(null);
            setRequest((was) => ({ ...was, ...more }));
          }}
        />
        {request.people.length === 0 && request.item === null && (
          <MetMostRow
            words={t('metMost', { own: String(head.own), name: firstName(name) })}
            people={met ?? []}
            onChoose={({ address, name }) => add([{ address, name, role: 'must', group: null }])}
          />
        )}
        {about && request.item !== null && (
          <p className="small">{t('forItem', { title: about.title ?? '', when: whenText(about, style) })}</p>
        )}
        {data && !request.series && (
          <p className="small soft" role="status">
            {data.next === null
              ? t('none')
              : t('count', {
                  count: data.count,
                  next: `${dayName(wall(data.next))}, ${clock(wall(data.next), style.hours)}`,
                })}
          </p>
        )}
        {notice && (
          <p className={boardsCss.notice} role="alert">
            {notice}
          </p>
        )}
      </div>
      <div className={css.main}>
        {data && (
          <CountSheet
            sheet={data.sheet}
            known={data.known}
            runs={request.series ? [] : data.runs}
            length={request.length}
            walked={walked?.start ?? null}
            today={today}
            onWalk={(run) => walk({ start: wall(run.from), end: wall(run.end) })}
            onTake={(run) => {
              const end = wall(run.end);
              const had = run.room
                ? [{ address: run.room.address, name: run.room.name, role: 'must' as const, group: null }]
                : [];
              take({
                start: wall(run.from),
                end,
                people: [...request.people, ...had],
                place: request.place.trim() || (run.room?.name ?? ''),
                rule: null,
              });
            }}
          />
        )}
        <DayLanes
          calendar={calendar}
          body={found.body}
          day={shown ? dayOfWall(shown.start) : today}
          walked={shown}
          hours={hours}
        />
      </div>
      <aside className={boardsCss.panel} aria-label={t('best')}>
        <div className="row spread">
          <h2>{t('best')}</h2>
          {head.may.add && (
            <Link className="small" href={`/for/${head.owner.handle}/openings/round?${paramsOf(request)}`}>
              {t('round.open')}
            </Link>
          )}
        </div>
        <WishFields request={request} onChange={(more) => setRequest((was) => ({ ...was, ...more }))} />
        <TextField
          label={t('chosen.for')}
          value={title}
          helperText={
            head.may.add && request.item === null
              ? t('toSend', { own: head.own ? 'yes' : 'no', name: firstName(name) })
              : undefined
          }
          onChange={(e) => setTitle(e.target.value)}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
        />
        <TimesFound
          head={head}
          request={request}
          found={found}
          onChange={(more) => setRequest((was) => ({ ...was, ...more }))}
          onTake={take}
          onSend={maySend ? (taken) => void send(taken) : undefined}
          onWalk={walk}
          onHeld={(answer) => wroteMany(answer, t('heldNow', { count: answer.written }), [calendar])}
          onMoved={(answer) => {
            wroteMany(answer, all('picked.done.shift', { count: answer.written }), [calendar]);
            void client.invalidateQueries({ queryKey: KEYS.calendars });
          }}
        />
      </aside>
    </div>
  );
}
