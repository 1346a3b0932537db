-- +goose Up
-- How a part was saved, what a spring turned out to be, and the offer with its answer.
CREATE TABLE reworks (
    job_id bigint NOT NULL,
    unit int NOT NULL,
    part text NOT NULL,
    route text NOT NULL,
    goes boolean NOT NULL DEFAULT false,
    taken text NOT NULL DEFAULT '',
    flat_how text NOT NULL DEFAULT '',
    flat_first text NOT NULL DEFAULT '',
    flat_now text NOT NULL DEFAULT '',
    price text NOT NULL DEFAULT '',
    sent date,
    back date,
    PRIMARY KEY (job_id, unit, part, route),
    FOREIGN KEY (job_id, unit, part) REFERENCES parts ON DELETE CASCADE
);
ALTER TABLE parts
    ADD COLUMN price text NOT NULL DEFAULT '',
    ADD COLUMN coil_is text NOT NULL DEFAULT '',
    ADD COLUMN coil_rate text NOT NULL DEFAULT '',
    ADD COLUMN coil_wire text NOT NULL DEFAULT '',
    ADD COLUMN coil_mean text NOT NULL DEFAULT '',
    ADD COLUMN coil_turns text NOT NULL DEFAULT '';
ALTER TABLE jobs
    ADD COLUMN parts_days text NOT NULL DEFAULT '',
    ADD COLUMN life_rebuild text NOT NULL DEFAULT '',
    ADD COLUMN life_overhaul text NOT NULL DEFAULT '',
    ADD COLUMN quoted_on date,
    ADD COLUMN answer text NOT NULL DEFAULT '',
    ADD COLUMN answer_by text NOT NULL DEFAULT '',
    ADD COLUMN answer_on date,
    ADD COLUMN answer_note text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE jobs DROP COLUMN parts_days, DROP COLUMN life_rebuild, DROP COLUMN life_overhaul,
    DROP COLUMN quoted_on, DROP COLUMN answer, DROP COLUMN answer_by, DROP COLUMN answer_on,
    DROP COLUMN answer_note;
ALTER TABLE parts DROP COLUMN price, DROP COLUMN coil_is, DROP COLUMN coil_rate, DROP COLUMN coil_wire,
    DROP COLUMN coil_mean, DROP COLUMN coil_turns;
DROP TABLE reworks;
