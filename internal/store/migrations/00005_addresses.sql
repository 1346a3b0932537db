-- Everything of a job is found by what it is: unit number, part code, feature,
-- stage and slot. Row numbers go, and with them all that pointed at them.
-- +goose Up
SET LOCAL statement_timeout = 0;
ALTER TABLE record_entries DISABLE TRIGGER record_append_only;

-- Lines that had a row number only get a number within their unit or job.
ALTER TABLE loose_items ADD COLUMN line int;
UPDATE loose_items x SET line = n.line
    FROM (SELECT id, row_number() OVER (PARTITION BY unit_id ORDER BY id) AS line FROM loose_items) n WHERE n.id = x.id;
ALTER TABLE kit_pieces ADD COLUMN line int;
UPDATE kit_pieces x SET line = n.line
    FROM (SELECT id, row_number() OVER (PARTITION BY unit_id ORDER BY id) AS line FROM kit_pieces) n WHERE n.id = x.id;
ALTER TABLE accounts ADD COLUMN line int;
UPDATE accounts x SET line = n.line
    FROM (SELECT id, row_number() OVER (PARTITION BY unit_id ORDER BY id) AS line FROM accounts) n WHERE n.id = x.id;
ALTER TABLE attachments ADD COLUMN number int;
UPDATE attachments x SET number = n.number
    FROM (SELECT id, row_number() OVER (PARTITION BY job_id ORDER BY id) AS number FROM attachments) n
        WHERE n.id = x.id;
ALTER TABLE worked_figures ADD COLUMN line int;
UPDATE worked_figures x SET line = n.line
    FROM (SELECT id, row_number() OVER (PARTITION BY job_id ORDER BY id) AS line FROM worked_figures) n
        WHERE n.id = x.id;

-- The record's addresses: kind.row.rest becomes a path of names.
CREATE TEMPORARY TABLE old_address ON COMMIT DROP AS
    SELECT id, job_id, split_part(field, '.', 1) AS kind,
        NULLIF(regexp_replace(split_part(field, '.', 2), '\D', '', 'g'), '')::bigint AS row,
        substring(field FROM '^[^.]*\.[^.]*\.(.*)$') AS rest
    FROM record_entries WHERE field LIKE '%.%.%';
UPDATE record_entries r SET field = 'job/' || o.rest FROM old_address o WHERE o.id = r.id AND o.kind = 'job';
UPDATE record_entries r SET field = 'u' || u.ordinal || '/' || regexp_replace(o.rest, '^mark/', 'identity/')
    FROM old_address o JOIN units u ON u.id = o.row WHERE o.id = r.id AND o.kind = 'unit';
UPDATE record_entries r SET field = 'u' || u.ordinal || '/conclusion/' || o.rest
    FROM old_address o JOIN units u ON u.id = o.row WHERE o.id = r.id AND o.kind = 'conclusion';
UPDATE record_entries r SET field = 'u' || u.ordinal || '/evidence/' || o.rest || '/' ||
        CASE o.kind WHEN 'evidence' THEN 'state' WHEN 'foundhow' THEN 'found_how' ELSE o.kind END
    FROM old_address o JOIN units u ON u.id = o.row WHERE o.id = r.id
        AND o.kind IN ('evidence', 'origin', 'foundhow', 'age');
UPDATE record_entries r
    SET field = 'u' || u.ordinal || '/part/' || p.code ||
            CASE o.kind WHEN 'part' THEN '/' ELSE '/' || o.kind || '/' END || o.rest
    FROM old_address o JOIN parts p ON p.id = o.row JOIN units u ON u.id = p.unit_id
    WHERE o.id = r.id AND o.kind IN ('part', 'decision', 'step');
UPDATE record_entries r SET field = 'u' || u.ordinal || '/part/' || p.code || '/feature/' || f.code || '/' || o.rest
    FROM old_address o JOIN features f ON f.id = o.row JOIN parts p ON p.id = f.part_id JOIN units u ON u.id = p.unit_id
    WHERE o.id = r.id AND o.kind IN ('feature', 'reading');
UPDATE record_entries r SET field = 'u' || u.ordinal || '/loose/' || l.line || '/' || o.rest
    FROM old_address o JOIN loose_items l ON l.id = o.row JOIN units u ON u.id = l.unit_id WHERE o.id = r.id
        AND o.kind = 'loose';
