-- +goose Up
-- What is asked back is part of its job: numbered within it, written with it, in its file.
ALTER TABLE follow_ups ADD COLUMN number int;
UPDATE follow_ups f SET number = n.number
    FROM (SELECT id, row_number() OVER (PARTITION BY job_id ORDER BY id) AS number FROM follow_ups) n
    WHERE n.id = f.id;
ALTER TABLE follow_ups DROP COLUMN id;
ALTER TABLE follow_ups ADD PRIMARY KEY (job_id, number);

-- +goose Down
ALTER TABLE follow_ups DROP CONSTRAINT follow_ups_pkey;
ALTER TABLE follow_ups ADD COLUMN id bigserial PRIMARY KEY;
ALTER TABLE follow_ups DROP COLUMN number;
