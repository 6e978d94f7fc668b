"""Packages that are loaded when they are first used."""

import copy
import importlib
import pickle
import pkgutil
import re
import subprocess
import sys

import pytest

import wide_margin.core
from wide_margin.core import lexicon
from wide_margin.core.later import _Later, compiled_ahead, first_match, loaded_later, regex

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


def test_reading_begins_without_what_only_answers_need():
    code = (
        "import sys, wide_margin.core.session.reading_service;"
        "print([m for m in sys.modules if m.startswith(("
        "'wide_margin.core.digest.digest', 'wide_margin.core.answers.quoted',"
        "'wide_margin.core.explain.', 'wide_margin.core.session.prepared'))])"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


def test_an_expression_does_what_its_compiled_form_does():
    later, now = regex(r"(?P<word>b\w+)", re.I), re.compile(r"(?P<word>b\w+)", re.I)
    text = "a Bee, a bat"
    assert later.findall(text) == now.findall(text)
    assert later.search(text)["word"] == "Bee"
    assert later.sub("x", text) == now.sub("x", text)
    assert [m.span() for m in later.finditer(text)] == [m.span() for m in now.finditer(text)]
    assert (later.pattern, later.flags) == (now.pattern, now.flags)


def test_an_expression_is_compiled_at_its_first_use_and_once():
    later = regex("a+")
    assert later._compiled is None
    later.match("aa")
    compiled = later._compiled
    later.search("aa")
    assert later._compiled is compiled


def test_expressions_of_loaded_modules_are_compiled_ahead_one_by_one(monkeypatch):
    monkeypatch.setattr(lexicon, "_FIRST", regex("a+"), raising=False)
    monkeypatch.setattr(lexicon, "_SECOND", regex("b+"), raising=False)
    ours = lexicon._FIRST, lexicon._SECOND
    seen = [sum(each._compiled is not None for each in ours) for _ in compiled_ahead()]
    assert seen == sorted(seen)
    assert set(seen) >= {1, 2}


def test_an_expression_can_be_copied_and_sent():
    for twin in (copy.deepcopy(regex("a+")), pickle.loads(pickle.dumps(regex("a+")))):
        assert twin.match("aa").group() == "aa"


def test_what_is_no_expression_says_so_at_its_first_use():
    with pytest.raises(re.error):
        regex("(").match("")


def _held(value, depth=0):
    if isinstance(value, _Later):
        yield value
    elif depth < 3 and isinstance(value, dict):
        for inner in value.values():
            yield from _held(inner, depth + 1)
    elif depth < 3 and isinstance(value, tuple | list | set | frozenset):
        for inner in value:
            yield from _held(inner, depth + 1)


def test_every_expression_of_the_package_can_be_compiled():
    n = 0
    for found in pkgutil.walk_packages(wide_margin.core.__path__, "wide_margin.core."):
        module = importlib.import_module(found.name)
        for value in vars(module).values():
            for expression in _held(value):
                assert expression.pattern is not None
                n += 1
    assert n > 300


def test_many_threads_may_ask_for_a_module_at_once():
    code = (
        "from concurrent.futures import ThreadPoolExecutor\n"
        "from wide_margin.core.later import loaded_later\n"
        "found = loaded_later('xml.dom.minidom')\n"
        "with ThreadPoolExecutor(16) as pool:\n"
        "    made = list(pool.map(lambda _: found.parseString('<a/>').toxml(), range(64)))\n"
        "print(len(set(made)), len(made))\n"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.split() == ["1", "64"]


def test_the_first_pattern_that_fits_is_the_one_that_matches():
    patterns = (regex("well"), regex("(?P<what>rope)s"), regex("ro"))
    found = first_match(patterns, "ropes of hemp")
    assert found is not None
    assert found["what"] == "rope"
    assert first_match(patterns, "a well") is None
