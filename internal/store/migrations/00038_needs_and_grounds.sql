-- +goose Up
-- What the machine asks of a unit, as it was typed.
ALTER TABLE units
    ADD COLUMN need_flow text NOT NULL DEFAULT '',
    ADD COLUMN need_torque text NOT NULL DEFAULT '',
    ADD COLUMN need_line_pull text NOT NULL DEFAULT '',
    ADD COLUMN need_drum text NOT NULL DEFAULT '',
    ADD COLUMN need_rope text NOT NULL DEFAULT '',
    ADD COLUMN need_layer text NOT NULL DEFAULT '',
    ADD COLUMN need_factor text NOT NULL DEFAULT '',
    ADD COLUMN need_load text NOT NULL DEFAULT '',
    ADD COLUMN need_load_time text NOT NULL DEFAULT '',
    ADD COLUMN need_creep text NOT NULL DEFAULT '',
    ADD COLUMN need_leak text NOT NULL DEFAULT '',
    ADD COLUMN need_shot text NOT NULL DEFAULT '',
    ADD COLUMN need_back_low text NOT NULL DEFAULT '',
    ADD COLUMN need_back_high text NOT NULL DEFAULT '',
    ADD COLUMN need_pressure text NOT NULL DEFAULT '',
    ADD COLUMN need_pilot text NOT NULL DEFAULT '',
    ADD COLUMN need_apart text NOT NULL DEFAULT '',
    ADD COLUMN need_force text NOT NULL DEFAULT '',
    ADD COLUMN need_stroke text NOT NULL DEFAULT '',
    ADD COLUMN need_turns text NOT NULL DEFAULT '',
    ADD COLUMN need_draw_time text NOT NULL DEFAULT '',
    ADD COLUMN need_cold text NOT NULL DEFAULT '',
    ADD COLUMN need_hot text NOT NULL DEFAULT '',
    ADD COLUMN need_standing text NOT NULL DEFAULT '',
    ADD COLUMN need_complaint_pressure text NOT NULL DEFAULT '',
    ADD COLUMN need_complaint_temperature text NOT NULL DEFAULT '',
    ADD COLUMN need_complaint_time text NOT NULL DEFAULT '',
    ADD COLUMN need_medium text NOT NULL DEFAULT '';

-- How each figure of a step came: from where, by whom, when, and on what as it then stood.
ALTER TABLE points ADD COLUMN taken jsonb;
ALTER TABLE attempts ADD COLUMN ground int NOT NULL DEFAULT 0;
CREATE TABLE grounds (
    job_id bigint NOT NULL,
    unit int NOT NULL,
    number int NOT NULL,
    stood jsonb,
    PRIMARY KEY (job_id, unit, number),
    FOREIGN KEY (job_id, unit) REFERENCES units (job_id, number) ON DELETE CASCADE
);

-- Whether what a job was opened again for touches the unit.
ALTER TABLE reopenings ADD COLUMN touches text NOT NULL DEFAULT '';

-- +goose Down
DROP TABLE grounds;
ALTER TABLE reopenings DROP COLUMN touches;
ALTER TABLE points DROP COLUMN taken;
ALTER TABLE attempts DROP COLUMN ground;
ALTER TABLE units
    DROP COLUMN need_flow,
    DROP COLUMN need_torque,
    DROP COLUMN need_line_pull,
    DROP COLUMN need_drum,
    DROP COLUMN need_rope,
    DROP COLUMN need_layer,
    DROP COLUMN need_factor,
    DROP COLUMN need_load,
    DROP COLUMN need_load_time,
    DROP COLUMN need_creep,
    DROP COLUMN need_leak,
    DROP COLUMN need_shot,
    DROP COLUMN need_back_low,
    DROP COLUMN need_back_high,
    DROP COLUMN need_pressure,
    DROP COLUMN need_pilot,
    DROP COLUMN need_apart,
    DROP COLUMN need_force,
    DROP COLUMN need_stroke,
    DROP COLUMN need_turns,
    DROP COLUMN need_draw_time,
    DROP COLUMN need_cold,
    DROP COLUMN need_hot,
    DROP COLUMN need_standing,
    DROP COLUMN need_complaint_pressure,
    DROP COLUMN need_complaint_temperature,
    DROP COLUMN need_complaint_time,
    DROP COLUMN need_medium;
