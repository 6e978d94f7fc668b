"""Pages that are read from right to left, and words of the other direction in a line."""

import numpy as np
import pytest

from wide_margin.core.layout import TextLayer, lines_of, paragraphs_of
from wide_margin.core.layout.leftwards import in_reading_order
from wide_margin.core.pages import Font, PageText

WIDTH, SIZE, STEP = 600.0, 10.0, 5.0
WELL = "הבאר היא בור באדמה המחזיק מים"
ROPE = "החבל מוחלף מדי שמונה עשר חודשים"
LATIN = "תוכנת GNU Octave manual היא"


def page(*lines, edge=520.0):
    """A page as PDFium gives it: characters in logical order, boxes where they are drawn.

    Args:
        lines: (text, y) or (text, y, right edge); words of Latin letters are drawn to the right.
        edge: Where lines begin, at the right.
    """
    chars, boxes = [], []
    for text, y, *at in lines:
        x = at[0] if at else edge
        for run in runs(text):
            is_latin = run.isascii() and any(c.isalpha() for c in run)
            for k, _ in enumerate(run):
                place = len(run) - 1 - k if is_latin else k
                right = x - STEP * place
                boxes.append((right - STEP, y, right, y + SIZE))
            x -= STEP * len(run)
            chars.append(run)
        chars.append("\r\n")
        boxes += [(np.nan,) * 4] * 2
    text = "".join(chars)
    font = Font("Made", is_bold=False, is_italic=False, is_fixed=False, is_caps=False, family="M")
    return PageText(
        0, WIDTH, 800.0, text, np.array(boxes, np.float32), np.array([0], np.int32),
        np.array([0], np.int32), np.array([SIZE], np.float32), (font,),
    )  # fmt: skip


def runs(text):
    """A line cut to stretches of one direction, blanks between two Latin words kept with them."""
    made = []
    for word in text.split(" "):
        is_latin = word.isascii() and any(c.isalpha() for c in word)
        if made and is_latin and made[-1].isascii() and made[-1].replace(" ", "").isalpha():
            made[-1] += f" {word}"
        elif made and is_latin:
            made += [" ", word]
        else:
            made.append(f" {word}" if made else word)
    return made


def test_words_of_a_line_come_out_in_the_order_they_are_read_in():
    lines = lines_of(page((WELL, 100.0), (ROPE, 115.0)))
    assert [line.text for line in lines] == [WELL, ROPE]


def test_words_to_the_right_keep_their_own_order():
    lines = lines_of(page((LATIN, 100.0), (WELL, 115.0)))
    assert [line.text for line in lines] == [LATIN, WELL]


def test_a_word_to_the_left_in_a_page_to_the_right_keeps_its_place():
    text = "The word " + "\u05d1\u05d0\u05e8" + " means a well and nothing else at all"
    boxes, x = [], 80.0
    for _ in text:
        boxes.append((x, 100.0, x + STEP, 100.0 + SIZE))
        x += STEP
    hebrew = slice(9, 12)
    boxes[hebrew] = reversed(boxes[hebrew])
    made = page((WELL, 100.0))
    latin = PageText(
        0, WIDTH, 800.0, text, np.array(boxes, np.float32), made.run_starts.copy(),
        made.run_fonts.copy(), made.run_sizes.copy(), made.fonts,
    )  # fmt: skip
    (line,) = lines_of(latin)
    assert line.text == text
    assert line.mirror == 0.0


def test_boxes_are_told_as_they_lie_on_the_page():
    (line,) = lines_of(page((WELL, 100.0)))
    x0, _, x1, _ = line.shown
    assert x1 == pytest.approx(520.0)
    assert x0 == pytest.approx(520.0 - STEP * len(WELL))
    assert line.box[0] == pytest.approx(WIDTH - 520.0)


def test_columns_are_read_from_the_right():
    right = [(ROPE, 100.0 + 14 * k, 560.0) for k in range(8)]
    left = [(WELL, 100.0 + 14 * k, 260.0) for k in range(8)]
    lines = lines_of(page(*right, *left))
    assert [line.text for line in lines] == [ROPE] * 8 + [WELL] * 8


def test_lines_are_joined_to_paragraphs_and_an_indent_begins_another():
    from collections import Counter

    made = page((WELL, 100.0, 500.0), (ROPE, 114.0), (WELL, 128.0), (ROPE, 142.0, 500.0),
                (WELL, 156.0))  # fmt: skip
    texts = [p.text for p in paragraphs_of([lines_of(made)], SIZE, Counter())]
    assert texts == [f"{WELL} {ROPE} {WELL}", f"{ROPE} {WELL}"]


def test_a_selection_begins_at_the_right():
    made = page((WELL, 100.0), (ROPE, 115.0))
    layer = TextLayer(made, tuple(lines_of(made)))
    n_word = len(WELL.split()[0])
    start = layer.position_at(521.0, 105.0)
    end = layer.position_at(520.0 - STEP * n_word, 105.0)
    assert (start, end) == (0, n_word)
    assert layer.text(start, end) == WELL.split()[0]
    assert layer.x_of(0) == pytest.approx(520.0)
    assert layer.is_on_text(500.0, 105.0)
    assert not layer.is_on_text(90.0, 105.0)


@pytest.mark.parametrize(
    ("directions", "base", "order"),
    [
        ([-1, 1, 1, 1, -1], -1, [0, 3, 2, 1, 4]),
        ([-1, 1, 0, 1, -1], -1, [0, 3, 2, 1, 4]),
        ([-1, 1, 0, -1], -1, [0, 1, 2, 3]),
        ([1, -1, -1, 1], 1, [0, 2, 1, 3]),
        ([0, 1, 1], -1, [0, 2, 1]),
        ([1, 1, 0], -1, [1, 0, 2]),
        ([0, 0], -1, [0, 1]),
    ],
)
def test_runs_of_the_other_direction_are_turned_round(directions, base, order):
    assert in_reading_order(list(range(len(directions))), directions, base) == order
