'use client';
import Button from '@mui/material/Button';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useFrame } from '../../common/frame-context.tsx';
import { later } from '../../common/later.tsx';
import { KEYS } from '../../common/query-keys.ts';
import { said } from '../../common/refusal.ts';
import { takeDraft } from '../../common/saved-drafts.ts';
import { DAY, MINUTE, wallsOf } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { copyOf, type Draft, draftKey, type FormDraft, isForward } from '../form/item-values.ts';
import { useSought } from '../panels/sought.ts';
import { askedAbout } from '../times/times-asked.ts';
import { nextGap, takenBy } from '../views/gaps.ts';
import { layOut } from '../views/layout.ts';
import type { Walked } from '../views/moving.ts';
import { closedIn } from '../views/work-hours.tsx';
import { BoardBar } from './board-bar.tsx';
import { useBoardDoors } from './board-doors.ts';
import { useBoardItems } from './board-items.ts';
import { useBoardKeys } from './board-keys.ts';
import { type BoardLane, useLaneItems, useLanes, usePrefetched } from './board-lanes.ts';
import { BoardNotices } from './board-notices.tsx';
import { BoardPicks } from './board-picks.tsx';
import { BoardView, spanOf, VIEWS, type View } from './board-view.tsx';
import { type GoesInto, GoesIntoBar } from './goes-into.tsx';
import { type Home, useItemWrites } from './item-writes.ts';
import { Legend } from './legend.tsx';
import { movePicked, PicksProvider, usePicking } from './picks.tsx';
import { Ribbon } from './ribbon.tsx';
import type { SidePanelName } from './side-panel.tsx';

// What stands beside the board comes after the board itself. Its place is kept: a board that narrows under what is being dragged would put it
// down on another day.
const place = <div className={boardsCss.panel} />;
const ItemForm = later(() => import('../form/item-form.tsx').then((m) => m.ItemForm), place);
const Details = later(() => import('../details/details.tsx').then((m) => m.Details), place);
const SearchPanel = later(() => import('../panels/search-panel.tsx').then((m) => m.SearchPanel), place);
const SidePanel = later(() => import('./side-panel.tsx').then((m) => m.SidePanel), place);

