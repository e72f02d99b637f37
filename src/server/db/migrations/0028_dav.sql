-- What a calendar program of a person's called the items it added: its own names stay theirs, and nobody else's programs see them.
CREATE TABLE program_name (
  person_id INTEGER NOT NULL REFERENCES person (id),
  collection_id INTEGER NOT NULL REFERENCES collection (id),
  name TEXT NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item (id),
  PRIMARY KEY (person_id, collection_id, name)
) STRICT, WITHOUT ROWID;
CREATE INDEX program_name_item ON program_name (item_id, person_id);
-- Invitations that a program took out of its inbox: they stay in the calendar, unanswered.
CREATE TABLE inbox_cleared (
  person_id INTEGER NOT NULL REFERENCES person (id),
  item_id INTEGER NOT NULL REFERENCES item (id),
  version INTEGER NOT NULL,
  PRIMARY KEY (person_id, item_id)
) STRICT, WITHOUT ROWID;
