import type { ItemWire } from '@/contract/items/items.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { type Decision, type MayItem, mayItem, projectOther, type Standing } from '@/core/access/index.ts';
import { type Party, pick } from '@/core/calendar/index.ts';
import { dueText, type Task, WRITTEN_TASK_FIELDS } from '@/core/tasks/index.ts';
import { instantText } from '@/core/time/index.ts';
import { bareIdFor } from '../../../ids.ts';
import { type Calendar, calendarById } from '../../../repositories/calendars.ts';
import { itemById } from '../../../repositories/items.ts';
import type { TaskList } from '../../../repositories/lists.ts';
import { openTasks, type StoredTask, taskById } from '../../../repositories/tasks.ts';
import type { FoundAudience } from '../access/audience.ts';
import { type Decided, decideOn } from '../access/deciding.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';
import { occurrenceOfText } from '../writing/indexing.ts';
import { viewFor } from '../writing/writing.ts';

/** How somebody stands to a task: whoever has one to do has it in a list of their own, so nobody is named on one. */
const standingOn = (ctx: Pick<Context, 'viewer'>, task: StoredTask): Standing => ({
  named: false,
  created: task.createdBy === ctx.viewer.id,
  ownerInvited: false,
});

/** What the viewer may do with a task, whether they see it or not. */
export function mayOnTask(ctx: Pick<Context, 'viewer'>, decision: Decision, task: StoredTask): MayItem {
  const facts = { visibility: task.visibility, shows: 'busy', cancelled: false, ownerAnswer: null } as const;
  return mayItem(facts, standingOn(ctx, task), decision);
}

/** Tasks that are shown of a list where access to it is thought of. */
const MOST_SHOWN = 30;

/** The first tasks of a list as an audience sees them under a decision, with nothing in them that the one who looks doesn't see too. */
export function tasksAs(
  ctx: Context,
  mine: { readonly list: TaskList; readonly decision: Decision },
  { person }: Pick<FoundAudience, 'person'>,
  theirs: Decision,
): TaskWire[] {
  const reader = { privateToo: mine.decision.owner || mine.decision.rights.private, own: null };
  // Nobody in particular made none of them.
  const eyes = { ...ctx, viewer: person ?? { ...ctx.viewer, id: -1, address: '' } };
  const [target, looker] = [new TaskReading(eyes, { ...mine, decision: theirs }), new TaskReading(ctx, mine)];
  return openTasks(ctx.db, mine.list.id, reader, null, MOST_SHOWN).flatMap((task) => {
    const [seen, own] = [target.view(task), looker.view(task)];
    if (!seen || !own) return [];
    const { may: _may, mayRemove: _remove, ...fields } = seen;
    const both = Object.entries(fields).filter(([name]) => name in own);
    const view = Object.fromEntries(both) as unknown as TaskWire;
    return [{ ...view, ...(view.version === undefined ? {} : { may: { change: false, remove: false } }) }];
  });
}

/** An item that a task names, as it is seen, and its calendar. */
interface SeenItem {
  readonly view: ItemWire;
  readonly calendar: Calendar;
}

/** Where an item is, for whoever sees all of it. */
function placeOf(seen: SeenItem | null): Pick<NonNullable<NonNullable<TaskWire['tie']>>, 'item' | 'at'> {
  if (!seen || !('notes' in seen.view)) return { item: null, at: null };
  const { view, calendar } = seen;
  const { start, allDay } = view;
  return { item: view.id, at: { start, allDay, calendar: calendar.key, main: calendar.main } };
}

/** Reads tasks of one list as the viewer sees them; whom and what they name is looked up once. */
export class TaskReading {
  private readonly calendars = new Map<number, Decided | null>();
  constructor(
    private readonly ctx: Context,
    private readonly on: { readonly list: TaskList; readonly decision: Decision },
    private readonly directory = new Directory(ctx.db),
  ) {}

  /** A task as it is seen; `null` where it is left out. */
  view(task: StoredTask): TaskWire | null {
    const { ctx, directory } = this;
    const { list, decision } = this.on;
    const standing = standingOn(ctx, task);
    const item = this.itemOf(task.itemId, task.recurrence);
    const fields: Task<Party | null> = {
      ...pick(task, WRITTEN_TASK_FIELDS),
      due: task.due && dueText(task.due),
      done: task.doneAt !== null,
      // What it belongs to is called as its reader sees that, and not at all where they don't.
      belongsTo: item?.view.title ?? null,
      repeats: task.rule,
      createdBy: directory.party(task.createdBy),
    };
    const view = projectOther('tasks', fields, standing, decision);
    if (view === null) return null;
    const may = mayOnTask(ctx, decision, task);
    if (!('notes' in view)) {
      const below = { id: bareIdFor(ctx.viewer.id, task.key), list: list.key, ...view } as TaskWire;
      return may.remove ? { ...below, mayRemove: true } : below;
    }
    const authored = (at: number, actor: number, principal: number) => ({
      at: instantText(at),
      actor: directory.name(actor),
      principal: directory.name(principal),
    });
    const time = this.itemOf(task.timeItemId, null);
    const to = task.givenTo === null ? null : directory.person(task.givenTo);
    const origin = task.copyOf === null ? null : taskById(ctx.db, task.copyOf);
    return {
      id: task.key,
      list: list.key,
      ...view,
      version: task.version,
      may: { change: may.change, remove: may.remove },
      zone: task.zone,
      tie: task.tie && { as: task.tie, days: task.tieDays, ...placeOf(item) },
      time: time && {
        item: 'notes' in time.view ? time.view.id : null,
        start: time.view.start,
        end: time.view.end,
      },
      given:
        to && task.givenState
          ? { to: { handle: to.handle, name: to.name }, state: task.givenState, note: task.givenNote }
          : null,
      from:
        task.copyOf === null
          ? null
          : {
              by: directory.name(task.createdBy),
              for: directory.name(task.createdFor),
              said: origin?.givenState === 'yes' || origin === null ? 'yes' : 'asked',
            },
      created: authored(task.createdAt, task.createdBy, task.createdFor),
      changed: authored(task.changedAt, task.changedBy, task.changedFor),
    } as TaskWire;
  }

  /** An item a task names, as the viewer sees it in its calendar: one occurrence of it where that is named. */
  private itemOf(id: number | null, recurrence: string | null): SeenItem | null {
    const item = id === null ? null : itemById(this.ctx.db, id);
    if (!item || item.removedAt !== null) return null;
    const decided = this.decidedOn(item.calendarId);
    if (!decided || decided.decision.rights.sight === 'nothing') return null;
    const named = recurrence === null ? null : occurrenceOfText(this.ctx.db, item, recurrence);
    const found = named ?? { item, start: item.start, end: item.end };
    const view = viewFor(this.ctx, decided, found.item, found, this.directory);
    return view && { view, calendar: decided.calendar };
  }

  private decidedOn(calendarId: number): Decided | null {
    let found = this.calendars.get(calendarId);
    if (found === undefined) {
      const calendar = calendarById(this.ctx.db, calendarId);
      found = calendar && decideOn(this.ctx, calendar);
      this.calendars.set(calendarId, found);
    }
    return found;
  }
}
