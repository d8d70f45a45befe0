-- How fast each saw was last heard to idle, a minute; 0 where nobody has listened.

-- +goose Up
ALTER TABLE saws ADD COLUMN heard_rpm double precision NOT NULL DEFAULT 0 CHECK (heard_rpm >= 0);

-- +goose Down
ALTER TABLE saws DROP COLUMN heard_rpm;
