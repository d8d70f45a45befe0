-- Every row belongs to a shop, and says so in its key: (shop_id, id), foreign
-- keys with the shop in them, so that shop_id can be the distribution column of
-- a sharded PostgreSQL. A server serves a shop in the role corte_serves, which
-- sees that shop's rows alone and only adds to the log. What kinds of row the
-- log has stands in a table. Needs PostgreSQL 15.

-- +goose Up
-- +goose StatementBegin
DO $$ BEGIN
    CREATE ROLE corte_serves NOLOGIN;
EXCEPTION
    WHEN duplicate_object OR unique_violation THEN NULL;
    WHEN insufficient_privilege THEN
        RAISE EXCEPTION 'this database''s user may not create roles; let an administrator run: CREATE ROLE corte_serves NOLOGIN; GRANT corte_serves TO %', current_user;
END $$;
-- +goose StatementEnd
-- +goose StatementBegin
DO $$ BEGIN
    IF NOT pg_has_role(current_user, 'corte_serves', 'MEMBER') THEN
        EXECUTE format('GRANT corte_serves TO %I', current_user);
    END IF;
END $$;
-- +goose StatementEnd

-- Snapshots follow from the log; they are folded anew at the next start.
DROP TABLE conditions;
CREATE TABLE conditions (
    shop_id uuid NOT NULL,
    blade_id uuid NOT NULL,
    fold integer NOT NULL,
    condition jsonb NOT NULL,
    wear_m2 double precision GENERATED ALWAYS AS ((condition->>'wear_m2')::double precision) STORED,
    resin_m2 double precision GENERATED ALWAYS AS ((condition->>'resin_m2')::double precision) STORED,
    life_shift double precision GENERATED ALWAYS AS ((condition->'life'->>'shift')::double precision) STORED,
    pitch_shift double precision GENERATED ALWAYS AS ((condition->'pitch'->>'shift')::double precision) STORED,
    unfit text GENERATED ALWAYS AS (condition->>'unfit') STORED,
    away boolean GENERATED ALWAYS AS ((condition->>'away')::boolean) STORED,
    hit boolean GENERATED ALWAYS AS ((condition->>'hit')::boolean) STORED,
    flaw text GENERATED ALWAYS AS (condition->>'flaw') STORED,
    PRIMARY KEY (shop_id, blade_id)
);

-- +goose StatementBegin
DO $$ DECLARE t text; BEGIN
    FOREACH t IN ARRAY ARRAY['baths', 'blades', 'grooves', 'log', 'mountings', 'saws', 'traces', 'trials', 'washes'] LOOP
        EXECUTE format('ALTER TABLE %I DROP CONSTRAINT %I CASCADE, ADD PRIMARY KEY (shop_id, id)', t, t || '_pkey');
    END LOOP;
    FOREACH t IN ARRAY ARRAY['dado_sets', 'photos'] LOOP
        EXECUTE format('ALTER TABLE %I DROP CONSTRAINT %I, ADD PRIMARY KEY (shop_id, blade_id)', t, t || '_pkey');
    END LOOP;
    ALTER TABLE blades DROP CONSTRAINT blades_shop_id_id_key CASCADE;
    ALTER TABLE saws DROP CONSTRAINT saws_shop_id_id_key CASCADE;
    FOREACH t IN ARRAY ARRAY['conditions', 'dado_sets', 'photos', 'grooves', 'log', 'mountings', 'traces', 'trials'] LOOP
        EXECUTE format('ALTER TABLE %I ADD FOREIGN KEY (shop_id, blade_id) REFERENCES blades', t);
    END LOOP;
    FOREACH t IN ARRAY ARRAY['grooves', 'log', 'mountings', 'traces', 'trials'] LOOP
        EXECUTE format('ALTER TABLE %I ADD FOREIGN KEY (shop_id, saw_id) REFERENCES saws', t);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER TABLE mountings
    DROP CONSTRAINT mountings_saw_id_key,
    ADD UNIQUE (shop_id, saw_id),
    ADD FOREIGN KEY (shop_id, groove_id) REFERENCES grooves ON DELETE SET NULL (groove_id);
ALTER TABLE washes ADD FOREIGN KEY (shop_id, bath_id) REFERENCES baths;
ALTER TABLE calendars DROP CONSTRAINT calendars_digest_key; -- 256 bits of chance do not meet
CREATE INDEX calendars_by_digest ON calendars (digest);

