-- Addresses that are told what happens, and what they are told: what is yet to be sent has a moment at which it is due.
CREATE TABLE webhook (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	address TEXT NOT NULL,
	secret TEXT NOT NULL,
	events TEXT NOT NULL CHECK (json_valid(events)),
	maker TEXT NOT NULL,
	made INTEGER NOT NULL,
	is_inside INTEGER NOT NULL,
	stopped TEXT
) STRICT;
CREATE INDEX webhook_of_site ON webhook (site_id);
CREATE TABLE webhook_message (
	id TEXT PRIMARY KEY,
	webhook_id INTEGER NOT NULL REFERENCES webhook (id) ON DELETE CASCADE,
	event TEXT NOT NULL,
	body TEXT NOT NULL,
	made INTEGER NOT NULL,
	due INTEGER,
	tries TEXT NOT NULL CHECK (json_valid(tries))
) STRICT;
CREATE INDEX webhook_message_due ON webhook_message (due) WHERE due IS NOT NULL;
CREATE INDEX webhook_message_of ON webhook_message (webhook_id, made);
-- On how many pages each kind of finding stood when that was last told.
CREATE TABLE finding_told (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	code TEXT NOT NULL,
	pages INTEGER NOT NULL,
	PRIMARY KEY (site_id, code)
) STRICT, WITHOUT ROWID;
