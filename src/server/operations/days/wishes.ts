import { dateText, toWall } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { type DayLetterWish, dayLetterOf, dayLetters, putDayLetter } from '../../repositories/day-letters.ts';
import { insertOutgoing } from '../../repositories/outbox.ts';
import { personById } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { settings } from '../../settings.ts';
import type { Context } from '../deciding/index.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** How many minutes late a letter still goes out, where the program wasn't running at the time. */
const LATE = 120;
/** Wishes looked at in one go. */
const A_SLICE = 200;

interface Times {
  readonly morning: string | null;
  readonly evening: string | null;
}

const textOf = (minutes: number | null): string | null =>
  minutes === null ? null : new Date(minutes * MINUTE).toISOString().slice(11, 16);
const minutesOf = (text: string | null): number | null =>
  text === null ? null : Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));

/** At what time the viewer is sent the letters of the day, and whether letters can be sent at all. */
export function readDayLetters(ctx: Context): Result<Times & { mail: boolean }> {
  if (!ctx.viewer.inside) return refuse('insideOnly');
  const { morning, evening } = dayLetterOf(ctx.db, ctx.viewer.id);
  const { smtp, demo } = settings();
  return ok({ morning: textOf(morning), evening: textOf(evening), mail: smtp !== null || demo });
}

/** Says it anew. A time that has passed today counts from tomorrow on. */
export function saveDayLetters(ctx: Context, { morning, evening }: Times): Result<{ done: true }> {
  if (!ctx.viewer.inside) return refuse('insideOnly');
  return ctx.db.write(() => {
    const was = dayLetterOf(ctx.db, ctx.viewer.id);
    const { date, minute } = clockOf(ctx.viewer.zone, ctx.now);
    const last = (now: number | null, before: number | null, day: string): string =>
      now !== null && now !== before && now <= minute ? date : day;
    const next = { morning: minutesOf(morning), evening: minutesOf(evening) };
    putDayLetter(ctx.db, {
      personId: ctx.viewer.id,
      ...next,
      lastMorning: last(next.morning, was.morning, was.lastMorning),
      lastEvening: last(next.evening, was.evening, was.lastEvening),
    });
    return ok({ done: true as const });
  });
}

function clockOf(zone: string, now: number): { readonly date: string; readonly minute: number } {
  const wall = toWall(zone, now);
  return { date: dateText(Math.floor(wall / DAY) * DAY), minute: Math.floor((wall % DAY) / MINUTE) };
}

/**
 * Puts the letters of the day that are due on their way, each once a day. They are written when they leave. Call it every so often; those of the last
 * two hours are caught up with. A few people at a time, so that nobody waits. Answers how many there were.
 */
export async function dayLettersDue(db: Connection, now: number, others: () => Promise<void>): Promise<number> {
  let sent = 0;
  for (let after = -1; ; ) {
    const wishes = dayLetters(db, after, A_SLICE);
    const due = wishes.flatMap((wish) => dueOf(db, now, wish));
    if (due.length > 0)
      db.write(() => {
        for (const { wish, kind } of due) {
          putDayLetter(db, wish);
          insertOutgoing(db, {
            key: newKey(),
            at: now,
            personId: wish.personId,
            kind,
            collectionId: null,
            grantId: null,
            byId: null,
            note: '',
          });
        }
      });
    sent += due.length;
    const last = wishes.at(-1);
    if (wishes.length < A_SLICE || !last) return sent;
    after = last.personId;
    await others();
  }
}

function dueOf(db: Connection, now: number, wish: DayLetterWish) {
  const person = personById(db, wish.personId);
  if (!person?.inside || person.leftAt !== null) return [];
  const { date, minute } = clockOf(person.zone, now);
  const isDue = (at: number | null, last: string) => at !== null && at <= minute && minute < at + LATE && last !== date;
  const [morning, evening] = [isDue(wish.morning, wish.lastMorning), isDue(wish.evening, wish.lastEvening)];
  const next = {
    ...wish,
    ...(morning ? { lastMorning: date } : {}),
    ...(evening ? { lastEvening: date } : {}),
  };
  return (['morning', 'evening'] as const).flatMap((kind) =>
    (kind === 'morning' ? morning : evening) ? [{ wish: next, kind }] : [],
  );
}
