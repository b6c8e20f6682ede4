# Sourced at the project's root: finds the database, the one of ./start or a server's own, for PostgreSQL's own programs.
source ops/lib.sh
need_postgres
need_python base
if [ -z "${SUBSTRATA_DB_HOST:-}" ]; then
  HOME_PG="$(pg_home pg)"
  pg_make "$HOME_PG"
  pg_up "$HOME_PG" 54329
  [ "$PG_STARTED" = 1 ] && DB_OURS=1
fi
export SUBSTRATA_LOCAL="$LOCAL" PATH="$PG_BIN:$PATH"
export PGHOST="$SUBSTRATA_DB_HOST" PGPORT="${SUBSTRATA_DB_PORT:-5432}" PGUSER="${SUBSTRATA_DB_USER:-substrata}"
export PGPASSWORD="${SUBSTRATA_DB_PASSWORD:-}" PGDATABASE="${SUBSTRATA_DB_NAME:-substrata}"
# database_left : stop it again where this shell had to start it.
database_left() { [ "${DB_OURS:-0}" = 0 ] || pg_down "$HOME_PG"; }
