-- Files at items. Their bytes stand in the data folder under their digest, once for however many items have them.
CREATE TABLE attachment (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  item_id INTEGER NOT NULL REFERENCES item (id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  bytes INTEGER NOT NULL,
  digest TEXT NOT NULL,
  added_by INTEGER NOT NULL REFERENCES person (id),
  added_at INTEGER NOT NULL,
  removed_at INTEGER
) STRICT;
CREATE INDEX attachment_item ON attachment (item_id);
CREATE INDEX attachment_digest ON attachment (digest);
CREATE INDEX attachment_by ON attachment (added_by, added_at);