-- What the log may hold: its kinds, each with what a row of it is about.
CREATE TABLE log_kinds (
    kind text NOT NULL,
    of_blade boolean NOT NULL,
    of_saw boolean NOT NULL,
    PRIMARY KEY (kind, of_blade, of_saw)
);
INSERT INTO log_kinds
SELECT k, b, s FROM
    unnest(ARRAY['cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'mended', 'noted', 'compared', 'traced',
        'grooved', 'renewed', 'struck', 'retired', 'restored', 'moved', 'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance']) k,
    unnest(ARRAY[true, false]) b, unnest(ARRAY[true, false]) s
WHERE (b OR s)
    AND (b OR k NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'mended', 'grooved', 'renewed', 'clearance'))
    AND (s OR k NOT IN ('cut', 'mounted', 'dismounted', 'moved', 'heel', 'fence', 'tilt', 'gauge'));
ALTER TABLE log
    DROP CONSTRAINT log_kind_check,
    DROP CONSTRAINT log_about,
    DROP CONSTRAINT log_blade,
    DROP CONSTRAINT log_saw,
    DROP CONSTRAINT log_strikes_key,
    ADD COLUMN of_blade boolean GENERATED ALWAYS AS (blade_id IS NOT NULL) STORED,
    ADD COLUMN of_saw boolean GENERATED ALWAYS AS (saw_id IS NOT NULL) STORED,
    ADD FOREIGN KEY (kind, of_blade, of_saw) REFERENCES log_kinds,
    ADD CONSTRAINT log_strikes_key UNIQUE (shop_id, strikes),
    ADD FOREIGN KEY (shop_id, strikes) REFERENCES log;

