-- +goose Up
CREATE TABLE causes (
    job_id bigint NOT NULL,
    unit int NOT NULL,
    number int NOT NULL,
    round int NOT NULL,
    role text NOT NULL,
    code text NOT NULL DEFAULT '',
    words text NOT NULL DEFAULT '',
    lies text NOT NULL DEFAULT '',
    action text NOT NULL DEFAULT '',
    owner text NOT NULL DEFAULT '',
    PRIMARY KEY (job_id, unit, number),
    FOREIGN KEY (job_id, unit) REFERENCES units ON DELETE CASCADE
);
-- What was said of the first failure and of what contributed becomes causes of their own.
INSERT INTO causes (job_id, unit, number, round, role, words)
    SELECT job_id, unit, row_number() OVER (PARTITION BY job_id, unit ORDER BY round, role DESC), round, role, words
    FROM (
        SELECT job_id, unit, round, 'first_failure' AS role, proximate AS words FROM conclusions WHERE proximate <> ''
        UNION ALL
        SELECT job_id, unit, round, 'contributing', contributing FROM conclusions WHERE contributing <> ''
    ) said;
ALTER TABLE conclusions DROP COLUMN proximate, DROP COLUMN contributing;

-- +goose Down
ALTER TABLE conclusions
    ADD COLUMN proximate text NOT NULL DEFAULT '',
    ADD COLUMN contributing text NOT NULL DEFAULT '';
UPDATE conclusions c SET
    proximate = coalesce((SELECT string_agg(words, '; ') FROM causes x WHERE x.job_id = c.job_id AND x.unit = c.unit
        AND x.round = c.round AND x.role = 'first_failure'), ''),
    contributing = coalesce((SELECT string_agg(words, '; ') FROM causes x WHERE x.job_id = c.job_id
        AND x.unit = c.unit AND x.round = c.round AND x.role = 'contributing'), '');
DROP TABLE causes;
