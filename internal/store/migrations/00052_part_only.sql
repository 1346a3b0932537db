-- +goose Up
-- A job that asks for a part only, and where the valves of its drain and suction lines are.
ALTER TABLE jobs ADD COLUMN part_only text NOT NULL DEFAULT '', ADD COLUMN valves_at text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE jobs DROP COLUMN part_only, DROP COLUMN valves_at;
