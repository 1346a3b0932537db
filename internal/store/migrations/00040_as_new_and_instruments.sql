-- +goose Up
-- The size that a feature of this unit had as new, with where that is known from; and by what its instrument
-- may be wrong.
ALTER TABLE features
    ADD COLUMN tool text NOT NULL DEFAULT '',
    ADD COLUMN permitted text NOT NULL DEFAULT '',
    ADD COLUMN new_low text NOT NULL DEFAULT '',
    ADD COLUMN new_high text NOT NULL DEFAULT '',
    ADD COLUMN new_from text NOT NULL DEFAULT '',
    ADD COLUMN new_source text NOT NULL DEFAULT '';
ALTER TABLE units ADD COLUMN parts_temperature text NOT NULL DEFAULT '';
ALTER TABLE parts
    ADD COLUMN joint_angle text NOT NULL DEFAULT '',
    ADD COLUMN stack_needed text NOT NULL DEFAULT '',
    ADD COLUMN friction text NOT NULL DEFAULT '',
    ADD COLUMN friction_source text NOT NULL DEFAULT '';
ALTER TABLE instruments ADD COLUMN permitted text NOT NULL DEFAULT '';
-- Limits that came from a family of an earlier version are of no unit: they stay to be read, and judge nothing.
UPDATE features SET standing = 'earlier' WHERE standing = 'guidance' AND (lower <> '' OR upper <> '');

-- +goose Down
UPDATE features SET standing = 'guidance' WHERE standing = 'earlier';
ALTER TABLE instruments DROP COLUMN permitted;
ALTER TABLE parts DROP COLUMN joint_angle, DROP COLUMN stack_needed, DROP COLUMN friction, DROP COLUMN friction_source;
ALTER TABLE units DROP COLUMN parts_temperature;
ALTER TABLE features
    DROP COLUMN tool,
    DROP COLUMN permitted,
    DROP COLUMN new_low,
    DROP COLUMN new_high,
    DROP COLUMN new_from,
    DROP COLUMN new_source;
