-- Who was told of a grant, and what with; who used one last. Both are facts beside the grant, which itself never changes.
CREATE TABLE notice (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken')),
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER NOT NULL REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  read_at INTEGER
) STRICT;
CREATE INDEX notice_person ON notice (person_id, at);
CREATE INDEX notice_grant ON notice (grant_id) WHERE grant_id IS NOT NULL;

CREATE TABLE grant_use (
  grant_id INTEGER NOT NULL REFERENCES access_grant (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  last_used INTEGER NOT NULL,
  PRIMARY KEY (grant_id, person_id)
) STRICT, WITHOUT ROWID;
