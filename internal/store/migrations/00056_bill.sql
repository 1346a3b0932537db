-- +goose Up
-- What was worked on a job, and the sum that its customer agreed to.
ALTER TABLE jobs ADD COLUMN worked_hours text NOT NULL DEFAULT '', ADD COLUMN agreed_sum text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE jobs DROP COLUMN worked_hours, DROP COLUMN agreed_sum;
