#!/bin/sh
# Run once by PostgreSQL's image when the database is made: the role that reads and writes, and owns nothing.
set -eu
psql -v ON_ERROR_STOP=1 -U "$POSTGRES_USER" -d "$POSTGRES_DB" -v password="$QUILL_APP_PASSWORD" <<'SQL'
CREATE ROLE quill_app LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD :'password';
REVOKE ALL ON SCHEMA public FROM PUBLIC;
GRANT CONNECT ON DATABASE quill TO quill_app;
SQL
