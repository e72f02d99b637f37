-- What a link's page says of how a time is booked: its owner's own words.
ALTER TABLE link ADD COLUMN booking TEXT;
