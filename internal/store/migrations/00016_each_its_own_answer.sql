-- +goose Up
-- Answers that settle one question each: what a blamed part outside measured, what
-- was done before another unit ran, what was flushed and by whom, and what became of
-- a second sump.
ALTER TABLE conclusions
    ADD COLUMN blamed text NOT NULL DEFAULT '',
    ADD COLUMN blamed_found text NOT NULL DEFAULT '',
    ADD COLUMN cured text NOT NULL DEFAULT '';
ALTER TABLE units
    ADD COLUMN flushed_by text NOT NULL DEFAULT '',
    ADD COLUMN flush text NOT NULL DEFAULT '',
    ADD COLUMN other_sump text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN flushed_by, DROP COLUMN flush, DROP COLUMN other_sump;
ALTER TABLE conclusions DROP COLUMN blamed, DROP COLUMN blamed_found, DROP COLUMN cured;
