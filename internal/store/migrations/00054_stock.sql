-- +goose Up
-- What lies in the drawers: lines of pieces that are alike, lots that came together, what was taken and given, and what
-- is promised to which place of which unit.
CREATE TABLE stock_items (
    id bigserial PRIMARY KEY,
    number text NOT NULL DEFAULT '',
    name text NOT NULL CHECK (name <> ''),
    standard text NOT NULL DEFAULT '',
    size text NOT NULL DEFAULT '',
    material text NOT NULL DEFAULT '',
    drawer text NOT NULL DEFAULT '',
    minimum bigint NOT NULL DEFAULT 0 CHECK (minimum >= 0),
    supplier text NOT NULL DEFAULT '',
    price text NOT NULL DEFAULT ''
);
CREATE UNIQUE INDEX stock_items_number ON stock_items (lower(number)) WHERE number <> '';
CREATE TABLE stock_lots (
    code text PRIMARY KEY,
    item_id bigint NOT NULL REFERENCES stock_items,
    "left" bigint NOT NULL DEFAULT 0 CHECK ("left" >= 0),
    cure text NOT NULL DEFAULT '',
    came_on date NOT NULL,
    from_tag text NOT NULL DEFAULT ''
);
CREATE INDEX stock_lots_item ON stock_lots (item_id) WHERE "left" > 0;
CREATE TABLE stock_moves (
    id bigserial PRIMARY KEY,
    lot_code text NOT NULL REFERENCES stock_lots,
    delta bigint NOT NULL,
    tag text NOT NULL DEFAULT '',
    why text NOT NULL DEFAULT '',
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX stock_moves_lot ON stock_moves (lot_code, id DESC);
CREATE TABLE stock_bookings (
    tag text NOT NULL,
    unit bigint NOT NULL,
    part text NOT NULL,
    item_id bigint NOT NULL REFERENCES stock_items,
    count bigint NOT NULL CHECK (count > 0),
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (tag, unit, part)
);
CREATE INDEX stock_bookings_item ON stock_bookings (item_id);
ALTER TABLE kit_pieces ADD COLUMN lot text NOT NULL DEFAULT '';
ALTER TABLE kit_pieces ADD COLUMN to_lot text NOT NULL DEFAULT '';
-- Steps whenever any of it changes: what is in memory is read anew then.
ALTER TABLE shop ADD COLUMN stock_version bigint NOT NULL DEFAULT 1;
-- +goose StatementBegin
CREATE FUNCTION stock_changed() RETURNS trigger AS $$
BEGIN
    UPDATE shop SET stock_version = stock_version + 1;
    RETURN NULL;
END $$ LANGUAGE plpgsql;
-- +goose StatementEnd
CREATE TRIGGER stock_items_changed AFTER INSERT OR UPDATE OR DELETE
    ON stock_items FOR EACH STATEMENT EXECUTE FUNCTION stock_changed();
CREATE TRIGGER stock_lots_changed AFTER INSERT OR UPDATE OR DELETE
    ON stock_lots FOR EACH STATEMENT EXECUTE FUNCTION stock_changed();
CREATE TRIGGER stock_bookings_changed AFTER INSERT OR UPDATE OR DELETE
    ON stock_bookings FOR EACH STATEMENT EXECUTE FUNCTION stock_changed();

-- +goose Down
ALTER TABLE kit_pieces DROP COLUMN lot, DROP COLUMN to_lot;
DROP TABLE stock_bookings, stock_moves, stock_lots, stock_items;
DROP FUNCTION stock_changed;
ALTER TABLE shop DROP COLUMN stock_version;
