-- The files that pages name, in whatever they say or ever said, since what was removed can come back. Kinds are those of documents: 3 a page, 4 an aside; and 0 for a
-- page that was frozen to be a paper, whose id is that of its own file.
CREATE TABLE page_assets (
    space_id uuid NOT NULL REFERENCES spaces,
    kind     smallint NOT NULL,
    page_id  uuid NOT NULL,
    asset    uuid NOT NULL,
    PRIMARY KEY (space_id, kind, page_id, asset)
);
CREATE INDEX page_assets_asset ON page_assets (space_id, asset);
