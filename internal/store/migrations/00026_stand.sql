-- +goose Up
-- Stands that the shop can read and drive over OPC UA, and what they showed: in chunks of
-- samples, each with the least and the most of every channel, so that a long run opens by
-- its outline. What was recorded is only added to.
CREATE TABLE stands (
    name text PRIMARY KEY,
    endpoint text NOT NULL,
    nodes text NOT NULL
);
CREATE TABLE recordings (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs,
    unit int NOT NULL,
    attempt int NOT NULL,
    stand text NOT NULL,
    source text NOT NULL,
    channels text NOT NULL,
    by_name text NOT NULL,
    started_at timestamptz NOT NULL
);
CREATE INDEX ON recordings (job_id, unit);
CREATE TABLE recording_chunks (
    recording_id bigint NOT NULL REFERENCES recordings,
    seq int NOT NULL,
    from_at timestamptz NOT NULL,
    to_at timestamptz NOT NULL,
    samples int NOT NULL,
    outline bytea NOT NULL,
    content bytea NOT NULL,
    PRIMARY KEY (recording_id, seq)
);
CREATE TABLE recording_notes (
    id bigserial PRIMARY KEY,
    recording_id bigint NOT NULL REFERENCES recordings,
    at timestamptz NOT NULL,
    note text NOT NULL
);
CREATE INDEX ON recording_notes (recording_id);
ALTER TABLE attempts DROP CONSTRAINT attempts_source_check,
    ADD CONSTRAINT attempts_source_check CHECK (source IN ('typed', 'stand', 'log', 'simulated'));

-- +goose Down
UPDATE attempts SET source = 'typed' WHERE source IN ('stand', 'log');
ALTER TABLE attempts DROP CONSTRAINT attempts_source_check,
    ADD CONSTRAINT attempts_source_check CHECK (source IN ('typed', 'simulated'));
DROP TABLE recording_notes;
DROP TABLE recording_chunks;
DROP TABLE recordings;
DROP TABLE stands;
