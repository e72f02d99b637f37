-- The end of a repeat stands on the wall clock of its item, and is written so: read as UTC, as its Z said, it moved by the zone's offset.
-- No other part of a rule holds a Z.
UPDATE item SET rule = replace(rule, 'Z', '') WHERE rule LIKE '%UNTIL=%Z%';
UPDATE task SET rule = replace(rule, 'Z', '') WHERE rule LIKE '%UNTIL=%Z%';
