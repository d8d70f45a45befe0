#!/usr/bin/env bash
# Everything that must hold, on a machine that has nothing but Debian, Go and
# Node: formatting, fresh generated code, vet, staticcheck, types, eslint, the
# worked cases, Go tests on a real PostgreSQL, and the browser journeys.
set -euo pipefail
cd "$(dirname "$0")/.."

step() {
  printf '\n== %s\n' "$1"
  local began=$SECONDS
  shift
  "$@"
  printf -- '-- %d s\n' $((SECONDS - began))
}

# Runs two lists of steps side by side, each on a core of its own, and shows
# what the second printed after the first. Both run in the background, since bash
# lets a list that stands before || or in a condition go on past a failed step.
beside() {
  local log one two failed=0
  log=$(mktemp)
  "$1" & one=$!
  "$2" >"$log" 2>&1 & two=$!
  wait "$one" || failed=1
  wait "$two" || failed=1
  cat "$log"
  rm -f "$log"
  return "$failed"
}

licences() {
  cp internal/licences/shipped.json bin/shipped.json
  make -s licences
  cmp bin/shipped.json internal/licences/shipped.json ||
    { echo "internal/licences/shipped.json was stale: commit what 'make licences' wrote." >&2; return 1; }
}
cases() { ./bin/corte verify internal/verify/testdata/*.json | tail -n 1; }
modules() { (cd e2e && npx playwright test --config playwright.modules.ts); }
journeys() { (cd e2e && npx playwright test --project=journeys); }

lane_one() {
  set -e
  step licences licences
  step "lint: Go" make -s lint-go
  step "worked cases" cases
  step races scripts/races.sh
  step types make -s lint-types
}
lane_two() {
  set -e
  step formatting make -s format-check
  step "lint: web" make -s lint-web
}

step set-up env CORTE_BROWSER=1 scripts/setup.sh
step build scripts/build.sh
step "generated code" make -s fresh # before anything reads what it writes
beside lane_one lane_two
# Vetted under lint. A fuzz target runs its seeds and corpus here; make fuzz looks for more.
step "Go tests" go test -vet=off ./...
step "web modules" modules
step "browser journeys" journeys
printf '\nAll passed in %d s.\n' "$SECONDS"
