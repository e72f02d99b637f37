'use client';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, DAY, fullDay, wallsOf } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import { picksWith, usePicks } from '../board/picks.tsx';
import { useBlockText } from './item-block.tsx';
import lanesCss from './lanes.module.css';

/** Everything one may read of some weeks, by day, one under the other: for reading through, and for a narrow screen. */
export function Agenda(props: {
  lanes: readonly BoardLane[];
  first: number;
  count: number;
  selected: string | null;
  onOpen: (item: ItemWire) => void;
}) {
  const { lanes, first, count, selected, onOpen } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const textOf = useBlockText();
  const picks = usePicks();
  const all = lanes
    .flatMap((lane) => lane.items.map((item) => ({ lane, item, ...wallsOf(item, style.zone) })))
    .sort((a, b) => a.start - b.start || b.end - a.end);
  const days = Array.from({ length: count }, (_, i) => first + i * DAY)
    .map((day) => ({
      day,
      list: all.filter(({ start, end }) => start < day + DAY && (end > day || (start >= day && start === end))),
    }))
    .filter(({ list }) => list.length > 0);
  const several = lanes.length > 1;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
    <section className={lanesCss.agenda} aria-label={t('lanes.list')} tabIndex={0}>
      {lanes
        .filter((lane) => lane.state === 'unseen')
        .map((lane) => (
          <p key={lane.key} className={`small soft ${lanesCss.unseen} near`}>
            {t('lanes.unseen', { name: lane.name })}
          </p>
        ))}
      {days.map(({ day, list }) => (
        <div key={day}>
          <h2>{fullDay(day)}</h2>
          {list.map(({ lane, item, start, end }) => (
            <button
              type="button"
              key={`${lane.key} ${item.id}`}
              className={`plain ${lanesCss.entry} who-${lane.colour}`}
              aria-pressed={item.id === selected}
              data-picked={picks.items.has(item.id) || undefined}
              onClick={(event) => (picksWith(event) ? picks.toggle(item) : onOpen(item))}
            >
              <span>
                {item.allDay
                  ? t('board.allDay')
                  : `${start < day ? '…' : clock(start, style.hours)}–${end > day + DAY ? '…' : clock(end, style.hours)}`}
              </span>
              <span className={lanesCss.what}>
                {textOf(item)}
                <span className="small soft">
                  {' '}
                  {[
                    several ? lane.name : null,
                    item.shows === 'busy' ? null : t(`statuses.${item.shows}`),
                    item.attendees && item.attendees.length > 0
                      ? item.attendees
                          .slice(0, 4)
                          .map((a) => a.name ?? a.address)
                          .join(', ')
                      : null,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </span>
              <span className={`small soft ${lanesCss.place}`}>{item.place}</span>
            </button>
          ))}
        </div>
      ))}
    </section>
  );
}
