-- Heads are put in as they come: in the order of their hashes, every new one would tear the pages of the table apart.
CREATE TABLE head_kept (
	hash TEXT PRIMARY KEY,
	html TEXT NOT NULL,
	json TEXT NOT NULL CHECK (json_valid(json))
) STRICT;
INSERT INTO head_kept SELECT hash, html, json FROM head;

-- Releases are intervals: a head stands from the release that brought it to the one from which on it is gone.
CREATE TABLE released (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	-- Numbers of releases; until is null for what stands now.
	since INTEGER NOT NULL,
	until INTEGER,
	address TEXT NOT NULL,
	head TEXT NOT NULL REFERENCES head_kept (hash),
	PRIMARY KEY (site_id, path, since)
) STRICT, WITHOUT ROWID;

INSERT INTO released (site_id, path, since, until, address, head)
WITH stood AS (
	SELECT r.site_id, p.path, p.address, p.head, r.number,
		(SELECT count(*) FROM release b WHERE b.site_id = r.site_id AND b.number <= r.number) AS place
	FROM released_page p JOIN release r ON r.id = p.release_id
), marked AS (
	SELECT *, place = 1 + lag(place) OVER page AND head = lag(head) OVER page AND address = lag(address) OVER page AS same
	FROM stood WINDOW page AS (PARTITION BY site_id, path ORDER BY place)
), counted AS (
	SELECT *, sum(CASE WHEN same THEN 0 ELSE 1 END) OVER (PARTITION BY site_id, path ORDER BY place) AS stretch FROM marked
)
SELECT site_id, path, min(number),
	(SELECT min(n.number) FROM release n WHERE n.site_id = counted.site_id AND n.number > max(counted.number)), address, head
FROM counted GROUP BY site_id, path, stretch, address, head;

CREATE UNIQUE INDEX released_now ON released (site_id, path) WHERE until IS NULL;
CREATE INDEX released_address ON released (site_id, address) WHERE until IS NULL;
CREATE INDEX released_since ON released (site_id, since);
CREATE INDEX released_until ON released (site_id, until) WHERE until IS NOT NULL;
CREATE INDEX released_head ON released (head);
DROP TABLE released_page;
DROP TABLE head;
ALTER TABLE head_kept RENAME TO head;

ALTER TABLE release ADD COLUMN note TEXT NOT NULL DEFAULT '';
ALTER TABLE release ADD COLUMN changed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE release ADD COLUMN added INTEGER NOT NULL DEFAULT 0;
ALTER TABLE release ADD COLUMN removed INTEGER NOT NULL DEFAULT 0;

-- The record of edits: what was done, where, by whom and when. What each did to single rows stands in edit_change.
CREATE TABLE edit (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	revision INTEGER NOT NULL,
	-- ISO 8601.
	made TEXT NOT NULL,
	author TEXT NOT NULL,
	-- The room it came from: bench, api, command, import.
	origin TEXT NOT NULL,
	kind TEXT NOT NULL,
	-- What was done in the words of its kind: place, tag, before, after.
	what TEXT NOT NULL CHECK (json_valid(what)),
	-- The edit that it takes back, for one that does.
	takes_back INTEGER REFERENCES edit (id),
	-- Whether it is taken back.
	is_back INTEGER NOT NULL DEFAULT 0 CHECK (is_back IN (0, 1))
) STRICT;
CREATE INDEX edit_by_site ON edit (site_id, id);
CREATE INDEX edit_takes_back ON edit (takes_back) WHERE takes_back IS NOT NULL;

-- What an edit did to a row: as it was before and as it was left, null where it was not there.
CREATE TABLE edit_change (
	id INTEGER PRIMARY KEY,
	edit_id INTEGER NOT NULL REFERENCES edit (id) ON DELETE CASCADE,
	place TEXT NOT NULL,
	-- The row's id, or its key where it has none.
	key TEXT NOT NULL,
	before TEXT,
	after TEXT
) STRICT;
CREATE INDEX edit_change_by_edit ON edit_change (edit_id);
-- Rows that an edit found there; those that it made are found by the edit.
CREATE INDEX edit_change_by_row ON edit_change (place, key) WHERE before IS NOT NULL;

