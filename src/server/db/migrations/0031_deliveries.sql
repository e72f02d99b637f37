-- What was said of a meeting and is on its way into the calendar of somebody inside, each in a transaction of its own.
CREATE TABLE delivery (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person (id),
  actor_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  -- When it is tried next; nothing where it failed for good.
  due INTEGER,
  tries INTEGER NOT NULL DEFAULT 0,
  what TEXT NOT NULL
) STRICT;
CREATE INDEX delivery_due ON delivery (due, id);

-- How many invitations somebody had of late, of one sender and in all.
CREATE INDEX message_sender ON message (collection_id, from_address, at);
CREATE INDEX message_at ON message (collection_id, at);

-- An organiser without a name is found by their address.
DROP TRIGGER item_text_new;
DROP TRIGGER item_text_changed;
CREATE TRIGGER item_text_new AFTER INSERT ON item WHEN new.removed_at IS NULL BEGIN
  INSERT INTO item_text (rowid, cal, title, place, notes, people, categories, link, briefing) VALUES (
    new.id, 'c' || new.calendar_id, new.title, new.place, new.notes,
    coalesce(json_extract(new.organiser, '$.name') || ' ', '') || coalesce(json_extract(new.organiser, '$.address') || ' ', '') ||
      coalesce((SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ')
        FROM json_each(new.attendees)), ''),
    (SELECT group_concat(value, ' ') FROM json_each(new.categories)), new.link, new.briefing);
END;
CREATE TRIGGER item_text_changed AFTER UPDATE OF calendar_id, title, place, notes, organiser, attendees, categories, link, briefing, removed_at ON item
WHEN old.calendar_id IS NOT new.calendar_id OR old.title IS NOT new.title OR old.place IS NOT new.place OR old.notes IS NOT new.notes
  OR old.organiser IS NOT new.organiser OR old.attendees IS NOT new.attendees OR old.categories IS NOT new.categories
  OR old.link IS NOT new.link OR old.briefing IS NOT new.briefing OR old.removed_at IS NOT new.removed_at
BEGIN
  DELETE FROM item_text WHERE rowid = old.id;
  INSERT INTO item_text (rowid, cal, title, place, notes, people, categories, link, briefing)
  SELECT new.id, 'c' || new.calendar_id, new.title, new.place, new.notes,
    coalesce(json_extract(new.organiser, '$.name') || ' ', '') || coalesce(json_extract(new.organiser, '$.address') || ' ', '') ||
      coalesce((SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ')
        FROM json_each(new.attendees)), ''),
    (SELECT group_concat(value, ' ') FROM json_each(new.categories)), new.link, new.briefing
  WHERE new.removed_at IS NULL;
END;
DELETE FROM item_text WHERE rowid IN
  (SELECT id FROM item WHERE removed_at IS NULL AND organiser IS NOT NULL AND json_extract(organiser, '$.name') IS NULL);
INSERT INTO item_text (rowid, cal, title, place, notes, people, categories, link, briefing)
SELECT i.id, 'c' || i.calendar_id, i.title, i.place, i.notes,
  coalesce(json_extract(i.organiser, '$.address') || ' ', '') ||
    coalesce((SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ')
      FROM json_each(i.attendees)), ''),
  (SELECT group_concat(value, ' ') FROM json_each(i.categories)), i.link, i.briefing
FROM item i WHERE i.removed_at IS NULL AND i.organiser IS NOT NULL AND json_extract(i.organiser, '$.name') IS NULL;

-- Which meeting a mail is about that answers one: what it answers says so, and it is as private as that.
UPDATE message SET meeting_id = (
  SELECT m.meeting_id FROM message m WHERE m.thread = message.thread AND m.meeting_id IS NOT NULL
    AND m.collection_id IN (SELECT c.id FROM collection c JOIN collection o ON o.owner_id = c.owner_id WHERE o.id = message.collection_id AND c.kind = 'folder')
  ORDER BY m.id DESC LIMIT 1)
WHERE kind = 'mail' AND meeting_id IS NULL AND thread LIKE 'meeting %';
UPDATE message SET facts = json_set(facts, '$.private', json('true'))
WHERE thread LIKE 'meeting %' AND json_extract(facts, '$.private') IS NULL AND EXISTS (
  SELECT 1 FROM message m WHERE m.thread = message.thread AND json_extract(m.facts, '$.private') = 1
    AND m.collection_id IN (SELECT c.id FROM collection c JOIN collection o ON o.owner_id = c.owner_id WHERE o.id = message.collection_id AND c.kind = 'folder'));

