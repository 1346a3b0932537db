-- +goose Up
-- What each calibration of an instrument found, and when one was lost.
ALTER TABLE instruments ADD COLUMN lost_on date;
CREATE TABLE calibrations (
    id bigserial PRIMARY KEY,
    instrument_id bigint NOT NULL REFERENCES instruments,
    on_day date NOT NULL,
    result text NOT NULL,
    due_on date,
    note text NOT NULL DEFAULT '',
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX calibrations_of ON calibrations (instrument_id, on_day DESC, id DESC);

-- +goose Down
DROP TABLE calibrations;
ALTER TABLE instruments DROP COLUMN lost_on;
