import { createTranslator } from 'use-intl/core';
import type { TimePeriod, TimeUseQuery } from '@/contract/time-use.ts';
import { writeTable } from '@/core/formats/index.ts';
import { LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import { ok, type Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { readTimeUse } from './time-use.ts';

/** What somebody's time went to as a table, in the reader's language: a line for each thing it was counted for, minutes beside minutes. */
export function timeUseFile(ctx: Context, handle: string, query: TimeUseQuery): Result<string> {
  const read = readTimeUse(ctx, handle, query);
  if (!read.ok) return read;
  const { period, other, shares } = read.value;
  const { language } = ctx.viewer;
  const t = createTranslator({ locale: LOCALES[language], messages: TEXTS[language] });
  const of = (p: TimePeriod | null): Map<string, number> =>
    new Map(p ? linesOf(p).map(([by, name, n]) => [`${by}\n${name}`, n]) : []);
  const [mine, theirs] = [of(period), of(other)];
  const words = (by: Line[0], name: string): string => {
    if (by === 'kind') return name ? t(`kinds.${name as 'meeting'}`) : t('timeUse.unseen');
    if (by === 'side') return t(`timeUse.sides.${name as 'alone'}`);
    return by === 'category' && name === '' ? t('timeUse.noCategory') : name;
  };
  const rows = [...new Set([...mine.keys(), ...theirs.keys()])].map((key) => {
    const [by = '', name = ''] = key.split('\n') as [Line[0], string];
    const wished = shares.find((share) => share.by === by && share.name === name)?.percent ?? '';
    return [by, words(by as Line[0], name), mine.get(key) ?? 0, ...(other ? [theirs.get(key) ?? 0] : []), wished];
  });
  const head = ['by', 'name', `minutes ${period.from} ${period.until}`];
  return ok(writeTable([...head, ...(other ? [`minutes ${other.from} ${other.until}`] : []), 'wished percent'], rows));
}

type Line = readonly [by: 'total' | 'kind' | 'category' | 'side' | 'person' | 'week', name: string, minutes: number];

function linesOf(p: TimePeriod): Line[] {
  return [
    ['total', '', p.total],
    ...p.kinds.map((one): Line => ['kind', one.name, one.minutes]),
    ...p.categories.map((one): Line => ['category', one.name, one.minutes]),
    ...Object.entries(p.sides).map(([side, minutes]): Line => ['side', side, minutes]),
    ...p.people.map((one): Line => ['person', `${one.name} <${one.address}>`, one.minutes]),
    ...p.weeks.map((week, i): Line => ['week', String(i + 1), week.total]),
  ];
}
