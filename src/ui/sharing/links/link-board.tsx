'use client';
import Button from '@mui/material/Button';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { LiveMessage } from '@/contract/items/live.ts';
import { MAY_NOTHING } from '@/contract/may-nothing.ts';
import type { LinkItemsAnswer } from '@/contract/sharing/links.ts';
import { dateText, parseDate, parseInstant, toWall, weekStart } from '@/core/time/index.ts';
import type { Language } from '@/messages/languages.ts';
import boardsCss from '../../common/boards.module.css';
import { Follower } from '../../common/fetched/follow.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { refetchOnce } from '../../common/fetched/refetch-once.ts';
import { FrameProvider, type FrameState } from '../../common/frame-context.tsx';
import hillsCss from '../../common/hills.module.css';
import { Mark } from '../../common/hills.tsx';
import { useHydrated } from '../../common/hydrated.ts';
import pageCss from '../../common/page.module.css';
import { strangersFrame } from '../../common/strangers-frame.ts';
import { DAY, dayMonth, dayName, weekTitle, zonePlace } from '../../common/times.ts';
import { Legend } from '../../items/board/legend.tsx';
import { Details } from '../../items/details/details.tsx';
import { Hours } from '../../items/views/hours.tsx';
import linkBoardCss from './link-board.module.css';

/** A calendar as a link shows it to whoever holds its address: the same boards, read only, live, and nothing of anybody else. */
export function LinkBoard({ link, language }: { link: string; language: Language }) {
  const t = useTranslations('link');
  const tb = useTranslations('board');
  const hydrated = useHydrated();
  const client = useQueryClient();
  const narrow = useMediaQuery('(max-width: 760px)');
  // Read in the zone that was set for the link, or else in one's own.
  const [set, setSet] = useState<string | null>(null);
  const zone = set ?? (hydrated ? Intl.DateTimeFormat().resolvedOptions().timeZone : 'UTC');
  const [offset, setOffset] = useState(0);
  const [moved, setMoved] = useState(0);
  const [selected, setSelected] = useState<string | null>(null);
  const count = narrow ? 1 : 7;
  const now = useMemo(() => () => Date.now() + offset, [offset]);
  const today = Math.floor(toWall(zone, now()) / DAY) * DAY;
  const first = (narrow ? today : weekStart(today)) + moved * count * DAY;
  const range = { from: dateText(first), to: dateText(first + count * DAY), zone };
  const query = useQuery({
    queryKey: KEYS.link(link, range),
    enabled: hydrated,
    retry: (tries, error) => !(error instanceof CallRefused) && tries < 1,
    queryFn: async () => {
      const answer = (await call('listLinkItems', { params: { link }, query: range })) as LinkItemsAnswer;
      setOffset((parseInstant(answer.now) ?? Date.now()) - Date.now());
      setSet(answer.ownZone);
      return answer;
    },
    meta: { follows: { as: 'items', dates: range } },
  });
  const gone = query.error instanceof CallRefused;
  const data = gone ? undefined : query.data;
  useLinkLive(link, gone);
  const until = data?.until ?? null;
  useEffect(() => {
    const wait = until === null ? Number.POSITIVE_INFINITY : (parseInstant(until) ?? 0) - now();
    if (wait > 2 ** 31 - 1) return;
    const timer = setTimeout(() => void client.resetQueries({ queryKey: KEYS.link(link) }), Math.max(0, wait) + 20);
    return () => clearTimeout(timer);
  }, [until, link, client, now]);
  const frame = useMemo((): FrameState => strangersFrame(zone, language, now), [zone, language, now]);
  const open = data?.items.find((item) => item.id === selected) ?? null;
  const again = (
    <Button variant="outlined" onClick={() => void query.refetch()}>
      {tb('again')}
    </Button>
  );
  return (
    <FrameProvider value={frame}>
      <div className={`${linkBoardCss.stranger} who-2`}>
        <header className="row">
          <span className={`${hillsCss.brand} ${linkBoardCss.brand} row`}>
            <Mark /> Paramo
          </span>
          <h1>
            {data &&
              (data.calendar
                ? t('titleNamed', { calendar: data.calendar, owner: data.owner })
                : t('title', { owner: data.owner }))}
          </h1>
          {data && (
            <span className="small soft at-end">
              {[
                t('shows', { sight: tb(`linkSight.${data.sight as 'busy'}`) }),
                until ? t('until', { date: dayMonth(toWall(zone, (parseInstant(until) ?? 0) - 1)) }) : null,
                t('zone', { zone: zonePlace(zone) }),
              ]
                .filter(Boolean)
                .join(' ')}
            </span>
          )}
        </header>
        {gone ? (
          <main className={pageCss.state}>
            <h1>{t('gone')}</h1>
            <p className="soft">{t('goneText')}</p>
            <p>
              <a href="/ask">{t('goneAsk')}</a>
            </p>
            <p className="small soft">{query.error?.message}</p>
          </main>
        ) : query.isError && !data ? (
          <main className={pageCss.state} role="alert">
            <p>{t('failed')}</p>
            {again}
          </main>
        ) : !data ? (
          <main className={pageCss.state}>
            <p className="soft" role="status">
              {t('loading')}
            </p>
          </main>
        ) : (
          <main className={boardsCss.board}>
            <div className={boardsCss['board-main']}>
              {data.booking && <p className={boardsCss.notice}>{t('booking', { words: data.booking })}</p>}
              {data.more !== null && <p className={boardsCss.notice}>{tb('more2')}</p>}
              <div className={boardsCss['board-head']}>
                <h2>{narrow ? dayName(first) : weekTitle(first)}</h2>
                <Button variant="text" aria-label={tb('previous')} onClick={() => setMoved(moved - 1)}>
                  ←
                </Button>
                <Button variant="text" onClick={() => setMoved(0)}>
                  {tb('today')}
                </Button>
                <Button variant="text" aria-label={tb('next')} onClick={() => setMoved(moved + 1)}>
                  →
                </Button>
              </div>
              {dateText(first + count * DAY) > data.ends && (
                <p className={boardsCss.notice} role="status">
                  {t('ends', { date: dayMonth((parseDate(data.ends) ?? 0) - DAY) })}
                </p>
              )}
              {data.items.length === 0 && dateText(first) < data.ends && (
                <p className={`${boardsCss.notice} soft`} role="status">
                  {t(narrow ? 'emptyDay' : 'empty')}
                </p>
              )}
              <Hours
                key={count}
                lanes={[
                  {
                    key: 'main',
                    calendar: null,
                    name: data.owner,
                    handle: '',
                    colour: 0,
                    head: headOf(data, zone),
                    items: data.items,
                    state: 'seen',
                  },
                ]}
                first={first}
                count={count}
                selected={selected}
                owner={data.owner}
                onOpen={(item: ItemWire) => setSelected(item.id)}
                onDraw={() => {}}
                onMove={() => {}}
                onMoveInto={() => {}}
              />
              {!narrow && <Legend items={data.items} />}
            </div>
            {open && (
              <Details
                key={open.id}
                item={open}
                head={headOf(data, zone)}
                onClose={() => setSelected(null)}
                onEdit={() => {}}
                onRemove={() => {}}
                onVisibility={() => {}}
                onWrote={() => undefined}
                onCopied={() => undefined}
                onFixed={() => undefined}
                onForwardRemoval={() => {}}
              />
            )}
          </main>
        )}
      </div>
    </FrameProvider>
  );
}