-- A private meeting is as private with those it asks: their copies, what they hold of it, and the invitations they got.
UPDATE meeting SET state = json_set(json_remove(state, '$.on.private'), '$.on.classification', 'private')
WHERE part = 'attendee' AND json_extract(state, '$.on.private') IS NOT NULL;
CREATE INDEX meeting_by_uid ON meeting (uid);
CREATE TEMP TABLE private_copy AS
SELECT m.id AS meeting_id, m.item_id, oi.visibility FROM meeting o JOIN item oi ON oi.id = o.item_id
JOIN meeting m ON m.uid = o.uid AND m.part = 'attendee' AND (m.recurrence IS o.recurrence OR (o.recurrence IS NULL AND NOT EXISTS
  (SELECT 1 FROM meeting own WHERE own.calendar_id = o.calendar_id AND own.uid = o.uid AND own.recurrence IS m.recurrence)))
WHERE o.part = 'organiser' AND oi.visibility IN ('private', 'outline');
UPDATE meeting SET state = json_set(state, '$.on.classification',
  (SELECT CASE c.visibility WHEN 'private' THEN 'private' ELSE 'confidential' END FROM private_copy c WHERE c.meeting_id = meeting.id))
WHERE id IN (SELECT meeting_id FROM private_copy) AND json_extract(state, '$.on') IS NOT NULL;
UPDATE item SET visibility = (SELECT c.visibility FROM private_copy c WHERE c.item_id = item.id ORDER BY c.visibility DESC LIMIT 1)
WHERE visibility <> 'private' AND id IN (SELECT item_id FROM private_copy WHERE visibility = 'private');
UPDATE item SET visibility = 'outline'
WHERE visibility IN ('follow', 'open') AND id IN (SELECT item_id FROM private_copy WHERE visibility = 'outline');
-- Occurrences that stand by themselves of a copy that is private now.
UPDATE item SET visibility = 'private'
WHERE visibility <> 'private' AND series_id IN (SELECT item_id FROM private_copy WHERE visibility = 'private');
UPDATE message SET facts = json_set(facts, '$.private', json('true'))
WHERE json_extract(facts, '$.private') IS NULL AND meeting_id IN (SELECT meeting_id FROM private_copy);
DROP TABLE private_copy;
DROP INDEX meeting_by_uid;

-- What is told of one's calendars: that one was made for one, too.
CREATE TABLE notice_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'joined', 'begun', 'wayInMade', 'passwordMade')),
  collection_id INTEGER REFERENCES collection (id),
  owner_id INTEGER REFERENCES person (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER NOT NULL REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  read_at INTEGER,
  CHECK ((collection_id IS NULL) = (owner_id IS NULL))
) STRICT;
INSERT INTO notice_again SELECT id, key, person_id, at, kind, collection_id, owner_id, grant_id, by_id, note, read_at FROM notice;
DROP TABLE notice;
ALTER TABLE notice_again RENAME TO notice;
CREATE INDEX notice_person ON notice (person_id, at);
CREATE INDEX notice_grant ON notice (grant_id) WHERE grant_id IS NOT NULL;

-- What somebody keeps of a further calendar that they made for its owner hangs on what they hold of the main one.
UPDATE access_grant SET hangs = 1 WHERE audience = 'person' AND person_id = given_by AND given_by <> given_for AND recorded_until IS NULL
  AND collection_id IN (SELECT c.id FROM collection c WHERE c.kind = 'calendar' AND c.main = 0 AND c.owner_id = access_grant.given_for);

-- What is said of a meeting in the place of its own title, place and notes, as long as those stay what they were.
ALTER TABLE meeting ADD COLUMN cover TEXT;

-- What was written by each token, for whoever made it.
CREATE TABLE token_act (
  id INTEGER PRIMARY KEY,
  token_id INTEGER NOT NULL REFERENCES token (id),
  at INTEGER NOT NULL,
  act TEXT NOT NULL,
  collection_id INTEGER REFERENCES collection (id)
) STRICT;
CREATE INDEX token_act_token ON token_act (token_id, id);
