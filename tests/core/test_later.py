"""Packages that are loaded when they are first used."""

import subprocess
import sys

import pytest

from wide_margin.core.later import loaded_later

LARGE = ("pikepdf._core", "docx.document", "pptx.presentation", "httpx", "spellchecker")


def test_a_package_is_loaded_at_its_first_use():
    code = (
        "import sys; from wide_margin.core.later import loaded_later;"
        "m = loaded_later('xml.dom.minidom'); before = 'xml.dom.xmlbuilder' in sys.modules;"
        "m.parseString('<a/>'); print(before, 'xml.dom.minidom' in sys.modules)"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.split() == ["False", "True"]


def test_one_that_is_missing_is_told_at_once():
    with pytest.raises(ModuleNotFoundError):
        loaded_later("no_such_package_anywhere")


@pytest.mark.parametrize(
    "module", ["wide_margin.core.session.reading_service", "wide_margin.desktop.main_window"]
)
def test_workers_and_window_start_without_what_they_rarely_need(module):
    code = f"import sys, {module}; print([m for m in {LARGE!r} if m in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"
