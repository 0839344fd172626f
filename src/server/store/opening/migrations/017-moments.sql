-- When a site was made: the moment that {now} names until the first release.
CREATE TABLE site_made (
	site_id INTEGER PRIMARY KEY REFERENCES site (id) ON DELETE CASCADE,
	made TEXT NOT NULL
) STRICT;

INSERT INTO site_made (site_id, made)
SELECT id, coalesce((SELECT min(made) FROM edit WHERE site_id = site.id), strftime('%Y-%m-%dT%H:%M:%fZ', 'now')) FROM site;

CREATE TRIGGER site_made_at AFTER INSERT ON site BEGIN
	INSERT INTO site_made (site_id, made) VALUES (new.id, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'));
END;

-- What was looked at with the moment 1970 is looked at again.
UPDATE page_state SET seen = -1 WHERE timed = 1 AND site_id NOT IN (SELECT site_id FROM release);
