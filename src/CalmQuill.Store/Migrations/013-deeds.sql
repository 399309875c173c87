-- What happened: what each person did to each thing within each quarter of an hour.
CREATE TABLE deeds (
    space_id  uuid NOT NULL REFERENCES spaces,
    -- The kind of the document that it was done in: 1 library, 2 notebook, 3 page.
    kind      smallint NOT NULL,
    target    uuid NOT NULL,
    person_id uuid NOT NULL,
    -- Quarters of an hour since 1970, UTC.
    quarter   int NOT NULL,
    deed      smallint NOT NULL,
    things    bigint NOT NULL,
    -- The last of them, UTC milliseconds since 1970.
    at        bigint NOT NULL,
    PRIMARY KEY (space_id, kind, target, quarter, person_id, deed)
);
CREATE INDEX deeds_at ON deeds (space_id, at DESC);
-- Whether those who only read are shown pages as they are, and not as they were.
ALTER TABLE spaces ADD COLUMN past_closed boolean NOT NULL DEFAULT false;
