'use client';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Fragment, type ReactNode, useEffect } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { NoticesAnswer } from '@/contract/notices.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useCollectionGoal } from '../common/collection-goal.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { OF_KIND } from '../common/of-kind.ts';
import pageCss from '../common/page.module.css';
import { useAccessRequests } from '../common/requests/own-access-requests.ts';
import { dayMonth } from '../common/times.ts';
import { firstName, Token } from '../common/token.tsx';
import { audienceParam } from '../sharing/audience-param.ts';
import { AccessRequests } from '../sharing/requests/access-requests.tsx';
import { Wishes } from '../sharing/requests/wishes.tsx';
import { useSentence } from '../sharing/sentence.tsx';
import { Suggestions } from '../suggestions/suggestions.tsx';

/** What one was told of one's access to others' calendars, what waits for a yes of one's own, and what soon ends. Looking at it is reading it. */
export function useTold(who: string): { between: ReactNode; after: ReactNode; waiting: number; nothing: boolean } {
  const t = useTranslations();
  const { frame } = useFrame();
  const client = useQueryClient();
  const query = useQuery({ queryKey: KEYS.notices, queryFn: () => call('listNotices', {}) });
  const forward = useQuery({ queryKey: KEYS.suggestions, queryFn: () => call('listSuggestions', {}) });
  const requests = useAccessRequests();
  const nothing = [
    requests.data?.waiting,
    requests.data?.answered,
    requests.data?.own,
    query.data?.notices,
    query.data?.ending,
    query.data?.wishes,
    query.data?.findings,
    forward.data?.waiting,
    forward.data?.own,
  ].every((list) => list?.length === 0);
  const told = [query.data?.notices, query.data?.ending, query.data?.wishes, query.data?.findings].some(
    (list) => (list?.length ?? 0) > 0,
  );
  // An access request that shows a calendar with it is read with the rest, and whoever showed it sees that.
  const unread = [
    ...(query.data?.notices.filter((n) => n.unread) ?? []),
    ...(query.data?.findings.filter((f) => f.unread) ?? []),
    ...(requests.data?.own.filter((request) => request.news) ?? []),
    ...(requests.data?.waiting.filter((request) => request.gave) ?? []),
  ]
    .map(({ key }) => key)
    .join();
  useEffect(() => {
    if (unread === '') return;
    call('readNotices', {})
      .then(() => client.invalidateQueries({ queryKey: KEYS.frame }))
      .catch(() => {});
  }, [unread, client]);
  return {
    nothing,
    /** What waits for a yes here: access that is asked for, and what was put forward. */
    waiting:
      (requests.data?.waiting ?? []).filter((request) => who === frame.me.handle || request.to.handle === who).length +
      (forward.data?.waiting ?? []).filter((one) => who === frame.me.handle || one.owner.handle === who).length,
    between: (
      <Fragment key={who}>
        {requests.data && <AccessRequests requests={requests.data} />}
        {forward.data && <Suggestions list={forward.data} />}
      </Fragment>
    ),
    after: (
      <>
        {told && <h2 className="above-4 below-4">{t('messages.toldTitle')}</h2>}
        <QueryState query={query} />
        {!query.isPending && <QueryState query={forward} />}
        {!query.isPending && !forward.isPending && <QueryState query={requests} />}
        {query.data && query.data.wishes.length > 0 && <Wishes wishes={query.data.wishes} />}
        {query.data && (
          <>
            <Ending ending={query.data.ending.filter((e) => e.over)} me={frame.me.handle} over />
            <Ending ending={query.data.ending.filter((e) => !e.over)} me={frame.me.handle} over={false} />
          </>
        )}
        {query.data?.findings.map((f) => (
          <FoundCard key={f.key} found={f} />
        ))}
        {query.data?.notices.map((n) => (
          <NoticeCard key={n.key} notice={n} me={frame.me.handle} />
        ))}
      </>
    ),
  };
}

/** Keeps the calendar one was told of as a lane, or says that it is kept: having it there gives no access, nor does leaving it take any. */
function AddLane(props: { handle: string; name: string; further: { key: string } | null }) {
  const { handle, name, further } = props;
  const t = useTranslations();
  const { attempt } = useActingWithToast();
  const { toast } = useFrame();
  const client = useQueryClient();
  const lanes = useQuery({ queryKey: KEYS.lanes, queryFn: () => call('listLanes', {}), staleTime: 30_000, retry: 1 });
  if (!lanes.data) return null;
  const isLane = lanes.data.lanes.some((l) =>
    further ? l.calendar === further.key : l.owner.handle === handle && l.of === null,
  );
  if (isLane) return <span className="small soft">{t('messages.laneKept')}</span>;
  const add = async () => {
    await attempt(async () => {
      const body = further
        ? { people: [], group: null, calendars: [further.key] }
        : { people: [handle], group: null, calendars: [] };
      await call('saveLanes', { body });
      toast({ text: t('messages.laneDone', { name }) });
    });
    await client.invalidateQueries({ queryKey: KEYS.lanes });
  };
  return (
    <Button variant="text" className="slim" aria-label={t('messages.laneKeepOf', { name })} onClick={() => void add()}>
      {t('messages.laneKeep')}
    </Button>
  );
}

