-- What an owner says of a blade stands from that moment; and what a table saw may
-- have beside its blade.

-- +goose Up
ALTER TABLE conditions
    ADD COLUMN told_m2 double precision GENERATED ALWAYS AS ((condition->>'told_m2')::double precision) STORED,
    ADD COLUMN told_resin_m2 double precision GENERATED ALWAYS AS ((condition->>'told_resin_m2')::double precision) STORED;
ALTER TABLE saws
    ADD COLUMN carriage_mm double precision NOT NULL DEFAULT 0 CHECK (carriage_mm >= 0 AND carriage_mm < 'Infinity'),
    ADD COLUMN carriage_clamps boolean NOT NULL DEFAULT false,
    ADD COLUMN scoring_diameter_mm double precision NOT NULL DEFAULT 0 CHECK (scoring_diameter_mm >= 0 AND scoring_diameter_mm < 'Infinity'),
    ADD COLUMN scoring_kerf_mm double precision NOT NULL DEFAULT 0 CHECK (scoring_kerf_mm >= 0 AND scoring_kerf_mm < 'Infinity'),
    ADD COLUMN scoring_rpm double precision NOT NULL DEFAULT 0 CHECK (scoring_rpm >= 0 AND scoring_rpm < 'Infinity'),
    ADD COLUMN scoring_tilts boolean NOT NULL DEFAULT false,
    ADD COLUMN shoe_mm double precision NOT NULL DEFAULT 0 CHECK (shoe_mm >= 0 AND shoe_mm < 'Infinity');

-- +goose Down
ALTER TABLE saws DROP COLUMN carriage_mm, DROP COLUMN carriage_clamps, DROP COLUMN scoring_diameter_mm, DROP COLUMN scoring_kerf_mm,
    DROP COLUMN scoring_rpm, DROP COLUMN scoring_tilts, DROP COLUMN shoe_mm;
ALTER TABLE conditions DROP COLUMN told_m2, DROP COLUMN told_resin_m2;
