"""Bold lines that begin left of all text are headings, and bold terms at its edge are none."""

from collections import Counter

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.layout import paragraphs_of
from wide_margin.core.layout.model import Line
from wide_margin.core.outline.outdented import outdented

SAID = "The keeper draws the bucket up by hand, and closes the lid as soon as it is up and empty."
NAMES = ("WELLS", "Ropes of hemp", "Lids", "BUCKETS", "HANDLES", "KEYS", "Spare keys")


def lines_of(*said):
    """A page of lines, each as (left edge, text, whether it is bold)."""
    return [
        Line(0, text, ((0, len(text)),), (left, 60.0 + 24 * k, left + 5 * len(text), 70.0 + 24 * k),
             10.0, bold, False, False, 0, 0, face="Serif")
        for k, (left, text, bold) in enumerate(said)
    ]  # fmt: skip


def told(*said):
    paragraphs = paragraphs_of([lines_of(*said)], 10.0, Counter())
    return {paragraphs[row].text: level for row, level in outdented(paragraphs, 10.0).items()}


def manual(top=72.0, inner=87.0, text=108.0, bold=True):
    """Sections at one edge, subsections at another, each with a bold term and text further in."""
    return [
        each
        for name in NAMES
        for each in (
            (top if name.isupper() else inner, name, bold), (text, "BUCKET_SIZE", True),
            (text + 20, SAID, False), (text, SAID, False),
        )
    ]  # fmt: skip


def test_the_further_out_the_higher():
    assert told(*manual()) == {name: 0 if name.isupper() else 1 for name in NAMES}


def test_a_stray_line_out_there_changes_nothing():
    stray, more = (72.0, "Harbour Office, 15", False), [(108.0, SAID, False)] * 120
    assert told(*manual(), *more, stray) == told(*manual())


def test_what_stands_as_good_as_at_the_edge_of_the_text_is_no_level():
    assert set(told(*manual(inner=105.0))) == {name for name in NAMES if name.isupper()}


@pytest.mark.parametrize(
    "said",
    [
        manual(bold=False),
        manual(top=108.0, inner=108.0),
        manual()[:8],  # too few
        [*manual(), *[(72.0, SAID, False)] * 3],  # the text begins there, too
        [each for k in range(6) for each in ((72.0, "Note", True), (108.0, f"{k} {SAID}", False))],
    ],
)
def test_other_bold_lines_are_left_to_the_rest_of_the_signs(said):
    assert told(*said) == {}


def test_the_page_of_a_command_has_all_its_sections(tmp_path):
    names = ("NAME", "SYNOPSIS", "DESCRIPTION", "OPTIONS", "FILES", "BUGS")
    said = {"NAME": "dredge - clear a harbour of mud, by the bucket"}
    pages = [
        [block for name in names[k : k + 2]
         for block in (("bold", name), ("said", said.get(name, f"{name.title()}: {SAID}")),
                       ("said", SAID))]
        for k in (0, 2, 4)
    ]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    sections = read_document(tmp_path / "a.pdf").outline.sections
    assert [(s.title, s.level) for s in sections] == [(name, 0) for name in names]
