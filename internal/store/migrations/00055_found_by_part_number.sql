-- +goose Up
-- A job is found by the numbers of its pieces too: what is here already is written as
-- the program writes it from now on.
UPDATE jobs j SET search = lower(concat_ws(' ', j.search, n.numbers)) FROM (
    SELECT job_id, string_agg(DISTINCT number, ' ') AS numbers FROM (
        SELECT job_id, number FROM kit_pieces WHERE number <> ''
        UNION SELECT job_id, maker_no FROM kit_pieces WHERE maker_no <> ''
        UNION SELECT job_id, seal_maker_no FROM parts WHERE seal_maker_no <> '') x GROUP BY job_id) n
    WHERE n.job_id = j.id;
-- Closed jobs, the last ones first: a search by words that many have ends as soon as enough are found.
CREATE INDEX jobs_closed_last ON jobs ((coalesce(withdrawn_at, handed_over_at)) DESC, tag)
    WHERE handed_over_at IS NOT NULL OR withdrawn_at IS NOT NULL;

-- +goose Down
DROP INDEX jobs_closed_last;
UPDATE jobs j SET search = lower(concat_ws(' ', j.tag, j.title, c.name,
        (SELECT string_agg(concat_ws(' ', u.name, u.maker, u.model, u.serial), ' ' ORDER BY u.number) FROM units u
            WHERE u.job_id = j.id)))
    FROM customers c WHERE c.id = j.customer_id;
