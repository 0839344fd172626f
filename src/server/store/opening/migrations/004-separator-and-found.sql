-- The separator of templates is written in full: {separator}.
UPDATE rule SET body = json_set(body, '$.template', rename_separator(body ->> '$.template'))
	WHERE body ->> '$.kind' = 'template' AND instr(body, 'sep');
UPDATE content_type SET settings = json_set(settings, '$.layout.title.template', rename_separator(settings ->> '$.layout.title.template'))
	WHERE instr(settings ->> '$.layout.title.template', 'sep');
UPDATE content_type SET settings = json_set(settings, '$.layout.line.template', rename_separator(settings ->> '$.layout.line.template'))
	WHERE instr(settings ->> '$.layout.line.template', 'sep');
-- What pages' own files say is taken from now on. What a site that has such pages says must not change by itself.
UPDATE site SET settings = json_set(settings, '$.foundPolicy', json_object('all', 'never'))
	WHERE EXISTS (SELECT 1 FROM page WHERE page.site_id = site.id AND json_array_length(page.settings, '$.found') > 0);

-- What was written into the files of a folder, by keys of name and value: it is not the author's when read again.
CREATE TABLE written (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	keys TEXT NOT NULL CHECK (json_valid(keys)),
	PRIMARY KEY (site_id, path)
) STRICT, WITHOUT ROWID;
