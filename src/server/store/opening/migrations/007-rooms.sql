-- What the table of all pages shows, finds and sorts by, beside what each head came to.
ALTER TABLE page_state ADD COLUMN path TEXT NOT NULL DEFAULT '';
ALTER TABLE page_state ADD COLUMN language TEXT;
ALTER TABLE page_state ADD COLUMN state TEXT NOT NULL DEFAULT 'live';
ALTER TABLE page_state ADD COLUMN modified TEXT;
-- The layer that title, description and share picture came from; 'found' for what the page's own file says.
ALTER TABLE page_state ADD COLUMN title_from TEXT NOT NULL DEFAULT '';
ALTER TABLE page_state ADD COLUMN description_from TEXT NOT NULL DEFAULT '';
ALTER TABLE page_state ADD COLUMN picture_from TEXT NOT NULL DEFAULT '';
-- The tags of its head, each between spaces.
ALTER TABLE page_state ADD COLUMN tags TEXT NOT NULL DEFAULT '';
-- 1 for a page that matters most; the phrase that it should be found by.
ALTER TABLE page_state ADD COLUMN is_key INTEGER NOT NULL DEFAULT 0;
ALTER TABLE page_state ADD COLUMN target TEXT NOT NULL DEFAULT '';
UPDATE page_state SET (path, language, state, modified, is_key, target) =
	(SELECT path, language, state, modified, coalesce(json_extract(settings, '$.key'), 0), coalesce(json_extract(settings, '$.target'), '')
	FROM page WHERE id = page_state.page_id);
UPDATE page_state SET seen = -1;

CREATE INDEX page_state_path ON page_state (site_id, path);
CREATE INDEX page_state_title ON page_state (site_id, title);
CREATE INDEX page_state_modified ON page_state (site_id, modified);
CREATE INDEX page_state_heavy ON page_state (site_id, weight);
DROP INDEX page_state_weight;
-- These change with their page alone, and cost nothing while pages are looked at.
CREATE INDEX page_state_type ON page_state (site_id, type);
CREATE INDEX page_state_language ON page_state (site_id, language);
CREATE INDEX page_state_state ON page_state (site_id, state);

DROP TRIGGER page_comes;
CREATE TRIGGER page_comes AFTER INSERT ON page BEGIN
	INSERT INTO page_count VALUES (NEW.site_id, NEW.type, NEW.state, 1)
		ON CONFLICT DO UPDATE SET n = n + 1;
	INSERT INTO page_state (page_id, site_id, type, touched, path, language, state, modified, is_key, target)
		VALUES (NEW.id, NEW.site_id, NEW.type, (SELECT revision FROM site WHERE id = NEW.site_id), NEW.path, NEW.language, NEW.state, NEW.modified,
			coalesce(json_extract(NEW.settings, '$.key'), 0), coalesce(json_extract(NEW.settings, '$.target'), ''));
	DELETE FROM leaving WHERE site_id = NEW.site_id AND path = NEW.path;
END;
DROP TRIGGER page_changes;
CREATE TRIGGER page_changes AFTER UPDATE ON page
	WHEN OLD.site_id IS NOT NEW.site_id OR OLD.path IS NOT NEW.path OR OLD.type IS NOT NEW.type OR OLD.language IS NOT NEW.language OR OLD.state IS NOT NEW.state OR OLD.modified IS NOT NEW.modified OR OLD.hidden IS NOT NEW.hidden OR OLD.fields IS NOT NEW.fields OR OLD.settings IS NOT NEW.settings OR OLD.origin IS NOT NEW.origin BEGIN
	UPDATE page_state SET type = NEW.type, seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id),
		path = NEW.path, language = NEW.language, state = NEW.state, modified = NEW.modified,
		is_key = coalesce(json_extract(NEW.settings, '$.key'), 0), target = coalesce(json_extract(NEW.settings, '$.target'), '')
		WHERE page_id = NEW.id;
END;

-- Findings that somebody looked at and set aside, for one page or for all: they are told no more.
CREATE TABLE aside (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	code TEXT NOT NULL,
	tag TEXT NOT NULL,
	-- '' for every page.
	path TEXT NOT NULL,
	reason TEXT NOT NULL,
	author TEXT NOT NULL,
	made TEXT NOT NULL,
	PRIMARY KEY (site_id, code, tag, path)
) STRICT, WITHOUT ROWID;

-- Filters of the table of pages that were given a name.
CREATE TABLE saved_filter (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	query TEXT NOT NULL,
	PRIMARY KEY (site_id, name)
) STRICT, WITHOUT ROWID;
CREATE TRIGGER aside_comes AFTER INSERT ON aside BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE site_id = NEW.site_id
		AND page_id IN (SELECT page_id FROM page_finding WHERE site_id = NEW.site_id AND code = NEW.code AND tag = NEW.tag)
		AND (NEW.path = '' OR path = NEW.path);
END;
CREATE TRIGGER aside_goes AFTER DELETE ON aside BEGIN
	UPDATE page_state SET seen = -1, touched = coalesce((SELECT revision FROM site WHERE id = OLD.site_id), 0) WHERE site_id = OLD.site_id
		AND (OLD.path = '' OR path = OLD.path);
END;
CREATE TRIGGER aside_insert_noted AFTER INSERT ON aside WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key)
		SELECT edit_id, 'aside', NEW.site_id || ' ' || NEW.code || ' ' || NEW.tag || ' ' || NEW.path FROM editing;
END;
CREATE TRIGGER aside_delete_noted AFTER DELETE ON aside WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'aside', OLD.site_id || ' ' || OLD.code || ' ' || OLD.tag || ' ' || OLD.path,
			json_object('site_id', OLD.site_id, 'code', OLD.code, 'tag', OLD.tag, 'path', OLD.path, 'reason', OLD.reason, 'author', OLD.author, 'made', OLD.made) FROM editing;
END;

-- Where a page says it stands, when that is another address than its own.
ALTER TABLE page_state ADD COLUMN canonical TEXT NOT NULL DEFAULT '';

-- What readers saw when an address was looked at.
CREATE TABLE look (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	address TEXT NOT NULL,
	made TEXT NOT NULL,
	result TEXT NOT NULL,
	PRIMARY KEY (site_id, address, made)
) STRICT, WITHOUT ROWID;
