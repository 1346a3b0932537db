-- +goose Up
CREATE TABLE people (
    id bigserial PRIMARY KEY,
    sign_in text NOT NULL UNIQUE,
    name text NOT NULL,
    initials text NOT NULL,
    role text NOT NULL CHECK (role IN ('technician', 'lead', 'viewer')),
    password_hash text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE customers (
    id bigserial PRIMARY KEY,
    name text NOT NULL UNIQUE,
    place text NOT NULL DEFAULT '',
    contact text NOT NULL DEFAULT ''
);
CREATE TABLE jobs (
    id bigserial PRIMARY KEY,
    tag text NOT NULL UNIQUE,
    customer_id bigint NOT NULL REFERENCES customers,
    title text NOT NULL,
    complaint text NOT NULL DEFAULT '',
    caller text NOT NULL DEFAULT '',
    symptoms text NOT NULL DEFAULT '',
    policy text NOT NULL DEFAULT 'on_condition',
    waiting text NOT NULL DEFAULT 'hands',
    waiting_note text NOT NULL DEFAULT '',
    station text NOT NULL DEFAULT 'receive',
    received_on date NOT NULL,
    promised_on date,
    warranty_hold boolean NOT NULL DEFAULT false,
    warranty_note text NOT NULL DEFAULT '',
    labour_hours text NOT NULL DEFAULT '',
    labour_rate text NOT NULL DEFAULT '',
    parts_cost text NOT NULL DEFAULT '',
    outside_cost text NOT NULL DEFAULT '',
    rebuild_days text NOT NULL DEFAULT '',
    new_price text NOT NULL DEFAULT '',
    new_days text NOT NULL DEFAULT '',
    downtime_cost text NOT NULL DEFAULT '',
    lesson text NOT NULL DEFAULT '',
    handed_over_at timestamptz,
    version bigint NOT NULL DEFAULT 1,
    created_at timestamptz NOT NULL DEFAULT now(),
    updated_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE units (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    ordinal int NOT NULL,
    family text NOT NULL,
    name text NOT NULL,
    maker text NOT NULL DEFAULT '',
    model text NOT NULL DEFAULT '',
    serial text NOT NULL DEFAULT '',
    variant text NOT NULL DEFAULT '',
    rotation text NOT NULL DEFAULT '',
    fluid text NOT NULL DEFAULT '',
    viscosity text NOT NULL DEFAULT '',
    density text NOT NULL DEFAULT '',
    displacement text NOT NULL DEFAULT '',
    speed text NOT NULL DEFAULT '',
    duty_pressure text NOT NULL DEFAULT '',
    temperature text NOT NULL DEFAULT '',
    hours text NOT NULL DEFAULT '',
    filtration text NOT NULL DEFAULT '',
    changed text NOT NULL DEFAULT '',
    modification text NOT NULL DEFAULT '',
    shims_fitted text NOT NULL DEFAULT '',
    shims_available text NOT NULL DEFAULT '',
    off_body text NOT NULL DEFAULT '',
    off_gears text NOT NULL DEFAULT '',
    UNIQUE (job_id, ordinal)
);
CREATE TABLE rounds (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    number int NOT NULL,
    reason text NOT NULL DEFAULT '',
    back_to text NOT NULL DEFAULT '',
    opened_by text NOT NULL DEFAULT '',
    opened_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (unit_id, number)
);
CREATE TABLE parts (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    code text NOT NULL,
    name text NOT NULL,
    ordinal int NOT NULL,
    expected int NOT NULL,
    off boolean NOT NULL DEFAULT false,
    found text NOT NULL DEFAULT '',
    facing text NOT NULL DEFAULT '',
    fastener text NOT NULL DEFAULT '',
    note text NOT NULL DEFAULT '',
    explained text NOT NULL DEFAULT '',
    UNIQUE (unit_id, code)
);
CREATE TABLE loose_items (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    what text NOT NULL,
    place text NOT NULL DEFAULT '',
    count int NOT NULL DEFAULT 1,
    part_id bigint REFERENCES parts ON DELETE SET NULL,
    note text NOT NULL DEFAULT ''
);
CREATE TABLE features (
    id bigserial PRIMARY KEY,
    part_id bigint NOT NULL REFERENCES parts ON DELETE CASCADE,
    code text NOT NULL,
    lower text NOT NULL DEFAULT '',
    upper text NOT NULL DEFAULT '',
    standing text NOT NULL DEFAULT '',
    measured text NOT NULL DEFAULT '',
    limit_for text NOT NULL DEFAULT '',
    instrument text NOT NULL DEFAULT '',
    resolution text NOT NULL DEFAULT '',
    UNIQUE (part_id, code)
);
CREATE TABLE readings (
    id bigserial PRIMARY KEY,
    feature_id bigint NOT NULL REFERENCES features ON DELETE CASCADE,
    round int NOT NULL,
    stage text NOT NULL CHECK (stage IN ('found', 'built')),
    slot text NOT NULL,
    value text NOT NULL,
    by_name text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (feature_id, round, stage, slot)
);
CREATE TABLE evidence (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    round int NOT NULL,
    code text NOT NULL,
    state text NOT NULL CHECK (state IN ('', 'seen', 'absent')),
    origin text NOT NULL DEFAULT 'found_so' CHECK (origin IN ('found_so', 'made_by_us', 'unknown')),
    note text NOT NULL DEFAULT '',
    UNIQUE (unit_id, round, code)
);
CREATE TABLE conclusions (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    round int NOT NULL,
    cause text NOT NULL DEFAULT '',
    proximate text NOT NULL DEFAULT '',
    contributing text NOT NULL DEFAULT '',
    statement text NOT NULL DEFAULT '',
    action text NOT NULL DEFAULT '',
    owner text NOT NULL DEFAULT '',
    UNIQUE (unit_id, round)
);
CREATE TABLE decisions (
    id bigserial PRIMARY KEY,
    part_id bigint NOT NULL REFERENCES parts ON DELETE CASCADE,
    round int NOT NULL,
    choice text NOT NULL DEFAULT '' CHECK (choice IN ('', 'keep', 'rework', 'replace')),
    reason text NOT NULL DEFAULT '',
    UNIQUE (part_id, round)
);
CREATE TABLE kit_pieces (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    number text NOT NULL DEFAULT '',
    name text NOT NULL,
    count int NOT NULL DEFAULT 1,
    part_id bigint REFERENCES parts ON DELETE SET NULL,
    left_reason text NOT NULL DEFAULT ''
);
CREATE TABLE build_steps (
    id bigserial PRIMARY KEY,
    part_id bigint NOT NULL REFERENCES parts ON DELETE CASCADE,
    round int NOT NULL,
    done boolean NOT NULL DEFAULT false,
    facing text NOT NULL DEFAULT '',
    turn text NOT NULL DEFAULT '',
    torque text NOT NULL DEFAULT '',
    note text NOT NULL DEFAULT '',
    by_name text NOT NULL DEFAULT '',
    UNIQUE (part_id, round)
);
CREATE TABLE attempts (
    id bigserial PRIMARY KEY,
    unit_id bigint NOT NULL REFERENCES units ON DELETE CASCADE,
    round int NOT NULL,
    number int NOT NULL, -- 0 is as received
    source text NOT NULL DEFAULT 'typed' CHECK (source IN ('typed', 'simulated')),
    one_change text NOT NULL DEFAULT '',
    condition_repeated text NOT NULL DEFAULT '',
    note text NOT NULL DEFAULT '',
    closed boolean NOT NULL DEFAULT false,
    verdict text NOT NULL DEFAULT '',
    by_name text NOT NULL DEFAULT '',
    at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (unit_id, number)
);
CREATE TABLE points (
    id bigserial PRIMARY KEY,
    attempt_id bigint NOT NULL REFERENCES attempts ON DELETE CASCADE,
    code text NOT NULL,
    pressure text NOT NULL DEFAULT '',
    flow text NOT NULL DEFAULT '',
    speed text NOT NULL DEFAULT '',
    temperature text NOT NULL DEFAULT '',
    word text NOT NULL DEFAULT '',
    UNIQUE (attempt_id, code)
);
CREATE TABLE attachments (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    part_id bigint REFERENCES parts ON DELETE SET NULL,
    name text NOT NULL,
    media_type text NOT NULL,
    caption text NOT NULL DEFAULT '',
    before_cleaning boolean NOT NULL DEFAULT false,
    content bytea NOT NULL
);
CREATE TABLE acknowledgements (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    caution text NOT NULL,
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (job_id, caution)
);
CREATE TABLE stop_passes (
    id bigserial PRIMARY KEY,
    job_id bigint NOT NULL REFERENCES jobs ON DELETE CASCADE,
    code text NOT NULL,
    stop_text text NOT NULL,
    reason text NOT NULL,
    by_name text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (job_id, code)
);
CREATE TABLE record_entries (
    id bigserial PRIMARY KEY,
    job_id bigint REFERENCES jobs ON DELETE CASCADE,
    who text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    action text NOT NULL,
    field text NOT NULL DEFAULT '',
    before text NOT NULL DEFAULT '',
    after text NOT NULL DEFAULT ''
);
CREATE TABLE sessions (
    token text PRIMARY KEY,
    data bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX sessions_expiry ON sessions (expiry);
CREATE INDEX units_job ON units (job_id);
CREATE INDEX readings_feature ON readings (feature_id);
CREATE INDEX record_job_field ON record_entries (job_id, field, id);
CREATE SEQUENCE job_tags START 401;

-- The record is append-only: not even the application may change what was written.
-- +goose StatementBegin
CREATE FUNCTION record_is_append_only() RETURNS trigger AS $$
BEGIN
    RAISE EXCEPTION 'the record is append-only';
END
$$ LANGUAGE plpgsql;
-- +goose StatementEnd
CREATE TRIGGER record_append_only BEFORE UPDATE OR DELETE ON record_entries
    FOR EACH ROW EXECUTE FUNCTION record_is_append_only();

-- +goose Down
DROP TABLE record_entries, stop_passes, acknowledgements, attachments, points, attempts, build_steps, kit_pieces,
    decisions, conclusions, evidence, readings, features, loose_items, parts, rounds, units, jobs, customers,
        people, sessions;
DROP FUNCTION record_is_append_only;
DROP SEQUENCE job_tags;
