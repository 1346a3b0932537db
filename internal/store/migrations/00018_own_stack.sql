-- +goose Up
-- What stack belongs to this very unit, where that is known from, and the size of its
-- own springs.
ALTER TABLE parts
    ADD COLUMN stack_from text NOT NULL DEFAULT '',
    ADD COLUMN stack_right text NOT NULL DEFAULT '',
    ADD COLUMN spring_outside text NOT NULL DEFAULT '',
    ADD COLUMN spring_inside text NOT NULL DEFAULT '',
    ADD COLUMN spring_thickness text NOT NULL DEFAULT '',
    ADD COLUMN spring_cone text NOT NULL DEFAULT '',
    ADD COLUMN stack_space text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE parts DROP COLUMN stack_from, DROP COLUMN stack_right, DROP COLUMN spring_outside,
    DROP COLUMN spring_inside, DROP COLUMN spring_thickness, DROP COLUMN spring_cone, DROP COLUMN stack_space;
