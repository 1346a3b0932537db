-- +goose Up
-- Whom the shop waits for, with the days that they take; and what an hour and a test cost as a rule.
CREATE TABLE partners (
    id bigserial PRIMARY KEY,
    name text NOT NULL UNIQUE CHECK (name <> ''),
    works text NOT NULL DEFAULT '',
    days double precision NOT NULL CHECK (days > 0),
    most double precision NOT NULL DEFAULT 0,
    price text NOT NULL DEFAULT ''
);
CREATE TRIGGER partners_changed AFTER INSERT OR UPDATE OR DELETE
    ON partners FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER shop_partners_changed AFTER INSERT OR UPDATE OR DELETE
    ON partners FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
ALTER TABLE shop ADD COLUMN hour_price text NOT NULL DEFAULT '', ADD COLUMN test_price text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE shop DROP COLUMN hour_price, DROP COLUMN test_price;
DROP TABLE partners;
