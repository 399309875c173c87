-- What went wrong in somebody's browser, for whoever looks after the server. Old ones go by themselves.
CREATE TABLE faults (
    key       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    at        timestamptz NOT NULL DEFAULT now(),
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    build     text NOT NULL,
    what      text NOT NULL,
    words     text NOT NULL,
    document  text NOT NULL,
    -- Of what could not be read, the beginning.
    bytes     bytea NOT NULL
);
CREATE INDEX faults_person ON faults (person_id, at);
CREATE INDEX faults_at ON faults (at);
