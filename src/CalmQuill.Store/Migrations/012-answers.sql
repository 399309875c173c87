-- What people said to marks.
CREATE TABLE page_answers (
    space_id uuid NOT NULL REFERENCES spaces,
    page_id  uuid NOT NULL,
    spot_id  uuid NOT NULL,
    -- The operation that made it.
    id       text NOT NULL,
    author   uuid NOT NULL,
    -- UTC milliseconds since 1970.
    at       bigint NOT NULL,
    text     text NOT NULL,
    inked    boolean NOT NULL,
    mentions uuid[] NOT NULL,
    -- When it came to the server, UTC milliseconds: one from a device without a connection is told when it comes.
    received bigint NOT NULL,
    PRIMARY KEY (space_id, page_id, id)
);
CREATE INDEX page_answers_received ON page_answers (space_id, received);
ALTER TABLE page_spots ADD COLUMN answers int NOT NULL DEFAULT 0, ADD COLUMN is_answered boolean NOT NULL DEFAULT false;
-- Whether somebody wants by mail, once a day at most, what was said to them; when they were written to last, and up to which receipt they were told, UTC milliseconds.
ALTER TABLE people
    ADD COLUMN digest boolean NOT NULL DEFAULT false,
    ADD COLUMN digest_at timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN digest_until bigint NOT NULL DEFAULT 0;
