import type { DeskRowWire } from '@/contract/desk.ts';
import { dayOf } from '../common/times.ts';

/** Where what a row is about lives: on its calendar's board, opened; in Messages; or in Sightlines. */
export function whereOf(row: DeskRowWire, main: string, zone: string): string {
  const [item] = row.items;
  const { about } = row;
  const further = row.calendar === main ? {} : { c: row.calendar };
  if (about?.of === 'task')
    return `/for/${row.for}/tasks?${new URLSearchParams({ list: about.list, task: about.task })}`;
  if (about?.of === 'grant' || about?.of === 'finding')
    return `/for/${row.for}/sightlines?${new URLSearchParams(further)}`;
  if (item && about?.of !== 'message') {
    const week = dayOf(item, zone);
    return `/for/${row.for}/calendar?${new URLSearchParams({ week, item: item.id, ...further })}`;
  }
  if (about?.of === 'absence') return `/for/${row.for}/calendar?away=1`;
  if (about?.of === 'wish') return `/for/${row.for}/calendar?${new URLSearchParams({ week: about.day, ...further })}`;
  return `/for/${row.for}/messages${about?.of === 'message' && about.message ? `?${new URLSearchParams({ message: about.message })}` : ''}`;
}
