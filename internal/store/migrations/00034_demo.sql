-- +goose Up
-- How far the made-up shop is loaded: begun, or done; empty in a shop of its own. A load that was
-- cut short goes on at the next start.
ALTER TABLE shop ADD COLUMN demo text NOT NULL DEFAULT '' CHECK (demo IN ('', 'begun', 'done'));

-- +goose Down
ALTER TABLE shop DROP COLUMN demo;
