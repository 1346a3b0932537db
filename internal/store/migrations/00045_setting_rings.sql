-- +goose Up
-- What a comparing instrument is set by may be wrong too: a setting ring, a block.
ALTER TABLE instruments ADD COLUMN setting text NOT NULL DEFAULT '';
ALTER TABLE features ADD COLUMN setting text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE features DROP COLUMN setting;
ALTER TABLE instruments DROP COLUMN setting;
