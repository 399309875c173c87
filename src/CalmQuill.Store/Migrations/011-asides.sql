-- A fourth kind of document: a person's aside of a page, in their own space and under the page's id.
ALTER TABLE documents DROP CONSTRAINT documents_kind_check, ADD CONSTRAINT documents_kind_check CHECK (kind BETWEEN 1 AND 4);
