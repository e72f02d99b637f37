-- Held times offered to somebody without an account, behind a secret address: of the secret only its key is kept.
CREATE TABLE offer (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  hold_set INTEGER NOT NULL UNIQUE REFERENCES hold_set (id),
  words TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person (id),
  made_at INTEGER NOT NULL,
  withdrawn_at INTEGER
) STRICT;
