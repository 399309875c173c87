-- Marks, links and headings of pages, from the pages' own documents.
CREATE TABLE page_spots (
    page_id         uuid NOT NULL,
    id              uuid NOT NULL,
    space_id        uuid NOT NULL REFERENCES spaces,
    kind            smallint NOT NULL,
    -- Left, top, right, bottom in 0.01 mm.
    area            int[] NOT NULL,
    mark            text NOT NULL,
    note            text NOT NULL,
    due             text NOT NULL,
    person          uuid,
    target          text NOT NULL,
    target_notebook uuid,
    target_page     uuid,
    title           text NOT NULL,
    level           smallint NOT NULL,
    is_open         boolean NOT NULL,
    created_at      bigint NOT NULL,
    author          uuid NOT NULL,
    done_at         bigint,
    done_by         uuid,
    PRIMARY KEY (page_id, id)
);
CREATE INDEX page_spots_open ON page_spots (space_id, created_at) WHERE is_open;
CREATE INDEX page_spots_marks ON page_spots (space_id, created_at) WHERE kind = 1;
CREATE INDEX page_spots_target_page ON page_spots (target_page) WHERE target_page IS NOT NULL;
CREATE INDEX page_spots_target_notebook ON page_spots (target_notebook) WHERE target_notebook IS NOT NULL;

-- Pictures, and pages frozen to be a paper. Never changed once written.
CREATE TABLE assets (
    id         uuid PRIMARY KEY,
    space_id   uuid NOT NULL REFERENCES spaces,
    type       text NOT NULL,
    width      int NOT NULL,
    height     int NOT NULL,
    bytes      bytea NOT NULL,
    made_by    uuid NOT NULL REFERENCES people,
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX assets_space ON assets (space_id);

ALTER TABLE notebook_entries ADD COLUMN planner text NOT NULL DEFAULT '';
ALTER TABLE library_nodes ADD COLUMN source uuid, ADD COLUMN category text NOT NULL DEFAULT '';
-- The library's papers of one's own, by the pages that are on them.
CREATE INDEX notebook_entries_own_paper ON notebook_entries (space_id) WHERE paper LIKE '%-own.%';
