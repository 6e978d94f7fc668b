import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.layout.test_paragraphs import line
from wide_margin.core.layout import PageLabels, label_pages
from wide_margin.core.layout.page_labels import page_number, printed_numbers, roman

HEIGHTS = [800.0] * 12


def pages_printed(numbers):
    return [
        [line("Some text in the middle", 400.0), *([line(n, 760.0)] if n else [])] for n in numbers
    ]


def test_roman_then_arabic_numbers_are_read_off_the_pages():
    printed = ["i", "ii", "iii", "iv", "1", "2", "3", "4", "5", "6", "7", "8"]
    assert printed_numbers(pages_printed(printed), HEIGHTS) == printed


def test_a_page_without_a_number_is_counted_along():
    printed = ["1", "2", "3", None, "5", "6", "7", "8", "9", "10", "11", "12"]
    assert printed_numbers(pages_printed(printed), HEIGHTS)[3] == "4"


def test_a_year_at_a_page_edge_is_not_a_page_number():
    assert printed_numbers(pages_printed([None, "1953", None, None]), HEIGHTS[:4]) == [None] * 4


def test_labels_of_the_file_are_used_unless_the_pages_contradict_them():
    printed = [str(k) for k in range(1, 13)]
    pages = pages_printed(printed)
    wrong = [str(k) for k in range(100, 112)]
    assert label_pages(wrong, pages, HEIGHTS).labels == tuple(printed)
    half_known = ["cover", *printed[1:]]
    assert label_pages(half_known, pages, HEIGHTS).labels[0] == "cover"
    assert label_pages([None] * 12, pages, HEIGHTS).labels == tuple(printed)


LABELS = PageLabels(("1", "2", "i", "ii", "iii", "1", "2", "3", "4", "I", None))


@pytest.mark.parametrize(
    ("typed", "pages"),
    [
        ("2", [6, 1]),  # the longer sequence first, the others offered
        ("4", [8]),
        ("file 2", [1]),
        ("file page 11", [10]),
        ("p. 3", [7]),
        ("page iii", [4]),
        ("i", [2]),
        ("I", [9]),  # labels keep their case
        ("11", [10]),  # nobody's label: a page of the file
        ("12", []),
        ("file 0", []),
        ("nonsense", []),
    ],
)
def test_a_typed_page_is_a_label_first(typed, pages):
    assert LABELS.find(typed) == pages


def test_a_page_without_a_label_is_called_by_its_file_page():
    assert LABELS.shown(10) == "file page 11"
    assert LABELS.shown(8) == "p. 4"


@given(st.integers(1, 3999))
def test_roman_numerals_read_back(value):
    assert page_number(roman(value)) == ("roman", value) or len(roman(value)) > 8
