-- What programs of a person's come in by: the secret stands here as its digest alone. A token may be limited to reading, to one calendar, and to
-- an end.
CREATE TABLE token (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  name TEXT NOT NULL,
  digest TEXT NOT NULL,
  reads INTEGER NOT NULL CHECK (reads IN (0, 1)),
  collection_id INTEGER REFERENCES collection (id),
  ends INTEGER,
  made_at INTEGER NOT NULL,
  last_used INTEGER,
  withdrawn_at INTEGER
) STRICT;
CREATE INDEX token_person ON token (person_id);
