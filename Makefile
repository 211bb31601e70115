# Two commands: `make demo` serves the app with demo data, `make test` runs everything.
VENV := .venv
PY := $(VENV)/bin/python
STAMP := $(VENV)/.stamp
# Python's and the front end's halves are fetched and built side by side.
MAKEFLAGS += -j2

.PHONY: demo serve test bench soak api shots licences clean chromium

demo: $(STAMP)-run frontend/dist/index.html
	$(PY) -m fulmen.cli demo

serve: $(STAMP)-run frontend/dist/index.html
	$(PY) -m fulmen.cli serve

test: $(STAMP)-dev frontend/dist/index.html chromium
	$(PY) tests/run.py

bench: $(STAMP)-dev frontend/dist/index.html
	$(PY) -m tests.bench.bench

# Kills, races, floods and thousands of calls: minutes, not part of `make test`.
soak: $(STAMP)-dev frontend/dist/index.html
	$(PY) -W ignore -m tests.soak

# The generated files. The front end's types follow from the API document at every build.
api: $(STAMP)-run
	$(PY) -m fulmen.cli openapi > docs/openapi.json
	$(PY) -m fulmen.cli schema > docs/job-file.schema.json
	$(PY) -m fulmen.cli rules > docs/rules.md
	$(PY) -m fulmen.cli schema charge-point > docs/charge-point.schema.json

# What ships, and under which licence.
licences: $(STAMP)-run
	$(PY) scripts/licences.py

# One current picture of each main view, from the demo data.
shots: $(STAMP)-dev frontend/dist/index.html chromium
	$(PY) -m tests.browser.shots

$(STAMP)-run: requirements.txt pyproject.toml
	@scripts/need-pango
	test -x $(PY) || python3 -m venv $(VENV)
	$(PY) -m pip install -q --disable-pip-version-check -r requirements.txt
	$(PY) -m pip install -q --disable-pip-version-check --no-deps -e .
	touch $@

$(STAMP)-dev: $(STAMP)-run requirements-dev.txt
	$(PY) -m pip install -q --disable-pip-version-check -r requirements-dev.txt
	touch $@

# After Pango, which the same package manager installs.
chromium: $(STAMP)-run
	@scripts/need-chromium

frontend/node_modules/.stamp: frontend/package-lock.json
	cd frontend && npm ci --no-audit --no-fund --loglevel=error
	touch $@

FRONTEND := $(shell find frontend/src frontend/public -type f ! -name schema.ts) \
  frontend/index.html frontend/vite.config.ts frontend/package.json docs/openapi.json
frontend/dist/index.html: frontend/node_modules/.stamp $(FRONTEND)
	cd frontend && npm run -s build -- --logLevel warn
	touch $@

clean:
	rm -rf $(VENV) frontend/node_modules frontend/dist build *.egg-info
