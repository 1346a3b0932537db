-- +goose Up
-- What kind of change an attempt follows, to which part, and a second one made at once.
ALTER TABLE attempts
    ADD COLUMN change_kind text NOT NULL DEFAULT '',
    ADD COLUMN change_part text NOT NULL DEFAULT '',
    ADD COLUMN second_change text NOT NULL DEFAULT '',
    ADD COLUMN second_kind text NOT NULL DEFAULT '',
    ADD COLUMN second_part text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE attempts DROP COLUMN change_kind, DROP COLUMN change_part, DROP COLUMN second_change,
    DROP COLUMN second_kind, DROP COLUMN second_part;
