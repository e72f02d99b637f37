import type { Language } from '@/messages/languages.ts';
import type { Connection } from '../db/index.ts';

/** A person in the directory. `handle` stands in addresses, `key` in answers; `account` is the sign-in library's id. */
export interface Person {
  readonly id: number;
  readonly key: string;
  readonly handle: string;
  readonly account: string | null;
  readonly name: string;
  readonly address: string;
  readonly role: string;
  readonly site: string;
  /** The number they are called at, as it is written; empty where none is known. */
  readonly phone: string;
  readonly zone: string;
  readonly colour: number;
  readonly hours: '12' | '24';
  readonly weekFirst: number;
  readonly dateOrder: 'dmy' | 'mdy' | 'ymd';
  readonly administrator: boolean;
  readonly inside: boolean;
  /** A role account stands for a desk that several people answer at. */
  readonly kind: 'person' | 'role';
  /** A room or a thing: its calendar answers for itself. */
  readonly resource: 'room' | 'thing' | null;
  /** How many a room holds. */
  readonly size: number | null;
  /** When they left the organisation, epoch milliseconds. */
  readonly leftAt: number | null;
  /** When they work, as JSON; a second zone beside their own. */
  readonly workHours: string | null;
  readonly secondZone: string | null;
  /** In which language they read. */
  readonly language: Language;
}

interface Row
  extends Omit<Person, 'weekFirst' | 'dateOrder' | 'administrator' | 'inside' | 'leftAt' | 'workHours' | 'secondZone'> {
  readonly work_hours: string | null;
  readonly second_zone: string | null;
  readonly week_first: number;
  readonly date_order: Person['dateOrder'];
  readonly left_at: number | null;
  readonly administrator: 0 | 1;
  readonly inside: 0 | 1;
}

const COLUMNS = `id, key, handle, account, name, address, role, site, phone, zone, colour, hours, week_first, date_order, administrator, inside, kind, resource, size, left_at, work_hours, second_zone, language`;

/** Field by field: it is read for every name in every answer, and taking a row apart costs four times as much. */
const decode = (row: Row): Person => ({
  id: row.id,
  key: row.key,
  handle: row.handle,
  account: row.account,
  name: row.name,
  address: row.address,
  role: row.role,
  site: row.site,
  phone: row.phone,
  zone: row.zone,
  colour: row.colour,
  hours: row.hours,
  weekFirst: row.week_first,
  dateOrder: row.date_order,
  administrator: row.administrator === 1,
  inside: row.inside === 1,
  kind: row.kind,
  resource: row.resource,
  size: row.size,
  leftAt: row.left_at,
  workHours: row.work_hours,
  secondZone: row.second_zone,
  language: row.language,
});

function one(db: Connection, where: string, value: unknown): Person | null {
  const row = db.get<Row>(`SELECT ${COLUMNS} FROM person WHERE ${where} = ?`, value);
  return row ? decode(row) : null;
}

export const personById = (db: Connection, id: number): Person | null => one(db, 'id', id);
export const personByHandle = (db: Connection, handle: string): Person | null => one(db, 'handle', handle);
export const personByAccount = (db: Connection, account: string): Person | null => one(db, 'account', account);
export const personByAddress = (db: Connection, address: string): Person | null => one(db, 'address', address);

/** How many people there are inside. */
export const countPeople = (db: Connection): number =>
  db.get<{ n: number }>('SELECT count(*) AS n FROM person WHERE inside = 1')?.n ?? 0;

/** Everyone in the directory, by name. Who is outside stands in no directory. */
export function allPeople(db: Connection): Person[] {
  return db.all<Row>(`SELECT ${COLUMNS} FROM person WHERE inside = 1 ORDER BY name`).map(decode);
}

/** What deciding for somebody needs to know of them. */
export type Reader = Pick<Person, 'id' | 'name' | 'address' | 'inside'>;

/** Every person in the directory, rooms and things aside, as far as deciding for each of them needs it: there may be thousands. */
export function readersInside(db: Connection): Reader[] {
  return db
    .arrays<[number, string, string]>(
      'SELECT id, name, address FROM person WHERE inside = 1 AND resource IS NULL ORDER BY name',
    )
    .map(([id, name, address]) => ({ id, name, address, inside: true }));
}

/** Everyone known by an address alone, by name; those who left are among them. */
export function outsidePeople(db: Connection): Person[] {
  return db.all<Row>(`SELECT ${COLUMNS} FROM person WHERE inside = 0 ORDER BY name`).map(decode);
}

