# make demo          draw the examples; on a fresh machine this installs Ovlo into .venv first
# make test          all checks: style, types, imports, tests but those that .ci/run alone waits for
# make bench         ratios against their floors, in under five minutes; ONLY="help" for one row, ONLY=all for all
# make torture       random programs, bad values and kills, for an hour (not part of make test)
# make mutants       small wrong changes in each room, and whether its tests notice (an hour; not part of make test)
# make coverage      what the tests reach, subprocesses included
# make docs          the guide as a site: docs/_build/index.html
# make handouts      the lessons of the guide as PDF: docs/_build/handouts
# make editor        build the studio's editor from its lock file again: src/ovlo/studio/vendor
# make letters       draw the alphabet of single strokes again: src/ovlo/core/pen/stroke_letters.json
# make screenshots   redraw docs/screenshots from the examples

PYTHON ?= python3
BIN := .venv/bin
# One more than there are cores, since tests of processes and of the page wait for them.
WORKERS ?= $(shell expr $$(getconf _NPROCESSORS_ONLN) + 1)

.PHONY: demo editor letters test docs handouts bench torture mutants coverage screenshots clean

demo: .venv/ovlo
	$(BIN)/ovlo demo

test: .venv/test
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports --no-logo
	$(BIN)/python -m compileall -q src
	PYTHONDONTWRITEBYTECODE= $(BIN)/pytest -n $(WORKERS) --dist worksteal -m "not long"

bench: .venv/test
	$(BIN)/python -m bench $(ONLY)

torture: .venv/test
	$(BIN)/python -m torture --programs 10000 --kills 200 --mishaps 10 --icons 135 --svg 1000

mutants: .venv/test
	$(BIN)/python -m mutants

coverage: .venv/test
	$(BIN)/coverage erase
	$(BIN)/coverage run -m pytest -n auto --dist loadfile
	$(BIN)/coverage combine
	$(BIN)/coverage report

docs: .venv/guide
	$(BIN)/sphinx-build -W --keep-going -q -j auto -b html docs docs/_build

handouts: docs
	$(BIN)/python docs/print_handouts.py

editor:
	cd src/ovlo/studio/vendor && npm ci --silent && npm run --silent build

letters: .venv/ovlo
	$(BIN)/python -m letters

screenshots: .venv/ovlo
	$(BIN)/python docs/take_screenshots.py

.venv/ovlo: pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/pip install --quiet --disable-pip-version-check --editable .
	touch $@

.venv/guide: pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/pip install --quiet --disable-pip-version-check --editable '.[guide]'
	touch $@ .venv/ovlo

.venv/test: pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/pip install --quiet --disable-pip-version-check --editable '.[test,guide]'
	touch $@ .venv/guide .venv/ovlo

clean:
	rm -rf .venv ovlo-demo
