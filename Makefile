# make demo    five made-up rigs at http://127.0.0.1:8650 (PORT=, DATA= change that)
# make test    lint, type checks and all tests, the browser's included
# make shots   renew docs/screenshots/ from the demo rigs
# make sentences  the words each page opens with; DRAW=200 SEED=1: sentences to be read aloud
# make bench   speed and sizes on this machine, against docs/speed.md (WRITE=1 puts them there)
# make torture what docs/reliability.md promises, tried (half an hour; LONG=1: an hour)
# make fuzz    50 000 requests in steps, and 200 of each call by its description
# make laws   what must hold of every rig, over random ones (LAWS=500)
# make clients what leaves and enters, with software of other people (.clients/; WRITE=1: docs/formats.md)
# make sbom    what is shipped, as CycloneDX
# make mutants how many small changes of the code the tests notice (an hour)
# make serve   your own rigs

PYTHON ?= python3
PORT ?= 8650
DATA ?= .demo/harbor.sqlite3
BIN := .venv/bin

# What was compiled once is kept, wherever it runs.
export PYTHONDONTWRITEBYTECODE =

STAMPS := .build
STATIC := src/vast_harbor/web/static
FRONT := $(shell find frontend/src frontend/public -type f ! -name '*.d.ts' ! -name lists.ts 2>/dev/null) \
         frontend/index.html frontend/vite.config.ts frontend/licences.ts frontend/tsconfig.json
SOURCE := $(shell find src/vast_harbor -name '*.py' -o -name '*.toml' -o -name '*.sql' | grep -v /static/)

.PHONY: demo serve test tried thorough lint types check shots sentences bench laws mutants torture fuzz clients sbom build docs clean chromium

demo: $(STAMPS)/kernel $(STAMPS)/frontend
	@exec $(BIN)/vast-harbor demo --port $(PORT) --data $(DATA)

serve: $(STAMPS)/kernel $(STAMPS)/frontend
	@exec $(BIN)/vast-harbor serve --port $(PORT)

build: $(STAMPS)/kernel $(STAMPS)/frontend

$(STAMPS)/venv:
	@mkdir -p $(STAMPS)
	$(PYTHON) -m venv .venv
	@touch $@

# What builds the package is no part of what it needs to run: a list of its own.
$(STAMPS)/runtime: requirements.lock requirements-build.lock pyproject.toml | $(STAMPS)/venv
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock -r requirements-build.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	@touch $@

# The loop over time and the laws it calls are compiled once, and kept beside their source.
COMPILED := $(addprefix src/vast_harbor/core/, \
            $(addprefix simulation/,kernel.py charging.py compiled.py noting.py parameters.py switching.py) \
            $(addprefix battery/,kibam.py terminal_voltage.py charge_acceptance.py))

$(STAMPS)/kernel: $(COMPILED) $(STAMPS)/runtime
	find src/vast_harbor/core -name '*.nb[ic]' -delete
	$(BIN)/vast-harbor prepare
	@touch $@

$(STAMPS)/dev: requirements-dev.lock $(STAMPS)/runtime
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.lock
	@touch $@

$(STAMPS)/node: frontend/package-lock.json frontend/package.json
	@mkdir -p $(STAMPS)
	cd frontend && npm ci --silent --no-audit --no-fund
	@touch $@

# The API's description changes with the code; its TypeScript types, and the lists that the interface shares
# with the program, only when they really differ.
$(STAMPS)/openapi.json: $(SOURCE) | $(STAMPS)/runtime
	@$(BIN)/vast-harbor openapi > $@.new
	@cmp -s $@.new $@ || cp $@.new $@
	@rm -f $@.new
	@$(BIN)/vast-harbor schema --openapi > $(STAMPS)/rig-file.new
	@cmp -s $(STAMPS)/rig-file.new $(STAMPS)/rig-file.json || { cp $(STAMPS)/rig-file.new $(STAMPS)/rig-file.json; touch $@; }
	@rm -f $(STAMPS)/rig-file.new
	@$(BIN)/vast-harbor schema --interface > $(STAMPS)/lists.new
	@cmp -s $(STAMPS)/lists.new frontend/src/api/lists.ts || { cp $(STAMPS)/lists.new frontend/src/api/lists.ts; touch $@; }
	@rm -f $(STAMPS)/lists.new

