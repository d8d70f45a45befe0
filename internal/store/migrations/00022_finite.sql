-- What no row may ever hold: a time or a figure that is infinite, or no number.
-- Rows of before are not looked through for it (NOT VALID), but for the log,
-- whose rows cannot be changed later: a time that is none becomes 1970.

-- +goose Up
-- +goose StatementBegin
DO $$ DECLARE c record; sure text; BEGIN
    IF EXISTS (SELECT FROM log WHERE NOT isfinite(at)) THEN
        ALTER TABLE log DISABLE TRIGGER USER;
        FOR i IN 0..15 LOOP EXECUTE format('ALTER TABLE log_%s DISABLE TRIGGER USER', i); END LOOP;
        UPDATE log SET at = 'epoch' WHERE NOT isfinite(at);
        FOR i IN 0..15 LOOP EXECUTE format('ALTER TABLE log_%s ENABLE TRIGGER USER', i); END LOOP;
        ALTER TABLE log ENABLE TRIGGER USER;
    END IF;
    FOR c IN SELECT k.relname AS t, a.attname AS col, a.atttypid = 'float8'::regtype AS figure
        FROM pg_attribute a JOIN pg_class k ON k.oid = a.attrelid JOIN pg_attribute s ON s.attrelid = k.oid AND s.attname = 'shop_id'
        WHERE k.relnamespace = 'public'::regnamespace AND k.relkind IN ('r', 'p') AND NOT k.relispartition AND a.attnum > 0 AND a.attgenerated = ''
            AND a.atttypid IN ('float8'::regtype, 'timestamptz'::regtype) ORDER BY 1, 2
    LOOP
        sure := CASE WHEN c.figure THEN format('%1$I > ''-Infinity'' AND %1$I < ''Infinity''', c.col) ELSE format('isfinite(%I)', c.col) END;
        EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I CHECK (%s)%s', c.t, c.t || '_' || c.col || '_finite', sure, CASE WHEN c.t = 'log' THEN '' ELSE ' NOT VALID' END);
    END LOOP;
END $$;
-- +goose StatementEnd
ALTER TABLE shops
    ADD CONSTRAINT shops_finite CHECK (greatest(change_minutes, sharpening_price, rework) < 'Infinity') NOT VALID;

-- An owner may remove a row that cannot be read.
GRANT DELETE ON baths, dado_sets, owning, trials TO corte_serves;

-- +goose Down
REVOKE DELETE ON baths, dado_sets, owning, trials FROM corte_serves;
-- +goose StatementBegin
DO $$ DECLARE c record; BEGIN
    FOR c IN SELECT conrelid::regclass AS t, conname AS name FROM pg_constraint
        WHERE connamespace = 'public'::regnamespace AND contype = 'c' AND conname LIKE '%\_finite' AND coninhcount = 0
    LOOP
        EXECUTE format('ALTER TABLE %s DROP CONSTRAINT %I', c.t, c.name);
    END LOOP;
END $$;
-- +goose StatementEnd
