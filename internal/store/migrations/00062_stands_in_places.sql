-- +goose Up
-- A stand that is read is one of the places that are planned, where it is not there for practice only.
ALTER TABLE stands ADD COLUMN place_id bigint REFERENCES places ON DELETE SET NULL;
UPDATE stands s SET place_id = p.id FROM places p WHERE p.kind = 'stand' AND lower(p.name) = lower(s.name);
-- When a new piece was ordered, and when it came.
ALTER TABLE parts ADD COLUMN order_placed date, ADD COLUMN order_came date;

-- +goose Down
ALTER TABLE parts DROP COLUMN order_placed, DROP COLUMN order_came;
ALTER TABLE stands DROP COLUMN place_id;
