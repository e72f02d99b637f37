-- Times held for one meeting make a set: of it one is fixed and the others are freed. A hold lapses by itself.
CREATE TABLE hold_set (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  letter TEXT NOT NULL,
  people TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person (id),
  made_at INTEGER NOT NULL
) STRICT;
ALTER TABLE item ADD COLUMN hold_set INTEGER REFERENCES hold_set (id);
ALTER TABLE item ADD COLUMN lapses_at INTEGER;
CREATE INDEX item_hold_set ON item (hold_set) WHERE hold_set IS NOT NULL;
CREATE INDEX item_lapses ON item (lapses_at) WHERE lapses_at IS NOT NULL AND removed_at IS NULL AND kind = 'hold';
