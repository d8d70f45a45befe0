#!/usr/bin/env bash
# Looks for input that a fuzz target fails on: each package is compiled once, and
# each of its targets then runs on so many inputs. By count, not by time: where
# time runs out in the middle of an input, Go calls that a failure of the target.
set -euo pipefail
cd "$(dirname "$0")/.."
bin=$(mktemp -d)
trap 'rm -rf "$bin"' EXIT
for dir in $(grep -rl '^func Fuzz' --include='*_test.go' core internal | xargs -n1 dirname | sort -u); do
  (cd "$dir" && go test -c -vet=off -fuzz=. -o "$bin/test" .)
  for target in $(sed -n 's/^func \(Fuzz[A-Za-z]*\)(.*/\1/p' "$dir"/*_test.go); do
    # Those of the gauges go over a socket, and lists of a job grow long.
    case $dir in internal/gauge) runs=300x ;; core/job) runs=5000x ;; *) runs=10000x ;; esac
    out=$(cd "$dir" && "$bin/test" -test.run '^$' -test.fuzz "^$target\$" -test.fuzztime "${RUNS:-$runs}" -test.fuzzcachedir "$(go env GOCACHE)/fuzz" 2>&1) || { echo "$out"; exit 1; }
    echo "$dir $target: $(tail -n 1 <<<"$out")"
  done
done