/** Keeps what a link shows live: what changes is put in, and once what it may show did, all of it is asked for again. */
function useLinkLive(link: string, gone: boolean): void {
  const client = useQueryClient();
  useEffect(() => {
    if (gone) return;
    const queryKey = KEYS.link(link);
    const follower = new Follower(client, () => queryKey);
    const stop = follower.begin();
    const all = () => {
      follower.forget();
      client.removeQueries({ queryKey, type: 'inactive' });
      const how = { throwOnError: true, cancelRefetch: true };
      refetchOnce(client, { queryKey }, how).catch(() => client.resetQueries({ queryKey }));
    };
    const source = new EventSource(`/api/links/${encodeURIComponent(link)}/live`);
    source.onopen = all;
    source.onmessage = (event: MessageEvent<string>) => {
      const message = JSON.parse(event.data) as LiveMessage;
      if (message.kind === 'changed') follower.hear(message);
      else all();
    };
    return () => {
      stop();
      source.close();
    };
  }, [link, gone, client]);
}

function headOf(data: LinkItemsAnswer, zone: string) {
  return {
    calendar: { key: '', name: data.calendar, zone: data.zone || zone, main: true, description: '' },
    others: [],
    owner: { handle: '', name: data.owner, colour: 2 },
    rights: {
      sight: data.sight,
      add: false,
      change: 'none' as const,
      remove: 'none' as const,
      suggest: false,
      private: false,
      speaks: false,
      copies: false,
      shares: false,
      absence: false,
    },
    own: false,
    may: MAY_NOTHING,
    accessChangesAt: null,
    hours: data.hours,
    hoursZone: data.hoursZone,
    widelyRead: false,
    as: null,
  };
}
