-- Each entry of the trail carries the SHA-256 of itself and of the one before. What it says stands under a digest of its own, with a salt, so
-- that it can be forgotten and the chain still be verified. Entries that stood before are chained in the same step (db/trail-digest.ts).
ALTER TABLE trail ADD COLUMN salt TEXT;
ALTER TABLE trail ADD COLUMN text_digest TEXT NOT NULL DEFAULT '';
ALTER TABLE trail ADD COLUMN digest TEXT NOT NULL DEFAULT '';
ALTER TABLE trail ADD COLUMN forgotten_at INTEGER;
CREATE INDEX trail_principal ON trail (principal_id, id);
CREATE INDEX trail_actor ON trail (actor_id, id);
CREATE INDEX trail_collection ON trail (collection_id, id);

-- How many entries there are, and the digest of the latest: an end that was cut off shows.
CREATE TABLE trail_head (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  entries INTEGER NOT NULL,
  digest TEXT NOT NULL
) STRICT;
INSERT INTO trail_head VALUES (1, 0, '');
