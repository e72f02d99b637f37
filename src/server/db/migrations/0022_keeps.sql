-- What a person wishes of their days as a rule: lunch, a late start, no more than so many hours. Read when times are looked for.
CREATE TABLE keep_list (
  person_id INTEGER PRIMARY KEY REFERENCES person (id),
  keeps TEXT NOT NULL,
  version INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL
) STRICT;
