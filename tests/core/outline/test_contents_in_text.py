"""Contents lists that share their page with text, and their rows that are no headings."""

from wide_margin.core.layout.model import Line
from wide_margin.core.outline import find_contents

TEXT = "The keeper reads the staff every morning and writes it down at once."


def line(text, x, y, right):
    return Line(0, text, ((0, len(text)),), (x, y, right, y + 10), 10.0, False, False, False, 0, 0)


def entries(lines):
    return [(e.title, e.printed) for e in find_contents([lines], frozenset()).entries]


def test_a_list_is_over_where_the_text_begins():
    rows = [line(f"{k} {name}\t{k + 1}", 72, 80 + 14 * k, 400)
            for k, name in enumerate(("Wells", "Ropes", "Lids", "Buckets"), 1)]  # fmt: skip
    text = [line(TEXT, 72, 200 + 14 * k, 400) for k in range(20)]
    found = entries([line("Contents", 72, 60, 130), *rows, *text])
    assert found == [("1 Wells", "2"), ("2 Ropes", "3"), ("3 Lids", "4"), ("4 Buckets", "5")]


def test_each_column_has_an_edge_of_its_own():
    left = [line(f"{k} Well {k}", 72, 80 + 14 * k, 250) for k in range(1, 5)]
    right = [line(f"{k} Rope {k}", 320, 24 + 14 * k, 520) for k in range(5, 9)]
    found = entries([line("Contents", 72, 60, 130), *left, *right])
    assert [printed for _, printed in found] == ["1", "2", "3", "4", "5", "6", "7", "8"]


def test_a_line_without_width_is_no_reason_to_fail():
    rows = [line(f"{k} Well\t{k}", 72, 80 + 14 * k, 400) for k in range(1, 5)]
    flat = line("l", 90, 200, 90)
    assert len(entries([line("Contents", 72, 60, 130), *rows, flat])) == 4
