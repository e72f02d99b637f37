-- What stays where it is: making room never moves it. For those who arrange, and said to nobody else.
ALTER TABLE item ADD COLUMN fixed INTEGER NOT NULL DEFAULT 0 CHECK (fixed IN (0, 1));
