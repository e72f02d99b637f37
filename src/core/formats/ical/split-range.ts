import { type Rule, ruleBefore, ruleFrom, shiftedRule } from '../../recurrence/index.ts';
import { dateText, parseDate, parseWall, wallText } from '../../time/index.ts';
import type { ReadItem } from './read-item.ts';

/** So often one series is cut, and all of a text together; what is more is left out and named. */
const MOST_IN_SERIES = 20;
const MOST_IN_TEXT = 500;

/** What an item and those of its series become, where one of them stands for all later occurrences too. */
interface SplitItems {
  readonly items: readonly ReadItem[];
  /** Those that stand for later occurrences of a series that isn't there, or that don't simply move with it. */
  readonly unsplit: readonly ReadItem[];
}

/**
 * Takes apart each series of which an item stands for one occurrence and all later ones (RFC 5545 3.2.13): the series ends before it, and from it on
 * there is a second one, under a UID that is made from the first's so that the same text always says the same. What was changed by itself from there
 * on belongs to the second. One that is called off ends its series.
 */
export function splitRanges(read: readonly ReadItem[]): SplitItems {
  const later = read.filter((item) => item.andLater);
  if (later.length === 0) return { items: read, unsplit: [] };
  const others: ReadItem[] = [];
  const groups = new Map<string, ReadItem[]>(later.map(({ uid }) => [uid, []]));
  for (const item of read) (groups.get(item.uid) ?? others).push(item);
  const unsplit: ReadItem[] = [];
  let left = MOST_IN_TEXT;
  const split = [...groups.values()].flatMap((group) => {
    let items: readonly ReadItem[] = group;
    const cuts = group.filter((item) => item.andLater).sort((a, b) => order(a.recurrence, b.recurrence));
    for (const [n, { line }] of cuts.entries()) {
      const item = items.find((one) => one.line === line && one.andLater);
      if (!item) continue;
      const parts = n < MOST_IN_SERIES && left-- > 0 ? splitAt(items, item) : null;
      if (!parts) unsplit.push(item);
      items = parts ?? items.filter((one) => one !== item);
    }
    return items;
  });
  return { items: [...others, ...split], unsplit };
}

const order = (a: string | null, b: string | null): number => ((a ?? '') < (b ?? '') ? -1 : 1);

const wallOf = (text: string): number => (text.includes('T') ? parseWall(text) : parseDate(text)) ?? Number.NaN;

/** The items with one series cut at one that stands for later ones; `null` where it can't be. */
function splitAt(items: readonly ReadItem[], item: ReadItem): readonly ReadItem[] | null {
  const series = items.find((one) => one.uid === item.uid && one.recurrence === null);
  const { recurrence } = item;
  if (!series || recurrence === null) return null;
  if (item.allDay !== series.allDay || (!item.allDay && item.zone !== series.zone)) return null;
  const [at, first] = [wallOf(recurrence), wallOf(series.start)];
  const shift = wallOf(item.start) - at;
  const moved = (text: string) => (item.allDay ? dateText : wallText)(wallOf(text) + shift);
  const rule: Rule | null = series.rule === null ? null : { kind: 'rule', text: series.rule };
  const rest = rule && { kind: 'rule' as const, text: ruleFrom(rule, first, at) };
  const restRule = rest && (shift === 0 ? rest.text : shiftedRule(rest, at, shift));
  if (rest && restRule === null) return null;
  const isLater = (text: string | null) => text !== null && wallOf(text) >= at;
  const { andLater: _later, ...plain } = item;
  const tail: ReadItem = {
    ...plain,
    uid: at <= first ? series.uid : `${series.uid.slice(0, 360)}#${recurrence}`,
    recurrence: null,
    rule: restRule,
    added: series.added.filter((text) => isLater(text) && text !== recurrence).map(moved),
    left: series.left.filter(isLater).map(moved),
  };
  const head: ReadItem = {
    ...series,
    rule: rule && ruleBefore(rule, at),
    added: series.added.filter((text) => !isLater(text)),
    left: series.left.filter((text) => !isLater(text)),
  };
  return items.flatMap((one) => {
    if (one === item) return item.cancelled ? [] : [tail];
    if (one === series) return at > first ? [head] : item.cancelled ? [{ ...series, cancelled: true }] : [];
    if (one.uid !== item.uid || !isLater(one.recurrence)) return [one];
    return item.cancelled ? [] : [{ ...one, uid: tail.uid, recurrence: moved(one.recurrence ?? '') }];
  });
}
