-- +goose Up
-- How a part went in: counted, felt, pressed, over what, how often it came out again; how a
-- joint is kept; where a lip runs; and how the unit was filled.
ALTER TABLE build_steps
    ADD COLUMN count text NOT NULL DEFAULT '',
    ADD COLUMN turn_torque text NOT NULL DEFAULT '',
    ADD COLUMN push text NOT NULL DEFAULT '',
    ADD COLUMN proud text NOT NULL DEFAULT '',
    ADD COLUMN press text NOT NULL DEFAULT '',
    ADD COLUMN cycled boolean NOT NULL DEFAULT false,
    ADD COLUMN order_why text NOT NULL DEFAULT '',
    ADD COLUMN over text NOT NULL DEFAULT '',
    ADD COLUMN taken_out int NOT NULL DEFAULT 0;
ALTER TABLE parts
    ADD COLUMN snug boolean NOT NULL DEFAULT false,
    ADD COLUMN locking text NOT NULL DEFAULT '',
    ADD COLUMN engaged text NOT NULL DEFAULT '',
    ADD COLUMN lip_groove text NOT NULL DEFAULT '',
    ADD COLUMN lip_groove_width text NOT NULL DEFAULT '',
    ADD COLUMN lip_position text NOT NULL DEFAULT '',
    ADD COLUMN lip_bore text NOT NULL DEFAULT '',
    ADD COLUMN lip_shoulder text NOT NULL DEFAULT '';
ALTER TABLE units ADD COLUMN fill text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN fill;
ALTER TABLE parts DROP COLUMN snug, DROP COLUMN locking, DROP COLUMN engaged, DROP COLUMN lip_groove,
    DROP COLUMN lip_groove_width, DROP COLUMN lip_position, DROP COLUMN lip_bore, DROP COLUMN lip_shoulder;
ALTER TABLE build_steps DROP COLUMN count, DROP COLUMN turn_torque, DROP COLUMN push, DROP COLUMN proud,
    DROP COLUMN press, DROP COLUMN cycled, DROP COLUMN order_why, DROP COLUMN over, DROP COLUMN taken_out;