/** A line of the directory: what is shown of a person, and their main calendar. */
export type DirectoryLine = readonly [
  id: number,
  handle: string,
  name: string,
  address: string,
  role: string,
  site: string,
  phone: string,
  colour: number,
  calendar: number | null,
  suspended: 0 | 1,
  kind: Person['kind'],
  resource: Person['resource'],
  size: number | null,
];

/** The directory, by name: only what a list of it shows, as arrays, since there may be thousands. */
export function directoryLines(db: Connection): DirectoryLine[] {
  return db.arrays<DirectoryLine>(
    `SELECT p.id, p.handle, p.name, p.address, p.role, p.site, p.phone, p.colour, c.id, c.id IN
       (SELECT collection_id FROM suspension WHERE recorded_until IS NULL), p.kind, p.resource, p.size
     FROM person p LEFT JOIN collection c ON c.owner_id = p.id AND c.main = 1 WHERE p.inside = 1 ORDER BY p.name`,
  );
}

export function insertPerson(
  db: Connection,
  person: Omit<Person, 'id' | 'leftAt' | 'dateOrder' | 'resource' | 'size' | 'workHours' | 'secondZone' | 'language'>,
  at: number,
): number {
  return db.run(
    `INSERT INTO person (key, handle, account, name, address, role, site, phone, zone, colour, hours, week_first,
       administrator, inside, kind, created_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    person.key,
    person.handle,
    person.account,
    person.name,
    person.address,
    person.role,
    person.site,
    person.phone,
    person.zone,
    person.colour,
    person.hours,
    person.weekFirst,
    Number(person.administrator),
    Number(person.inside),
    person.kind,
    at,
  );
}

/** Brings a person inside, or puts them outside; what they are called, and their account, may change with it. */
export function savePerson(
  db: Connection,
  id: number,
  p: Pick<
    Person,
    'name' | 'role' | 'site' | 'phone' | 'zone' | 'account' | 'administrator' | 'inside' | 'kind' | 'leftAt'
  >,
): void {
  db.run(
    `UPDATE person SET name = ?, role = ?, site = ?, phone = ?, zone = ?, account = ?, administrator = ?, inside = ?, kind = ?, left_at = ?
     WHERE id = ?`,
    p.name,
    p.role,
    p.site,
    p.phone,
    p.zone,
    p.account,
    Number(p.administrator),
    Number(p.inside),
    p.kind,
    p.leftAt,
    id,
  );
}

/** Remembers a person's account with the sign-in library. */
export function saveAccount(db: Connection, id: number, account: string | null): void {
  db.run('UPDATE person SET account = ? WHERE id = ?', account, id);
}

export function savePreferences(
  db: Connection,
  id: number,
  p: Pick<
    Person,
    'phone' | 'zone' | 'hours' | 'weekFirst' | 'dateOrder' | 'workHours' | 'secondZone' | 'language' | 'colour'
  >,
): void {
  const { phone, zone, hours, weekFirst, dateOrder, workHours, secondZone, language, colour } = p;
  const set =
    'UPDATE person SET phone = ?, zone = ?, hours = ?, week_first = ?, date_order = ?, work_hours = ?, second_zone = ?, language = ?, colour = ? WHERE id = ?';
  db.run(set, phone, zone, hours, weekFirst, dateOrder, workHours, secondZone, language, colour, id);
}

/** Says of somebody in the directory that they are a room or a thing, and how many it holds. */
export function saveResource(db: Connection, id: number, resource: Person['resource'], size: number | null): void {
  db.run('UPDATE person SET resource = ?, size = ? WHERE id = ?', resource, size, id);
}

/** The numbers of those in the directory who stand under these addresses, as pairs; who has none isn't among them. */
export const phonesAt = (db: Connection, addresses: readonly string[]): [address: string, phone: string][] =>
  db.arrays<[string, string]>(
    `SELECT address, phone FROM person
     WHERE inside = 1 AND phone != '' AND address IN (SELECT value FROM json_each(?))`,
    JSON.stringify(addresses),
  );

/** The rooms that hold so many, the smallest first. */
export const roomsWith = (db: Connection, seats: number): Person[] =>
  db
    .all<Row>(
      `SELECT ${COLUMNS} FROM person WHERE inside = 1 AND resource = 'room' AND size >= ? ORDER BY size, name LIMIT 1000`,
      seats,
    )
    .map(decode);
