-- +goose Up
-- Each line of the record carries the fingerprint of all lines of its job before
-- it, and of all lines of the store: one that is changed, taken out or put in by
-- hand fits no longer, and neither does any later one.
CREATE TABLE record_head (
    only_one boolean PRIMARY KEY DEFAULT true CHECK (only_one),
    place bigint NOT NULL DEFAULT 0,
    chain bytea NOT NULL DEFAULT ''
);
INSERT INTO record_head DEFAULT VALUES;
ALTER TABLE record_entries ADD COLUMN place bigint, ADD COLUMN job_chain bytea, ADD COLUMN chain bytea;

-- +goose StatementBegin
-- record_text is a line as it is fingerprinted: each part after its length, so
-- that no two lines read alike.
CREATE FUNCTION record_text(tag text, VARIADIC parts text[]) RETURNS bytea AS $$
    SELECT convert_to(string_agg(octet_length(p) || ':' || p, '' ORDER BY n), 'UTF8')
    FROM unnest(tag || parts) WITH ORDINALITY AS t(p, n)
$$ LANGUAGE sql IMMUTABLE;
-- +goose StatementEnd

-- +goose StatementBegin
CREATE FUNCTION record_moment(at timestamptz) RETURNS text AS $$
    SELECT to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')
$$ LANGUAGE sql STABLE;
-- +goose StatementEnd

-- +goose StatementBegin
-- record_write appends lines of a job, given as a list of objects.
CREATE FUNCTION record_write(job bigint, lines jsonb) RETURNS void AS $$
DECLARE
    line jsonb;
    head record_head;
    tag text;
    own bytea;
    moment timestamptz;
BEGIN
    SELECT * INTO head FROM record_head FOR UPDATE;
    SELECT j.tag INTO tag FROM jobs j WHERE j.id = job;
    SELECT r.job_chain INTO own FROM record_entries r WHERE r.job_id = job ORDER BY r.place DESC LIMIT 1;
    FOR line IN SELECT * FROM jsonb_array_elements(lines) LOOP
        moment := (line ->> 'at')::timestamptz;
        head.place := head.place + 1;
        own := sha256(coalesce(own, '') || record_text(tag, line ->> 'who', record_moment(moment), line ->> 'action',
            line ->> 'field', line ->> 'before', line ->> 'after'));
        head.chain := sha256(head.chain || own);
        INSERT INTO record_entries (job_id, who, at, action, field, before, after, place, job_chain, chain)
        VALUES (job, line ->> 'who', moment, line ->> 'action', line ->> 'field', line ->> 'before', line ->> 'after',
            head.place, own, head.chain);
    END LOOP;
    UPDATE record_head SET place = head.place, chain = head.chain;
END
$$ LANGUAGE plpgsql;
-- +goose StatementEnd

-- Lines of before are taken up as they stand.
ALTER TABLE record_entries DISABLE TRIGGER record_append_only;
-- +goose StatementBegin
DO $$
DECLARE
    line record;
    head record_head;
    own bytea;
    ends jsonb := '{}';
BEGIN
    SELECT * INTO head FROM record_head;
    FOR line IN SELECT r.*, j.tag FROM record_entries r JOIN jobs j ON j.id = r.job_id ORDER BY r.id LOOP
        head.place := head.place + 1;
        own := sha256(coalesce(decode(ends ->> line.job_id::text, 'hex'), '') || record_text(line.tag, line.who,
            record_moment(line.at), line.action, line.field, line.before, line.after));
        ends := jsonb_set(ends, ARRAY[line.job_id::text], to_jsonb(encode(own, 'hex')));
        head.chain := sha256(head.chain || own);
        UPDATE record_entries SET place = head.place, job_chain = own, chain = head.chain WHERE id = line.id;
    END LOOP;
    UPDATE record_head SET place = head.place, chain = head.chain;
END
$$;
-- +goose StatementEnd
ALTER TABLE record_entries ENABLE TRIGGER record_append_only;
ALTER TABLE record_entries ALTER COLUMN place SET NOT NULL, ALTER COLUMN job_chain SET NOT NULL,
    ALTER COLUMN chain SET NOT NULL, ALTER COLUMN job_id SET NOT NULL, ADD UNIQUE (place);
CREATE INDEX record_job_place ON record_entries (job_id, place);

-- +goose Down
DROP FUNCTION record_write;
DROP FUNCTION record_text;
DROP FUNCTION record_moment;
DROP TABLE record_head;
ALTER TABLE record_entries DROP COLUMN place, DROP COLUMN job_chain, DROP COLUMN chain;
