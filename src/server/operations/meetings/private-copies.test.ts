import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { call, eachMeetingDay, inCalendar, itemOf, org, pass, who } from './meeting-day.ts';

eachMeetingDay();

/** The part of a step that makes the copies of private meetings as private as those. */
const step = (): string => {
  const text = readFileSync('src/server/db/migrations/0031_deliveries.sql', 'utf8');
  const from = text.indexOf('-- A private meeting is as private with those it asks');
  return text.slice(from, text.indexOf('DROP INDEX meeting_by_uid;') + 'DROP INDEX meeting_by_uid;'.length);
};

test('copies of private meetings that stand from before are private from that step on, and those of others stay', () => {
  const made = ['private', 'outline', 'follow'].map((visibility) => call('ines', who('bruno', 'wren'), { visibility }));
  pass();
  const uids = made.map((one) => itemOf(one).uid);
  org.db.run(`UPDATE item SET visibility = 'follow' WHERE owner_invited = 1`);
  org.db.run(`UPDATE meeting SET state = json_remove(state, '$.on.classification') WHERE part = 'attendee'`);
  org.db.run(`UPDATE message SET facts = json_remove(facts, '$.private')`);
  // One that its owner had opened, and one that was private before.
  org.db.run(`UPDATE item SET visibility = 'open' WHERE key = ?`, inCalendar('wren', uids[0] ?? '')?.key);
  org.db.run(`UPDATE item SET visibility = 'private' WHERE key = ?`, inCalendar('wren', uids[1] ?? '')?.key);
  org.db.raw.exec(step());
  const seen = (handle: string) => uids.map((uid) => inCalendar(handle, uid)?.visibility);
  expect([seen('bruno'), seen('wren')]).toEqual([
    ['private', 'outline', 'follow'],
    ['private', 'private', 'follow'],
  ]);
  const held = org.db.all<{ as: string | null }>(
    `SELECT json_extract(state, '$.on.classification') AS "as" FROM meeting WHERE part = 'attendee' ORDER BY uid = ?, uid = ?, id`,
    uids[0],
    uids[1],
  );
  expect(held.map((one) => one.as).sort()).toEqual(
    [null, null, 'confidential', 'confidential', 'private', 'private'].sort(),
  );
  const messages = org.db.all<{ n: number }>(
    `SELECT count(*) AS n FROM message WHERE json_extract(facts, '$.private') = 1 AND meeting_id IN (SELECT id FROM meeting WHERE part = 'attendee')`,
  );
  expect(messages[0]?.n).toBe(4);
});
