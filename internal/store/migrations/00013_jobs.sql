-- Jobs: a list of cuts, the run sheet that was laid over it, and the pieces that
-- were ticked off. Ticks are only added, so that two people who tick at once
-- lose nothing; what a job comes to is their sum.

-- +goose Up
CREATE TABLE jobs (
    shop_id uuid NOT NULL REFERENCES shops,
    id uuid NOT NULL,
    name text NOT NULL CHECK (name <> ''),
    list jsonb NOT NULL,
    sheet jsonb,
    created_at timestamptz NOT NULL,
    planned_at timestamptz,
    ended_at timestamptz,
    version integer NOT NULL DEFAULT 1,
    PRIMARY KEY (shop_id, id)
);
CREATE INDEX jobs_newest ON jobs (shop_id, (ended_at IS NOT NULL), created_at DESC);

CREATE TABLE job_ticks (
    shop_id uuid NOT NULL,
    id bigint GENERATED ALWAYS AS IDENTITY,
    job_id uuid NOT NULL,
    row_id uuid NOT NULL,
    made integer NOT NULL,
    spoilt integer NOT NULL,
    seconds double precision NOT NULL,
    by_name text NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (shop_id, id),
    FOREIGN KEY (shop_id, job_id) REFERENCES jobs ON DELETE CASCADE,
    CHECK (made <> 0 OR spoilt <> 0)
);
CREATE INDEX job_ticks_of_job ON job_ticks (shop_id, job_id, id);

-- +goose StatementBegin
DO $$ DECLARE t text; BEGIN
    FOREACH t IN ARRAY ARRAY['jobs', 'job_ticks'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY of_its_shop ON %I TO corte_serves USING (shop_id = (SELECT nullif(current_setting(''corte.shop'', true), '''')::uuid))', t);
    END LOOP;
END $$;
-- +goose StatementEnd
GRANT SELECT, INSERT, UPDATE, DELETE ON jobs TO corte_serves;
GRANT SELECT, INSERT ON job_ticks TO corte_serves;

-- +goose Down
DROP TABLE job_ticks;
DROP TABLE jobs;
