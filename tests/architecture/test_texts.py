"""Every text on screen goes through desktop/words.py, which keeps it a text."""

import ast
from pathlib import Path

import wide_margin

DESKTOP = Path(wide_margin.__file__).parent / "desktop"
THE_ONE = DESKTOP / "words.py"
MADE_THERE = {"QLabel", "QMessageBox", "QInputDialog", "QToolTip", "QErrorMessage", "QWhatsThis"}
SAID_THERE = {"setToolTip", "setWhatsThis", "setStatusTip", "setHtml", "setTextFormat",
              "setWindowTitle", "showText"}  # fmt: skip
OURS = {("menus.py", "setToolTip"), ("ask_line.py", "setToolTip")}
"""Tooltips of menu actions, whose words are written in these files."""


def calls_in(path):
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Call):
            function = node.func
            name = getattr(function, "attr", getattr(function, "id", ""))
            yield node, name
        elif isinstance(node, ast.ClassDef):
            for base in node.bases:
                yield node, getattr(base, "id", getattr(base, "attr", ""))


def test_no_other_module_makes_labels_messages_or_tooltips():
    found = []
    for path in DESKTOP.rglob("*.py"):
        if path == THE_ONE:
            continue
        for node, name in calls_in(path):
            if name in MADE_THERE | SAID_THERE and (path.name, name) not in OURS:
                found.append(f"{path.relative_to(DESKTOP)}:{node.lineno}: {name}")
    assert not found, "use desktop/words.py instead:\n" + "\n".join(found)


def test_markup_is_only_made_of_our_own_words():
    """Markup takes a literal; what is put into it goes through format, which escapes it."""
    found = []
    for path in DESKTOP.rglob("*.py"):
        for node, name in calls_in(path) if path != THE_ONE else ():
            if name == "Markup" and isinstance(node, ast.Call):
                ours = all(isinstance(a, ast.Constant) for a in node.args)
                if not ours:
                    found.append(f"{path.relative_to(DESKTOP)}:{node.lineno}")
    assert not found, "only literals are markup:\n" + "\n".join(found)
