import type { FileZone } from '@/core/formats/index.ts';
import { defineZone, type ZoneDefinition } from '@/core/time/index.ts';
import type { Connection } from '../db/index.ts';

interface Row {
  name: string;
  tzid: string;
  text: string;
  definition: string;
  near: string;
}

const decode = (row: Row): FileZone => ({
  name: row.name,
  tzid: row.tzid,
  text: row.text,
  definition: JSON.parse(row.definition) as ZoneDefinition,
  near: row.near,
});

/** Keeps the definition of a zone that a file brought along; the same one twice is one. */
export function saveZone(db: Connection, zone: FileZone): void {
  db.run(
    'INSERT INTO zone_definition (name, tzid, text, definition, near) VALUES (?, ?, ?, ?, ?) ON CONFLICT (name) DO NOTHING',
    zone.name,
    zone.tzid,
    zone.text,
    JSON.stringify(zone.definition),
    zone.near,
  );
}

/** A kept definition by its name here; `null` where there is none. */
export function zoneByName(db: Connection, name: string): FileZone | null {
  const row = db.get<Row>('SELECT * FROM zone_definition WHERE name = ?', name);
  return row ? decode(row) : null;
}

/** Makes a kept definition known to this thread's clocks. */
export function knowZone(db: Connection, name: string): void {
  const zone = zoneByName(db, name);
  if (zone) defineZone(name, zone.definition);
}
