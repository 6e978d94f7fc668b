"""Explaining and translating from the command line."""

import json
from importlib import resources
from xml.etree import ElementTree

import pytest

from tests.commanding import run
from wide_margin.core.services.stand_in import StandIn

HANDBOOK = str(resources.files("wide_margin.data") / "handbook.pdf")


pytestmark = pytest.mark.usefixtures("shared_cache")


def test_a_term_is_explained_as_json():
    told = run("explain", HANDBOOK, "--text", "closing error", "--json")
    values = json.loads(told.stdout)
    assert values["meanings"][0]["kind"] == "glossary"
    assert values["meanings"][0]["locator"]["section"] == ["Glossary"]


def test_a_sentence_is_taken_apart_and_its_references_followed():
    text = "If they differ by more than 5 centimetres, section 8.4 applies."
    values = json.loads(run("explain", HANDBOOK, "--text", text, "--json").stdout)
    assert values["taken_apart"][0][0]["text"] == "section 8.4 applies"
    assert values["references"][0]["title"].startswith("8.4 ")
    assert values["measures"][0]["written"] == "5 centimetres" or values["measures"] == []


def test_a_section_tells_what_refers_to_it():
    values = json.loads(run("explain", HANDBOOK, "--section", "8.4", "--json").stdout)
    assert values["title"].startswith("8.4 ")
    assert values["referred_from"]


@pytest.mark.parametrize(
    ("arguments", "said"),
    [(["explain"], "Nothing to explain"), (["explain", "--page", "zz9"], "no page"),
     (["explain", "--section", "99.9"], "99.9"), (["translate", "--to", "xx"], "No language")],
)  # fmt: skip
def test_what_cannot_be_done_is_one_sentence(arguments, said):
    command, *rest = arguments
    ended = run(command, HANDBOOK, *rest)
    assert ended.returncode == 1
    assert said in ended.stderr
    assert "Traceback" not in ended.stderr


def test_a_page_is_translated_in_open_formats(tmp_path):
    with StandIn() as model:
        plain = run(
            "translate", HANDBOOK, "--pages", "57", "--to", "de", "--json", "--model", model.address
        )
        pairs = json.loads(plain.stdout)["pairs"]
        assert len(pairs) > 5
        assert all(pair["target"] for pair in pairs)
        out = tmp_path / "page.xlf"
        run(
            "translate",
            HANDBOOK,
            "--pages",
            "57",
            "--to",
            "de",
            "--xliff",
            "-o",
            str(out),
            "--model",
            model.address,
        )
        assert len(list(ElementTree.parse(out).getroot().iter())) > 20
