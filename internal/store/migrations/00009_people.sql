-- +goose Up
-- Sign-in names are kept in small letters. Of two that differed in that only, the
-- later could never sign in; it keeps its number behind the name.
UPDATE people p SET sign_in = lower(sign_in) || p.id
    WHERE EXISTS (SELECT FROM people q WHERE lower(q.sign_in) = lower(p.sign_in) AND q.id < p.id);
UPDATE people SET sign_in = lower(sign_in);
ALTER TABLE people
    ADD COLUMN locked_at timestamptz,
    ADD COLUMN last_sign_in timestamptz,
    ADD COLUMN entry bigint NOT NULL DEFAULT 1, -- steps to end all sessions of the person
    ADD COLUMN code_hash text NOT NULL DEFAULT '',
    ADD COLUMN badge_hash text NOT NULL DEFAULT '';
CREATE UNIQUE INDEX people_badge ON people (badge_hash) WHERE badge_hash <> '';

-- Every try to sign in. One that is under way counts as failed until it is not.
CREATE TABLE sign_ins (
    id bigserial PRIMARY KEY,
    at timestamptz NOT NULL DEFAULT now(),
    name text NOT NULL,
    address text NOT NULL,
    ok boolean NOT NULL DEFAULT false
);
CREATE INDEX sign_ins_name ON sign_ins (name, at);
CREATE INDEX sign_ins_address ON sign_ins (address, at);

-- What was done to the shop itself: people, copies. Lines are only added.
CREATE TABLE shop_entries (
    id bigserial PRIMARY KEY,
    at timestamptz NOT NULL DEFAULT now(),
    who text NOT NULL,
    action text NOT NULL
);

ALTER TABLE shop ADD COLUMN name text NOT NULL DEFAULT '';
-- Nothing that is worked out for a job rests on who signs in.
DROP TRIGGER people_changed ON people;
-- +goose StatementBegin
CREATE FUNCTION shop_renamed() RETURNS trigger AS $$
BEGIN
    NEW.version := OLD.version + 1;
    RETURN NEW;
END
$$ LANGUAGE plpgsql;
-- +goose StatementEnd
CREATE TRIGGER shop_renamed BEFORE UPDATE OF name ON shop FOR EACH ROW EXECUTE FUNCTION shop_renamed();

-- +goose Down
DROP TRIGGER shop_renamed ON shop;
DROP FUNCTION shop_renamed;
ALTER TABLE shop DROP COLUMN name;
DROP TABLE shop_entries, sign_ins;
DROP INDEX people_badge;
ALTER TABLE people DROP COLUMN locked_at, DROP COLUMN last_sign_in, DROP COLUMN entry, DROP COLUMN code_hash,
    DROP COLUMN badge_hash;
CREATE TRIGGER people_changed AFTER INSERT OR UPDATE OR DELETE
    ON people FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
