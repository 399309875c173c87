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
    PRIMARY KEY (space_id, page_id, id)
);
CREATE INDEX page_answers_at ON page_answers (space_id, at);
ALTER TABLE page_spots ADD COLUMN answers int NOT NULL DEFAULT 0, ADD COLUMN is_answered boolean NOT NULL DEFAULT false;
