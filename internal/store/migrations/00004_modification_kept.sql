-- +goose Up
ALTER TABLE units ADD COLUMN modification_kept text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN modification_kept;
