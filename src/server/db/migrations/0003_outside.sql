-- Who is outside, and what belongs to the directory. Whoever left stays as a row: history names them.
ALTER TABLE person ADD COLUMN kind TEXT NOT NULL DEFAULT 'person' CHECK (kind IN ('person', 'role'));
ALTER TABLE person ADD COLUMN left_at INTEGER;

-- The domains whose addresses belong to the organisation.
CREATE TABLE domain (name TEXT NOT NULL PRIMARY KEY) STRICT, WITHOUT ROWID;

-- Groups within groups, as dated facts: whoever is in the child is in the parent.
CREATE TABLE group_within (
  id INTEGER PRIMARY KEY,
  parent_id INTEGER NOT NULL REFERENCES party_group (id),
  child_id INTEGER NOT NULL REFERENCES party_group (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER NOT NULL REFERENCES person (id),
  CHECK (parent_id <> child_id)
) STRICT;
CREATE INDEX group_within_child ON group_within (child_id);
CREATE UNIQUE INDEX group_within_once ON group_within (parent_id, child_id) WHERE recorded_until IS NULL;

-- A link is named; its secret address is made of its key under the server's secret, and stands nowhere.
CREATE TABLE link (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  name TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person (id),
  made_at INTEGER NOT NULL,
  last_used INTEGER
) STRICT;
CREATE INDEX link_calendar ON link (calendar_id);

ALTER TABLE access_grant ADD COLUMN by_administrator INTEGER NOT NULL DEFAULT 0 CHECK (by_administrator IN (0, 1));

-- Ceilings of further calendars where they differ from those of main ones; the start of new calendars; who may make links.
ALTER TABLE house_rules ADD COLUMN further_everyone_sight TEXT;
ALTER TABLE house_rules ADD COLUMN further_outside_sight TEXT;
ALTER TABLE house_rules ADD COLUMN further_outside_reach TEXT;
ALTER TABLE house_rules ADD COLUMN further_outside_extras INTEGER;
ALTER TABLE house_rules ADD COLUMN further_link_sight TEXT;
ALTER TABLE house_rules ADD COLUMN start_sight TEXT NOT NULL DEFAULT 'busy';
ALTER TABLE house_rules ADD COLUMN links_by TEXT NOT NULL DEFAULT 'sharers';

-- A house rule somebody would like changed, to exactly what.
CREATE TABLE rule_request (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  rule TEXT NOT NULL,
  further INTEGER NOT NULL CHECK (further IN (0, 1)),
  wanted TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  answer TEXT CHECK (answer IN ('changed', 'left')),
  answered_by INTEGER REFERENCES person (id),
  answered_at INTEGER,
  answer_note TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE UNIQUE INDEX rule_request_open ON rule_request (person_id, rule, further, wanted) WHERE answer IS NULL;

-- Words of a person's own that make an item look sensitive.
CREATE TABLE sensitive_word (
  person_id INTEGER NOT NULL REFERENCES person (id),
  word TEXT NOT NULL,
  topic TEXT NOT NULL,
  PRIMARY KEY (person_id, word)
) STRICT, WITHOUT ROWID;

-- Letters to be sent: written in the transaction of what they tell of, sent afterwards.
CREATE TABLE outbox (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'wayIn')),
  calendar_id INTEGER REFERENCES calendar (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  tries INTEGER NOT NULL DEFAULT 0,
  next_try INTEGER NOT NULL,
  sent_at INTEGER,
  given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up IN (0, 1))
) STRICT;
CREATE INDEX outbox_waiting ON outbox (next_try) WHERE sent_at IS NULL AND given_up = 0;

-- Calendars whose access another process changed, and when: a running server reads it and tells its open windows.
CREATE TABLE change_note (
  id INTEGER PRIMARY KEY,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  at INTEGER NOT NULL
) STRICT;

CREATE INDEX calendar_further ON calendar (owner_id) WHERE main = 0;
CREATE INDEX membership_group ON membership (group_id);
CREATE INDEX group_within_parent ON group_within (parent_id);
