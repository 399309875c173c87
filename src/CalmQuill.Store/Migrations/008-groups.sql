-- Groups that people make themselves: their colour, and when they were dissolved.
ALTER TABLE spaces ADD COLUMN colour text NOT NULL DEFAULT '', ADD COLUMN dissolved_at timestamptz;

-- People are invited by name.
CREATE INDEX people_name ON people (lower(name));

-- Who was in a group that is dissolved, for when it is had back. Until then they are not in members, which is all that anything asks who may do what.
CREATE TABLE former_members (
    space_id  uuid NOT NULL REFERENCES spaces,
    person_id uuid NOT NULL REFERENCES people,
    role      smallint NOT NULL CHECK (role BETWEEN 1 AND 3),
    PRIMARY KEY (space_id, person_id)
);
CREATE INDEX former_members_person ON former_members (person_id);

CREATE TABLE invitations (
    id        uuid PRIMARY KEY,
    space_id  uuid NOT NULL REFERENCES spaces,
    -- Of a link: what it is found by, and the secret itself, enciphered, so that owners can show it again.
    hash      bytea UNIQUE,
    secret    bytea,
    -- Whom it is for; beside a link, at whose door it stands as well.
    person_id uuid REFERENCES people,
    -- Where a link was sent.
    email     text NOT NULL DEFAULT '',
    mailed    boolean NOT NULL DEFAULT false,
    role      smallint NOT NULL CHECK (role BETWEEN 1 AND 2),
    asks      boolean NOT NULL,
    made_by   uuid NOT NULL REFERENCES people,
    made_at   timestamptz NOT NULL DEFAULT now(),
    until     timestamptz NOT NULL,
    most_uses int NOT NULL CHECK (most_uses >= 1),
    uses      int NOT NULL DEFAULT 0 CHECK (uses <= most_uses),
    CHECK ((hash IS NULL) = (secret IS NULL) AND (hash IS NOT NULL OR person_id IS NOT NULL))
);
CREATE INDEX invitations_space ON invitations (space_id);
CREATE UNIQUE INDEX invitations_person_only ON invitations (person_id, space_id) WHERE hash IS NULL;
CREATE INDEX invitations_person ON invitations (person_id) WHERE person_id IS NOT NULL;

-- Who asks to be let in.
CREATE TABLE join_requests (
    space_id  uuid NOT NULL REFERENCES spaces,
    person_id uuid NOT NULL REFERENCES people,
    role      smallint NOT NULL CHECK (role BETWEEN 1 AND 2),
    asked_at  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (space_id, person_id)
);
CREATE INDEX join_requests_person ON join_requests (person_id);

-- Whom an owner took out: a link alone lets them in no more, an owner is asked.
CREATE TABLE taken_out (
    space_id  uuid NOT NULL REFERENCES spaces,
    person_id uuid NOT NULL REFERENCES people,
    PRIMARY KEY (space_id, person_id)
);

-- Letters that wait to be sent, enciphered.
CREATE TABLE mails (
    id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    content       bytea NOT NULL,
    -- Of a letter that carries an invitation: its owners see how it goes.
    invitation_id uuid REFERENCES invitations ON DELETE CASCADE,
    written_at    timestamptz NOT NULL DEFAULT now(),
    next_try      timestamptz NOT NULL,
    tries         int NOT NULL DEFAULT 0,
    given_up      boolean NOT NULL DEFAULT false
);
CREATE INDEX mails_due ON mails (next_try) WHERE NOT given_up;
CREATE INDEX mails_invitation ON mails (invitation_id) WHERE invitation_id IS NOT NULL;
