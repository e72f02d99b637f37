-- Changes put forward for somebody's calendar, each waiting for a yes of whoever may make it.
CREATE TABLE suggestion (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('add', 'change', 'remove')),
  -- What it is about: the item, the start of the happening meant where it is one of a series, and the version there was.
  item_id INTEGER REFERENCES item (id),
  happening INTEGER,
  version INTEGER,
  body TEXT NOT NULL,
  why TEXT NOT NULL DEFAULT '',
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'yes', 'no', 'withdrawn')),
  answered_by INTEGER REFERENCES person (id),
  answered_at INTEGER,
  answer_note TEXT NOT NULL DEFAULT '',
  -- The trail entry of the write a yes made: undoing that opens the suggestion again.
  undo_key TEXT,
  CHECK ((kind = 'add') = (item_id IS NULL))
) STRICT;
CREATE INDEX suggestion_open ON suggestion (calendar_id) WHERE state = 'open';
CREATE INDEX suggestion_person ON suggestion (person_id);
CREATE INDEX suggestion_undo ON suggestion (undo_key) WHERE undo_key IS NOT NULL;
