-- +goose Up
-- At which round of tightening a shaft first went stiff.
ALTER TABLE build_steps ADD COLUMN turn_round text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE build_steps DROP COLUMN turn_round;
