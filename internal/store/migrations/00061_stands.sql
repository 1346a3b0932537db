-- +goose Up
-- A machine that stands, with none in its place; and the day that whoever runs it was told.
ALTER TABLE jobs ADD COLUMN stands boolean NOT NULL DEFAULT false, ADD COLUMN told_day date;

-- +goose Down
ALTER TABLE jobs DROP COLUMN stands, DROP COLUMN told_day;
