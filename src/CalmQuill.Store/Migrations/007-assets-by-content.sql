-- Pictures, pages frozen to be a paper, and files: what they consist of lies beside, so that it may be kept elsewhere.
CREATE TABLE asset_bytes (
    space_id uuid NOT NULL,
    id       uuid NOT NULL,
    bytes    bytea NOT NULL,
    PRIMARY KEY (space_id, id)
);
INSERT INTO asset_bytes (space_id, id, bytes) SELECT space_id, id, bytes FROM assets;
-- The whole SHA-256, of which an id of version 8 is the beginning; and since when nothing has named it.
ALTER TABLE assets ADD COLUMN digest bytea, ADD COLUMN size bigint, ADD COLUMN unused_since timestamptz;
UPDATE assets SET digest = sha256(bytes), size = length(bytes);
ALTER TABLE assets ALTER COLUMN digest SET NOT NULL, ALTER COLUMN size SET NOT NULL, DROP COLUMN bytes;
CREATE INDEX library_nodes_source ON library_nodes (space_id, source) WHERE source IS NOT NULL;

-- What has come so far of a file that is being sent, by who sends it.
CREATE TABLE asset_pieces (
    space_id    uuid NOT NULL REFERENCES spaces,
    asset       uuid NOT NULL,
    person_id   uuid NOT NULL REFERENCES people,
    at          bigint NOT NULL,
    bytes       bytea NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (space_id, asset, person_id, at)
);
