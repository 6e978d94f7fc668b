"""The direction of imports: desktop imports core, core goes left along one ladder."""

import ast
from collections.abc import Iterator
from pathlib import Path

import wide_margin

LADDER = [
    "errors",
    "later",
    "databases",
    "plain",
    "shipped",
    "lexicon",
    "geometry",
    "jobs",
    "pages",
    "layout",
    "outline",
    "passages",
    "search",
    "document",
]
LADDER += ["services", "answers", "explain", "translate", "digest", "margin", "export", "session"]
PACKAGE = Path(wide_margin.__file__).parent
CORE = PACKAGE / "core"
PDFIUM_USERS = {"document.py", "native.py", "text.py", "render.py", "rules.py"}


def imported_names(path: Path) -> Iterator[str]:
    """Every dotted module name that a file imports, wherever in the file."""
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module
            yield from (f"{node.module}.{alias.name}" for alias in node.names)


def test_core_imports_only_what_stands_before_it():
    for path in CORE.rglob("*.py"):
        here = path.relative_to(CORE).with_suffix("").parts[0]
        if here == "__init__":
            continue
        for name in imported_names(path):
            assert not name.startswith(("PySide6", "shiboken6")), f"{path}: {name}"
            assert not name.startswith("wide_margin.desktop"), f"{path}: {name}"
            if name.startswith("wide_margin.core."):
                there = name.split(".")[2]
                assert LADDER.index(there) <= LADDER.index(here), f"{path}: {name}"


def test_only_the_pages_package_knows_pdfium():
    for path in PACKAGE.rglob("*.py"):
        if path.parent == CORE / "pages" and path.name in PDFIUM_USERS:
            continue
        for name in imported_names(path):
            assert not name.startswith("pypdfium2"), f"{path}: {name}"


def test_the_command_line_loads_qt_only_to_open_the_window():
    tree = ast.parse((PACKAGE / "cli.py").read_text(encoding="utf-8"))
    for node in tree.body:
        if isinstance(node, ast.ImportFrom):
            assert not (node.module or "").startswith(("PySide6", "wide_margin.desktop"))


def test_the_ladder_would_notice_a_step_up(tmp_path):
    wrong = tmp_path / "wrong.py"
    wrong.write_text("from wide_margin.core.session import Session\n", encoding="utf-8")
    names = list(imported_names(wrong))
    assert any(LADDER.index(n.split(".")[2]) > LADDER.index("pages") for n in names)
