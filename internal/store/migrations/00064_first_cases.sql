-- +goose Up
-- How many units of practice somebody is to name rightly before he has a job of his own, 0 for none; and since when he
-- shows leads what he tends to there, null while he does not.
ALTER TABLE people
    ADD COLUMN first_cases int NOT NULL DEFAULT 0 CHECK (first_cases >= 0),
    ADD COLUMN practice_shown timestamptz;

-- +goose Down
ALTER TABLE people DROP COLUMN first_cases, DROP COLUMN practice_shown;
