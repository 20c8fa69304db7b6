# Everything a fresh machine needs: Python 3.11+, Node 20+. `make demo` and `make test` do the rest.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
PAGES := oaken_scale/api/pages/index.html
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts

.PHONY: demo run test bench study screenshots format build check contract lock clean

demo: build
	$(BIN)/oaken-scale demo

run: build
	$(BIN)/oaken-scale serve

build: $(VENV)/.ready $(PAGES)

test: build check chromium
	$(BIN)/python -m pytest

# Lint, types and the rules of the house.
check: $(VENV)/.ready web/node_modules/.ready
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/lint-imports
	$(BIN)/mypy
	cd web && npm run --silent check

bench: build
	$(BIN)/python -m bench.measure

# How far the ledger can be trusted: coverage of its doubt, slips found and named.
study: build
	$(BIN)/python -m study

screenshots: build chromium
	$(BIN)/python -m docs.take_screenshots

format: $(VENV)/.ready web/node_modules/.ready
	$(BIN)/ruff check --fix .
	$(BIN)/ruff format .
	cd web && npm run --silent format

# What the pages and other programs hold on to: the API's and the file's descriptions.
contract: $(VENV)/.ready web/node_modules/.ready
	$(BIN)/oaken-scale openapi > web/src/api/openapi.json
	cd web && npm run --silent types
	$(BIN)/oaken-scale schema > docs/build.schema.json

# Renew the pinned versions; wants `uv` on the path.
lock:
	uv pip compile --quiet --universal --python-version 3.11 --generate-hashes --no-header \
	  --extra dev pyproject.toml --output-file requirements.lock

clean:
	rm -rf $(VENV) web/node_modules oaken_scale/api/pages

$(VENV)/.ready: requirements.lock pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	touch $@

web/node_modules/.ready: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

$(PAGES): web/node_modules/.ready $(WEB_SOURCES)
	cd web && npm run --silent build

# The browser that the tests drive: the system's own, or Debian's package.
.PHONY: chromium
chromium:
	@command -v chromium >/dev/null || command -v chromium-browser >/dev/null || \
	  command -v google-chrome >/dev/null || { \
	    echo "Installing chromium, which the tests drive"; \
	    SUDO=$$(test "$$(id -u)" = 0 || echo sudo); \
	    $$SUDO apt-get update -qq && $$SUDO apt-get install -y -qq chromium >/dev/null; }
