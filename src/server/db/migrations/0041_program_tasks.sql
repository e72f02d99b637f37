-- What somebody's programs call the tasks they added to a list: as with items, theirs alone.
CREATE TABLE program_task (
  person_id INTEGER NOT NULL REFERENCES person (id),
  list_id INTEGER NOT NULL REFERENCES shared_list (id),
  name TEXT NOT NULL,
  task_id INTEGER NOT NULL REFERENCES task (id) ON DELETE CASCADE,
  PRIMARY KEY (person_id, list_id, name)
) STRICT, WITHOUT ROWID;
CREATE INDEX program_task_task ON program_task (task_id, person_id);
