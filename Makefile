# make demo          draw the examples; on a fresh machine this installs Ovlo into .venv first
# make test          all checks: style, types, imports, tests
# make bench         ratios against their floors
# make screenshots   redraw docs/screenshots from the examples

PYTHON ?= python3
BIN := .venv/bin

.PHONY: demo test bench screenshots clean

demo: .venv/ovlo
	$(BIN)/ovlo demo

test: .venv/test
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports --no-logo
	$(BIN)/pytest

bench: .venv/test
	$(BIN)/python -m bench

screenshots: .venv/ovlo
	$(BIN)/python docs/take_screenshots.py

.venv/ovlo: pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/pip install --quiet --disable-pip-version-check --editable .
	touch $@

.venv/test: pyproject.toml
	$(PYTHON) -m venv .venv
	$(BIN)/pip install --quiet --disable-pip-version-check --editable '.[test]'
	touch $@ .venv/ovlo

clean:
	rm -rf .venv ovlo-demo
