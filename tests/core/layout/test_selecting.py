import random
from dataclasses import replace

import numpy as np
import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import page_texts, wrapped
from wide_margin.core.layout import TextLayer, boxes_of, lines_of

WORDS = ["tide", "staff", "gauge", "keeper", "level", "wire", "float", "clock", "mark", "surge"]


def generated_page(canvas, rng, number):
    """A page of one or two columns of words that each stand once; the words in order."""
    n_columns = 1 + number % 2
    size = rng.choice([9, 10, 11, 12])
    words = [f"{rng.choice(WORDS)}{number}x{k}" for k in range(rng.randint(120, 240))]
    width = 450 if n_columns == 1 else 212
    lines = wrapped(" ".join(words), "Times-Roman", size, width)
    per_column = -(-len(lines) // n_columns)
    canvas.setFont("Times-Roman", size)
    for column in range(n_columns):
        y = 780.0
        for line in lines[column * per_column : (column + 1) * per_column]:
            canvas.drawString(60 + column * 250, y, line)
            y -= 1.25 * size
    canvas.showPage()
    return words


@pytest.fixture(scope="module")
def generated(tmp_path_factory):
    """Thirty pages with the words of each."""
    rng = random.Random(7)
    path = tmp_path_factory.mktemp("generated") / "pages.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    words = [generated_page(canvas, rng, number) for number in range(30)]
    canvas.save()
    layers = [TextLayer(page, tuple(lines_of(page))) for page in page_texts(path)]
    return list(zip(layers, words, strict=True))


def test_two_hundred_random_drags_copy_what_lies_between(generated):
    rng = random.Random(11)
    for _ in range(200):
        layer, words = rng.choice(generated)
        first, last = sorted(rng.sample(range(len(words)), 2))
        start = layer.page.chars.index(words[first])
        end = layer.page.chars.index(words[last]) + len(words[last]) - 1
        a, b = layer.page.boxes[start], layer.page.boxes[end]
        down = layer.position_at(float(a[0]) + 0.3, float(a[1] + a[3]) / 2)
        up = layer.position_at(float(b[2]) - 0.1, float(b[1] + b[3]) / 2)
        if rng.random() < 0.5:  # backwards is the same
            down, up = up, down
        assert " ".join(layer.text(down, up).split()) == " ".join(words[first : last + 1])


def test_every_position_leads_back_to_its_character(generated):
    layer, _ = generated[1]
    for position in range(0, layer.n, 37):
        (span,) = layer.spans(position, position + 1)
        assert span.start == layer.order[position]


def test_boxes_of_a_selection_cover_its_lines(generated):
    layer, _ = generated[0]
    boxes = boxes_of(layer.page, layer.spans(0, layer.n))
    assert len(boxes) == len(layer.lines)
    for box, line in zip(boxes, layer.lines, strict=True):
        assert box == pytest.approx(line.box, abs=2.5)


def test_a_letter_that_hangs_low_does_not_reach_the_middle_of_the_next_line(generated):
    layer, _ = generated[0]
    first, second = layer.lines[0], layer.lines[1]
    boxes = layer.page.boxes.copy()
    hanging = int(layer.order[0])
    boxes[hanging, 3] = second.box[3]
    page = replace(layer.page, boxes=boxes)
    [box] = boxes_of(page, layer.spans(0, int(layer.starts[1])))
    letters = boxes[layer.order[layer.starts[1] : layer.starts[2]]]
    middles = (letters[:, 1] + letters[:, 3]) / 2
    assert not (middles <= box[3]).any()
    assert box[3] > (first.box[1] + first.box[3]) / 2


def test_words_and_lines_are_found_at_positions(generated):
    layer, words = generated[0]
    starts = layer.word_starts()
    assert len(starts) == len(words)
    at = starts[5]
    assert layer.text(*layer.word_at(at + 1)) == words[5]
    assert layer.line_at(0) == 0
    assert layer.x_of(0) == pytest.approx(layer.lines[0].box[0], abs=1)


def test_a_region_holds_the_words_inside_of_it(generated):
    layer, _ = generated[0]
    third = layer.lines[2].box
    words = layer.words_in((third[0], third[1] + 1, third[2], third[3] - 1))
    assert words == " ".join(layer.lines[2].text.split())
    spans = layer.spans_in((third[0], third[1] + 1, third[2], third[3] - 1))
    assert sum(span.end - span.start for span in spans) >= len(words) - words.count(" ")


def test_a_page_without_text_selects_nothing(blank_pdf):
    layer = TextLayer(page_texts(blank_pdf)[0], ())
    assert layer.position_at(100, 100) == 0
    assert layer.spans(0, 10) == ()
    assert layer.text(0, 10) == ""
    assert layer.word_at(3) == (0, 0)
    assert np.asarray(layer.order).size == 0
