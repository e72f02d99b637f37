'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { usePathname, useSearchParams } from 'next/navigation';
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { FrameAnswer, Principal } from '@/contract/frame.ts';
import { toWall } from '@/core/time/index.ts';
import { useDesks } from '../common/fetched/desks.ts';
import { type LiveState, useLive } from '../common/fetched/live.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { saveDraftsFor } from '../common/fetched/saved-drafts.ts';
import { type AccessSubject, BAND_CALENDAR, FrameProvider, type Toast } from '../common/frame-context.tsx';
import hillsCss from '../common/hills.module.css';
import { Mark } from '../common/hills.tsx';
import { isSpokenFor } from '../common/keys.ts';
import { later } from '../common/later.tsx';
import { Link } from '../common/link.tsx';
import { usePressPoint } from '../common/motion.ts';
import { clock } from '../common/times.ts';
import { firstName, Token } from '../common/token.tsx';
import { DraftsBar } from './drafts-bar.tsx';
import { Finder } from './finder.tsx';
import frameCss from './frame.module.css';
import { LeavingGuard } from './leaving-guard.tsx';
import { MoreSections } from './more-sections.tsx';
import { Reminders } from './reminders.tsx';

const AccessRequestPanel = later(() =>
  import('../common/requests/access-request-panel.tsx').then((m) => m.AccessRequestPanel),
);
const KeysDialog = later(() => import('./keys-dialog.tsx').then((m) => m.KeysDialog));
const OperatorDialog = later(() => import('./operator-dialog.tsx').then((m) => m.OperatorDialog));
const Toasted = later(() => import('./toasted.tsx').then((m) => m.Toasted));
const COUNTS_AFTER_MS = 1500;
const SECTIONS = [
  'desk',
  'calendar',
  'openings',
  'sightlines',
  'messages',
  'tasks',
  'contacts',
  'people',
  'trail',
  'time-use',
  'house-rules',
] as const;

/** The sections that stand in a phone's bar by themselves. */
const ON_PHONE: ReadonlySet<string> = new Set(['desk', 'calendar', 'openings', 'messages']);

/**
 * The frame around every screen: the sections, and the band that says for whom this window works. `page` is what its page is called where it hears of
 * changes.
 */
