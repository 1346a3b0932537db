-- +goose Up
-- A job that a lead withdraws is kept, marked, and off the board.
ALTER TABLE jobs
    ADD COLUMN withdrawn_at timestamptz,
    ADD COLUMN withdrawn_by text NOT NULL DEFAULT '',
    ADD COLUMN withdrawn_reason text NOT NULL DEFAULT '';
DROP INDEX jobs_in_hand;
CREATE INDEX jobs_in_hand ON jobs (waiting, promised_on NULLS LAST, tag)
    WHERE handed_over_at IS NULL AND withdrawn_at IS NULL;

-- Papers as they were on the day of a hand-over.
CREATE TABLE papers (
    job_id bigint NOT NULL REFERENCES jobs,
    hand_over int NOT NULL, -- from 1
    name text NOT NULL,
    media_type text NOT NULL,
    at timestamptz NOT NULL,
    sha256 text NOT NULL,
    content bytea NOT NULL,
    PRIMARY KEY (job_id, hand_over, name)
);

-- Lines of another store's record are marked, and the mark is fingerprinted with them.
ALTER TABLE record_entries ADD COLUMN brought boolean NOT NULL DEFAULT false;
-- +goose StatementBegin
CREATE OR REPLACE FUNCTION record_write(job bigint, lines jsonb) RETURNS void AS $$
DECLARE
    line jsonb;
    head record_head;
    tag text;
    own bytea;
    moment timestamptz;
    words text[];
    other boolean;
BEGIN
    SELECT * INTO head FROM record_head FOR UPDATE;
    SELECT j.tag INTO tag FROM jobs j WHERE j.id = job;
    SELECT r.job_chain INTO own FROM record_entries r WHERE r.job_id = job ORDER BY r.place DESC LIMIT 1;
    FOR line IN SELECT * FROM jsonb_array_elements(lines) LOOP
        moment := (line ->> 'at')::timestamptz;
        other := coalesce((line ->> 'brought')::boolean, false);
        words := ARRAY[line ->> 'who', record_moment(moment), line ->> 'action', line ->> 'field', line ->> 'before',
            line ->> 'after'];
        IF other THEN
            words := words || 'brought in'::text;
        END IF;
        head.place := head.place + 1;
        own := sha256(coalesce(own, '') || record_text(tag, VARIADIC words));
        head.chain := sha256(head.chain || own);
        INSERT INTO record_entries (job_id, who, at, action, field, before, after, brought, place, job_chain, chain)
        VALUES (job, line ->> 'who', moment, line ->> 'action', line ->> 'field', line ->> 'before', line ->> 'after',
            other, head.place, own, head.chain);
    END LOOP;
    UPDATE record_head SET place = head.place, chain = head.chain;
END
$$ LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp;
-- +goose StatementEnd
REVOKE ALL ON FUNCTION record_write(bigint, jsonb) FROM PUBLIC;

-- +goose Down
ALTER TABLE record_entries DROP COLUMN brought;
DROP TABLE papers;
DROP INDEX jobs_in_hand;
CREATE INDEX jobs_in_hand ON jobs (waiting, promised_on NULLS LAST, tag) WHERE handed_over_at IS NULL;
ALTER TABLE jobs DROP COLUMN withdrawn_at, DROP COLUMN withdrawn_by, DROP COLUMN withdrawn_reason;