UPDATE record_entries r SET field = 'u' || u.ordinal || '/piece/' || k.line || '/' || o.rest
    FROM old_address o JOIN kit_pieces k ON k.id = o.row JOIN units u ON u.id = k.unit_id WHERE o.id = r.id
        AND o.kind = 'piece';
UPDATE record_entries r
    SET field = 'u' || u.ordinal || '/attempt/' || a.number ||
            CASE o.kind WHEN 'point' THEN '/point/' ELSE '/' END || o.rest
    FROM old_address o JOIN attempts a ON a.id = o.row JOIN units u ON u.id = a.unit_id WHERE o.id = r.id
        AND o.kind IN ('attempt', 'point');

-- Waivers: the code says what the stop is about.
UPDATE stop_passes s SET code = 'u' || u.ordinal || '/kit/place/' || p.code FROM units u JOIN parts p
    ON p.unit_id = u.id
    WHERE u.job_id = s.job_id AND s.code = 'u' || u.ordinal || '.kit.place' || p.id || '.piece0';
UPDATE stop_passes s SET code = 'u' || u.ordinal || '/kit/piece/' || k.line FROM units u JOIN kit_pieces k
    ON k.unit_id = u.id
    WHERE u.job_id = s.job_id AND s.code = 'u' || u.ordinal || '.kit.place0.piece' || k.id;
UPDATE stop_passes SET code = replace(code, '.', '/') WHERE code LIKE 'u%.%';
UPDATE stop_passes SET code = regexp_replace(code, '^(u\d+/measure)/open/', '\1/undecided/')
    WHERE code ~ '^u\d+/measure/open/';
UPDATE stop_passes SET code = regexp_replace(code, '^(u\d+/measure)/must/', '\1/not_measured/')
    WHERE code ~ '^u\d+/measure/must/';
UPDATE stop_passes SET code = regexp_replace(code, '/build/undone$', '/build/unfitted')
    WHERE code LIKE '%/build/undone';
UPDATE stop_passes SET code = replace(code, '/receive/duty pressure', '/receive/duty_pressure')
    WHERE code LIKE '%/receive/duty pressure';
UPDATE stop_passes SET code = code || '/1' WHERE code LIKE '%/strip/loose';

-- What was kept as a sentence becomes a code.
UPDATE build_steps
    SET turn = CASE turn WHEN 'drags evenly' THEN 'uniform_drag' WHEN 'tight spot' THEN 'tight_spot' ELSE turn END;
UPDATE evidence SET found_how = replace(found_how, ' ', '_'), age = replace(age, ' ', '_');
UPDATE points SET word = 'uniform drag' WHERE word = 'drags evenly';
UPDATE jobs SET waiting = 'technician' WHERE waiting = 'hands';
ALTER TABLE jobs ALTER COLUMN waiting SET DEFAULT 'technician';

-- The keys: first every row learns where it belongs, then the numbers go.
ALTER TABLE rounds ADD COLUMN job_id bigint, ADD COLUMN unit int;
UPDATE rounds x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
ALTER TABLE accounts ADD COLUMN job_id bigint, ADD COLUMN unit int;
UPDATE accounts x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
ALTER TABLE evidence ADD COLUMN job_id bigint, ADD COLUMN unit int;
UPDATE evidence x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
ALTER TABLE conclusions ADD COLUMN job_id bigint, ADD COLUMN unit int;
UPDATE conclusions x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
ALTER TABLE attempts ADD COLUMN job_id bigint, ADD COLUMN unit int;
UPDATE attempts x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
ALTER TABLE parts ADD COLUMN job_id bigint, ADD COLUMN unit int;
UPDATE parts x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
ALTER TABLE loose_items ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN part text NOT NULL DEFAULT '';
UPDATE loose_items x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
UPDATE loose_items x SET part = p.code FROM parts p WHERE p.id = x.part_id;
ALTER TABLE kit_pieces ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN place text NOT NULL DEFAULT '';
UPDATE kit_pieces x SET job_id = u.job_id, unit = u.ordinal FROM units u WHERE u.id = x.unit_id;
UPDATE kit_pieces x SET place = p.code FROM parts p WHERE p.id = x.part_id;
ALTER TABLE attachments ADD COLUMN unit int NOT NULL DEFAULT 1, ADD COLUMN part text NOT NULL DEFAULT '';
UPDATE attachments x SET unit = p.unit, part = p.code FROM parts p WHERE p.id = x.part_id;
ALTER TABLE picture_marks ADD COLUMN job_id bigint, ADD COLUMN picture int, ADD COLUMN part text NOT NULL DEFAULT '';
UPDATE picture_marks x SET job_id = a.job_id, picture = a.number FROM attachments a WHERE a.id = x.attachment_id;
UPDATE picture_marks x SET part = p.code FROM parts p WHERE p.id = x.part_id;
ALTER TABLE features ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN part text,
    ADD COLUMN place int NOT NULL DEFAULT 1;
