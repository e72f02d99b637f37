import type { Target } from '@/contract/items/targets.ts';
import { readSentence, type Sentence } from '@/core/sentence/index.ts';
import { dateText, parseDate, toWall, wallText } from '@/core/time/index.ts';
import type { SavedDraft } from '../../common/fetched/saved-drafts.ts';
import { clock, DAY, fullDay, MINUTE, type TimeStyle } from '../../common/times.ts';
import type { FormDraft, Values } from './item-values.ts';
import { repeatKind } from './repeat-kinds.ts';

/** What a typed sentence would make: the item's fields, and who comes. */
export interface Meant {
  readonly sentence: Sentence;
  readonly start: number;
  readonly end: number;
  readonly values: Partial<Values>;
  readonly people: readonly {
    readonly address: string;
    readonly name: string | null;
    readonly role: 'must';
    readonly group: null;
  }[];
  /** Which calendar it names to go into. */
  readonly into: Target | null;
}

/**
 * Reads what is typed as an item to be made; `null` where it says no more than some words. What has no day is today, or tomorrow where its
 * time has passed; what has no time begins at nine; what has no length takes an hour.
 */
export function meantBy(
  text: string,
  known: {
    readonly now: number;
    readonly style: TimeStyle;
    readonly people: readonly { readonly name: string; readonly address: string }[];
    readonly places: readonly string[];
    /** The calendars it may name, by what each is called. */
    readonly calendars: ReadonlyMap<string, Target>;
  },
): Meant | null {
  const { now, style, people, places, calendars } = known;
  const wall = toWall(style.zone, now);
  const today = Math.floor(wall / DAY) * DAY;
  const sentence = readSentence(text, {
    today,
    now: Math.floor((wall - today) / MINUTE),
    language: style.language,
    dateOrder: style.dateOrder,
    people: people.map((p) => p.name),
    places,
    calendars: [...calendars.keys()],
  });
  const { day, from, to, length, allDay, place, visibility, shows, rule } = sentence;
  const says = day !== null || from !== null || allDay || rule !== null || length !== null;
  if (!says || sentence.title === '') return null;
  const minutes = (t: string) => Number(t.slice(0, 2)) * 60 + Number(t.slice(3));
  const at = minutes(from ?? '09:00') * MINUTE;
  const passed = day === null && !allDay && today + at < wall;
  const date = (day === null ? null : parseDate(day)) ?? today + (passed ? DAY : 0);
  const start = allDay ? date : date + at;
  const end = allDay ? date + DAY : to === null ? start + (length ?? 60) * MINUTE : date + minutes(to) * MINUTE;
  const invited = sentence.people.map((name) => {
    const person = people.find((p) => p.name === name);
    const none = { role: 'must' as const, group: null };
    return person
      ? { address: person.address, name: person.name, ...none }
      : { address: name.toLowerCase(), name: null, ...none };
  });
  const kind = repeatKind(rule);
  const until = /UNTIL=(\d{4})(\d{2})(\d{2})/.exec(rule ?? '');
  const values: Partial<Values> = {
    title: sentence.title,
    allDay,
    day: dateText(start),
    lastDay: dateText(allDay ? date : end),
    ...(allDay ? {} : { from: wallText(start).slice(11, 16), to: wallText(end).slice(11, 16) }),
    ...(place === null ? {} : { place }),
    ...(visibility === null ? {} : { visibility }),
    ...(shows === null ? {} : { shows }),
    ...(kind === 'none'
      ? {}
      : kind === 'kept'
        ? { repeat: 'said' as const, rule: (rule ?? '').replace(/UNTIL=(\d{8})$/, 'UNTIL=$1T235959') }
        : { repeat: kind }),
    ...(until && kind !== 'kept' ? { repeatUntil: `${until[1]}-${until[2]}-${until[3]}` } : {}),
  };
  return { sentence, start, end, values, people: invited, into: calendars.get(sentence.into ?? '') ?? null };
}

/** When it would be, as it is read back. */
export function meantWhen({ sentence, start, end }: Meant, style: TimeStyle): string {
  if (sentence.allDay) return fullDay(start);
  return `${fullDay(start)}, ${clock(start, style.hours)}–${clock(end, style.hours)}`;
}

/** The draft that opens the form with what was meant, on a calendar's board. */
export function draftOf(
  meant: Meant,
  { owner }: Target,
  board: { readonly path: string; readonly query: Readonly<Record<string, string>> },
): SavedDraft {
  const key = `new said ${meant.start} ${meant.sentence.title}`;
  const data: FormDraft = {
    item: null,
    start: meant.start,
    end: meant.end,
    values: meant.values,
    why: '',
    people: meant.people.length > 0 ? meant.people : null,
  };
  const to = new URLSearchParams({ week: dateText(meant.start), kept: key, ...board.query });
  const href = `${board.path}?${to}`;
  return { key, title: meant.sentence.title, owner: owner.name, colour: owner.colour, href, data };
}
