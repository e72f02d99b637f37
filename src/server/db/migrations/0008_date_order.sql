-- In which order a person reads and writes the parts of a date.
ALTER TABLE person ADD COLUMN date_order TEXT NOT NULL DEFAULT 'dmy' CHECK (date_order IN ('dmy', 'mdy', 'ymd'));
