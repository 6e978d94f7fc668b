"""Titles told from the text by little: that they are headings shows in all of their style."""

import numpy as np
import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.outline import headings
from wide_margin.core.outline.candidates import Candidate, Style

SAID = (
    "The keeper signs for every bucket that leaves the well, by day and by night, and so does"
    " whoever takes it back to the shed when the work of the day is done and the lid is down."
)
CHAPTERS = ("Wells", "Ropes", "Lids", "Buckets")
NAMES = ("Digging a new one", "Lining it with stone", "Who may draw", "hemp or wire", "Splices",
         "Keeping it dry", "Oak and elm", "Hinges and locks", "Paint", "Rivets", "Leather ones",
         "Mending a leak")  # fmt: skip


def pages_of(style, names=NAMES, below=(("text", SAID), ("text", SAID))):
    """A page for each chapter, with three titles in a style."""
    return [
        [("h1", chapter), ("text", SAID),
         *(block for name in names[3 * k : 3 * k + 3] for block in ((style, name), *below))]
        for k, chapter in enumerate(CHAPTERS)
    ]  # fmt: skip


def names_in(pages):
    return [text for page in pages for style, text in page if style == "slanted"]


def sections_of(path, pages):
    make_pdf(path, pages)
    return [(s.title, s.level) for s in read_document(path).outline.sections]


@pytest.mark.parametrize("style", ["slanted", "bold12"])
def test_titles_that_all_stand_as_headings_do_are_headings(tmp_path, style):
    found = sections_of(tmp_path / "a.pdf", pages_of(style))
    assert [title for title, level in found if level == 0] == list(CHAPTERS)
    assert [title for title, level in found if level == 1] == list(NAMES)


@pytest.mark.parametrize(
    "pages",
    [
        pages_of("slanted", below=[("said", SAID), ("said", SAID)]),  # terms, said further in
        pages_of("slanted", below=[("code", "draw --all well")] * 3),
        pages_of("slanted", ["Care of it"] * 12),
        pages_of("slanted", [f"So says {name}." for name in NAMES]),
        pages_of("slanted", below=[("slanted", f"{k} by the year") for k in range(3)]),
        pages_of("slanted")[:1],  # too few
        [page[1:] for page in pages_of("slanted")],  # no other headings
    ],
)
def test_other_slanted_lines_are_none(tmp_path, pages):
    found = {title for title, _ in sections_of(tmp_path / "a.pdf", pages)}
    assert not found & set(names_in(pages))


def test_terms_set_as_headings_are_told_from_them_by_what_is_set_in_below(tmp_path):
    terms = ("ash", "elm", "oak", "yew")
    pages = [
        [*page, ("slanted", term), ("said", SAID)]
        for page, term in zip(pages_of("slanted"), terms, strict=True)
    ]
    found = [title for title, level in sections_of(tmp_path / "a.pdf", pages) if level == 1]
    assert found == list(NAMES)


def test_without_the_look_at_all_of_a_style_they_are_lost(tmp_path, monkeypatch):
    monkeypatch.setattr(headings, "set_alike", lambda candidates, *_: [False] * len(candidates))
    found = sections_of(tmp_path / "a.pdf", pages_of("slanted"))
    assert [title for title, _ in found] == list(CHAPTERS)


def kept_unlisted(*styles, size=10.0, counted=()):
    """Titles of chapters that the contents page names, and others set in styles, by what is kept.

    A style is (size, whether it is bold, whether the contents page names what is set so); nothing
    but the chapters is a heading by itself. Those of the places that are counted have numbers.
    """
    told = [(18.0, True, True), *styles]
    rows = [
        (style, f"{n}. {name}" if k in counted else name)
        for k, style in enumerate(told)
        for n, name in enumerate(NAMES[:6], 1)
    ]
    candidates = [
        Candidate(name, Style(style[0], style[1], False, False, "Serif"), k, k, 0.0, k, 0.0)
        for k, (style, name) in enumerate(rows)
    ]
    odds = np.array([3.0 if style == told[0] else 0.0 for style, _ in rows])
    listed = np.array([style[2] for style, _ in rows])
    kept = headings._sure(candidates, range(len(rows)), odds, listed, size, "Serif")
    return {rows[k][0] for k in kept} - {told[0]}


def test_bold_titles_deeper_than_the_contents_page_goes_are_kept():
    deeper, plain = (12.5, True, False), (12.5, False, False)
    assert kept_unlisted(deeper) == {deeper}
    assert kept_unlisted(plain) == set()
    assert kept_unlisted((11.0, True, False)) == set()
    assert kept_unlisted((20.0, True, False)) == set()  # larger than what it names


@pytest.mark.parametrize(("counted", "is_kept"), [((0,), False), ((0, 1), True), ((), True)])
def test_under_counted_titles_those_without_numbers_weigh_less(counted, is_kept):
    deeper = (12.5, True, False)
    assert (kept_unlisted(deeper, counted=counted) == {deeper}) == is_kept


def test_rows_that_only_repeat_the_contents_page_do_not_say_how_deep_it_goes():
    deeper, rows = (12.5, True, False), (10.0, False, True)
    assert kept_unlisted(deeper, rows) == {deeper}


def test_the_list_that_a_chapter_begins_with_is_no_section(tmp_path):
    pages = pages_of("h2")
    for k, page in enumerate(pages):
        rows = [
            ("text", f"{k + 1}.{n}. {name}") for n, name in enumerate(NAMES[3 * k : 3 * k + 3], 1)
        ]
        page[2:2] = rows
    found = [title for title, _ in sections_of(tmp_path / "a.pdf", pages)]
    assert found == [
        title
        for k, chapter in enumerate(CHAPTERS)
        for title in (chapter, *NAMES[3 * k : 3 * k + 3])
    ]
