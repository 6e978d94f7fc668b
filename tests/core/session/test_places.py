import pytest

from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline, Section
from wide_margin.core.session import read_place


def section(title, page, level=0):
    return Section(title, level, page, 100.0, 0, 1, page + 1, 0.0, ("heading",))


LABELS = PageLabels(("i", "ii", "1", "2", "3", "4"))
OUTLINE = Outline(
    (
        section("Part II Levelling", 2),
        section("9.3 Closing error", 3, 1),
        section("Annex B Words", 5),
    )
)


@pytest.mark.parametrize(
    ("typed", "page", "name"),
    [
        ("3", 4, "p. 3"),
        ("p. ii", 1, "p. ii"),
        ("file 6", 5, "p. 4"),
        ("9.3", 3, "9.3 Closing error"),
        ("section 9.3", 3, "9.3 Closing error"),
        ("part II", 2, "Part II Levelling"),
        ("annex b", 5, "Annex B Words"),
        ("closing error", 3, "9.3 Closing error"),
        ("  Closing   Error ", 3, "9.3 Closing error"),
    ],
)
def test_a_whole_text_that_names_a_place_leads_there(typed, page, name):
    place = read_place(typed, LABELS, OUTLINE)
    assert (place.page, place.name) == (page, name)


@pytest.mark.parametrize(
    "typed", ["", "What is on page 3?", "closing error limit", "section 12", "77", "who"]
)
def test_anything_else_is_a_question(typed):
    assert read_place(typed, LABELS, OUTLINE) is None
