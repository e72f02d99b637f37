-- Address books: lists of contacts. Everybody inside has one to begin with.
INSERT INTO collection (key, kind, owner_id, name, main)
SELECT lower(hex(randomblob(16))), 'contacts', id, 'Contacts', 0 FROM person WHERE inside = 1 AND resource IS NULL;
INSERT INTO shared_list (id, first) SELECT id, 1 FROM collection WHERE kind = 'contacts';

CREATE TABLE contact (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  list_id INTEGER NOT NULL REFERENCES shared_list (id),
  uid TEXT NOT NULL,
  name TEXT NOT NULL,
  -- By which they are in order: the name without marks, in small letters.
  name_order TEXT NOT NULL,
  role TEXT,
  organisation TEXT,
  place TEXT,
  -- Ways to reach them, each with where that is.
  addresses TEXT NOT NULL DEFAULT '[]',
  phones TEXT NOT NULL DEFAULT '[]',
  link TEXT,
  notes TEXT,
  categories TEXT NOT NULL DEFAULT '[]',
  visibility TEXT NOT NULL,
  -- Lines of the card it was read from, and the version they are of.
  card_version TEXT NOT NULL,
  kept TEXT NOT NULL DEFAULT '[]',
  -- It was changed since it was read.
  touched INTEGER NOT NULL CHECK (touched IN (0, 1)),
  version INTEGER NOT NULL,
  created_by INTEGER NOT NULL REFERENCES person (id),
  created_for INTEGER NOT NULL REFERENCES person (id),
  created_at INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_for INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL,
  removed_at INTEGER
) STRICT;
CREATE INDEX contact_order ON contact (list_id, name_order, id) WHERE removed_at IS NULL;
CREATE UNIQUE INDEX contact_uid ON contact (list_id, uid) WHERE removed_at IS NULL;

-- Their mail addresses, for knowing who somebody is.
CREATE TABLE contact_address (
  address TEXT NOT NULL,
  contact_id INTEGER NOT NULL REFERENCES contact (id) ON DELETE CASCADE,
  PRIMARY KEY (address, contact_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX contact_address_contact ON contact_address (contact_id);
CREATE TRIGGER contact_address_new AFTER INSERT ON contact WHEN new.removed_at IS NULL BEGIN
  INSERT OR IGNORE INTO contact_address (address, contact_id)
  SELECT lower(trim(json_extract(value, '$.value'))), new.id FROM json_each(new.addresses);
END;
CREATE TRIGGER contact_address_changed AFTER UPDATE OF addresses, removed_at ON contact
WHEN old.addresses IS NOT new.addresses OR old.removed_at IS NOT new.removed_at
BEGIN
  DELETE FROM contact_address WHERE contact_id = old.id;
  INSERT OR IGNORE INTO contact_address (address, contact_id)
  SELECT lower(trim(json_extract(value, '$.value'))), new.id FROM json_each(new.addresses) WHERE new.removed_at IS NULL;
END;

-- Their words, for finding them. What of it somebody may be shown is decided afterwards, contact by contact, and matched again then.
CREATE VIRTUAL TABLE contact_text USING fts5 (
  list, name, role, organisation, place, addresses, phones, link, notes, categories,
  content = '', contentless_delete = 1, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'
);
CREATE TRIGGER contact_text_new AFTER INSERT ON contact WHEN new.removed_at IS NULL BEGIN
  INSERT INTO contact_text (rowid, list, name, role, organisation, place, addresses, phones, link, notes, categories) VALUES (
    new.id, 'l' || new.list_id, new.name, new.role, new.organisation, new.place,
    (SELECT group_concat(json_extract(value, '$.value'), ' ') FROM json_each(new.addresses)),
    (SELECT group_concat(json_extract(value, '$.value'), ' ') FROM json_each(new.phones)),
    new.link, new.notes, (SELECT group_concat(value, ' ') FROM json_each(new.categories)));
END;
CREATE TRIGGER contact_text_gone AFTER DELETE ON contact WHEN old.removed_at IS NULL BEGIN
  DELETE FROM contact_text WHERE rowid = old.id;
END;
CREATE TRIGGER contact_text_changed AFTER UPDATE ON contact BEGIN
  DELETE FROM contact_text WHERE rowid = old.id;
  INSERT INTO contact_text (rowid, list, name, role, organisation, place, addresses, phones, link, notes, categories)
  SELECT new.id, 'l' || new.list_id, new.name, new.role, new.organisation, new.place,
    (SELECT group_concat(json_extract(value, '$.value'), ' ') FROM json_each(new.addresses)),
    (SELECT group_concat(json_extract(value, '$.value'), ' ') FROM json_each(new.phones)),
    new.link, new.notes, (SELECT group_concat(value, ' ') FROM json_each(new.categories))
  WHERE new.removed_at IS NULL;
END;

-- What somebody's programs call the contacts they added to a book: theirs alone.
CREATE TABLE program_contact (
  person_id INTEGER NOT NULL REFERENCES person (id),
  list_id INTEGER NOT NULL REFERENCES shared_list (id),
  name TEXT NOT NULL,
  contact_id INTEGER NOT NULL REFERENCES contact (id) ON DELETE CASCADE,
  PRIMARY KEY (person_id, list_id, name)
) STRICT, WITHOUT ROWID;
CREATE INDEX program_contact_contact ON program_contact (contact_id, person_id);
