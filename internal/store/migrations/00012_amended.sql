-- A row that was put right is struck out, and another stands in its place: it
-- says which, so that a mistake is mended once, whoever mends it.

-- +goose Up
ALTER TABLE log
    ADD COLUMN amends bigint,
    ADD CONSTRAINT log_amends_key UNIQUE (shop_id, amends),
    ADD CONSTRAINT log_amends CHECK (amends IS NULL OR amends < id AND kind <> 'struck'),
    ADD FOREIGN KEY (shop_id, amends) REFERENCES log;

-- +goose Down
ALTER TABLE log DROP COLUMN amends;
