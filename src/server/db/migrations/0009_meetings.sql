-- A meeting as far as it was said to others, or heard of from them: beside the item of one calendar that stands for it. `state` is what
-- the rules of invitations hold of it; `wanted` whom its organiser would have there, where that isn't what was said last.
CREATE TABLE meeting (
  id INTEGER PRIMARY KEY,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  item_id INTEGER REFERENCES item (id),
  uid TEXT NOT NULL,
  recurrence TEXT,
  part TEXT NOT NULL CHECK (part IN ('organiser', 'attendee')),
  state TEXT,
  wanted TEXT,
  changed_at INTEGER NOT NULL,
  CHECK (state IS NOT NULL OR part = 'organiser')
) STRICT;
CREATE UNIQUE INDEX meeting_uid ON meeting (calendar_id, uid, coalesce(recurrence, ''));
CREATE INDEX meeting_item ON meeting (item_id) WHERE item_id IS NOT NULL;

-- What is to be said of a meeting: it waits some seconds in which it can be taken back, or for somebody who may say it.
CREATE TABLE sending (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  meeting_id INTEGER NOT NULL REFERENCES meeting (id),
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  act TEXT NOT NULL CHECK (act IN ('tell', 'off', 'nudge', 'declineCounter', 'answer', 'propose', 'refresh', 'handover')),
  body TEXT NOT NULL,
  actor_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  -- When it leaves; nothing where it waits for somebody who may speak.
  due INTEGER,
  state TEXT NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'gone', 'back')),
  -- The entry of the trail that taking it back undoes.
  undo_key TEXT
) STRICT;
CREATE INDEX sending_waiting ON sending (due) WHERE state = 'waiting';
CREATE INDEX sending_calendar ON sending (calendar_id) WHERE state = 'waiting';
CREATE INDEX sending_meeting ON sending (meeting_id);
CREATE INDEX sending_undo ON sending (undo_key) WHERE undo_key IS NOT NULL;

-- What arrived for somebody, was sent in their name or is being written: each has a copy in a folder of theirs.
CREATE TABLE message (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  collection_id INTEGER NOT NULL REFERENCES collection (id),
  at INTEGER NOT NULL,
  -- What belongs together: a meeting's, or what answers one mail.
  thread TEXT NOT NULL,
  kind TEXT NOT NULL,
  meeting_id INTEGER REFERENCES meeting (id),
  from_address TEXT NOT NULL,
  from_name TEXT,
  by_address TEXT,
  by_name TEXT,
  recipients TEXT NOT NULL DEFAULT '[]',
  subject TEXT NOT NULL DEFAULT '',
  body TEXT NOT NULL DEFAULT '',
  -- What of the mail it came with matters: when the meeting was said to be, the answer, files, marks.
  facts TEXT NOT NULL DEFAULT '{}',
  message_id TEXT,
  in_reply_to TEXT,
  refs TEXT NOT NULL DEFAULT '[]',
  actor_id INTEGER REFERENCES person (id)
) STRICT;
CREATE INDEX message_collection ON message (collection_id);
CREATE UNIQUE INDEX collection_folder ON collection (owner_id, name) WHERE kind = 'folder';
CREATE INDEX message_thread ON message (collection_id, thread);
CREATE INDEX message_meeting ON message (meeting_id) WHERE meeting_id IS NOT NULL;

-- Who has read what: each for themselves.
CREATE TABLE message_read (
  person_id INTEGER NOT NULL REFERENCES person (id),
  message_id INTEGER NOT NULL REFERENCES message (id),
  PRIMARY KEY (person_id, message_id)
) STRICT, WITHOUT ROWID;

-- Mail to people outside: written in the transaction of what it tells of, sent afterwards, each once.
CREATE TABLE outgoing_mail (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  collection_id INTEGER REFERENCES collection (id),
  meeting_id INTEGER REFERENCES meeting (id),
  message_id TEXT NOT NULL UNIQUE,
  to_address TEXT NOT NULL,
  mail TEXT NOT NULL,
  tries INTEGER NOT NULL DEFAULT 0,
  next_try INTEGER NOT NULL,
  sent_at INTEGER,
  given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up IN (0, 1))
) STRICT;
CREATE INDEX outgoing_mail_waiting ON outgoing_mail (next_try) WHERE sent_at IS NULL AND given_up = 0;
CREATE INDEX outgoing_mail_meeting ON outgoing_mail (meeting_id) WHERE meeting_id IS NOT NULL;

-- What came in from outside, by what tells one from another: the same twice is one. `for_nobody`: nobody it was for is here.
CREATE TABLE inbound (
  id INTEGER PRIMARY KEY,
  fingerprint TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  for_nobody INTEGER NOT NULL DEFAULT 0 CHECK (for_nobody IN (0, 1)),
  raw BLOB
) STRICT;

-- Rooms and things are in the directory: they have a size, and a calendar that answers for itself.
ALTER TABLE person ADD COLUMN resource TEXT CHECK (resource IN ('room', 'thing'));
ALTER TABLE person ADD COLUMN size INTEGER;

-- Whether the owner is told of meeting messages themselves; those with copies are told by that.
ALTER TABLE calendar ADD COLUMN owner_told INTEGER NOT NULL DEFAULT 1 CHECK (owner_told IN (0, 1));

-- Whether a meeting that leaves the house is warned of, and whether a joining link is added by itself.
ALTER TABLE house_rules ADD COLUMN warn_outside INTEGER NOT NULL DEFAULT 1 CHECK (warn_outside IN (0, 1));
ALTER TABLE house_rules ADD COLUMN meeting_links INTEGER NOT NULL DEFAULT 0 CHECK (meeting_links IN (0, 1));

-- Invitations that wait for an answer.
CREATE INDEX item_unanswered ON item (calendar_id) WHERE owner_answer = 'needs-action' AND owner_invited = 1 AND removed_at IS NULL;

-- A suggestion can be an answer to an invitation.
CREATE TABLE suggestion_again (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  collection_id INTEGER NOT NULL REFERENCES collection (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('add', 'change', 'remove', 'answer')),
  item_id INTEGER REFERENCES item (id),
  happening INTEGER,
  version INTEGER,
  body TEXT NOT NULL,
  why TEXT NOT NULL DEFAULT '',
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'yes', 'no', 'withdrawn')),
  answered_by INTEGER REFERENCES person (id),
  answered_at INTEGER,
  answer_note TEXT NOT NULL DEFAULT '',
  undo_key TEXT,
  CHECK ((kind = 'add') = (item_id IS NULL))
) STRICT;
INSERT INTO suggestion_again SELECT id, key, collection_id, person_id, at, kind, item_id, happening, version, body, why, state,
  answered_by, answered_at, answer_note, undo_key FROM suggestion;
DROP TABLE suggestion;
ALTER TABLE suggestion_again RENAME TO suggestion;
CREATE INDEX suggestion_open ON suggestion (collection_id) WHERE state = 'open';
CREATE INDEX suggestion_person ON suggestion (person_id);
CREATE INDEX suggestion_undo ON suggestion (undo_key) WHERE undo_key IS NOT NULL;
