CREATE TABLE people (
    id            uuid PRIMARY KEY,
    email         text NOT NULL,
    name          text NOT NULL,
    colour        text NOT NULL,
    password_hash text NOT NULL,
    -- Changes with the password, so that sign-ins made before end.
    sign_in_key   uuid NOT NULL,
    created_at    timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX people_email ON people (lower(email));

CREATE TABLE spaces (
    id         uuid PRIMARY KEY,
    name       text NOT NULL,
    personal   boolean NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE members (
    space_id  uuid NOT NULL REFERENCES spaces,
    person_id uuid NOT NULL REFERENCES people,
    role      smallint NOT NULL CHECK (role BETWEEN 1 AND 3),
    PRIMARY KEY (space_id, person_id)
);
CREATE INDEX members_person ON members (person_id);

CREATE TABLE documents (
    id         uuid PRIMARY KEY,
    space_id   uuid NOT NULL REFERENCES spaces,
    kind       smallint NOT NULL CHECK (kind BETWEEN 1 AND 3),
    last_seq   bigint NOT NULL DEFAULT 0,
    written_at timestamptz,
    written_by uuid REFERENCES people
);
CREATE INDEX documents_space ON documents (space_id, kind);

CREATE TABLE operations (
    document_id uuid NOT NULL REFERENCES documents,
    seq         bigint NOT NULL,
    replica     bigint NOT NULL,
    counter     bigint NOT NULL,
    author      uuid NOT NULL,
    bytes       bytea NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (document_id, seq),
    UNIQUE (document_id, replica, counter)
);

-- All operations of a document up to a number, as one batch, Brotli-coded.
CREATE TABLE snapshots (
    document_id uuid PRIMARY KEY REFERENCES documents,
    seq         bigint NOT NULL,
    bytes       bytea NOT NULL
);

-- Projections: what lists read. Written in the transaction that stores the operations.
CREATE TABLE library_nodes (
    space_id  uuid NOT NULL REFERENCES spaces,
    id        uuid NOT NULL,
    kind      smallint NOT NULL,
    parent    uuid NOT NULL,
    order_key text COLLATE "C" NOT NULL,
    name      text NOT NULL,
    colour    text NOT NULL,
    cover     text NOT NULL,
    binned_at bigint,
    in_bin    boolean NOT NULL,
    PRIMARY KEY (space_id, id)
);

CREATE TABLE notebook_pages (
    notebook_id uuid NOT NULL REFERENCES documents,
    id          uuid NOT NULL,
    number      int NOT NULL,
    title       text NOT NULL,
    paper       text NOT NULL,
    binned_at   bigint,
    PRIMARY KEY (notebook_id, id)
);
CREATE INDEX notebook_pages_page ON notebook_pages (id);

CREATE TABLE page_writers (
    page_id    uuid NOT NULL REFERENCES documents,
    person_id  uuid NOT NULL REFERENCES people,
    written_at timestamptz NOT NULL,
    PRIMARY KEY (page_id, person_id)
);