-- The edit that is being made, while it is: rows that change are noted for it.
CREATE TABLE editing (
	edit_id INTEGER NOT NULL
) STRICT;

-- At which revision what pages have in common changed last.
ALTER TABLE site ADD COLUMN touched INTEGER NOT NULL DEFAULT 0;
ALTER TABLE content_type ADD COLUMN touched INTEGER NOT NULL DEFAULT 0;
-- Rules and extra markup of pages are few among many pages.
CREATE INDEX page_with_extra ON page (site_id) WHERE instr(settings, '"extra"');
CREATE INDEX rule_of_page ON rule (site_id, page_id) WHERE page_id IS NOT NULL;
-- What pages are sorted by and searched in.
ALTER TABLE page ADD COLUMN title TEXT GENERATED ALWAYS AS (json_extract(fields, '$.title')) VIRTUAL;

-- Long texts stand apart from what is read for every page, with the opening that was read out of each, in which language.
CREATE TABLE page_body (
	page_id INTEGER PRIMARY KEY REFERENCES page (id) ON DELETE CASCADE,
	-- What comes after the body is read through it: it stands last.
	opening TEXT,
	language TEXT,
	body TEXT NOT NULL
) STRICT;
INSERT INTO page_body (page_id, body) SELECT id, fields ->> '$.body' FROM page WHERE json_type(fields, '$.body') = 'text';
UPDATE page SET fields = json_remove(fields, '$.body') WHERE json_type(fields, '$.body') = 'text';

