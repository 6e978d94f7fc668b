"""What a list names before it comes, larger or heavier than there, is a heading."""

import numpy as np
import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.outline.candidates import Candidate, Style
from wide_margin.core.outline.heading_signs import SIGNS
from wide_margin.core.outline.headings import _listed_once
from wide_margin.core.outline.listed_ahead import listed_ahead

NAMES = ("lift()", "wind up", "hang_lid(size)", "Buckets", "Who pays?", "keys")
SAID = "It is looked at by the keeper every spring, and is mended before the first frost comes."


def document_of(tmp_path, listed, *, style="bold", names=NAMES):
    sections = [[block for name in names[k : k + 2] for block in ((style, name), ("text", SAID))]
                for k in range(0, len(names), 2)]  # fmt: skip
    first = [("title", "Keeping Wells"), ("text", SAID), *(("item", f"\u2022 {n}") for n in listed)]
    make_pdf(tmp_path / "a.pdf", [first, *sections])
    return read_document(tmp_path / "a.pdf")


def found(document):
    rows = listed_ahead(document.paragraphs).rows
    return [document.paragraphs[row].text for row in sorted(rows)]


def test_bold_lines_that_a_list_names_are_headings_whatever_they_look_like(tmp_path):
    document = document_of(tmp_path, NAMES)
    assert found(document) == list(NAMES)
    assert [section.title for section in document.outline.sections][1:] == list(NAMES)


@pytest.mark.parametrize(
    ("listed", "style"),
    [
        (NAMES[:4], "bold"),  # too few
        (NAMES, "text"),  # as heavy in the list
    ],
)
def test_other_lists_name_none(tmp_path, listed, style):
    assert found(document_of(tmp_path, listed, style=style)) == []


def test_a_list_of_many_other_things_names_none_between_them(tmp_path):
    listed = [each for k, name in enumerate(NAMES) for each in (name, f"rope {k}", f"oar {k}")]
    assert found(document_of(tmp_path, listed)) == []


@pytest.mark.parametrize(
    ("stands", "found"),
    [
        ([True, False, False, False, False], [0, 1, 2]),  # most that contents name look like none
        ([True, True, False, False, False], []),
    ],
)
def test_what_contents_name_once_by_its_number_is_a_heading(stands, found):
    titles = ["1. Wells", "2. Ropes", "3. Lids", "4. Keys", "4. Keys"]
    plain = Style(11.0, False, False, False)
    candidates = [Candidate(t, plain, k, k, 80.0, k, 80.0) for k, t in enumerate(titles)]
    signs = np.zeros((5, len(SIGNS)), np.float32)
    signs[:, SIGNS.index("in contents")] = 1
    assert np.flatnonzero(_listed_once(candidates, signs, np.array(stands))).tolist() == found
