'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemsAnswer, ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import type { SeveralAnswer, SeveralBody } from '@/contract/items/several.ts';
import type { Visibility } from '@/core/calendar/index.ts';
import { fromWallLenient, toWall, wallText } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { refetchOnce } from '../../common/fetched/refetch-once.ts';
import { said } from '../../common/fetched/refusal.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, dayName } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { useLeaving } from '../../meetings/waiting.tsx';
import { Steps } from '../views/steps.ts';

/** Whose calendar an item is in. */
export interface Home {
  readonly calendar: string;
  readonly head: BoardHead;
}
type Span = { readonly start: string; readonly end: string };

/** One act on several items, each as it stood when it was picked. */
export type WriteSeveral = (items: readonly ItemWire[], change: SeveralBody['change']) => Promise<SeveralAnswer>;

/**
 * The quick writes of a board: move, set who sees, remove, and undo of each. Writes on a calendar go one after the other, so
 * that an act on an item that is still being moved has the version which that move made. `onRefused` is told the sentence of a
 * refusal, `onReplaced` the new id where an occurrence became an item of its own.
 */
export function useItemWrites(
  homeOf: (item: ItemWire) => Home | undefined,
  onRefused: (sentence: string) => void,
  onReplaced: (was: string, now: string | null) => void,
) {
  const t = useTranslations();
  const { style, toast } = useFrame();
  const leaving = useLeaving();
  const client = useQueryClient();
  const [moving, setMoving] = useState<ReadonlyMap<string, Span>>(new Map());
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const written = useRef(new Map<string, ItemWire>());
  const [steps] = useState(() => new Steps());

  const refresh = (calendar: string) => refetchOnce(client, { queryKey: KEYS.calendar(calendar) });
  const inTurn = (calendar: string, work: () => Promise<void>): Promise<void> => {
    const next = last.current.then(work).catch((error: unknown) => {
      onRefused(said(error, t('common.unreachable')).sentence);
    });
    last.current = next.then(() => refresh(calendar));
    return next;
  };
  /** The item as the last write on it left it. */
  const latest = (item: ItemWire): ItemWire => {
    const now = written.current.get(item.id);
    return now && (now.version ?? 0) > (item.version ?? 0) ? now : item;
  };
  /** An item once the writes that were begun before are done: what follows is about the version which they left. */
  const asWritten = async (item: ItemWire): Promise<ItemWire> => {
    await last.current;
    return latest(item);
  };
  const several: WriteSeveral = (items, change) => {
    const next = last.current.then(async () => {
      const body = { items: items.map(latest).map(({ id, version }) => ({ item: id, version: version ?? 0 })), change };
      const answer = await call('changeSeveral', { body });
      for (const item of answer.items) written.current.set(item.id, item);
      return answer;
    });
    last.current = next.catch(() => undefined);
    return next;
  };
  const takeBack = (calendar: string) => (token: string) => () =>
    inTurn(calendar, async () => {
      const back = await call('undo', { body: { undo: token } });
      steps.tookBack(token, { calendar, token: back.undo });
      toast({ text: t('board.undone') });
    });
  /** Goes one step back, or on again, through what was written on this board and hasn't left the house. */
  const step = (way: 'back' | 'on') => {
    const next = way === 'back' ? steps.last() : steps.undone();
    if (!next) {
      toast({ text: t(way === 'back' ? 'board.nothingBack' : 'board.nothingOn') });
      return;
    }
    void inTurn(next.calendar, async () => {
      const answer = await call('undo', { body: { undo: next.token } });
      if (way === 'back') steps.tookBack(next.token, { calendar: next.calendar, token: answer.undo });
      else steps.didAgain(next.token, { calendar: next.calendar, token: answer.undo });
      toast({ text: t(way === 'back' ? 'board.undone' : 'board.redone') });
    });
  };
  const wrote = ({ calendar, head }: Home, answer: WrittenAnswer, text: string) => {
    if (answer.sending) leaving(answer.sending, head.owner.name, head.own);
    else {
      steps.wrote({ calendar, token: answer.undo });
      toast({ text, undo: takeBack(calendar)(answer.undo) });
    }
    void client.invalidateQueries({ queryKey: KEYS.meetings });
    void refresh(calendar);
  };
  /** The same for one act on several, in whatever calendars they are. */
  const wroteMany = (answer: SeveralAnswer, text: string, calendars: readonly string[]) => {
    const [calendar = ''] = calendars;
    steps.wrote({ calendar, token: answer.undo });
    const told = answer.sendings > 0 ? ` ${t('picked.tells', { count: answer.sendings })}` : '';
    toast({
      text: `${text}${told}`,
      undo: () =>
        inTurn(calendar, async () => {
          const back = await call('undo', { body: { undo: answer.undo } });
          steps.tookBack(answer.undo, { calendar, token: back.undo });
          toast({ text: t('board.undone') });
          for (const one of calendars) void refresh(one);
        }),
    });
    void client.invalidateQueries({ queryKey: KEYS.meetings });
    for (const one of calendars) void refresh(one);
  };
  /** Shows what a write answered before the next reading comes. */
  const put = (calendar: string, id: string, now: ItemWire | null) => {
    if (!now) return;
    written.current.set(id, now);
    written.current.set(now.id, now);
    client.setQueriesData<ItemsAnswer>({ queryKey: KEYS.calendar(calendar, 'items') }, (was) =>
      was ? { ...was, items: was.items.map((item) => (item.id === id ? now : item)) } : was,
    );
    if (now.id !== id) onReplaced(id, now.id);
  };

  const move = async (item: ItemWire, start: number, end: number) => {
    const home = homeOf(item);
    if (!home) return;
    const { calendar, head } = home;
    const zone = item.asSet?.zone && item.asSet.zone !== 'UTC' ? item.asSet.zone : style.zone;
    const instant = (wall: number) => fromWallLenient(style.zone, wall);
    const text = (wall: number) => wallText(toWall(zone, instant(wall)));
    const iso = (wall: number) => `${wallText(instant(wall))}Z`;
    setMoving((m) => new Map(m).set(item.id, { start: iso(start), end: iso(end) }));
    await inTurn(calendar, async () => {
      const now = latest(item);
      const answer = await call('changeItem', {
        params: { item: now.id },
        body: {
          version: now.version ?? 0,
          scope: 'one',
          when: { start: text(start), end: text(end), allDay: false, zone },
          fields: {},
        },
      });
      const name = firstName(head.owner.name);
      const words = { title: item.title ?? '', when: `${dayName(start)}, ${clock(start, style.hours)}`, name };
      put(calendar, item.id, answer.item);
      wrote(home, answer, head.own ? t('board.movedMine', words) : t('board.movedFor', words));
    });
    await last.current;
    setMoving((m) => {
      const next = new Map(m);
      next.delete(item.id);
      return next;
    });
  };
  const setVisibility = async (item: ItemWire, visibility: Visibility, scope: 'one' | 'all') => {
    const home = homeOf(item);
    if (!home) return;
    const { calendar, head } = home;
    const name = firstName(head.owner.name);
    await inTurn(calendar, async () => {
      const now = latest(item);
      const whole = now.repeats != null && scope === 'all';
      const answer = await call('changeItem', {
        params: { item: now.id },
        body: { version: now.version ?? 0, scope: whole ? 'all' : 'one', fields: { visibility } },
      });
      put(calendar, item.id, answer.item);
      const words = whole
        ? head.own
          ? t('board.savedSeriesMine')
          : t('board.savedSeries', { name })
        : head.own
          ? t('board.savedMine')
          : t('board.saved', { name });
      wrote(home, answer, words);
    });
  };
  const remove = async (item: ItemWire, scope: 'one' | 'later' | 'all') => {
    const home = homeOf(item);
    if (!home) return;
    const { calendar, head } = home;
    await inTurn(calendar, async () => {
      const now = latest(item);
      const answer = await call('removeItem', {
        params: { item: now.id },
        query: { ...(now.version === undefined ? {} : { version: now.version }), scope },
      });
      onReplaced(item.id, null);
      wrote(home, answer, head.own ? t('board.removedMine') : t('board.removed', { name: firstName(head.owner.name) }));
    });
  };
  return { moving, move, setVisibility, remove, several, asWritten, wrote, wroteMany, takeBack, step };
}