export function Frame(props: { initial: FrameAnswer; who: string; page: string | null; children: ReactNode }) {
  const t = useTranslations();
  const path = usePathname();
  const { data: frame = props.initial } = useQuery({
    queryKey: KEYS.frame,
    queryFn: () => call('readFrame', {}),
    initialData: props.initial,
    staleTime: 30_000,
    // A window stays open over night: another day is another's, it may be.
    refetchInterval: props.initial.hands ? 5 * 60_000 : false,
  });
  saveDraftsFor(frame.me.handle);
  usePressPoint();
  const live = useLive(frame.me.handle, props.page);
  const [taking, setTaking] = useState(false);
  const [toast, setToast] = useState<Toast | null>(null);
  // Counted, so that each message has its own time on the screen.
  const [toasts, setToasts] = useState(0);
  const show = useCallback((next: Toast) => {
    setToast(next);
    setToasts((n) => n + 1);
  }, []);
  const [requesting, setRequesting] = useState<{ subject: AccessSubject; id: number } | null>(null);
  const requestAccess = useCallback(
    (next: AccessSubject) => setRequesting((was) => ({ subject: next, id: (was?.id ?? 0) + 1 })),
    [],
  );
  const [keys, setKeys] = useState(false);
  const help = useCallback(() => setKeys(true), []);
  const [offset] = useState(() => Date.parse(props.initial.now) - Date.now());
  const now = useCallback(() => Date.now() + offset, [offset]);
  const principal = frame.principals.find((p) => p.handle === props.who) ?? null;
  const style = useMemo(
    () => ({
      zone: frame.me.zone,
      hours: frame.me.hours,
      weekFirst: frame.me.weekFirst,
      dateOrder: frame.me.dateOrder,
      language: frame.me.language,
    }),
    [frame.me.zone, frame.me.hours, frame.me.weekFirst, frame.me.dateOrder, frame.me.language],
  );
  const state = useMemo(
    () => ({ frame, style, principal, live, now, toast: show, requestAccess, help }),
    [frame, style, principal, live, now, show, requestAccess, help],
  );
  const section = path.split('/')[3] ?? '';
  useEffect(() => {
    // The Desk shows its own beside its rows.
    if (section === 'desk') return;
    const onKey = (event: KeyboardEvent) => {
      if (isSpokenFor(event) || event.key !== '?') return;
      event.preventDefault();
      help();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [section, help]);
  // Counted a moment after the screen stands, so that nothing on it waits for that, and followed from then on.
  const [stands, setStands] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setStands(true), COUNTS_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  const desks = useDesks(frame.me.inside && stands ? frame.principals.map((p) => p.handle) : []);
  const toDecide = [...desks.counts.values()].reduce((sum, count) => sum + count, 0);
  const search = useSearchParams();
  const everyone = section === 'desk' && props.who === frame.me.handle && search.get('only') === null;
  const colour = principal?.colour ?? 0;
  const guest = !frame.me.inside;
  const sections = SECTIONS.filter((s) =>
    s === 'sightlines'
      ? principal === null
        ? !guest
        : principal.share
      : s === 'openings' || s === 'time-use'
        ? principal !== null && !guest
        : s === 'tasks' || s === 'contacts'
          ? !guest && (principal === null || principal[s])
          : !guest || s === 'calendar' || s === 'messages',
  );
  return (
    <FrameProvider value={state}>
      <div className={`${frameCss.frame} who-${colour % 6}`}>
        <nav className={frameCss.spine} aria-label={t('spine.sections')}>
          <Link className={hillsCss.brand} href={`/for/${frame.me.handle}/calendar`}>
            <Mark /> {t('app.name')}
          </Link>
          {sections.map((s) => (
            <Link
              key={s}
              className={`${frameCss.go}${ON_PHONE.has(s) ? '' : ` ${frameCss.rare}`}`}
              href={`/for/${s === 'desk' ? frame.me.handle : props.who}/${s}`}
              aria-current={section === s ? 'page' : undefined}
            >
              {t(`spine.${s}`)}
              {s === 'desk' && toDecide > 0 && (
                <span className={frameCss.count} title={t('spine.toDecide', { count: toDecide })}>
                  {toDecide}
                </span>
              )}
              {s === 'sightlines' && principal?.own && frame.findings > 0 && (
                <span className={frameCss.count} title={t('spine.findings', { count: frame.findings })}>
                  {frame.findings}
                </span>
              )}
              {s === 'tasks' && frame.tasksAsked > 0 && (
                <span className={frameCss.count} title={t('spine.tasksAsked', { count: frame.tasksAsked })}>
                  {frame.tasksAsked}
                </span>
              )}
              {s === 'messages' && frame.unread > 0 && (
                <span className={frameCss.count} title={t('spine.count', { count: frame.unread })}>
                  {frame.unread}
                </span>
              )}
            </Link>
          ))}
          <Link
            className={`${frameCss.go} ${frameCss.last} ${frameCss.rare}`}
            href={`/for/${frame.me.handle}/settings`}
            aria-current={section === 'settings' ? 'page' : undefined}
          >
            {t('spine.settings')}
          </Link>
          <MoreSections
            sections={sections
              .filter((s) => !ON_PHONE.has(s))
              .map((s) => ({ href: `/for/${props.who}/${s}`, name: t(`spine.${s}`) }))}
            settings={{ href: `/for/${frame.me.handle}/settings`, name: t('spine.settings') }}
            here={ON_PHONE.has(section)}
          />
        </nav>
        <header className={frameCss.band}>
          <span className={frameCss.label}>
            {guest && frame.principals.length === 0 ? t('band.guest', { name: frame.me.name }) : t('band.label')}
          </span>
          <nav className={frameCss.switches} aria-label={t('band.switches')}>
            {section === 'desk' && frame.principals.length > 1 && (
              <Link
                className={frameCss.switch}
                href={`/for/${frame.me.handle}/desk`}
                aria-current={everyone ? 'true' : undefined}
              >
                <span>
                  <span className={frameCss.name}>{t('desk.everyone')}</span>
                  <span className={frameCss.sub}>{t('desk.toDecide', { count: toDecide })}</span>
                </span>
              </Link>
            )}
            {frame.principals.map((p) => (
              <Switch
                key={p.handle}
                p={p}
                me={frame.me.name}
                current={p.handle === props.who && !everyone}
                inside={!guest}
                section={section}
                toDecide={desks.counts.get(p.handle) ?? null}
              />
            ))}
          </nav>
          <div className={frameCss.rest}>
            <Finder />
            {frame.hands?.name && (
              <Button
                variant="text"
                onClick={() => setTaking(true)}
                aria-label={t('hands.change', { name: frame.hands.name })}
              >
                {frame.hands.name}
              </Button>
            )}
            <LiveMark live={live} zone={style.zone} hours={style.hours} />
          </div>
        </header>
        <main className={frameCss.work}>
          <Reminders />
          {props.children}
          {requesting && (
            <AccessRequestPanel key={requesting.id} subject={requesting.subject} onClose={() => setRequesting(null)} />
          )}
          <DraftsBar />
        </main>
      </div>
      {frame.hands && (frame.hands.asks || taking) && (
        <OperatorDialog
          account={frame.me.name}
          hands={frame.hands}
          onClose={frame.hands.asks ? null : () => setTaking(false)}
        />
      )}
      <LeavingGuard />
      {keys && <KeysDialog onClose={() => setKeys(false)} />}
      {toast && <Toasted key={toasts} toast={toast} onGone={() => setToast(null)} />}
    </FrameProvider>
  );
}

function Switch(props: {
  p: Principal;
  me: string;
  current: boolean;
  /** Whoever is here is of the organisation. */
  inside: boolean;
  section: string;
  /** How many rows of the Desk are theirs; `null` before that is known. */
  toDecide: number | null;
}) {
  const { p, me, current, inside, section, toDecide } = props;
  const t = useTranslations('band');
  const td = useTranslations('desk');
  // Something new goes into the calendar one looks at, a further one too; never by itself into another.
  const search = useSearchParams();
  const further = search.get('of') === null ? search.get('c') : null;
  const here = current && section === 'calendar' && further ? `&c=${encodeURIComponent(further)}` : '';
  const goal =
    section === 'desk'
      ? p.own
        ? `desk?only=${p.handle}`
        : 'desk'
      : section === 'sightlines' && p.share
        ? 'sightlines'
        : section === 'openings' ||
            section === 'people' ||
            section === 'everything' ||
            section === 'trail' ||
            section === 'time-use' ||
            section === 'day' ||
            section === 'messages' ||
            ((section === 'tasks' || section === 'contacts') && p[section]) ||
            section === 'house-rules'
          ? section
          : 'calendar';
  return (
    <>
      <Link
        className={`${frameCss.switch} who-${p.colour % 6}`}
        href={`/for/${p.handle}/${goal}`}
        aria-current={current ? 'true' : undefined}
      >
        <Token name={p.name} colour={p.colour} />
        <span>
          <span className={frameCss.name}>{p.own ? t('myself') : p.name}</span>
          <span className={frameCss.sub}>
            {toDecide !== null && toDecide > 0 ? (
              <b className={frameCss.needs}>{td('toDecide', { count: toDecide })}</b>
            ) : p.own ? (
              me
            ) : (
              p.role
            )}
          </span>
        </span>
      </Link>
      {current && section === 'calendar' && (
        <span
          id={BAND_CALENDAR}
          className={frameCss.calendar}
          data-further={(p.further && search.get('of') === null) || undefined}
        />
      )}
      {current && (
        <Link
          className={`plain ${frameCss['new-for']} who-${p.colour % 6}`}
          href={`/for/${p.handle}/calendar?new=1${here}`}
          prefetch={false}
        >
          {p.own ? t('newMine') : t('newFor', { name: firstName(p.name) })} <kbd>N</kbd>
        </Link>
      )}
      {current && inside && (
        <Link
          className={frameCss.everything}
          href={`/for/${p.handle}/everything`}
          aria-current={section === 'everything' ? 'page' : undefined}
        >
          {t('everything')}
        </Link>
      )}
    </>
  );
}

function LiveMark({ live, zone, hours }: { live: LiveState; zone: string; hours: '12' | '24' }) {
  const t = useTranslations('band');
  const text =
    live.kind === 'live'
      ? t('live')
      : live.kind === 'connecting'
        ? t('connecting')
        : t('offline', { time: clock(toWall(zone, live.since), hours) });
  return (
    <span className={live.kind === 'off' ? `${frameCss.live} ${frameCss.off}` : frameCss.live} role="status">
      {text}
    </span>
  );
}
