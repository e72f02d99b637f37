-- At what minute of their day somebody is sent the morning's and the evening's letter; none where nothing is said. The days they last were.
CREATE TABLE day_letter (
  person_id INTEGER PRIMARY KEY REFERENCES person (id),
  morning INTEGER CHECK (morning BETWEEN 0 AND 1439),
  evening INTEGER CHECK (evening BETWEEN 0 AND 1439),
  last_morning TEXT NOT NULL DEFAULT '',
  last_evening TEXT NOT NULL DEFAULT ''
) STRICT;

CREATE TABLE outbox_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'ending', 'wayIn', 'wayInMade', 'passwordMade', 'reminder', 'refused',
    'morning', 'evening')),
  collection_id INTEGER REFERENCES collection (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  tries INTEGER NOT NULL DEFAULT 0,
  next_try INTEGER NOT NULL,
  sent_at INTEGER,
  given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up IN (0, 1))
) STRICT;
INSERT INTO outbox_again SELECT id, key, at, person_id, kind, collection_id, grant_id, by_id, note, tries, next_try, sent_at, given_up
  FROM outbox;
DROP TABLE outbox;
ALTER TABLE outbox_again RENAME TO outbox;
CREATE INDEX outbox_waiting ON outbox (next_try) WHERE sent_at IS NULL AND given_up = 0;
CREATE UNIQUE INDEX outbox_ending ON outbox (grant_id, person_id) WHERE kind = 'ending';
CREATE INDEX outbox_collection ON outbox (collection_id, person_id);
