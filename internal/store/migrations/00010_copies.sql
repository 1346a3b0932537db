-- +goose Up
-- When the store was copied, and whether the copy is good.
CREATE TABLE copies (
    id bigserial PRIMARY KEY,
    at timestamptz NOT NULL DEFAULT now(),
    file text NOT NULL,
    bytes bigint NOT NULL,
    lines bigint NOT NULL,
    fault text NOT NULL DEFAULT ''
);

-- +goose Down
DROP TABLE copies;
