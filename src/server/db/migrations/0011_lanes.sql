-- Calendars that somebody keeps on their boards: with their own name and colour for each, in their own order, whatever they may see of it.
CREATE TABLE kept_lane (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  calendar_id INTEGER NOT NULL REFERENCES collection (id),
  name TEXT,
  colour INTEGER,
  place INTEGER NOT NULL,
  shown INTEGER NOT NULL CHECK (shown IN (0, 1)),
  -- Taken out of the list, where it would stand there by itself.
  removed INTEGER NOT NULL DEFAULT 0 CHECK (removed IN (0, 1)),
  -- Under which heading it stood when its keeper last looked.
  heading TEXT NOT NULL CHECK (heading IN ('run', 'look'))
) STRICT;
CREATE UNIQUE INDEX kept_lane_of ON kept_lane (person_id, calendar_id);

-- When somebody works, by weekday from Monday, as JSON; none where they don't say. A second zone beside their own.
ALTER TABLE person ADD COLUMN work_hours TEXT;
ALTER TABLE person ADD COLUMN second_zone TEXT;
