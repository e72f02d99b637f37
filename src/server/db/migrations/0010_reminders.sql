-- How long before what happens in a calendar somebody is reminded of it: of everything that takes time there, or of one item alone
-- (there no minutes are not at all).
CREATE TABLE reminder (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person (id),
  calendar_id INTEGER NOT NULL REFERENCES collection (id),
  item_id INTEGER REFERENCES item (id),
  minutes INTEGER,
  by_mail INTEGER NOT NULL DEFAULT 0 CHECK (by_mail IN (0, 1))
) STRICT;
CREATE UNIQUE INDEX reminder_of ON reminder (calendar_id, person_id, coalesce(item_id, 0));
CREATE INDEX reminder_minutes ON reminder (calendar_id, minutes) WHERE minutes IS NOT NULL;

-- Of which happenings somebody was reminded; open until they say that it is done.
CREATE TABLE reminded (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  item_id INTEGER NOT NULL REFERENCES item (id),
  start INTEGER NOT NULL,
  shown_from INTEGER NOT NULL,
  done INTEGER NOT NULL DEFAULT 0 CHECK (done IN (0, 1))
) STRICT;
CREATE UNIQUE INDEX reminded_of ON reminded (person_id, item_id, start);
CREATE INDEX reminded_start ON reminded (start);

CREATE TABLE outbox_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'ending', 'wayIn', 'wayInMade', 'passwordMade', 'reminder')),
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
