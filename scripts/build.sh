#!/usr/bin/env bash
# Builds the front end where its sources are newer than the last build, and the
# binaries, with the flags that tests and vet use too, so that nothing is
# compiled twice.
set -euo pipefail
cd "$(dirname "$0")/.."
say() { printf 'corte: %s\n' "$*" >&2; }

# The core for a browser that has lost the server, and Go's own way to run it.
[ -e web/wasm/core.wasm ] || say "compiling the core for browsers that lose the server"
mkdir -p web/wasm
GOOS=js GOARCH=wasm go build -trimpath -ldflags='-s -w' -o web/wasm/core.new ./cmd/corte-offline
cmp -s web/wasm/core.new web/wasm/core.wasm && rm web/wasm/core.new || mv web/wasm/core.new web/wasm/core.wasm
cmp -s "$(go env GOROOT)/lib/wasm/wasm_exec.js" web/wasm/wasm_exec.js || cp "$(go env GOROOT)/lib/wasm/wasm_exec.js" web/wasm/

if [ ! -e web/dist/index.html ] || [ -n "$(find web/src web/wasm web/public web/index.html web/vite.config.ts web/package-lock.json -newer web/dist/index.html -print -quit)" ]; then
  say "building the front end"
  (cd web && npm run -s build -- --logLevel warn && touch dist/.keep)
fi
[ -e bin/corte ] || say "compiling the server; the first time takes a minute or two"
go build -o bin/ ./cmd/corte ./cmd/corte-gauge
