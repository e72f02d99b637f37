-- The words of items, for finding them. What of it somebody may be shown is decided afterwards, item by item, and matched again then.
CREATE VIRTUAL TABLE item_text USING fts5 (
  cal, title, place, notes, people, categories, link, briefing,
  content = '', contentless_delete = 1, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'
);

CREATE TRIGGER item_text_new AFTER INSERT ON item WHEN new.removed_at IS NULL BEGIN
  INSERT INTO item_text (rowid, cal, title, place, notes, people, categories, link, briefing) VALUES (
    new.id, 'c' || new.calendar_id, new.title, new.place, new.notes,
    coalesce(json_extract(new.organiser, '$.name') || ' ' || json_extract(new.organiser, '$.address') || ' ', '') ||
      coalesce((SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ')
        FROM json_each(new.attendees)), ''),
    (SELECT group_concat(value, ' ') FROM json_each(new.categories)), new.link, new.briefing);
END;
CREATE TRIGGER item_text_gone AFTER DELETE ON item WHEN old.removed_at IS NULL BEGIN
  DELETE FROM item_text WHERE rowid = old.id;
END;
CREATE TRIGGER item_text_changed AFTER UPDATE OF calendar_id, title, place, notes, organiser, attendees, categories, link, briefing, removed_at ON item
WHEN old.calendar_id IS NOT new.calendar_id OR old.title IS NOT new.title OR old.place IS NOT new.place OR old.notes IS NOT new.notes
  OR old.organiser IS NOT new.organiser OR old.attendees IS NOT new.attendees OR old.categories IS NOT new.categories
  OR old.link IS NOT new.link OR old.briefing IS NOT new.briefing OR old.removed_at IS NOT new.removed_at
BEGIN
  DELETE FROM item_text WHERE rowid = old.id;
  INSERT INTO item_text (rowid, cal, title, place, notes, people, categories, link, briefing)
  SELECT new.id, 'c' || new.calendar_id, new.title, new.place, new.notes,
    coalesce(json_extract(new.organiser, '$.name') || ' ' || json_extract(new.organiser, '$.address') || ' ', '') ||
      coalesce((SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ')
        FROM json_each(new.attendees)), ''),
    (SELECT group_concat(value, ' ') FROM json_each(new.categories)), new.link, new.briefing
  WHERE new.removed_at IS NULL;
END;

INSERT INTO item_text (rowid, cal, title, place, notes, people, categories, link, briefing)
SELECT i.id, 'c' || i.calendar_id, i.title, i.place, i.notes,
  coalesce(json_extract(i.organiser, '$.name') || ' ' || json_extract(i.organiser, '$.address') || ' ', '') ||
    coalesce((SELECT group_concat(coalesce(json_extract(value, '$.name'), '') || ' ' || json_extract(value, '$.address'), ' ')
      FROM json_each(i.attendees)), ''),
  (SELECT group_concat(value, ' ') FROM json_each(i.categories)), i.link, i.briefing
FROM item i WHERE i.removed_at IS NULL;
