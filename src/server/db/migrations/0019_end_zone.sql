-- On whose clock an item ends, where that isn't the one it begins on: a journey.
ALTER TABLE item ADD COLUMN end_zone TEXT;
