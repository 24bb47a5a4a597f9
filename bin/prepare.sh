# Sourced by bin/start and bin/test: installs what is missing, builds the pages, runs a private PostgreSQL.
# Safe to run twice or side by side: whatever is shared is done under a lock.

set -euo pipefail

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
NODE_NEEDED=20.19
RUST_NEEDED=1.95

say() { printf '%s\n' "$*"; }
fail() {
    printf 'hummock: %s\n' "$*" >&2
    exit 1
}
have() { command -v "$1" >/dev/null 2>&1; }
is_root() { [ "$(id -u)" = 0 ]; }
at_least() { [ "$(printf '%s\n%s\n' "$1" "$2" | sort -V | head -n 1)" = "$1" ]; }

as_root() {
    if is_root; then
        "$@"
    elif have sudo; then
        sudo "$@"
    else
        fail "sudo is missing: run this as root, or install by hand: $*"
    fi
}

# PostgreSQL refuses to run as root.
as_postgres() {
    if is_root; then runuser -u postgres -- "$@"; else "$@"; fi
}

postgres_bin() {
    local newest
    newest=$(ls -d /usr/lib/postgresql/*/bin/postgres 2>/dev/null | sort -V | tail -n 1)
    [ -n "$newest" ] && dirname "$newest"
}

# Adds a Debian package to the list when what it brings is not there.
missing=()
want() {
    have "$1" || missing+=("$2")
}

install_missing() {
    missing=()
    want cc build-essential
    want flock util-linux
    want node nodejs
    want npm npm
    [ -n "$(postgres_bin)" ] || missing+=(postgresql)
    if [ "${1:-}" = with-browser ]; then
        # Chromium without its windows: a page is there in half the time of the whole one.
        want chromium-headless-shell chromium-headless-shell
        want chromedriver chromium-driver
    fi
    if [ ${#missing[@]} -gt 0 ]; then
        have apt-get || fail "these are missing and there is no apt-get to install them: ${missing[*]}"
        say "Installing ${missing[*]}"
        as_root apt-get update -qq
        as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
    fi
    have cargo || fail "Rust is missing: install version $RUST_NEEDED or newer with rustup"
    at_least "$RUST_NEEDED" "$(cargo --version | cut -d' ' -f2)" || fail "Rust $RUST_NEEDED or newer is needed, and this is $(cargo --version)"
    at_least "$NODE_NEEDED" "$(node --version | tr -d v)" || fail "Node $NODE_NEEDED or newer is needed, and this is $(node --version)"
}

# Runs a step while no other bin/start or bin/test of this checkout does one.
one_at_a_time() {
    mkdir -p "$ROOT/target"
    (
        flock 9
        "$@"
    ) 9>"$ROOT/target/prepare.lock"
}

web_packages() {
    cd "$ROOT/web"
    if ! cmp -s package-lock.json node_modules/.installed-from; then
        say "Installing web packages"
        npm ci --no-audit --no-fund --loglevel=error
        cp package-lock.json node_modules/.installed-from
    fi
}

web_build() {
    web_packages
    local changed
    changed=$(find src public index.html package-lock.json vite.config.ts chunks.ts -newer dist/index.html -print -quit 2>/dev/null || true)
    if [ ! -e dist/index.html ] || [ -n "$changed" ]; then
        say "Building the pages"
        npm run --silent build
    fi
}

# A folder that the user of PostgreSQL can reach: under the wanted one, else beside other temporary data.
cluster_home() {
    local wanted=$1
    mkdir -p "$wanted"
    if is_root && ! as_postgres test -x "$wanted"; then
        wanted=/var/tmp/hummock-$(printf %s "$wanted" | sha256sum | cut -c1-12)
        mkdir -p "$wanted"
    fi
    printf %s "$wanted/postgres"
}

# Makes the cluster if there is none, starts it if it is down, and sets DATABASE_URL.
postgres_up() {
    local home=$1 bin port
    bin=$(postgres_bin) || fail "PostgreSQL's server is missing: install Debian's package postgresql"
    if [ ! -e "$home/cluster/PG_VERSION" ]; then
        mkdir -p "$home"
        if is_root; then chown postgres: "$home"; fi
        chmod 700 "$home"
        head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' | as_postgres tee "$home/password" >/dev/null
        as_postgres "$bin/initdb" -D "$home/cluster" -U hummock --auth=scram-sha-256 --pwfile="$home/password" \
            --encoding=UTF8 --locale=C.UTF-8 >/dev/null
    fi
    if ! as_postgres "$bin/pg_ctl" -D "$home/cluster" status >/dev/null 2>&1; then
        # The port of last time first, so that whoever is still connected finds it again.
        local ports
        ports=$(as_postgres cat "$home/port" 2>/dev/null || true)
        for port in $ports $(for _ in $(seq 20); do echo $((20000 + RANDOM % 30000)); done); do
            # No socket in the file system, whose path may be long or have spaces; and none of our files stay open in it.
            as_postgres "$bin/pg_ctl" -D "$home/cluster" -w -t 60 -l "$home/log" \
                -o "-h 127.0.0.1 -p $port -c unix_socket_directories= ${POSTGRES_OPTIONS:-}" start \
                >/dev/null 2>&1 6>&- 7>&- 8>&- 9>&- && break
        done
        as_postgres "$bin/pg_ctl" -D "$home/cluster" status >/dev/null 2>&1 ||
            fail "PostgreSQL does not start: see $home/log"
    fi
    port=$(as_postgres sed -n 4p "$home/cluster/postmaster.pid")
    printf '%s\n' "$port" | as_postgres tee "$home/port" >/dev/null
    DATABASE_URL="postgres://hummock:$(as_postgres cat "$home/password")@127.0.0.1:$port/postgres"
    export DATABASE_URL
}

postgres_down() {
    as_postgres "$(postgres_bin)/pg_ctl" -D "$1/cluster" -m fast -w stop >/dev/null 2>&1 || true
}
