-- Accounts that are to be deleted: since when. Until their days are over, whoever signs in can have theirs back; nobody else sees anything of them.
ALTER TABLE people ADD COLUMN leaving_at timestamptz;
CREATE INDEX people_leaving ON people (leaving_at) WHERE leaving_at IS NOT NULL;
