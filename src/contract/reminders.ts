import { z } from 'zod';
import { at, type Routes } from './route.ts';

/** Two weeks. */
const minutes = z.number().int().min(0).max(20_160, 'tooEarly').nullable();

/** Somebody's own wish for a calendar; `null` minutes are none. */
const wish = z.strictObject({ minutes, byMail: z.boolean() });

const remindersAnswer = z.strictObject({
  due: z.array(
    z.strictObject({
      key: z.string(),
      /** The item's id where it can be opened. */
      item: z.string(),
      /** Its calendar, where that isn't its owner's main one. */
      calendar: z.string().nullable(),
      title: z.string().nullable(),
      place: z.string().nullable(),
      link: z.string().nullable(),
      start: z.string(),
      end: z.string(),
      allDay: z.boolean(),
      owner: z.strictObject({ handle: z.string(), name: z.string(), own: z.boolean() }),
    }),
  ),
});
export type RemindersAnswer = z.infer<typeof remindersAnswer>;

const wishesAnswer = z.strictObject({
  calendars: z.array(
    wish.extend({ calendar: z.string(), owner: z.string(), name: z.string().nullable(), own: z.boolean() }),
  ),
});
export type WishesAnswer = z.infer<typeof wishesAnswer>;

/** One's own wish for an item: its own, or (`usual`) as for everything in its calendar. */
const itemReminder = z.strictObject({ usual: z.boolean(), minutes, byMail: z.boolean(), usually: minutes });
export type ItemReminder = z.infer<typeof itemReminder>;
const itemReminderBody = z.union([z.strictObject({ usual: z.literal(true) }), wish]);
const wishBody = wish;
const reminderAct = z.strictObject({ act: z.enum(['done', 'later']) });

/** Being reminded before something happens: each person's own wish, in the calendars that are theirs or that they act for. */
export const reminderRoutes = {
  listReminders: {
    ...at('listReminders'),
    who: 'person',
    summary: 'What one is being reminded of now',
    answer: remindersAnswer,
  },
  settleReminder: {
    ...at('settleReminder'),
    who: 'person',
    summary: 'Say that a reminder is done, or to come again in five minutes',
    body: reminderAct,
    answer: z.strictObject({ done: z.literal(true) }),
  },
  listReminderWishes: {
    ...at('listReminderWishes'),
    who: 'person',
    summary: 'How long before one is reminded, in each calendar one may be reminded of',
    answer: wishesAnswer,
  },
  setReminderWish: {
    ...at('setReminderWish'),
    who: 'person',
    summary: 'Say how long before one is reminded of what takes time in a calendar',
    body: wishBody,
    answer: z.strictObject({ done: z.literal(true) }),
  },
  readItemReminder: {
    ...at('readItemReminder'),
    who: 'person',
    summary: 'How long before an item one is reminded',
    answer: itemReminder,
  },
  setItemReminder: {
    ...at('setItemReminder'),
    who: 'person',
    summary: 'Say how long before an item one is reminded',
    body: itemReminderBody,
    answer: z.strictObject({ done: z.literal(true) }),
  },
} as const satisfies Routes;
