-- +goose Up
-- Where a unit sits: the customer's machine, and its number in his books.
ALTER TABLE units
    ADD COLUMN machine text NOT NULL DEFAULT '',
    ADD COLUMN asset text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN machine, DROP COLUMN asset;
