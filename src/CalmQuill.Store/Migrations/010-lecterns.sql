-- Somebody teaches from a notebook: the others follow, and a screen may show the sheet to a room. Of one that is over nothing is kept.
CREATE TABLE lecterns (
    id          uuid PRIMARY KEY,
    space_id    uuid NOT NULL REFERENCES spaces,
    notebook_id uuid NOT NULL,
    leader_id   uuid NOT NULL REFERENCES people,
    -- The page the leader shows now.
    page_id     uuid,
    opened_at   timestamptz NOT NULL DEFAULT now(),
    -- When the leader's device said last that somebody stands there.
    seen_at     timestamptz NOT NULL DEFAULT now(),
    until       timestamptz NOT NULL,
    -- Of a screen for the room: what it is found by, and the code itself, enciphered, so that it can be shown again.
    room_hash   bytea UNIQUE,
    room_code   bytea,
    CHECK ((room_hash IS NULL) = (room_code IS NULL)),
    -- One at a time in a notebook.
    UNIQUE (space_id, notebook_id)
);
CREATE INDEX lecterns_until ON lecterns (until);
