# Sourced at the project's root: brings the database of ./start up, and lets PostgreSQL's own programs find it.
source ops/lib.sh
need_postgres
HOME_PG="$(pg_home pg)"
pg_make "$HOME_PG"
pg_up "$HOME_PG" 54329
export PATH="$PG_BIN:$PATH"
export PGHOST="$SUBSTRATA_DB_HOST" PGPORT="$SUBSTRATA_DB_PORT" PGUSER="$SUBSTRATA_DB_USER" PGPASSWORD="$SUBSTRATA_DB_PASSWORD" PGDATABASE=substrata
