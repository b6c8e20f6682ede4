#!/usr/bin/env bash
# Looks five times a second whether the database of ./start lives, and starts it again on its port. Run by the supervisor.
set -uo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
source ops/lib.sh
need_postgres
HOME_PG="$(pg_home pg)"
SOCKET="/tmp/substrata-$(printf %s "$HOME_PG" | cksum | cut -d' ' -f1)"
trap 'exit 0' TERM INT
looks=0
while true; do
  sleep 0.2 &
  wait $!
  looks=$((looks + 1))
  [ $((looks % 300)) = 0 ] && pg_shorten_log "$HOME_PG"
  pg_ready "$SOCKET" "$(cat "$HOME_PG/port")" && continue
  say "$(date -u +%FT%TZ) the database is gone; it is started again"
  pg_again "$HOME_PG"
done
