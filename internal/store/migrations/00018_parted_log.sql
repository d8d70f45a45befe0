-- The log in sixteen parts by its shop: of 10 million rows an index that a cut
-- goes through holds a sixteenth, and a part is vacuumed by itself. What is said
-- to the log stays as it was, so that an older Corte goes on beside this one.

-- +goose Up
-- What is moved must not come in meanwhile; who waits is told by lock_timeout.
LOCK TABLE log IN ACCESS EXCLUSIVE MODE;
-- +goose StatementBegin
DO $$ DECLARE i name; BEGIN
    FOR i IN SELECT indexrelid::regclass FROM pg_index WHERE indrelid = 'log'::regclass LOOP
        EXECUTE format('ALTER INDEX %I RENAME TO %I', i, 'whole_' || i);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER SEQUENCE log_id_seq RENAME TO whole_log_id_seq;
ALTER TABLE log RENAME TO whole_log;

CREATE TABLE log (
    id       bigint GENERATED ALWAYS AS IDENTITY,
    shop_id  uuid NOT NULL,
    at       timestamptz NOT NULL,
    kind     text NOT NULL,
    blade_id uuid,
    saw_id   uuid,
    by_name  text NOT NULL DEFAULT '',
    note     text NOT NULL DEFAULT '',
    detail   jsonb NOT NULL DEFAULT '{}',
    strikes  bigint,
    of_blade boolean GENERATED ALWAYS AS (blade_id IS NOT NULL) STORED,
    of_saw   boolean GENERATED ALWAYS AS (saw_id IS NOT NULL) STORED,
    amends   bigint
) PARTITION BY HASH (shop_id);
-- +goose StatementBegin
DO $$ BEGIN
    FOR i IN 0..15 LOOP
        EXECUTE format('CREATE TABLE log_%s PARTITION OF log FOR VALUES WITH (MODULUS 16, REMAINDER %s)', i, i);
    END LOOP;
END $$;
-- +goose StatementEnd
INSERT INTO log (id, shop_id, at, kind, blade_id, saw_id, by_name, note, detail, strikes, amends) OVERRIDING SYSTEM VALUE
SELECT id, shop_id, at, kind, blade_id, saw_id, by_name, note, detail, strikes, amends FROM whole_log;
SELECT setval('log_id_seq', greatest((SELECT max(id) + 1 FROM whole_log), nextval('whole_log_id_seq')), false);
DROP TABLE whole_log;

ALTER TABLE log
    ADD PRIMARY KEY (shop_id, id),
    ADD CONSTRAINT log_strikes CHECK ((kind = 'struck') = (strikes IS NOT NULL)),
    ADD CONSTRAINT log_amends CHECK (amends IS NULL OR amends < id AND kind <> 'struck'),
    ADD FOREIGN KEY (shop_id) REFERENCES shops,
    ADD FOREIGN KEY (shop_id, blade_id) REFERENCES blades,
    ADD FOREIGN KEY (shop_id, saw_id) REFERENCES saws,
    ADD FOREIGN KEY (kind, of_blade, of_saw) REFERENCES log_kinds;
ALTER TABLE log
    ADD FOREIGN KEY (shop_id, strikes) REFERENCES log,
    ADD FOREIGN KEY (shop_id, amends) REFERENCES log;
