import { afterEach, beforeEach, vi } from 'vitest';
import * as clock from '../../clock.ts';
import type { Context } from '../deciding/index.ts';
import { listItems } from '../items/index.ts';
import { type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { listObjects } from './objects.ts';
import type { ObjectsWanted } from './program-object.ts';
import { listInbox } from './scheduling.ts';
import type { Seen } from './seen.ts';
import { putObject } from './write-object.ts';

/*
 * For tests: a small organisation as calendar programs meet it.
 */
export const inboxOf = (ctx: Context) => {
  const listed = listInbox(ctx);
  return listed.ok ? listed.value : [];
};

export const DAY = 86_400_000;

export const NONE: Seen = { match: null, noneMatch: null };
export let org: SmallOrganisation;
export let calendar = '';
/** Makes it anew before each test of the file that calls this. */
export function eachProgramDay(): void {
  beforeEach(() => {
    org = smallOrganisation();
    vi.spyOn(clock, 'now').mockReturnValue(START);
    calendar = org.calendar('ines');
  });
  afterEach(() => {
    vi.restoreAllMocks();
    org.close();
  });
}

export const list = (who: string | Context, wanted: Partial<ObjectsWanted> = {}) => {
  const ctx = typeof who === 'string' ? org.ctx(who) : who;
  const read = listObjects(ctx, calendar, { texts: true, ...wanted });
  return read.ok ? read.value.objects : [];
};
export const textOf = (who: string, title: string): { name: string; text: string; tag: string } => {
  const found = list(who).find((one) => one.text?.includes(title));
  if (!found?.text) throw new Error(`${who} has nothing called ${title}`);
  return { name: found.name, text: found.text, tag: found.tag };
};
export const put = (who: string, name: string, text: string, seen = NONE) =>
  putObject(org.ctx(who), calendar, name, text, seen);
/** A text as somebody who was given it sends it back, with some of it written otherwise. */
export const edit = (text: string, ...changes: [from: string | RegExp, to: string][]): string =>
  changes.reduce((was, [from, to]) => {
    const is = was.replace(from, to);
    if (is === was) throw new Error(`${String(from)} isn't in ${was}`);
    return is;
  }, text);
export const board = (who = 'ines', range = WEEK) => {
  const listed = listItems(org.ctx(who), calendar, range);
  return listed.ok ? listed.value.items : [];
};
export const lines = (...inside: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...inside, 'END:VCALENDAR', ''].join('\r\n');
export const event = (...inside: string[]): string[] => [
  'BEGIN:VEVENT',
  'DTSTAMP:20270302T090000Z',
  ...inside,
  'END:VEVENT',
];
