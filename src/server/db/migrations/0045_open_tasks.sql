-- How many tasks of a list are open is told with every page of it: counted without reading the tasks.
CREATE INDEX task_open_count ON task (list_id, removed_at, done_at, visibility, created_by);
