-- Whether a contact's card holds a picture: lists say so without reading cards.
ALTER TABLE contact ADD COLUMN picture INTEGER NOT NULL DEFAULT 0 CHECK (picture IN (0, 1));
UPDATE contact SET picture = 1 WHERE EXISTS (
  SELECT 1 FROM json_each(kept)
  WHERE (upper(substr(value ->> 'line', 1, instr(value ->> 'line', ':'))) GLOB 'PHOTO[;:]*'
      OR upper(substr(value ->> 'line', 1, instr(value ->> 'line', ':'))) GLOB '*.PHOTO[;:]*')
    AND (value ->> 'line' LIKE '%base64,%' OR upper(value ->> 'line') LIKE '%ENCODING=%')
);