frontend/src/api/schema.d.ts: $(STAMPS)/openapi.json $(STAMPS)/node
	cd frontend && npm run --silent types
	@touch $@

$(STAMPS)/frontend: $(FRONT) frontend/src/api/schema.d.ts $(STAMPS)/node
	cd frontend && npm run --silent build -- --logLevel warn
	@touch $@

lint: $(STAMPS)/dev $(STAMPS)/node frontend/src/api/schema.d.ts
	$(BIN)/ruff format --check --quiet src tests tools
	$(BIN)/ruff check --quiet src tests tools
	cd frontend && npm run --silent lint

types: $(STAMPS)/dev $(STAMPS)/node frontend/src/api/schema.d.ts
	$(BIN)/mypy
	cd frontend && npm run --silent check

chromium:
	@tools/have-chromium

test: tried lint types

# The browser waits now and then: one worker more than cores keeps these busy.
tried: build chromium $(STAMPS)/dev
	$(BIN)/pytest -n 3 --dist worksteal

# All that ``make test`` tries a sample of: every demo rig, paper, region and page; and no test may pass on
# nothing. About twice as long.
thorough: build chromium $(STAMPS)/dev
	THOROUGH=1 PYTHONPYCACHEPREFIX=$(CURDIR)/$(STAMPS)/thorough $(BIN)/pytest -n 3 --dist worksteal \
	  -o enable_assertion_pass_hook=true

# Every sentence on the pages, drawn at random to be read aloud, or the words that each page opens with.
sentences: $(STAMPS)/dev build chromium
	$(BIN)/python tools/sentences.py $(if $(DRAW),--draw $(DRAW) --seed $(or $(SEED),0))

shots: $(STAMPS)/dev build chromium
	$(BIN)/python tools/shots.py

$(STAMPS)/bench: requirements-bench.lock $(STAMPS)/dev
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-bench.lock
	@touch $@

bench: $(STAMPS)/bench build chromium
	$(BIN)/python tools/bench.py $(if $(WRITE),--write)

mutants: $(STAMPS)/dev build
	$(BIN)/python tools/mutants.py

# strace counts the calls that wait for the disk; where it cannot be had, that trial says so.
torture: $(STAMPS)/dev build chromium
	@command -v strace >/dev/null || apt-get install -y -qq strace >/dev/null 2>&1 || true
	$(BIN)/pytest -n auto tests/web/test_two_windows.py tests/browser/test_two_windows.py tests/browser/test_other_sites.py
	$(BIN)/python tools/torture.py $(if $(WRITE),--write) $(if $(LONG),--long)

fuzz: $(STAMPS)/dev $(STAMPS)/kernel
	FUZZ=200 $(BIN)/pytest -n auto tests/web/test_description.py
	$(BIN)/python tools/torture_input.py 50000

laws: $(STAMPS)/dev $(STAMPS)/kernel
	THOROUGH=1 ONE_VALUE=20 LAWS=$(or $(LAWS),500) $(BIN)/pytest -n auto -q tests/web/test_one_value.py tests/core/test_laws.py

.clients/venv: tools/clients.txt
	$(PYTHON) -m venv $@
	$@/bin/pip install --quiet --disable-pip-version-check -r $<
	@touch $@

clients: $(STAMPS)/dev build chromium .clients/venv
	$(BIN)/python tools/clients.py .clients/files .clients/venv/bin/python $(if $(WRITE),--write)

sbom: $(STAMPS)/dev $(STAMPS)/frontend
	@$(BIN)/python tools/sbom.py $(STAMPS)/sbom

docs: $(STAMPS)/runtime
	$(BIN)/vast-harbor schema > docs/rig-file.schema.json

clean:
	rm -rf .venv .build .demo frontend/node_modules frontend/src/api/*.d.ts frontend/src/api/lists.ts $(STATIC)
