-- +goose Up
-- What makes a unit on the bench another than its family: parts it does not have,
-- other numbers of pieces, pieces of broken ones, and the marks its parts bear.
ALTER TABLE parts
    ADD COLUMN absent text NOT NULL DEFAULT '',
    ADD COLUMN expected_from text NOT NULL DEFAULT '',
    ADD COLUMN expected_why text NOT NULL DEFAULT '',
    ADD COLUMN bits text NOT NULL DEFAULT '',
    ADD COLUMN bits_make text NOT NULL DEFAULT '',
    ADD COLUMN sound boolean NOT NULL DEFAULT false;
ALTER TABLE loose_items ADD COLUMN bit boolean NOT NULL DEFAULT false;

CREATE TABLE part_marks (
    job_id bigint NOT NULL,
    unit int NOT NULL,
    part text NOT NULL,
    round int NOT NULL,
    code text NOT NULL,
    state text NOT NULL DEFAULT '',
    grade text NOT NULL DEFAULT '',
    origin text NOT NULL DEFAULT 'found_so',
    found_how text NOT NULL DEFAULT '',
    age text NOT NULL DEFAULT '',
    note text NOT NULL DEFAULT '',
    PRIMARY KEY (job_id, unit, part, round, code),
    FOREIGN KEY (job_id, unit, part) REFERENCES parts ON DELETE CASCADE
);

-- +goose Down
DROP TABLE part_marks;
ALTER TABLE loose_items DROP COLUMN bit;
ALTER TABLE parts DROP COLUMN absent, DROP COLUMN expected_from, DROP COLUMN expected_why, DROP COLUMN bits,
    DROP COLUMN bits_make, DROP COLUMN sound;