-- What every page's head came to, kept so that no question needs a site to be rendered.
CREATE TABLE page_state (
	page_id INTEGER PRIMARY KEY REFERENCES page (id) ON DELETE CASCADE,
	site_id INTEGER NOT NULL,
	type TEXT NOT NULL,
	-- The revision at which it was looked at, and the one at which the page itself changed last.
	seen INTEGER NOT NULL DEFAULT -1,
	touched INTEGER NOT NULL,
	-- The hash of the head, null for a page that is not public.
	head TEXT,
	title TEXT NOT NULL DEFAULT '',
	title_width INTEGER NOT NULL DEFAULT 0,
	description TEXT NOT NULL DEFAULT '',
	description_width INTEGER NOT NULL DEFAULT 0,
	-- The source of the picture that the page's card shows, and of the one it is made from.
	picture TEXT NOT NULL DEFAULT '',
	card TEXT NOT NULL DEFAULT '',
	-- How much is wrong or weak, twice as much on a key page; what it is stands in page_finding.
	weight INTEGER NOT NULL DEFAULT 0,
	-- Against what stands released: 0 the same, 1 changed, 2 new, 3 leaves.
	differs INTEGER NOT NULL DEFAULT 0,
	-- Its head says the moment of its making, so that each release changes it.
	timed INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX page_state_seen ON page_state (site_id, type, seen);
CREATE INDEX page_state_touched ON page_state (site_id) WHERE seen < touched;
CREATE INDEX page_state_differs ON page_state (site_id, differs) WHERE differs > 0;
CREATE INDEX page_state_timed ON page_state (site_id) WHERE timed = 1;
CREATE INDEX page_state_weight ON page_state (site_id, weight) WHERE weight > 0;
CREATE INDEX page_state_picture ON page_state (site_id, picture) WHERE picture <> '';

CREATE TABLE page_finding (
	page_id INTEGER NOT NULL REFERENCES page (id) ON DELETE CASCADE,
	code TEXT NOT NULL,
	tag TEXT NOT NULL,
	site_id INTEGER NOT NULL,
	weight INTEGER NOT NULL,
	PRIMARY KEY (page_id, code, tag)
) STRICT, WITHOUT ROWID;
CREATE INDEX page_finding_by_code ON page_finding (site_id, code, tag);

INSERT INTO page_state (page_id, site_id, type, touched) SELECT id, site_id, type, 1 FROM page;
UPDATE site SET revision = revision + 1, touched = revision + 1;

-- Words of what pages come to, and of their paths. It follows page_state.
CREATE VIRTUAL TABLE page_search USING fts5 (path, title, description, content = '', contentless_delete = 1, detail = column);
CREATE TRIGGER page_state_searched AFTER UPDATE OF title, description ON page_state
	WHEN OLD.title <> NEW.title OR OLD.description <> NEW.description OR OLD.seen < 0 BEGIN
	INSERT OR REPLACE INTO page_search (rowid, path, title, description)
		SELECT id, path, NEW.title, NEW.description FROM page WHERE id = NEW.page_id;
END;
CREATE TRIGGER page_state_forgotten AFTER DELETE ON page_state BEGIN
	DELETE FROM page_search WHERE rowid = OLD.page_id;
END;

-- Paths that are released and belong to no page any more.
CREATE TABLE leaving (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	PRIMARY KEY (site_id, path)
) STRICT, WITHOUT ROWID;
INSERT INTO leaving SELECT site_id, path FROM released r WHERE until IS NULL
	AND NOT EXISTS (SELECT 1 FROM page p WHERE p.site_id = r.site_id AND p.path = r.path);

-- How many pages there are, kept as they come and go.
CREATE TABLE page_count (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	type TEXT NOT NULL,
	state TEXT NOT NULL,
	n INTEGER NOT NULL,
	PRIMARY KEY (site_id, type, state)
) STRICT, WITHOUT ROWID;
INSERT INTO page_count SELECT site_id, type, state, count(*) FROM page GROUP BY 1, 2, 3;

CREATE TRIGGER page_comes AFTER INSERT ON page BEGIN
	INSERT INTO page_count VALUES (NEW.site_id, NEW.type, NEW.state, 1)
		ON CONFLICT DO UPDATE SET n = n + 1;
	INSERT INTO page_state (page_id, site_id, type, touched)
		VALUES (NEW.id, NEW.site_id, NEW.type, (SELECT revision FROM site WHERE id = NEW.site_id));
	DELETE FROM leaving WHERE site_id = NEW.site_id AND path = NEW.path;
END;
CREATE TRIGGER page_goes AFTER DELETE ON page BEGIN
	UPDATE page_count SET n = n - 1 WHERE site_id = OLD.site_id AND type = OLD.type AND state = OLD.state;
	INSERT OR IGNORE INTO leaving SELECT site_id, path FROM released
		WHERE site_id = OLD.site_id AND path = OLD.path AND until IS NULL
		AND EXISTS (SELECT 1 FROM site WHERE id = OLD.site_id);
END;
CREATE TRIGGER page_changes AFTER UPDATE ON page
	WHEN OLD.site_id IS NOT NEW.site_id OR OLD.path IS NOT NEW.path OR OLD.type IS NOT NEW.type OR OLD.language IS NOT NEW.language OR OLD.state IS NOT NEW.state OR OLD.modified IS NOT NEW.modified OR OLD.hidden IS NOT NEW.hidden OR OLD.fields IS NOT NEW.fields OR OLD.settings IS NOT NEW.settings OR OLD.origin IS NOT NEW.origin BEGIN
	UPDATE page_state SET type = NEW.type, seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE page_id = NEW.id;
END;
CREATE TRIGGER body_comes AFTER INSERT ON page_body BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = page_state.site_id)
		WHERE page_id = NEW.page_id AND seen >= 0;
