-- +goose Up
-- Tokens of forms that did their work.
CREATE TABLE once_tokens (
    token text PRIMARY KEY,
    at timestamptz NOT NULL DEFAULT now(),
    result text NOT NULL DEFAULT ''
);
CREATE INDEX once_tokens_at ON once_tokens (at);

-- +goose Down
DROP TABLE once_tokens;
