-- +goose Up
-- What a test was run on, asked once a day; and what a stand calls itself, without which its figures
-- show nothing.
ALTER TABLE attempts
    ADD COLUMN ran_on_stand text NOT NULL DEFAULT '',
    ADD COLUMN ran_on_oil text NOT NULL DEFAULT '',
    ADD COLUMN ran_on_temperature text NOT NULL DEFAULT '',
    ADD COLUMN ran_on_viscosity text NOT NULL DEFAULT '',
    ADD COLUMN ran_on_clean text NOT NULL DEFAULT '';
ALTER TABLE attempts DROP CONSTRAINT attempts_source_check,
    ADD CONSTRAINT attempts_source_check CHECK (source IN ('typed', 'stand', 'log', 'simulated', 'unknown'));
CREATE INDEX attempts_ran_on ON attempts (at) WHERE ran_on_oil <> '';
ALTER TABLE recordings ADD COLUMN said text NOT NULL DEFAULT '';
-- Oil that was put in by portions, and the most that the book lets in.
ALTER TABLE points ADD COLUMN pours jsonb;
ALTER TABLE units ADD COLUMN need_fill text NOT NULL DEFAULT '';
-- Whether a unit goes out only with papers that a lead signed off.
ALTER TABLE shop ADD COLUMN lead_signs boolean NOT NULL DEFAULT true;

-- +goose Down
ALTER TABLE units DROP COLUMN need_fill;
ALTER TABLE points DROP COLUMN pours;
ALTER TABLE shop DROP COLUMN lead_signs;
ALTER TABLE recordings DROP COLUMN said;
UPDATE attempts SET source = 'typed' WHERE source = 'unknown';
ALTER TABLE attempts DROP CONSTRAINT attempts_source_check,
    ADD CONSTRAINT attempts_source_check CHECK (source IN ('typed', 'stand', 'log', 'simulated'));
ALTER TABLE attempts
    DROP COLUMN ran_on_stand,
    DROP COLUMN ran_on_oil,
    DROP COLUMN ran_on_temperature,
    DROP COLUMN ran_on_viscosity,
    DROP COLUMN ran_on_clean;
