-- The number a person is called at, as it is written; everybody in the directory sees it there.
ALTER TABLE person ADD COLUMN phone TEXT NOT NULL DEFAULT '';
