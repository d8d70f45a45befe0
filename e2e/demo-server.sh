#!/usr/bin/env bash
# The demo shop in a folder that goes when the server goes.
set -euo pipefail
cd "$(dirname "$0")/.."
dir=$(mktemp -d)
chmod 755 "$dir"
trap 'rm -rf "$dir"' EXIT
CORTE_DATA=$dir CORTE_LOG=warn ./bin/corte demo &
pid=$!
trap 'kill -TERM $pid 2>/dev/null; wait $pid || true; rm -rf "$dir"' TERM INT EXIT
wait $pid
