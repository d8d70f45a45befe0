-- A shop's days begin and end in its own time zone, whoever looks and wherever
-- the server stands. Empty until somebody has said.

-- +goose Up
ALTER TABLE shops ADD COLUMN time_zone text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE shops DROP COLUMN time_zone;
