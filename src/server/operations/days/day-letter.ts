import { createTranslator } from 'use-intl/core';
import type { DayPart, PersonDay } from '@/contract/days.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import type { TrailEntryWire } from '@/contract/trail.ts';
import { verbName } from '@/contract/trail-verb.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { settings } from '../../settings.ts';
import type { Context } from '../deciding/index.ts';
import { readDay } from './read-day.ts';

const DAY = 86_400_000;
const LONGEST_TEXT = 600;
const MOST_NAMES = 8;
/** Lines of one letter. */
const MOST_LINES = 300;

/** The words of a letter: its subject, and its lines. */
export interface DayLetter {
  readonly subject: string;
  readonly lines: readonly string[];
}

/**
 * The morning's or the evening's letter, in its reader's language and on their clock, from what they see at this instant. `null` on a day that has
 * nothing to tell.
 */
export function dayLetter(ctx: Context, of: DayPart): DayLetter | null {
  const read = readDay(ctx, of, 'all');
  if (!read.ok) return null;
  const { date, people, digest } = read.value;
  const told = people.filter((one) => hasAnything(one, of));
  if (told.length === 0) return null;
  const words = new Words(ctx);
  const lines = [words.t(`${of}.hello`, { name: ctx.viewer.name.split(' ')[0] ?? '', day: words.day(date) })];
  for (const one of told) {
    if (people.length > 1) lines.push(one.own ? words.t('mine') : one.name.toUpperCase());
    lines.push(...(of === 'morning' ? words.morning(one) : words.evening(one)));
  }
  if (lines.length > MOST_LINES) lines.splice(MOST_LINES, lines.length, words.t('more'));
  if (digest?.digest) lines.push(words.t('digest', { digest: digest.digest, at: words.clock(digest.at) }));
  lines.push(`${settings().address}/for/${ctx.viewer.handle}/day?of=${of}`);
  return { subject: words.t(`${of}.subject`, { day: words.day(date) }), lines };
}

const hasAnything = (one: PersonDay, of: DayPart): boolean =>
  of === 'morning'
    ? one.items.length > 0 || one.tasks.length > 0 || one.changes.length > 0
    : one.done.length > 0 || one.open.length > 0 || one.empty !== null;

/** What stands in a letter, in one reader's language and zone. */
class Words {
  readonly t: (key: string, values?: Record<string, string | number>) => string;
  private readonly all: (key: string, values?: Record<string, string | number>) => string;
  private readonly has: (key: string) => boolean;
  constructor(private readonly ctx: Context) {
    const { language } = ctx.viewer;
    const of = { locale: LOCALES[language], messages: TEXTS[language] };
    this.t = createTranslator({ ...of, namespace: 'days' }) as unknown as Words['t'];
    const all = createTranslator(of);
    this.all = all as unknown as Words['t'];
    this.has = all.has as unknown as Words['has'];
  }

  day(date: string): string {
    const format = new Intl.DateTimeFormat(LOCALES[this.ctx.viewer.language], { dateStyle: 'full', timeZone: 'UTC' });
    return format.format(parseDate(date) ?? 0);
  }

  clock(instant: string): string {
    const { language, zone, hours } = this.ctx.viewer;
    return new Intl.DateTimeFormat(LOCALES[language], {
      timeStyle: 'short',
      timeZone: zone,
      hour12: hours === '12',
    }).format(parseInstant(instant) ?? 0);
  }

  private task({ title, due, belongsTo }: TaskWire): string {
    const when = due?.includes('T') ? `, ${this.clock(due)}` : '';
    return `- ${title.slice(0, LONGEST_TEXT)}${when}${belongsTo ? ` (${belongsTo})` : ''}`;
  }

  morning(one: PersonDay): string[] {
    const ways = new Map(one.ways.map(({ to, minutes }) => [to, minutes]));
    const lines = one.items.flatMap((item) => {
      const minutes = ways.get(item.id);
      return [...(minutes ? [this.t('way', { minutes })] : []), ...this.item(item)];
    });
    if (one.items.length === 0) lines.push(this.t('free'));
    if (one.tasks.length > 0) lines.push(this.t('tasks'), ...one.tasks.map((task) => this.task(task)));
    if (one.changes.length > 0) lines.push(this.t('changes'), ...one.changes.map((entry) => this.entry(entry)));
    if (one.cut) lines.push(this.t('more'));
    return lines;
  }

  evening(one: PersonDay): string[] {
    const lines: string[] = [];
    if (one.done.length > 0) lines.push(this.t('done'), ...one.done.map((entry) => this.entry(entry)));
    if (one.open.length > 0)
      lines.push(
        this.t('open', { count: one.open.length }),
        ...one.open.map(({ kind, items }) => {
          const title = items[0] && 'title' in items[0] ? items[0].title : null;
          return `- ${[this.all(`desk.kindNames.${kind}`), title].filter(Boolean).join(': ')}`;
        }),
      );
    if (one.empty) lines.push(this.t('empty', { booked: hours(one.empty.booked), usual: hours(one.empty.usual) }));
    if (one.cut) lines.push(this.t('more'));
    return lines;
  }

  private item(item: ItemWire): string[] {
    const title = 'title' in item ? (item.title ?? '') : this.all('board.private');
    const when = item.allDay ? this.t('allDay') : `${this.clock(item.start)}–${this.clock(item.end)}`;
    const people = (item.attendees ?? []).slice(0, MOST_NAMES).map((a) => {
      const answer = a.answer === 'accepted' ? '' : ` (${this.t(`answers.${a.answer}`)})`;
      return `${a.name ?? a.address}${answer}`;
    });
    const more = (item.attendees ?? []).length - people.length;
    return [
      [`${when}  ${title}`, item.place, item.link].filter(Boolean).join(', '),
      ...(people.length > 0 ? [this.t('with', { people: people.join(', '), more })] : []),
      ...(item.briefing ? [this.t('briefing', { text: item.briefing.slice(0, LONGEST_TEXT) })] : []),
    ];
  }

  private entry(entry: TrailEntryWire): string {
    const key = `trail.verbs.${verbName(entry.verb)}`;
    const did = this.all(this.has(key) ? key : 'trail.verbs.other');
    const what =
      entry.who === 'everyone'
        ? this.all('trail.everyone')
        : (entry.who ?? entry.items.map((i) => i ?? this.all('board.private')).join(', '));
    const changed = entry.changed.map(({ field, before, after }) => {
      const name = this.all(`trail.fields.${field}`);
      return `${name}: ${this.value(field, before)} → ${this.value(field, after)}`;
    });
    return `- ${[`${entry.actor} ${did}`, what, ...changed].filter(Boolean).join(' · ')}`;
  }

  private value(field: string, value: string | null): string {
    if (value === null) return this.all('trail.none');
    const isInstant = (field === 'start' || field === 'end') && value.endsWith('Z') && parseInstant(value) !== null;
    if (!isInstant) return value;
    const day = Math.floor(toWall(this.ctx.viewer.zone, parseInstant(value) ?? 0) / DAY) * DAY;
    return `${this.day(dateText(day))}, ${this.clock(value)}`;
  }
}

const hours = (minutes: number): number => Math.round(minutes / 6) / 10;
