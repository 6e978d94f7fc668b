"""Words that are run together, and spaces in the middle of a word."""

import re

import numpy as np
import pikepdf
import pytest
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.layout import lines_of, tidy
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.parted import NOTHING, with_words_joined
from wide_margin.core.pages.text import read_text

SAID = "Many thanks to the two people who, however, gave a new reading over the years."
# A space may be a wider step after each letter of two, and nearer letters a narrower one.
DRAWN = """(Man) Tj 2.94 Tc 20 0 Td (yt) Tj 0 Tc 11.5 0 Td (hanks to the tw) Tj
2.94 Tc 66.9 0 Td (op) Tj 0 Tc 13.9 0 Td (eople who, ho) Tj -0.3 Tc 61.35 0 Td (we) Tj
-0.165 Tc 12.53 0 Td (ve) Tj 0 Tc 10.22 0 Td (r, g) Tj 14.66 0 Td (ave a ne) Tj
2.94 Tc 36.04 0 Td (wr) Tj 0 Tc 14.45 0 Td (eading o) Tj -0.165 Tc 37.5 0 Td (ve) Tj
2.94 Tc 10.22 0 Td (rt) Tj 0 Tc 9.5 0 Td (he years.) Tj"""


@pytest.fixture
def spaced(tmp_path):
    """A file whose spaces are movements, some of them lost by PDFium."""
    path = tmp_path / "spaced.pdf"
    canvas = Canvas(str(path), pagesize=(500, 300))
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(40, 250, "Here")
    canvas.save()
    with pikepdf.open(path, allow_overwriting_input=True) as pdf:
        page = pdf.pages[0]
        font = next(iter(page.Resources.Font.keys()))
        rows = [f"BT {font} 11 Tf 1 0 0 1 40 {200 - 20 * k} Tm" for k in range(3)]
        drawn = "".join(f"{row} {DRAWN} ET\n" for row in rows)
        page.contents_add(pdf.make_stream(drawn.encode("latin-1")))
        pdf.save(path)
    return path


def test_a_space_that_was_drawn_as_a_gap_is_read(spaced):
    pdf = PdfFile(spaced)
    raw = read_text(pdf, 0)
    assert "Manythanks" in raw.chars  # what it is all about: PDFium sees no space here
    texts = [tidy(line.text) for line in lines_of(read_text(pdf, 0, only_edges=True))]
    assert texts.count(SAID) == 3


def test_both_workers_read_the_same_characters(spaced):
    fully, edges = read_text(PdfFile(spaced), 0), read_text(PdfFile(spaced), 0, only_edges=True)
    assert fully.chars == edges.chars
    assert fully.parted == edges.parted


def test_a_place_in_a_line_is_a_place_on_the_page(spaced):
    text = read_text(PdfFile(spaced), 0)
    line = next(line for line in lines_of(text) if "Many thanks" in line.text)
    at = line.text.index("thanks")
    (span,) = line.characters(at, at + len("thanks"))
    assert text.chars[span.start : span.end] == "thanks"


def test_other_files_are_left_alone(tmp_path):
    path = tmp_path / "plain.pdf"
    canvas = Canvas(str(path))
    for k, text in enumerate(re.split(r"(?<=[,.])\s", SAID)):
        canvas.drawString(40, 700 - 20 * k, text)
    canvas.drawString(40, 500, "x")
    canvas.setFont("Times-Roman", 6)
    canvas.drawString(48, 503, "n")  # raised, and further than a letter's width away
    canvas.save()
    pdf = PdfFile(path)
    assert read_text(pdf, 0, only_edges=True).parted == ()
    pdf.tell_parted(5000, 1)
    assert pdf.runs_together is False
    assert np.isnan(read_text(pdf, 0, only_edges=True).boxes).any()  # no longer all of them


SQUEEZED = "There are a dozen tools any seller sold to makers who repair rare clocks in the area"


def squeezed_page(path, said, *, spread=0, between=120):
    """A page whose blanks are drawn as gaps too narrow for PDFium, every other one ``between``."""
    canvas = Canvas(str(path), pagesize=(700, 300))
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(40, 250, "Here")
    canvas.save()
    words = [f" -{spread} ".join(f"({letter})" for letter in word) for word in said.split()]
    with pikepdf.open(path, allow_overwriting_input=True) as pdf:
        page = pdf.pages[0]
        font = max(page.Resources.Font.keys())  # the one that was set last
        apart = [f"{word} -{(120, between)[k % 2]}" for k, word in enumerate(words)]
        rows = [
            f"BT {font} 11 Tf 1 0 0 1 40 {200 - 20 * k} Tm [{' '.join(apart)}] TJ ET"
            for k in range(3)
        ]
        page.contents_add(pdf.make_stream("\n".join(rows).encode("latin-1")))
        pdf.save(path)
    return path


