import type { BoardHead, ItemWire } from '@/contract/items.ts';
import type { IMPORTANCES, KINDS, STATUSES, VISIBILITIES } from '@/core/calendar/index.ts';
import { dateText, parseDate, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { DAY } from '../common/times.ts';
import type { Asked } from '../meetings/heard.ts';
import { type RepeatKind, repeatKind } from './repeat-kinds.ts';

/** What the fields of the form hold, as they are typed. */
export interface Values {
  title: string;
  allDay: boolean;
  day: string;
  from: string;
  lastDay: string;
  to: string;
  zone: string;
  /** The zone on whose clock it ends, where that is another; empty where it isn't. */
  endZone: string;
  place: string;
  link: string;
  notes: string;
  kind: (typeof KINDS)[number];
  shows: (typeof STATUSES)[number];
  visibility: (typeof VISIBILITIES)[number];
  importance: (typeof IMPORTANCES)[number];
  repeat: RepeatKind;
  repeatUntil: string;
  /** A repeat as it was said, where the form has no word of its own for it. */
  rule: string;
  /** Days picked by hand, where it repeats on those. */
  dates: string[];
  briefing: string;
  scope: 'one' | 'later' | 'all';
}

/** What a draft begins from: a time on the board, or an item that is being changed. */
export type Draft =
  | { readonly kind: 'new'; readonly start: number; readonly end: number }
  | { readonly kind: 'change'; readonly item: ItemWire };

/** What of a form is kept when it is left: what was typed, and what it was typed about. */
export interface KeptForm {
  readonly item: string | null;
  readonly start: number;
  readonly end: number;
  readonly values: Partial<Values>;
  readonly why: string;
  readonly people: readonly Asked[] | null;
}

/** Under which key a form's draft is kept: a change by its item, something new by when it was begun. */
export const keptKey = (draft: Draft, id: number): string =>
  draft.kind === 'change' ? `item ${draft.item.id}` : `new ${id}`;

export const TIMES = new Set<keyof Values>(['allDay', 'day', 'from', 'lastDay', 'to', 'zone', 'endZone']);
export const TEXTS = [
  'title',
  'place',
  'link',
  'notes',
  'kind',
  'shows',
  'visibility',
  'importance',
  'briefing',
] as const;

/** What the fields begin with: a draft's, its times by the clock of its own zone or of whoever looks. */
export function valuesOf(draft: Draft, zone: string): Values {
  const blank = {
    title: '',
    place: '',
    link: '',
    notes: '',
    kind: 'meeting',
    shows: 'busy',
    visibility: 'follow',
    importance: 'normal',
    repeat: 'none',
    repeatUntil: '',
    rule: '',
    dates: [] as string[],
    briefing: '',
    scope: 'one',
    endZone: '',
  } as const;
  const times = (start: number, end: number, allDay: boolean) => ({
    allDay,
    day: dateText(start),
    lastDay: dateText(allDay ? end - DAY : end),
    from: allDay ? '09:00' : wallText(start).slice(11, 16),
    to: allDay ? '10:00' : wallText(end).slice(11, 16),
  });
  if (draft.kind === 'new') return { ...blank, ...times(draft.start, draft.end, false), zone };
  const { item } = draft;
  const own = item.asSet?.zone && item.asSet.zone !== 'UTC' ? item.asSet.zone : zone;
  const [start, end] = item.allDay
    ? [parseDate(item.start) ?? 0, parseDate(item.end) ?? 0]
    : [toWall(own, parseInstant(item.start) ?? 0), toWall(item.asSet?.endZone ?? own, parseInstant(item.end) ?? 0)];
  const until = /UNTIL=(\d{4})(\d{2})(\d{2})/.exec(item.repeats?.rule ?? '');
  return {
    ...blank,
    ...times(start, end, item.allDay),
    zone: own,
    endZone: item.asSet?.endZone ?? '',
    title: item.title ?? '',
    place: item.place ?? '',
    link: item.link ?? '',
    notes: item.notes ?? '',
    kind: item.kind ?? 'meeting',
    shows: item.asSet?.shows ?? item.shows,
    visibility: item.visibility ?? 'follow',
    importance: item.importance ?? 'normal',
    repeat: item.repeats ? (item.repeats.rule === null ? 'picked' : repeatKind(item.repeats.rule)) : 'none',
    repeatUntil: until ? `${until[1]}-${until[2]}-${until[3]}` : '',
    briefing: item.briefing ?? '',
  };
}

/** When an item takes place, as the server takes it. */
export function whenOf(v: Values) {
  if (v.allDay) {
    const last = parseDate(v.lastDay);
    return { start: v.day, end: last === null ? v.lastDay : dateText(last + DAY), allDay: true, zone: v.zone };
  }
  const endZone = v.endZone || null;
  return { start: `${v.day}T${v.from}`, end: `${v.lastDay}T${v.to}`, allDay: false, zone: v.zone, endZone };
}

/** Whether what is typed into a draft is put forward rather than saved. */
export const isForward = (draft: Draft, head: BoardHead): boolean =>
  draft.kind === 'new' ? head.may.suggest : draft.item.maySuggest === true;

/** Where the server's field names stand in the form. */
export const FIELD: Record<string, keyof Values> = {
  start: 'from',
  end: 'to',
  repeat: 'repeat',
  'repeat.rule': 'repeat',
  dates: 'dates',
};

/** A form filled in with what is seen of an item, at a time. With a `title` of its own it is a copy elsewhere: how others see it there is for its form. */
export function copyOf(item: ItemWire, start: number, end: number, title: string | null): KeptForm {
  const text = (wall: number) => wallText(wall).slice(11, 16);
  const times = item.allDay
    ? { allDay: true, day: dateText(start), lastDay: dateText(end - DAY) }
    : { allDay: false, day: dateText(start), lastDay: dateText(end), from: text(start), to: text(end) };
  const here = title === null;
  return {
    item: null,
    start,
    end,
    values: {
      ...times,
      title: title ?? item.title ?? '',
      place: item.place ?? '',
      notes: item.notes ?? '',
      link: item.link ?? '',
      ...(item.kind ? { kind: item.kind } : {}),
      ...(here && item.visibility ? { visibility: item.visibility } : {}),
      ...(item.asSet && here ? { shows: item.asSet.shows } : {}),
    },
    why: '',
    people: null,
  };
}
