-- Projections are made anew from the operations whenever their version changes; see ProjectionRebuild.
DROP TABLE library_nodes;
DROP TABLE notebook_pages;
CREATE TABLE projections (version int NOT NULL);
INSERT INTO projections VALUES (0);

-- What a document's operations come to, in bytes as stored.
ALTER TABLE documents ADD COLUMN size bigint NOT NULL DEFAULT 0;
UPDATE documents d SET size = coalesce((SELECT sum(length(o.bytes)) FROM operations o WHERE o.document_id = d.id), 0);
-- Set when its data was removed after its time in the bin; nothing is taken for it any more.
ALTER TABLE documents ADD COLUMN erased_at timestamptz;

-- From the library: for how many days the bin keeps things, and the terms that “this term” goes by.
ALTER TABLE spaces ADD COLUMN bin_days int NOT NULL DEFAULT 30, ADD COLUMN terms text NOT NULL DEFAULT '';

CREATE TABLE library_nodes (
    space_id    uuid NOT NULL REFERENCES spaces,
    id          uuid NOT NULL,
    kind        smallint NOT NULL,
    parent      uuid NOT NULL,
    order_key   text COLLATE "C" NOT NULL,
    name        text NOT NULL,
    folded      text COLLATE "C" NOT NULL,
    natural_key text COLLATE "C" NOT NULL,
    colour      text NOT NULL,
    cover       text NOT NULL,
    icon        text NOT NULL,
    paper       text NOT NULL,
    pinned      boolean NOT NULL,
    jot         boolean NOT NULL,
    tags        uuid[] NOT NULL,
    rule        text NOT NULL,
    merged_into uuid,
    created_at  bigint NOT NULL,
    created_by  uuid NOT NULL,
    binned_at   bigint,
    in_bin      boolean NOT NULL,
    PRIMARY KEY (space_id, id)
);
CREATE INDEX library_nodes_parent ON library_nodes (space_id, parent);
CREATE INDEX library_nodes_id ON library_nodes (id);

-- A notebook in sum: what its row in the library says. Times are UTC milliseconds since 1970.
CREATE TABLE notebooks (
    id         uuid PRIMARY KEY,
    space_id   uuid NOT NULL REFERENCES spaces,
    page_count int NOT NULL DEFAULT 0,
    sections   text[] NOT NULL DEFAULT '{}',
    size       bigint NOT NULL DEFAULT 0,
    written_at bigint,
    changed_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX notebooks_space ON notebooks (space_id, changed_at);

CREATE TABLE notebook_people (
    notebook_id uuid NOT NULL REFERENCES notebooks,
    person_id   uuid NOT NULL REFERENCES people,
    written_at  bigint NOT NULL,
    PRIMARY KEY (notebook_id, person_id)
);

-- Sections and pages.
CREATE TABLE notebook_entries (
    notebook_id uuid NOT NULL,
    id          uuid NOT NULL,
    space_id    uuid NOT NULL REFERENCES spaces,
    kind        smallint NOT NULL,
    parent      uuid NOT NULL,
    position    int NOT NULL,
    number      int NOT NULL,
    title       text NOT NULL,
    folded      text COLLATE "C" NOT NULL,
    natural_key text COLLATE "C" NOT NULL,
    paper       text NOT NULL,
    own_tags    uuid[] NOT NULL,
    -- Its own and those of the sections and pages it lies in; then those with the notebook's as well.
    inner_tags  uuid[] NOT NULL,
    tags        uuid[] NOT NULL,
    created_at  bigint NOT NULL,
    written_at  bigint,
    binned_at   bigint,
    in_bin      boolean NOT NULL,
    PRIMARY KEY (notebook_id, id)
);
CREATE INDEX notebook_entries_id ON notebook_entries (id);
CREATE INDEX notebook_entries_written ON notebook_entries (notebook_id, written_at DESC NULLS LAST);
CREATE INDEX notebook_entries_recent ON notebook_entries (space_id, written_at DESC NULLS LAST) WHERE kind = 4 AND NOT in_bin;
CREATE INDEX notebook_entries_tags ON notebook_entries USING gin (tags) WHERE NOT in_bin;
CREATE INDEX notebook_entries_tagged ON notebook_entries (space_id, notebook_id) INCLUDE (own_tags) WHERE own_tags <> '{}' AND NOT in_bin;
CREATE INDEX notebook_entries_bin ON notebook_entries (space_id) WHERE binned_at IS NOT NULL;

-- What was erased from the bin by hand, until its data is removed.
CREATE TABLE erasures (
    space_id uuid NOT NULL REFERENCES spaces,
    id       uuid NOT NULL,
    at       bigint NOT NULL,
    PRIMARY KEY (space_id, id)
);

-- What is personal, from the persons' own libraries.
CREATE TABLE stars (
    person_id uuid NOT NULL REFERENCES people,
    target    uuid NOT NULL,
    PRIMARY KEY (person_id, target)
);
CREATE TABLE visits (
    person_id uuid NOT NULL REFERENCES people,
    space_id  uuid NOT NULL,
    target    uuid NOT NULL,
    score     double precision NOT NULL,
    last_day  int NOT NULL,
    PRIMARY KEY (person_id, space_id, target)
);
CREATE INDEX visits_score ON visits (person_id, score DESC);

CREATE INDEX page_writers_lately ON page_writers (written_at);
CREATE INDEX page_writers_person ON page_writers (person_id, written_at DESC);

-- Locks are the server's own affair: a passphrase is no part of a document.
CREATE TABLE locks (
    notebook_id uuid PRIMARY KEY,
    space_id    uuid NOT NULL REFERENCES spaces,
    hash        text NOT NULL,
    set_by      uuid NOT NULL REFERENCES people,
    minutes     int NOT NULL
);
CREATE TABLE unlocks (
    notebook_id uuid NOT NULL REFERENCES locks ON DELETE CASCADE,
    device      uuid NOT NULL,
    until       timestamptz NOT NULL,
    PRIMARY KEY (notebook_id, device)
);
