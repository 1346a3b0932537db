-- +goose Up
-- Who looks at a job hears that it was written, by whichever instance of the program.
-- +goose StatementBegin
CREATE FUNCTION tell_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM pg_notify('corvek_changes', NEW.version || ' ' || NEW.tag);
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER tell_change AFTER UPDATE OF version ON jobs FOR EACH ROW EXECUTE FUNCTION tell_change();

-- +goose Down
DROP TRIGGER tell_change ON jobs;
DROP FUNCTION tell_change();
