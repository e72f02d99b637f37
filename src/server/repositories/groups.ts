import type { Connection } from '../db/index.ts';

export interface Group {
  readonly id: number;
  readonly key: string;
  readonly name: string;
  /** How many people are in it, directly or through a group within it. */
  readonly members: number;
}

/*
 * Whoever is in a group is in every group that one stands within. The closure is read afresh each time: there is no copy of
 * it that could be older than the facts.
 */

/** SQL for the numbers of the groups that the person `@personId` is in now. */
export const GROUPS_NOW = `WITH RECURSIVE up (group_id) AS (
    SELECT group_id FROM membership WHERE person_id = @personId AND recorded_until IS NULL
    UNION SELECT w.parent_id FROM up JOIN group_within w ON w.child_id = up.group_id AND w.recorded_until IS NULL)
  SELECT group_id FROM up`;

/** The groups a person is in now. */
export function groupsOf(db: Connection, personId: number): number[] {
  return db.arrays<[number]>(GROUPS_NOW, { personId }).map(([id]) => id);
}

/** The groups a person was in at an instant. */
export function groupsOfAt(db: Connection, personId: number, at: number): number[] {
  const stood = (t: string) =>
    `${t}.recorded_from <= @at AND (${t}.recorded_until IS NULL OR ${t}.recorded_until > @at)`;
  return db
    .arrays<[number]>(
      `WITH RECURSIVE up (group_id) AS (
         SELECT m.group_id FROM membership m WHERE m.person_id = @personId AND ${stood('m')}
         UNION SELECT w.parent_id FROM up JOIN group_within w ON w.child_id = up.group_id AND ${stood('w')})
       SELECT group_id FROM up`,
      { personId, at },
    )
    .map(([id]) => id);
}

/** The groups that a group stands within now, itself included. */
export function groupsAround(db: Connection, groupId: number): number[] {
  return db
    .arrays<[number]>(
      `WITH RECURSIVE up (group_id) AS (
         SELECT ? UNION SELECT w.parent_id FROM up JOIN group_within w ON w.child_id = up.group_id AND w.recorded_until IS NULL)
       SELECT group_id FROM up`,
      groupId,
    )
    .map(([id]) => id);
}

const BELONGS = `WITH RECURSIVE belongs (person_id, group_id) AS (
    SELECT person_id, group_id FROM membership WHERE recorded_until IS NULL
    UNION SELECT b.person_id, w.parent_id FROM belongs b
      JOIN group_within w ON w.child_id = b.group_id AND w.recorded_until IS NULL)`;

/** Who is in which groups now, for everyone. */
export function allMemberships(db: Connection): Map<number, number[]> {
  const groups = new Map<number, number[]>();
  for (const [person, group] of db.arrays<[number, number]>(`${BELONGS} SELECT person_id, group_id FROM belongs`)) {
    const list = groups.get(person);
    if (list) list.push(group);
    else groups.set(person, [group]);
  }
  return groups;
}

export function allGroups(db: Connection): Group[] {
  return db.all<Group>(
    `${BELONGS} SELECT g.id, g.key, g.name, count(b.person_id) AS members FROM party_group g
     LEFT JOIN belongs b ON b.group_id = g.id GROUP BY g.id ORDER BY g.name`,
  );
}

/** The people in a group now, directly or through a group within it. */
export function membersOf(db: Connection, groupId: number): number[] {
  return db
    .arrays<[number]>(
      `WITH RECURSIVE down (group_id) AS (
         SELECT ? UNION SELECT w.child_id FROM down JOIN group_within w ON w.parent_id = down.group_id AND w.recorded_until IS NULL)
       SELECT DISTINCT person_id FROM membership WHERE recorded_until IS NULL AND group_id IN (SELECT group_id FROM down)`,
      groupId,
    )
    .map(([id]) => id);
}

/** The people who stand in a group themselves. */
export function directMembersOf(db: Connection, groupId: number): number[] {
  return db
    .arrays<[number]>('SELECT person_id FROM membership WHERE group_id = ? AND recorded_until IS NULL', groupId)
    .map(([id]) => id);
}

/** The groups that stand directly within a group. */
export function groupsWithin(db: Connection, groupId: number): number[] {
  return db
    .arrays<[number]>('SELECT child_id FROM group_within WHERE parent_id = ? AND recorded_until IS NULL', groupId)
    .map(([id]) => id);
}

function oneGroup(db: Connection, where: 'id' | 'key', value: number | string): Group | null {
  const row = db.get<{ id: number; key: string; name: string }>(
    `SELECT id, key, name FROM party_group WHERE ${where} = ?`,
    value,
  );
  return row ? { ...row, members: membersOf(db, row.id).length } : null;
}

/** A group by its key; `null` where there is none. */
export const groupByKey = (db: Connection, key: string): Group | null => oneGroup(db, 'key', key);

/** A group by its row number; `null` where there is none. */
export const groupById = (db: Connection, id: number): Group | null => oneGroup(db, 'id', id);

/** People who were in a group after an instant and aren't any more, with when they left. */
export function leftSince(db: Connection, groupId: number, at: number): Map<number, number> {
  return new Map(
    db.arrays<[number, number]>(
      `SELECT person_id, max(recorded_until) FROM membership m WHERE group_id = @groupId AND recorded_until > @at
         AND NOT EXISTS (SELECT 1 FROM membership n WHERE n.group_id = m.group_id AND n.person_id = m.person_id
           AND n.recorded_until IS NULL) GROUP BY person_id`,
      { groupId, at },
    ),
  );
}

/** Ends a membership; the record itself stays as history. */
export function endMembership(db: Connection, groupId: number, personId: number, at: number): void {
  db.run(
    'UPDATE membership SET recorded_until = ? WHERE group_id = ? AND person_id = ? AND recorded_until IS NULL',
    at,
    groupId,
    personId,
  );
}

export function insertGroup(db: Connection, key: string, name: string): number {
  return db.run('INSERT INTO party_group (key, name) VALUES (?, ?)', key, name);
}

export function insertMembership(db: Connection, groupId: number, personId: number, at: number, by: number): void {
  db.run(
    'INSERT INTO membership (group_id, person_id, recorded_from, recorded_by) VALUES (?, ?, ?, ?)',
    groupId,
    personId,
    at,
    by,
  );
}

/** Puts a group into another; both stay as dated facts. */
export function insertWithin(db: Connection, parentId: number, childId: number, at: number, by: number): void {
  db.run(
    'INSERT INTO group_within (parent_id, child_id, recorded_from, recorded_by) VALUES (?, ?, ?, ?)',
    parentId,
    childId,
    at,
    by,
  );
}

/** Takes a group out of another; the record itself stays as history. */
export function endWithin(db: Connection, parentId: number, childId: number, at: number): void {
  db.run(
    'UPDATE group_within SET recorded_until = ? WHERE parent_id = ? AND child_id = ? AND recorded_until IS NULL',
    at,
    parentId,
    childId,
  );
}
