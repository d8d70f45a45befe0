-- The rack, the log, and what the log adds up to. Every top-level row belongs
-- to a shop. Lengths are millimetres, angles degrees; 0 stands for a limit that
-- a saw does not have or a number that nobody has measured, as in the core.

-- +goose Up
CREATE TABLE shops (
    id             uuid PRIMARY KEY,
    slug           text NOT NULL UNIQUE,
    name           text NOT NULL,
    change_minutes double precision NOT NULL DEFAULT 3 CHECK (change_minutes >= 0),
    created_at     timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE saws (
    id                 uuid PRIMARY KEY,
    shop_id            uuid NOT NULL REFERENCES shops (id),
    name               text NOT NULL,
    kind               text NOT NULL CHECK (kind IN ('table', 'miter', 'circular')),
    sliding            boolean NOT NULL DEFAULT false,
    diameter_mm        double precision NOT NULL,
    least_mm           double precision NOT NULL DEFAULT 0,
    arbor_mm           double precision NOT NULL,
    bushings_mm        double precision[] NOT NULL DEFAULT '{}',
    rpm                double precision NOT NULL CHECK (rpm > 0),
    motor_w            double precision NOT NULL CHECK (motor_w > 0),
    volts              double precision NOT NULL DEFAULT 0,
    breaker_a          double precision NOT NULL DEFAULT 0,
    knife_mm           double precision NOT NULL DEFAULT 0,
    brake_min_kerf_mm  double precision,
    brake_max_kerf_mm  double precision,
    brake_min_diameter_mm double precision,
    brake_max_diameter_mm double precision,
    dado_sets          boolean NOT NULL DEFAULT false,
    wheels             boolean NOT NULL DEFAULT false,
    steel              boolean NOT NULL DEFAULT false,
    reach_mm           double precision NOT NULL CHECK (reach_mm > 0),
    reach45_mm         double precision NOT NULL DEFAULT 0,
    below_table_mm     double precision NOT NULL DEFAULT 0,
    chop_width_mm      double precision NOT NULL DEFAULT 0,
    crosscut_mm        double precision NOT NULL DEFAULT 0,
    note               text NOT NULL DEFAULT '',
    version            integer NOT NULL DEFAULT 1,
    CHECK (num_nonnulls(brake_min_kerf_mm, brake_max_kerf_mm, brake_min_diameter_mm, brake_max_diameter_mm) IN (0, 4))
);
CREATE INDEX saws_of_shop ON saws (shop_id, name, id);

CREATE TABLE blades (
    id          uuid PRIMARY KEY,
    shop_id     uuid NOT NULL REFERENCES shops (id),
    name        text NOT NULL,
    make        text NOT NULL,
    diameter_mm double precision NOT NULL CHECK (diameter_mm > 0),
    bore_mm     double precision NOT NULL CHECK (bore_mm > 0),
    kerf_mm     double precision NOT NULL CHECK (kerf_mm > 0),
    plate_mm    double precision NOT NULL DEFAULT 0,
    teeth       integer NOT NULL CHECK (teeth >= 0),
    grind       text NOT NULL DEFAULT '',
    raker_group integer NOT NULL DEFAULT 0,
    bevel_deg   double precision NOT NULL DEFAULT 0,
    hook_deg    double precision NOT NULL DEFAULT 0,
    max_rpm     double precision NOT NULL DEFAULT 0,
    gullet_mm   double precision NOT NULL DEFAULT 0,
    raker_mm    double precision NOT NULL DEFAULT 0,
    kept_for    text NOT NULL,
    nails       boolean NOT NULL DEFAULT false,
    ferrous     boolean NOT NULL DEFAULT false,
    hangs       text NOT NULL DEFAULT '',
    note        text NOT NULL DEFAULT '',
    retired_at  timestamptz,
    version     integer NOT NULL DEFAULT 1
);
CREATE INDEX blades_of_shop ON blades (shop_id, name, id) WHERE retired_at IS NULL;

-- Rows are only added: the trigger below refuses anything else.
CREATE TABLE log (
    id       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    shop_id  uuid NOT NULL REFERENCES shops (id),
    at       timestamptz NOT NULL,
    kind     text NOT NULL CHECK (kind IN ('cut', 'mounted', 'washed', 'sharpened', 'heel')),
    blade_id uuid REFERENCES blades (id),
    saw_id   uuid REFERENCES saws (id),
    by_name  text NOT NULL DEFAULT '',
    note     text NOT NULL DEFAULT '',
    detail   jsonb NOT NULL DEFAULT '{}',
    CHECK (kind = 'heel' OR blade_id IS NOT NULL),
    CHECK (kind NOT IN ('cut', 'mounted', 'heel') OR saw_id IS NOT NULL)
);
CREATE INDEX log_of_blade ON log (blade_id, id DESC);
CREATE INDEX log_of_shop ON log (shop_id, id DESC);
CREATE INDEX log_on_saw ON log (saw_id, id DESC) WHERE kind IN ('mounted', 'cut');
CREATE INDEX log_heels ON log (saw_id, id DESC) WHERE kind = 'heel';

-- +goose StatementBegin
CREATE FUNCTION log_rows_stay() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'log rows are only added';
END $$;
-- +goose StatementEnd
CREATE TRIGGER log_rows_stay BEFORE UPDATE OR DELETE ON log
    FOR EACH STATEMENT EXECUTE FUNCTION log_rows_stay();

-- A snapshot beside the log, written in the transaction that adds the row.
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

-- What a creating call answered, so that a retry is answered the same.
CREATE TABLE idempotency (
    shop_id    uuid NOT NULL REFERENCES shops (id),
    key        text NOT NULL,
    request    bytea NOT NULL, -- SHA-256 of the content
    log_id     bigint NOT NULL REFERENCES log (id),
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (shop_id, key)
);

-- +goose Down
DROP TABLE idempotency, conditions, log, blades, saws, shops;
DROP FUNCTION log_rows_stay;
