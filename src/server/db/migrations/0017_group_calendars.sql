-- The group a calendar was made for: whoever is in it has it among their lanes.
ALTER TABLE calendar ADD COLUMN group_id INTEGER REFERENCES party_group (id);
CREATE INDEX calendar_group ON calendar (group_id) WHERE group_id IS NOT NULL;