def test_narrow_gaps_of_a_squeezed_page_are_blanks(tmp_path):
    path = squeezed_page(tmp_path / "a.pdf", SQUEEZED)
    assert "Therearea" in read_text(PdfFile(path), 0).chars  # PDFium sees none here
    texts = [tidy(line.text) for line in lines_of(read_text(PdfFile(path), 0, only_edges=True))]
    assert texts.count(SQUEEZED) == 3


@pytest.mark.parametrize("spread", [70, 120])
def test_narrow_gaps_are_none_where_letters_stand_apart(tmp_path, spread):
    path = squeezed_page(tmp_path / "a.pdf", "abcd efgh ijkl mnop qrst", spread=spread)
    assert read_text(PdfFile(path), 0).parted == ()


def test_narrow_gaps_are_none_where_others_are_nearly_as_wide(tmp_path):
    # As in code, where they are of narrow signs between wide letters.
    path = squeezed_page(tmp_path / "a.pdf", SQUEEZED, between=60)
    assert read_text(PdfFile(path), 0).parted == ()


def test_a_page_that_ends_a_worker_is_not_touched_before_its_turn(spaced, monkeypatch):
    pdf, touched = PdfFile(spaced), []
    load = PdfFile.page
    monkeypatch.setattr(PdfFile, "page", lambda self, at: touched.append(at) or load(self, at))
    read_text(pdf, 0, only_edges=True)
    assert touched == [0]


def read_with_letters_apart(path, text, apart):
    canvas = Canvas(str(path))
    canvas.setFont("Times-Roman", 12)
    at = 60.0
    for letter in text:
        if letter == " ":
            at += 2.6 * apart
            continue
        canvas.drawString(at, 700, letter)
        at += canvas.stringWidth(letter, "Times-Roman", 12) + apart
    canvas.drawString(60, 660, SAID)
    canvas.save()
    return [tidy(line.text) for line in lines_of(read_text(PdfFile(path), 0, only_edges=True))]


def test_letters_set_apart_for_show_are_words_with_spaces_between_them(tmp_path):
    found = read_with_letters_apart(tmp_path / "show.pdf", "widows and orphans", 3.2)
    assert found == ["widows and orphans", SAID]


def test_an_alphabet_and_letters_far_apart_are_no_words(tmp_path):
    alphabet = read_with_letters_apart(tmp_path / "alphabet.pdf", "abcdefghijkl", 3.2)
    assert alphabet[0] == "a b c d e f g h i j k l"
    far = read_with_letters_apart(tmp_path / "far.pdf", "feedde", 6.5)
    assert far[0] == "f e e d d e"


@pytest.mark.parametrize(
    ("left", "top", "joined"),
    [(30.2, 0.0, True), (29.9, 0.0, True), (36.0, 0.0, False), (0.0, 14.0, False)],
)  # fmt: skip
def test_a_line_end_between_two_letters_that_touch_is_none(left, top, joined):
    chars = "ropen\r\nt"
    boxes = np.full((len(chars), 4), np.nan, dtype=np.float32)
    boxes[0], boxes[4] = (0, 0, 6, 10), (24, 0, 30, 10)
    boxes[7] = (left, top, left + 4, top + 10)
    found = with_words_joined(chars, boxes, lambda rows: boxes[rows])
    assert len(found) == len(chars)
    assert (found.replace(NOTHING, "") == "ropent") == joined


@pytest.mark.parametrize(("left", "joined"), [(28.5, True), (29.9, False), (32.0, False)])
def test_a_blank_under_overlapping_letters_is_none(left, joined):
    chars = "AV AILS"
    boxes = np.full((len(chars), 4), np.nan, dtype=np.float32)
    boxes[0], boxes[1] = (14, 0, 22, 10), (22, 0, 30, 10)
    boxes[3], boxes[6] = (left, 0, left + 8, 10), (left + 20, 0, left + 26, 10)
    found = with_words_joined(chars, boxes, lambda rows: boxes[rows])
    assert (found.replace(NOTHING, "") == "AVAILS") == joined


@pytest.mark.parametrize(
    ("between", "apart", "read"),
    [
        (1.2, 1.2, "options and more"),  # letters set apart, and the blank as they are
        (1.2, 3.6, "opt ions and more"),
        (0.0, 1.2, "opt ions and more"),  # after a letter that leans over
    ],
)
def test_a_blank_as_narrow_as_the_gaps_between_letters_is_none(between, apart, read):
    chars = "opt ions and more"
    boxes = np.full((len(chars), 4), np.nan, dtype=np.float32)
    left = 0.0
    for k, char in enumerate(chars):
        if char == " ":
            left += (apart if k == 3 else 4.0) - between
        else:
            boxes[k] = (left, 0, left + 5, 12)
            left += 5 + between
    edges = boxes.copy()
    edges[[1, 5, 6, 10, 14, 15]] = np.nan  # only the ends of words are boxed while reading
    found = with_words_joined(chars, edges, lambda rows: boxes[rows])
    assert found.replace(NOTHING, "") == read
