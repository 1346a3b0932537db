-- +goose Up
-- The shop behind the bench: who can do what and is there when, its places, days on which it is closed.
CREATE TABLE hands (
    person_id bigint PRIMARY KEY REFERENCES people,
    skills text NOT NULL DEFAULT '',
    hours text NOT NULL DEFAULT ''
);
CREATE TABLE absences (
    id bigserial PRIMARY KEY,
    person_id bigint NOT NULL REFERENCES people,
    from_day date NOT NULL,
    to_day date NOT NULL CHECK (to_day >= from_day),
    note text NOT NULL DEFAULT ''
);
CREATE INDEX absences_to_day ON absences (to_day);
CREATE TABLE closed_days (
    day date PRIMARY KEY,
    name text NOT NULL DEFAULT ''
);
CREATE TABLE places (
    id bigserial PRIMARY KEY,
    name text NOT NULL UNIQUE CHECK (name <> ''),
    kind text NOT NULL,
    hours text NOT NULL DEFAULT '',
    pressure text NOT NULL DEFAULT '',
    flow text NOT NULL DEFAULT '',
    torque text NOT NULL DEFAULT ''
);
-- Where a person put a task of the plan: with whom, where, from when; what is empty is left to the planner.
CREATE TABLE plan_pins (
    tag text NOT NULL,
    unit bigint NOT NULL,
    code text NOT NULL,
    person text NOT NULL DEFAULT '',
    place text NOT NULL DEFAULT '',
    start_at timestamptz,
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (tag, unit, code)
);
-- The plan as it stood at the beginning of a day, against which the next is held.
CREATE TABLE plan_days (
    day date PRIMARY KEY,
    spots jsonb NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now()
);
-- Steps whenever any of it changes: a plan is worked out anew then.
ALTER TABLE shop ADD COLUMN workshop_version bigint NOT NULL DEFAULT 1;
-- +goose StatementBegin
CREATE FUNCTION workshop_changed() RETURNS trigger AS $$
BEGIN
    UPDATE shop SET workshop_version = workshop_version + 1;
    RETURN NULL;
END $$ LANGUAGE plpgsql;
-- +goose StatementEnd
CREATE TRIGGER hands_changed AFTER INSERT OR UPDATE OR DELETE
    ON hands FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER absences_changed AFTER INSERT OR UPDATE OR DELETE
    ON absences FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER closed_days_changed AFTER INSERT OR UPDATE OR DELETE
    ON closed_days FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER places_changed AFTER INSERT OR UPDATE OR DELETE
    ON places FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER plan_pins_changed AFTER INSERT OR UPDATE OR DELETE
    ON plan_pins FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();
CREATE TRIGGER plan_days_changed AFTER INSERT OR UPDATE OR DELETE
    ON plan_days FOR EACH STATEMENT EXECUTE FUNCTION workshop_changed();

-- +goose Down
DROP TABLE plan_days, plan_pins, places, closed_days, absences, hands;
DROP FUNCTION workshop_changed;
ALTER TABLE shop DROP COLUMN workshop_version;
