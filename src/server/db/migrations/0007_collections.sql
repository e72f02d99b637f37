-- What is shared is a collection; a calendar is the first kind of it. Grants, links, suspensions, notices, letters, suggestions,
-- the trail and what outside processes changed point at the collection; what only a calendar has stands beside it.
ALTER TABLE calendar RENAME TO collection;
CREATE TABLE calendar (
  id INTEGER PRIMARY KEY REFERENCES collection (id),
  zone TEXT NOT NULL,
  indexed_from INTEGER NOT NULL,
  indexed_until INTEGER NOT NULL
) STRICT;
INSERT INTO calendar (id, zone, indexed_from, indexed_until) SELECT id, zone, indexed_from, indexed_until FROM collection;
ALTER TABLE collection DROP COLUMN zone;
ALTER TABLE collection DROP COLUMN indexed_from;
ALTER TABLE collection DROP COLUMN indexed_until;
ALTER TABLE collection ADD COLUMN kind TEXT NOT NULL DEFAULT 'calendar' CHECK (kind IN ('calendar', 'contacts', 'tasks', 'folder'));
DROP INDEX calendar_main;
DROP INDEX calendar_further;
CREATE UNIQUE INDEX collection_main ON collection (owner_id) WHERE main = 1;
CREATE INDEX collection_further ON collection (owner_id) WHERE main = 0;

ALTER TABLE suspension RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE access_grant RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE notice RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE link RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE outbox RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE change_note RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE suggestion RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE trail RENAME COLUMN calendar_id TO collection_id;
ALTER TABLE outsider_name RENAME COLUMN calendar_id TO collection_id;

-- Items and the files that brought them in belong to a calendar. Their tables are made anew to point at it.
CREATE TABLE item_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  uid TEXT NOT NULL,
  series_id INTEGER REFERENCES item (id),
  recurrence TEXT,
  start INTEGER NOT NULL,
  finish INTEGER NOT NULL,
  wall INTEGER,
  days INTEGER NOT NULL DEFAULT 0,
  all_day INTEGER NOT NULL CHECK (all_day IN (0, 1)),
  zone TEXT NOT NULL,
  rule TEXT,
  added TEXT NOT NULL DEFAULT '[]',
  left_out TEXT NOT NULL DEFAULT '[]',
  title TEXT NOT NULL,
  kind TEXT NOT NULL,
  place TEXT,
  notes TEXT,
  link TEXT,
  categories TEXT NOT NULL DEFAULT '[]',
  importance TEXT NOT NULL,
  shows TEXT NOT NULL,
  visibility TEXT NOT NULL,
  cancelled INTEGER NOT NULL CHECK (cancelled IN (0, 1)),
  owner_answer TEXT,
  organiser TEXT,
  attendees TEXT NOT NULL DEFAULT '[]',
  -- Addresses of the organiser and the attendees, each between line feeds: who is a party is one look.
  parties TEXT NOT NULL DEFAULT '',
  owner_invited INTEGER NOT NULL DEFAULT 0 CHECK (owner_invited IN (0, 1)),
  briefing TEXT,
  sequence INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL,
  created_by INTEGER NOT NULL REFERENCES person (id),
  created_for INTEGER NOT NULL REFERENCES person (id),
  created_at INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_for INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL,
  removed_at INTEGER,
  -- What a file said of it beside all this, and the act that brought it in.
  kept TEXT NOT NULL DEFAULT '[]',
  batch INTEGER REFERENCES batch (id),
  CHECK (series_id IS NULL OR recurrence IS NOT NULL),
  CHECK (finish >= start)
) STRICT;
INSERT INTO item_again SELECT * FROM item;
DROP TABLE item;
ALTER TABLE item_again RENAME TO item;
CREATE UNIQUE INDEX item_uid ON item (calendar_id, uid, coalesce(recurrence, '')) WHERE removed_at IS NULL;
CREATE INDEX item_series ON item (series_id) WHERE series_id IS NOT NULL;
CREATE INDEX item_repeats ON item (calendar_id) WHERE (rule IS NOT NULL OR added <> '[]') AND removed_at IS NULL;
CREATE INDEX item_batch ON item (batch) WHERE batch IS NOT NULL;
CREATE INDEX item_created ON item (created_by, created_at);

CREATE TABLE batch_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('coming', 'in', 'undone')),
  before TEXT NOT NULL DEFAULT '[]'
) STRICT;
INSERT INTO batch_again SELECT * FROM batch;
DROP TABLE batch;
ALTER TABLE batch_again RENAME TO batch;
