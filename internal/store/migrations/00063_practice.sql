-- +goose Up
-- What is kept of practice: who worked on which made-up unit, and at what he looked. The units themselves are jobs of a
-- store of their own.
CREATE TABLE practice_cases (
    id bigserial PRIMARY KEY,
    person_id bigint NOT NULL REFERENCES people ON DELETE CASCADE,
    tag text NOT NULL UNIQUE,
    family text NOT NULL,
    kind text NOT NULL,
    seed bigint NOT NULL,
    causes text NOT NULL,
    begun_at timestamptz NOT NULL,
    named text NOT NULL DEFAULT '',
    named_at timestamptz,
    proved_at timestamptz
);
CREATE INDEX practice_cases_person ON practice_cases (person_id, begun_at DESC);
CREATE TABLE practice_looks (
    case_id bigint NOT NULL REFERENCES practice_cases ON DELETE CASCADE,
    number int NOT NULL,
    field text NOT NULL,
    value text NOT NULL,
    says text NOT NULL,
    gone boolean NOT NULL,
    minutes double precision NOT NULL,
    reached text NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (case_id, number)
);

-- +goose Down
DROP TABLE practice_looks;
DROP TABLE practice_cases;