UPDATE features x SET job_id = p.job_id, unit = p.unit, part = p.code FROM parts p WHERE p.id = x.part_id;
UPDATE features x SET place = n.place
    FROM (SELECT id, row_number() OVER (PARTITION BY part_id ORDER BY id) AS place FROM features) n WHERE n.id = x.id;
ALTER TABLE decisions ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN part text;
UPDATE decisions x SET job_id = p.job_id, unit = p.unit, part = p.code FROM parts p WHERE p.id = x.part_id;
ALTER TABLE build_steps ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN part text;
UPDATE build_steps x SET job_id = p.job_id, unit = p.unit, part = p.code FROM parts p WHERE p.id = x.part_id;
ALTER TABLE readings ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN part text, ADD COLUMN feature text;
UPDATE readings x SET job_id = f.job_id, unit = f.unit, part = f.part, feature = f.code FROM features f
    WHERE f.id = x.feature_id;
ALTER TABLE points ADD COLUMN job_id bigint, ADD COLUMN unit int, ADD COLUMN attempt int;
UPDATE points x SET job_id = a.job_id, unit = a.unit, attempt = a.number FROM attempts a WHERE a.id = x.attempt_id;

ALTER TABLE points DROP COLUMN id, DROP COLUMN attempt_id;
ALTER TABLE readings DROP COLUMN id, DROP COLUMN feature_id;
ALTER TABLE features DROP COLUMN id, DROP COLUMN part_id;
ALTER TABLE decisions DROP COLUMN id, DROP COLUMN part_id;
ALTER TABLE build_steps DROP COLUMN id, DROP COLUMN part_id;
ALTER TABLE picture_marks DROP COLUMN id, DROP COLUMN attachment_id, DROP COLUMN part_id;
ALTER TABLE attachments DROP COLUMN id, DROP COLUMN part_id;
ALTER TABLE kit_pieces DROP COLUMN id, DROP COLUMN unit_id, DROP COLUMN part_id;
ALTER TABLE loose_items DROP COLUMN id, DROP COLUMN unit_id, DROP COLUMN part_id;
ALTER TABLE parts DROP COLUMN id, DROP COLUMN unit_id;
ALTER TABLE attempts DROP COLUMN id, DROP COLUMN unit_id;
ALTER TABLE conclusions DROP COLUMN id, DROP COLUMN unit_id;
ALTER TABLE evidence DROP COLUMN id, DROP COLUMN unit_id;
ALTER TABLE accounts DROP COLUMN id, DROP COLUMN unit_id;
ALTER TABLE rounds DROP COLUMN id, DROP COLUMN unit_id;
ALTER TABLE units DROP COLUMN id;
ALTER TABLE acknowledgements DROP COLUMN id;
ALTER TABLE stop_passes DROP COLUMN id;
ALTER TABLE worked_figures DROP COLUMN id;
ALTER TABLE units RENAME COLUMN ordinal TO number;
ALTER TABLE units RENAME COLUMN marks TO identity;

ALTER TABLE units DROP CONSTRAINT units_job_id_ordinal_key, ADD PRIMARY KEY (job_id, number);
ALTER TABLE rounds ADD PRIMARY KEY (job_id, unit, number), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE accounts ADD PRIMARY KEY (job_id, unit, line), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE evidence ADD PRIMARY KEY (job_id, unit, round, code), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE conclusions ADD PRIMARY KEY (job_id, unit, round), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE attempts ADD PRIMARY KEY (job_id, unit, number), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE loose_items ADD PRIMARY KEY (job_id, unit, line), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE kit_pieces ADD PRIMARY KEY (job_id, unit, line), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE parts ADD PRIMARY KEY (job_id, unit, code), ADD FOREIGN KEY (job_id, unit) REFERENCES units
    ON DELETE CASCADE;
