#!/usr/bin/env bash
# Installs what is missing: Debian packages (PostgreSQL, and where CORTE_BROWSER
# is set what tests need, Chromium and pgbouncer) and the front end's npm
# packages. Does nothing when all is there. Where CORTE_LISTEN is set, a port in
# use is said before anything.
set -euo pipefail
cd "$(dirname "$0")/.."

say() { printf 'corte: %s\n' "$*" >&2; }
die() { say "$*"; exit 1; }

# older FOUND NEEDED: true where FOUND is a lower version, or nothing.
older() { [ -z "$1" ] || [ "$(printf '%s\n%s\n' "$2" "$1" | sort -V | head -n 1)" != "$2" ]; }

go=$(go env GOVERSION 2>/dev/null | sed 's/^go//; s/[^0-9.].*//' || true)
node=$(node --version 2>/dev/null | sed 's/^v//' || true)
! older "$go" 1.26 || die "Go 1.26 or newer is needed and ${go:-none} is here; go.dev/dl has it."
! older "$node" 20 || die "Node.js 20 or newer is needed and ${node:-none} is here; nodejs.org has it."
command -v npm >/dev/null || die "npm is missing; it comes with Node.js."

if [ -n "${CORTE_LISTEN:-}" ] && (exec 3<>"/dev/tcp/${CORTE_LISTEN%:*}/${CORTE_LISTEN##*:}") 2>/dev/null; then
  die "$CORTE_LISTEN is in use, perhaps by another Corte; stop that one, or choose another: CORTE_LISTEN=127.0.0.1:8255 make demo"
fi

missing=()
ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 || command -v postgres >/dev/null || [ -n "${DATABASE_URL:-}" ] || missing+=(postgresql)
[ -z "${CORTE_BROWSER:-}" ] || command -v chromium-headless-shell >/dev/null || missing+=(chromium-headless-shell)
[ -z "${CORTE_BROWSER:-}" ] || [ -x /usr/sbin/pgbouncer ] || missing+=(pgbouncer)
if [ ${#missing[@]} -gt 0 ]; then
  if [ "$(id -u)" = 0 ]; then as=(env); elif command -v sudo >/dev/null; then as=(sudo); else
    die "These packages are missing: ${missing[*]}. Install them as root (apt-get install ${missing[*]}), or run this where sudo is."
  fi
  say "installing ${missing[*]}"
  # The package would start a server of its own, which Corte does not use: it
  # is told not to while it is installed, and the setting is taken back.
  conf=/etc/postgresql-common/createcluster.conf
  if [ ! -e $conf ]; then
    trap '"${as[@]}" rm -f $conf' EXIT
    "${as[@]}" mkdir -p "$(dirname $conf)"
    echo 'create_main_cluster = false' | "${as[@]}" tee $conf >/dev/null
  fi
  log=$(mktemp)
  apt() { # waits for another apt to end
    "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get -qq -o DPkg::Lock::Timeout=300 -o Dpkg::Options::=--force-confold "$@" >"$log" 2>&1 ||
      { cat "$log" >&2; die "apt-get $1 failed, for the reason above; put it right and run this again."; }
  }
  apt update
  apt install -y --no-install-recommends "${missing[@]}"
  rm -f "$log"
fi

# npm ci only where the lock file is newer than what is installed.
packages() {
  local dir=$1
  [ "$dir/node_modules/.package-lock.json" -nt "$dir/package-lock.json" ] && return
  say "installing the packages of $dir"
  (cd "$dir" && npm ci --no-audit --no-fund --loglevel=error && touch node_modules/.package-lock.json)
}
packages web
[ -z "${CORTE_BROWSER:-}" ] || packages e2e
