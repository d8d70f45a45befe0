# The two commands that matter are `make demo` and `make test`; both do all the
# set-up that a fresh machine needs.
.PHONY: demo test test-long setup build generate fresh statements licences format format-check lint lint-go lint-types lint-web bench fuzz mutants mutants-web shots drag clean

demo: export CORTE_LISTEN ?= 127.0.0.1:8254
demo: setup build
	@exec ./bin/corte demo

test:
	@exec scripts/test.sh

# Tests that take minutes; the build tag long lets them take their time.
test-long: setup build
	CORTE_LONG=1 go test -tags long -timeout 60m -count=1 ./internal/attack ./core/sight
	scripts/new-field.sh

# Looks for input that no seed of a fuzz target has.
fuzz:
	@scripts/fuzz.sh

setup:
	@scripts/setup.sh

build:
	@scripts/build.sh

# Types on both sides follow from the contract.
generate:
	go tool oapi-codegen -config api/models.yaml api/openapi.yaml
	go tool oapi-codegen -config api/server.yaml api/openapi.yaml
	@sed -i '1i //go:build !js\n' internal/httpapi/contract/server.gen.go
	go run ./scripts/records
	go run ./scripts/enums
	go run ./scripts/forms
	cd web && npm run -s types && npm run -s sentences

generated = internal/httpapi/contract/models.gen.go internal/httpapi/contract/server.gen.go internal/store/rows.gen.go internal/wire/records.gen.go $(wildcard core/*/enum.gen.go) web/src/api/schema.d.ts web/src/locales/en.po web/src/locales/es.po scripts/forms/en.json internal/locale/es.json web/src/api/bounds.json
fresh:
	@old=$$(mktemp -d) && trap 'rm -rf "$$old"' EXIT && cp --parents $(generated) "$$old" && $(MAKE) -s generate && \
	for f in $(generated); do diff -q "$$old/$$f" $$f >/dev/null || \
	  { echo "$$f was stale: commit what 'make generate' wrote." >&2; exit 1; }; done
	go mod tidy -diff

# What this release says to the database, kept when it is released: the tables of
# the next one have to understand it.
statements:
	CORTE_STATEMENTS=$(CURDIR)/internal/store/testdata/statements-$$(ls internal/store/migrations | tail -n 1 | sed 's/^0*//; s/_.*//').json go test -count=1 ./internal/httpapi

# The licences of all that is shipped, collected anew after a build.
licences:
	go run ./scripts/licences

format:
	gofmt -w api cmd core internal web/*.go
	cd web && npx prettier --write .
	cd e2e && ../web/node_modules/.bin/prettier --write .

format-check:
	@test -z "$$(gofmt -l cmd core internal web/*.go)" || { echo "Not formatted; run 'make format':"; gofmt -l cmd core internal web/*.go; exit 1; } >&2
	cd web && npm run -s format:check
	cd e2e && ../web/node_modules/.bin/prettier --check .

lint: lint-go lint-types lint-web

lint-go:
	go vet ./...
	go tool staticcheck $$(go list ./... | grep -v /contract$$)

lint-types:
	cd web && npm run -s typecheck
	cd e2e && npx tsc --noEmit

lint-web:
	cd web && npm run -s lint

bench:
	go test -run '^$$' -bench . ./core/... ./internal/...

# Refreshes docs/screenshots from demo data.
shots: setup build
	cd e2e && npx playwright test --project=shots

# Breaks N small places of the folders IN (core, shop, httpapi, store and account),
# drawn by SEED, and says which of them no test notices.
mutants:
	go run ./scripts/mutants -n $(or $(N),40) -seed $(or $(SEED),1) $(if $(IN),-in $(IN)) $(if $(SINCE),-since $(SINCE))

# The same over the modules of the front end that e2e/modules.test.ts holds.
mutants-web:
	node scripts/mutants-web.mjs $(or $(N),40) $(or $(SEED),1)

# Drags the blade for three seconds and says how many frames the page kept.
drag: setup build
	cd e2e && npx playwright test --project=trace

clean:
	rm -rf bin web/dist/assets web/dist/index.html web/dist/favicon.svg e2e/test-results
