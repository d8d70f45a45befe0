#!/usr/bin/env bash
# Everything that must hold, on a machine that has nothing but Debian, Go and
# Node: formatting, fresh generated code, vet, staticcheck, types, eslint, the
# worked cases, Go tests on a real PostgreSQL, and the browser journeys.
set -euo pipefail
cd "$(dirname "$0")/.."
step() { printf '\n== %s\n' "$*"; }

step set-up
CORTE_BROWSER=1 scripts/setup.sh
step build
scripts/build.sh
step formatting
make -s format-check
step generated code
make -s fresh
step lint
make -s lint
step worked cases
./bin/corte verify internal/verify/testdata/*.json | tail -n 1
step Go tests
go test ./...
step browser journeys
(cd e2e && npx playwright test --project=journeys)