/** What is more open on one's own calendar than it should be: said once a month, as it is now. */
function FoundCard({ found }: { found: NoticesAnswer['findings'][number] }) {
  const t = useTranslations();
  const { frame, style } = useFrame();
  const at = toWall(style.zone, parseInstant(found.at) ?? 0);
  return (
    <article className={`${pageCss.card} gap-6 below-5 line`}>
      <div className="grow">
        <p>
          {found.unread && <b className="wrong">{t('messages.new')} </b>}
          {t('messages.found', { count: found.count, calendar: found.further?.name ?? 'main' })}
        </p>
        <p className="small soft">{dayMonth(at)}</p>
      </div>
      <Link href={`/for/${frame.me.handle}/sightlines${found.further ? `?c=${found.further.key}` : ''}`}>
        {t('messages.lookSightlines')}
      </Link>
    </article>
  );
}

function NoticeCard({ notice: n, me }: { notice: NoticesAnswer['notices'][number]; me: string }) {
  const t = useTranslations();
  const nameOf = useCollectionName();
  const goal = useCollectionGoal();
  const { style } = useFrame();
  const sentence = useSentence();
  const owner = firstName(n.owner.name);
  const what = n.rights ? sentence(n.rights, owner, false, n.further?.kind) : null;
  const day = (instant: string, back = 0) => dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back));
  const words = {
    by: n.by === n.owner.name ? 'same' : 'other',
    byName: n.by,
    owner: n.owner.name,
    first: owner,
    kind: n.further?.kind ?? 'calendar',
  };
  return (
    <article className={`${pageCss.card} who-${n.owner.colour % 6} gap-6 below-5 line`}>
      <Token name={n.owner.name} colour={n.owner.colour} />
      <div className="grow">
        <p>
          {n.unread && <b className="wrong">{t('messages.new')} </b>}
          {SIGN_IN.has(n.kind)
            ? t(`messages.${n.kind as 'wayInMade'}`, { byName: n.by })
            : n.kind === 'joined'
              ? t('messages.joined', { byName: n.by, who: n.note })
              : n.kind === 'begun'
                ? t('messages.begun', { byName: n.by, calendar: n.further?.name ?? '' })
                : n.about === null
                  ? t(`messages.${n.kind as 'given'}`, words)
                  : t(`messages.${OWN[n.kind as 'given']}`, {
                      byName: n.by,
                      kind: words.kind,
                      about: n.about || t('lines.everyoneInside'),
                    })}{' '}
          {what && (
            <span>
              {t('messages.withIt', { what: what.does })} <span className="soft">{what.cannot}</span>
            </span>
          )}
        </p>
        {n.note && n.kind !== 'joined' && <p className="lines">“{n.note}”</p>}
        <p className="small soft">
          {[
            n.further && nameOf(n.further.kind, n.further.name),
            day(n.at),
            n.until ? t('messages.until', { date: day(n.until, 1) }) : null,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      {SIGN_IN.has(n.kind) ? null : n.about !== null || n.kind === 'joined' ? (
        <Link href={`/for/${me}/sightlines${n.further ? `?c=${n.further.key}` : ''}`}>
          {t('messages.lookSightlines')}
        </Link>
      ) : n.open ? (
        <span className="gap-2 stack from-top to-end">
          <Link href={goal(n.owner.handle, n.further)}>{t(`messages.open${OF_KIND[words.kind]}`)}</Link>
          {words.kind === 'calendar' && <AddLane handle={n.owner.handle} name={n.owner.name} further={n.further} />}
        </span>
      ) : (
        <span className="small soft">{t('messages.closed')}</span>
      )}
    </article>
  );
}

const SIGN_IN: ReadonlySet<string> = new Set(['wayInMade', 'passwordMade']);
const OWN = { given: 'ownGiven', changed: 'ownChanged', taken: 'ownTaken' } as const;

function Ending({ ending, me, over }: { ending: NoticesAnswer['ending']; me: string; over: boolean }) {
  const t = useTranslations();
  const { style } = useFrame();
  if (ending.length === 0) return null;
  const title = over ? t('messages.overTitle') : t('messages.endingTitle');
  return (
    <section className={`${pageCss.card} below-6`} aria-label={title}>
      <h2>{title}</h2>
      {ending.map((e) => (
        <p key={e.key} className="row spread">
          <span>
            {t(
              `messages.${over ? 'over' : e.held ? 'endingHeld' : 'endingGiven'}${e.held || e.owner.handle === me ? '' : 'For'}`,
              {
                owner: e.owner.name,
                who: e.who,
                kind: e.further?.kind ?? 'calendar',
                what: e.preset ? t(`presets.${e.preset as 'full'}`) : t('reaches.words'),
                date: dayMonth(toWall(style.zone, (parseInstant(e.until) ?? 0) - 1)),
              },
            )}
          </span>
          {e.audience && (
            <Link
              href={`/for/${e.owner.handle}/sightlines?${new URLSearchParams({
                who: audienceParam(e.audience),
                ...(e.further ? { c: e.further.key } : {}),
              })}`}
            >
              {over ? t('messages.overGo') : t('messages.endingGo')}
            </Link>
          )}
        </p>
      ))}
    </section>
  );
}
