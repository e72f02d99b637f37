-- The right to set somebody's away notice stands by itself; until now whoever spoke for them had it.
ALTER TABLE access_grant ADD COLUMN absence INTEGER NOT NULL DEFAULT 0 CHECK (absence IN (0, 1));
UPDATE access_grant SET absence = 1 WHERE speaks = 1 AND collection_id IN (SELECT id FROM collection WHERE main = 1 AND kind = 'calendar');

-- When somebody is away, and what their mail is answered with meanwhile. `item_id` is what shows it in their calendar.
CREATE TABLE absence (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  starts INTEGER NOT NULL,
  ends INTEGER NOT NULL CHECK (ends > starts),
  inside TEXT NOT NULL,
  outside TEXT NOT NULL,
  cover_id INTEGER REFERENCES person (id),
  declines INTEGER NOT NULL CHECK (declines IN (0, 1)),
  item_id INTEGER REFERENCES item (id),
  set_by INTEGER NOT NULL REFERENCES person (id),
  set_at INTEGER NOT NULL,
  version INTEGER NOT NULL,
  removed_at INTEGER
) STRICT;
CREATE INDEX absence_person ON absence (person_id, ends) WHERE removed_at IS NULL;

-- Who was answered during an absence: once each.
CREATE TABLE absence_reply (
  absence_id INTEGER NOT NULL REFERENCES absence (id),
  address TEXT NOT NULL,
  at INTEGER NOT NULL,
  PRIMARY KEY (absence_id, address)
) STRICT;

-- Access that was asked for before says nothing of it: whoever asked to speak asked for it.
UPDATE ask SET rights = json_set(rights, '$.absence', json(CASE json_extract(rights, '$.speaks') WHEN 1 THEN 'true' ELSE 'false' END));
