-- Fault finding that is under way or done. What the shop knew when it began is
-- kept with it, so that what is measured on the way counts once.

-- +goose Up
CREATE TABLE traces (
    id         uuid PRIMARY KEY,
    shop_id    uuid NOT NULL REFERENCES shops (id),
    saw_id     uuid NOT NULL REFERENCES saws (id),
    blade_id   uuid REFERENCES blades (id),
    cut        jsonb NOT NULL, -- as it was said
    finish     text NOT NULL,
    groove     boolean NOT NULL,
    facts      jsonb NOT NULL,
    present    text[] NOT NULL DEFAULT '{}',
    absent     text[] NOT NULL DEFAULT '{}',
    answers    jsonb NOT NULL DEFAULT '{}', -- check to found, not or could-not
    by_name    text NOT NULL DEFAULT '',
    started_at timestamptz NOT NULL,
    ended_at   timestamptz,
    cause      text NOT NULL DEFAULT '', -- that it was closed with
    fixed      boolean NOT NULL DEFAULT false,
    note       text NOT NULL DEFAULT '',
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX traces_of_shop ON traces (shop_id, started_at DESC, id);

ALTER TABLE log DROP CONSTRAINT log_kind_check;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'noted',
                    'compared', 'traced', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance'));

-- +goose Down
DROP TABLE traces;
ALTER TABLE log DROP CONSTRAINT log_kind_check;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'noted',
                    'compared', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance'));
