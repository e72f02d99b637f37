'use client';
import type { MouseEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { ItemWire } from '@/contract/items/items.ts';
import { isTaken } from '@/core/calendar/index.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, DAY, fullDay, hoursText, wallsOf, weekday, whenText } from '../../common/times.ts';
import type { BoardLane } from '../board/board-lanes.ts';
import { picksWith, usePicks } from '../board/picks.tsx';
import { hueOf } from './day-lane.tsx';
import { useBlockText } from './item-block.tsx';
import lanesCss from './lanes.module.css';
import { layOut, type Placed } from './layout.ts';

/** The hours a day's scale shows: what lies before or after stands at its ends. */
const FROM = 7 * 60;
const TO = 21 * 60;
const LINES = 4;

/**
 * Six weeks, a cell a day: at its edge the day to scale, with every block, clash and whereabouts; beside it what matters most of it, as
 * far as there is room. How much there is altogether is in the scale, not in a count.
 */
export function MonthSheet(props: {
  lanes: readonly BoardLane[];
  first: number;
  month: number;
  selected: string | null;
  onOpen: (item: ItemWire) => void;
  onDay: (day: number) => void;
}) {
  const { lanes, first, month, selected, onOpen, onDay } = props;
  const t = useTranslations();
  const { style, now } = useFrame();
  const textOf = useBlockText();
  const picks = usePicks();
  const layouts = lanes.map((lane) => ({ lane, layout: layOut(lane.items, first, 42, style.zone) }));
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const monthOf = (wall: number) => new Date(wall).getUTCMonth();
  return (
    <>
      {lanes
        .filter(({ state }) => state === 'unseen')
        .map(({ key, name }) => (
          <p key={key} className={`small soft ${lanesCss.note}`}>
            {t('lanes.unseen', { name })}
          </p>
        ))}
      <section className={lanesCss.month} aria-label={t('lanes.month')}>
        {Array.from({ length: 7 }, (_, i) => first + i * DAY).map((day) => (
          <div key={day} className={lanesCss.weekday}>
            {weekday(day)}
          </div>
        ))}
        {Array.from({ length: 42 }, (_, i) => {
          const day = first + i * DAY;
          const all = layouts.flatMap(({ lane, layout }) =>
            (layout.days[i] ?? []).map((placed) => ({ lane, placed, weight: weigh(placed) })),
          );
          const bars = layouts.flatMap(({ lane, layout }) =>
            layout.bars.filter((bar) => bar.from <= i && bar.to > i).map((bar) => ({ lane, bar })),
          );
          const lines = [...all]
            .sort((a, b) => b.weight - a.weight)
            .slice(0, Math.max(0, LINES - bars.length))
            .sort((a, b) => a.placed.top - b.placed.top);
          const booked = all.reduce((sum, { placed }) => sum + (isTaken(placed.item.shows) ? placed.height : 0), 0);
          const clashes = all.filter(({ placed }) => placed.clash).length;
          return (
            <div
              key={day}
              className={`${lanesCss.cell}${picks.days.includes(dateText(day)) ? ` ${lanesCss.picked}` : ''}${monthOf(day) === monthOf(month) ? '' : ` ${lanesCss.other}`}${day === today ? ` ${lanesCss.today}` : ''}`}
            >
              <Scale layouts={layouts} index={i} />
              <button
                type="button"
                className={`plain ${lanesCss.number}`}
                aria-label={t('lanes.day', { day: fullDay(day), hours: hoursText(booked), clashes })}
                aria-pressed={picks.days.includes(dateText(day)) ? true : undefined}
                onClick={(event) => (picksWith(event) ? picks.toggleDay(dateText(day)) : onDay(day))}
                onKeyDown={(event) => {
                  if (event.key !== 'x') return;
                  event.stopPropagation();
                  picks.toggleDay(dateText(day));
                }}
              >
                {new Date(day).getUTCDate()}
              </button>
              {bars.slice(0, 2).map(({ lane, bar }) => (
                <Line
                  key={`${bar.item.id}`}
                  lane={lane}
                  text={textOf(bar.item)}
                  title={whenText(bar.item, style)}
                  soft={!isTaken(bar.item.shows)}
                  clash={false}
                  selected={bar.item.id === selected}
                  picked={picks.items.has(bar.item.id)}
                  onOpen={(event) => (picksWith(event) ? picks.toggle(bar.item) : onOpen(bar.item))}
                />
              ))}
              {lines.map(({ lane, placed }) => (
                <Line
                  key={`${placed.item.id} ${placed.top}`}
                  lane={lane}
                  text={`${clock(wallsOf(placed.item, style.zone).start, style.hours)} ${textOf(placed.item)}`}
                  title={whenText(placed.item, style)}
                  soft={placed.item.withheld === true || !isTaken(placed.item.shows)}
                  clash={placed.clash}
                  selected={placed.item.id === selected}
                  picked={picks.items.has(placed.item.id)}
                  onOpen={(event) => (picksWith(event) ? picks.toggle(placed.item) : onOpen(placed.item))}
                />
              ))}
            </div>
          );
        })}
      </section>
    </>
  );
}

/** How much an item matters of its day: clashes, what is marked high, what others are asked to, what is long; repeats less. */
function weigh({ item, clash, height }: Placed): number {
  const importance = item.importance === 'high' ? 60 : item.importance === 'low' ? -40 : 0;
  const people = Math.min(8, item.attendees?.length ?? 0) * 6;
  const routine = item.repeats != null || item.asSet?.series ? -20 : 0;
  return (clash ? 100 : 0) + importance + people + routine + height / 10 - (isTaken(item.shows) ? 0 : 50);
}

function Line(props: {
  lane: BoardLane;
  text: string;
  title: string;
  soft: boolean;
  clash: boolean;
  selected: boolean;
  picked: boolean;
  onOpen: (event: MouseEvent) => void;
}) {
  const { lane, text, title, soft, clash, selected, picked, onOpen } = props;
  return (
    <button
      type="button"
      className={`plain ${lanesCss.line} who-${lane.colour}${clash ? ` ${lanesCss.clash}` : ''}${soft ? ` ${lanesCss.soft}` : ''}${picked ? ` ${lanesCss.taken}` : ''}`}
      title={`${lane.name}: ${title}`}
      aria-pressed={selected}
      onClick={onOpen}
    >
      {text}
    </button>
  );
}

function Scale({
  layouts,
  index,
}: {
  layouts: readonly { lane: BoardLane; layout: ReturnType<typeof layOut> }[];
  index: number;
}) {
  const n = layouts.length;
  const y = (minute: number) => `${(Math.min(TO, Math.max(FROM, minute)) - FROM) / ((TO - FROM) / 100)}%`;
  const h = (from: number, to: number) =>
    `${Math.max(2, (Math.min(TO, Math.max(FROM, to)) - Math.min(TO, Math.max(FROM, from))) / ((TO - FROM) / 100))}%`;
  return (
    <span className={lanesCss.scale} aria-hidden="true">
      {layouts.map(({ lane, layout }, l) => (
        <span key={lane.key} className={`who-${lane.colour}`}>
          {layout.rails[index]?.map((rail) => (
            <b
              key={rail.item.id}
              style={
                {
                  top: y(rail.top),
                  height: h(rail.top, rail.top + rail.height),
                  '--rail': hueOf(rail.item),
                } as React.CSSProperties
              }
            />
          ))}
          {layout.days[index]
            ?.filter(({ item }) => isTaken(item.shows))
            .map((p) => (
              <i
                key={`${p.item.id} ${p.top}`}
                className={
                  p.clash
                    ? lanesCss.clash
                    : p.item.withheld
                      ? lanesCss.misted
                      : p.item.shows === 'tentative'
                        ? lanesCss.light
                        : ''
                }
                style={{
                  top: y(p.top),
                  height: h(p.top, p.top + p.height),
                  left: `${((l + p.lane / p.lanes) / n) * 100}%`,
                  width: `${100 / n / p.lanes}%`,
                }}
              />
            ))}
        </span>
      ))}
    </span>
  );
}

/** The first day of the six weeks that hold a day's month. */
export function monthStart(day: number, weekFirst: number): { first: number; month: number } {
  const date = new Date(day);
  const month = Date.UTC(date.getUTCFullYear(), date.getUTCMonth(), 1);
  const weekdayOf = (Math.floor(month / DAY) + 3) % 7;
  const back = (weekdayOf - (weekFirst - 1) + 7) % 7;
  return { first: month - back * DAY, month };
}

/** The same day of another month, or its last day. */
export function otherMonth(day: number, by: number): number {
  const date = new Date(day);
  return Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + by, 1);
}
