-- What shares of somebody's time are wished for: of kinds, of categories, of meetings with people from outside.
CREATE TABLE time_share (
  person_id INTEGER PRIMARY KEY REFERENCES person (id),
  shares TEXT NOT NULL,
  version INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL
) STRICT;
