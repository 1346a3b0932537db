-- +goose Up
-- What a seal or bearing is, how its new one is got, and how that one fits.
ALTER TABLE parts
    ADD COLUMN seal_standard text NOT NULL DEFAULT '',
    ADD COLUMN seal_size text NOT NULL DEFAULT '',
    ADD COLUMN seal_material text NOT NULL DEFAULT '',
    ADD COLUMN seal_hardness text NOT NULL DEFAULT '',
    ADD COLUMN seal_cure text NOT NULL DEFAULT '',
    ADD COLUMN seal_maker_no text NOT NULL DEFAULT '',
    ADD COLUMN seal_inside text NOT NULL DEFAULT '',
    ADD COLUMN seal_section text NOT NULL DEFAULT '',
    ADD COLUMN seal_shaft text NOT NULL DEFAULT '',
    ADD COLUMN seal_bore text NOT NULL DEFAULT '',
    ADD COLUMN seal_width text NOT NULL DEFAULT '',
    ADD COLUMN seal_outside text NOT NULL DEFAULT '',
    ADD COLUMN order_state text NOT NULL DEFAULT '',
    ADD COLUMN order_supplier text NOT NULL DEFAULT '',
    ADD COLUMN order_number text NOT NULL DEFAULT '',
    ADD COLUMN order_due date;
ALTER TABLE kit_pieces
    ADD COLUMN standard text NOT NULL DEFAULT '',
    ADD COLUMN size text NOT NULL DEFAULT '',
    ADD COLUMN material text NOT NULL DEFAULT '',
    ADD COLUMN hardness text NOT NULL DEFAULT '',
    ADD COLUMN cure text NOT NULL DEFAULT '',
    ADD COLUMN maker_no text NOT NULL DEFAULT '',
    ADD COLUMN inside text NOT NULL DEFAULT '',
    ADD COLUMN section text NOT NULL DEFAULT '',
    ADD COLUMN shaft text NOT NULL DEFAULT '',
    ADD COLUMN bore text NOT NULL DEFAULT '',
    ADD COLUMN width text NOT NULL DEFAULT '',
    ADD COLUMN outside text NOT NULL DEFAULT '',
    ADD COLUMN fit text NOT NULL DEFAULT '',
    ADD COLUMN fit_gap text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE parts DROP COLUMN seal_standard, DROP COLUMN seal_size, DROP COLUMN seal_material,
    DROP COLUMN seal_hardness, DROP COLUMN seal_cure, DROP COLUMN seal_maker_no,
    DROP COLUMN seal_inside, DROP COLUMN seal_section, DROP COLUMN seal_shaft, DROP COLUMN seal_bore,
    DROP COLUMN seal_width, DROP COLUMN seal_outside,
    DROP COLUMN order_state, DROP COLUMN order_supplier, DROP COLUMN order_number, DROP COLUMN order_due;
ALTER TABLE kit_pieces DROP COLUMN standard, DROP COLUMN size, DROP COLUMN material, DROP COLUMN hardness,
    DROP COLUMN cure, DROP COLUMN maker_no,
    DROP COLUMN inside, DROP COLUMN section, DROP COLUMN shaft, DROP COLUMN bore, DROP COLUMN width,
    DROP COLUMN outside,
    DROP COLUMN fit, DROP COLUMN fit_gap;
