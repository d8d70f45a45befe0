-- Judgement, second edition: what an owner sees on a blade, which way a saw
-- tilts, what mending takes, blades that were mended and inspected, and
-- corrections that know of which edition of the model they are.

-- +goose Up
ALTER TABLE blades
    ADD COLUMN hook_unknown boolean NOT NULL DEFAULT false,
    ADD COLUMN shoulder boolean NOT NULL DEFAULT false,
    ADD COLUMN shear boolean NOT NULL DEFAULT false,
    ADD COLUMN throwaway boolean NOT NULL DEFAULT false,
    ADD COLUMN carbide text NOT NULL DEFAULT 'unknown',
    ADD COLUMN gullet_shape text NOT NULL DEFAULT 'unknown';
ALTER TABLE saws
    ADD COLUMN tilt_side text NOT NULL DEFAULT 'unknown',
    ADD COLUMN fence_reach_mm double precision NOT NULL DEFAULT 0;
ALTER TABLE shops ADD COLUMN rework double precision NOT NULL DEFAULT 1 CHECK (rework > 0);
ALTER TABLE conditions
    ADD COLUMN hit boolean GENERATED ALWAYS AS (coalesce((condition->>'Hit')::boolean, false)) STORED,
    ADD COLUMN flaw text GENERATED ALWAYS AS (coalesce(condition->>'Flaw', '')) STORED;
ALTER TABLE corrections ADD COLUMN edition integer NOT NULL DEFAULT 1;

ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_blade;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'mended', 'noted',
                    'compared', 'traced', 'grooved', 'renewed', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_blade CHECK (blade_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened',
                    'returned', 'sent', 'judged', 'inspected', 'mended', 'grooved', 'renewed', 'clearance'));
CREATE INDEX log_wobbles ON log (shop_id, kind, blade_id, at DESC, id DESC) WHERE kind IN ('runout', 'clearance');

-- +goose Down
DROP INDEX log_wobbles;
ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_blade;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'noted',
                    'compared', 'traced', 'grooved', 'renewed', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_blade CHECK (blade_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened',
                    'returned', 'sent', 'judged', 'inspected', 'grooved', 'renewed', 'clearance'));
ALTER TABLE corrections DROP COLUMN edition;
ALTER TABLE conditions DROP COLUMN hit, DROP COLUMN flaw;
ALTER TABLE shops DROP COLUMN rework;
ALTER TABLE saws DROP COLUMN tilt_side, DROP COLUMN fence_reach_mm;
ALTER TABLE blades DROP COLUMN hook_unknown, DROP COLUMN shoulder, DROP COLUMN shear, DROP COLUMN throwaway, DROP COLUMN carbide, DROP COLUMN gullet_shape;
