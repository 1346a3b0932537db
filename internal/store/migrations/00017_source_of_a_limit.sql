-- +goose Up
-- A limit names the document it stands in. Those that came with a family were
-- called the maker's, which nobody had shown: they are guidance.
ALTER TABLE features ADD COLUMN source text NOT NULL DEFAULT '';
UPDATE features SET standing = 'guidance' WHERE standing = 'maker';

-- +goose Down
ALTER TABLE features DROP COLUMN source;
