-- What people said and did of the rows of a Desk. Rows themselves are computed and never stored: `cause` is what a row comes from, as the house
-- alone names it. `versions` are those of the facts that caused it, by id.
CREATE TABLE desk_word (
  id INTEGER PRIMARY KEY,
  owner_id INTEGER NOT NULL REFERENCES person (id),
  cause TEXT NOT NULL,
  by_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  what TEXT NOT NULL CHECK (what IN ('later', 'left', 'passed', 'done')),
  until INTEGER,
  versions TEXT NOT NULL DEFAULT '{}',
  to_id INTEGER REFERENCES person (id),
  line TEXT NOT NULL DEFAULT '',
  act TEXT
) STRICT;
CREATE INDEX desk_word_owner ON desk_word (owner_id, id);

-- How much each kind counts more or less for somebody, and who goes first for them.
CREATE TABLE desk_preference (
  person_id INTEGER PRIMARY KEY REFERENCES person (id),
  shifts TEXT NOT NULL,
  first TEXT NOT NULL,
  version INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL
) STRICT;

-- Of whom it was said that a meeting takes place without them.
CREATE TABLE meeting_without (
  item_id INTEGER NOT NULL REFERENCES item (id),
  address TEXT NOT NULL,
  said_by INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  PRIMARY KEY (item_id, address)
) STRICT;

-- What waits for a person, and mail that was given up, are found without reading all there is.
CREATE INDEX message_pending ON message (collection_id) WHERE json_extract(facts, '$.pending') IS NOT NULL;
CREATE INDEX outgoing_mail_given_up ON outgoing_mail (collection_id) WHERE given_up = 1;
