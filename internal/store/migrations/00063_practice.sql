-- +goose Up
-- What is kept of practice: who worked on which made-up unit, and at what he looked. The units themselves are jobs of a
-- store of their own.
CREATE TABLE practice_sets (
    id bigserial PRIMARY KEY,
    words text NOT NULL,
    family text NOT NULL,
    kind text NOT NULL,
    seed bigint NOT NULL,
    causes text NOT NULL,
    written boolean NOT NULL,
    by_name text NOT NULL,
    set_on timestamptz NOT NULL
);
CREATE TABLE practice_cases (
    id bigserial PRIMARY KEY,
    person_id bigint NOT NULL REFERENCES people ON DELETE CASCADE,
    set_id bigint REFERENCES practice_sets,
    tag text NOT NULL UNIQUE,
    family text NOT NULL,
    kind text NOT NULL,
    seed bigint NOT NULL,
    causes text NOT NULL,
    begun_at timestamptz NOT NULL,
    named text,
    named_at timestamptz,
    early boolean NOT NULL DEFAULT false,
    late int NOT NULL DEFAULT 0,
    unsaid int NOT NULL DEFAULT 0,
    missed text,
    taken text
);
CREATE INDEX practice_cases_person ON practice_cases (person_id, begun_at DESC);
CREATE UNIQUE INDEX practice_cases_set ON practice_cases (person_id, set_id);
CREATE TABLE practice_looks (
    case_id bigint NOT NULL REFERENCES practice_cases ON DELETE CASCADE,
    number int NOT NULL,
    field text NOT NULL,
    gone boolean NOT NULL,
    minutes double precision NOT NULL,
    reached text NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (case_id, number)
);
CREATE TABLE practice_answers (
    id bigserial PRIMARY KEY,
    person_id bigint NOT NULL REFERENCES people ON DELETE CASCADE,
    code text NOT NULL,
    was_right boolean NOT NULL,
    at timestamptz NOT NULL
);
CREATE INDEX practice_answers_code ON practice_answers (code, person_id, at);

-- +goose Down
DROP TABLE practice_answers;
DROP TABLE practice_looks;
DROP TABLE practice_cases;
DROP TABLE practice_sets;
