import { type Rule, ruleBefore, ruleFrom } from '@/core/recurrence/index.ts';
import { dateText, parseDate, parseWall, toWall, wallText } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import { replacementsOf } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Refusal, refuse } from '../../result.ts';
import type { Context, FoundItem } from '../deciding/index.ts';

/** A series cut at one of its occurrences: what stays before it, and, as an item of its own, what comes from it on. */
export interface Split {
  readonly head: StoredItem;
  readonly tail: Omit<StoredItem, 'id'>;
}

/**
 * Cuts a series at an occurrence of it; `null` where that is the first, so that all of it is meant. Refused where occurrences from there on
 * were changed by themselves: each would have to find its place anew.
 */
export function splitSeries(
  ctx: Context,
  item: StoredItem,
  occurrence: NonNullable<FoundItem['occurrence']>,
): Split | Refusal | null {
  const { recurrence } = occurrence;
  const wall = item.allDay ? parseDate(recurrence.slice(0, 10)) : parseWall(recurrence);
  const startWall = item.wall ?? (item.allDay ? item.start : toWall(item.zone, item.start));
  if (wall === null || wall <= startWall) return null;
  if (replacementsOf(ctx.db, item.id).some((r) => (r.recurrence ?? '') >= recurrence)) return refuse('seriesSplit');
  const rule: Rule | null = item.rule === null ? null : { kind: 'rule', text: item.rule };
  const before = (text: string) => text < recurrence;
  const { id: _id, ...series } = item;
  const text = item.allDay ? dateText(startWall) : wallText(startWall);
  // The start itself is one of its dates, whether a rule gives it or not.
  const head: StoredItem = {
    ...item,
    rule: rule && ruleBefore(rule, wall),
    added: item.added.filter(before),
    left: item.left.filter(before),
    sequence: item.sequence + 1,
    version: item.version + 1,
  };
  const tail: Omit<StoredItem, 'id'> = {
    ...series,
    start: occurrence.start,
    end: occurrence.end,
    wall: null,
    rule: rule && ruleFrom(rule, startWall, wall),
    added: item.added.filter((one) => !before(one) && one !== recurrence && one !== text),
    left: item.left.filter((one) => !before(one)),
    kept: [],
    batch: null,
    key: newKey(),
    uid: `${newKey()}@paramo`,
    organiser: item.ownerInvited ? item.organiser : null,
    attendees: item.ownerInvited ? item.attendees : [],
    sequence: 0,
    version: 1,
  };
  return { head, tail };
}
