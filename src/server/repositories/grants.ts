import type { Grant, Rights } from '@/core/access/index.ts';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import type { Connection } from '../db/index.ts';
import { GROUPS_NOW } from './groups.ts';

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
  readonly collectionId: number;
  readonly audience: StoredAudience;
  readonly rights: Rights;
  readonly starts: number | null;
  readonly ends: number | null;
  readonly givenBy: number;
  readonly givenFor: number;
  /** Given by an administrator who doesn't share the calendar themselves. */
  readonly byAdministrator: boolean;
  /** Given by somebody who held it for a time or through a group: it ends when they no longer hold it. */
  readonly hangs: boolean;
  readonly recordedFrom: number;
  readonly recordedUntil: number | null;
}

interface Row {
  id: number;
  key: string;
  collection_id: number;
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
  absence: 0 | 1;
  starts: number | null;
  ends: number | null;
  given_by: number;
  given_for: number;
  by_administrator: 0 | 1;
  hangs: 0 | 1;
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
    collectionId: row.collection_id,
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
      absence: row.absence === 1,
    },
    starts: row.starts,
    ends: row.ends,
    givenBy: row.given_by,
    givenFor: row.given_for,
    byAdministrator: row.by_administrator === 1,
    hangs: row.hangs === 1,
    recordedFrom: row.recorded_from,
    recordedUntil: row.recorded_until,
  };
}

/** The grants on a calendar that stand now, whether their dates have come or not. */
export function grantsOn(db: Connection, collectionId: number): StoredGrant[] {
  return db
    .all<Row>('SELECT * FROM access_grant WHERE collection_id = ? AND recorded_until IS NULL ORDER BY id', collectionId)
    .map(decode);
}

/** The grants on a calendar as they stood at an instant. */
export function grantsOnAt(db: Connection, collectionId: number, at: number): StoredGrant[] {
  return db
    .all<Row>(
      `SELECT * FROM access_grant WHERE collection_id = ? AND recorded_from <= ? AND (recorded_until IS NULL OR recorded_until > ?)
       ORDER BY id`,
      collectionId,
      at,
      at,
    )
    .map(decode);
}

/** A grant by its row number, whether it stands or was replaced; `null` where there is none. */
export function grantById(db: Connection, id: number): StoredGrant | null {
  const row = db.get<Row>('SELECT * FROM access_grant WHERE id = ?', id);
  return row ? decode(row) : null;
}

/** A grant by its key, whether it stands or was replaced; `null` where there is none. */
export function grantByKey(db: Connection, key: string): StoredGrant | null {
  const row = db.get<Row>('SELECT * FROM access_grant WHERE key = ?', key);
  return row ? decode(row) : null;
}

/** Every grant ever recorded on a calendar, the newest first, at most `most`. */
export function grantsEver(db: Connection, collectionId: number, most: number): StoredGrant[] {
  return db
    .all<Row>('SELECT * FROM access_grant WHERE collection_id = ? ORDER BY id DESC LIMIT ?', collectionId, most)
    .map(decode);
}

/** The calendars on which a standing or dated grant names a person or one of their groups. */
export function calendarsNaming(db: Connection, personId: number): number[] {
  return db
    .all<{ collection_id: number }>(
      `SELECT DISTINCT collection_id FROM access_grant WHERE recorded_until IS NULL AND
         (person_id = @personId OR group_id IN (${GROUPS_NOW}))`,
      { personId },
    )
    .map((row) => row.collection_id);
}

/** The calendars on which a grant speaks to a group. */
export function calendarsOpenTo(db: Connection, groupId: number): number[] {
  return db
    .arrays<[number]>(
      `SELECT DISTINCT collection_id FROM access_grant WHERE group_id = ? AND recorded_until IS NULL AND sight <> 'nothing'`,
      groupId,
    )
    .map(([id]) => id);
}

type SpeakingRow = readonly [
  calendar: number,
  /** The group; 0 for everyone, -1 for the person by name. */
  whom: number,
  /** The mix of rights, as `MIX` packs it. */
  mix: number,
  starts: number | null,
  ends: number | null,
];

const place = (column: string, values: readonly string[]): string =>
  `CASE ${column} ${values.map((value, i) => `WHEN '${value}' THEN ${i}`).join(' ')} END`;

/** SQL that packs a grant's rights into one number: texts and fifteen columns a row are what would cost most here. */
const MIX = `(${place('g.sight', SIGHTS)}) * 2048 + (${place('g.may_change', SCOPES)}) * 512 + (${place('g.may_remove', SCOPES)}) * 128
  + g.may_add * 64 + g.suggest * 32 + g.private * 16 + g.speaks * 8 + g.copies * 4 + g.shares * 2 + g.absence`;

function unpack(mix: number): Rights {
  const bit = (value: number): boolean => (mix & value) !== 0;
  return {
    sight: SIGHTS[mix >> 11] ?? 'nothing',
    add: bit(64),
    change: SCOPES[(mix >> 9) & 3] ?? 'none',
    remove: SCOPES[(mix >> 7) & 3] ?? 'none',
    suggest: bit(32),
    private: bit(16),
    speaks: bit(8),
    copies: bit(4),
    shares: bit(2),
    absence: bit(1),
  };
}

