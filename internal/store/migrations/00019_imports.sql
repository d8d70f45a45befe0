-- Files of old records that are worked through in the background: how far each
-- is, as any server tells it. Whether its rows are in is decided in one
-- transaction with them.

-- +goose Up
CREATE TABLE imports (
    shop_id uuid NOT NULL REFERENCES shops,
    id uuid NOT NULL,
    at timestamptz NOT NULL,
    by_name text NOT NULL DEFAULT '',
    state text NOT NULL CHECK (state IN ('working', 'done', 'failed')),
    rows integer NOT NULL,
    done integer NOT NULL DEFAULT 0,
    beat_at timestamptz NOT NULL, -- when its server was last heard of
    same integer NOT NULL DEFAULT 0,
    refuse integer NOT NULL DEFAULT 0,
    says text NOT NULL DEFAULT '',
    PRIMARY KEY (shop_id, id)
);
CREATE INDEX imports_of_shop ON imports (shop_id, at DESC);
ALTER TABLE imports ENABLE ROW LEVEL SECURITY;
CREATE POLICY of_its_shop ON imports TO corte_serves USING (shop_id = (SELECT nullif(current_setting('corte.shop', true), '')::uuid));
GRANT SELECT, INSERT, UPDATE ON imports TO corte_serves;

-- +goose Down
DROP TABLE imports;