-- Few rows strike another out or stand in its place: every row looks for them.
CREATE UNIQUE INDEX log_strikes_key ON log (shop_id, strikes) WHERE strikes IS NOT NULL;
CREATE UNIQUE INDEX log_amends_key ON log (shop_id, amends) WHERE amends IS NOT NULL;
CREATE INDEX log_of_blade ON log (shop_id, blade_id, at DESC, id DESC);
CREATE INDEX log_of_kind ON log (shop_id, kind, at DESC, id DESC);
CREATE INDEX log_of_material ON log (shop_id, (detail->>'material'), at DESC, id DESC) WHERE kind = 'cut';
CREATE INDEX log_of_saw ON log (shop_id, saw_id, at DESC, id DESC);
CREATE INDEX log_of_shop ON log (shop_id, at DESC, id DESC);
CREATE INDEX log_on_saw ON log (shop_id, saw_id, at DESC, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (shop_id, saw_id, kind, at DESC, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');
CREATE INDEX log_wobbles ON log (shop_id, kind, blade_id, at DESC, id DESC) WHERE kind IN ('runout', 'clearance');
CREATE TRIGGER log_rows_stay BEFORE UPDATE OR DELETE ON log FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay();
CREATE TRIGGER log_is_not_emptied BEFORE TRUNCATE ON log FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay();
-- A part is no way round either of them.
-- +goose StatementBegin
DO $$ BEGIN
    FOR i IN 0..15 LOOP
        EXECUTE format('CREATE TRIGGER log_rows_stay BEFORE UPDATE OR DELETE OR TRUNCATE ON log_%s FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay()', i);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER TABLE log ENABLE ROW LEVEL SECURITY;
CREATE POLICY of_its_shop ON log TO corte_serves USING (shop_id = (SELECT nullif(current_setting('corte.shop', true), '')::uuid));
GRANT SELECT, INSERT ON log TO corte_serves;
GRANT USAGE, SELECT, UPDATE ON SEQUENCE log_id_seq TO corte_serves;
ANALYZE log;

-- +goose Down
LOCK TABLE log IN ACCESS EXCLUSIVE MODE;
CREATE TABLE whole_log (
    id       bigint GENERATED ALWAYS AS IDENTITY (SEQUENCE NAME whole_log_id_seq),
    shop_id  uuid NOT NULL,
    at       timestamptz NOT NULL,
    kind     text NOT NULL,
    blade_id uuid,
    saw_id   uuid,
    by_name  text NOT NULL DEFAULT '',
    note     text NOT NULL DEFAULT '',
    detail   jsonb NOT NULL DEFAULT '{}',
    strikes  bigint,
    of_blade boolean GENERATED ALWAYS AS (blade_id IS NOT NULL) STORED,
    of_saw   boolean GENERATED ALWAYS AS (saw_id IS NOT NULL) STORED,
    amends   bigint
);
INSERT INTO whole_log (id, shop_id, at, kind, blade_id, saw_id, by_name, note, detail, strikes, amends) OVERRIDING SYSTEM VALUE
SELECT id, shop_id, at, kind, blade_id, saw_id, by_name, note, detail, strikes, amends FROM log;
SELECT setval('whole_log_id_seq', greatest((SELECT max(id) + 1 FROM log), nextval('log_id_seq')), false);
DROP TABLE log;
ALTER TABLE whole_log RENAME TO log;
ALTER SEQUENCE whole_log_id_seq RENAME TO log_id_seq;
ALTER TABLE log
    ADD PRIMARY KEY (shop_id, id),
    ADD CONSTRAINT log_strikes_key UNIQUE (shop_id, strikes),
    ADD CONSTRAINT log_amends_key UNIQUE (shop_id, amends),
    ADD CONSTRAINT log_strikes CHECK ((kind = 'struck') = (strikes IS NOT NULL)),
    ADD CONSTRAINT log_amends CHECK (amends IS NULL OR amends < id AND kind <> 'struck'),
    ADD FOREIGN KEY (shop_id) REFERENCES shops,
    ADD FOREIGN KEY (shop_id, blade_id) REFERENCES blades,
    ADD FOREIGN KEY (shop_id, saw_id) REFERENCES saws,
    ADD FOREIGN KEY (kind, of_blade, of_saw) REFERENCES log_kinds;
ALTER TABLE log
    ADD FOREIGN KEY (shop_id, strikes) REFERENCES log,
    ADD FOREIGN KEY (shop_id, amends) REFERENCES log;
CREATE INDEX log_of_blade ON log (shop_id, blade_id, at DESC, id DESC);
CREATE INDEX log_of_kind ON log (shop_id, kind, at DESC, id DESC);
CREATE INDEX log_of_material ON log (shop_id, (detail->>'material'), at DESC, id DESC) WHERE kind = 'cut';
CREATE INDEX log_of_saw ON log (shop_id, saw_id, at DESC, id DESC);
CREATE INDEX log_of_shop ON log (shop_id, at DESC, id DESC);
CREATE INDEX log_on_saw ON log (shop_id, saw_id, at DESC, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (shop_id, saw_id, kind, at DESC, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');
CREATE INDEX log_wobbles ON log (shop_id, kind, blade_id, at DESC, id DESC) WHERE kind IN ('runout', 'clearance');
CREATE TRIGGER log_rows_stay BEFORE UPDATE OR DELETE ON log FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay();
CREATE TRIGGER log_is_not_emptied BEFORE TRUNCATE ON log FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay();
ALTER TABLE log ENABLE ROW LEVEL SECURITY;
CREATE POLICY of_its_shop ON log TO corte_serves USING (shop_id = (SELECT nullif(current_setting('corte.shop', true), '')::uuid));
GRANT SELECT, INSERT ON log TO corte_serves;
GRANT USAGE, SELECT, UPDATE ON SEQUENCE log_id_seq TO corte_serves;
ANALYZE log;
