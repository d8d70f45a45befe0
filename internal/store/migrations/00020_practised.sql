-- What people answered in the drills of Learn. How they stand with each is worked
-- out from it. Where nobody is known it is the shop's own.

-- +goose Up
CREATE TABLE practised (                  -- only added to
    shop_id uuid NOT NULL REFERENCES shops,
    id bigint GENERATED ALWAYS AS IDENTITY,
    member_id uuid,
    skill text NOT NULL,
    number bigint NOT NULL,
    level integer NOT NULL,
    is_right boolean NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (shop_id, id),
    FOREIGN KEY (shop_id, member_id) REFERENCES members
);
CREATE INDEX practised_of_member ON practised (shop_id, member_id, id);
ALTER TABLE practised ENABLE ROW LEVEL SECURITY;
CREATE POLICY of_its_shop ON practised TO corte_serves USING (shop_id = (SELECT nullif(current_setting('corte.shop', true), '')::uuid));
GRANT SELECT, INSERT ON practised TO corte_serves;
GRANT USAGE, SELECT, UPDATE ON SEQUENCE practised_id_seq TO corte_serves;

-- Drills that somebody has passed before they are signed off, with commas between.
ALTER TABLE shops ADD COLUMN drills text NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE shops DROP COLUMN drills;
DROP TABLE practised;