END;
CREATE TRIGGER body_changes AFTER UPDATE OF body ON page_body WHEN OLD.body <> NEW.body BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = page_state.site_id) WHERE page_id = NEW.page_id;
END;
-- What was read out of another body is not of this one.
CREATE TRIGGER body_unread AFTER UPDATE OF body ON page_body WHEN OLD.body <> NEW.body BEGIN
	UPDATE page_body SET opening = NULL, language = NULL WHERE page_id = NEW.page_id;
END;
CREATE TRIGGER body_goes AFTER DELETE ON page_body BEGIN
	UPDATE page_state SET seen = -1, touched = coalesce((SELECT revision FROM site WHERE id = page_state.site_id), 0) WHERE page_id = OLD.page_id;
END;
CREATE TRIGGER page_regroups AFTER UPDATE OF type, state ON page WHEN OLD.type <> NEW.type OR OLD.state <> NEW.state BEGIN
	UPDATE page_count SET n = n - 1 WHERE site_id = OLD.site_id AND type = OLD.type AND state = OLD.state;
	INSERT INTO page_count VALUES (NEW.site_id, NEW.type, NEW.state, 1) ON CONFLICT DO UPDATE SET n = n + 1;
END;
CREATE TRIGGER page_moves AFTER UPDATE OF path ON page WHEN OLD.path <> NEW.path BEGIN
	INSERT OR IGNORE INTO leaving SELECT site_id, path FROM released
		WHERE site_id = OLD.site_id AND path = OLD.path AND until IS NULL;
	DELETE FROM leaving WHERE site_id = NEW.site_id AND path = NEW.path;
END;

-- What an edit could touch is marked with it: one page, the pages of a type, or all.
CREATE TRIGGER site_changes AFTER UPDATE OF name, base, settings ON site
	WHEN OLD.name <> NEW.name OR OLD.base <> NEW.base OR OLD.settings <> NEW.settings BEGIN
	UPDATE site SET touched = revision WHERE id = NEW.id;
END;
CREATE TRIGGER type_changes AFTER UPDATE OF settings ON content_type WHEN OLD.settings <> NEW.settings BEGIN
	UPDATE content_type SET touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE id = NEW.id;
END;
CREATE TRIGGER rule_comes AFTER INSERT ON rule BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE page_id = NEW.page_id;
	UPDATE content_type SET touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE id = NEW.type_id;
	UPDATE site SET touched = revision WHERE id = NEW.site_id AND NEW.page_id IS NULL AND NEW.type_id IS NULL;
END;
CREATE TRIGGER rule_changes AFTER UPDATE ON rule WHEN OLD.body <> NEW.body OR OLD.tag <> NEW.tag OR OLD.language <> NEW.language BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE page_id = NEW.page_id;
	UPDATE content_type SET touched = (SELECT revision FROM site WHERE id = NEW.site_id) WHERE id = NEW.type_id;
	UPDATE site SET touched = revision WHERE id = NEW.site_id AND NEW.page_id IS NULL AND NEW.type_id IS NULL;
END;
CREATE TRIGGER rule_goes AFTER DELETE ON rule BEGIN
	UPDATE page_state SET seen = -1, touched = coalesce((SELECT revision FROM site WHERE id = OLD.site_id), 0) WHERE page_id = OLD.page_id;
	UPDATE content_type SET touched = coalesce((SELECT revision FROM site WHERE id = OLD.site_id), 0) WHERE id = OLD.type_id;
	UPDATE site SET touched = revision WHERE id = OLD.site_id AND OLD.page_id IS NULL AND OLD.type_id IS NULL;
END;
-- A picture that was just taken into the library is named by nobody yet.
CREATE TRIGGER picture_comes AFTER INSERT ON picture WHEN NEW.src NOT GLOB '/media/*' BEGIN
	UPDATE site SET touched = revision WHERE id = NEW.site_id;
END;
CREATE TRIGGER picture_changes AFTER UPDATE ON picture WHEN OLD.facts <> NEW.facts BEGIN
	UPDATE site SET touched = revision WHERE id = NEW.site_id;
