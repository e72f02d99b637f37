import type { Grant, Rights } from '@/core/access/index.ts';
import type { Connection } from '../db/index.ts';

/** To whom a stored grant speaks, by row numbers. */
export type StoredAudience =
  | { readonly kind: 'person'; readonly personId: number }
  | { readonly kind: 'group'; readonly groupId: number }
  | { readonly kind: 'everyone' }
  | { readonly kind: 'link'; readonly link: string };

/** A grant as it was recorded; `starts` and `ends` are epoch milliseconds or open. */
export interface StoredGrant {
  readonly id: number;
  readonly key: string;
  readonly calendarId: number;
  readonly audience: StoredAudience;
  readonly rights: Rights;
  readonly starts: number | null;
  readonly ends: number | null;
  readonly givenBy: number;
  readonly givenFor: number;
  readonly recordedFrom: number;
  readonly recordedUntil: number | null;
}

interface Row {
  id: number;
  key: string;
  calendar_id: number;
  audience: 'person' | 'group' | 'everyone' | 'link';
  person_id: number | null;
  group_id: number | null;
  link: string | null;
  sight: Rights['sight'];
  may_add: 0 | 1;
  may_change: Rights['change'];
  may_remove: Rights['remove'];
  suggest: 0 | 1;
  private: 0 | 1;
  speaks: 0 | 1;
  copies: 0 | 1;
  shares: 0 | 1;
  starts: number | null;
  ends: number | null;
  given_by: number;
  given_for: number;
  recorded_from: number;
  recorded_until: number | null;
}

function decode(row: Row): StoredGrant {
  const audience: StoredAudience =
    row.audience === 'person'
      ? { kind: 'person', personId: row.person_id as number }
      : row.audience === 'group'
        ? { kind: 'group', groupId: row.group_id as number }
        : row.audience === 'link'
          ? { kind: 'link', link: row.link as string }
          : { kind: 'everyone' };
  return {
    id: row.id,
    key: row.key,
    calendarId: row.calendar_id,
    audience,
    rights: {
      sight: row.sight,
      add: row.may_add === 1,
      change: row.may_change,
      remove: row.may_remove,
      suggest: row.suggest === 1,
      private: row.private === 1,
      speaks: row.speaks === 1,
      copies: row.copies === 1,
      shares: row.shares === 1,
    },
    starts: row.starts,
    ends: row.ends,
    givenBy: row.given_by,
    givenFor: row.given_for,
    recordedFrom: row.recorded_from,
    recordedUntil: row.recorded_until,
  };
}

/** The grants on a calendar that stand now, whether their dates have come or not. */
export function grantsOn(db: Connection, calendarId: number): StoredGrant[] {
  return db
    .all<Row>('SELECT * FROM access_grant WHERE calendar_id = ? AND recorded_until IS NULL ORDER BY id', calendarId)
    .map(decode);
}

/** The grants on a calendar as they stood at an instant. */
export function grantsOnAt(db: Connection, calendarId: number, at: number): StoredGrant[] {
  return db
    .all<Row>(
      `SELECT * FROM access_grant WHERE calendar_id = ? AND recorded_from <= ? AND (recorded_until IS NULL OR recorded_until > ?)
       ORDER BY id`,
      calendarId,
      at,
      at,
    )
    .map(decode);
}

/** Every grant ever recorded on a calendar, the newest first, at most `most`. */
export function grantsEver(db: Connection, calendarId: number, most: number): StoredGrant[] {
  return db
    .all<Row>('SELECT * FROM access_grant WHERE calendar_id = ? ORDER BY id DESC LIMIT ?', calendarId, most)
    .map(decode);
}

/** The calendars on which a standing or dated grant names a person or one of their groups. */
export function calendarsNaming(db: Connection, personId: number): number[] {
  return db
    .all<{ calendar_id: number }>(
      `SELECT DISTINCT calendar_id FROM access_grant WHERE recorded_until IS NULL AND (person_id = ? OR group_id IN
         (SELECT group_id FROM membership WHERE person_id = ? AND recorded_until IS NULL))`,
      personId,
      personId,
    )
    .map((row) => row.calendar_id);
}

