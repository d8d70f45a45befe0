-- Blades that hang in a shop are called apart from each other, so that a name
-- alone says which; those that are retired keep theirs. Of those that were called
-- the same until now all but the first get a number.

-- +goose Up
-- +goose StatementBegin
DO $$ BEGIN
    LOOP
        UPDATE blades b SET name = left(b.name, 56) || ' ' || d.n, version = b.version + 1
        FROM (SELECT shop_id, id, row_number() OVER (PARTITION BY shop_id, lower(name) ORDER BY id) AS n FROM blades WHERE retired_at IS NULL) d
        WHERE b.shop_id = d.shop_id AND b.id = d.id AND d.n > 1;
        EXIT WHEN NOT FOUND;
    END LOOP;
END $$;
-- +goose StatementEnd
CREATE UNIQUE INDEX blades_called ON blades (shop_id, lower(name)) WHERE retired_at IS NULL;

-- +goose Down
DROP INDEX blades_called;
