-- Readings that looked through a whole table: what was removed of a calendar, letters and mail by their calendar, and the few rows of a table
-- that are in an unusual state.
CREATE INDEX item_removed ON item (calendar_id, removed_at) WHERE removed_at IS NOT NULL;
CREATE INDEX outbox_collection ON outbox (collection_id, person_id);
CREATE INDEX outgoing_mail_collection ON outgoing_mail (collection_id, at);
CREATE INDEX hold_set_calendar ON hold_set (calendar_id);
CREATE INDEX attachment_removed ON attachment (removed_at) WHERE removed_at IS NOT NULL;
CREATE INDEX batch_coming ON batch (id) WHERE state = 'coming';
CREATE INDEX delivery_fresh ON delivery (id) WHERE tries = 0 AND due IS NOT NULL;
CREATE INDEX inbound_for_nobody ON inbound (id) WHERE for_nobody = 1;
