"""What the reader sees and touches: Qt lives here, and only here."""

import sys

import PySide6.QtCore  # noqa: F401  loads what is looked for below


def _read_no_sources() -> None:
    """Keep the binding from reading the source of every module that is imported.

    It looks there for the word "PySide6", to know which modules may choose its other spellings of
    names; none of ours does, and reading some five hundred files takes a sixth of the start. A
    version of it that looks in another way is left alone.
    """
    support = sys.modules.get("shibokensupport.feature") or sys.modules.get(
        "PySide6.support.feature"
    )
    if support is not None and hasattr(support, "_mod_uses_pyside"):
        vars(support)["_mod_uses_pyside"] = lambda module: False


_read_no_sources()