const EVERYONE = { kind: 'everyone' } as const;

/**
 * The grants that can speak to a person: by name, by a group of theirs, or to everyone; by calendar, as the rule reads them, without
 * their keys. There is one at least for every calendar of the organisation; with `on`, only those on some of them, by row numbers.
 */
export function grantsSpeakingTo(db: Connection, personId: number, on?: readonly number[]): Map<number, Grant[]> {
  const byCalendar = new Map<number, Grant[]>();
  const person = { kind: 'person', id: String(personId) } as const;
  // Thousands of calendars are shared in the same few ways: each mix of rights is one object.
  const mixes = new Map<number, Rights>();
  const rightsOf = (mix: number): Rights => {
    const rights = mixes.get(mix) ?? unpack(mix);
    mixes.set(mix, rights);
    return rights;
  };
  for (const v of db.arrays<SpeakingRow>(
    `SELECT g.collection_id, CASE g.audience WHEN 'everyone' THEN 0 WHEN 'person' THEN -1 ELSE g.group_id END, ${MIX},
       g.starts, g.ends
     FROM ${on ? 'json_each(@on) c CROSS JOIN access_grant g ON g.collection_id = c.value' : 'access_grant g'}
     WHERE g.recorded_until IS NULL AND
       (g.audience = 'everyone' OR g.person_id = @personId OR g.group_id IN (${GROUPS_NOW}))`,
    on ? { personId, on: JSON.stringify(on) } : { personId },
  )) {
    const grant: Grant = {
      key: '',
      audience: v[1] === 0 ? EVERYONE : v[1] === -1 ? person : { kind: 'group', id: String(v[1]) },
      rights: rightsOf(v[2]),
      from: v[3],
      until: v[4],
    };
    const list = byCalendar.get(v[0]);
    if (list) list.push(grant);
    else byCalendar.set(v[0], [grant]);
  }
  return byCalendar;
}

/** All the grants that stand, by calendar. */
export function grantsOnAllCalendars(db: Connection): Map<number, StoredGrant[]> {
  const byCalendar = new Map<number, StoredGrant[]>();
  const rows = db.all<Row>('SELECT * FROM access_grant WHERE recorded_until IS NULL ORDER BY id');
  for (const row of rows) {
    const list = byCalendar.get(row.collection_id);
    if (list) list.push(decode(row));
    else byCalendar.set(row.collection_id, [decode(row)]);
  }
  return byCalendar;
}

/** Records a grant; answers its row number. */
export function insertGrant(db: Connection, grant: Omit<StoredGrant, 'id' | 'recordedUntil'>): number {
  const { audience: a, rights: r } = grant;
  return db.run(
    `INSERT INTO access_grant (key, collection_id, audience, person_id, group_id, link, sight, may_add, may_change, may_remove,
       suggest, private, speaks, copies, shares, absence, starts, ends, given_by, given_for, by_administrator, hangs, recorded_from)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    grant.key,
    grant.collectionId,
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
    Number(r.absence),
    grant.starts,
    grant.ends,
    grant.givenBy,
    grant.givenFor,
    Number(grant.byAdministrator),
    Number(grant.hangs),
    grant.recordedFrom,
  );
}

/** Whether a grant on a calendar names a person, or ever did. */
export function grantsEverNaming(db: Connection, collectionId: number, personId: number): boolean {
  return (
    db.get('SELECT 1 FROM access_grant WHERE collection_id = ? AND person_id = ? LIMIT 1', collectionId, personId) !==
    undefined
  );
}

/** The standing grant that another of the same person took the place of; `null` where there was none. */
export function grantReplacedBy(
  db: Connection,
  { id, collectionId, audience, recordedFrom }: StoredGrant,
): StoredGrant | null {
  if (audience.kind !== 'person') return null;
  const row = db.get<Row>(
    `SELECT * FROM access_grant WHERE collection_id = ? AND person_id = ? AND id < ? AND recorded_until = ?
       AND starts IS NULL AND ends IS NULL ORDER BY id DESC LIMIT 1`,
    collectionId,
    audience.personId,
    id,
    recordedFrom,
  );
  return row ? decode(row) : null;
}

/** Every grant that stands and names a person, on whatever calendar. */
export function grantsNaming(db: Connection, personId: number): StoredGrant[] {
  return db
    .all<Row>('SELECT * FROM access_grant WHERE person_id = ? AND recorded_until IS NULL ORDER BY id', personId)
    .map(decode);
}

/** The grants that stand and end after one instant and not after another. */
export function grantsEnding(db: Connection, after: number, until: number): StoredGrant[] {
  return db
    .all<Row>(
      'SELECT * FROM access_grant WHERE recorded_until IS NULL AND ends > ? AND ends <= ? ORDER BY ends',
      after,
      until,
    )
    .map(decode);
}

/** Ends a grant's record; the row itself stays as history. */
export function endGrant(db: Connection, id: number, at: number): void {
  db.run('UPDATE access_grant SET recorded_until = ? WHERE id = ? AND recorded_until IS NULL', at, id);
}
