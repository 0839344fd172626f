-- Indexes that were taken away while many pages come in, to be made again when they are there.
CREATE TABLE paused_index (
	name TEXT PRIMARY KEY,
	sql TEXT NOT NULL
) STRICT;
