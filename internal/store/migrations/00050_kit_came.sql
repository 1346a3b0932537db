-- +goose Up
-- Which kit came, how long a piece takes to come, and how a part is handled.
ALTER TABLE units ADD COLUMN kit_came text NOT NULL DEFAULT '';
ALTER TABLE parts ADD COLUMN order_days integer NOT NULL DEFAULT 0, ADD COLUMN handling text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN kit_came;
ALTER TABLE parts DROP COLUMN order_days, DROP COLUMN handling;