/** A calendar's week (or day, on a narrow screen), live, with the panel in which its items are read and changed. */
export function Board({ calendar, name }: { calendar: string; name: string }) {
  const t = useTranslations();
  const { frame, principal, style, now, toast } = useFrame();
  const client = useQueryClient();
  const router = useRouter();
  const search = useSearchParams();
  // Another's calendar looked at from one's own window: said in the heading, in their colour.
  const looking = search.get('of') !== null && search.get('of') !== principal?.handle;
  // Another's eyes: the board as they get it, read only.
  const as = search.get('as') ?? undefined;
  const narrow = useMediaQuery('(max-width: 760px)');
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const asked = search.get('week');
  const wanted = search.get('view');
  const chosen = VIEWS.find((v) => v === wanted) ?? (narrow ? 'day' : 'week');
  // A narrow screen has room for one day of hours.
  const view: View = narrow && (chosen === 'week' || chosen === 'five') ? 'day' : chosen;
  const over = search.get('over') === '1';
  const askedDay = (asked && parseDate(asked)) || today;
  const span = spanOf(view, askedDay, style.weekFirst);
  const { first, count } = span;
  const zone = style.zone;
  const dates = { from: dateText(first), to: dateText(first + count * DAY), zone };
  const around = [span.before, span.after].map((day) => {
    const { first, count } = spanOf(view, day, style.weekFirst);
    return { from: dateText(first), to: dateText(first + count * DAY), zone };
  });

  const [selected, setSelected] = useState<string | null>(null);
  const [draft, setDraft] = useState<{ draft: Draft; head: BoardHead; id: number; kept?: FormDraft } | null>(null);
  // What stands beside the board where it is neither an item nor a form.
  const [sidePanel, setSidePanel] = useState<SidePanelName | null>(null);
  // What another time is looked for, where that is what stands beside it.
  const [timesFor, setTimesFor] = useState<ItemWire | null>(null);
  const [goesInto, setGoesInto] = useState<GoesInto | null>(null);
  const [sought, seek] = useSought();
  const [walked, setWalked] = useState<Walked | null>(null);
  const [notice, setNotice] = useState<string | null>(null);

  const { query, data, head, lastKnown, gone, showMore } = useBoardItems(calendar, dates, as, setNotice);
  const kept = useLanes();
  const others = useLaneItems(
    as === undefined ? kept.lanes.filter((lane) => lane.shown && lane.calendar !== calendar) : [],
    dates,
    as === undefined ? around : [],
  );
  usePrefetched(calendar, as === undefined ? around : []);
  const owner = firstName(head?.owner.name ?? name);

  const show = (what: SidePanelName) => {
    setSidePanel(what);
    setTimesFor(null);
    setSelected(null);
    setDraft(null);
  };
  const go = useCallback(
    (day: number, view?: View) => {
      const next = new URLSearchParams(search);
      next.set('week', dateText(day));
      next.delete('new');
      if (view === 'week') next.delete('view');
      else if (view) next.set('view', view);
      // Days and views are the board's own: going to others asks the server for items alone, not for the page again.
      window.history.pushState(null, '', `?${next}`);
    },
    [search],
  );
  const begin = useCallback(
    (head: BoardHead, start?: number, end?: number) => {
      const from = start ?? firstGuess(toWall(style.zone, now()), first, count);
      setSelected(null);
      setSidePanel(null);
      setDraft({ draft: { kind: 'new', start: from, end: end ?? from + 60 * MINUTE }, head, id: Date.now() });
    },
    [style.zone, now, first, count],
  );
  // What is new is made for whom the band names; only what is drawn on, or asked for at, this board is for its owner.
  const startNew = useCallback(
    (start?: number, end?: number) => {
      const base = head ?? lastKnown();
      if (looking && !base?.may.add) router.push(`/for/${frame.me.handle}/calendar?new=1`);
      if (!base?.may.add) return;
      begin(base, start, end);
    },
    [head, lastKnown, begin, looking, router, frame.me.handle],
  );

  // Asked for before it is known whether one may: it begins when that calendar is there, and in no other.
  const [newSoon, setNewSoon] = useState<string | null>(null);
  useEffect(() => {
    if (newSoon !== null && newSoon !== calendar) setNewSoon(null);
    if (newSoon !== calendar || !head) return;
    setNewSoon(null);
    startNew();
  }, [newSoon, calendar, head, startNew]);
  useBoardDoors(head, data?.items, {
    onNew: startNew,
    onItem: setSelected,
    onKept: (kept, item, head) => {
      setSidePanel(null);
      if (item === 'gone') setNotice(t('form.keptGone'));
      if (item !== null && item !== 'gone') {
        setDraft({ draft: { kind: 'change', item }, head, id: Date.now(), kept });
        return;
      }
      const start = kept.start || firstGuess(toWall(style.zone, now()), first, count);
      const end = kept.end || start + 60 * MINUTE;
      setDraft({ draft: { kind: 'new', start, end }, head, id: Date.now(), kept });
    },
  });

  const homeOf = (item: ItemWire): Home | undefined => {
    const other = others.find((lane) => lane.items.some((one) => one.id === item.id));
    if (other?.head && other.calendar) return { calendar: other.calendar, head: other.head };
    return head && { calendar, head };
  };
  const { moving, move, setVisibility, remove, wrote, wroteMany, takeBack, step } = useItemWrites(
    homeOf,
    setNotice,
    (was, now) => setSelected((id) => (id === was ? now : id)),
  );
  const stands = (list: readonly ItemWire[]) =>
    list.flatMap((item) => {
      const moved = moving.get(item.id);
      if (moved) return [{ ...item, ...moved }];
      const would = walked?.moves?.find((one) => one.item === item.id);
      if (!would) return [item];
      const { start, end } = would;
      // Beside where it stands it is a block of its own, which leads nowhere.
      return walked?.both
        ? [item, { ...item, id: `${item.id} there`, title: `→ ${item.title ?? ''}`, start, end }]
        : [{ ...item, start, end }];
    });
  const items = stands(data?.items ?? []);
  const own = kept.lanes.find((lane) => lane.calendar === calendar);
  const main: BoardLane = {
    key: 'main',
    calendar,
    name: own?.name ?? head?.owner.name ?? name,
    handle: head?.owner.handle ?? '',
    colour: (head?.owner.colour ?? 0) % 6,
    head,
    items,
    state: 'seen',
  };
  const lanes = [main, ...others.map((lane) => ({ ...lane, items: stands(lane.items) }))];
  const picks = usePicking(lanes.flatMap((lane) => lane.items));
  // The next clash of the days that are shown, after the one that is selected; from the last on to the first again.
  const nextClash = () => {
    const clashes = layOut(items, first, count, zone).days.flatMap((list) => list.filter((p) => p.clash));
    const at = clashes.findIndex((p) => p.item.id === selected);
    const next = clashes[(at + 1) % Math.max(1, clashes.length)];
    if (next) {
      setSelected(next.item.id);
      setSidePanel(null);
    } else toast({ text: t('board.noClash') });
  };
  const open = lanes.flatMap((lane) => lane.items).find((item) => item.id === selected) ?? null;
  const openHome = open ? homeOf(open) : undefined;
  // Something new in the next gap of the working hours: after the one that is being made, after what is selected, or from now on.
  const nextFree = () => {
    const after = draft?.draft.kind === 'new' ? draft.draft.end : open ? wallsOf(open, zone).end : toWall(zone, now());
    const days = Array.from({ length: count }, (_, i) => first + i * DAY);
    const start = nextGap(
      [...takenBy(items, zone), ...closedIn(head, days, zone)],
      Math.max(first, after),
      first + count * DAY,
      30 * MINUTE,
    );
    if (start === null) toast({ text: t('board.noGap') });
    else startNew(start, start + 30 * MINUTE);
  };
  useBoardKeys(
    {
      n: () => ((head ?? lastKnown()) ? startNew() : setNewSoon(calendar)),
      c: nextClash,
      ...(head?.may.add ? { f: nextFree } : {}),
      ...(open ? { x: () => picks.toggle(open) } : {}),
    },
    draft
      ? null
      : () => {
          if (picks.items.size + picks.days.length > 0) return picks.clear();
          setSelected(null);
          setSidePanel(null);
          setGoesInto(null);
        },
    step,
  );
  const wroteSeveral = (answer: SeveralAnswer, text: string) => {
    const calendars = new Set(lanes.flatMap((lane) => lane.calendar ?? []));
    wroteMany(answer, text, [...calendars]);
  };
  const draftGone =
    draft !== null &&
    (gone ||
      (head !== undefined &&
        (isForward(draft.draft, draft.head)
          ? !head.rights.suggest
          : draft.draft.kind === 'change'
            ? head.rights.change === 'none'
            : !head.may.add)));
  const saidForward = (name: string) => {
    toast({ text: t('board.putForward', { name }) });
    void client.invalidateQueries({ queryKey: KEYS.suggestions });
  };

  return (
    <PicksProvider value={picks}>
      <div className={`${boardsCss.board}${head ? ` who-${head.owner.colour % 6}` : ''}`}>
        <BoardBar
          head={head}
          name={head?.owner.name ?? name}
          looking={looking}
          narrow={narrow}
          view={view}
          span={span}
          day={askedDay}
          today={today}
          over={over}
          lanes={lanes.length}
          moved={kept.lanes.some((lane) => lane.moved)}
          onAt={() => show('at')}
          onLanes={() => show('lanes')}
          onGo={go}
          onForward={begin}
          onOpenings={() => show('openings')}
          onCalendar={() => show('calendar')}
          onRemoved={() => show('removed')}
          onKeeps={() => show('keeps')}
          onSearch={() => {
            setSidePanel(null);
            setSelected(null);
            setDraft(null);
            seek({ words: '', kind: null });
          }}
          onImport={() => show('import')}
        />
        <div className={boardsCss['board-main']}>
          <BoardNotices
            head={head}
            as={as}
            owner={owner}
            notice={notice}
            actingGone={draftGone}
            state={gone ? 'gone' : query.isError && !data ? 'failed' : query.isPending ? 'pending' : null}
            onDismiss={() => setNotice(null)}
            onAgain={() => void query.refetch()}
          />
          {head && data && (
            <>
              {as === undefined && (
                <Ribbon calendar={calendar} week={first} style={style} sought={sought} onGo={(w) => go(w)} />
              )}
              {data.cutShort && <p className={boardsCss.notice}>{t('board.cutShort')}</p>}
              {data.more !== null && (
                <p className={boardsCss.notice} role="status">
                  {t('board.more2')}
                  <Button className={boardsCss.push} variant="text" onClick={() => showMore()}>
                    {t('board.moreShow')}
                  </Button>
                </p>
              )}
              {lanes.every((lane) => lane.items.length === 0) && !query.isFetching && (
                <p className={`${boardsCss.notice} soft`} role="status">
                  {head.may.add ? t('board.emptyNew') : t('board.empty')}
                </p>
              )}
              <BoardPicks
                head={head}
                first={first}
                selected={open}
                homeOf={homeOf}
                onWritten={wroteSeveral}
                onJoined={(answer, text) => openHome && wrote(openHome, answer, text)}
                onNew={(kept) => {
                  setSidePanel(null);
                  setSelected(null);
                  setDraft({ draft: { kind: 'new', start: kept.start, end: kept.end }, head, id: Date.now(), kept });
                }}
              />
              {goesInto && <GoesIntoBar goes={goesInto} onDone={() => setGoesInto(null)} />}
              <BoardView
                view={view}
                lanes={lanes}
                over={over}
                first={first}
                count={count}
                month={span.month}
                selected={selected}
                walked={walked}
                owner={head.owner.name}
                onOpen={(item) => {
                  setSelected(item.id);
                  setSidePanel(null);
                  if (draft?.draft.kind === 'change') setDraft(null);
                }}
                onDraw={(lane, start, end) => lane.head && begin(lane.head, start, end)}
                onMove={(item, start, end) =>
                  movePicked(picks, item, start - wallsOf(item, zone).start, end - wallsOf(item, zone).end)
                    ?.then((answer) => wroteSeveral(answer, t('picked.done.shift', { count: answer.written })))
                    .catch((error: unknown) => setNotice(said(error, t('common.unreachable')).sentence)) ??
                  move(item, start, end)
                }
                onMoveInto={(item, lane, start, end) => {
                  const from = homeOf(item);
                  const picked = picks.items.has(item.id) ? [...picks.items.values()] : [];
                  const several = picked.flatMap((one) => {
                    const home = homeOf(one);
                    return home ? [{ item: one, from: home.head }] : [];
                  });
                  if (from) setGoesInto({ item, from: from.head, into: lane, start, end, several });
                }}
                onCopy={(item, lane, start, end) => {
                  if (!lane.head?.may.add || item.title === undefined) return;
                  setSidePanel(null);
                  setSelected(null);
                  const kept = copyOf(item, start, end, null);
                  setDraft({ draft: { kind: 'new', start, end }, head: lane.head, id: Date.now(), kept });
                }}
                onDay={(day) => go(day, 'day')}
              />
              {!narrow && view !== 'list' && view !== 'month' && <Legend />}
            </>
          )}
        </div>
        {draft ? (
          <ItemForm
            key={draft.id}
            draft={draft.draft}
            keptAs={draftKey(draft.draft, draft.id)}
            kept={draft.kept ?? null}
            head={draft.head}
            gone={draftGone}
            onClose={() => setDraft(null)}
            onPutForward={() => {
              setDraft(null);
              saidForward(firstName(draft.head.owner.name));
            }}
            onSaved={(answer) => {
              setDraft(null);
              setSelected(answer.item && 'notes' in answer.item ? answer.item.id : null);
              wrote(
                { calendar: draft.head.calendar.key, head: draft.head },
                answer,
                draft.head.own ? t('board.savedMine') : t('board.saved', { name: firstName(draft.head.owner.name) }),
              );
            }}
          />
        ) : sidePanel !== null && head ? (
          <SidePanel
            what={sidePanel}
            key={timesFor?.id}
            head={(timesFor && homeOf(timesFor)?.head) ?? head}
            kept={kept.lanes}
            day={view === 'day' || today < first || today >= first + count * DAY ? askedDay : today}
            today={today}
            places={[...new Set(items.flatMap((item) => item.place ?? []))]}
            asked={timesFor && askedAbout(timesFor, zone)}
            onClose={() => setSidePanel(null)}
            onTakeBack={takeBack(calendar)}
            onWrote={(answer, text) => wrote({ calendar, head }, answer, text)}
            onWalk={(time) => {
              setWalked(time);
              if (time && (time.start < first || time.start >= first + count * DAY))
                go(Math.floor(time.start / DAY) * DAY);
            }}
            onWroteSeveral={wroteSeveral}
            onBegin={(data) => {
              setSidePanel(null);
              const change = timesFor && { kind: 'change' as const, item: timesFor };
              const into = (timesFor && homeOf(timesFor)?.head) ?? head;
              const draft = change ?? { kind: 'new' as const, start: data.start, end: data.end };
              setDraft({ draft, head: into, id: Date.now(), kept: data });
            }}
          />
        ) : open && openHome ? (
          <Details
            key={open.id}
            item={open}
            head={openHome.head}
            onClose={() => setSelected(null)}
            onEdit={(item) => {
              const change = { kind: 'change', item } as const;
              // What was typed about it before is gone on with.
              const kept = takeDraft(draftKey(change, 0))?.data as FormDraft | undefined;
              setDraft({ draft: change, head: openHome.head, id: Date.now(), ...(kept ? { kept } : {}) });
            }}
            onRemove={(scope) => void remove(open, scope)}
            onWrote={(answer) => {
              const name = firstName(openHome.head.owner.name);
              wrote(
                openHome,
                answer,
                openHome.head.own ? t('board.savedSeriesMine') : t('board.savedSeries', { name }),
              );
            }}
            onWroteHere={(answer) => {
              if (answer.item) setSelected(answer.item.id);
              wrote(openHome, answer, t('openings.fixedSet'));
            }}
            onFixed={(answer) => {
              setSelected(answer.items[0]?.id ?? null);
              wroteSeveral(answer, t('openings.fixedNow', { count: answer.written - 1 }));
            }}
            onOpenings={(item) => {
              show('openings');
              setTimesFor(item);
            }}
            onCopied={(answer) => wroteSeveral(answer, t('picked.copied', { count: answer.written }))}
            onVisibility={(v, scope) => void setVisibility(open, v, scope)}
            onForwardRemoval={() => {
              setSelected(null);
              saidForward(firstName(openHome.head.owner.name));
            }}
          />
        ) : sought !== null && head ? (
          <SearchPanel head={head} sought={sought} onSought={seek} onClose={() => seek(null)} />
        ) : null}
      </div>
    </PicksProvider>
  );
}

/** Where a new item is likeliest wanted: the next half hour of the working day, or nine in the morning. */
function firstGuess(nowWall: number, first: number, count: number): number {
  const nine = 9 * 60 * MINUTE;
  if (nowWall < first || nowWall >= first + count * DAY) return first + nine;
  const today = Math.floor(nowWall / DAY) * DAY;
  const soon = Math.ceil(nowWall / (30 * MINUTE)) * 30 * MINUTE;
  if (soon < today + nine) return today + nine;
  return soon <= today + 18 * 60 * MINUTE ? soon : today + DAY + nine;
}