END;
CREATE TRIGGER picture_goes AFTER DELETE ON picture BEGIN
	UPDATE site SET touched = revision WHERE id = OLD.site_id;
END;

-- While an edit is made, rows are noted as they were and as they were left.
CREATE TRIGGER page_insert_noted AFTER INSERT ON page WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'page', NEW.id FROM editing;
END;
CREATE TRIGGER page_delete_noted AFTER DELETE ON page WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'page', OLD.id, json_object('id', OLD.id, 'site_id', OLD.site_id, 'path', OLD.path, 'type', OLD.type, 'language', OLD.language, 'state', OLD.state, 'modified', OLD.modified, 'hidden', OLD.hidden, 'fields', OLD.fields, 'settings', OLD.settings, 'origin', OLD.origin) FROM editing;
END;
CREATE TRIGGER page_update_noted AFTER UPDATE OF id, site_id, path, type, language, state, modified, hidden, fields, settings, origin ON page WHEN (OLD.site_id IS NOT NEW.site_id OR OLD.path IS NOT NEW.path OR OLD.type IS NOT NEW.type OR OLD.language IS NOT NEW.language OR OLD.state IS NOT NEW.state OR OLD.modified IS NOT NEW.modified OR OLD.hidden IS NOT NEW.hidden OR OLD.fields IS NOT NEW.fields OR OLD.settings IS NOT NEW.settings OR OLD.origin IS NOT NEW.origin) AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'page', OLD.id, json_object('id', OLD.id, 'site_id', OLD.site_id, 'path', OLD.path, 'type', OLD.type, 'language', OLD.language, 'state', OLD.state, 'modified', OLD.modified, 'hidden', OLD.hidden, 'fields', OLD.fields, 'settings', OLD.settings, 'origin', OLD.origin), json_object('id', NEW.id, 'site_id', NEW.site_id, 'path', NEW.path, 'type', NEW.type, 'language', NEW.language, 'state', NEW.state, 'modified', NEW.modified, 'hidden', NEW.hidden, 'fields', NEW.fields, 'settings', NEW.settings, 'origin', NEW.origin) FROM editing;
END;
CREATE TRIGGER rule_insert_noted AFTER INSERT ON rule WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'rule', NEW.id FROM editing;
END;
CREATE TRIGGER rule_delete_noted AFTER DELETE ON rule WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'rule', OLD.id, json_object('id', OLD.id, 'site_id', OLD.site_id, 'type_id', OLD.type_id, 'page_id', OLD.page_id, 'tag', OLD.tag, 'language', OLD.language, 'body', OLD.body) FROM editing;
END;
CREATE TRIGGER rule_update_noted AFTER UPDATE OF id, site_id, type_id, page_id, tag, language, body ON rule WHEN (OLD.site_id IS NOT NEW.site_id OR OLD.type_id IS NOT NEW.type_id OR OLD.page_id IS NOT NEW.page_id OR OLD.tag IS NOT NEW.tag OR OLD.language IS NOT NEW.language OR OLD.body IS NOT NEW.body) AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'rule', OLD.id, json_object('id', OLD.id, 'site_id', OLD.site_id, 'type_id', OLD.type_id, 'page_id', OLD.page_id, 'tag', OLD.tag, 'language', OLD.language, 'body', OLD.body), json_object('id', NEW.id, 'site_id', NEW.site_id, 'type_id', NEW.type_id, 'page_id', NEW.page_id, 'tag', NEW.tag, 'language', NEW.language, 'body', NEW.body) FROM editing;
END;
CREATE TRIGGER content_type_insert_noted AFTER INSERT ON content_type WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'content_type', NEW.id FROM editing;
END;
CREATE TRIGGER content_type_delete_noted AFTER DELETE ON content_type WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'content_type', OLD.id, json_object('id', OLD.id, 'site_id', OLD.site_id, 'name', OLD.name, 'settings', OLD.settings) FROM editing;
END;
CREATE TRIGGER content_type_update_noted AFTER UPDATE OF id, site_id, name, settings ON content_type WHEN (OLD.site_id IS NOT NEW.site_id OR OLD.name IS NOT NEW.name OR OLD.settings IS NOT NEW.settings) AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'content_type', OLD.id, json_object('id', OLD.id, 'site_id', OLD.site_id, 'name', OLD.name, 'settings', OLD.settings), json_object('id', NEW.id, 'site_id', NEW.site_id, 'name', NEW.name, 'settings', NEW.settings) FROM editing;
END;
CREATE TRIGGER site_update_noted AFTER UPDATE OF id, name, base, settings ON site WHEN (OLD.name IS NOT NEW.name OR OLD.base IS NOT NEW.base OR OLD.settings IS NOT NEW.settings) AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'site', OLD.id, json_object('id', OLD.id, 'name', OLD.name, 'base', OLD.base, 'settings', OLD.settings), json_object('id', NEW.id, 'name', NEW.name, 'base', NEW.base, 'settings', NEW.settings) FROM editing;
END;
CREATE TRIGGER picture_insert_noted AFTER INSERT ON picture WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'picture', NEW.site_id || ' ' || NEW.src FROM editing;
END;
CREATE TRIGGER picture_delete_noted AFTER DELETE ON picture WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'picture', OLD.site_id || ' ' || OLD.src, json_object('site_id', OLD.site_id, 'src', OLD.src, 'facts', OLD.facts) FROM editing;
END;
CREATE TRIGGER picture_update_noted AFTER UPDATE OF site_id, src, facts ON picture WHEN (OLD.site_id IS NOT NEW.site_id OR OLD.src IS NOT NEW.src OR OLD.facts IS NOT NEW.facts) AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'picture', OLD.site_id || ' ' || OLD.src, json_object('site_id', OLD.site_id, 'src', OLD.src, 'facts', OLD.facts), json_object('site_id', NEW.site_id, 'src', NEW.src, 'facts', NEW.facts) FROM editing;
END;
CREATE TRIGGER redirect_insert_noted AFTER INSERT ON redirect WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'redirect', NEW.site_id || ' ' || NEW.path FROM editing;
END;
CREATE TRIGGER redirect_delete_noted AFTER DELETE ON redirect WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'redirect', OLD.site_id || ' ' || OLD.path, json_object('site_id', OLD.site_id, 'path', OLD.path, 'target', OLD.target) FROM editing;
END;
CREATE TRIGGER redirect_update_noted AFTER UPDATE OF site_id, path, target ON redirect WHEN (OLD.site_id IS NOT NEW.site_id OR OLD.path IS NOT NEW.path OR OLD.target IS NOT NEW.target) AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'redirect', OLD.site_id || ' ' || OLD.path, json_object('site_id', OLD.site_id, 'path', OLD.path, 'target', OLD.target), json_object('site_id', NEW.site_id, 'path', NEW.path, 'target', NEW.target) FROM editing;
END;
CREATE TRIGGER body_insert_noted AFTER INSERT ON page_body WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'page_body', NEW.page_id FROM editing;
END;
CREATE TRIGGER body_delete_noted AFTER DELETE ON page_body WHEN EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before)
		SELECT edit_id, 'page_body', OLD.page_id, json_object('page_id', OLD.page_id, 'body', OLD.body) FROM editing;
END;
CREATE TRIGGER body_update_noted AFTER UPDATE OF body ON page_body WHEN OLD.body <> NEW.body AND EXISTS (SELECT 1 FROM editing) BEGIN
	INSERT INTO edit_change (edit_id, place, key, before, after)
		SELECT edit_id, 'page_body', OLD.page_id, json_object('page_id', OLD.page_id, 'body', OLD.body),
			json_object('page_id', NEW.page_id, 'body', NEW.body) FROM editing;
END;
