"""No function is longer than a screen or two, no class does five things."""

import ast
from pathlib import Path

import wide_margin

PACKAGE = Path(wide_margin.__file__).parent
FUNCTION, CLASS = 60, 400
"""Lines."""


def test_functions_and_classes_keep_their_measure():
    too_long = []
    for path in PACKAGE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            limit = CLASS if isinstance(node, ast.ClassDef) else FUNCTION
            if isinstance(node, ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef):
                length = (node.end_lineno or node.lineno) - node.lineno + 1
                if length > limit:
                    too_long.append(f"{path.relative_to(PACKAGE)}: {node.name}, {length} lines")
    assert not too_long
