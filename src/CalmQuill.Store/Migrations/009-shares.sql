-- Folders and notebooks that people from outside their library may see. The documents stay where they are; who may read one is asked of this table beside members.
CREATE TABLE shares (
    id         uuid PRIMARY KEY,
    space_id   uuid NOT NULL REFERENCES spaces,
    node_id    uuid NOT NULL,
    -- Of an address for everybody: one page alone.
    page_id    uuid,
    with_whom  smallint NOT NULL CHECK (with_whom BETWEEN 1 AND 4),
    person_id  uuid REFERENCES people,
    group_id   uuid REFERENCES spaces ON DELETE CASCADE,
    -- Of a link: what it is found by, and the secret itself, enciphered, so that it can be shown again.
    hash       bytea UNIQUE,
    secret     bytea,
    -- A hash of it.
    passphrase text,
    writes     boolean NOT NULL,
    copies     boolean NOT NULL DEFAULT false,
    made_by    uuid NOT NULL REFERENCES people,
    made_at    timestamptz NOT NULL DEFAULT now(),
    until      timestamptz,
    CHECK ((with_whom = 1) = (person_id IS NOT NULL) AND (with_whom = 2) = (group_id IS NOT NULL) AND (with_whom >= 3) = (hash IS NOT NULL)),
    CHECK ((hash IS NULL) = (secret IS NULL)),
    CHECK (page_id IS NULL OR with_whom = 4)
);
CREATE INDEX shares_node ON shares (space_id, node_id);
CREATE UNIQUE INDEX shares_person ON shares (person_id, space_id, node_id) WHERE person_id IS NOT NULL;
CREATE UNIQUE INDEX shares_group ON shares (group_id, space_id, node_id) WHERE group_id IS NOT NULL;
CREATE INDEX shares_until ON shares (until) WHERE until IS NOT NULL;

-- Who came by a link.
CREATE TABLE share_guests (
    share_id  uuid NOT NULL REFERENCES shares ON DELETE CASCADE,
    person_id uuid NOT NULL REFERENCES people,
    came_at   timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (share_id, person_id)
);
CREATE INDEX share_guests_person ON share_guests (person_id);

-- What whoever writes in a group may do to what others wrote: everything, only their own, only add.
ALTER TABLE spaces ADD COLUMN touch smallint NOT NULL DEFAULT 0 CHECK (touch BETWEEN 0 AND 2);
