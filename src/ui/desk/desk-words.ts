import { useTranslations } from 'use-intl';
import type { DeskAbout, DeskAct, DeskRowWire } from '@/contract/desk.ts';
import { parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { useDueWords } from '../common/due-words.ts';
import { useFrame } from '../common/frame-context.tsx';
import { isolated } from '../common/isolated.ts';
import { atText, clock, dayMonth, dayName, fullDay, type TimeStyle, wallsOf, weekday } from '../common/times.ts';
import { firstName } from '../common/token.tsx';

/** A row in words: what it is, when and with whom, and why it is there. `wrong` is the part that presses. */
export interface RowWords {
  readonly title: string;
  readonly sub: string;
  readonly wrong: string;
  readonly why: string;
}

type When = { readonly start: string; readonly end: string; readonly allDay: boolean };

/** A time as a row has room for it: `Wed 3, 14:00–15:00`. */
export function shortWhen(when: When, style: TimeStyle): string {
  const { start, end } = wallsOf(when, style.zone);
  if (when.allDay) return `${weekday(start)} ${dayMonth(start)}`;
  return `${dayName(start)}, ${clock(start, style.hours)}–${clock(end, style.hours)}`;
}
/** An instant the same way: `Wed 3, 14:00`. */
export function shortAt(instant: string, style: TimeStyle): string {
  const wall = toWall(style.zone, parseInstant(instant) ?? 0);
  return `${dayName(wall)}, ${clock(wall, style.hours)}`;
}

/** So many of what a row clashes with are named. */
const NAMED = 3;

/** Puts rows into words, in the language and on the clock of whoever reads them. */
export function useDeskWords() {
  const t = useTranslations('desk');
  const tp = useTranslations('presets');
  const { style } = useFrame();
  const dueWords = useDueWords();
  const nameOf = useCollectionName();
  const level = (preset: string | null): string => (preset === null ? t('someAccess') : tp(preset as 'full'));
  const dayOf = (instant: string, off = 0): string => dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) + off));
  const titleOf = (item: DeskRowWire['items'][number] | undefined): string =>
    item === undefined || !('title' in item) ? t('private') : isolated(item.title ?? '') || t('untitled');
  const names = (list: readonly { readonly name: string }[]) => list.map(({ name }) => name).join(', ');

  const ofItems = ({ kind, items, because, about, people }: DeskRowWire): RowWords => {
    const [first, second] = items;
    const when = first ? shortWhen(first, style) : '';
    const place = first?.place ? `, ${first.place}` : '';
    const doubts = about?.of === 'meeting' ? about.people : [];
    const words = { title: titleOf(first), sub: when + place, wrong: '', why: '' };
    switch (kind) {
      case 'answer': {
        const clash = because.find((b) => b.why === 'clash');
        const sub = t('asked', { who: first?.organiser?.name ?? first?.organiser?.address ?? '', when }) + place;
        if (clash?.why !== 'clash') return { ...words, sub, why: t('why.free') };
        const what = clash.items
          .slice(0, NAMED)
          .map(({ title }) => isolated(title ?? t('private')))
          .join(', ');
        const more = Math.max(0, clash.items.length - NAMED);
        return {
          ...words,
          sub,
          wrong: t('why.clashes', { n: clash.items.length }),
          why: t('why.with', { what, more }),
        };
      }
      case 'refused':
        return { ...words, wrong: t('why.refused', { who: names(doubts.filter((d) => d.answer === 'declined')) }) };
      case 'proposal': {
        const one = doubts.find((d) => d.proposes);
        const then = one?.proposes ? shortWhen(one.proposes, style) : '';
        return { ...words, why: t('why.proposes', { who: one?.name ?? '', when: then }) };
      }
      case 'silent': {
        const silent = doubts.filter((d) => d.answer === 'needs-action');
        const since = silent[0] ? ` ${t('why.since', { when: shortAt(silent[0].since, style) })}` : '';
        return { ...words, wrong: t('why.silent', { who: names(silent) }), why: since.trim() };
      }
      case 'unset':
        return {
          ...words,
          sub: `${when}${people.length > 0 ? `, ${names(people.slice(0, 3))}` : ''}`,
          why: t('why.unset'),
        };
      case 'clash': {
        const more = items.length - 2;
        const facts = { a: titleOf(first), b: titleOf(second), n: more };
        const last = [...items]
          .sort((a, b) => (a.allDay === b.allDay ? (a.start < b.start ? -1 : 1) : a.allDay ? -1 : 1))
          .at(-1);
        return {
          title: more > 0 ? t('overlapMore', facts) : t('overlap', facts),
          sub: items
            .slice(0, 2)
            .map((item) => shortWhen(item, style))
            .join(' · '),
          wrong: t('why.clashes', { n: 1 }),
          why: last
            ? t('why.overlap', { when: last.allDay ? shortWhen(last, style) : shortAt(last.start, style) })
            : '',
        };
      }
      case 'journey': {
        const way = because.find((b) => b.why === 'journey');
        const places = items.map((item) => item.place ?? '').join(' – ');
        return {
          title: t('journeyTitle', { a: titleOf(first), b: titleOf(second) }),
          sub: `${first ? shortAt(first.end, style) : ''}, ${places}`,
          wrong: way?.why === 'journey' ? t('why.journey', { needs: way.needs, has: way.has }) : '',
          why: '',
        };
      }
      default:
        return words;
    }
  };

  const ofAbout = (row: DeskRowWire, about: DeskAbout): RowWords => {
    const plain = { title: '', sub: '', wrong: '', why: '' };
    switch (about.of) {
      case 'hold':
        return {
          ...plain,
          title: t('held', { title: titleOf(row.items[0]), n: about.times.length }),
          sub: about.times.map((time) => shortWhen({ ...time, allDay: false }, style)).join(' · '),
          why: about.lapses ? t('why.lapses', { when: shortAt(about.lapses, style) }) : '',
        };
      case 'wish': {
        const { keep } = about;
        const facts = { from: '', to: '', minutes: 0, after: 0, ...keep };
        const day = fullDay(parseDate(about.day) ?? 0);
        return { ...plain, title: t(`wishes.${keep.kind}`, facts as never), sub: day, wrong: t('why.wish') };
      }
      case 'suggestion': {
        const title = about.title || t('untitled');
        const facts = { who: about.who, title };
        const now = about.now ? shortWhen(about.now, style) : '';
        const then = about.wanted ? shortWhen(about.wanted, style) : '';
        return {
          ...plain,
          title: about.act === 'remove' ? t('suggestsRemove', facts) : t('suggests', facts),
          sub: about.why ? t('why.asks', { why: about.why }) : '',
          why: now && then ? t('why.wanted', { now, then }) : then || now,
        };
      }
      case 'ask':
        return {
          ...plain,
          title: t('asksFor', {
            who: about.who,
            level: level(about.preset),
            of: about.collection ? nameOf(about.collection.kind, about.collection.name) : 'none',
          }),
          sub: about.why ? t('why.asks', { why: about.why }) : '',
        };
      case 'message': {
        const title = t('fromSubject', { from: about.from, subject: about.subject || t('noSubject') });
        const came = t('why.mail', { when: shortAt(about.at, style) });
        return row.kind === 'claim'
          ? { ...plain, title, sub: came, wrong: t('why.claim') }
          : { ...plain, title, why: came };
      }
      case 'letter':
        return {
          ...plain,
          title: t('undelivered', { subject: about.subject || t('noSubject') }),
          sub: t('undeliveredTo', { to: about.to }),
          wrong: t('why.letter', { when: shortAt(about.at, style) }),
        };
      case 'grant': {
        const facts = { who: about.who, level: level(about.preset) };
        return about.until
          ? { ...plain, title: t('grantEnds', facts), why: t('why.ends', { when: atText(about.until, style) }) }
          : { ...plain, title: t('grantUnused', facts), why: t('why.unused', { when: atText(about.given, style) }) };
      }
      case 'absence': {
        const [from, until] = [dayOf(about.from), dayOf(about.until, -1)];
        const facts = { from, until, one: String(from === until), cover: about.cover ?? '' };
        const lacks = row.because.map(({ why }) => why);
        return {
          ...plain,
          title: t('absent', facts),
          wrong: lacks.includes('notice') ? t('why.notice') : '',
          why: !lacks.includes('cover') ? '' : about.cover ? t('why.cover', facts) : t('why.nobodyCovers'),
        };
      }
      case 'task':
        return {
          ...plain,
          title: about.title,
          sub: about.belongsTo ?? '',
          why: t('why.task', { when: dueWords(about) }),
        };
      case 'finding':
        return {
          ...plain,
          title: t(`findings.${about.finding as 'link'}`, { who: about.who ?? '' }),
          why: about.people === null ? t('why.findingPlain') : t('why.finding', { people: about.people }),
        };
      default:
        return ofItems(row);
    }
  };

  const words = (row: DeskRowWire): RowWords => {
    const plain = row.about ? ofAbout(row, row.about) : ofItems(row);
    const also = row.because
      .filter((b) => b.why !== row.kind && (b.why === 'unset' || b.why === 'silent' || b.why === 'proposal'))
      .map((b) => (b.why === 'unset' ? t('kindNames.unset') : t(`kindNames.${b.why as 'silent'}`)));
    return also.length === 0
      ? plain
      : { ...plain, why: `${plain.why} ${t('why.also', { what: also.join(', ') })}`.trim() };
  };

  /** What a step is called where it stands: with its time, where it has one. */
  const actName = (act: DeskAct, row: DeskRowWire): string => {
    const first = row.about?.of === 'hold' ? row.about.times[0] : undefined;
    const cover = row.about?.of === 'absence' ? firstName(row.about.cover ?? '') : '';
    return t(`acts.${act}`, { when: first ? shortAt(first.start, style) : '', cover });
  };
  return { words, actName, titleOf };
}
