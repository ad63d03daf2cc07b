# Shared by bin/start, bin/stop, bin/test and bin/bench: finds the place for running state, installs what is missing, and starts
# and stops PostgreSQL, PHP-FPM, nginx and the workers of one instance of the application.

ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)"
# What scripts and checks need, and what the running application needs besides.
SCRIPT_PACKAGES=(php8.2-{cli,pgsql,zip,curl,xml,mbstring,gd} php-apcu composer unzip nodejs npm)
SERVER_PACKAGES=(postgresql-15 php8.2-fpm nginx)
BROWSER_PACKAGES=(chromium chromium-driver)
PG_BIN=/usr/lib/postgresql/15/bin

# How PHP compiles hot code: traces (4, 5), without keeping values in registers (the 0 in 1054). With registers, some traces give wrong
# numbers after a while; docs/decisions/jit-without-registers.md has the evidence.
# Only real loops are worth compiling: with the usual thresholds the framework's start-up is traced again and again, and every request
# pays. The framework alone can use up the usual number of traces; the core's loops come later and must still find room.
JIT=(-d opcache.jit=1054 -d opcache.jit_buffer_size=64M -d opcache.jit_max_root_traces=50000 -d opcache.jit_max_exit_counters=500000
    -d opcache.jit_hot_func=255 -d opcache.jit_hot_loop=250 -d opcache.jit_hot_return=255 -d opcache.jit_hot_side_exit=64)
PHP=(php -d opcache.enable_cli=1 "${JIT[@]}")

say() { printf '%s\n' "$*"; }
fail() { printf '%s\n' "$*" >&2; exit 1; }

# state NAME: the folder for an instance's sockets, logs and database. PostgreSQL refuses to run as root, so for root it is a place that
# the postgres user can reach wherever the project stands.
state() {
    local id; id="$(printf '%s' "$ROOT" | cksum | cut -d' ' -f1)"
    if [ "$(id -u)" = 0 ]; then STATE="/var/lib/vine-shelf/$id-$1"; else STATE="$ROOT/var/$1"; fi
    PG_DATA="$STATE/pg" FILES="$STATE/files" TEMP="$STATE/tmp"
    mkdir -p "$STATE/run" "$STATE/log" "$TEMP" "$STATE/cache" "$FILES"
}

# storage FOLDER: what the application expects to find where it writes.
storage() { mkdir -p "$1"/{app/private,framework/{cache/data,sessions,views,stamps},logs}; }

# in_memory: what lives no longer than this run (database, files, what programs write meanwhile) is kept in MEMORY, where that has room, and
# not on the disk.
in_memory() {
    local room; room="$(df --output=avail -BM /dev/shm 2>/dev/null | tail -1 | tr -dc 0-9)"
    if [ ! -w /dev/shm ] || [ "${room:-0}" -lt 6000 ]; then return 0; fi
    MEMORY="/dev/shm/$(basename "$(dirname "$STATE")")-$(basename "$STATE")-$(id -u)"
    PG_DATA="$MEMORY/pg" FILES="$MEMORY/files" TEMP="$MEMORY/tmp"
    mkdir -p "$FILES" "$TEMP"
    # A run that was cut short may have left it closed to the user of the database.
    chmod 755 "$MEMORY"
    export TMPDIR="$TEMP"
}

as_postgres() { if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi; }

installed() { dpkg-query -W -f='${Status}' "$1" 2>/dev/null | grep -q 'install ok installed'; }

