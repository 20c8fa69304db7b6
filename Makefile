# Everything a fresh machine needs: Python 3.11+, Node 20+. `make demo` and `make test` do the rest.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
PAGES := oaken_scale/api/pages/index.html
# Python and Node are set up side by side, and so are their checks.
MAKEFLAGS += --jobs=2
# What Python compiled once is kept, whatever the shell says: each start is twice as fast.
unexport PYTHONDONTWRITEBYTECODE
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts

# What only developers need is set up where they ask for it; where it is there already, once.
ifneq ($(filter $(VENV)/.ready web/node_modules/.ready test check% bench load siege study screenshots format contract,$(MAKECMDGOALS)),)
SET_UP := $(VENV)/.ready
BUILT_WITH := web/node_modules/.ready
else
SET_UP := $(or $(wildcard $(VENV)/.ready),$(VENV)/.runs)
BUILT_WITH := $(or $(wildcard web/node_modules/.ready),web/node_modules/.runs)
endif

.PHONY: demo run test bench load siege study wheel screenshots format build contract lock clean \
	check check-python check-types check-pages

demo: build
	$(BIN)/oaken-scale demo

run: build
	$(BIN)/oaken-scale serve

build: $(SET_UP) $(PAGES)

test: $(VENV)/.ready web/node_modules/.ready build check chromium
	$(BIN)/python -m pytest

# Lint, types and the rules of the house.
check: check-python check-types check-pages

check-python: $(VENV)/.ready
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/lint-imports
	$(BIN)/mypy

check-types: web/node_modules/.ready
	cd web && npm run --silent check-types

check-pages: web/node_modules/.ready
	cd web && npm run --silent check-pages

bench: $(VENV)/.ready build
	$(BIN)/python -m benchmarks.measure

# How far one machine goes: many benches at once.
load: $(VENV)/.ready build
	$(BIN)/python -m benchmarks.load

# Killed 500 times in the middle of a weigh-in; nothing acknowledged may be lost.
siege: $(VENV)/.ready build
	$(BIN)/python -m benchmarks.siege

# How far the ledger can be trusted: coverage of its doubt, slips found and named.
study: $(VENV)/.ready build
	$(BIN)/python -m study

# One file that runs with pip or pipx and without Node: the pages are in it.
wheel: build
	@rm -rf build dist
	@$(BIN)/pip wheel --quiet --disable-pip-version-check --no-deps --no-build-isolation -w dist .
	@ls dist/*.whl

screenshots: $(VENV)/.ready build chromium
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
	$(BIN)/python -m docs.list_constants
	$(BIN)/python -m docs.list_limits

# Renew the pinned versions, those that running needs and those that working on it needs; wants
# `uv` on the path.
lock:
	$(PIN) --extra setup --output-file requirements-run.lock
	$(PIN) --extra setup --extra dev --output-file requirements.lock

PIN := uv pip compile --quiet --universal --python-version 3.11 --generate-hashes --no-header \
	pyproject.toml

clean:
	rm -rf $(VENV) web/node_modules oaken_scale/api/pages

$(VENV)/.runs: requirements-run.lock pyproject.toml
	@echo "Setting up Python: what the workshop runs on"
	@test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	@$(PIP) --require-hashes -r requirements-run.lock
	@$(PIP) --no-deps --no-build-isolation -e .
	@touch $@

$(VENV)/.ready: requirements.lock requirements-run.lock pyproject.toml
	@echo "Setting up Python: what the workshop runs on, and what checks and tests it"
	@test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	@$(PIP) --require-hashes -r requirements.lock
	@$(PIP) --no-deps --no-build-isolation -e .
	@touch $@ $(VENV)/.runs

# What is never read is never compiled: a quarter of the time.
PIP := $(BIN)/pip install --quiet --disable-pip-version-check --no-compile

web/node_modules/.runs: web/package-lock.json
	@echo "Fetching what the pages are built with"
	@cd web && npm ci --omit=dev --no-audit --no-fund --loglevel=error
	@touch $@

web/node_modules/.ready: web/package-lock.json
	@echo "Fetching what checks the pages"
	@cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@ web/node_modules/.runs

$(PAGES): $(BUILT_WITH) $(WEB_SOURCES)
	@echo "Building the pages"
	@cd web && npm run --silent build

# The browser that the tests drive: the system's own, or Debian's package. The one made for running
# without a monitor comes first: a page starts in half the time.
BROWSERS := chromium-headless-shell chromium chromium-browser google-chrome
.PHONY: chromium
chromium:
	@for each in $(BROWSERS); do if command -v $$each >/dev/null; then exit 0; fi; done; \
	  echo "Installing chromium, which the tests drive"; \
	  SUDO=$$(test "$$(id -u)" = 0 || echo sudo); \
	  $$SUDO apt-get update -qq; \
	  $$SUDO apt-get install -y -qq chromium-headless-shell >/dev/null 2>&1 || \
	  $$SUDO apt-get install -y -qq chromium >/dev/null
