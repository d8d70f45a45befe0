-- Mounting a blade step by step, and measuring a saw: what mounting and truing
-- want to know of a saw, mountings that are under way, and their log rows.

-- +goose Up
ALTER TABLE saws
    ADD COLUMN thread text NOT NULL DEFAULT 'unknown' CHECK (thread IN ('unknown', 'right', 'left')),
    ADD COLUMN arbor_lock boolean NOT NULL DEFAULT false,
    ADD COLUMN knockout boolean NOT NULL DEFAULT false,
    ADD COLUMN wheel_lead_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN fence_lead_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN to_bolt_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN tolerances text NOT NULL DEFAULT '';

ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_blade, DROP CONSTRAINT log_saw;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_blade CHECK (kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'clearance') OR blade_id IS NOT NULL),
    ADD CONSTRAINT log_saw CHECK (kind NOT IN ('cut', 'mounted', 'dismounted', 'moved', 'heel', 'fence', 'tilt', 'gauge') OR saw_id IS NOT NULL);
DROP INDEX log_on_saw;
DROP INDEX log_heels;
CREATE INDEX log_on_saw ON log (saw_id, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (saw_id, kind, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');
CREATE INDEX log_of_saw ON log (saw_id, id DESC);

-- A mounting that is under way is one row a saw, so that it comes back where it
-- was on any device. When it ends its rows go into the log.
CREATE TABLE mountings (
    id         uuid PRIMARY KEY,
    shop_id    uuid NOT NULL REFERENCES shops (id),
    saw_id     uuid NOT NULL UNIQUE REFERENCES saws (id),
    blade_id   uuid NOT NULL REFERENCES blades (id),
    step       integer NOT NULL DEFAULT 0 CHECK (step >= 0),
    answers    jsonb NOT NULL DEFAULT '{}',
    by_name    text NOT NULL DEFAULT '',
    started_at timestamptz NOT NULL,
    version    integer NOT NULL DEFAULT 1
);

-- +goose Down
DROP TABLE mountings;
DROP INDEX log_of_saw, log_truings, log_on_saw;
CREATE INDEX log_on_saw ON log (saw_id, id DESC) WHERE kind IN ('mounted', 'cut');
CREATE INDEX log_heels ON log (saw_id, id DESC) WHERE kind = 'heel';
ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_blade, DROP CONSTRAINT log_saw;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'washed', 'sharpened', 'heel', 'retired', 'restored')),
    ADD CONSTRAINT log_blade CHECK (kind NOT IN ('cut', 'mounted', 'washed', 'sharpened') OR blade_id IS NOT NULL),
    ADD CONSTRAINT log_saw CHECK (kind NOT IN ('cut', 'mounted', 'heel') OR saw_id IS NOT NULL);
ALTER TABLE saws DROP COLUMN thread, DROP COLUMN arbor_lock, DROP COLUMN knockout, DROP COLUMN wheel_lead_mm,
    DROP COLUMN fence_lead_mm, DROP COLUMN to_bolt_mm, DROP COLUMN tolerances;
