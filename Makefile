# What a newcomer needs: make demo, make test. The rest builds on them.
SHELL := /bin/bash
ADDR ?= 127.0.0.1:7420
DATA ?= data/demo
STAMPS := .stamps
GO := CGO_ENABLED=0 go

WEB_SOURCES := $(shell find web/src web/public web/scripts -type f 2>/dev/null) web/index.html web/vite.config.ts
GO_SOURCES := $(shell find cmd core device store server demo formats -name '*.go' -o -name '*.sql' -o -name '*.bin' 2>/dev/null)

.PHONY: demo test build bench shapes shots lint advisories generated checks go-tests browser-tests clean

demo: bin/bight
	bin/bight demo --addr $(ADDR) --data $(DATA)

build: bin/bight

bin/bight: $(STAMPS)/web $(GO_SOURCES) go.mod go.sum
	$(GO) build -trimpath -tags nomsgpack -o $@ ./cmd/bight

$(STAMPS)/npm: web/package-lock.json web/package.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/web: $(STAMPS)/npm $(WEB_SOURCES)
	cd web && npm run --silent build
	@touch $@

# Chromium drives the interface tests; it is installed where it is missing and
# may be.
$(STAMPS)/chromium:
	@mkdir -p $(STAMPS)
	@if command -v "$${CHROMIUM:-chromium}" >/dev/null; then :; \
	elif [ "$$(id -u)" = 0 ] && command -v apt-get >/dev/null; then \
	  apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium >/dev/null; \
	else \
	  echo "Chromium is missing: install it (apt-get install chromium) or name it with CHROMIUM=/path/to/chromium" >&2; exit 1; \
	fi
	@touch $@

lint: $(STAMPS)/npm
	@test -z "$$(gofmt -l cmd core device store server demo formats e2e)" || { gofmt -l cmd core store server demo formats e2e; echo "run gofmt -w on these"; exit 1; }
	$(GO) vet ./...
	$(GO) tool staticcheck ./...
	cd web && npx tsc --noEmit && npx biome check --error-on-warnings src
	@$(MAKE) --no-print-directory advisories

# Known faults in what we build on, where their lists can be reached; where they
# cannot, that is said and nothing fails.
advisories: $(STAMPS)/npm
	@out=$$($(GO) tool govulncheck ./... 2>&1); code=$$?; \
	if echo "$$out" | grep -qE 'fetching vulnerabilities|no such host|connection refused|dial tcp|Forbidden|404|403|context deadline'; then echo "govulncheck: its list cannot be reached from here"; \
	elif [ $$code -ne 0 ]; then echo "$$out"; exit 1; fi
	@cd web && out=$$(npm audit --omit=dev 2>&1); code=$$?; \
	if [ $$code -ne 0 ] && echo "$$out" | grep -q ' severity'; then echo "$$out"; exit 1; \
	elif [ $$code -ne 0 ]; then echo "npm audit: its list cannot be reached from here"; fi

# Every embedded shape is drawn up again, side by side; a run that was stopped goes
# on where it was. Without ALL=1 only what its route or the solver no longer gives.
shapes:
	$(GO) run ./core/knots/gen $(if $(ALL),-all) -knots core/knots -work $(STAMPS)/shapes
	$(GO) run ./core/knots/ball/gen $(if $(ALL),-all) -folder core/knots/ball
	$(GO) run ./core/knots/loose/gen $(if $(ALL),-all) -folder core/knots/loose

# The schemas, the web's types and the list of words must be what the sources say.
generated: $(STAMPS)/npm
	@set -e; tmp=$$(mktemp -d); mkdir -p $$tmp/web/src/api $$tmp/web/src/ui $$tmp/docs; \
	$(GO) run ./server/gen $$tmp; \
	diff -u web/src/api/wire.schema.json $$tmp/web/src/api/wire.schema.json; \
	diff -u docs/piece.schema.json $$tmp/docs/piece.schema.json; \
	diff -u web/src/ui/units.gen.ts $$tmp/web/src/ui/units.gen.ts; \
	diff -u web/src/api/facts.gen.ts $$tmp/web/src/api/facts.gen.ts; \
	cp -p web/src/api/types.gen.ts $$tmp/types.gen.ts; \
	(cd web && npm run --silent types); \
	diff -u $$tmp/types.gen.ts web/src/api/types.gen.ts; \
	cp -p $$tmp/types.gen.ts web/src/api/types.gen.ts; \
	(cd web && node scripts/words.mjs $$tmp/docs/words.md); \
	diff -u docs/words.md $$tmp/docs/words.md; \
	rm -rf $$tmp; echo "generated code is up to date"

# Those that take longest begin first.
LONGEST = ./core/scene ./core/knots ./core/knot ./core/knots/ball ./core/plan
go-tests: $(STAMPS)/web
	$(GO) test -timeout 18m $(LONGEST) $$($(GO) list ./... | grep -v /e2e)

browser-tests: bin/bight $(STAMPS)/chromium
	$(GO) test -count=1 -timeout 18m ./e2e/...

test: $(STAMPS)/web $(STAMPS)/chromium bin/bight
	@$(MAKE) --no-print-directory -j2 -k browser-tests checks

# They take what the browser leaves over: it is waited for, and they are not.
checks:
	@nice -n 15 $(MAKE) --no-print-directory lint
	@nice -n 15 $(MAKE) --no-print-directory generated
	@nice -n 15 $(MAKE) --no-print-directory go-tests

bench: bin/bight $(STAMPS)/chromium
	$(GO) test -run '^$$' -bench . -benchmem -timeout 30m ./core/... ./store ./server ./e2e

shots: $(STAMPS)/web $(STAMPS)/chromium
	$(GO) run ./e2e/shots

clean:
	rm -rf bin $(STAMPS) web/node_modules server/dist/*
