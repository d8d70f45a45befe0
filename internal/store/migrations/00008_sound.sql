-- An answer is kept with the key that it was asked under, in the transaction of
-- what it says, so that a retry is answered before anything is looked at. Rows
-- of the log name blades and saws of their own shop, and are not emptied out.

-- +goose Up
ALTER TABLE idempotency
    DROP COLUMN log_id,
    DROP COLUMN made_id,
    ADD COLUMN status integer, -- NULL in rows from before
    ADD COLUMN headers jsonb NOT NULL DEFAULT '{}',
    ADD COLUMN body bytea NOT NULL DEFAULT '';
CREATE INDEX idempotency_by_age ON idempotency (created_at);

ALTER TABLE blades ADD UNIQUE (shop_id, id);
ALTER TABLE saws ADD UNIQUE (shop_id, id);
ALTER TABLE log
    DROP CONSTRAINT log_blade_id_fkey,
    DROP CONSTRAINT log_saw_id_fkey,
    ADD FOREIGN KEY (shop_id, blade_id) REFERENCES blades (shop_id, id),
    ADD FOREIGN KEY (shop_id, saw_id) REFERENCES saws (shop_id, id);
CREATE TRIGGER log_is_not_emptied BEFORE TRUNCATE ON log
    FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay();

-- +goose Down
DROP TRIGGER log_is_not_emptied ON log;
ALTER TABLE log
    DROP CONSTRAINT log_shop_id_blade_id_fkey,
    DROP CONSTRAINT log_shop_id_saw_id_fkey,
    ADD FOREIGN KEY (blade_id) REFERENCES blades (id),
    ADD FOREIGN KEY (saw_id) REFERENCES saws (id);
ALTER TABLE saws DROP CONSTRAINT saws_shop_id_id_key;
ALTER TABLE blades DROP CONSTRAINT blades_shop_id_id_key;
DROP INDEX idempotency_by_age;
-- What was kept of answers cannot be turned back into what they made.
DELETE FROM idempotency;
ALTER TABLE idempotency DROP COLUMN status, DROP COLUMN headers, DROP COLUMN body,
    ADD COLUMN log_id bigint REFERENCES log (id),
    ADD COLUMN made_id uuid,
    ADD CHECK (num_nonnulls(log_id, made_id) = 1);
