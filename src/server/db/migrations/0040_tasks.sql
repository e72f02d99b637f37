-- Lists of tasks and of what else is kept in lists: collections of their own. Everybody inside has one to begin with.
CREATE TABLE shared_list (
  id INTEGER PRIMARY KEY REFERENCES collection (id),
  -- The one its owner began with.
  first INTEGER NOT NULL DEFAULT 0 CHECK (first IN (0, 1)),
  removed_at INTEGER
) STRICT;
INSERT INTO collection (key, kind, owner_id, name, main)
SELECT lower(hex(randomblob(16))), 'tasks', id, 'Tasks', 0 FROM person WHERE inside = 1 AND resource IS NULL;
INSERT INTO shared_list (id, first) SELECT id, 1 FROM collection WHERE kind = 'tasks';

CREATE TABLE task (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  list_id INTEGER NOT NULL REFERENCES shared_list (id),
  uid TEXT NOT NULL,
  title TEXT NOT NULL,
  -- When it is due: a day (its start as if UTC), or an instant; `zone` is the clock of its repeat and of its day.
  due_date INTEGER,
  due_at INTEGER,
  zone TEXT NOT NULL,
  -- By which open ones are ordered: without a time they are last.
  due_order INTEGER NOT NULL,
  done_at INTEGER,
  rule TEXT,
  -- The item it belongs to, of a series at which of its happenings, how, and how many days before or after it is due.
  item_id INTEGER REFERENCES item (id),
  recurrence TEXT,
  tie TEXT CHECK (tie IN ('prepare', 'bring', 'followUp')),
  tie_days INTEGER NOT NULL DEFAULT 0,
  -- The item that is the time set aside for it.
  time_item_id INTEGER REFERENCES item (id),
  -- Whom it was given to, and what they said; and of what was given, which task it is of.
  given_to INTEGER REFERENCES person (id),
  given_state TEXT CHECK (given_state IN ('asked', 'yes', 'no')),
  given_note TEXT,
  copy_of INTEGER REFERENCES task (id),
  notes TEXT,
  link TEXT,
  categories TEXT NOT NULL DEFAULT '[]',
  importance TEXT NOT NULL,
  visibility TEXT NOT NULL,
  version INTEGER NOT NULL,
  created_by INTEGER NOT NULL REFERENCES person (id),
  created_for INTEGER NOT NULL REFERENCES person (id),
  created_at INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_for INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL,
  removed_at INTEGER,
  -- What a file said of it beside all this.
  kept TEXT NOT NULL DEFAULT '[]',
  CHECK (due_date IS NULL OR due_at IS NULL),
  CHECK ((tie IS NULL) = (item_id IS NULL))
) STRICT;
CREATE INDEX task_open ON task (list_id, due_order, id) WHERE done_at IS NULL AND removed_at IS NULL;
CREATE INDEX task_done ON task (list_id, done_at, id) WHERE done_at IS NOT NULL AND removed_at IS NULL;
CREATE UNIQUE INDEX task_uid ON task (list_id, uid) WHERE removed_at IS NULL;
CREATE INDEX task_item ON task (item_id) WHERE item_id IS NOT NULL AND removed_at IS NULL;
CREATE INDEX task_time ON task (time_item_id) WHERE time_item_id IS NOT NULL AND removed_at IS NULL;
CREATE INDEX task_copy ON task (copy_of) WHERE copy_of IS NOT NULL AND removed_at IS NULL;
CREATE INDEX task_given ON task (given_to) WHERE given_state = 'asked' AND removed_at IS NULL;
CREATE INDEX collection_kind ON collection (owner_id, kind);

-- The words of tasks, for finding them. What of it somebody may be shown is decided afterwards, task by task, and matched again then.
CREATE VIRTUAL TABLE task_text USING fts5 (
  list, title, notes, link, categories,
  content = '', contentless_delete = 1, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'
);
CREATE TRIGGER task_text_new AFTER INSERT ON task WHEN new.removed_at IS NULL BEGIN
  INSERT INTO task_text (rowid, list, title, notes, link, categories) VALUES (
    new.id, 'l' || new.list_id, new.title, new.notes, new.link, (SELECT group_concat(value, ' ') FROM json_each(new.categories)));
END;
CREATE TRIGGER task_text_gone AFTER DELETE ON task WHEN old.removed_at IS NULL BEGIN
  DELETE FROM task_text WHERE rowid = old.id;
END;
CREATE TRIGGER task_text_changed AFTER UPDATE OF list_id, title, notes, link, categories, removed_at ON task
WHEN old.list_id IS NOT new.list_id OR old.title IS NOT new.title OR old.notes IS NOT new.notes OR old.link IS NOT new.link
  OR old.categories IS NOT new.categories OR old.removed_at IS NOT new.removed_at
BEGIN
  DELETE FROM task_text WHERE rowid = old.id;
  INSERT INTO task_text (rowid, list, title, notes, link, categories)
  SELECT new.id, 'l' || new.list_id, new.title, new.notes, new.link, (SELECT group_concat(value, ' ') FROM json_each(new.categories))
  WHERE new.removed_at IS NULL;
END;
