-- +goose Up
-- What stands more than once in this very unit, how its own parts are bolted on, and
-- the stack of each round, and which mark a picture shows.
ALTER TABLE units
    ADD COLUMN more text NOT NULL DEFAULT '',
    ADD COLUMN setting_low text NOT NULL DEFAULT '',
    ADD COLUMN setting_high text NOT NULL DEFAULT '',
    ADD COLUMN setting_source text NOT NULL DEFAULT '';
CREATE INDEX units_serial ON units (lower(serial), lower(model)) WHERE serial <> '';
ALTER TABLE parts
    ADD COLUMN thread text NOT NULL DEFAULT '',
    ADD COLUMN class text NOT NULL DEFAULT '',
    ADD COLUMN dry boolean NOT NULL DEFAULT false,
    ADD COLUMN joint_torque text NOT NULL DEFAULT '',
    ADD COLUMN joint_source text NOT NULL DEFAULT '';
ALTER TABLE attachments ADD COLUMN mark text NOT NULL DEFAULT '';
ALTER TABLE picture_marks ADD COLUMN mark text NOT NULL DEFAULT '';
ALTER TABLE build_steps
    ADD COLUMN stack_removed text NOT NULL DEFAULT '',
    ADD COLUMN stack_fit text NOT NULL DEFAULT '';
INSERT INTO build_steps (job_id, unit, part, round, stack_fit)
    SELECT p.job_id, p.unit, p.code, r.round, p.stack_fit
    FROM parts p
    JOIN (SELECT job_id, unit, max(number) AS round FROM rounds GROUP BY job_id, unit) r USING (job_id, unit)
    WHERE p.stack_fit <> ''
    ON CONFLICT (job_id, unit, part, round) DO UPDATE SET stack_fit = excluded.stack_fit;
ALTER TABLE parts DROP COLUMN stack_fit;

-- +goose Down
ALTER TABLE parts ADD COLUMN stack_fit text NOT NULL DEFAULT '';
UPDATE parts p SET stack_fit = s.stack_fit FROM (
    SELECT DISTINCT ON (job_id, unit, part) job_id, unit, part, stack_fit FROM build_steps
    WHERE stack_fit <> '' ORDER BY job_id, unit, part, round DESC) s
    WHERE s.job_id = p.job_id AND s.unit = p.unit AND s.part = p.code;
ALTER TABLE build_steps DROP COLUMN stack_removed, DROP COLUMN stack_fit;
ALTER TABLE parts DROP COLUMN thread, DROP COLUMN class, DROP COLUMN dry, DROP COLUMN joint_torque,
    DROP COLUMN joint_source;
ALTER TABLE attachments DROP COLUMN mark;
ALTER TABLE picture_marks DROP COLUMN mark;
DROP INDEX units_serial;
ALTER TABLE units DROP COLUMN more, DROP COLUMN setting_low, DROP COLUMN setting_high,
    DROP COLUMN setting_source;
