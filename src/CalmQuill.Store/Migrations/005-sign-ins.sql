-- A sign-in is a row: it can be seen, and ended, wherever it is. Cookies of before name none, so everybody signs in once more.
CREATE TABLE sessions (
    id        uuid PRIMARY KEY,
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    -- The browser it is in, known again by a cookie of its own.
    device_id uuid NOT NULL,
    name      text NOT NULL,
    address   text NOT NULL,
    made_at   timestamptz NOT NULL DEFAULT now(),
    seen_at   timestamptz NOT NULL DEFAULT now(),
    until     timestamptz NOT NULL
);
CREATE INDEX sessions_person ON sessions (person_id, seen_at DESC);
CREATE INDEX sessions_until ON sessions (until);

ALTER TABLE people DROP COLUMN sign_in_key;
-- The second factor's secret, encrypted by the server's own keys, and the last step for which a code was taken, so that none is taken twice.
ALTER TABLE people ADD COLUMN second_factor bytea, ADD COLUMN second_factor_step bigint NOT NULL DEFAULT 0;
CREATE TABLE recovery_codes (
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    hash      bytea NOT NULL,
    PRIMARY KEY (person_id, hash)
);

-- Letters of admission: invitations to make an account, registrations that wait for their letter, and new passwords. Only the hash of each secret is kept.
CREATE TABLE letters (
    hash          bytea PRIMARY KEY,
    purpose       smallint NOT NULL CHECK (purpose BETWEEN 1 AND 3),
    made_by       uuid REFERENCES people ON DELETE CASCADE,
    -- Whose password it is for.
    person_id     uuid REFERENCES people ON DELETE CASCADE,
    -- What a registration that waits consists of.
    email         text NOT NULL DEFAULT '',
    name          text NOT NULL DEFAULT '',
    password_hash text NOT NULL DEFAULT '',
    made_at       timestamptz NOT NULL DEFAULT now(),
    until         timestamptz NOT NULL
);
CREATE INDEX letters_until ON letters (until);
CREATE INDEX letters_maker ON letters (made_by);

-- How often something was done in a minute, over all servers. Lost with the database's crash, which does no harm.
CREATE UNLOGGED TABLE request_counts (
    partition text NOT NULL,
    minute    bigint NOT NULL,
    used      int NOT NULL,
    PRIMARY KEY (partition, minute)
);
