-- +goose Up
-- The record is written by one function, which runs with its owner's rights: the
-- program's own role may call it and read the lines, and nothing else.
ALTER FUNCTION record_write(bigint, jsonb) SECURITY DEFINER;
ALTER FUNCTION record_write(bigint, jsonb) SET search_path = public, pg_temp;
REVOKE ALL ON FUNCTION record_write(bigint, jsonb) FROM PUBLIC;
CREATE TRIGGER record_never_emptied BEFORE TRUNCATE ON record_entries
    FOR EACH STATEMENT EXECUTE FUNCTION record_is_append_only();
CREATE TRIGGER record_head_never_emptied BEFORE DELETE OR TRUNCATE ON record_head
    FOR EACH STATEMENT EXECUTE FUNCTION record_is_append_only();

-- +goose Down
DROP TRIGGER record_head_never_emptied ON record_head;
DROP TRIGGER record_never_emptied ON record_entries;
GRANT EXECUTE ON FUNCTION record_write(bigint, jsonb) TO PUBLIC;
ALTER FUNCTION record_write(bigint, jsonb) RESET ALL;
ALTER FUNCTION record_write(bigint, jsonb) SECURITY INVOKER;
