-- Items as files and acts have them: a happening may come before its series, a start may lie where the clocks leave it out
-- (`wall`), a length may hold whole days of the clock, and what a file said that isn't modelled stays with its item.
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
INSERT INTO item_again (id, key, calendar_id, uid, series_id, recurrence, start, finish, all_day, zone, rule, added, left_out,
    title, kind, place, notes, link, categories, importance, shows, visibility, cancelled, owner_answer, organiser, attendees,
    parties, owner_invited, briefing, sequence, version, created_by, created_for, created_at, changed_by, changed_for,
    changed_at, removed_at)
  SELECT id, key, calendar_id, uid, series_id, recurrence, start, finish, all_day, zone, rule, added, left_out,
    title, kind, place, notes, link, categories, importance, shows, visibility, cancelled, owner_answer, organiser, attendees,
    parties, owner_invited, briefing, sequence, version, created_by, created_for, created_at, changed_by, changed_for,
    changed_at, removed_at
  FROM item;
DROP TABLE item;
ALTER TABLE item_again RENAME TO item;
-- A whereabouts only says where someone is.
UPDATE item SET shows = 'free' WHERE kind = 'whereabouts' AND shows <> 'free';
-- A happening that came without its series stood under a UID with its recurrence id behind a `#`.
UPDATE item SET recurrence = substr(uid, length(rtrim(uid, replace(uid, '#', ''))) + 1),
    uid = substr(uid, 1, length(rtrim(uid, replace(uid, '#', ''))) - 1)
  WHERE removed_at IS NULL AND recurrence IS NULL AND (uid GLOB '*#[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]T[0-9][0-9]:[0-9][0-9]:[0-9][0-9]'
    OR uid GLOB '*#[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]')
    AND NOT EXISTS (SELECT 1 FROM item o WHERE o.calendar_id = item.calendar_id AND o.removed_at IS NULL
      AND o.uid = substr(item.uid, 1, length(rtrim(item.uid, replace(item.uid, '#', ''))) - 1)
      AND o.recurrence = substr(item.uid, length(rtrim(item.uid, replace(item.uid, '#', ''))) + 1));
CREATE UNIQUE INDEX item_uid ON item (calendar_id, uid, coalesce(recurrence, '')) WHERE removed_at IS NULL;
CREATE INDEX item_series ON item (series_id) WHERE series_id IS NOT NULL;
CREATE INDEX item_repeats ON item (calendar_id) WHERE (rule IS NOT NULL OR added <> '[]') AND removed_at IS NULL;
CREATE INDEX item_batch ON item (batch) WHERE batch IS NOT NULL;
CREATE INDEX item_created ON item (created_by, created_at);

-- Taking out of the index what it holds of an item is one look.
CREATE INDEX occurrence_item ON occurrence (item_id);
CREATE INDEX span_item ON span (item_id);

-- A file being brought in: its items stand removed (removed_at = -1) and what happens of them beside the index until all of it is
-- there; then it comes in as one. `before` holds what it put a newer revision in place of.
CREATE TABLE batch (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('coming', 'in', 'undone')),
  before TEXT NOT NULL DEFAULT '[]'
) STRICT;
CREATE TABLE coming (
  batch INTEGER NOT NULL REFERENCES batch (id),
  long INTEGER NOT NULL CHECK (long IN (0, 1)),
  start INTEGER NOT NULL,
  item_id INTEGER NOT NULL,
  finish INTEGER NOT NULL,
  PRIMARY KEY (batch, long, start, item_id)
) STRICT, WITHOUT ROWID;

-- Zones that calendar files defined themselves and that no named zone stands for.
CREATE TABLE zone_definition (
  name TEXT NOT NULL PRIMARY KEY,
  tzid TEXT NOT NULL,
  text TEXT NOT NULL,
  definition TEXT NOT NULL,
  near TEXT NOT NULL
) STRICT;

-- Given by somebody who held it for a time or through a group: it ends when they no longer hold it.
ALTER TABLE access_grant ADD COLUMN hangs INTEGER NOT NULL DEFAULT 0 CHECK (hangs IN (0, 1));

-- What somebody outside is called by those who share a calendar with them: no other calendar's name for them.
CREATE TABLE outsider_name (
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  name TEXT NOT NULL,
  PRIMARY KEY (calendar_id, person_id)
) STRICT, WITHOUT ROWID;
INSERT INTO outsider_name SELECT DISTINCT g.calendar_id, p.id, p.name FROM access_grant g JOIN person p ON p.id = g.person_id
  WHERE p.inside = 0;

-- Notices also say that somebody came into a group that opens one's calendar, and that one's password was made anew; each keeps
-- whose calendar it spoke of then.
CREATE TABLE notice_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'joined', 'wayInMade', 'passwordMade')),
  calendar_id INTEGER REFERENCES calendar (id),
  owner_id INTEGER REFERENCES person (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER NOT NULL REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  read_at INTEGER,
  CHECK ((calendar_id IS NULL) = (owner_id IS NULL))
) STRICT;
INSERT INTO notice_again SELECT n.id, n.key, n.person_id, n.at, n.kind, n.calendar_id,
    coalesce((SELECT given_for FROM access_grant WHERE id = n.grant_id),
      (SELECT t.principal_id FROM trail t WHERE t.calendar_id = n.calendar_id AND t.at = n.at AND t.verb LIKE 'access.%' LIMIT 1),
      c.owner_id),
    n.grant_id, n.by_id, n.note, n.read_at
  FROM notice n JOIN calendar c ON c.id = n.calendar_id;
DROP TABLE notice;
ALTER TABLE notice_again RENAME TO notice;
CREATE INDEX notice_person ON notice (person_id, at);
CREATE INDEX notice_grant ON notice (grant_id) WHERE grant_id IS NOT NULL;

CREATE TABLE outbox_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'ending', 'wayIn', 'wayInMade', 'passwordMade')),
  calendar_id INTEGER REFERENCES calendar (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  tries INTEGER NOT NULL DEFAULT 0,
  next_try INTEGER NOT NULL,
  sent_at INTEGER,
  given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up IN (0, 1))
) STRICT;
INSERT INTO outbox_again SELECT id, key, at, person_id, kind, calendar_id, grant_id, by_id, note, tries, next_try, sent_at, given_up
  FROM outbox;
DROP TABLE outbox;
ALTER TABLE outbox_again RENAME TO outbox;
CREATE INDEX outbox_waiting ON outbox (next_try) WHERE sent_at IS NULL AND given_up = 0;
CREATE UNIQUE INDEX outbox_ending ON outbox (grant_id, person_id) WHERE kind = 'ending';

-- Repeats stand in the index from two years back to two ahead; before and after they are worked out as they are asked for.
ALTER TABLE calendar ADD COLUMN indexed_from INTEGER NOT NULL DEFAULT 0;
UPDATE calendar SET indexed_from = indexed_until - 126489600000;
DELETE FROM occurrence WHERE start < (SELECT indexed_from FROM calendar c WHERE c.id = calendar_id)
  AND item_id IN (SELECT id FROM item WHERE rule IS NOT NULL OR added <> '[]');
DELETE FROM span WHERE start < (SELECT indexed_from FROM calendar c WHERE c.id = calendar_id)
  AND item_id IN (SELECT id FROM item WHERE rule IS NOT NULL OR added <> '[]');
