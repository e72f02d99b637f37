-- Letters that say beforehand that access ends: once for each grant and person.
CREATE TABLE outbox_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'ending', 'wayIn')),
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
CREATE INDEX access_grant_ends ON access_grant (ends) WHERE recorded_until IS NULL AND ends IS NOT NULL;
