-- +goose Up
-- The size that a rework brought a feature to: as new from then on. What it was when it came stays beside it.
ALTER TABLE features
    ADD COLUMN made_low text NOT NULL DEFAULT '',
    ADD COLUMN made_high text NOT NULL DEFAULT '',
    ADD COLUMN made_source text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE features
    DROP COLUMN made_low,
    DROP COLUMN made_high,
    DROP COLUMN made_source;
