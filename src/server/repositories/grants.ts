import type { Rights } from '@/core/access/index.ts';
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
  };
}

/** The grants on a calendar that stand now, whether their dates have come or not. */
export function grantsOn(db: Connection, calendarId: number): StoredGrant[] {
  return db
    .all<Row>('SELECT * FROM access_grant WHERE calendar_id = ? AND recorded_until IS NULL ORDER BY id', calendarId)
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

export function insertGrant(db: Connection, grant: Omit<StoredGrant, 'id'>): void {
  const { audience: a, rights: r } = grant;
  db.run(
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
