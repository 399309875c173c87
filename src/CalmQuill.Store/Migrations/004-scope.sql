-- A document is found by its space, its kind and its id together, never by its id alone: what one space names says nothing about what lies in
-- another, and nobody can take an id from anybody. The key is the database's own, so that operations carry eight bytes of it.
ALTER TABLE documents ADD COLUMN key bigint GENERATED ALWAYS AS IDENTITY;

ALTER TABLE operations ADD COLUMN document_key bigint;
UPDATE operations o SET document_key = d.key FROM documents d WHERE d.id = o.document_id;
ALTER TABLE operations DROP COLUMN document_id;
ALTER TABLE snapshots ADD COLUMN document_key bigint;
UPDATE snapshots s SET document_key = d.key FROM documents d WHERE d.id = s.document_id;
ALTER TABLE snapshots DROP COLUMN document_id;

ALTER TABLE page_writers ADD COLUMN space_id uuid;
UPDATE page_writers w SET space_id = d.space_id FROM documents d WHERE d.id = w.page_id;
ALTER TABLE page_writers DROP CONSTRAINT page_writers_page_id_fkey;

ALTER TABLE documents DROP CONSTRAINT documents_pkey;
ALTER TABLE documents ADD PRIMARY KEY (key), ADD UNIQUE (space_id, kind, id);
-- The one way to a document, so that no plan can choose another; and what every append changes is in no index.
DROP INDEX documents_space;
ALTER TABLE operations ALTER COLUMN document_key SET NOT NULL, ADD PRIMARY KEY (document_key, seq), ADD UNIQUE (document_key, replica, counter),
    ADD FOREIGN KEY (document_key) REFERENCES documents;
ALTER TABLE snapshots ADD PRIMARY KEY (document_key), ADD FOREIGN KEY (document_key) REFERENCES documents;
ALTER TABLE page_writers DROP CONSTRAINT page_writers_pkey, ADD PRIMARY KEY (space_id, page_id, person_id), ADD FOREIGN KEY (space_id) REFERENCES spaces;

DROP INDEX library_nodes_id;

ALTER TABLE notebook_people ADD COLUMN space_id uuid;
UPDATE notebook_people p SET space_id = n.space_id FROM notebooks n WHERE n.id = p.notebook_id;
ALTER TABLE notebook_people DROP CONSTRAINT notebook_people_notebook_id_fkey, DROP CONSTRAINT notebook_people_pkey, ADD PRIMARY KEY (space_id, notebook_id, person_id);
ALTER TABLE notebooks DROP CONSTRAINT notebooks_pkey, ADD PRIMARY KEY (space_id, id);
ALTER TABLE notebook_people ADD FOREIGN KEY (space_id, notebook_id) REFERENCES notebooks ON DELETE CASCADE;

ALTER TABLE notebook_entries DROP CONSTRAINT notebook_entries_pkey, ADD PRIMARY KEY (space_id, notebook_id, id);
DROP INDEX notebook_entries_id;
CREATE INDEX notebook_entries_id ON notebook_entries (space_id, id);
DROP INDEX notebook_entries_written;
CREATE INDEX notebook_entries_written ON notebook_entries (space_id, notebook_id, written_at DESC NULLS LAST);

ALTER TABLE page_spots DROP CONSTRAINT page_spots_pkey, ADD PRIMARY KEY (space_id, page_id, id);
-- A link leads to a thing of one space, and to nothing of the same id elsewhere.
ALTER TABLE page_spots ADD COLUMN target_space uuid;
UPDATE page_spots SET target_space = substring(target FROM '^[a-z]+:([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})/')::uuid WHERE target_notebook IS NOT NULL;
DROP INDEX page_spots_target_page;
DROP INDEX page_spots_target_notebook;
CREATE INDEX page_spots_target_page ON page_spots (target_space, target_page) WHERE target_page IS NOT NULL;
CREATE INDEX page_spots_target_notebook ON page_spots (target_space, target_notebook) WHERE target_notebook IS NOT NULL;

ALTER TABLE assets DROP CONSTRAINT assets_pkey, ADD PRIMARY KEY (space_id, id);
DROP INDEX assets_space;

ALTER TABLE unlocks DROP CONSTRAINT unlocks_notebook_id_fkey;
DROP TABLE unlocks;
ALTER TABLE locks DROP CONSTRAINT locks_pkey, ADD PRIMARY KEY (space_id, notebook_id);
-- A lock is open for a sign-in; those of before are shut.
CREATE TABLE unlocks (
    space_id    uuid NOT NULL,
    notebook_id uuid NOT NULL,
    session_id  uuid NOT NULL,
    until       timestamptz NOT NULL,
    PRIMARY KEY (space_id, notebook_id, session_id),
    FOREIGN KEY (space_id, notebook_id) REFERENCES locks ON DELETE CASCADE
);
CREATE INDEX unlocks_until ON unlocks (until);

-- The notebook a page is at home in: the first that was received to name it, then the one it was moved to. Its lock, and no other's, keeps the page.
CREATE TABLE page_homes (
    space_id    uuid NOT NULL REFERENCES spaces,
    page_id     uuid NOT NULL,
    notebook_id uuid NOT NULL,
    PRIMARY KEY (space_id, page_id)
);
CREATE INDEX page_homes_notebook ON page_homes (space_id, notebook_id);
INSERT INTO page_homes (space_id, page_id, notebook_id)
SELECT DISTINCT ON (e.space_id, e.id) e.space_id, e.id, e.notebook_id FROM notebook_entries e
WHERE e.kind = 4 ORDER BY e.space_id, e.id, e.in_bin, e.created_at, e.notebook_id;

-- When the server was told that a thing is in the bin, or is erased. Removing goes by this time alone, whatever a device's clock said.
DROP TABLE erasures;
CREATE TABLE bin_receipts (
    space_id    uuid NOT NULL REFERENCES spaces,
    -- The notebook it lies in; the empty id for what lies in the library itself.
    notebook_id uuid NOT NULL,
    id          uuid NOT NULL,
    erased      boolean NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (space_id, notebook_id, id, erased)
);
-- A shorter time in the bin takes hold after the grace, too.
ALTER TABLE spaces ADD COLUMN bin_days_since timestamptz NOT NULL DEFAULT now();
-- What was removed, and when.
CREATE TABLE removals (
    space_id   uuid NOT NULL REFERENCES spaces,
    kind       smallint NOT NULL,
    id         uuid NOT NULL,
    operations bigint NOT NULL,
    bytes      bigint NOT NULL,
    removed_at timestamptz NOT NULL DEFAULT now()
);

-- An open application signs its operations with a number of its own, which belongs to the first person, and the first browser, to use it.
CREATE TABLE replicas (
    replica    bigint PRIMARY KEY,
    person_id  uuid NOT NULL REFERENCES people,
    -- Unknown for what was used before browsers were known again: any of the person's then.
    device_id  uuid,
    first_used timestamptz NOT NULL DEFAULT now()
);
-- What was written before belongs to whoever wrote most under the number.
INSERT INTO replicas (replica, person_id)
SELECT DISTINCT ON (o.replica) o.replica, o.author
FROM (SELECT replica, author, count(*) AS many FROM operations GROUP BY replica, author) o JOIN people p ON p.id = o.author
ORDER BY o.replica, o.many DESC, o.author;
