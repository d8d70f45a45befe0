-- What owning rests on: what an hour and blades cost here, as somebody of the
-- shop said, and what is wished for. One row a shop, from when it is first said.

-- +goose Up
CREATE TABLE owning (
    shop_id uuid PRIMARY KEY REFERENCES shops,
    notes jsonb NOT NULL,
    version integer NOT NULL DEFAULT 1
);
ALTER TABLE owning ENABLE ROW LEVEL SECURITY;
CREATE POLICY of_its_shop ON owning TO corte_serves USING (shop_id = (SELECT nullif(current_setting('corte.shop', true), '')::uuid));
GRANT SELECT, INSERT, UPDATE ON owning TO corte_serves;

-- +goose Down
DROP TABLE owning;
