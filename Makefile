PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
OFFSCREEN := QT_QPA_PLATFORM=offscreen
# Every worker that is started would compile the whole package again where this is set.
unexport PYTHONDONTWRITEBYTECODE

.PHONY: demo test check venv system handbook bench fit pictures install-desktop uninstall-desktop clean

demo: venv system
	$(BIN)/python demo/run.py

test: venv system
	$(OFFSCREEN) $(BIN)/python -m pytest -n 2

check: venv
	$(BIN)/ruff format --check .
	$(BIN)/ruff check .
	$(BIN)/mypy
	$(OFFSCREEN) $(BIN)/python -m pytest -q tests/architecture

venv: $(VENV)/.ready

$(VENV)/.ready: pyproject.toml constraints.txt
	$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11) and "Wide Margin needs Python 3.11 or newer.")'
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	$(BIN)/pip install --quiet --disable-pip-version-check -c constraints.txt -e '.[dev]'
	touch $@

system:
	@sh tools/system-packages.sh

handbook: venv
	$(BIN)/python demo/build.py src/wide_margin/data/handbook.pdf

bench: venv system
	$(OFFSCREEN) $(BIN)/python bench/run.py

fit: venv
	$(BIN)/pip install --quiet --disable-pip-version-check -c constraints.txt -e '.[fit]'
	$(BIN)/python bench/fit_answers.py $(or $(MANUALS),.eval-documents) --write
	$(if $(OUTLINES),$(BIN)/python bench/fit_headings.py $(OUTLINES) --write,@echo "OUTLINES=FOLDER names the documents of bench/outlines.json.gz; without it the trees stay.")
	$(if $(PDFS),$(BIN)/python bench/fit_gist.py $(PDFS) --write,@echo "PDFS=FOLDER names the articles of bench/articles.json; without it the weights of the gist stay.")

pictures: venv system
	$(OFFSCREEN) $(BIN)/python demo/pictures.py docs/screenshots

install-desktop: venv
	$(BIN)/python tools/install_desktop.py

uninstall-desktop: venv
	$(BIN)/python tools/install_desktop.py --undo

clean:
	rm -rf $(VENV) build dist tour-pictures .pytest_cache .mypy_cache .ruff_cache .hypothesis
