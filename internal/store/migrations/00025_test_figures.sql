-- +goose Up
-- What is read at a step of the test, what each figure must be on one unit, what an attempt
-- was read with, and what a gauge can tell.
ALTER TABLE points
    ADD COLUMN pressure_end text NOT NULL DEFAULT '',
    ADD COLUMN case_flow text NOT NULL DEFAULT '',
    ADD COLUMN outlet_a text NOT NULL DEFAULT '',
    ADD COLUMN outlet_b text NOT NULL DEFAULT '',
    ADD COLUMN leakage text NOT NULL DEFAULT '',
    ADD COLUMN torque text NOT NULL DEFAULT '',
    ADD COLUMN start_torque text NOT NULL DEFAULT '',
    ADD COLUMN drag_torque text NOT NULL DEFAULT '',
    ADD COLUMN temperature_end text NOT NULL DEFAULT '',
    ADD COLUMN standby text NOT NULL DEFAULT '',
    ADD COLUMN cut_off text NOT NULL DEFAULT '',
    ADD COLUMN cracking text NOT NULL DEFAULT '',
    ADD COLUMN reseat text NOT NULL DEFAULT '',
    ADD COLUMN falling text NOT NULL DEFAULT '',
    ADD COLUMN breakaway text NOT NULL DEFAULT '',
    ADD COLUMN back_pressure text NOT NULL DEFAULT '',
    ADD COLUMN supply text NOT NULL DEFAULT '',
    ADD COLUMN vent text NOT NULL DEFAULT '',
    ADD COLUMN drift text NOT NULL DEFAULT '',
    ADD COLUMN stroke text NOT NULL DEFAULT '',
    ADD COLUMN rest_stroke text NOT NULL DEFAULT '',
    ADD COLUMN time text NOT NULL DEFAULT '',
    ADD COLUMN turns text NOT NULL DEFAULT '',
    ADD COLUMN strokes text NOT NULL DEFAULT '',
    ADD COLUMN drops text NOT NULL DEFAULT '',
    ADD COLUMN volume text NOT NULL DEFAULT '',
    ADD COLUMN stroke_volume text NOT NULL DEFAULT '',
    ADD COLUMN shut_in text NOT NULL DEFAULT '',
    ADD COLUMN force text NOT NULL DEFAULT '',
    ADD COLUMN current text NOT NULL DEFAULT '',
    ADD COLUMN coil text NOT NULL DEFAULT '',
    ADD COLUMN noise text NOT NULL DEFAULT '';
CREATE TABLE step_limits (
    job_id bigint NOT NULL,
    unit int NOT NULL,
    code text NOT NULL,
    least text NOT NULL DEFAULT '',
    most text NOT NULL DEFAULT '',
    source text NOT NULL DEFAULT '',
    PRIMARY KEY (job_id, unit, code),
    FOREIGN KEY (job_id, unit) REFERENCES units ON DELETE CASCADE
);
ALTER TABLE attempts
    ADD COLUMN pressure_gauge text NOT NULL DEFAULT '',
    ADD COLUMN flow_meter text NOT NULL DEFAULT '';
ALTER TABLE instruments
    ADD COLUMN class text NOT NULL DEFAULT '',
    ADD COLUMN full_scale text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE instruments DROP COLUMN class, DROP COLUMN full_scale;
ALTER TABLE attempts DROP COLUMN pressure_gauge, DROP COLUMN flow_meter;
DROP TABLE step_limits;
ALTER TABLE points
    DROP COLUMN pressure_end, DROP COLUMN case_flow, DROP COLUMN outlet_a, DROP COLUMN outlet_b,
    DROP COLUMN leakage, DROP COLUMN torque, DROP COLUMN start_torque, DROP COLUMN drag_torque,
    DROP COLUMN temperature_end, DROP COLUMN standby, DROP COLUMN cut_off, DROP COLUMN cracking,
    DROP COLUMN reseat, DROP COLUMN falling, DROP COLUMN breakaway, DROP COLUMN back_pressure,
    DROP COLUMN supply, DROP COLUMN vent, DROP COLUMN drift, DROP COLUMN stroke, DROP COLUMN rest_stroke,
    DROP COLUMN time, DROP COLUMN turns, DROP COLUMN strokes, DROP COLUMN drops, DROP COLUMN volume,
    DROP COLUMN stroke_volume, DROP COLUMN shut_in, DROP COLUMN force, DROP COLUMN current, DROP COLUMN coil,
    DROP COLUMN noise;
