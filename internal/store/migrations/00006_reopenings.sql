-- +goose Up
-- A hand-over that was taken back by a lead, with the reason that papers print.
CREATE TABLE reopenings (
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    number int NOT NULL,
    handed_over timestamptz NOT NULL,
    reason text NOT NULL,
    by_name text NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (job_id, number)
);

-- +goose Down
DROP TABLE reopenings;
