#!/usr/bin/env bash
# The race detector over what runs at once. It makes a test some ten times as
# slow, so of the large packages it runs those tests alone that start several
# things themselves, or ask for what runs in the background; the rest of them do
# one thing after the other, and core starts nothing.
set -euo pipefail
cd "$(dirname "$0")/.."
# They send one request after the other, though to addresses that work in the background.
alone='^Test(OddRequests|WhateverIsAskedIsAnswered|ARackFileGoesOutAndComesBack|NamesAreApart)$'
several='sync\.WaitGroup|[^a-z]go func|\.Go\(|beside\(|listen\(|log-imports/|gauges/stream'
for pkg in internal/store internal/shop internal/httpapi; do
  tests=$(awk -v several="$several" 'FNR == 1 {name = ""} /^func /{name=$2; sub(/\(.*/,"",name)} name ~ /^Test/ && $0 ~ several {print name}' "$pkg"/*_test.go | sort -u | paste -sd'|')
  [ -n "$tests" ] || { echo "$pkg: no test of it runs things at once any more; put it right here." >&2; exit 1; }
  go test -race -short -vet=off -run "^($tests)\$" -skip "$alone" "./$pkg"
done
go test -race -short -vet=off ./internal/gauge
