#!/usr/bin/env bash
# Installs what is missing: Debian packages (PostgreSQL, and Chromium where
# CORTE_BROWSER is set) and the front end's npm packages. Does nothing when all
# is there.
set -euo pipefail
cd "$(dirname "$0")/.."

say() { printf 'corte: %s\n' "$*" >&2; }

for tool in go node npm; do
  command -v "$tool" >/dev/null || { say "$tool is not installed; Corte is built with Go 1.26 and Node 20 or newer."; exit 1; }
done

missing=()
ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 || command -v postgres >/dev/null || [ -n "${DATABASE_URL:-}" ] || missing+=(postgresql)
[ -z "${CORTE_BROWSER:-}" ] || command -v chromium >/dev/null || missing+=(chromium)
if [ ${#missing[@]} -gt 0 ]; then
  if [ "$(id -u)" = 0 ]; then as=(env); elif command -v sudo >/dev/null; then as=(sudo); else
    say "These packages are missing: ${missing[*]}. Install them as root (apt-get install ${missing[*]}), or run this where sudo is."
    exit 1
  fi
  say "installing ${missing[*]}"
  # The package starts a server of its own on a common port; Corte does not use it.
  "${as[@]}" mkdir -p /etc/postgresql-common
  [ -e /etc/postgresql-common/createcluster.conf ] || echo 'create_main_cluster = false' | "${as[@]}" tee /etc/postgresql-common/createcluster.conf >/dev/null
  "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get update -qq
  "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
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
