-- Asks for access, from one person to another: of their main calendar, or of a further one that the asker saw when they asked. There is one
-- for a pair and a calendar, ever: asking again takes it up again, and every answer to it stays.
CREATE TABLE ask (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  from_id INTEGER NOT NULL REFERENCES person (id),
  to_id INTEGER NOT NULL REFERENCES person (id),
  collection_id INTEGER REFERENCES collection (id),
  at INTEGER NOT NULL,
  rights TEXT NOT NULL,
  starts INTEGER,
  ends INTEGER,
  why TEXT NOT NULL DEFAULT '',
  -- What the asker gave of their own calendar in the same act.
  gave INTEGER REFERENCES access_grant (id),
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'given', 'refused', 'takenBack')),
  -- How often anything was done with it: whoever answers names what they saw.
  turns INTEGER NOT NULL DEFAULT 0,
  nudged_at INTEGER,
  -- Whether the asker has read how it stands.
  heard INTEGER NOT NULL DEFAULT 1 CHECK (heard IN (0, 1))
) STRICT;
CREATE UNIQUE INDEX ask_once ON ask (from_id, to_id, coalesce(collection_id, 0));
CREATE INDEX ask_to ON ask (to_id, at);

CREATE TABLE ask_answer (
  id INTEGER PRIMARY KEY,
  ask_id INTEGER NOT NULL REFERENCES ask (id),
  at INTEGER NOT NULL,
  answer TEXT NOT NULL CHECK (answer IN ('given', 'refused')),
  by_id INTEGER NOT NULL REFERENCES person (id),
  for_id INTEGER NOT NULL REFERENCES person (id),
  grant_id INTEGER REFERENCES access_grant (id),
  note TEXT NOT NULL DEFAULT '',
  -- A no that the asker only sees as closed.
  quiet INTEGER NOT NULL DEFAULT 0 CHECK (quiet IN (0, 1))
) STRICT;
CREATE INDEX ask_answer_ask ON ask_answer (ask_id);

-- A no goes to somebody outside as a letter too.
CREATE TABLE outbox_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'ending', 'wayIn', 'wayInMade', 'passwordMade', 'reminder', 'refused')),
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
