import { afterEach, beforeEach } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemByKey, itemsByUid } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { answerItem, createMeeting, releaseDue } from './index.ts';

/** For tests: a small organisation whose people call and answer meetings, with a clock that is moved by hand. */
export let org: SmallOrganisation;
let later = START;
/** Makes it anew before each test of the file that calls this. */
export function eachMeetingDay(): void {
  beforeEach(() => {
    org = smallOrganisation(['ines', 'tomas', 'amara', 'bruno', 'dario', 'wren', 'oona', 'room']);
    org.give('ines', 'tomas', PRESETS.delegate);
    org.give('ines', 'oona', { ...PRESETS.delegate, copies: true });
    org.give('ines', 'amara', PRESETS.arranger);
    org.give('bruno', 'tomas', PRESETS.delegate);
    later = START;
  });
  afterEach(() => org.close());
}

export const address = (handle: string) => `${handle}@cloudmoor.example`;
export const who = (...handles: string[]) =>
  handles.map((h) => ({ address: h.includes('@') ? h : address(h), name: null, role: 'must' as const, group: null }));
export const value = <T>(result: { ok: true; value: T } | { ok: false; code: string }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
/** Lets so many seconds pass, and whatever is due by then leave. */
export const pass = (seconds = 11) => {
  later += seconds * 1000;
  releaseDue(org.db, later);
};
export const ctx = (handle: string) => org.ctx(handle, later);
export const call = (
  by: string,
  people: readonly (Omit<ReturnType<typeof who>[number], 'group'> & { group: string | null })[],
  more: Partial<Parameters<typeof newItem.parse>[0] & object> = {},
  of = 'ines',
) =>
  value(
    createMeeting(
      ctx(by),
      org.calendar(of),
      newItem.parse({ when: at('2027-03-03', 10), title: 'Weir consent', people, ...more }),
    ),
  );
/** What stands in somebody's calendar for a meeting. */
export const inCalendar = (handle: string, uid: string): StoredItem | undefined => {
  const calendar = mainCalendarOf(org.db, org.person(handle).id);
  return calendar ? itemsByUid(org.db, calendar.id, uid).find((i) => i.recurrence === null) : undefined;
};
export const itemOf = (answer: { item: { id: string } | null }): StoredItem =>
  itemByKey(org.db, (answer.item?.id ?? '').split('~')[0] ?? '') as StoredItem;
export const idIn = (handle: string, uid: string) => inCalendar(handle, uid)?.key ?? '';
/** Somebody who hadn't answered takes the whole of what they were asked to. */
export const accepts = (handle: string, uid: string) =>
  value(
    answerItem(ctx(handle), idIn(handle, uid), {
      answer: 'accepted',
      comment: '',
      seen: 'needs-action',
      scope: 'all',
    }),
  );
export const answersOn = (handle: string, uid: string) =>
  Object.fromEntries((inCalendar(handle, uid)?.attendees ?? []).map((a) => [a.address.split('@')[0], a.answer]));
export const mail = () =>
  org.db
    .all<{ to_address: string; mail: string }>('SELECT to_address, mail FROM outgoing_mail ORDER BY id')
    .map((m) => `${JSON.parse(m.mail).meeting.message.method} ${m.to_address}`);
export const arrived = (handle: string) =>
  org.db
    .all<{ kind: string }>(
      `SELECT m.kind FROM message m JOIN collection c ON c.id = m.collection_id WHERE c.owner_id = ? AND c.name = 'Arrived' ORDER BY m.id`,
      org.person(handle).id,
    )
    .map((m) => m.kind);
