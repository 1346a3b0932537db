-- +goose Up
-- Whether the complaint came again is a step of the test now, answered like any other.
INSERT INTO points (job_id, unit, attempt, code, word, not_applicable)
    SELECT job_id, unit, number, 'complaint',
        CASE WHEN condition_repeated ILIKE 'yes%' AND verdict = 'in' THEN 'gone' ELSE '' END,
        CASE WHEN condition_repeated ILIKE 'yes%' AND verdict = 'in' THEN '' ELSE condition_repeated END
    FROM attempts WHERE condition_repeated <> '' AND number > 0;
UPDATE attempts SET note = concat_ws('; ', nullif(note, ''), 'complaint''s own condition: ' || condition_repeated)
    WHERE condition_repeated <> '';
ALTER TABLE attempts DROP COLUMN condition_repeated;
DELETE FROM stop_passes WHERE code LIKE 'u%/prove/condition';

-- +goose Down
ALTER TABLE attempts ADD COLUMN condition_repeated text NOT NULL DEFAULT '';
UPDATE attempts a SET condition_repeated = CASE p.word WHEN '' THEN p.not_applicable ELSE 'yes: ' || p.word END
    FROM points p WHERE p.job_id = a.job_id AND p.unit = a.unit AND p.attempt = a.number AND p.code = 'complaint';
DELETE FROM points WHERE code = 'complaint';
