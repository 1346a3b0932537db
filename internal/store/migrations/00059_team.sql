-- +goose Up
-- Shops of one owner: where people, places and drawers are, and where a job is done. Empty is anywhere.
CREATE TABLE sites (name text PRIMARY KEY CHECK (name <> ''));
CREATE TRIGGER sites_changed AFTER INSERT OR UPDATE OR DELETE
    ON sites FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER shop_sites_changed AFTER INSERT OR UPDATE OR DELETE
    ON sites FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
ALTER TABLE hands ADD COLUMN site text NOT NULL DEFAULT '';
ALTER TABLE places ADD COLUMN site text NOT NULL DEFAULT '';
ALTER TABLE stock_items ADD COLUMN site text NOT NULL DEFAULT '';
DROP INDEX stock_items_number;
CREATE UNIQUE INDEX stock_items_number ON stock_items (lower(number), site) WHERE number <> '';
-- Who has a job, and what the one who handed it on left half done, until it was read.
ALTER TABLE jobs
    ADD COLUMN site text NOT NULL DEFAULT '',
    ADD COLUMN held_by text NOT NULL DEFAULT '',
    ADD COLUMN half_done text NOT NULL DEFAULT '';
-- Which pages are open at which bench just now. What is lost with the server is opened again.
CREATE UNLOGGED TABLE open_pages (
    token text PRIMARY KEY,
    tag text NOT NULL,
    person_id bigint NOT NULL,
    person text NOT NULL,
    at_page text NOT NULL DEFAULT '',
    seen_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX open_pages_tag ON open_pages (tag);

-- +goose Down
DROP TABLE open_pages;
ALTER TABLE jobs DROP COLUMN site, DROP COLUMN held_by, DROP COLUMN half_done;
DROP INDEX stock_items_number;
ALTER TABLE stock_items DROP COLUMN site;
CREATE UNIQUE INDEX stock_items_number ON stock_items (lower(number)) WHERE number <> '';
ALTER TABLE places DROP COLUMN site;
ALTER TABLE hands DROP COLUMN site;
DROP TABLE sites;
