import type { DeskDone, DeskStep } from '@/contract/desk.ts';
import type { WrittenAnswer } from '@/contract/items/items.ts';
import { dateText, instantText, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { sayWithout } from '../../repositories/desk.ts';
import { sendGivenUpAgain } from '../../repositories/outgoing-mail.ts';
import { taskByKey } from '../../repositories/tasks.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { giveCover } from '../absences/index.ts';
import { type Context, trailOn } from '../deciding/index.ts';
import {
  actOnMeeting,
  answerItem,
  changeMeeting,
  changeSeveral,
  fixHold,
  holdLonger,
  removeMeeting,
} from '../meetings/index.ts';
import { takeMessage } from '../messages/index.ts';
import { answerSuggestion } from '../suggestions/index.ts';
import { changeTask } from '../tasks/index.ts';
import { causeOf, type DeskRead, deskPrincipals, type Gathered } from './desk.ts';
import { onGrant } from './grant-steps.ts';
import type { SeenItem } from './item-facts.ts';
import { type Twin, twinsOf } from './twins.ts';

const DAY = 86_400_000;
type Row = DeskRead['rows'][number];

export const NOTHING: DeskDone = { undo: null, sendings: [], said: false };

/** Steps that do something, beside what is said of a row. */
type Act = Exclude<DeskStep, { act: 'later' | 'left' | 'passed' | 'back' }>;

/** Does what a step says, one that the row has, through the operation that does it everywhere else. */
export function doStep(ctx: Context, { row, gathered }: Row, step: Act): Result<DeskDone> {
  const items = row.items.flatMap((id) => gathered.seen.get(id) ?? []);
  const first = items[0];
  const { fact } = causeOf(row.key);
  const none = refuse('deskGone');
  switch (step.act) {
    case 'accepted':
    case 'tentative':
    case 'declined':
      return first ? written(answerItem(ctx, first.view.id, answerOf(step))) : none;
    case 'take':
    case 'keep': {
      if (!first) return none;
      const { attendee } = step;
      return written(
        step.act === 'take'
          ? actOnMeeting(ctx, first.view.id, { act: 'takeCounter', attendee, version: first.row.version })
          : actOnMeeting(ctx, first.view.id, { act: 'declineCounter', attendee, comment: step.comment }),
      );
    }
    case 'nudge': {
      if (!first) return none;
      const whom = row.because.flatMap((b) => (b.why === 'silent' ? b.who.map((who) => who.toLowerCase()) : []));
      return written(actOnMeeting(ctx, first.view.id, { act: 'nudge', whom }));
    }
    case 'without': {
      const who = row.because.flatMap((b) => (b.why === 'refused' ? b.who : []));
      if (!first || who.length === 0) return none;
      for (const address of who) sayWithout(ctx.db, first.row.id, address, ctx.viewer.id, ctx.now);
      trailOn(ctx, gathered.one.decided.calendar, first.row.key, 'meeting.without', null, { who });
      return ok({ ...NOTHING, said: true });
    }
    case 'off':
      // Of a series the next occurrence: all of it is called off where it lives.
      return first ? written(removeMeeting(ctx, first.view.id, { version: first.row.version, scope: 'one' })) : none;
    case 'place':
    case 'link': {
      if (!first) return none;
      const fields = step.act === 'place' ? { place: step.place } : { link: step.link };
      return written(changeMeeting(ctx, first.view.id, { version: first.row.version, scope: 'all', fields }));
    }
    case 'move': {
      const moved = items.find(({ view }) => view.id === step.item);
      const start = parseInstant(step.start);
      if (!moved || start === null || moved.fact.allDay) return none;
      const zone = moved.view.asSet?.zone ?? gathered.one.person.zone;
      const text = (at: number) => wallText(toWall(zone, at));
      const when = { start: text(start), end: text(start + moved.fact.end - moved.fact.start), allDay: false, zone };
      if (row.kind === 'answer')
        return written(
          answerItem(ctx, moved.view.id, { answer: 'another', when, comment: '', seen: 'needs-action', scope: 'all' }),
        );
      const { version } = moved.row;
      return written(changeMeeting(ctx, moved.view.id, { version, scope: 'one', when, fields: {} }));
    }
    case 'fix': {
      const hold = items.find(({ view }) => view.id === step.item);
      if (!hold) return none;
      const fixed = fixHold(ctx, hold.view.id, { version: hold.row.version });
      return fixed.ok ? ok({ undo: fixed.value.undo, sendings: keyOf(fixed.value.fixed), said: false }) : fixed;
    }
    case 'longer':
      return first ? longer(ctx, gathered, first.view.id, fact) : none;
    case 'free':
      return freed(ctx, items);
    case 'yes':
    case 'no': {
      const about = gathered.known.get(`suggestion:${fact}`)?.about;
      if (about?.of !== 'suggestion') return none;
      const answer = answerSuggestion(ctx, fact, { answer: step.act, note: step.note, version: about.version });
      return answer.ok ? ok({ ...NOTHING, undo: answer.value.undo }) : answer;
    }
    case 'count':
      return nothing(takeMessage(ctx, fact));
    case 'again':
      return sendGivenUpAgain(ctx.db, fact, ctx.now) ? ok(NOTHING) : none;
    case 'done':
    case 'tomorrow':
      return onTask(ctx, gathered, fact, step.act);
    case 'cover':
      return nothing(giveCover(ctx, fact, { further: [] }));
    case 'extend':
    case 'takeAccess':
      return onGrant(ctx, fact, step.act);
    default:
      return step satisfies never;
  }
}

const nothing = (result: Result<unknown>): Result<DeskDone> => (result.ok ? ok(NOTHING) : result);
const written = (result: Result<WrittenAnswer>): Result<DeskDone> =>
  result.ok ? ok({ undo: result.value.undo || null, sendings: keyOf(result.value), said: false }) : result;
const keyOf = ({ sending }: WrittenAnswer): string[] => (sending ? [sending.key] : []);

/** Says that a task is done, or that it is for tomorrow, on its principal's clock. */
function onTask(ctx: Context, gathered: Gathered, key: string, act: 'done' | 'tomorrow'): Result<DeskDone> {
  const task = taskByKey(ctx.db, key);
  if (!task) return refuse('deskGone');
  const { zone } = gathered.one.person;
  const tomorrow = Math.floor(toWall(zone, ctx.now) / DAY) * DAY + DAY;
  const at =
    task.due && 'instant' in task.due
      ? wallText(tomorrow + (toWall(zone, task.due.instant) % DAY))
      : dateText(tomorrow);
  const patch = act === 'done' ? { done: true } : { due: { at, zone } };
  const changed = changeTask(ctx, key, { version: task.version, fields: {}, ...patch });
  return changed.ok ? ok({ ...NOTHING, undo: changed.value.undo }) : changed;
}

/** How much longer times are held by one press. */
const LONGER = 7 * DAY;

function longer(ctx: Context, gathered: Gathered, item: string, set: string): Result<DeskDone> {
  const about = gathered.known.get(`hold:${set}`)?.about;
  const lapses = about?.of === 'hold' && about.lapses !== null ? (parseInstant(about.lapses) ?? ctx.now) : ctx.now;
  const held = holdLonger(ctx, item, instantText(Math.max(lapses, ctx.now) + LONGER));
  return held.ok ? ok({ ...NOTHING, undo: held.value.undo }) : held;
}

function freed(ctx: Context, items: readonly SeenItem[]): Result<DeskDone> {
  const all = changeSeveral(ctx, {
    items: items.map(({ view, row }) => ({ item: view.id, version: row.version })),
    change: { kind: 'remove' },
  });
  return all.ok ? ok({ ...NOTHING, undo: all.value.undo }) : all;
}

/** Answers the same meeting for everybody else one answers for, as it was answered for the one of a row: whose rows those were, and what waits to be sent. */
export function answerTwins(
  ctx: Context,
  { row, gathered }: Row,
  step: Extract<Act, { twin: boolean }>,
): Result<{ readonly twins: readonly Twin[]; readonly sendings: readonly string[] }> {
  const uid = gathered.seen.get(row.items[0] ?? '')?.fact.uid;
  const twins = uid ? twinsOf(ctx, deskPrincipals(ctx), uid, row.for) : [];
  const sendings: string[] = [];
  for (const { item } of twins) {
    const also = answerItem(ctx, item.key, answerOf(step));
    if (!also.ok) return also;
    sendings.push(...keyOf(also.value));
  }
  return ok({ twins, sendings });
}

const answerOf = ({ act: answer, comment }: Extract<Act, { twin: boolean }>) =>
  ({ answer, comment, seen: 'needs-action', scope: 'all' }) as const;
