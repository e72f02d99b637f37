BEGIN TRANSACTION;
CREATE TABLE access_grant (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  audience TEXT NOT NULL CHECK (audience IN ('person', 'group', 'everyone', 'link')),
  person_id INTEGER REFERENCES person (id),
  group_id INTEGER REFERENCES party_group (id),
  link TEXT,
  sight TEXT NOT NULL CHECK (sight IN ('nothing', 'busy', 'title', 'outline', 'full')),
  may_add INTEGER NOT NULL CHECK (may_add IN (0, 1)),
  may_change TEXT NOT NULL CHECK (may_change IN ('none', 'own', 'all')),
  may_remove TEXT NOT NULL CHECK (may_remove IN ('none', 'own', 'all')),
  suggest INTEGER NOT NULL CHECK (suggest IN (0, 1)),
  private INTEGER NOT NULL CHECK (private IN (0, 1)),
  speaks INTEGER NOT NULL CHECK (speaks IN (0, 1)),
  copies INTEGER NOT NULL CHECK (copies IN (0, 1)),
  shares INTEGER NOT NULL CHECK (shares IN (0, 1)),
  starts INTEGER,
  ends INTEGER,
  given_by INTEGER NOT NULL REFERENCES person (id),
  given_for INTEGER NOT NULL REFERENCES person (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER, by_administrator INTEGER NOT NULL DEFAULT 0 CHECK (by_administrator IN (0, 1)), hangs INTEGER NOT NULL DEFAULT 0 CHECK (hangs IN (0, 1)),
  CHECK ((audience = 'person') = (person_id IS NOT NULL)),
  CHECK ((audience = 'group') = (group_id IS NOT NULL)),
  CHECK ((audience = 'link') = (link IS NOT NULL))
) STRICT;
INSERT INTO "access_grant" VALUES(1,'vw5KMMEAuJKxW0DTYuFoGg',1,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803977999000,NULL,0,0);
INSERT INTO "access_grant" VALUES(2,'LWo_nIFSVSFYsB9R5SSEhQ',2,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,2,2,1803977999000,NULL,0,0);
INSERT INTO "access_grant" VALUES(3,'IEBMPYyxgfvfgiEemby68A',3,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,3,3,1803977999000,NULL,0,0);
INSERT INTO "access_grant" VALUES(4,'k3fSm1nwZ2jmo-nDutx-vw',4,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,4,4,1803977999000,NULL,0,0);
INSERT INTO "access_grant" VALUES(5,'Srd5yuN1Q0cStUBjQPd4tg',5,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,5,5,1803977999000,NULL,0,0);
INSERT INTO "access_grant" VALUES(6,'yr8T5-Gi8aZcqMV-CPYw8w',6,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,6,6,1803977999000,NULL,0,0);
INSERT INTO "access_grant" VALUES(7,'CoXt9yBaRT7wSXB0wUY4qA',1,'person',2,NULL,NULL,'full',1,'all','all',0,0,1,0,1,NULL,NULL,1,1,1803978000000,NULL,0,0);
INSERT INTO "access_grant" VALUES(8,'sTdL0vJFLZby__Y6BUcQRg',1,'person',4,NULL,NULL,'title',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803978001000,1803978002000,0,0);
INSERT INTO "access_grant" VALUES(9,'EHfoK9BAI0Kmsd0GH4Js-g',1,'person',4,NULL,NULL,'outline',0,'none','none',1,0,0,0,0,NULL,NULL,1,1,1803978002000,NULL,0,0);
INSERT INTO "access_grant" VALUES(10,'Ra6fA6elLhQUA5dputtrGA',1,'group',NULL,1,NULL,'outline',0,'none','none',0,0,0,0,0,1804204800000,1805587200000,1,1,1803978001000,NULL,0,0);
INSERT INTO "access_grant" VALUES(11,'PYrpMr049BMyiDiNmVkaKg',1,'person',3,NULL,NULL,'busy',0,'none','none',1,0,0,0,0,NULL,NULL,1,1,1803978001000,NULL,0,0);
INSERT INTO "access_grant" VALUES(12,'124B3uTiOfG8RpVq3prxUQ',1,'person',7,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803978001000,NULL,0,0);
INSERT INTO "access_grant" VALUES(13,'hQoKoQ9mr6xw6OJL8OUUhw',1,'link',NULL,NULL,'4lSfUaKzQ7-UloOAA9eNFg','busy',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803978001000,NULL,0,0);
INSERT INTO "access_grant" VALUES(14,'lhiHc3IQOGaT3M9puqRyyQ',1,'person',6,NULL,NULL,'title',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803978001000,1803978003000,0,0);
INSERT INTO "access_grant" VALUES(15,'96Th9-71e7N83cancAz1tA',1,'person',5,NULL,NULL,'title',0,'none','none',0,0,0,0,0,NULL,NULL,2,1,1803978004000,NULL,0,0);
INSERT INTO "access_grant" VALUES(16,'EsF75NngPMiLl8YgiiM7jA',4,'person',1,NULL,NULL,'outline',0,'none','none',0,0,0,0,0,NULL,NULL,4,4,1803978000000,NULL,0,0);
INSERT INTO "access_grant" VALUES(17,'5Y2MfcmKMbwbtxZpOHbg1Q',7,'everyone',NULL,NULL,NULL,'busy',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803978000000,NULL,0,0);
INSERT INTO "access_grant" VALUES(18,'dhEczaHtJD4m2KR19XM1hQ',7,'person',3,NULL,NULL,'full',0,'none','none',0,0,0,0,0,NULL,NULL,1,1,1803978000000,NULL,0,0);
CREATE TABLE batch (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('coming', 'in', 'undone')),
  before TEXT NOT NULL DEFAULT '[]'
) STRICT;
INSERT INTO "batch" VALUES(1,'x5TiQ09E5eYFNZkUxEBjfQ',1,1,1803978000000,'in','[]');
CREATE TABLE calendar (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  owner_id INTEGER NOT NULL REFERENCES person (id),
  name TEXT NOT NULL,
  zone TEXT NOT NULL,
  main INTEGER NOT NULL CHECK (main IN (0, 1)),
  indexed_until INTEGER NOT NULL
, indexed_from INTEGER NOT NULL DEFAULT 0) STRICT;
INSERT INTO "calendar" VALUES(1,'JJYAs-L4Za67pFgmlQrgkQ',1,'Ines','Europe/Lisbon',1,1867222799000,1740733199000);
INSERT INTO "calendar" VALUES(2,'uVoEzmoX5wndNTP8T-ICRg',2,'Tomas','Europe/Lisbon',1,1867222799000,1740733199000);
INSERT INTO "calendar" VALUES(3,'3khfmc5zGLGCOs6SZB1xpg',3,'Amara','Europe/Lisbon',1,1867222799000,1740733199000);
INSERT INTO "calendar" VALUES(4,'hZKL7JaDnlfUBW3kUEgksw',4,'Bruno','Europe/Lisbon',1,1867222799000,1740733199000);
INSERT INTO "calendar" VALUES(5,'a-bQOEyOtOM3FrNuhmSERw',5,'Dario','Europe/Lisbon',1,1867222799000,1740733199000);
INSERT INTO "calendar" VALUES(6,'7gGaQl5wxlLuoT3UPZiOIg',6,'Wren','Europe/Lisbon',1,1867222799000,1740733199000);
INSERT INTO "calendar" VALUES(7,'IkF7yZM4LYIRGy6tVhjgVg',1,'Travel','Europe/Lisbon',0,1867222800000,1740733200000);
CREATE TABLE change_note (
  id INTEGER PRIMARY KEY,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  at INTEGER NOT NULL
) STRICT;
INSERT INTO "change_note" VALUES(1,1,1803978009800);
CREATE TABLE coming (
  batch INTEGER NOT NULL REFERENCES batch (id),
  long INTEGER NOT NULL CHECK (long IN (0, 1)),
  start INTEGER NOT NULL,
  item_id INTEGER NOT NULL,
  finish INTEGER NOT NULL,
  PRIMARY KEY (batch, long, start, item_id)
) STRICT, WITHOUT ROWID;
CREATE TABLE domain (name TEXT NOT NULL PRIMARY KEY) STRICT, WITHOUT ROWID;
INSERT INTO "domain" VALUES('cloudmoor.example');
CREATE TABLE grant_use (
  grant_id INTEGER NOT NULL REFERENCES access_grant (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  last_used INTEGER NOT NULL,
  PRIMARY KEY (grant_id, person_id)
) STRICT, WITHOUT ROWID;
INSERT INTO "grant_use" VALUES(1,6,1803978020000);
INSERT INTO "grant_use" VALUES(4,2,1803978020000);
INSERT INTO "grant_use" VALUES(4,3,1803978020000);
INSERT INTO "grant_use" VALUES(4,5,1803978020000);
INSERT INTO "grant_use" VALUES(4,6,1803978020000);
INSERT INTO "grant_use" VALUES(7,2,1803978020000);
INSERT INTO "grant_use" VALUES(9,4,1803978020000);
INSERT INTO "grant_use" VALUES(11,3,1803978020000);
INSERT INTO "grant_use" VALUES(12,7,1803978020000);
INSERT INTO "grant_use" VALUES(15,5,1803978020000);
INSERT INTO "grant_use" VALUES(16,1,1803978020000);
INSERT INTO "grant_use" VALUES(17,2,1803978020000);
INSERT INTO "grant_use" VALUES(17,4,1803978020000);
INSERT INTO "grant_use" VALUES(17,5,1803978020000);
INSERT INTO "grant_use" VALUES(17,6,1803978020000);
INSERT INTO "grant_use" VALUES(18,3,1803978020000);
CREATE TABLE group_within (
  id INTEGER PRIMARY KEY,
  parent_id INTEGER NOT NULL REFERENCES party_group (id),
  child_id INTEGER NOT NULL REFERENCES party_group (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER NOT NULL REFERENCES person (id),
  CHECK (parent_id <> child_id)
) STRICT;
INSERT INTO "group_within" VALUES(1,2,1,1803978000000,NULL,1);
CREATE TABLE house_rules (
  id INTEGER PRIMARY KEY,
  everyone_sight TEXT NOT NULL,
  outside_sight TEXT NOT NULL,
  outside_reach TEXT NOT NULL,
  outside_extras INTEGER NOT NULL CHECK (outside_extras IN (0, 1)),
  link_sight TEXT NOT NULL,
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER REFERENCES person (id)
, further_everyone_sight TEXT, further_outside_sight TEXT, further_outside_reach TEXT, further_outside_extras INTEGER, further_link_sight TEXT, start_sight TEXT NOT NULL DEFAULT 'busy', links_by TEXT NOT NULL DEFAULT 'sharers') STRICT;
INSERT INTO "house_rules" VALUES(1,'full','busy','none',0,'title',1803978009000,NULL,1,NULL,NULL,NULL,NULL,NULL,'busy','sharers');
CREATE TABLE "item" (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  uid TEXT NOT NULL,
  series_id INTEGER REFERENCES item (id),
  recurrence TEXT,
  start INTEGER NOT NULL,
  finish INTEGER NOT NULL,
  wall INTEGER,
  days INTEGER NOT NULL DEFAULT 0,
  all_day INTEGER NOT NULL CHECK (all_day IN (0, 1)),
  zone TEXT NOT NULL,
  rule TEXT,
  added TEXT NOT NULL DEFAULT '[]',
  left_out TEXT NOT NULL DEFAULT '[]',
  title TEXT NOT NULL,
  kind TEXT NOT NULL,
  place TEXT,
  notes TEXT,
  link TEXT,
  categories TEXT NOT NULL DEFAULT '[]',
  importance TEXT NOT NULL,
  shows TEXT NOT NULL,
  visibility TEXT NOT NULL,
  cancelled INTEGER NOT NULL CHECK (cancelled IN (0, 1)),
  owner_answer TEXT,
  organiser TEXT,
  attendees TEXT NOT NULL DEFAULT '[]',
  -- Addresses of the organiser and the attendees, each between line feeds: who is a party is one look.
  parties TEXT NOT NULL DEFAULT '',
  owner_invited INTEGER NOT NULL DEFAULT 0 CHECK (owner_invited IN (0, 1)),
  briefing TEXT,
  sequence INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL,
  created_by INTEGER NOT NULL REFERENCES person (id),
  created_for INTEGER NOT NULL REFERENCES person (id),
  created_at INTEGER NOT NULL,
  changed_by INTEGER NOT NULL REFERENCES person (id),
  changed_for INTEGER NOT NULL REFERENCES person (id),
  changed_at INTEGER NOT NULL,
  removed_at INTEGER,
  -- What a file said of it beside all this, and the act that brought it in.
  kept TEXT NOT NULL DEFAULT '[]',
  batch INTEGER REFERENCES batch (id),
  CHECK (series_id IS NULL OR recurrence IS NOT NULL),
  CHECK (finish >= start)
) STRICT;
INSERT INTO "item" VALUES(1,'Da8_WU6Teqx0UL-6e8ByAg',1,'u-9iTEgKs7bpYxSwOCI1FQ@paramo',NULL,NULL,1804064400000,1804068000000,NULL,0,0,'Europe/Lisbon',NULL,'[]','[]','Open talk','meeting','Marsh Lab','secret',NULL,'["trust"]','normal','busy','follow',0,NULL,NULL,'[{"name":"Amara","address":"amara@cloudmoor.example"}]','
amara@cloudmoor.example
',0,NULL,0,1,2,1,1803978000000,2,1,1803978000000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(2,'_1WS01wg9fUXuC6rT5ChaA',1,'DniPR4mT-1lsnvxDYBC2fQ@paramo',NULL,NULL,1803978000000,1803981600000,NULL,0,0,'Europe/Lisbon','FREQ=WEEKLY;COUNT=6','[]','[]','Weekly','meeting',NULL,NULL,NULL,'[]','normal','busy','follow',0,NULL,NULL,'[]','',0,NULL,0,1,1,1,1803978000000,1,1,1803978000000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(3,'D-SPVyTqkFi7sgYiiMjrZQ',1,'oxPo357i8lyUJzFiua4KIA@paramo',NULL,NULL,1804150800000,1804154400000,NULL,0,0,'Europe/Lisbon',NULL,'[]','[]','Doctor','meeting',NULL,NULL,NULL,'[]','normal','busy','private',0,NULL,NULL,'[]','',0,NULL,0,1,1,1,1803978000000,1,1,1803978000000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(4,'jnFNQsGUpTF1sXjwP4CwRQ',1,'r1oux2nyKNQAeDRKKqaASQ@paramo',NULL,NULL,1804032000000,1804291200000,NULL,0,1,'Europe/Lisbon',NULL,'[]','[]','In Lisbon','whereabouts',NULL,NULL,NULL,'[]','normal','free','open',0,NULL,NULL,'[]','',0,NULL,0,1,1,1,1803978000000,1,1,1803978000000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(5,'PIfzUhqfevmUOJNztwcpDg',4,'h3i7N5pQ02gd_oc_nKrRKQ@paramo',NULL,NULL,1804255200000,1804258800000,NULL,0,0,'Europe/Lisbon',NULL,'[]','[]','Budget','meeting',NULL,NULL,NULL,'[]','normal','busy','follow',0,NULL,NULL,'[]','',0,NULL,0,1,4,4,1803978000000,4,4,1803978000000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(6,'9RVRDIeIFgSioYSOxcEHCg',1,'DniPR4mT-1lsnvxDYBC2fQ@paramo',2,'2027-03-16T09:00:00',1805187600000,1805191200000,NULL,0,0,'Europe/Lisbon',NULL,'[]','[]','Weekly','meeting','Seed Store',NULL,NULL,'[]','normal','busy','follow',0,NULL,NULL,'[]','',0,NULL,1,1,1,1,1803978000000,2,1,1803978006000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(7,'EV1_z332qX4k9F0kZuR2Sg',1,'OH3UM6YPbbJvWsLreCauQA@paramo',NULL,NULL,1804237200000,1804240800000,NULL,0,0,'Europe/Lisbon',NULL,'[]','[]','Gone','meeting',NULL,NULL,NULL,'[]','normal','busy','follow',0,NULL,NULL,'[]','',0,NULL,0,2,1,1,1803978000000,1,1,1803978000000,1803978000000,'[]',NULL);
INSERT INTO "item" VALUES(8,'lvzQ1P1Z2fz4M1UXqJbx_w',1,'UCLdQO5f4lexaawXi4eghA@paramo',NULL,NULL,1804176000000,1804179600000,NULL,0,0,'Europe/Lisbon',NULL,'[]','[]','Walk','meeting',NULL,NULL,NULL,'[]','normal','busy','follow',0,NULL,NULL,'[]','',0,NULL,0,1,3,1,1803978008000,3,1,1803978008000,NULL,'[]',NULL);
INSERT INTO "item" VALUES(9,'ROhpc0gFYId-6ZWPubsdrQ',1,'f1',NULL,NULL,1804084980000,1804088580000,NULL,0,0,'~amCTJppM1YpMCqd7BI4NNwrdyUN',NULL,'[]','[]','On moor time','meeting',NULL,NULL,NULL,'[]','normal','busy','follow',0,NULL,NULL,'[]','',0,NULL,0,1,1,1,1803978000000,1,1,1803978000000,NULL,'[{"line":"X-KEEP;A=b:me"}]',1);
CREATE TABLE link (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  name TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person (id),
  made_at INTEGER NOT NULL,
  last_used INTEGER
) STRICT;
INSERT INTO "link" VALUES(1,'4lSfUaKzQ7-UloOAA9eNFg',1,'Notice board',1,1803978001000,NULL);
CREATE TABLE membership (
  id INTEGER PRIMARY KEY,
  group_id INTEGER NOT NULL REFERENCES party_group (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER REFERENCES person (id)
) STRICT;
INSERT INTO "membership" VALUES(1,1,3,1803978000000,NULL,1);
INSERT INTO "membership" VALUES(2,1,4,1803978000000,1803978005000,1);
INSERT INTO "membership" VALUES(3,2,5,1803978000000,NULL,1);
CREATE TABLE "notice" (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'joined', 'wayInMade', 'passwordMade')),
  calendar_id INTEGER REFERENCES calendar (id),
  owner_id INTEGER REFERENCES person (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER NOT NULL REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  read_at INTEGER,
  CHECK ((calendar_id IS NULL) = (owner_id IS NULL))
) STRICT;
INSERT INTO "notice" VALUES(1,'vuRMuIXRUv1NYhrx6MJPVg',4,1803978001000,'given',1,1,8,1,'So you can plan.',NULL);
INSERT INTO "notice" VALUES(2,'zXhkyvR11GsqS1wOe3aRsg',3,1803978001000,'given',1,1,10,1,'',NULL);
INSERT INTO "notice" VALUES(3,'sMmMM9VNE-jdrDoesDYE9w',7,1803978001000,'given',1,1,12,1,'See you.',NULL);
INSERT INTO "notice" VALUES(4,'xqXkGaFylrF3f7HBcNkHAw',6,1803978003000,'taken',1,1,NULL,1,'No longer needed.',NULL);
INSERT INTO "notice" VALUES(5,'x79kZgGkod7RK8sz-zfnyg',1,1803978004000,'given',1,1,15,2,'',NULL);
CREATE TABLE occurrence (
  calendar_id INTEGER NOT NULL,
  start INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item (id),
  finish INTEGER NOT NULL,
  PRIMARY KEY (calendar_id, start, item_id)
) STRICT, WITHOUT ROWID;
INSERT INTO "occurrence" VALUES(1,1803978000000,2,1803981600000);
INSERT INTO "occurrence" VALUES(1,1804064400000,1,1804068000000);
INSERT INTO "occurrence" VALUES(1,1804084980000,9,1804088580000);
INSERT INTO "occurrence" VALUES(1,1804150800000,3,1804154400000);
INSERT INTO "occurrence" VALUES(1,1804176000000,8,1804179600000);
INSERT INTO "occurrence" VALUES(1,1804582800000,2,1804586400000);
INSERT INTO "occurrence" VALUES(1,1805187600000,6,1805191200000);
INSERT INTO "occurrence" VALUES(1,1805792400000,2,1805796000000);
INSERT INTO "occurrence" VALUES(1,1806393600000,2,1806397200000);
INSERT INTO "occurrence" VALUES(1,1806998400000,2,1807002000000);
INSERT INTO "occurrence" VALUES(4,1804255200000,5,1804258800000);
CREATE TABLE "outbox" (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person (id),
  kind TEXT NOT NULL CHECK (kind IN ('given', 'changed', 'taken', 'ending', 'wayIn', 'wayInMade', 'passwordMade')),
  calendar_id INTEGER REFERENCES calendar (id),
  grant_id INTEGER REFERENCES access_grant (id),
  by_id INTEGER REFERENCES person (id),
  note TEXT NOT NULL DEFAULT '',
  tries INTEGER NOT NULL DEFAULT 0,
  next_try INTEGER NOT NULL,
  sent_at INTEGER,
  given_up INTEGER NOT NULL DEFAULT 0 CHECK (given_up IN (0, 1))
) STRICT;
INSERT INTO "outbox" VALUES(1,'2quDl6fy6r3Q4wpemH6yfg',1803978001000,7,'given',1,12,1,'See you.',0,1803978001000,NULL,0);
CREATE TABLE outsider_name (
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  name TEXT NOT NULL,
  PRIMARY KEY (calendar_id, person_id)
) STRICT, WITHOUT ROWID;
INSERT INTO "outsider_name" VALUES(1,7,'Marta Quill');
CREATE TABLE party_group (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  name TEXT NOT NULL
) STRICT;
INSERT INTO "party_group" VALUES(1,'TJJoTghnNi7euWp-tAdqEg','Board');
INSERT INTO "party_group" VALUES(2,'0UkKj_utEiZlNl0qs5PrpA','Everyone at Ridge House');
CREATE TABLE person (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  handle TEXT NOT NULL UNIQUE,
  account TEXT UNIQUE,
  name TEXT NOT NULL,
  address TEXT NOT NULL UNIQUE,
  role TEXT NOT NULL DEFAULT '',
  site TEXT NOT NULL DEFAULT '',
  zone TEXT NOT NULL,
  colour INTEGER NOT NULL DEFAULT 0,
  hours TEXT NOT NULL DEFAULT '24' CHECK (hours IN ('12', '24')),
  week_first INTEGER NOT NULL DEFAULT 1 CHECK (week_first BETWEEN 1 AND 7),
  administrator INTEGER NOT NULL DEFAULT 0 CHECK (administrator IN (0, 1)),
  inside INTEGER NOT NULL DEFAULT 1 CHECK (inside IN (0, 1)),
  created_at INTEGER NOT NULL
, kind TEXT NOT NULL DEFAULT 'person' CHECK (kind IN ('person', 'role')), left_at INTEGER) STRICT;
INSERT INTO "person" VALUES(1,'avUQJHw-HPnmBhEmm7eIsQ','ines','account-ines','Ines','ines@cloudmoor.example','','','Europe/Lisbon',0,'24',1,1,1,1803977999000,'person',NULL);
INSERT INTO "person" VALUES(2,'zW2aI9zMu-MR1gwh3EkI8g','tomas','account-tomas','Tomas','tomas@cloudmoor.example','','','Europe/Lisbon',1,'24',1,0,1,1803977999000,'person',NULL);
INSERT INTO "person" VALUES(3,'o2--ywnqdFwKszMNQu09jw','amara','account-amara','Amara','amara@cloudmoor.example','','','Europe/Lisbon',2,'24',1,0,1,1803977999000,'person',NULL);
INSERT INTO "person" VALUES(4,'END2wKlpNfMIYk9At1Bxyw','bruno','account-bruno','Bruno','bruno@cloudmoor.example','','','Europe/Lisbon',3,'24',1,0,1,1803977999000,'person',NULL);
INSERT INTO "person" VALUES(5,'cs2pHZJGEna5SP1IGWJ0yA','dario','account-dario','Dario','dario@cloudmoor.example','','','Europe/Lisbon',4,'24',1,0,1,1803977999000,'person',NULL);
INSERT INTO "person" VALUES(6,'UbjvU8pF7ReSds8F4dSrUw','wren','account-wren','Wren','wren@cloudmoor.example','','','Europe/Lisbon',5,'24',1,0,1,1803977999000,'person',NULL);
INSERT INTO "person" VALUES(7,'cBIYH9nPJwxPafp3c-AnHg','marta',NULL,'Marta Quill','marta@quill-audit.example','','','Europe/Lisbon',1,'24',1,0,0,1803978001000,'person',NULL);
CREATE TABLE rule_request (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  rule TEXT NOT NULL,
  further INTEGER NOT NULL CHECK (further IN (0, 1)),
  wanted TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  answer TEXT CHECK (answer IN ('changed', 'left')),
  answered_by INTEGER REFERENCES person (id),
  answered_at INTEGER,
  answer_note TEXT NOT NULL DEFAULT ''
) STRICT;
INSERT INTO "rule_request" VALUES(1,'iVJj_W0HRYMt4R16oVwicQ',4,1803978000000,'outsideSight',0,'outline','For the auditors.',NULL,NULL,NULL,'');
CREATE TABLE sensitive_word (
  person_id INTEGER NOT NULL REFERENCES person (id),
  word TEXT NOT NULL,
  topic TEXT NOT NULL,
  PRIMARY KEY (person_id, word)
) STRICT, WITHOUT ROWID;
INSERT INTO "sensitive_word" VALUES(1,'kestrel','health');
CREATE TABLE span (
  calendar_id INTEGER NOT NULL,
  start INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item (id),
  finish INTEGER NOT NULL,
  PRIMARY KEY (calendar_id, start, item_id)
) STRICT, WITHOUT ROWID;
INSERT INTO "span" VALUES(1,1804032000000,4,1804291200000);
CREATE TABLE suggestion (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  person_id INTEGER NOT NULL REFERENCES person (id),
  at INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('add', 'change', 'remove')),
  -- What it is about: the item, the start of the happening meant where it is one of a series, and the version there was.
  item_id INTEGER REFERENCES item (id),
  happening INTEGER,
  version INTEGER,
  body TEXT NOT NULL,
  why TEXT NOT NULL DEFAULT '',
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'yes', 'no', 'withdrawn')),
  answered_by INTEGER REFERENCES person (id),
  answered_at INTEGER,
  answer_note TEXT NOT NULL DEFAULT '',
  -- The trail entry of the write a yes made: undoing that opens the suggestion again.
  undo_key TEXT,
  CHECK ((kind = 'add') = (item_id IS NULL))
) STRICT;
INSERT INTO "suggestion" VALUES(1,'augLi8F3zcLGfN6DjBo0iQ',1,3,1803978007000,'add',NULL,NULL,NULL,'{"when":{"start":"2027-03-04T12:00","end":"2027-03-04T13:00","allDay":false,"zone":"Europe/Lisbon"},"title":"Roof","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null}','It leaks.','open',NULL,NULL,'',NULL);
INSERT INTO "suggestion" VALUES(2,'ZekryXAXDio_Z_piRqhURg',1,3,1803978007100,'add',NULL,NULL,NULL,'{"when":{"start":"2027-03-04T16:00","end":"2027-03-04T17:00","allDay":false,"zone":"Europe/Lisbon"},"title":"Walk","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null}','','yes',2,1803978008000,'Gladly.','Qsqe_VLC1yBsGROmswUtfQ');
CREATE TABLE suspension (
  id INTEGER PRIMARY KEY,
  calendar_id INTEGER NOT NULL REFERENCES calendar (id),
  recorded_from INTEGER NOT NULL,
  recorded_until INTEGER,
  recorded_by INTEGER NOT NULL REFERENCES person (id)
) STRICT;
INSERT INTO "suspension" VALUES(1,4,1803978009500,1803978009600,4);
INSERT INTO "suspension" VALUES(2,6,1803978009600,NULL,6);
CREATE TABLE trail (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL UNIQUE,
  at INTEGER NOT NULL,
  actor_id INTEGER NOT NULL REFERENCES person (id),
  principal_id INTEGER NOT NULL REFERENCES person (id),
  calendar_id INTEGER REFERENCES calendar (id),
  subject TEXT NOT NULL,
  verb TEXT NOT NULL,
  before TEXT,
  after TEXT
) STRICT;
INSERT INTO "trail" VALUES(1,'tXCljJ8UVahYDnVZPgKuPA',1803977999000,1,1,1,'avUQJHw-HPnmBhEmm7eIsQ','person.added',NULL,'{"name":"Ines","address":"ines@cloudmoor.example"}');
INSERT INTO "trail" VALUES(2,'NwLoG8cpuZHR_-pAXf3IUQ',1803977999000,2,2,2,'zW2aI9zMu-MR1gwh3EkI8g','person.added',NULL,'{"name":"Tomas","address":"tomas@cloudmoor.example"}');
INSERT INTO "trail" VALUES(3,'xmYmONhmhEmy9LZtwtKK4Q',1803977999000,3,3,3,'o2--ywnqdFwKszMNQu09jw','person.added',NULL,'{"name":"Amara","address":"amara@cloudmoor.example"}');
INSERT INTO "trail" VALUES(4,'Scx8LBAtPiibSqKPPaCHWg',1803977999000,4,4,4,'END2wKlpNfMIYk9At1Bxyw','person.added',NULL,'{"name":"Bruno","address":"bruno@cloudmoor.example"}');
INSERT INTO "trail" VALUES(5,'gFA3fydjFEgVBy8qWjUP9A',1803977999000,5,5,5,'cs2pHZJGEna5SP1IGWJ0yA','person.added',NULL,'{"name":"Dario","address":"dario@cloudmoor.example"}');
INSERT INTO "trail" VALUES(6,'9FJCVkcpnRMoIED-A_0JHQ',1803977999000,6,6,6,'UbjvU8pF7ReSds8F4dSrUw','person.added',NULL,'{"name":"Wren","address":"wren@cloudmoor.example"}');
INSERT INTO "trail" VALUES(7,'IsP0xMULaWy_4bp7l6xb-w',1803978000000,1,1,NULL,'domains','domains.changed','[]','["cloudmoor.example"]');
INSERT INTO "trail" VALUES(8,'_XFnoYzSfnjNkjvjJAEQtg',1803978000000,1,1,NULL,'TJJoTghnNi7euWp-tAdqEg','group.added',NULL,'{"name":"Board","members":["o2--ywnqdFwKszMNQu09jw","END2wKlpNfMIYk9At1Bxyw"]}');
INSERT INTO "trail" VALUES(9,'taAMdTrKKtnPLheCpdcPXQ',1803978000000,1,1,NULL,'0UkKj_utEiZlNl0qs5PrpA','group.added',NULL,'{"name":"Everyone at Ridge House","members":["cs2pHZJGEna5SP1IGWJ0yA"]}');
INSERT INTO "trail" VALUES(10,'oMQFgQ8fumvXORoXsmfnqg',1803978000000,1,1,NULL,'0UkKj_utEiZlNl0qs5PrpA','group.joined',NULL,'{"group":"TJJoTghnNi7euWp-tAdqEg"}');
INSERT INTO "trail" VALUES(11,'DAHYDCRnDp139KN4dPdX5g',1803978005000,1,1,NULL,'TJJoTghnNi7euWp-tAdqEg','group.left',NULL,'{"person":"END2wKlpNfMIYk9At1Bxyw"}');
INSERT INTO "trail" VALUES(12,'18YzxB6SHpLpGvyP8DBFFQ',1803978000000,1,1,1,'{"kind":"person","personId":2}','access.given',NULL,'{"rights":{"sight":"full","add":true,"change":"all","remove":"all","suggest":false,"private":false,"speaks":true,"copies":false,"shares":true},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(13,'PE6vjTNN8dn6lzrgLkxtzg',1803978001000,1,1,1,'{"kind":"person","personId":4}','access.given',NULL,'{"rights":{"sight":"title","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(14,'o5BrzfYXodwd-0QiqR92Hw',1803978002000,1,1,1,'{"kind":"person","personId":4}','access.given','{"rights":{"sight":"title","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}','{"rights":{"sight":"outline","add":false,"change":"none","remove":"none","suggest":true,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(15,'FUYbCy-8yq7gRGHZ7jPj4g',1803978001000,1,1,1,'{"kind":"group","groupId":1}','access.given',NULL,'{"rights":{"sight":"outline","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":1804204800000,"ends":1805587200000}');
INSERT INTO "trail" VALUES(16,'8w8SvMzt9HqxsRUyj-LXZw',1803978001000,1,1,1,'{"kind":"person","personId":3}','access.given',NULL,'{"rights":{"sight":"busy","add":false,"change":"none","remove":"none","suggest":true,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(17,'hBYe85uRw7aP1j9E0A6DwQ',1803978001000,1,1,NULL,'cBIYH9nPJwxPafp3c-AnHg','outsider.added',NULL,'{"name":"Marta Quill","address":"marta@quill-audit.example"}');
INSERT INTO "trail" VALUES(18,'f2XUmltKYfLmByBC25geBA',1803978001000,1,1,1,'{"kind":"person","personId":7}','access.given',NULL,'{"rights":{"sight":"busy","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(19,'mqmk0uMBDMsHdwHJUA87NQ',1803978001000,1,1,1,'{"kind":"link","link":"4lSfUaKzQ7-UloOAA9eNFg"}','access.given',NULL,'{"rights":{"sight":"busy","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(20,'9A-bqTzHLFvyIteO5EAMyw',1803978001000,1,1,1,'{"kind":"person","personId":6}','access.given',NULL,'{"rights":{"sight":"title","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(21,'omFGaohzaSTsrza1KYHERA',1803978003000,1,1,1,'{"kind":"person","personId":6}','access.taken','{"rights":{"sight":"title","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}',NULL);
INSERT INTO "trail" VALUES(22,'HLkauvZ5xNSwCCgN4CsVOA',1803978004000,2,1,1,'{"kind":"person","personId":5}','access.given',NULL,'{"rights":{"sight":"title","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(23,'mk56DXy4-2ng4uPUZB4pLQ',1803978000000,4,4,4,'{"kind":"person","personId":1}','access.given',NULL,'{"rights":{"sight":"outline","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(24,'YJETOrq9syzr5Ckb_6cPcQ',1803978000000,1,1,7,'IkF7yZM4LYIRGy6tVhjgVg','calendar.begun',NULL,'{"name":"Travel"}');
INSERT INTO "trail" VALUES(25,'bImhOOiodcqmNj9fh1WrxQ',1803978000000,1,1,7,'{"kind":"person","personId":3}','access.given',NULL,'{"rights":{"sight":"full","add":false,"change":"none","remove":"none","suggest":false,"private":false,"speaks":false,"copies":false,"shares":false},"starts":null,"ends":null}');
INSERT INTO "trail" VALUES(26,'EIQ8czymfVNKjr3MtnXgwA',1803978000000,2,1,1,'Da8_WU6Teqx0UL-6e8ByAg','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"Open talk","kind":"meeting","place":"Marsh Lab","notes":"secret","link":null,"categories":["trust"],"importance":"normal","shows":"busy","visibility":"follow","briefing":null,"start":1804064400000,"end":1804068000000,"allDay":false,"zone":"Europe/Lisbon","changedBy":2,"changedFor":1,"changedAt":1803978000000,"organiser":null,"attendees":[{"name":"Amara","address":"amara@cloudmoor.example"}],"ownerAnswer":null,"key":"Da8_WU6Teqx0UL-6e8ByAg","calendarId":1,"uid":"u-9iTEgKs7bpYxSwOCI1FQ@paramo","seriesId":null,"recurrence":null,"rule":null,"added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":2,"createdFor":1,"createdAt":1803978000000,"removedAt":null,"id":1}]');
INSERT INTO "trail" VALUES(27,'y3zm6-_ro93Kz8foIPz3zg',1803978000000,1,1,1,'_1WS01wg9fUXuC6rT5ChaA','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"Weekly","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null,"start":1803978000000,"end":1803981600000,"allDay":false,"zone":"Europe/Lisbon","changedBy":1,"changedFor":1,"changedAt":1803978000000,"organiser":null,"attendees":[],"ownerAnswer":null,"key":"_1WS01wg9fUXuC6rT5ChaA","calendarId":1,"uid":"DniPR4mT-1lsnvxDYBC2fQ@paramo","seriesId":null,"recurrence":null,"rule":"FREQ=WEEKLY;COUNT=6","added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"removedAt":null,"id":2}]');
INSERT INTO "trail" VALUES(28,'fSbYDiXfwAQApfC-DghMig',1803978000000,1,1,1,'D-SPVyTqkFi7sgYiiMjrZQ','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"Doctor","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"private","briefing":null,"start":1804150800000,"end":1804154400000,"allDay":false,"zone":"Europe/Lisbon","changedBy":1,"changedFor":1,"changedAt":1803978000000,"organiser":null,"attendees":[],"ownerAnswer":null,"key":"D-SPVyTqkFi7sgYiiMjrZQ","calendarId":1,"uid":"oxPo357i8lyUJzFiua4KIA@paramo","seriesId":null,"recurrence":null,"rule":null,"added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"removedAt":null,"id":3}]');
INSERT INTO "trail" VALUES(29,'5RNAm50_CBoYr8i64ojnOQ',1803978000000,1,1,1,'jnFNQsGUpTF1sXjwP4CwRQ','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"In Lisbon","kind":"whereabouts","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"free","visibility":"open","briefing":null,"start":1804032000000,"end":1804291200000,"allDay":true,"zone":"Europe/Lisbon","changedBy":1,"changedFor":1,"changedAt":1803978000000,"organiser":null,"attendees":[],"ownerAnswer":null,"key":"jnFNQsGUpTF1sXjwP4CwRQ","calendarId":1,"uid":"r1oux2nyKNQAeDRKKqaASQ@paramo","seriesId":null,"recurrence":null,"rule":null,"added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"removedAt":null,"id":4}]');
INSERT INTO "trail" VALUES(30,'_vPheZiLg4tTF457SbUXSg',1803978000000,4,4,4,'PIfzUhqfevmUOJNztwcpDg','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"Budget","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null,"start":1804255200000,"end":1804258800000,"allDay":false,"zone":"Europe/Lisbon","changedBy":4,"changedFor":4,"changedAt":1803978000000,"organiser":null,"attendees":[],"ownerAnswer":null,"key":"PIfzUhqfevmUOJNztwcpDg","calendarId":4,"uid":"h3i7N5pQ02gd_oc_nKrRKQ@paramo","seriesId":null,"recurrence":null,"rule":null,"added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":4,"createdFor":4,"createdAt":1803978000000,"removedAt":null,"id":5}]');
INSERT INTO "trail" VALUES(31,'9pM6HO921TWgtN2o84EQZw',1803978006000,2,1,1,'9RVRDIeIFgSioYSOxcEHCg','item.changed','[null]','[{"key":"9RVRDIeIFgSioYSOxcEHCg","calendarId":1,"uid":"DniPR4mT-1lsnvxDYBC2fQ@paramo","seriesId":2,"recurrence":"2027-03-16T09:00:00","start":1805187600000,"end":1805191200000,"wall":null,"days":0,"allDay":false,"zone":"Europe/Lisbon","rule":null,"added":[],"left":[],"title":"Weekly","kind":"meeting","place":"Seed Store","notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","cancelled":false,"ownerAnswer":null,"organiser":null,"attendees":[],"ownerInvited":false,"briefing":null,"sequence":1,"version":1,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"changedBy":2,"changedFor":1,"changedAt":1803978006000,"removedAt":null,"kept":[],"batch":null,"id":6}]');
INSERT INTO "trail" VALUES(32,'CsKlbjBIzv-H2UVM7q0cqA',1803978000000,1,1,1,'EV1_z332qX4k9F0kZuR2Sg','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"Gone","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null,"start":1804237200000,"end":1804240800000,"allDay":false,"zone":"Europe/Lisbon","changedBy":1,"changedFor":1,"changedAt":1803978000000,"organiser":null,"attendees":[],"ownerAnswer":null,"key":"EV1_z332qX4k9F0kZuR2Sg","calendarId":1,"uid":"OH3UM6YPbbJvWsLreCauQA@paramo","seriesId":null,"recurrence":null,"rule":null,"added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"removedAt":null,"id":7}]');
INSERT INTO "trail" VALUES(33,'X4sUZTImxSkNONM0X_QUFw',1803978000000,1,1,1,'EV1_z332qX4k9F0kZuR2Sg','item.removed','[{"id":7,"key":"EV1_z332qX4k9F0kZuR2Sg","calendarId":1,"uid":"OH3UM6YPbbJvWsLreCauQA@paramo","seriesId":null,"recurrence":null,"start":1804237200000,"end":1804240800000,"wall":null,"days":0,"allDay":false,"zone":"Europe/Lisbon","rule":null,"added":[],"left":[],"title":"Gone","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","cancelled":false,"ownerAnswer":null,"organiser":null,"attendees":[],"ownerInvited":false,"briefing":null,"sequence":0,"version":1,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"changedBy":1,"changedFor":1,"changedAt":1803978000000,"removedAt":null,"kept":[],"batch":null}]','[{"id":7,"key":"EV1_z332qX4k9F0kZuR2Sg","calendarId":1,"uid":"OH3UM6YPbbJvWsLreCauQA@paramo","seriesId":null,"recurrence":null,"start":1804237200000,"end":1804240800000,"wall":null,"days":0,"allDay":false,"zone":"Europe/Lisbon","rule":null,"added":[],"left":[],"title":"Gone","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","cancelled":false,"ownerAnswer":null,"organiser":null,"attendees":[],"ownerInvited":false,"briefing":null,"sequence":0,"version":2,"createdBy":1,"createdFor":1,"createdAt":1803978000000,"changedBy":1,"changedFor":1,"changedAt":1803978000000,"removedAt":1803978000000,"kept":[],"batch":null}]');
INSERT INTO "trail" VALUES(34,'Uj5cWtlvfPDClXrL7SI6bQ',1803978007000,3,3,NULL,'augLi8F3zcLGfN6DjBo0iQ','suggestion.made',NULL,'{"key":"augLi8F3zcLGfN6DjBo0iQ","calendarId":1,"personId":3,"at":1803978007000,"kind":"add","why":"It leaks.","state":"open","answeredBy":null,"answerNote":"","itemId":null,"happening":null,"version":null,"body":{"when":{"start":"2027-03-04T12:00","end":"2027-03-04T13:00","allDay":false,"zone":"Europe/Lisbon"},"title":"Roof","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null}}');
INSERT INTO "trail" VALUES(35,'y97smAg3qyzv7KeuNfisKw',1803978007100,3,3,NULL,'ZekryXAXDio_Z_piRqhURg','suggestion.made',NULL,'{"key":"ZekryXAXDio_Z_piRqhURg","calendarId":1,"personId":3,"at":1803978007100,"kind":"add","why":"","state":"open","answeredBy":null,"answerNote":"","itemId":null,"happening":null,"version":null,"body":{"when":{"start":"2027-03-04T16:00","end":"2027-03-04T17:00","allDay":false,"zone":"Europe/Lisbon"},"title":"Walk","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null}}');
INSERT INTO "trail" VALUES(36,'Qsqe_VLC1yBsGROmswUtfQ',1803978008000,2,1,1,'lvzQ1P1Z2fz4M1UXqJbx_w','item.added','[null]','[{"wall":null,"days":0,"kept":[],"batch":null,"title":"Walk","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null,"start":1804176000000,"end":1804179600000,"allDay":false,"zone":"Europe/Lisbon","changedBy":3,"changedFor":1,"changedAt":1803978008000,"organiser":null,"attendees":[],"ownerAnswer":null,"key":"lvzQ1P1Z2fz4M1UXqJbx_w","calendarId":1,"uid":"UCLdQO5f4lexaawXi4eghA@paramo","seriesId":null,"recurrence":null,"rule":null,"added":[],"left":[],"cancelled":false,"ownerInvited":false,"sequence":0,"version":1,"createdBy":3,"createdFor":1,"createdAt":1803978008000,"removedAt":null,"id":8}]');
INSERT INTO "trail" VALUES(37,'t2RauWGz378MLMg4WLCK7g',1803978008000,2,2,NULL,'ZekryXAXDio_Z_piRqhURg','suggestion.yes','{"key":"ZekryXAXDio_Z_piRqhURg","calendarId":1,"personId":3,"at":1803978007100,"kind":"add","itemId":null,"happening":null,"version":null,"body":{"when":{"start":"2027-03-04T16:00","end":"2027-03-04T17:00","allDay":false,"zone":"Europe/Lisbon"},"title":"Walk","kind":"meeting","place":null,"notes":null,"link":null,"categories":[],"importance":"normal","shows":"busy","visibility":"follow","briefing":null},"why":"","state":"open","answeredBy":null,"answerNote":""}','{"note":"Gladly."}');
INSERT INTO "trail" VALUES(38,'6uo6mmr9v-eVgwzUy21VXQ',1803978000000,1,1,1,'x5TiQ09E5eYFNZkUxEBjfQ','item.broughtIn',NULL,'{"batch":"x5TiQ09E5eYFNZkUxEBjfQ","items":1,"renewed":0}');
INSERT INTO "trail" VALUES(39,'S9K7n_srXBczwsrLkE45rQ',1803978000000,1,1,NULL,'avUQJHw-HPnmBhEmm7eIsQ','words.changed','[]','[{"word":"kestrel","topic":"health"}]');
INSERT INTO "trail" VALUES(40,'5AZALW_z3yIi3AwyWGjSQw',1803978000000,4,4,NULL,'house rules','rule.wished',NULL,'{"changes":[{"rule":"outsideSight","wanted":"outline"}],"further":false,"note":"For the auditors."}');
INSERT INTO "trail" VALUES(41,'Ysss5kUdVt1j1ulMvfO3uw',1803978009000,1,1,NULL,'house rules','house-rules.changed','{"main":{"everyoneSight":"full","outsideSight":"busy","outsideReach":"none","outsideExtras":false,"linkSight":"busy"},"further":null,"startSight":"busy","linksBy":"sharers"}','{"further":null,"startSight":"busy","linksBy":"sharers","main":{"everyoneSight":"full","outsideSight":"busy","outsideReach":"none","outsideExtras":false,"linkSight":"title"}}');
INSERT INTO "trail" VALUES(42,'rFxa5FP_jVPmmfn8O2-vFQ',1803978009500,4,4,4,'hZKL7JaDnlfUBW3kUEgksw','sharing.suspended','{"suspended":false}','{"suspended":true}');
INSERT INTO "trail" VALUES(43,'U4Rb_yH7Eklhp9TZLqW92g',1803978009600,4,4,4,'hZKL7JaDnlfUBW3kUEgksw','sharing.resumed','{"suspended":true}','{"suspended":false}');
INSERT INTO "trail" VALUES(44,'2vazf0Wf3dGDTszMuEZKxA',1803978009600,6,6,6,'7gGaQl5wxlLuoT3UPZiOIg','sharing.suspended','{"suspended":false}','{"suspended":true}');
CREATE TABLE zone_definition (
  name TEXT NOT NULL PRIMARY KEY,
  tzid TEXT NOT NULL,
  text TEXT NOT NULL,
  definition TEXT NOT NULL,
  near TEXT NOT NULL
) STRICT;
INSERT INTO "zone_definition" VALUES('~amCTJppM1YpMCqd7BI4NNwrdyUN','Moor','BEGIN:VTIMEZONE
TZID:Moor
BEGIN:STANDARD
DTSTART:19700101T000000
TZOFFSETFROM:+0017
TZOFFSETTO:+0017
END:STANDARD
END:VTIMEZONE','{"before":1020000,"changes":[]}','UTC');
CREATE INDEX membership_person ON membership (person_id);
CREATE UNIQUE INDEX membership_once ON membership (group_id, person_id) WHERE recorded_until IS NULL;
CREATE UNIQUE INDEX calendar_main ON calendar (owner_id) WHERE main = 1;
CREATE INDEX suspension_calendar ON suspension (calendar_id);
CREATE INDEX grant_calendar ON access_grant (calendar_id, recorded_until);
CREATE INDEX grant_person ON access_grant (person_id) WHERE person_id IS NOT NULL;
CREATE UNIQUE INDEX grant_standing ON access_grant
  (calendar_id, audience, coalesce(person_id, group_id, 0), coalesce(link, ''))
  WHERE recorded_until IS NULL AND starts IS NULL AND ends IS NULL;
CREATE INDEX span_finish ON span (calendar_id, finish);
CREATE INDEX trail_calendar ON trail (calendar_id, at);
CREATE INDEX trail_subject ON trail (subject);
CREATE INDEX group_within_child ON group_within (child_id);
CREATE UNIQUE INDEX group_within_once ON group_within (parent_id, child_id) WHERE recorded_until IS NULL;
CREATE INDEX link_calendar ON link (calendar_id);
CREATE UNIQUE INDEX rule_request_open ON rule_request (person_id, rule, further, wanted) WHERE answer IS NULL;
CREATE INDEX calendar_further ON calendar (owner_id) WHERE main = 0;
CREATE INDEX membership_group ON membership (group_id);
CREATE INDEX group_within_parent ON group_within (parent_id);
CREATE INDEX suggestion_open ON suggestion (calendar_id) WHERE state = 'open';
CREATE INDEX suggestion_person ON suggestion (person_id);
CREATE INDEX suggestion_undo ON suggestion (undo_key) WHERE undo_key IS NOT NULL;
CREATE INDEX access_grant_ends ON access_grant (ends) WHERE recorded_until IS NULL AND ends IS NOT NULL;
CREATE UNIQUE INDEX item_uid ON item (calendar_id, uid, coalesce(recurrence, '')) WHERE removed_at IS NULL;
CREATE INDEX item_series ON item (series_id) WHERE series_id IS NOT NULL;
CREATE INDEX item_repeats ON item (calendar_id) WHERE (rule IS NOT NULL OR added <> '[]') AND removed_at IS NULL;
CREATE INDEX item_batch ON item (batch) WHERE batch IS NOT NULL;
CREATE INDEX item_created ON item (created_by, created_at);
CREATE INDEX occurrence_item ON occurrence (item_id);
CREATE INDEX span_item ON span (item_id);
CREATE INDEX notice_person ON notice (person_id, at);
CREATE INDEX notice_grant ON notice (grant_id) WHERE grant_id IS NOT NULL;
CREATE INDEX outbox_waiting ON outbox (next_try) WHERE sent_at IS NULL AND given_up = 0;
CREATE UNIQUE INDEX outbox_ending ON outbox (grant_id, person_id) WHERE kind = 'ending';
COMMIT;
PRAGMA user_version = 6;
