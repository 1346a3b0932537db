-- +goose Up
-- Rows stand as their types declare them: the figures of a step are many of one kind and one value,
-- marks of a unit and of its parts have the same columns, and what a picture consists of stands
-- beside it, so that nobody reads it who does not ask for it.
SET LOCAL statement_timeout = 0;
ALTER TABLE points ADD COLUMN figures jsonb NOT NULL DEFAULT '{}';
UPDATE points p SET figures = coalesce(f.typed, '{}') FROM (
    SELECT q.job_id, q.unit, q.attempt, q.code, jsonb_object_agg(v.key, v.value) FILTER (WHERE v.value <> '') AS typed
    FROM points q, jsonb_each_text(to_jsonb(q) - ARRAY['job_id', 'unit', 'attempt', 'code', 'word', 'hold_from',
        'hold_to', 'not_applicable', 'figures']) v
    GROUP BY q.job_id, q.unit, q.attempt, q.code) f
    WHERE f.job_id = p.job_id AND f.unit = p.unit AND f.attempt = p.attempt AND f.code = p.code;
ALTER TABLE points
    DROP COLUMN pressure, DROP COLUMN flow, DROP COLUMN speed, DROP COLUMN temperature,
    DROP COLUMN pressure_end, DROP COLUMN case_flow, DROP COLUMN outlet_a, DROP COLUMN outlet_b,
    DROP COLUMN leakage, DROP COLUMN torque, DROP COLUMN start_torque, DROP COLUMN drag_torque,
    DROP COLUMN temperature_end, DROP COLUMN standby, DROP COLUMN cut_off, DROP COLUMN cracking,
    DROP COLUMN reseat, DROP COLUMN falling, DROP COLUMN breakaway, DROP COLUMN back_pressure,
    DROP COLUMN supply, DROP COLUMN vent, DROP COLUMN drift, DROP COLUMN stroke, DROP COLUMN rest_stroke,
    DROP COLUMN time, DROP COLUMN turns, DROP COLUMN strokes, DROP COLUMN drops, DROP COLUMN volume,
    DROP COLUMN stroke_volume, DROP COLUMN shut_in, DROP COLUMN force, DROP COLUMN current, DROP COLUMN coil,
    DROP COLUMN noise;

ALTER TABLE evidence ADD COLUMN grade text NOT NULL DEFAULT '';

CREATE TABLE picture_contents (
    job_id bigint NOT NULL,
    picture int NOT NULL,
    content bytea NOT NULL,
    thumb bytea,
    PRIMARY KEY (job_id, picture),
    FOREIGN KEY (job_id, picture) REFERENCES attachments (job_id, number) ON DELETE CASCADE
);
INSERT INTO picture_contents SELECT job_id, number, content, thumb FROM attachments;
ALTER TABLE attachments DROP COLUMN content, DROP COLUMN thumb;

-- +goose Down
-- What was read at a step the programs of before do not know stands in no column of theirs: restore
-- a backup instead.
SELECT 1 / 0;
