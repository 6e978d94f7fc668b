"""What the map shows, without a window: bars to scale, opened and closed, counted."""

from hypothesis import given
from hypothesis import strategies as st

from wide_margin.core.digest.structure import Occurrence
from wide_margin.core.layout import PageLabels
from wide_margin.core.outline import Outline, Section
from wide_margin.desktop.map_view.model import MOST_LEVELS, MapModel, TermColumn


def outline_of(levels):
    """One section on each page, with these levels; each ends where the next of its level starts."""
    sections = []
    for k, level in enumerate(levels):
        end = next((m for m in range(k + 1, len(levels)) if levels[m] <= level), len(levels))
        sections.append(Section(f"S{k}", level, k, 0.0, k, end, end - 1, 99.0 if end else 0.0))
    return Outline(tuple(sections))


def model_of(levels, shown=2):
    model = MapModel()
    labels = PageLabels(tuple(str(k + 1) for k in range(len(levels))))
    model.show_document(outline_of(levels), labels, len(levels), [100.0] * len(levels))
    model.ask_for_levels(shown)
    return model


def titles(model):
    return [model.outline.sections[bar.section].title for bar in model.bars()]


NESTED = (0, 1, 2, 1, 0, 1)


def test_bars_are_as_long_as_their_sections():
    model = model_of(NESTED, shown=3)
    lengths = {model.outline.sections[b.section].title: b.end - b.start for b in model.bars()}
    assert round(lengths["S0"], 1) == 4.0
    assert round(lengths["S1"], 1) == 2.0
    assert round(lengths["S2"], 1) == 1.0
    assert round(lengths["S4"], 1) == 2.0


def test_levels_are_shown_down_to_the_one_asked_for():
    model = model_of(NESTED, shown=1)
    assert titles(model) == ["S0", "S4"]
    model.ask_for_levels(2)
    assert titles(model) == ["S0", "S1", "S3", "S4", "S5"]
    model.ask_for_levels(9)
    assert titles(model) == [f"S{k}" for k in range(6)]


def test_a_section_is_opened_and_closed_in_place():
    model = model_of(NESTED, shown=1)
    model.toggle(0)
    assert titles(model) == ["S0", "S1", "S3", "S4"]
    model.toggle(1)
    assert titles(model) == ["S0", "S1", "S2", "S3", "S4"]
    model.toggle(0)
    assert titles(model) == ["S0", "S4"]
    model.toggle(0)
    assert "S2" in titles(model)
    model.toggle(2)  # nothing within it
    assert "S2" in titles(model)


def test_the_innermost_section_at_a_place_is_found_and_the_one_of_a_column():
    model = model_of(NESTED, shown=3)
    assert model.bar_at(2.5, 99).section == 2
    assert model.bar_at(2.5, 0).section == 0
    assert model.bar_at(2.5, 1).section == 1
    assert model.bar_at(77.0, 0) is None


def test_terms_are_counted_in_every_section_around_them_that_is_shown():
    model = model_of(NESTED, shown=2)
    term = TermColumn("x", (Occurrence(2.5, 2), Occurrence(3.1, 3), Occurrence(0.1, -1)))
    assert model.counts_by_bar(term) == {0: 2, 1: 1, 3: 1}


@given(st.lists(st.integers(0, 6), min_size=1, max_size=30), st.integers(1, 7), st.data())
def test_whatever_is_opened_the_bars_stay_in_order_and_within_each_other(steps, shown, data):
    levels = []
    for step in steps:
        levels.append(min(step, (levels[-1] + 1) if levels else 0))
    model = model_of(levels, shown)
    for row in data.draw(st.lists(st.integers(0, len(levels) - 1), max_size=12)):
        model.toggle(row)
    bars = model.bars()
    assert [b.section for b in bars] == sorted(b.section for b in bars)
    assert all(b.column < MOST_LEVELS or b.column == model.depth(b.section) for b in bars)
    by_section = {b.section: b for b in bars}
    for bar in bars:
        parent = model.parent(bar.section)
        if parent >= 0:
            around = by_section[parent]
            assert around.start <= bar.start
            assert bar.end <= around.end + 1e-9
    row = model.step(-1, 0)
    for _ in range(len(bars) + 2):
        row = model.step(row, 1)
    assert row == bars[-1].section
    assert len(model.shown_outline().sections) == len(bars)
