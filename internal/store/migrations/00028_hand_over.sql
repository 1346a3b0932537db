-- +goose Up
-- Who took the unit, what was given back, at which station its lesson matters; and what is
-- asked back after the hand-over, which may be answered on a closed job.
ALTER TABLE jobs
    ADD COLUMN collected_by text NOT NULL DEFAULT '',
    ADD COLUMN gave_old_parts boolean NOT NULL DEFAULT false,
    ADD COLUMN gave_springs boolean NOT NULL DEFAULT false,
    ADD COLUMN gave_card boolean NOT NULL DEFAULT false,
    ADD COLUMN lesson_at text NOT NULL DEFAULT '';
CREATE TABLE follow_ups (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs,
    unit int NOT NULL,
    kind text NOT NULL,
    due_on date NOT NULL,
    asked_by text NOT NULL,
    result text NOT NULL DEFAULT '',
    note text NOT NULL DEFAULT '',
    answered_by text NOT NULL DEFAULT '',
    answered_at timestamptz
);
CREATE INDEX ON follow_ups (job_id);
CREATE INDEX ON follow_ups (due_on) WHERE answered_at IS NULL;

-- +goose Down
DROP TABLE follow_ups;
ALTER TABLE jobs DROP COLUMN collected_by, DROP COLUMN gave_old_parts, DROP COLUMN gave_springs,
    DROP COLUMN gave_card, DROP COLUMN lesson_at;