ALTER TABLE features ADD PRIMARY KEY (job_id, unit, part, code), ADD FOREIGN KEY (job_id, unit, part)
    REFERENCES parts ON DELETE CASCADE;
ALTER TABLE decisions ADD PRIMARY KEY (job_id, unit, part, round), ADD FOREIGN KEY (job_id, unit, part)
    REFERENCES parts ON DELETE CASCADE;
ALTER TABLE build_steps ADD PRIMARY KEY (job_id, unit, part, round), ADD FOREIGN KEY (job_id, unit, part)
    REFERENCES parts ON DELETE CASCADE;
ALTER TABLE readings ADD PRIMARY KEY (job_id, unit, part, feature, round, stage, slot),
    ADD FOREIGN KEY (job_id, unit, part, feature) REFERENCES features ON DELETE CASCADE;
ALTER TABLE points ADD PRIMARY KEY (job_id, unit, attempt, code), ADD FOREIGN KEY (job_id, unit, attempt)
    REFERENCES attempts ON DELETE CASCADE;
ALTER TABLE attachments ADD PRIMARY KEY (job_id, number);
ALTER TABLE picture_marks ADD PRIMARY KEY (job_id, picture, number), ADD FOREIGN KEY (job_id, picture)
    REFERENCES attachments ON DELETE CASCADE;
ALTER TABLE acknowledgements ADD PRIMARY KEY (job_id, caution);
ALTER TABLE stop_passes ADD PRIMARY KEY (job_id, code);
ALTER TABLE worked_figures ADD PRIMARY KEY (job_id, line);
ALTER TABLE record_entries ENABLE TRIGGER record_append_only;

-- What the shop keeps beside its jobs has one version, so that a page asks once
-- whether anything it rests on has changed.
CREATE TABLE shop (
    one boolean PRIMARY KEY DEFAULT true CHECK (one),
    version bigint NOT NULL DEFAULT 1
);
INSERT INTO shop DEFAULT VALUES;
-- +goose StatementBegin
CREATE FUNCTION shop_changed() RETURNS trigger AS $$
BEGIN
    UPDATE shop SET version = version + 1;
    RETURN NULL;
END
$$ LANGUAGE plpgsql;
-- +goose StatementEnd
CREATE TRIGGER people_changed AFTER INSERT OR UPDATE OR DELETE
    ON people FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
CREATE TRIGGER instruments_changed AFTER INSERT OR UPDATE OR DELETE
    ON instruments FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
CREATE TRIGGER families_changed AFTER INSERT OR UPDATE OR DELETE
    ON family_versions FOR EACH STATEMENT EXECUTE FUNCTION shop_changed();
-- Closed jobs teach what causes are common.
CREATE TRIGGER closed_job_changed AFTER INSERT OR UPDATE
    ON jobs FOR EACH ROW WHEN (NEW.handed_over_at IS NOT NULL) EXECUTE FUNCTION shop_changed();

-- The Jobs board is searched and paged by the server.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
ALTER TABLE jobs ADD COLUMN search text NOT NULL DEFAULT '';
UPDATE jobs j SET search = lower(concat_ws(' ', j.tag, j.title, c.name,
        (SELECT string_agg(concat_ws(' ', u.name, u.maker, u.model, u.serial), ' ' ORDER BY u.number) FROM units u
            WHERE u.job_id = j.id)))
    FROM customers c WHERE c.id = j.customer_id;
CREATE INDEX jobs_search ON jobs USING gin (search gin_trgm_ops);
CREATE INDEX jobs_in_hand ON jobs (waiting, promised_on NULLS LAST, tag) WHERE handed_over_at IS NULL;
CREATE INDEX jobs_closed ON jobs (handed_over_at DESC, tag) WHERE handed_over_at IS NOT NULL;

-- +goose Down
-- The row numbers are gone and cannot be made again: restore a backup instead.
SELECT 1 / 0;