# packages NAME...: installs the Debian packages that are missing. A package that came another way (composer, php, node) is not asked for
# again.
packages() {
    local missing=() name
    for name in "$@"; do
        installed "$name" && continue
        case "$name" in
            composer) command -v composer >/dev/null && continue ;;
            unzip) command -v unzip >/dev/null && continue ;;
            nodejs | npm) command -v "${name/nodejs/node}" >/dev/null && continue ;;
        esac
        missing+=("$name")
    done
    [ ${#missing[@]} = 0 ] && return 0
    say "Installing from Debian: ${missing[*]}"
    local asroot=()
    if [ "$(id -u)" != 0 ]; then
        command -v sudo >/dev/null && sudo -n true 2>/dev/null \
            || fail "These Debian packages are missing and need root: apt-get install ${missing[*]}"
        asroot=(sudo -n)
    fi
    # The database server must not start a cluster of its own, and no service may start by itself.
    "${asroot[@]}" mkdir -p /etc/postgresql-common
    [ -e /etc/postgresql-common/createcluster.conf ] \
        || printf 'create_main_cluster = false\n' | "${asroot[@]}" tee /etc/postgresql-common/createcluster.conf >/dev/null
    if [ -z "${lists_read:-}" ]; then
        "${asroot[@]}" apt-get update -q >"$STATE/log/apt.log" 2>&1 || fail "Debian's package lists cannot be read; see $STATE/log/apt.log"
        lists_read=1
    fi
    DEBIAN_FRONTEND=noninteractive "${asroot[@]}" env RUNLEVEL=1 apt-get install -y -q --no-install-recommends \
        -o Dpkg::Options::=--force-confold "${missing[@]}" >>"$STATE/log/apt.log" 2>&1 \
        || fail "These Debian packages could not be installed: ${missing[*]}; see $STATE/log/apt.log"
}

# once STAMP FILES... -- COMMAND: runs the command unless the files are as they were when it last succeeded.
once() {
    local stamp="$ROOT/storage/framework/stamps/$1" files=() sum
    shift
    while [ "$1" != -- ]; do files+=("$1"); shift; done
    shift
    sum="$(cd "$ROOT" && find "${files[@]}" -type f -print0 2>/dev/null | sort -z | xargs -0 sha1sum | sha1sum)"
    [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$sum" ] && return 0
    "$@" || return 1
    mkdir -p "$(dirname "$stamp")"
    printf '%s\n' "$sum" >"$stamp"
}

composer_install() {
    (cd "$ROOT" && COMPOSER_ALLOW_SUPERUSER=1 composer install --no-interaction --no-progress -q) \
        || fail "The PHP packages could not be installed; run 'composer install' to see why."
}
npm_install() {
    (cd "$ROOT" && npm ci --no-audit --no-fund --silent) || fail "The script packages could not be installed; run 'npm ci' to see why."
}
build_assets() { (cd "$ROOT" && npx vite build --logLevel warn) || fail "The styles and scripts could not be built."; }

# dependencies NAME...: everything that is missing, what the running application needs, with the packages NAME, beside the rest.
dependencies() { scripts_begin "$@"; dependencies_end; }

# scripts_begin NAME...: returns once PHP and Node can run what is here; Debian's other packages and the assets are still on their way.
scripts_begin() {
    packages "${SCRIPT_PACKAGES[@]}"
    storage "$ROOT/storage"
    mkdir -p "$ROOT/bootstrap/cache"
    [ -d "$ROOT/vendor" ] || rm -f "$ROOT/storage/framework/stamps/composer"
    [ -d "$ROOT/node_modules" ] || rm -f "$ROOT/storage/framework/stamps/npm"
    [ -f "$ROOT/public/build/manifest.json" ] || rm -f "$ROOT/storage/framework/stamps/assets"
    packages "${SERVER_PACKAGES[@]}" "$@" &
    servers_come=$!
    once composer composer.json -- composer_install &
    local composer_comes=$!
    once npm package.json package-lock.json -- npm_install
    wait "$composer_comes" || exit 1
    once assets package-lock.json vite.config.js resources -- build_assets &
    assets_come=$!
}

dependencies_end() {
    wait "$servers_come" || exit 1
    wait "$assets_come" || exit 1
}

# required_extensions FOLDER: PHP has from here on only the extensions that composer.json and the packages ask for, as on a machine that has
# no others.
required_extensions() {
    rm -rf "$1" && mkdir -p "$1"
    local name scanned; scanned="$(php -r 'echo PHP_CONFIG_FILE_SCAN_DIR;')"
    # What others build on is not asked for by itself.
    for name in opcache pdo xml $(cd "$ROOT" && php -r '
        $read = fn ($file) => json_decode(file_get_contents($file), true);
        $own = $read("composer.json");
        $packages = $read("vendor/composer/installed.json")["packages"];
        foreach ([$own["require-dev"], $own["require"], ...array_column($packages, "require")] as $names) {
            foreach (preg_grep("~^ext-~", array_keys($names)) as $name) echo strtolower(substr($name, 4)), "\n";
        }' | sort -u); do
        find "$scanned" -name "*-$name.ini" -exec ln -sf {} "$1/" \;
    done
    export PHP_INI_SCAN_DIR="$1"
}

listening() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

running() { local pid; pid="$(head -1 "$1" 2>/dev/null)" && [ -n "$pid" ] && kill -0 "$pid" 2>/dev/null; }

free_port() { local port=$1; while listening "$port"; do port=$((port + 1)); done; printf '%s' "$port"; }

# database PORT PASSWORD [OPTIONS]: a private PostgreSQL on loopback.
database() {
    local port=$1 password=$2 options=${3:-}
    if [ ! -f "$PG_DATA/PG_VERSION" ]; then
        mkdir -p "$PG_DATA"
        printf '%s' "$password" >"$STATE/run/pgpass"
        if [ "$(id -u)" = 0 ]; then chown postgres "$PG_DATA" "$STATE/run/pgpass" "$STATE/log"; fi
        as_postgres "$PG_BIN/initdb" -D "$PG_DATA" -U shelf --auth=scram-sha-256 --pwfile="$STATE/run/pgpass" \
            -E UTF8 --locale=C.UTF-8 >"$STATE/log/initdb.log" 2>&1 \
            || fail "The database could not be set up; see $STATE/log/initdb.log"
        rm -f "$STATE/run/pgpass"
    fi
    if running "$PG_DATA/postmaster.pid"; then return 0; fi
    listening "$port" && fail "Port $port, for the database, is in use by another program. Set VINE_SHELF_DB_PORT to a free one."
    touch "$STATE/log/postgres.log"
    if [ "$(id -u)" = 0 ]; then chown postgres "$STATE/log" "$STATE/log/postgres.log"; fi
    as_postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -w -t 30 -l "$STATE/log/postgres.log" \
        -o "-h 127.0.0.1 -p $port -k '' -c shared_buffers=256MB -c max_wal_size=2GB $options" start >/dev/null 2>&1 \
        || fail "The database does not start; its last words are in $STATE/log/postgres.log"
    PGPASSWORD="$password" "$PG_BIN/createdb" -h 127.0.0.1 -p "$port" -U shelf shelf 2>/dev/null || true
}

# web PORT: PHP-FPM and nginx. What runs with other settings than these is started anew.
web() {
    local port=$1 before
    before="$(cat "$STATE/fpm.conf" "$STATE/nginx.conf" 2>/dev/null || true)"
    settings "$port"
    if [ "$before" != "$(cat "$STATE/fpm.conf" "$STATE/nginx.conf")" ]; then
        stop_one "$STATE/run/nginx.pid" QUIT
        stop_one "$STATE/run/fpm.pid" QUIT
    fi
    if running "$STATE/run/nginx.pid" && running "$STATE/run/fpm.pid"; then return 0; fi
    if ! running "$STATE/run/nginx.pid"; then
        listening "$port" && fail "Port $port is in use by another program. Set VINE_SHELF_PORT to a free one."
    fi
    if ! running "$STATE/run/fpm.pid"; then
        rm -f "$STATE/run/fpm.sock"
        # Columns are millions of bytes: in pages of two megabytes, where there are such, a request touches a few instead of thousands.
        USE_ZEND_ALLOC_HUGE_PAGES=1 php-fpm8.2 --fpm-config "$STATE/fpm.conf" "${JIT[@]}" \
            -d opcache.memory_consumption=192 -d apc.enabled=1 -d apc.shm_size=256M \
            $( [ "$(id -u)" = 0 ] && printf -- '-R' ) >"$STATE/log/fpm-start.log" 2>&1 \
            || fail "PHP-FPM does not start; see $STATE/log/fpm-start.log"
    fi
    if ! running "$STATE/run/nginx.pid"; then
        nginx -c "$STATE/nginx.conf" -e "$STATE/log/nginx.log" >"$STATE/log/nginx-start.log" 2>&1 \
            || fail "nginx does not start; see $STATE/log/nginx-start.log"
    fi
}

# settings PORT: writes what PHP-FPM and nginx go by.
settings() {
    local port=$1
    cat >"$STATE/fpm.conf" <<CONF
[global]
pid = $STATE/run/fpm.pid
error_log = $STATE/log/fpm.log
daemonize = yes
[shelf]
listen = $STATE/run/fpm.sock
listen.mode = 0660
pm = dynamic
pm.max_children = 16
pm.start_servers = 6
pm.min_spare_servers = 4
pm.max_spare_servers = 6
pm.max_requests = 2000
clear_env = no
catch_workers_output = yes
$( [ "$(id -u)" = 0 ] && printf 'user = root\ngroup = root\n' )
env[APP_CONFIG_CACHE] = $STATE/cache/config.php
env[APP_ROUTES_CACHE] = $STATE/cache/routes.php
php_admin_value[opcache.enable] = 1
php_admin_value[memory_limit] = 512M
php_admin_value[upload_max_filesize] = 4G
php_admin_value[post_max_size] = 4G
php_admin_value[max_file_uploads] = 10000
php_admin_value[upload_tmp_dir] = $TEMP
php_admin_value[max_execution_time] = 60
php_admin_flag[display_errors] = off
CONF
    cat >"$STATE/nginx.conf" <<CONF
pid $STATE/run/nginx.pid;
error_log $STATE/log/nginx.log warn;
worker_processes 2;
$( [ "$(id -u)" = 0 ] && printf 'user root;\n' )
events { worker_connections 512; }
http {
    include /etc/nginx/mime.types;
    default_type application/octet-stream;
    access_log off;
    sendfile on;
    server_tokens off;
    client_max_body_size 1m;
    add_header X-Content-Type-Options nosniff always;
    client_body_temp_path $TEMP/body;
    fastcgi_temp_path $TEMP/fastcgi;
    proxy_temp_path $TEMP/proxy;
    uwsgi_temp_path $TEMP/uwsgi;
    scgi_temp_path $TEMP/scgi;
    gzip on;
    gzip_comp_level 2;
    gzip_min_length 1024;
    gzip_types text/css application/javascript application/json image/svg+xml application/x-shelf-records;
    server {
        listen 127.0.0.1:$port;
        root $ROOT/public;
        location / { try_files \$uri @php; }
        # Files are given here, and the numbers of objects whose records are wanted.
        location = /imports { client_max_body_size 4g; try_files /.none @php; }
        location ~ ^/projects/[^/]+/bcf\$ { client_max_body_size 65m; try_files /.none @php; }
        # Text of at most 8 MB, as an address has it.
        location ~ ^/projects/[^/]+/grid/(preview|read)\$ { client_max_body_size 25m; try_files /.none @php; }
        location ~ ^/projects/[^/]+/records\$ { client_max_body_size 4m; try_files /.none @php; }
        # What PHP runs is never sent as text.
        location ~ \.php(/|\$) { try_files /.none @php; }
        location /build/ {
            add_header Cache-Control "public, max-age=31536000, immutable";
            add_header X-Content-Type-Options nosniff always;
            gzip_static on;
        }
        location @php {
            include /etc/nginx/fastcgi_params;
            fastcgi_hide_header X-Content-Type-Options;
            fastcgi_param SCRIPT_FILENAME $ROOT/public/index.php;
            fastcgi_param SCRIPT_NAME /index.php;
            fastcgi_param HTTP_HOST \$http_host;
            fastcgi_pass unix:$STATE/run/fpm.sock;
            fastcgi_read_timeout 120;
            fastcgi_buffers 16 64k;
            fastcgi_buffer_size 64k;
        }
        location /kept/ { internal; alias $FILES/; gzip_static on; }
    }
}
CONF
}

# worker: two workers take in files, export and look after the rest in the background; each is started again when it ends.
worker() {
    if running "$STATE/run/worker.pid"; then return 0; fi
    setsid bash -c '
        cd "$1" || exit 1
        shift
        trap "exit 0" TERM
        for place in $(seq "${VINE_SHELF_WORKERS:-2}"); do
            (
                trap "kill \$child 2>/dev/null; exit 0" TERM
                while true; do
                    "$@" -d memory_limit=512M artisan shelf:work --place="$place" &
                    child=$!
                    wait $child
                    sleep 1
                done
            ) &
        done
        wait' worker "$ROOT" "${PHP[@]}" </dev/null >>"$STATE/log/worker.log" 2>&1 &
    printf '%s\n' $! >"$STATE/run/worker.pid"
}

caches() {
    # What an older version has left must not keep this one from starting.
    rm -f "$STATE/cache/config.php" "$STATE/cache/routes.php"
    (cd "$ROOT" && export APP_CONFIG_CACHE="$STATE/cache/config.php" APP_ROUTES_CACHE="$STATE/cache/routes.php" \
        && php artisan config:cache -q && php artisan route:cache -q && php artisan view:cache -q) \
        || fail "The application does not start; run 'php artisan about' to see why."
}

stop_one() {
    local file=$1 pid
    pid="$(head -1 "$file" 2>/dev/null)" || return 0
    if [ -n "$pid" ] && kill -0 "$pid" 2>/dev/null; then
        if [ "${2:-}" = group ]; then
            kill -TERM -- "-$pid" 2>/dev/null || kill -TERM "$pid" 2>/dev/null
        else
            kill -"${2:-TERM}" "$pid" 2>/dev/null
        fi
        for _ in $(seq 50); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
        kill -0 "$pid" 2>/dev/null && kill -KILL "$pid" 2>/dev/null
    fi
    rm -f "$file"
}

stop_all() {
    stop_one "$STATE/run/worker.pid" group
    stop_one "$STATE/run/nginx.pid" QUIT
    stop_one "$STATE/run/fpm.pid" QUIT
    if running "$PG_DATA/postmaster.pid"; then
        as_postgres "$PG_BIN/pg_ctl" -D "$PG_DATA" -m fast -w stop >/dev/null 2>&1 || true
    fi
}
