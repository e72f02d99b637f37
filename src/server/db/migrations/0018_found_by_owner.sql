-- A person's calendars, and what groups are given, are found without reading everybody's.
CREATE INDEX collection_owner ON collection (owner_id);
DROP INDEX collection_further;
CREATE INDEX grant_group ON access_grant (group_id) WHERE group_id IS NOT NULL;
