# make demo   set up everything and open the demo document
# make test   set up everything and run every check
# make bench  print the measured ratios
PY := .venv/bin/python
unexport PYTHONDONTWRITEBYTECODE # what is fetched is compiled when it is first used, and kept

.PHONY: setup demo test lint types contracts pytest bench wheel screenshots schema words clean

setup: .venv/check

.venv/check .venv/window: pyproject.toml constraints.txt tools/setup
	tools/setup $(@F)

demo: .venv/window
	tools/demo

test: setup
	$(MAKE) --output-sync --jobs lint types contracts
	$(MAKE) pytest

lint: setup
	.venv/bin/ruff check src tests bench tools
	.venv/bin/ruff format --check src tests bench tools

types: setup
	.venv/bin/mypy
	.venv/bin/mypy tools

contracts: setup
	.venv/bin/lint-imports

pytest: setup
	KAVLET_NO_QT=1 $(PY) -m pytest -n auto -p no:pytest-qt tests/core tests/outside
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n auto --ignore tests/core --ignore tests/outside

bench: setup
	$(PY) -m pip install --quiet --constraint constraints.txt --editable ".[bench]"
	$(PY) -m bench

wheel: setup
	$(PY) -m build --wheel

screenshots: setup
	QT_QPA_PLATFORM=offscreen $(PY) tools/screenshots.py

schema: setup
	$(PY) tools/schema.py

words: setup
	$(PY) tools/words.py

clean:
	rm -rf .venv build dist src/*.egg-info
