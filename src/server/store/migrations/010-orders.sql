-- Every order of the table of pages, and what few pages have, without sorting or going over all of them.
CREATE INDEX page_state_title_width ON page_state (site_id, title_width);
CREATE INDEX page_state_description_width ON page_state (site_id, description_width);
-- Descriptions are long, and differ at their beginning.
CREATE INDEX page_state_description ON page_state (site_id, substr(description, 1, 40));
DROP INDEX page_state_picture;
CREATE INDEX page_state_picture ON page_state (site_id, picture);
DROP INDEX page_state_differs;
CREATE INDEX page_state_differs ON page_state (site_id, differs);
CREATE INDEX page_state_key ON page_state (site_id) WHERE is_key = 1;
CREATE INDEX page_state_title_from ON page_state (site_id, title_from) WHERE title_from <> '';
CREATE INDEX page_state_description_from ON page_state (site_id, description_from) WHERE description_from <> '';
CREATE INDEX page_state_picture_from ON page_state (site_id, picture_from) WHERE picture_from <> '';
