-- +goose Up
-- What the shop knows of a model: a sheet, and its versions, of which none is ever changed.
CREATE TABLE model_sheets (
    id bigserial PRIMARY KEY,
    family text NOT NULL,
    maker text NOT NULL DEFAULT '',
    model text NOT NULL CHECK (model <> ''),
    holds_of text NOT NULL DEFAULT '',
    plain text NOT NULL,
    UNIQUE (family, plain, holds_of)
);
CREATE TABLE sheet_versions (
    id bigserial PRIMARY KEY,
    sheet_id bigint NOT NULL REFERENCES model_sheets,
    doc jsonb NOT NULL,
    reason text NOT NULL DEFAULT '',
    by_name text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT now(),
    confirmed_by text NOT NULL DEFAULT '',
    confirmed_at timestamptz
);
CREATE INDEX sheet_versions_sheet ON sheet_versions (sheet_id, id);
CREATE TRIGGER sheets_changed AFTER INSERT OR UPDATE OR DELETE
    ON sheet_versions FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
-- Whether a lead confirms what a technician keeps on a sheet.
ALTER TABLE shop ADD COLUMN lead_confirms boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE shop DROP COLUMN lead_confirms;
DROP TABLE sheet_versions, model_sheets;
