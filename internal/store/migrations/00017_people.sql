-- Who belongs to a shop and how they come in. A person signs in, and may belong
-- to several shops; a member belongs to one, and may have no sign-in at all but
-- a name to tap. What is a secret of a person (password, codes, passkeys) stands
-- in tables that the role which serves a shop cannot read.

-- +goose Up
CREATE TABLE people (
    id uuid PRIMARY KEY,
    name text NOT NULL,
    folded text NOT NULL UNIQUE,          -- the name as names are compared
    password text NOT NULL,               -- argon2id
    epoch integer NOT NULL DEFAULT 1,     -- sessions of an earlier one are over
    since timestamptz NOT NULL
);
CREATE TABLE recovery_codes (
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    digest bytea NOT NULL,
    PRIMARY KEY (person_id, digest)
);
CREATE TABLE passkeys (
    id uuid PRIMARY KEY,
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    handle bytea NOT NULL UNIQUE,         -- the authenticator's own id of it
    name text NOT NULL,
    credential jsonb NOT NULL,
    made_at timestamptz NOT NULL,
    used_at timestamptz
);
CREATE INDEX passkeys_of_person ON passkeys (person_id);
CREATE TABLE browsers (                   -- that a person signed in on before
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    digest bytea NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (person_id, digest)
);
CREATE TABLE sessions (
    token text PRIMARY KEY,               -- its digest
    data bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX sessions_by_expiry ON sessions (expiry);
CREATE TABLE attempts (                   -- at getting in, that failed
    key text PRIMARY KEY,
    tries integer NOT NULL,
    since timestamptz NOT NULL
);

CREATE TABLE members (
    shop_id uuid NOT NULL REFERENCES shops,
    id uuid NOT NULL,
    person_id uuid REFERENCES people,     -- none where they have no sign-in of their own
    name text NOT NULL,
    role text NOT NULL CHECK (role IN ('viewer', 'learner', 'worker', 'owner')),
    pin text NOT NULL DEFAULT '',         -- argon2id; empty where none is set
    since timestamptz NOT NULL,
    gone_at timestamptz,
    version integer NOT NULL DEFAULT 1,
    PRIMARY KEY (shop_id, id),
    UNIQUE (shop_id, person_id)
);
CREATE INDEX members_of_person ON members (person_id);
CREATE TABLE sign_offs (                  -- only added to; the last of a member and a saw holds
    shop_id uuid NOT NULL REFERENCES shops,
    id bigint GENERATED ALWAYS AS IDENTITY,
    member_id uuid NOT NULL,
    saw_id uuid NOT NULL,
    cuts text[] NOT NULL,
    by text NOT NULL,
    at timestamptz NOT NULL,
    PRIMARY KEY (shop_id, id),
    FOREIGN KEY (shop_id, member_id) REFERENCES members,
    FOREIGN KEY (shop_id, saw_id) REFERENCES saws
);
CREATE INDEX sign_offs_of_member ON sign_offs (shop_id, member_id, saw_id, id DESC);
CREATE TABLE passes (                     -- what opens a shop to whoever has it
    shop_id uuid NOT NULL REFERENCES shops,
    id uuid NOT NULL,
    kind text NOT NULL CHECK (kind IN ('invitation', 'tablet', 'token', 'guest')),
    digest bytea NOT NULL,
    name text NOT NULL,
    role text NOT NULL CHECK (role IN ('viewer', 'learner', 'worker', 'owner')),
    member_id uuid,
    blade_id uuid,
    made_by text NOT NULL,
    made_at timestamptz NOT NULL,
    ends_at timestamptz,
    used_at timestamptz,
    over_at timestamptz,                  -- used up, or withdrawn
    PRIMARY KEY (shop_id, id),
    FOREIGN KEY (shop_id, member_id) REFERENCES members,
    FOREIGN KEY (shop_id, blade_id) REFERENCES blades
);
CREATE INDEX passes_by_digest ON passes (digest);
CREATE TABLE audit (
    shop_id uuid NOT NULL REFERENCES shops,
    id bigint GENERATED ALWAYS AS IDENTITY,
    at timestamptz NOT NULL,
    who text NOT NULL,
    what text NOT NULL,
    about text NOT NULL DEFAULT '',
    address text NOT NULL DEFAULT '',
    PRIMARY KEY (shop_id, id)
);

-- +goose StatementBegin
DO $$ DECLARE t text; BEGIN
    FOREACH t IN ARRAY ARRAY['members', 'sign_offs', 'passes', 'audit'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t);
        EXECUTE format('CREATE POLICY of_its_shop ON %I TO corte_serves USING (shop_id = (SELECT nullif(current_setting(''corte.shop'', true), '''')::uuid))', t);
    END LOOP;
END $$;
-- +goose StatementEnd
GRANT SELECT, INSERT, UPDATE ON members, passes TO corte_serves;
GRANT SELECT, INSERT ON sign_offs, audit TO corte_serves;
GRANT USAGE, SELECT, UPDATE ON SEQUENCE sign_offs_id_seq TO corte_serves;

ALTER TABLE shops
    ADD COLUMN sign_off text NOT NULL DEFAULT 'off' CHECK (sign_off IN ('off', 'caution', 'stop')),
    ADD COLUMN pins boolean NOT NULL DEFAULT true;

-- +goose Down
ALTER TABLE shops DROP COLUMN sign_off, DROP COLUMN pins;
DROP TABLE audit, passes, sign_offs, members, attempts, sessions, browsers, passkeys, recovery_codes, people;
