-- What a calendar is for, and when its owner took it away: from then on it is as if it weren't there, until it is brought back.
ALTER TABLE calendar ADD COLUMN description TEXT NOT NULL DEFAULT '';
ALTER TABLE calendar ADD COLUMN removed_at INTEGER;
