import type { Connection } from '../db/index.ts';

export interface Group {
  readonly id: number;
  readonly key: string;
  readonly name: string;
  readonly members: number;
}

/** The groups a person is in now. */
export function groupsOf(db: Connection, personId: number): number[] {
  return db
    .all<{ group_id: number }>(
      'SELECT group_id FROM membership WHERE person_id = ? AND recorded_until IS NULL',
      personId,
    )
    .map((row) => row.group_id);
}

/** The groups a person was in at an instant. */
export function groupsOfAt(db: Connection, personId: number, at: number): number[] {
  return db
    .all<{ group_id: number }>(
      `SELECT group_id FROM membership WHERE person_id = ? AND recorded_from <= ? AND (recorded_until IS NULL OR recorded_until > ?)`,
      personId,
      at,
      at,
    )
    .map((row) => row.group_id);
}

/** Who is in which groups now, for everyone. */
export function allMemberships(db: Connection): Map<number, number[]> {
  const groups = new Map<number, number[]>();
  for (const [person, group] of db.arrays<[number, number]>(
    'SELECT person_id, group_id FROM membership WHERE recorded_until IS NULL',
  ))
    groups.set(person, [...(groups.get(person) ?? []), group]);
  return groups;
}

export function allGroups(db: Connection): Group[] {
  return db.all<Group>(
    `SELECT g.id, g.key, g.name, count(m.id) AS members FROM party_group g
     LEFT JOIN membership m ON m.group_id = g.id AND m.recorded_until IS NULL GROUP BY g.id ORDER BY g.name`,
  );
}

/** The people in a group now. */
export function membersOf(db: Connection, groupId: number): number[] {
  return db
    .all<{ person_id: number }>(
      'SELECT person_id FROM membership WHERE group_id = ? AND recorded_until IS NULL',
      groupId,
    )
    .map((row) => row.person_id);
}

/** A group by its key; `null` where there is none. */
export function groupByKey(db: Connection, key: string): Group | null {
  return allGroups(db).find((g) => g.key === key) ?? null;
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
