-- How much was found more open than it should be on a calendar, when that was last looked at, when its owner was last told of it, and when they
-- read that.
CREATE TABLE finding_count (
  collection_id INTEGER PRIMARY KEY REFERENCES collection (id),
  found INTEGER NOT NULL,
  at INTEGER NOT NULL,
  told_at INTEGER NOT NULL,
  read_at INTEGER
) STRICT;
