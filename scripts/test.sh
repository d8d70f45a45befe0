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
step licences
cp internal/licences/shipped.json bin/shipped.json
make -s licences
cmp bin/shipped.json internal/licences/shipped.json || { echo "internal/licences/shipped.json was stale: commit what 'make licences' wrote." >&2; exit 1; }
step lint
make -s -j2 lint
step worked cases
./bin/corte verify internal/verify/testdata/*.json | tail -n 1
step Go tests
go test -vet=off ./... # vetted under lint
step races
scripts/races.sh
step fuzz targets
for file in $(grep -rl '^func Fuzz' --include='*_test.go' core internal | sort); do
  for target in $(sed -n 's/^func \(Fuzz[A-Za-z]*\)(.*/\1/p' "$file"); do
    # By count, not by time: where time runs out in the middle of an input, Go
    # calls that a failure of the target. Those of the gauges go over a socket, and
    # lists of a job grow long.
    case $file in internal/gauge/*) runs=300x ;; core/job/*) runs=5000x ;; *) runs=10000x ;; esac
    out=$(go test -vet=off -run '^$' -fuzz "^$target\$" -fuzztime $runs "./$(dirname "$file")" 2>&1) || { echo "$out"; exit 1; }
    tail -n 1 <<<"$out"
  done
done
step browser journeys
(cd e2e && npx playwright test --project=journeys)
