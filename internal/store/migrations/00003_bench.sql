-- +goose Up
ALTER TABLE units
    ADD COLUMN gauge text NOT NULL DEFAULT '',            -- question=answer, blank-separated
    ADD COLUMN marks text NOT NULL DEFAULT '',            -- mark=yes or mark=no, blank-separated
    ADD COLUMN capacity text NOT NULL DEFAULT '',
    ADD COLUMN level_before text NOT NULL DEFAULT '',
    ADD COLUMN drained text NOT NULL DEFAULT '',
    ADD COLUMN water text NOT NULL DEFAULT '',
    ADD COLUMN gained_elsewhere text NOT NULL DEFAULT '',
    ADD COLUMN vessel text NOT NULL DEFAULT '',
    ADD COLUMN drained_look text NOT NULL DEFAULT '',
    ADD COLUMN flushed text NOT NULL DEFAULT '';
ALTER TABLE parts
    ADD COLUMN kind text NOT NULL DEFAULT '',             -- of a part that the family does not know
    ADD COLUMN branch text NOT NULL DEFAULT '',
    ADD COLUMN witness text NOT NULL DEFAULT '',
    ADD COLUMN stuck text NOT NULL DEFAULT '' CHECK (stuck IN ('', 'free', 'stuck', 'seized')),
    ADD COLUMN freed text NOT NULL DEFAULT '',
    ADD COLUMN stack_found text NOT NULL DEFAULT '',
    ADD COLUMN stack_fit text NOT NULL DEFAULT '';
ALTER TABLE evidence
    ADD COLUMN found_how text NOT NULL DEFAULT '',        -- before freeing, before wiping ...
    ADD COLUMN age text NOT NULL DEFAULT '';
ALTER TABLE jobs
    ADD COLUMN timer_note text NOT NULL DEFAULT '',
    ADD COLUMN timer_until timestamptz;
CREATE TABLE accounts (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    teller text NOT NULL,
    words text NOT NULL
);
CREATE INDEX accounts_unit ON accounts (unit_id);
ALTER TABLE attachments
    ADD COLUMN thumb bytea,
    ADD COLUMN width int NOT NULL DEFAULT 0,
    ADD COLUMN height int NOT NULL DEFAULT 0;
CREATE TABLE picture_marks (
    id bigserial PRIMARY KEY,
    attachment_id bigint NOT NULL REFERENCES attachments ON DELETE CASCADE,
    number int NOT NULL,
    x double precision NOT NULL CHECK (x BETWEEN 0 AND 1), -- shares of width and height
    y double precision NOT NULL CHECK (y BETWEEN 0 AND 1),
    note text NOT NULL DEFAULT '',
    evidence text NOT NULL DEFAULT '',
    part_id bigint REFERENCES parts ON DELETE SET NULL,
    UNIQUE (attachment_id, number)
);
CREATE TABLE instruments (
    id bigserial PRIMARY KEY,
    name text NOT NULL UNIQUE,
    kind text NOT NULL,
    resolution text NOT NULL,
    due_on date
);
CREATE TABLE family_versions (
    id bigserial PRIMARY KEY,
    code text NOT NULL,
    text text NOT NULL,
    reason text NOT NULL DEFAULT '',
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX family_versions_code ON family_versions (code, id);

-- +goose Down
DROP TABLE family_versions, instruments, picture_marks, accounts;
ALTER TABLE attachments DROP COLUMN thumb, DROP COLUMN width, DROP COLUMN height;
ALTER TABLE jobs DROP COLUMN timer_note, DROP COLUMN timer_until;
ALTER TABLE evidence DROP COLUMN found_how, DROP COLUMN age;
ALTER TABLE parts DROP COLUMN kind, DROP COLUMN branch, DROP COLUMN witness, DROP COLUMN stuck, DROP COLUMN freed,
    DROP COLUMN stack_found, DROP COLUMN stack_fit;
ALTER TABLE units DROP COLUMN gauge, DROP COLUMN marks, DROP COLUMN capacity, DROP COLUMN level_before,
    DROP COLUMN drained, DROP COLUMN water,
    DROP COLUMN gained_elsewhere, DROP COLUMN vessel, DROP COLUMN drained_look, DROP COLUMN flushed;
