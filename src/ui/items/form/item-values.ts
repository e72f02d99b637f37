import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { FORM_FIELDS, type FormField, freshValue, pick, specOf, type WrittenFields } from '@/core/calendar/index.ts';
import { dateText, parseDate, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { DAY } from '../../common/times.ts';
import type { InvitedPerson } from '../../meetings/heard.ts';
import { type RepeatKind, repeatKind } from './repeat-kinds.ts';

/** What the fields of the form hold, as they are typed: nothing is an empty text. */
export type Values = { -readonly [K in FormField]: NonNullable<WrittenFields[K]> } & {
  allDay: boolean;
  day: string;
  from: string;
  lastDay: string;
  to: string;
  zone: string;
  /** The zone on whose clock it ends, where that is another; empty where it isn't. */
  endZone: string;
  repeat: RepeatKind;
  repeatUntil: string;
  /** A repeat as it was said, where the form has no word of its own for it. */
  rule: string;
  /** Days picked by hand, where it repeats on those. */
  dates: string[];
  /** What it is filed under, with commas between. */
  categories: string;
  scope: 'one' | 'later' | 'all';
};

/** What a draft begins from: a time on the board, or an item that is being changed. */
export type Draft =
  | { readonly kind: 'new'; readonly start: number; readonly end: number }
  | { readonly kind: 'change'; readonly item: ItemWire };

/** What of a form is kept when it is left: what was typed, and what it was typed about. */
export interface FormDraft {
  readonly item: string | null;
  readonly start: number;
  readonly end: number;
  readonly values: Partial<Values>;
  readonly why: string;
  readonly people: readonly InvitedPerson[] | null;
}

/** Under which key a form's draft is kept: a change by its item, something new by when it was begun. */
export const draftKey = (draft: Draft, id: number): string =>
  draft.kind === 'change' ? `item ${draft.item.id}` : `new ${id}`;

export const TIMES = new Set<keyof Values>(['allDay', 'day', 'from', 'lastDay', 'to', 'zone', 'endZone']);
/** A field that holds words that somebody types, rather than one of some words. */
export const isTyped = (name: FormField): boolean => specOf(name).type !== 'choice';

/** The written fields as the form holds them: of an item, or of something new. */
const written = (item: ItemWire | null) =>
  Object.fromEntries(
    FORM_FIELDS.map((name) => [
      name,
      (name === 'shows' ? (item?.asSet ?? item)?.shows : item?.[name]) ?? freshValue(name) ?? '',
    ]),
  ) as Pick<Values, FormField>;

/** What the fields begin with: a draft's, its times by the clock of its own zone or of whoever looks. */
export function valuesOf(draft: Draft, zone: string): Values {
  const blank = {
    ...written(draft.kind === 'change' ? draft.item : null),
    repeat: 'none',
    repeatUntil: '',
    rule: '',
    dates: [] as string[],
    categories: draft.kind === 'change' ? (draft.item.categories ?? []).join(', ') : '',
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
    repeat: item.repeats ? (item.repeats.rule === null ? 'picked' : repeatKind(item.repeats.rule)) : 'none',
    repeatUntil: until ? `${until[1]}-${until[2]}-${until[3]}` : '',
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
export function copyOf(item: ItemWire, start: number, end: number, title: string | null): FormDraft {
  const text = (wall: number) => wallText(wall).slice(11, 16);
  const times = item.allDay
    ? { allDay: true, day: dateText(start), lastDay: dateText(end - DAY) }
    : { allDay: false, day: dateText(start), lastDay: dateText(end), from: text(start), to: text(end) };
  const here = title === null;
  // What others are shown of it where it stands is copied as it is set, and only where that is known.
  const known = (name: FormField) => (name === 'shows' ? item.asSet !== undefined : name in item);
  const copied = FORM_FIELDS.filter((name) => {
    const where = specOf(name).copied;
    return (where === 'anywhere' || (here && where === 'here')) && known(name);
  });
  const all = written(item);
  return {
    item: null,
    start,
    end,
    values: {
      ...times,
      ...pick(all, copied),
      ...(here && item.categories ? { categories: item.categories.join(', ') } : {}),
      title: title ?? all.title,
      // What somebody showed oneself is for oneself, until one opens it.
      ...(here ? {} : { visibility: 'private' as const }),
    },
    why: '',
    people: null,
  };
}

/** How long it is from one time of day to a later one, in words. */
export function spanText(from: string, to: string): string {
  const minutes = (s: string) => Number(s.slice(0, 2)) * 60 + Number(s.slice(3));
  const length = minutes(to) - minutes(from);
  return length >= 60 ? `${Math.floor(length / 60)} h${length % 60 ? ` ${length % 60} min` : ''}` : `${length} min`;
}
