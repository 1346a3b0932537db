-- +goose Up
-- What each act changed, row by row, so that the one who did it can take it back while
-- nothing rests on it.
CREATE TABLE acts (
    job_id  bigint NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    version bigint NOT NULL,
    who     text NOT NULL,
    at      timestamptz NOT NULL DEFAULT now(),
    lines   jsonb NOT NULL,
    changed jsonb NOT NULL,
    undone  boolean NOT NULL DEFAULT false,
    PRIMARY KEY (job_id, version)
);

-- +goose Down
DROP TABLE acts;
