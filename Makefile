# Two commands do all the set-up: `make demo` and `make test`.
PY := .venv/bin/python
STAMP := .venv/.installed
NODE_BIN := tools/node_modules/.bin
STATIC := src/obrell/web/static
SHEETS := $(STATIC)/css
SCRIPTS := $(STATIC)/js
SCRIPT_TESTS := tests/scripts
TEMPLATES := src/obrell/web/templates
PRETTIER := $(NODE_BIN)/prettier --config tools/prettier.json --log-level warn
PRETTY := $(TEMPLATES)/*.html $(SHEETS) $(SCRIPTS) $(SCRIPT_TESTS)

.PHONY: demo test lint format soak load reliability bench screenshots

$(STAMP): requirements.lock pyproject.toml
	python3 -m venv .venv
	$(PY) -m pip install --quiet --disable-pip-version-check --requirement requirements.lock
	$(PY) -m pip install --quiet --disable-pip-version-check --no-deps --editable .
	touch $(STAMP)

# Sources are compiled beforehand, also where Python is told to keep no compiled ones: a fifth of the start.
demo: $(STAMP)
	$(PY) -m compileall -q src
	.venv/bin/obrell demo

lint: $(STAMP) tools/node_modules
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports
	$(PRETTIER) --check $(PRETTY)
	$(NODE_BIN)/eslint --config tools/eslint.config.mjs $(SCRIPTS) $(SCRIPT_TESTS)
	$(NODE_BIN)/tsc --project tools/tsconfig.json
	$(PY) -m tools.linear src
	$(PY) -m tools.too_long $(TEMPLATES) $(SHEETS) $(SCRIPTS) $(SCRIPT_TESTS)

# Templates, scripts, style sheets and Python as the checks want them; some templates need two passes.
format: $(STAMP) tools/node_modules
	.venv/bin/ruff format .
	$(PRETTIER) --write $(PRETTY)
	$(PRETTIER) --write $(PRETTY)

test: lint /usr/bin/chromium
	node --test $(SCRIPT_TESTS)/*.mjs
	$(PY) -m pytest

# Longer than anybody waits for: more hostile files, more kills, coverage-guided fuzzing, and load.
soak: $(STAMP) /usr/bin/chromium
	$(PY) -m pip install --quiet --disable-pip-version-check atheris==3.0.0
	OBRELL_HOSTILE=3000 OBRELL_DOCUMENTS=3000 OBRELL_FUZZ=200 OBRELL_LAW=60 OBRELL_KILLS=60 $(PY) -m pytest \
		tests/hostile tests/truth/test_svg_files.py tests/core/test_rules.py tests/web/test_fuzz.py \
		tests/web/test_law_of_edits.py tests/cli/test_disk.py tests/store tests/browser/test_journeys.py
	for late in 0 1 2 3; do OBRELL_LATE=$$late OBRELL_STREAMS=200 $(PY) -m pytest tests/browser || exit 1; done
	for kind in svg font picture kit swatches recording colour gradient; do $(PY) -m tools.fuzz $$kind 300 || exit 1; done
	$(PY) -m tools.load
	$(PY) -m tools.history

# The figures in docs/reliability.md, all of them from runs.
reliability: $(STAMP)
	$(PY) -m tools.reliability load

load: $(STAMP)
	$(PY) -m tools.load
	$(PY) -m tools.history

bench: $(STAMP) /usr/bin/chromium tools/node_modules
	$(PY) -m compileall -q src
	$(PY) -m tools.bench

screenshots: $(STAMP) /usr/bin/chromium
	$(PY) -m tools.screenshots

/usr/bin/chromium:
	apt-get update -qq && apt-get install -y -qq chromium

/usr/bin/npm:
	apt-get update -qq && apt-get install -y -qq nodejs npm

tools/node_modules: tools/package.json tools/package-lock.json | /usr/bin/npm
	npm ci --silent --prefix tools
	touch tools/node_modules
