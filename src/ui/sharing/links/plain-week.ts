import { createTranslator } from 'use-intl/core';
import type { ItemWire } from '@/contract/items/items.ts';
import type { WorkHours } from '@/contract/people/hours.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { type Language, LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { variables } from '../../colours.ts';

const DAY = 86_400_000;

/** Text as it stands in HTML, in an attribute too. */
const plain = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const day = Object.entries(variables[':root'] ?? {});
const night = Object.entries(variables['[data-theme="dark"]'] ?? {});
const colours = (list: readonly (readonly [string, string])[]) =>
  list
    .filter(([name]) => name.startsWith('--'))
    .map(([name, value]) => `${name}:${value}`)
    .join(';');

/** The page's own look: the same colours as every other, by day and by night, and nothing fetched from anywhere. */
const STYLE = `:root{${colours(day)}}@media(prefers-color-scheme:dark){:root{${colours(night)}}}
body{margin:0;padding:14px 16px;background:var(--mist);color:var(--ink);font:14px/1.45 system-ui,sans-serif;font-variant-numeric:tabular-nums}
h1{font-size:17px;margin:0 0 2px}p{margin:0 0 10px;color:var(--soft);font-size:12px}nav{display:flex;gap:14px;margin:0 0 10px}a{color:var(--lake)}
ol{list-style:none;margin:0;padding:0;border:1px solid var(--line);border-radius:8px;background:var(--paper)}ol ol{border:0;border-radius:0;background:none}
ol>li{padding:8px 12px;border-top:1px solid var(--hair)}ol>li:first-child{border-top:0}ol ol>li{padding:2px 0;border:0;display:flex;gap:10px}
h2{font-size:13px;margin:0 0 2px}time{color:var(--soft);min-width:96px}.b{color:var(--ink);font-size:14px}h2 .s{font-weight:400}.t{font-weight:600}.s{color:var(--soft)}`;

export interface PlainWeek {
  readonly title: string;
  readonly sight: string;
  readonly zone: string;
  readonly booking: string | null;
  readonly hours: WorkHours;
  readonly from: number;
  readonly before: number | null;
  readonly after: number | null;
  readonly items: readonly ItemWire[];
  readonly cut: boolean;
}

/**
 * A week of a link as a page of plain HTML: no script, no picture, nothing asked from anywhere, so that it can be read anywhere and stand in
 * a frame. `path` is its own address, `nonce` lets its one style sheet in.
 */
export function plainWeek(week: PlainWeek, language: Language, path: string, nonce: string): string {
  const locale = LOCALES[language];
  const texts = { locale, messages: TEXTS[language] };
  const t = createTranslator({ ...texts, namespace: 'link' });
  const tb = createTranslator({ ...texts, namespace: 'board' });
  const format = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options });
  const dayName = format({ weekday: 'long', day: 'numeric', month: 'long' });
  const clock = format({ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
  const wall = (text: string, allDay: boolean) =>
    allDay ? (parseDate(text) ?? 0) : toWall(week.zone, parseInstant(text) ?? 0);
  const line = (item: ItemWire, at: number): string => {
    const [start, end] = [wall(item.start, item.allDay), wall(item.end, item.allDay)];
    const whole = item.allDay || (start <= at && end >= at + DAY);
    const times = whole
      ? t('allDay')
      : `${clock.format(Math.max(start, at))}–${end >= at + DAY ? '24:00' : clock.format(end)}`;
    const word = item.withheld ? tb('private') : (item.title ?? tb('busyWord', { shows: item.shows }));
    const state = item.title !== undefined && item.shows !== 'busy' ? tb('busyWord', { shows: item.shows }) : '';
    const rest = [item.place ?? '', state].filter(Boolean).join(' · ');
    return `<li><time>${plain(times)}</time><span><span class="t">${plain(word)}</span>${rest ? ` <span class="s">${plain(rest)}</span>` : ''}</span></li>`;
  };
  const works = (weekday: number): string => {
    const ranges = week.hours?.[weekday];
    if (!ranges) return '';
    const said =
      ranges.length > 0 ? t('works', { times: ranges.map((one) => one.join('–')).join(', ') }) : t('worksNot');
    return ` <span class="s">${plain(said)}</span>`;
  };
  const days = Array.from({ length: 7 }, (_, i) => week.from + i * DAY).map((at, i) => {
    const on = week.items.filter((item) => {
      const [start, end] = [wall(item.start, item.allDay), wall(item.end, item.allDay)];
      return start < at + DAY && (end > at || (end === start && start >= at));
    });
    const list =
      on.length > 0
        ? `<ol>${on.map((item) => line(item, at)).join('')}</ol>`
        : `<span class="s">${plain(t('freeDay'))}</span>`;
    return `<li><h2>${plain(dayName.format(at))}${works(i)}</h2>${list}</li>`;
  });
  const go = (from: number | null, word: string) =>
    from === null ? '' : `<a href="${plain(path)}?from=${dateText(from)}">${plain(word)}</a>`;
  const place = week.zone.split('/').at(-1)?.replace(/_/g, ' ') ?? week.zone;
  return `<!doctype html>
<html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex"><title>${plain(t('title', { owner: week.title }))}</title><style nonce="${plain(nonce)}">${STYLE}</style></head>
<body><h1>${plain(t('title', { owner: week.title }))}</h1><p>${plain(`${t('shows', { sight: tb(`linkSight.${week.sight as 'busy'}`) })} ${t('zone', { zone: place })}`)}</p>${week.booking ? `<p class="b">${plain(t('booking', { words: week.booking }))}</p>` : ''}
<nav>${go(week.before, t('weekBefore'))}${go(week.after, t('weekAfter'))}</nav>${week.cut ? `<p>${plain(t('cut'))}</p>` : ''}
<ol>${days.join('')}</ol></body></html>
`;
}

/** What stands where an address shows nothing. */
export function plainGone(language: Language, nonce: string): string {
  const t = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'link' });
  return `<!doctype html>
<html lang="${language}"><head><meta charset="utf-8"><meta name="robots" content="noindex"><title>${plain(t('gone'))}</title><style nonce="${plain(nonce)}">${STYLE}</style></head>
<body><h1>${plain(t('gone'))}</h1><p>${plain(t('goneText'))}</p></body></html>
`;
}
