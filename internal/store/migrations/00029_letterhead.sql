-- +goose Up
-- What stands at the head of the papers: address and mark, the sheet they are printed on, and
-- where the pages are opened, for the code on them.
ALTER TABLE shop
    ADD COLUMN address text NOT NULL DEFAULT '',
    ADD COLUMN mark bytea,
    ADD COLUMN sheet text NOT NULL DEFAULT 'a4' CHECK (sheet IN ('a4', 'letter')),
    ADD COLUMN site text NOT NULL DEFAULT '';
DROP TRIGGER shop_renamed ON shop;
CREATE TRIGGER shop_renamed BEFORE UPDATE OF name, address, mark, sheet, site
    ON shop FOR EACH ROW EXECUTE FUNCTION shop_renamed();

-- +goose Down
DROP TRIGGER shop_renamed ON shop;
ALTER TABLE shop DROP COLUMN address, DROP COLUMN mark, DROP COLUMN sheet, DROP COLUMN site;
CREATE TRIGGER shop_renamed BEFORE UPDATE OF name ON shop FOR EACH ROW EXECUTE FUNCTION shop_renamed();
