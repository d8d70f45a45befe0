#!/usr/bin/env bash
# Builds the front end where its sources are newer than the last build, and the
# binary that embeds it.
set -euo pipefail
cd "$(dirname "$0")/.."
if [ ! -e web/dist/index.html ] || [ -n "$(find web/src web/public web/index.html web/vite.config.ts web/package-lock.json -newer web/dist/index.html -print -quit)" ]; then
  (cd web && npm run -s build -- --logLevel warn && touch dist/.keep)
fi
go build -trimpath -o bin/corte ./cmd/corte
go build -trimpath -o bin/corte-gauge ./cmd/corte-gauge
