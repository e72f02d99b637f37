-- What a program had of a collection when it last asked what changed there (RFC 6578): the names of its things and their tags, compressed,
-- by the token it was given. Few are kept of each; a program whose token is gone asks for all of it anew.
CREATE TABLE program_sync (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person (id),
  collection_id INTEGER NOT NULL REFERENCES collection (id),
  token TEXT NOT NULL,
  state BLOB NOT NULL,
  UNIQUE (person_id, collection_id, token)
) STRICT;
