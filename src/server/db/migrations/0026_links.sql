-- How a link shows what it shows: how many days ahead, in which language and zone (where none is set: as whoever reads it does), and on
-- which website its page may stand in a frame.
ALTER TABLE link ADD COLUMN ahead INTEGER NOT NULL DEFAULT 366 CHECK (ahead BETWEEN 1 AND 366);
ALTER TABLE link ADD COLUMN language TEXT;
ALTER TABLE link ADD COLUMN zone TEXT;
ALTER TABLE link ADD COLUMN framed_by TEXT;
