-- Run and care: what a blade's log says of it in full, rows that strike out
-- mistakes, what the shop's own cuts taught, baths, washes and comparisons that
-- are under way, and the calendar's private address.

-- +goose Up
ALTER TABLE shops
    ADD COLUMN learning boolean NOT NULL DEFAULT true,
    ADD COLUMN sharpening_price double precision NOT NULL DEFAULT 0 CHECK (sharpening_price >= 0);

ALTER TABLE log ADD COLUMN strikes bigint UNIQUE REFERENCES log (id);
ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_about, DROP CONSTRAINT log_blade, DROP CONSTRAINT log_saw;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'returned', 'sent', 'judged', 'inspected', 'noted',
                    'compared', 'struck', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_about CHECK (num_nonnulls(blade_id, saw_id) > 0),
    ADD CONSTRAINT log_strikes CHECK ((kind = 'struck') = (strikes IS NOT NULL)),
    ADD CONSTRAINT log_blade CHECK (blade_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened',
                    'returned', 'sent', 'judged', 'inspected', 'clearance')),
    ADD CONSTRAINT log_saw CHECK (saw_id IS NOT NULL OR kind NOT IN ('cut', 'mounted', 'dismounted', 'moved', 'heel', 'fence', 'tilt', 'gauge'));

-- A row counts from when it happened, not from when it was written: a cut that
-- waited in a tablet, or an old record, comes later than its time.
DROP INDEX log_of_blade, log_of_shop, log_on_saw, log_truings, log_of_saw;
CREATE INDEX log_of_blade ON log (blade_id, at DESC, id DESC);
CREATE INDEX log_of_saw ON log (saw_id, at DESC, id DESC);
CREATE INDEX log_of_shop ON log (shop_id, at DESC, id DESC);
CREATE INDEX log_of_kind ON log (shop_id, kind, at DESC, id DESC);
CREATE INDEX log_on_saw ON log (saw_id, at DESC, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (saw_id, kind, at DESC, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');
CREATE INDEX log_of_material ON log (shop_id, (detail->>'material'), at DESC, id DESC) WHERE kind = 'cut';

-- The whole condition is one value that only the fold writes; what a plan reads
-- of every blade stands beside it as columns that follow from it.
DROP TABLE conditions;
CREATE TABLE conditions (
    blade_id    uuid PRIMARY KEY REFERENCES blades (id),
    fold        integer NOT NULL, -- which fold wrote it
    condition   jsonb NOT NULL,
    wear_m2     double precision GENERATED ALWAYS AS ((condition->>'WearM2')::double precision) STORED,
    resin_m2    double precision GENERATED ALWAYS AS ((condition->>'ResinM2')::double precision) STORED,
    life_shift  double precision GENERATED ALWAYS AS ((condition->'Life'->>'Shift')::double precision) STORED,
    pitch_shift double precision GENERATED ALWAYS AS ((condition->'Pitch'->>'Shift')::double precision) STORED,
    unfit       text GENERATED ALWAYS AS (condition->>'Unfit') STORED,
    away        boolean GENERATED ALWAYS AS ((condition->>'Away')::boolean) STORED
);

-- What the shop's own cuts teach of a material, renewed with every cut of it.
CREATE TABLE corrections (
    shop_id     uuid NOT NULL REFERENCES shops (id),
    material    text NOT NULL,
    ln_scorch   double precision NOT NULL,
    ln_splinter double precision NOT NULL,
    sd_scorch   double precision NOT NULL,
    sd_splinter double precision NOT NULL,
    cuts        integer NOT NULL,
    PRIMARY KEY (shop_id, material)
);

CREATE TABLE baths (
    id          uuid PRIMARY KEY,
    shop_id     uuid NOT NULL REFERENCES shops (id),
    name        text NOT NULL,
    cleaner     text NOT NULL,
    length_mm   double precision NOT NULL,
    width_mm    double precision NOT NULL,
    depth_mm    double precision NOT NULL,
    round       boolean NOT NULL,
    litres      double precision NOT NULL,
    made_at     timestamptz NOT NULL,
    uses        integer NOT NULL DEFAULT 0,
    strained_at integer NOT NULL DEFAULT 0, -- uses when it was last strained
    emptied_at  timestamptz
);
CREATE INDEX baths_of_shop ON baths (shop_id, made_at) WHERE emptied_at IS NULL;

-- A wash under way: its step began when it says, whatever becomes of a tablet.
CREATE TABLE washes (
    id         uuid PRIMARY KEY,
    shop_id    uuid NOT NULL REFERENCES shops (id),
    blade_ids  uuid[] NOT NULL,
    cleaner    text NOT NULL,
    brush      text NOT NULL,
    bath_id    uuid REFERENCES baths (id),
    step       integer NOT NULL DEFAULT 0,
    step_at    timestamptz NOT NULL,
    started_at timestamptz NOT NULL,
    by_name    text NOT NULL DEFAULT '',
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX washes_of_shop ON washes (shop_id, started_at);

CREATE TABLE trials (
    id         uuid PRIMARY KEY,
    shop_id    uuid NOT NULL REFERENCES shops (id),
    saw_id     uuid NOT NULL REFERENCES saws (id),
    blade_id   uuid NOT NULL REFERENCES blades (id), -- of the first setting
    material   text NOT NULL,
    asked      jsonb NOT NULL, -- the cut, its settings and repeats, as they were said
    runs       jsonb NOT NULL, -- in the order of cutting
    blind      boolean NOT NULL,
    by_name    text NOT NULL DEFAULT '',
    started_at timestamptz NOT NULL,
    ended_at   timestamptz,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX trials_of_shop ON trials (shop_id, started_at DESC, id);

CREATE TABLE calendars (
    shop_id uuid PRIMARY KEY REFERENCES shops (id),
    digest  bytea NOT NULL UNIQUE, -- SHA-256 of the address's secret, which is not kept
    made_at timestamptz NOT NULL
);

-- +goose Down
DROP TABLE calendars, trials, washes, baths, corrections, conditions;
CREATE TABLE conditions (
    blade_id      uuid PRIMARY KEY REFERENCES blades (id),
    log_id        bigint NOT NULL REFERENCES log (id),
    wear_m2       double precision NOT NULL,
    resin_m2      double precision NOT NULL,
    metres        double precision NOT NULL,
    metres_sharp  double precision NOT NULL,
    metres_washed double precision NOT NULL,
    cuts          integer NOT NULL,
    washes        integer NOT NULL,
    sharpenings   integer NOT NULL
);
DROP INDEX log_of_blade, log_of_saw, log_of_shop, log_of_kind, log_on_saw, log_truings, log_of_material;
CREATE INDEX log_of_blade ON log (blade_id, id DESC);
CREATE INDEX log_of_shop ON log (shop_id, id DESC);
CREATE INDEX log_of_saw ON log (saw_id, id DESC);
CREATE INDEX log_on_saw ON log (saw_id, id DESC) WHERE kind IN ('mounted', 'dismounted', 'cut');
CREATE INDEX log_truings ON log (saw_id, kind, id DESC) WHERE kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved');
ALTER TABLE log DROP CONSTRAINT log_kind_check, DROP CONSTRAINT log_about, DROP CONSTRAINT log_strikes, DROP CONSTRAINT log_blade, DROP CONSTRAINT log_saw;
ALTER TABLE log DROP COLUMN strikes;
ALTER TABLE log ADD CONSTRAINT log_kind_check
    CHECK (kind IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'retired', 'restored', 'moved',
                    'heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')),
    ADD CONSTRAINT log_about CHECK (num_nonnulls(blade_id, saw_id) > 0),
    ADD CONSTRAINT log_blade CHECK (kind NOT IN ('cut', 'mounted', 'dismounted', 'washed', 'sharpened', 'clearance') OR blade_id IS NOT NULL),
    ADD CONSTRAINT log_saw CHECK (kind NOT IN ('cut', 'mounted', 'dismounted', 'moved', 'heel', 'fence', 'tilt', 'gauge') OR saw_id IS NOT NULL);
ALTER TABLE shops DROP COLUMN learning, DROP COLUMN sharpening_price;
