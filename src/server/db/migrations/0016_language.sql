-- In which language somebody reads.
ALTER TABLE person ADD COLUMN language TEXT NOT NULL DEFAULT 'en' CHECK (language IN ('en', 'pt'));
