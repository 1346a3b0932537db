-- +goose Up
-- What a hand-over came to, of each unit: what an owner counts. Of one before this, nothing is known.
CREATE TABLE hand_over_results (
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    hand_over bigint NOT NULL,
    unit bigint NOT NULL,
    proved boolean NOT NULL,
    attempts bigint NOT NULL,
    rounds bigint NOT NULL,
    reckoned double precision NOT NULL DEFAULT 0, -- hours that guidance gives the unit as it came in
    PRIMARY KEY (job_id, hand_over, unit)
);

-- +goose Down
DROP TABLE hand_over_results;
