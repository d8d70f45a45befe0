-- Grooves and joints: what makes a dado set's width, how a saw's arbor takes
-- it, and grooves that are under way or done, to be called up again.

-- +goose Up
ALTER TABLE saws
    ADD COLUMN arbor_length_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN washer_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN nut_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN washer_off boolean NOT NULL DEFAULT false,
    ADD COLUMN nut_side text NOT NULL DEFAULT 'unknown';

-- The parts of a dado set. How thick they really are is not kept: it is folded
-- from the test grooves in the log.
CREATE TABLE dado_sets (
    blade_id uuid PRIMARY KEY REFERENCES blades (id),
    shop_id  uuid NOT NULL REFERENCES shops (id),
    made_of  jsonb NOT NULL,
    version  integer NOT NULL DEFAULT 1
);

CREATE TABLE grooves (
    id         uuid PRIMARY KEY,
    shop_id    uuid NOT NULL REFERENCES shops (id),
    saw_id     uuid NOT NULL REFERENCES saws (id),
    blade_id   uuid NOT NULL REFERENCES blades (id),
    material   text NOT NULL,
    asked      jsonb NOT NULL, -- as it was said
    setting    jsonb NOT NULL, -- that stands now
    tests      jsonb NOT NULL DEFAULT '[]',
    by_name    text NOT NULL DEFAULT '',
    started_at timestamptz NOT NULL,
    ended_at   timestamptz,
    made       integer NOT NULL DEFAULT 0,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX grooves_of_shop ON grooves (shop_id, started_at DESC, id);

ALTER TABLE mountings ADD COLUMN groove_id uuid REFERENCES grooves (id) ON DELETE SET NULL;

ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_blade;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'noted',
                    'compared', 'traced', 'grooved', 'renewed', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_blade CHECK (blade_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened',
                    'returned', 'sent', 'judged', 'inspected', 'grooved', 'renewed', 'clearance'));

-- +goose Down
ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_blade;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'noted',
                    'compared', 'traced', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_blade CHECK (blade_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened',
                    'returned', 'sent', 'judged', 'inspected', 'clearance'));
ALTER TABLE mountings DROP COLUMN groove_id;
DROP TABLE grooves, dado_sets;
ALTER TABLE saws DROP COLUMN arbor_length_mm, DROP COLUMN washer_mm, DROP COLUMN nut_mm, DROP COLUMN washer_off, DROP COLUMN nut_side;
