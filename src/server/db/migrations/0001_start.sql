-- Times are integers: epoch milliseconds for instants, day starts as if UTC for dates. Facts that decide access are
-- dated (recorded_from, recorded_until) and never overwritten.

CREATE TABLE person (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  handle TEXT NOT NULL UNIQUE,
  account TEXT UNIQUE,
  name TEXT NOT NULL,
  address TEXT NOT NULL UNIQUE,
  role TEXT NOT NULL DEFAULT '',
  site TEXT NOT NULL DEFAULT '',
  zone TEXT NOT NULL,
  colour INTEGER NOT NULL DEFAULT 0,
  hours TEXT NOT NULL DEFAULT '24' CHECK (hours IN ('12', '24')),
  week_first INTEGER NOT NULL DEFAULT 1 CHECK (week_first BETWEEN 1 AND 7),
  administrator INTEGER NOT NULL DEFAULT 0 CHECK (administrator IN (0, 1)),
  inside INTEGER NOT NULL DEFAULT 1 CHECK (inside IN (0, 1)),
  created_at INTEGER NOT NULL
) STRICT;

CREATE TABLE party_group (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  name TEXT NOT NULL
) STRICT;

CREATE TABLE membership (
  id INTEGER PRIMARY KEY,
  group_id INTEGER NOT NULL REFERENCES party_group (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER REFERENCES person (id)
) STRICT;
CREATE INDEX membership_person ON membership (person_id);
CREATE UNIQUE INDEX membership_once ON membership (group_id, person_id) WHERE recorded_until IS NULL;

CREATE TABLE calendar (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  owner_id INTEGER NOT NULL REFERENCES person (id),
  name TEXT NOT NULL,
  zone TEXT NOT NULL,
  main INTEGER NOT NULL CHECK (main IN (0, 1)),
  indexed_until INTEGER NOT NULL
) STRICT;
CREATE UNIQUE INDEX calendar_main ON calendar (owner_id) WHERE main = 1;

CREATE TABLE suspension (
  id INTEGER PRIMARY KEY,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER NOT NULL REFERENCES person (id)
) STRICT;
CREATE INDEX suspension_calendar ON suspension (calendar_id);

CREATE TABLE access_grant (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  audience TEXT NOT NULL CHECK (audience IN ('person', 'group', 'everyone', 'link')),
  person_id INTEGER REFERENCES person (id),
  group_id INTEGER REFERENCES party_group (id),
  link TEXT,
  sight TEXT NOT NULL CHECK (sight IN ('nothing', 'busy', 'title', 'outline', 'full')),
  may_add INTEGER NOT NULL CHECK (may_add IN (0, 1)),
  may_change TEXT NOT NULL CHECK (may_change IN ('none', 'own', 'all')),
  may_remove TEXT NOT NULL CHECK (may_remove IN ('none', 'own', 'all')),
  suggest INTEGER NOT NULL CHECK (suggest IN (0, 1)),
  private INTEGER NOT NULL CHECK (private IN (0, 1)),
  speaks INTEGER NOT NULL CHECK (speaks IN (0, 1)),
  copies INTEGER NOT NULL CHECK (copies IN (0, 1)),
  shares INTEGER NOT NULL CHECK (shares IN (0, 1)),
  starts INTEGER,
  ends INTEGER,
  given_by INTEGER NOT NULL REFERENCES person (id),
  given_for INTEGER NOT NULL REFERENCES person (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  CHECK ((audience = 'person') = (person_id IS NOT NULL)),
  CHECK ((audience = 'group') = (group_id IS NOT NULL)),
  CHECK ((audience = 'link') = (link IS NOT NULL))
) STRICT;
CREATE INDEX grant_calendar ON access_grant (calendar_id, recorded_until);
CREATE INDEX grant_person ON access_grant (person_id) WHERE person_id IS NOT NULL;
-- One standing grant an audience; dated ones stand beside it.
CREATE UNIQUE INDEX grant_standing ON access_grant
  (calendar_id, audience, coalesce(person_id, group_id, 0), coalesce(link, ''))
  WHERE recorded_until IS NULL AND starts IS NULL AND ends IS NULL;

CREATE TABLE house_rules (
  id INTEGER PRIMARY KEY,
  everyone_sight TEXT NOT NULL,
  outside_sight TEXT NOT NULL,
  outside_reach TEXT NOT NULL,
  outside_extras INTEGER NOT NULL CHECK (outside_extras IN (0, 1)),
  link_sight TEXT NOT NULL,
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER REFERENCES person (id)
) STRICT;

CREATE TABLE item (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  uid TEXT NOT NULL,
  series_id INTEGER REFERENCES item (id),
  recurrence TEXT,
  start INTEGER NOT NULL,
  finish INTEGER NOT NULL,
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
  CHECK ((series_id IS NULL) = (recurrence IS NULL)),
  CHECK (finish >= start)
) STRICT;
CREATE UNIQUE INDEX item_uid ON item (calendar_id, uid, coalesce(recurrence, '')) WHERE removed_at IS NULL;
CREATE INDEX item_series ON item (series_id) WHERE series_id IS NOT NULL;
CREATE INDEX item_endless ON item (calendar_id) WHERE rule IS NOT NULL AND removed_at IS NULL;

-- What happens when: written in the transaction that writes the item. Items of up to 26 hours stand in `occurrence`,
-- longer and all-day ones in `span`, so that reading a range never looks back further than a day.
CREATE TABLE occurrence (
  calendar_id INTEGER NOT NULL,
  start INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item (id),
  finish INTEGER NOT NULL,
  PRIMARY KEY (calendar_id, start, item_id)
) STRICT, WITHOUT ROWID;

CREATE TABLE span (
  calendar_id INTEGER NOT NULL,
  start INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item (id),
  finish INTEGER NOT NULL,
  PRIMARY KEY (calendar_id, start, item_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX span_finish ON span (calendar_id, finish);

CREATE TABLE trail (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  actor_id INTEGER NOT NULL REFERENCES person (id),
  principal_id INTEGER NOT NULL REFERENCES person (id),
  calendar_id INTEGER REFERENCES calendar (id),
  subject TEXT NOT NULL,
  verb TEXT NOT NULL,
  before TEXT,
  after TEXT
) STRICT;
CREATE INDEX trail_calendar ON trail (calendar_id, at);
CREATE INDEX trail_subject ON trail (subject);
