-- +goose Up
CREATE TABLE worked_figures (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    calculator text NOT NULL,
    note text NOT NULL DEFAULT '',
    inputs text NOT NULL, -- JSON as given to the calculator
    answer text NOT NULL, -- JSON as it answered on that day
    by_name text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX worked_figures_job ON worked_figures (job_id);

-- +goose Down
DROP TABLE worked_figures;
