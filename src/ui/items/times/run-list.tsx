'use client';
import type { KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { TimesAnswer } from '@/contract/openings/openings.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, dayName } from '../../common/times.ts';
import runListCss from './run-list.module.css';

type Run = TimesAnswer['runs'][number];

/** Walks a list of rows by the arrow keys, from the first button of one to that of the next or the one before. */
export function walkRows(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
  event.preventDefault();
  const row = event.currentTarget.closest('li');
  const next = event.key === 'ArrowDown' ? row?.nextElementSibling : row?.previousElementSibling;
  next?.querySelector('button')?.focus();
}

/**
 * Times that work, best first, each with its reasons. The arrow keys walk them and the board shows the walked one; Enter takes it, H chooses
 * it among those that are held or offered together, S sends it where that can be done.
 */
export function RunList(props: {
  runs: readonly Run[];
  chosen: readonly string[];
  /** Set where several can be chosen to be held or offered together. */
  onChoose?: (from: string) => void;
  onWalk: (run: Run | null) => void;
  onTake: (run: Run) => void;
  /** Set where one can be sent as it is. */
  onSend?: ((run: Run) => void) | undefined;
}) {
  const { runs, chosen, onChoose, onWalk, onTake, onSend } = props;
  const t = useTranslations('openings');
  const { style } = useFrame();
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  // Said once: of most times that work nothing is to be said.
  const clean = runs.findIndex(({ reasons }) => reasons.length === 0);
  const reason = (r: Run['reasons'][number]) =>
    t(`why.${r.why}`, { who: r.who, local: r.local ?? '', minutes: r.minutes ?? 0 });
  return (
    <>
      <p className="small soft">{t('keys', { hold: onChoose ? 'yes' : 'no', send: onSend ? 'yes' : 'no' })}</p>
      <ol className={runListCss.runs} aria-label={t('runs')}>
        {runs.map((run, i) => {
          const is = chosen.includes(run.from);
          return (
            <li key={run.from} className={is ? runListCss.chosen : undefined}>
              <button
                type="button"
                className={`plain ${runListCss.run}`}
                onFocus={() => onWalk(run)}
                onBlur={() => onWalk(null)}
                onMouseEnter={() => onWalk(run)}
                onMouseLeave={() => onWalk(null)}
                onClick={() => onTake(run)}
                onKeyDown={(event) => {
                  walkRows(event);
                  if (onChoose && event.key.toLowerCase() === 'h' && !event.ctrlKey && !event.metaKey) {
                    event.preventDefault();
                    event.stopPropagation();
                    onChoose(run.from);
                  } else if (onSend && event.key.toLowerCase() === 's' && !event.ctrlKey && !event.metaKey) {
                    event.preventDefault();
                    event.stopPropagation();
                    onSend(run);
                  }
                }}
              >
                <b>
                  {dayName(wall(run.from))}, {clock(wall(run.from), style.hours)}
                </b>
                {run.to !== run.from && ` ${t('orUntil', { time: clock(wall(run.to), style.hours) })}`}
                {(i === clean || run.room || run.reasons.length > 0) && (
                  <span className="small soft block">
                    {run.room && `${run.room.name} · `}
                    {run.reasons.length === 0
                      ? i === clean && t('nothingAgainst')
                      : run.reasons.map(reason).join(' · ')}
                  </span>
                )}
              </button>
              {onChoose && (
                <button
                  type="button"
                  className={`plain ${runListCss.choose}`}
                  aria-pressed={is}
                  aria-label={t('choose', {
                    time: `${dayName(wall(run.from))}, ${clock(wall(run.from), style.hours)}`,
                  })}
                  onClick={() => onChoose(run.from)}
                >
                  {is ? '✓' : '+'}
                </button>
              )}
            </li>
          );
        })}
      </ol>
    </>
  );
}
