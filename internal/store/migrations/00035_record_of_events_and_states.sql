-- +goose Up
-- A line of the record says what it was as data, in which role it was done, and, where it ends a
-- write, what the job said after it. Lines of before have form 1: their words and nothing else.
ALTER TABLE record_entries
    ADD COLUMN form smallint NOT NULL DEFAULT 1,
    ADD COLUMN role text NOT NULL DEFAULT '',
    ADD COLUMN kind text NOT NULL DEFAULT '',  -- of its event, for looking up
    ADD COLUMN event text NOT NULL DEFAULT '', -- JSON, as it is fingerprinted
    ADD COLUMN state text NOT NULL DEFAULT ''; -- of the job after it, on the last line of a write
CREATE INDEX record_events ON record_entries (job_id, place) WHERE kind <> '';

-- Where the record of each job ends, and what each piece of the job said then: lines that were cut
-- off at its end are missed on the job's own page.
CREATE TABLE record_tails (
    job_id bigint PRIMARY KEY REFERENCES jobs,
    lines bigint NOT NULL,
    job_chain bytea NOT NULL,
    state text NOT NULL DEFAULT '',
    sections text NOT NULL DEFAULT ''
);
INSERT INTO record_tails (job_id, lines, job_chain)
    SELECT DISTINCT ON (job_id) job_id, count(*) OVER (PARTITION BY job_id), job_chain FROM record_entries
    ORDER BY job_id, place DESC;

DROP FUNCTION record_write(bigint, jsonb);
-- +goose StatementBegin
-- record_write appends lines of a job, given as a list of objects. now_state is what the job says
-- after them, and now_sections what each piece of it does.
CREATE FUNCTION record_write(job bigint, lines jsonb, now_state text, now_sections text) RETURNS void AS $$
DECLARE
    line jsonb;
    head record_head;
    tag text;
    own bytea;
    moment timestamptz;
    of_line text;
    left_over int := jsonb_array_length(lines);
    other boolean;
BEGIN
    SELECT * INTO head FROM record_head FOR UPDATE;
    SELECT j.tag INTO tag FROM jobs j WHERE j.id = job;
    SELECT r.job_chain INTO own FROM record_entries r WHERE r.job_id = job ORDER BY r.place DESC LIMIT 1;
    FOR line IN SELECT * FROM jsonb_array_elements(lines) LOOP
        left_over := left_over - 1;
        of_line := CASE WHEN left_over = 0 THEN now_state ELSE '' END;
        moment := (line ->> 'at')::timestamptz;
        other := coalesce((line ->> 'brought')::boolean, false);
        head.place := head.place + 1;
        own := sha256(coalesce(own, '') || record_text(tag, line ->> 'who', record_moment(moment), line ->> 'action',
            line ->> 'field', line ->> 'before', line ->> 'after', CASE WHEN other THEN 'brought in' ELSE '' END,
            'form 2', line ->> 'role', line ->> 'kind', line ->> 'event', of_line));
        head.chain := sha256(head.chain || own);
        INSERT INTO record_entries (job_id, who, at, action, field, before, after, brought, place, job_chain, chain,
            form, role, kind, event, state)
        VALUES (job, line ->> 'who', moment, line ->> 'action', line ->> 'field', line ->> 'before', line ->> 'after',
            other, head.place, own, head.chain, 2, line ->> 'role', line ->> 'kind', line ->> 'event', of_line);
    END LOOP;
    UPDATE record_head SET place = head.place, chain = head.chain;
    INSERT INTO record_tails AS t (job_id, lines, job_chain, state, sections)
        VALUES (job, jsonb_array_length(lines), own, now_state, now_sections)
        ON CONFLICT (job_id) DO UPDATE SET lines = t.lines + excluded.lines, job_chain = excluded.job_chain,
            state = CASE WHEN excluded.state = '' THEN t.state ELSE excluded.state END,
            sections = CASE WHEN excluded.sections = '' THEN t.sections ELSE excluded.sections END;
END
$$ LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp;
-- +goose StatementEnd
REVOKE ALL ON FUNCTION record_write(bigint, jsonb, text, text) FROM PUBLIC;
CREATE TRIGGER record_tails_never_emptied BEFORE DELETE OR TRUNCATE ON record_tails
    FOR EACH STATEMENT EXECUTE FUNCTION record_is_append_only();

-- Sign-offs of before were words. Those that still hold are taken over as data: written by somebody
-- who is a lead, for the very line before it, with nothing after it but the closing of the job.
-- +goose StatementBegin
DO $$
DECLARE
    s record;
    signed text := '^signed off the papers of unit [0-9]{1,3}: record of [0-9]{1,9} lines?, '
        'fingerprint [0-9a-f]{64}$';
BEGIN
    FOR s IN
        SELECT r.*, substring(r.action from 'unit ([0-9]+):')::int AS unit,
            substring(r.action from 'record of ([0-9]+) line')::int AS lines
        FROM record_entries r JOIN people p ON p.name = r.who AND p.role = 'lead'
        WHERE r.field = '' AND NOT r.brought
            AND r.action ~ signed
            AND right(r.action, 64) = (SELECT encode(b.job_chain, 'hex') FROM record_entries b
                WHERE b.job_id = r.job_id AND b.place < r.place ORDER BY b.place DESC LIMIT 1)
            AND NOT EXISTS (SELECT FROM record_entries l WHERE l.job_id = r.job_id AND l.place > r.place
                AND NOT (l.field IN ('job/collected_by', 'job/gave_old_parts', 'job/gave_springs', 'job/gave_card',
                        'job/lesson', 'job/lesson_at', 'job/waiting', 'job/promised_on')
                    OR l.action = 'handed over'
                    OR l.action ~ signed
                    OR l.action ~ '^kept the paper of the day [a-z0-9.-]+, SHA-256 [0-9a-f]{64}$'))
        ORDER BY r.place
    LOOP
        PERFORM record_write(s.job_id, jsonb_build_array(jsonb_build_object('who', s.who, 'at', now(),
            'action', 'taken over from an earlier version: ' || s.action, 'field', '', 'before', '', 'after', '',
            'role', 'lead', 'kind', 'signed_off', 'event', jsonb_build_object('kind', 'signed_off', 'unit', s.unit,
                'lines', s.lines, 'head', right(s.action, 64), 'on', to_char(s.at AT TIME ZONE 'UTC',
                'YYYY-MM-DD"T"HH24:MI:SS.US"Z"'))::text)), '', '');
    END LOOP;
END
$$;
-- +goose StatementEnd

-- +goose Down
-- What was written in the new form cannot be told in the old one: restore a backup instead.
SELECT 1 / 0;
