-- How long it takes between two places, either way: kept by an administrator. `a` stands before `b`, in small letters.
CREATE TABLE journey (
  a TEXT NOT NULL,
  b TEXT NOT NULL,
  a_name TEXT NOT NULL,
  b_name TEXT NOT NULL,
  minutes INTEGER NOT NULL,
  PRIMARY KEY (a, b)
) STRICT;
