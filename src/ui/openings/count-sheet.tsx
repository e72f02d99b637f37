'use client';
import { useTranslations } from 'use-intl';
import type { TimesAnswer } from '@/contract/openings/openings.ts';
import { parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { clock, DAY, dayName, MINUTE } from '../common/times.ts';
import css from './openings.module.css';

type Run = TimesAnswer['runs'][number];

const QUARTER = 15 * MINUTE;
/** The height of a quarter of an hour. */
const STEP_PX = 10;
const PER_HOUR = 4;

/** The hours that a sheet shows: those in which anybody can come and those of the runs, at least from eight to six. */
export function hoursOf(sheet: TimesAnswer['sheet'], runs: readonly { from: number; end: number }[]): [number, number] {
  let [from, to] = [8, 18];
  const wide = (hour: number) => {
    from = Math.min(from, Math.floor(hour));
    to = Math.max(to, Math.ceil(hour));
  };
  const most = Math.max(1, ...sheet.flatMap((day) => day.can));
  for (const { can } of sheet) for (const [i, n] of can.entries()) if (n === most && most > 1) wide(i / PER_HOUR);
  for (const run of runs) {
    wide((run.from % DAY) / (60 * MINUTE));
    wide(Math.min(24, ((run.from % DAY) + (run.end - run.from)) / (60 * MINUTE)));
  }
  return [Math.max(0, Math.min(from, 8)), Math.min(24, Math.max(to, 18))];
}

/**
 * The days that are asked for, each with a bar for every quarter of an hour: as wide as many can come. The times that work stand on it, and
 * are pressed as they are in the list, which is what keys and readers use.
 */
export function CountSheet(props: {
  sheet: TimesAnswer['sheet'];
  known: number;
  runs: readonly Run[];
  length: number;
  walked: number | null;
  today: number;
  onWalk: (run: Run) => void;
  onTake: (run: Run) => void;
}) {
  const { sheet, known, runs, length, walked, today, onWalk, onTake } = props;
  const t = useTranslations('openings');
  const { style } = useFrame();
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  const stood = runs.map((run) => ({ run, from: wall(run.from), end: wall(run.to) + length * MINUTE }));
  const [first, last] = hoursOf(sheet, stood);
  const y = (wall: number) => (wall / QUARTER - first * PER_HOUR) * STEP_PX;
  const hours = Array.from({ length: last - first }, (_, i) => first + i);
  return (
    <section className={css.sheetBox} aria-label={t('sheet', { known, count: runs.length })}>
      <div className={css.hours} style={{ height: (last - first) * PER_HOUR * STEP_PX }}>
        {hours.map((hour) => (
          <span key={hour} style={{ top: y(hour * 60 * MINUTE) }}>
            {clock(hour * 60 * MINUTE, style.hours)}
          </span>
        ))}
      </div>
      {sheet.map(({ date, can }) => {
        const day = parseDate(date) ?? 0;
        const here = joined(stood.filter(({ from }) => Math.floor(from / DAY) * DAY === day));
        return (
          <div key={date} className={`${css.day}${can.some((n) => n > 0) || here.length > 0 ? '' : ` ${css.shut}`}`}>
            <div className={`${css.dayName}${day === today ? ` ${css.today}` : ''}`}>{dayName(day)}</div>
            <div className={css.column} style={{ height: (last - first) * PER_HOUR * STEP_PX }}>
              {barsOf(can, first * PER_HOUR, last * PER_HOUR).map(({ from, to, n }) => (
                <i
                  key={from}
                  className={n === known ? css.all : undefined}
                  style={{
                    top: (from - first * PER_HOUR) * STEP_PX,
                    height: (to - from) * STEP_PX - 1,
                    width: `${(n / Math.max(1, known)) * 100}%`,
                  }}
                />
              ))}
              {here.map(({ run, from, end }) => (
                // The same times stand in the list beside it, where keys and readers find them.
                <button
                  key={run.from}
                  type="button"
                  tabIndex={-1}
                  aria-hidden
                  className={`plain ${css.opening}${walked !== null && walked >= from && walked < end ? ` ${css.walked}` : ''}`}
                  style={{ top: y(from % DAY), height: Math.max(14, y((from % DAY) + end - from) - y(from % DAY)) }}
                  onMouseEnter={() => onWalk(run)}
                  onClick={() => onTake(run)}
                >
                  {clock(wall(run.from), style.hours)}
                </button>
              ))}
            </div>
          </div>
        );
      })}
    </section>
  );
}

/** Stretches that lie over each other as one, which stands for the best of them: they come best first. */
function joined<S extends { from: number; end: number }>(stood: readonly S[]): S[] {
  const out: S[] = [];
  for (const one of stood) {
    const i = out.findIndex((other) => one.from < other.end && other.from < one.end);
    const over = out[i];
    if (over) out[i] = { ...over, from: Math.min(over.from, one.from), end: Math.max(over.end, one.end) };
    else out.push(one);
  }
  return out.length < stood.length ? joined(out) : out;
}

/** Quarters of an hour of which as many can come, joined; none where nobody can. */
function barsOf(can: readonly number[], first: number, last: number): { from: number; to: number; n: number }[] {
  const bars: { from: number; to: number; n: number }[] = [];
  for (let i = first; i < last; i++) {
    const n = can[i] ?? -1;
    if (n <= 0) continue;
    const before = bars.at(-1);
    if (before && before.to === i && before.n === n && i % PER_HOUR !== 0) before.to = i + 1;
    else bars.push({ from: i, to: i + 1, n });
  }
  return bars;
}
