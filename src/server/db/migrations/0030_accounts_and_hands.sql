-- Two accounts of one person, tied by proof of both: the lower number first.
CREATE TABLE same_person (
  a_id INTEGER NOT NULL REFERENCES person (id),
  b_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  PRIMARY KEY (a_id, b_id),
  CHECK (a_id < b_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX same_person_b ON same_person (b_id);
-- A code made in one account and given in the other, by its digest alone: one of each person at a time.
CREATE TABLE account_code (
  person_id INTEGER PRIMARY KEY REFERENCES person (id),
  digest TEXT NOT NULL,
  ends INTEGER NOT NULL
) STRICT;
CREATE INDEX account_code_digest ON account_code (digest);
-- Who said they were behind a role account, in which window's session; and, with every act, who was.
CREATE TABLE hands (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person (id),
  session TEXT NOT NULL,
  name TEXT NOT NULL,
  at INTEGER NOT NULL
) STRICT;
CREATE INDEX hands_person ON hands (person_id, id);
ALTER TABLE trail ADD COLUMN hands TEXT;
