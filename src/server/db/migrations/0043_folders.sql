-- Folders of messages are shared like lists. Everybody inside begins with four, each with a part of its own (`role`); further ones stand inside
-- another, or beside those.
DROP INDEX collection_folder;
ALTER TABLE shared_list ADD COLUMN role TEXT CHECK (role IN ('arrived', 'sent', 'drafts', 'filed'));
ALTER TABLE shared_list ADD COLUMN parent_id INTEGER REFERENCES shared_list (id);
INSERT INTO collection (key, kind, owner_id, name, main)
SELECT lower(hex(randomblob(16))), 'folder', p.id, f.name, 0
FROM person p, (SELECT 'Arrived' AS name UNION ALL SELECT 'Sent' UNION ALL SELECT 'Drafts' UNION ALL SELECT 'Filed') f
WHERE p.inside = 1 AND p.resource IS NULL
  AND NOT EXISTS (SELECT 1 FROM collection c WHERE c.kind = 'folder' AND c.owner_id = p.id AND c.name = f.name);
INSERT INTO shared_list (id, first, role) SELECT id, 1, lower(name) FROM collection WHERE kind = 'folder';
CREATE INDEX shared_list_parent ON shared_list (parent_id) WHERE parent_id IS NOT NULL;

ALTER TABLE message ADD COLUMN flagged INTEGER NOT NULL DEFAULT 0 CHECK (flagged IN (0, 1));
ALTER TABLE message ADD COLUMN removed_at INTEGER;
ALTER TABLE message ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
-- Who sees what is private of a folder is decided by its query, as with every list.
ALTER TABLE message ADD COLUMN visibility TEXT GENERATED ALWAYS AS (
  CASE json_extract(facts, '$.private') WHEN 1 THEN 'private' ELSE 'follow' END) VIRTUAL;
ALTER TABLE message ADD COLUMN created_by INTEGER GENERATED ALWAYS AS (actor_id) VIRTUAL;
CREATE INDEX message_removed ON message (removed_at) WHERE removed_at IS NOT NULL;
CREATE INDEX message_mail ON message (collection_id, id) WHERE kind = 'mail' AND meeting_id IS NULL AND removed_at IS NULL;
CREATE INDEX message_id ON message (message_id) WHERE message_id IS NOT NULL;

-- Which messages have a file whose bytes stand in the data folder under a digest.
CREATE TABLE message_file (
  digest TEXT NOT NULL,
  message_id INTEGER NOT NULL REFERENCES message (id) ON DELETE CASCADE,
  bytes INTEGER NOT NULL,
  -- When it came, for what one person gets of them in a day.
  at INTEGER NOT NULL,
  PRIMARY KEY (digest, message_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX message_file_message ON message_file (message_id);
CREATE INDEX message_file_at ON message_file (at);

-- The words of plain mail, for finding it; what is said about meetings is found with them.
CREATE VIRTUAL TABLE message_text USING fts5 (
  list, sender, recipients, subject, body,
  content = '', contentless_delete = 1, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'
);
INSERT INTO message_text (rowid, list, sender, recipients, subject, body)
SELECT id, 'l' || collection_id, coalesce(from_name, '') || ' ' || from_address,
  (SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ') FROM json_each(recipients)),
  subject, body
FROM message WHERE kind = 'mail' AND meeting_id IS NULL;
CREATE TRIGGER message_text_new AFTER INSERT ON message WHEN new.kind = 'mail' AND new.meeting_id IS NULL BEGIN
  INSERT INTO message_text (rowid, list, sender, recipients, subject, body) VALUES (
    new.id, 'l' || new.collection_id, coalesce(new.from_name, '') || ' ' || new.from_address,
    (SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ') FROM json_each(new.recipients)),
    new.subject, new.body);
END;
CREATE TRIGGER message_text_gone AFTER DELETE ON message BEGIN
  DELETE FROM message_text WHERE rowid = old.id;
END;
CREATE TRIGGER message_text_changed AFTER UPDATE OF collection_id, recipients, subject, body, removed_at ON message BEGIN
  DELETE FROM message_text WHERE rowid = old.id;
  INSERT INTO message_text (rowid, list, sender, recipients, subject, body)
  SELECT new.id, 'l' || new.collection_id, coalesce(new.from_name, '') || ' ' || new.from_address,
    (SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ') FROM json_each(new.recipients)),
    new.subject, new.body
  WHERE new.kind = 'mail' AND new.meeting_id IS NULL AND new.removed_at IS NULL;
END;

-- Where what arrives is filed, in the order they are asked; the first that fits does it.
CREATE TABLE mail_rule (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person (id),
  position INTEGER NOT NULL,
  -- By whom, with which words, or what is about a meeting: at least one, all that are said must fit.
  sender TEXT,
  words TEXT,
  meeting INTEGER NOT NULL CHECK (meeting IN (0, 1)),
  folder_id INTEGER NOT NULL REFERENCES shared_list (id)
) STRICT;
CREATE INDEX mail_rule_person ON mail_rule (person_id, position);