DROP INDEX log_of_blade, log_of_saw, log_on_saw, log_truings;
CREATE INDEX log_of_blade ON log (shop_id, blade_id, at DESC, id DESC);
CREATE INDEX log_of_saw ON log (shop_id, saw_id, at DESC, id DESC);
CREATE INDEX log_on_saw ON log (shop_id, saw_id, at DESC, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (shop_id, saw_id, kind, at DESC, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');

-- +goose StatementBegin
DO $$ DECLARE t text; BEGIN
    FOREACH t IN ARRAY ARRAY['baths', 'blades', 'calendars', 'conditions', 'corrections', 'dado_sets', 'grooves', 'idempotency', 'log', 'mountings', 'photos', 'saws', 'traces', 'trials', 'washes'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY of_its_shop ON %I TO corte_serves USING (shop_id = (SELECT nullif(current_setting(''corte.shop'', true), '''')::uuid))', t);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER TABLE shops ENABLE ROW LEVEL SECURITY;
CREATE POLICY of_its_shop ON shops TO corte_serves USING (id = (SELECT nullif(current_setting('corte.shop', true), '')::uuid));

GRANT SELECT ON log_kinds TO corte_serves;
GRANT SELECT, INSERT ON log, idempotency TO corte_serves;
GRANT SELECT, UPDATE ON shops TO corte_serves;
GRANT SELECT, INSERT, UPDATE ON baths, blades, conditions, corrections, dado_sets, saws, trials TO corte_serves;
GRANT SELECT, INSERT, UPDATE, DELETE ON calendars, grooves, mountings, photos, traces, washes TO corte_serves;

-- +goose Down
REVOKE ALL ON ALL TABLES IN SCHEMA public FROM corte_serves; -- the role stays: other databases may have it
-- +goose StatementBegin
DO $$ DECLARE t text; BEGIN
    FOREACH t IN ARRAY ARRAY['baths', 'blades', 'calendars', 'conditions', 'corrections', 'dado_sets', 'grooves', 'idempotency', 'log', 'mountings', 'photos', 'saws', 'shops', 'traces', 'trials', 'washes'] LOOP
        EXECUTE format('DROP POLICY of_its_shop ON %I', t);
        EXECUTE format('ALTER TABLE %I DISABLE ROW LEVEL SECURITY', t);
    END LOOP;
END $$;
-- +goose StatementEnd
DROP INDEX log_of_blade, log_of_saw, log_on_saw, log_truings;
CREATE INDEX log_of_blade ON log (blade_id, at DESC, id DESC);
CREATE INDEX log_of_saw ON log (saw_id, at DESC, id DESC);
CREATE INDEX log_on_saw ON log (saw_id, at DESC, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (saw_id, kind, at DESC, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');
ALTER TABLE log
    DROP CONSTRAINT log_kind_of_blade_of_saw_fkey,
    DROP COLUMN of_blade,
    DROP COLUMN of_saw,
    ADD CONSTRAINT log_kind_check CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'mended', 'noted', 'compared', 'traced',
        'grooved', 'renewed', 'struck', 'retired', 'restored', 'moved', 'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_about CHECK (num_nonnulls(blade_id, saw_id) > 0),
    ADD CONSTRAINT log_blade CHECK (blade_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'mended', 'grooved', 'renewed', 'clearance')),
    ADD CONSTRAINT log_saw CHECK (saw_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'moved', 'heel', 'fence', 'tilt', 'gauge'));
DROP TABLE log_kinds;
DROP INDEX calendars_by_digest;
ALTER TABLE calendars ADD UNIQUE (digest);
DROP TABLE conditions;
CREATE TABLE conditions (
    blade_id uuid PRIMARY KEY,
    fold integer NOT NULL,
    condition jsonb NOT NULL,
    wear_m2 double precision GENERATED ALWAYS AS ((condition->>'WearM2')::double precision) STORED,
    resin_m2 double precision GENERATED ALWAYS AS ((condition->>'ResinM2')::double precision) STORED,
    life_shift double precision GENERATED ALWAYS AS ((condition->'Life'->>'Shift')::double precision) STORED,
    pitch_shift double precision GENERATED ALWAYS AS ((condition->'Pitch'->>'Shift')::double precision) STORED,
    unfit text GENERATED ALWAYS AS (condition->>'Unfit') STORED,
    away boolean GENERATED ALWAYS AS ((condition->>'Away')::boolean) STORED,
    hit boolean GENERATED ALWAYS AS (coalesce((condition->>'Hit')::boolean, false)) STORED,
    flaw text GENERATED ALWAYS AS (coalesce(condition->>'Flaw', '')) STORED
);
-- +goose StatementBegin
DO $$ DECLARE t text; BEGIN
    FOREACH t IN ARRAY ARRAY['baths', 'blades', 'grooves', 'log', 'mountings', 'saws', 'traces', 'trials', 'washes'] LOOP
        EXECUTE format('ALTER TABLE %I DROP CONSTRAINT %I CASCADE, ADD PRIMARY KEY (id)', t, t || '_pkey');
    END LOOP;
    FOREACH t IN ARRAY ARRAY['dado_sets', 'photos'] LOOP
        EXECUTE format('ALTER TABLE %I DROP CONSTRAINT %I, ADD PRIMARY KEY (blade_id)', t, t || '_pkey');
    END LOOP;
    FOREACH t IN ARRAY ARRAY['conditions', 'dado_sets', 'photos', 'grooves', 'mountings', 'traces', 'trials'] LOOP
        EXECUTE format('ALTER TABLE %I ADD FOREIGN KEY (blade_id) REFERENCES blades', t);
    END LOOP;
    FOREACH t IN ARRAY ARRAY['grooves', 'mountings', 'traces', 'trials'] LOOP
        EXECUTE format('ALTER TABLE %I ADD FOREIGN KEY (saw_id) REFERENCES saws', t);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER TABLE blades ADD UNIQUE (shop_id, id);
ALTER TABLE saws ADD UNIQUE (shop_id, id);
ALTER TABLE mountings
    DROP CONSTRAINT mountings_shop_id_saw_id_key,
    ADD UNIQUE (saw_id),
    ADD FOREIGN KEY (groove_id) REFERENCES grooves ON DELETE SET NULL;
ALTER TABLE washes ADD FOREIGN KEY (bath_id) REFERENCES baths;
ALTER TABLE log
    DROP CONSTRAINT log_strikes_key,
    ADD CONSTRAINT log_strikes_key UNIQUE (strikes),
    ADD FOREIGN KEY (strikes) REFERENCES log,
    ADD FOREIGN KEY (shop_id, blade_id) REFERENCES blades (shop_id, id),
    ADD FOREIGN KEY (shop_id, saw_id) REFERENCES saws (shop_id, id);
