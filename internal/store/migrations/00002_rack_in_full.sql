-- A rack that can be edited: versions, retirement, photos, what a blade cost and
-- how the shop likes to set height. What is made under an idempotency key can
-- now be a row of the rack as well as a row of the log.

-- +goose Up
ALTER TABLE shops
    ADD COLUMN height_school text NOT NULL DEFAULT 'saw' CHECK (height_school IN ('saw', 'proud', 'gullets', 'full')),
    ADD COLUMN version integer NOT NULL DEFAULT 1;

ALTER TABLE saws
    ADD COLUMN tilt_deg double precision NOT NULL DEFAULT 0,
    ADD COLUMN turn_deg double precision NOT NULL DEFAULT 0,
    ADD COLUMN retired_at timestamptz,
    ADD COLUMN retired_reason text NOT NULL DEFAULT '',
    ADD COLUMN retired_note text NOT NULL DEFAULT '';

ALTER TABLE blades
    ADD COLUMN coating text NOT NULL DEFAULT 'none' CHECK (coating IN ('none', 'nitride', 'slick')),
    ADD COLUMN slots integer NOT NULL DEFAULT 0,
    ADD COLUMN price double precision NOT NULL DEFAULT 0,
    ADD COLUMN carbide_mm double precision NOT NULL DEFAULT 0,
    ADD COLUMN sharpened_before integer NOT NULL DEFAULT 0,
    ADD COLUMN retired_reason text NOT NULL DEFAULT '',
    ADD COLUMN retired_note text NOT NULL DEFAULT '';
CREATE INDEX retired_of_shop ON blades (shop_id, name, id) WHERE retired_at IS NOT NULL;

CREATE TABLE photos (
    blade_id uuid PRIMARY KEY REFERENCES blades (id),
    shop_id  uuid NOT NULL REFERENCES shops (id),
    at       timestamptz NOT NULL,
    jpeg     bytea NOT NULL
);

ALTER TABLE idempotency
    ALTER COLUMN log_id DROP NOT NULL,
    ADD COLUMN made_id uuid,
    ADD CHECK (num_nonnulls(log_id, made_id) = 1);

ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_check, DROP CONSTRAINT log_check1;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'washed', 'sharpened', 'heel', 'retired', 'restored')),
    ADD CONSTRAINT log_about CHECK (num_nonnulls(blade_id, saw_id) > 0),
    ADD CONSTRAINT log_blade CHECK (kind NOT IN ('cut', 'mounted', 'washed', 'sharpened') OR blade_id IS NOT NULL),
    ADD CONSTRAINT log_saw CHECK (kind NOT IN ('cut', 'mounted', 'heel') OR saw_id IS NOT NULL);

-- +goose Down
ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_about, DROP CONSTRAINT log_blade, DROP CONSTRAINT log_saw;
ALTER TABLE log ADD CONSTRAINT log_kind_check CHECK (kind IN ('cut', 'mounted', 'washed', 'sharpened', 'heel')),
    ADD CONSTRAINT log_check CHECK (kind = 'heel' OR blade_id IS NOT NULL),
    ADD CONSTRAINT log_check1 CHECK (kind NOT IN ('cut', 'mounted', 'heel') OR saw_id IS NOT NULL);
DELETE FROM idempotency WHERE log_id IS NULL;
ALTER TABLE idempotency DROP COLUMN made_id, ALTER COLUMN log_id SET NOT NULL;
DROP TABLE photos;
DROP INDEX retired_of_shop;
ALTER TABLE blades DROP COLUMN coating, DROP COLUMN slots, DROP COLUMN price, DROP COLUMN carbide_mm,
    DROP COLUMN sharpened_before, DROP COLUMN retired_reason, DROP COLUMN retired_note;
ALTER TABLE saws DROP COLUMN tilt_deg, DROP COLUMN turn_deg, DROP COLUMN retired_at, DROP COLUMN retired_reason,
    DROP COLUMN retired_note;
ALTER TABLE shops DROP COLUMN height_school, DROP COLUMN version;
