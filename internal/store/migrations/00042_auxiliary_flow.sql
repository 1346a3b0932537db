-- +goose Up
-- What an auxiliary pump behind the main one must deliver.
ALTER TABLE units ADD COLUMN need_aux_flow text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE units DROP COLUMN need_aux_flow;
