"""Printed pages on a command: what it is stands under its name, the rest in sections."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.facts import find_facts

SAYS = "dredge - clear a harbour of mud"
FIRST = "dredge lifts mud by the bucket and drops it where nobody lives."
PLAIN = "The bucket is emptied at the second pole, and the rope is looked at before it goes down."


@pytest.fixture(scope="module", params=["NAME", "Nom"])
def page(request, tmp_path_factory):
    sections = [(request.param, [SAYS]), ("SYNOPSIS", ["dredge harbour"]),
                ("DESCRIPTION", [FIRST, PLAIN]), ("OPTIONS", [PLAIN]),
                ("ORIGINAL AUTHORS", ["Marta Lindqvist and Tomas Flour"]),
                ("BUGS", ["In ice the bucket stops. Please send reports of bugs to"
                          " <harbour@wells.example> in a letter."])]  # fmt: skip
    path = tmp_path_factory.mktemp("command") / "a.pdf"
    blocks = [[("bold", title), *[("said", text) for text in said]] for title, said in sections]
    make_pdf(
        path, [[b for each in blocks[:3] for b in each], [b for each in blocks[3:] for b in each]]
    )
    return read_document(path)


def answer(document, typed):
    return Digester(document).answer(typed, WHOLE, None)


def test_its_title_is_the_command_and_its_subtitle_what_it_is(page):
    facts = find_facts(page)
    assert (facts.title.text, facts.subtitle.text) == ("dredge", "clear a harbour of mud")


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What is this about?", "clear a harbour of mud"),
        ("What is dredge?", SAYS),
        ("What does dredge do?", SAYS),
        ("Who wrote it?", "Marta Lindqvist"),
        ("Are there any known bugs?", "In ice the bucket stops."),
        ("How do I report a bug?", "Please send reports of bugs to <harbour@wells.example>"),
    ],
)
def test_what_readers_ask_of_every_command_is_answered(page, typed, said):
    found = answer(page, typed)
    assert found.quotes[0].text.startswith(said)
    assert found.sure > 0.8


def test_what_it_does_follows_what_it_is(page):
    assert [quote.text for quote in answer(page, "What is dredge?").quotes] == [SAYS, FIRST]


@pytest.mark.parametrize("sign", ["!", "=", "~", "?"])
def test_its_dash_may_be_whatever_sign_the_font_has_for_it(tmp_path, sign):
    make_pdf(tmp_path / "a.pdf", [
        [("bold", "NAME"), ("said", f"dredge {sign} clear a harbour of mud"), ("bold", "SYNOPSIS"),
         ("said", "dredge harbour"), ("bold", "DESCRIPTION"), ("said", FIRST)],
    ])  # fmt: skip
    facts = find_facts(read_document(tmp_path / "a.pdf"))
    assert (facts.title.text, facts.subtitle.text) == ("dredge", "clear a harbour of mud")


CHANGES = [
    ("text", "The changes from Dredge 1.1 to 1.2 are:"), ("item", "\u2022 longer ropes"),
    ("text", "The changes from Dredge 1.0 to 1.1 are:"), ("item", "\u2022 wider buckets"),
]  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What changed in version 1.2?", "longer ropes"),
        ("What is new in version 1.1?", "wider buckets"),
        ("What changed in the latest version?", "longer ropes"),
        ("What changed in version 4.7?", ""),
    ],
)
def test_what_a_version_brought_is_told_under_the_line_that_names_it(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Dredge Manual"), ("h1", "1 Introduction"),
         ("text", "Section 2 tells what has changed since version 1.0 of it. " + PLAIN)],
        [("h1", "2 Changes"), *CHANGES], [("h1", "3 Use"), ("text", PLAIN)],
    ])  # fmt: skip
    found = answer(read_document(tmp_path / "a.pdf"), typed)
    told = " ".join(quote.text for quote in found.quotes)
    assert [each for each in ("longer ropes", "wider buckets") if each in told] == [said] * bool(
        said
    )
    assert bool(said) != found.declined
