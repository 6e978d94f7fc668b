"""Figures and tables explained: columns, units, ranges, and where they are spoken of."""

import pytest

from wide_margin.core.document import figure_numbered, find_figures
from wide_margin.core.errors import WideMarginError
from wide_margin.core.explain import explain_figure, figure_at


def test_the_columns_of_a_table_have_units_and_ranges(handbook):
    told = explain_figure(handbook, figure_numbered(handbook, "Table", "2"))
    found = {c.name: (c.unit, c.least, c.greatest) for c in told.columns}
    assert found["Highest level"] == ("m", "3.20", "4.12")
    assert found["Surge"] == ("m", "1.07", "1.94")
    assert found["Wind"] == ("", "", "")
    assert told.n_rows == 7
    assert told.locator.label == "33"


def test_the_sentences_that_speak_of_a_figure_name_it(handbook):
    n_spoken_of = 0
    for figure in find_figures(handbook):
        if not figure.text:
            continue
        told = explain_figure(handbook, figure)
        number = figure.name.split()[-1]
        n_spoken_of += bool(told.spoken_of)
        for found in told.spoken_of:
            assert number in found.text
            assert found.text != figure.caption
    assert n_spoken_of >= 3


def test_a_figure_is_no_table(handbook):
    told = explain_figure(handbook, figure_numbered(handbook, "figure", "3"))
    assert told.columns == ()
    assert told.caption.startswith("Figure 3.")


def test_a_figure_is_found_by_a_region_that_shares_most_of_it(handbook):
    table = figure_numbered(handbook, "Table", "2")
    x0, y0, x1, y1 = table.box
    assert figure_at(handbook, table.page, (x0 + 20, y0 + 5, x1 - 30, y1 - 20)) == table
    assert figure_at(handbook, table.page, (x0, y1 + 40, x1, y1 + 90)) is None
    assert figure_at(handbook, table.page + 1, table.box) != table


def test_one_that_is_not_there_is_told_with_what_to_do(reading):
    with pytest.raises(WideMarginError, match="Table 99") as caught:
        reading.explain_figure(lambda *_: None, "Table 99")
    assert "Table 2" in caught.value.hint
    told = reading.explain_figure(lambda *_: None, "table 2")
    assert told.caption.startswith("Table 2.")