type SpeakingRow = readonly [
  calendar: number,
  audience: 'person' | 'group' | 'everyone',
  group: number | null,
  sight: Rights['sight'],
  add: 0 | 1,
  change: Rights['change'],
  remove: Rights['remove'],
  suggest: 0 | 1,
  letIn: 0 | 1,
  speaks: 0 | 1,
  copies: 0 | 1,
  shares: 0 | 1,
  starts: number | null,
  ends: number | null,
];

/**
 * The grants on main calendars that can speak to a person: by name, by a group of theirs, or to everyone; by calendar, as the
 * rule reads them. As arrays, since there is one at least for every calendar of the organisation.
 */
export function grantsSpeakingTo(db: Connection, personId: number): Map<number, Grant[]> {
  const byCalendar = new Map<number, Grant[]>();
  for (const v of db.arrays<SpeakingRow>(
    `SELECT g.calendar_id, g.audience, g.group_id, g.sight, g.may_add, g.may_change, g.may_remove, g.suggest, g.private,
       g.speaks, g.copies, g.shares, g.starts, g.ends
     FROM access_grant g WHERE g.recorded_until IS NULL AND (g.audience = 'everyone' OR g.person_id = @personId OR g.group_id IN
       (SELECT group_id FROM membership WHERE person_id = @personId AND recorded_until IS NULL))`,
    { personId },
  )) {
    const grant: Grant = {
      key: '',
      audience:
        v[1] === 'everyone'
          ? { kind: 'everyone' }
          : v[1] === 'person'
            ? { kind: 'person', id: String(personId) }
            : { kind: 'group', id: String(v[2]) },
      rights: {
        sight: v[3],
        add: v[4] === 1,
        change: v[5],
        remove: v[6],
        suggest: v[7] === 1,
        private: v[8] === 1,
        speaks: v[9] === 1,
        copies: v[10] === 1,
        shares: v[11] === 1,
      },
      from: v[12],
      until: v[13],
    };
    const list = byCalendar.get(v[0]);
    if (list) list.push(grant);
    else byCalendar.set(v[0], [grant]);
  }
  return byCalendar;
}

/** All the grants that stand on main calendars, by calendar. */
export function grantsOnMainCalendars(db: Connection): Map<number, StoredGrant[]> {
  const byCalendar = new Map<number, StoredGrant[]>();
  const rows = db.all<Row>(
    `SELECT g.* FROM access_grant g JOIN calendar c ON c.id = g.calendar_id AND c.main = 1
     WHERE g.recorded_until IS NULL ORDER BY g.id`,
  );
  for (const row of rows) {
    const list = byCalendar.get(row.calendar_id);
    if (list) list.push(decode(row));
    else byCalendar.set(row.calendar_id, [decode(row)]);
  }
  return byCalendar;
}

/** Records a grant; answers its row number. */
export function insertGrant(db: Connection, grant: Omit<StoredGrant, 'id' | 'recordedUntil'>): number {
  const { audience: a, rights: r } = grant;
  return db.run(
    `INSERT INTO access_grant (key, calendar_id, audience, person_id, group_id, link, sight, may_add, may_change, may_remove,
       suggest, private, speaks, copies, shares, starts, ends, given_by, given_for, recorded_from)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    grant.key,
    grant.calendarId,
    a.kind,
    a.kind === 'person' ? a.personId : null,
    a.kind === 'group' ? a.groupId : null,
    a.kind === 'link' ? a.link : null,
    r.sight,
    Number(r.add),
    r.change,
    r.remove,
    Number(r.suggest),
    Number(r.private),
    Number(r.speaks),
    Number(r.copies),
    Number(r.shares),
    grant.starts,
    grant.ends,
    grant.givenBy,
    grant.givenFor,
    grant.recordedFrom,
  );
}

/** Ends a grant's record; the row itself stays as history. */
export function endGrant(db: Connection, id: number, at: number): void {
  db.run('UPDATE access_grant SET recorded_until = ? WHERE id = ? AND recorded_until IS NULL', at, id);
}
