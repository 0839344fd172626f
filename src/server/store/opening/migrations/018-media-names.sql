-- Which pictures that are made (cuts, icons) a released head ever named: no other is drawn for a stranger.
CREATE TABLE media_name (
	name TEXT PRIMARY KEY
) STRICT, WITHOUT ROWID;

INSERT OR IGNORE INTO media_name (name) SELECT value FROM head, json_each(media_names(head.json));
