import type { TaskPatch, TaskWire } from '@/contract/tasks.ts';
import type { IMPORTANCES, Visibility } from '@/core/calendar/index.ts';
import { parseDate, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { listed } from '../common/listed.ts';

/** A task as it stands in the fields of its form. */
export interface Typed {
  readonly title: string;
  readonly day: string;
  readonly time: string;
  readonly repeats: string | null;
  readonly notes: string;
  readonly link: string;
  readonly categories: string;
  readonly importance: (typeof IMPORTANCES)[number];
  readonly visibility: Visibility;
}

/** A task as its form begins with it, on the clock of a zone. */
export function typedOf(task: TaskWire, zone: string): Typed {
  const date = task.due === null ? null : parseDate(task.due);
  const wall = task.due === null || date !== null ? null : wallText(toWall(zone, parseInstant(task.due) ?? 0));
  return {
    title: task.title,
    day: date === null ? (wall?.slice(0, 10) ?? '') : (task.due ?? ''),
    time: wall?.slice(11, 16) ?? '',
    repeats: task.repeats ?? null,
    notes: task.notes ?? '',
    link: task.link ?? '',
    categories: (task.categories ?? []).join(', '),
    importance: task.importance ?? 'normal',
    visibility: task.visibility ?? 'follow',
  };
}

/** What was touched of a task, as the server takes it: nothing of the rest is sent. */
export function touched(was: Typed, is: Typed, zone: string): Omit<TaskPatch, 'version'> {
  const fields: TaskPatch['fields'] = {
    ...(is.title === was.title ? {} : { title: is.title }),
    ...(is.notes === was.notes ? {} : { notes: is.notes }),
    ...(is.link === was.link ? {} : { link: is.link }),
    ...(is.categories === was.categories ? {} : { categories: listed(is.categories) }),
    ...(is.importance === was.importance ? {} : { importance: is.importance }),
    ...(is.visibility === was.visibility ? {} : { visibility: is.visibility }),
  };
  const due = is.day === '' ? null : { at: is.time === '' ? is.day : `${is.day}T${is.time}`, zone };
  return {
    fields,
    ...(is.day === was.day && is.time === was.time ? {} : { due }),
    ...(is.repeats === was.repeats ? {} : { repeats: is.repeats }),
  };
}
