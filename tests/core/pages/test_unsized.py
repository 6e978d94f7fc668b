"""Fonts of dots that do not say how large they are, made as old writers put them in files."""

import pikepdf
import pytest

from tests.making import page_texts, read_document
from wide_margin.core.layout import lines_of
from wide_margin.core.pages.unsized import LEAST, measured

DOT = 0.12
"""Points: six hundred dots an inch."""
TALL, SMALL = set("bdfhkl") | set("ABCDEFGHIJKLMNOPRSTUVWXYZ"), set("acemnorsuvwxz")
BODY = [
    "The keeper of the wells looks at the rope before it is used and",
    "writes down what is worn in the book that hangs beside the door",
    "and signs it with the hour at which the next one takes the place",
    "of the one who has gone home and sleeps until the evening comes",
]


def glyph(letter: str, points: float) -> bytes:
    """A box as high as the letter is, drawn in dots."""
    em = points / DOT
    height = (0.69 if letter in TALL else 0.43 if letter in SMALL else 0.63) * em
    low = -0.2 * em if letter in "gpqy" else 0
    wide = 0.45 * em
    box = f"{0.05 * em:.0f} {low:.0f} {wide:.0f} {height + low:.0f}"
    x, y, right, top = (float(part) for part in box.split())
    return f"{0.5 * em:.0f} 0 {box} d1 {x} {y} {right - x} {top - y} re f".encode()


def dotted_font(pdf: pikepdf.Pdf, points: float) -> pikepdf.Object:
    letters = sorted(set("".join(BODY) + "Wells") - {" "})
    names = [pikepdf.Name("/" + letter) for letter in letters]
    first, last = ord(letters[0]), ord(letters[-1])
    differences = [part for letter, name in zip(letters, names, strict=True)
                   for part in (ord(letter), name)]  # fmt: skip
    return pdf.make_indirect(
        pikepdf.Dictionary(
            Type=pikepdf.Name.Font, Subtype=pikepdf.Name.Type3,
            FontMatrix=[1, 0, 0, 1, 0, 0], FontBBox=[0, -50, 100, 150],
            FirstChar=first, LastChar=last, Widths=[0.5 * points / DOT] * (last - first + 1),
            Encoding=pikepdf.Dictionary(Type=pikepdf.Name.Encoding, Differences=differences),
            CharProcs=pikepdf.Dictionary(
                {f"/{letter}": pdf.make_stream(glyph(letter, points)) for letter in letters}
            ),
        )
    )  # fmt: skip


@pytest.fixture
def dotted_pdf(tmp_path):
    """Two pages: a heading of 17 points over lines of 12, all of them "0.12 points" high."""
    path = tmp_path / "dots.pdf"
    with pikepdf.new() as pdf:
        head, body = dotted_font(pdf, 17), dotted_font(pdf, 12)
        for number in range(2):
            page = pdf.add_blank_page(page_size=(595, 842))
            drawn = [] if number else [f"BT {DOT} 0 0 {DOT} 72 740 Tm /H 1 Tf (Wells) Tj ET"]
            for n, line in enumerate(BODY * 3):
                for k, word in enumerate(line.split()):
                    x = 72 + len(" ".join(line.split()[:k])) * 6 + (6 if k else 0)
                    drawn.append(f"BT {DOT} 0 0 {DOT} {x} {700 - 15 * n} Tm /B 1 Tf ({word}) Tj ET")
            page.Resources = pikepdf.Dictionary(Font=pikepdf.Dictionary(H=head, B=body))
            page.Contents = pdf.make_stream("\n".join(drawn).encode())
        pdf.save(path)
    return path


def test_letters_tell_how_large_they_are(dotted_pdf):
    text = page_texts(dotted_pdf)[0]
    assert text.run_sizes.tolist() == pytest.approx([17, 12], abs=1.0)


def test_their_lines_are_told_apart(dotted_pdf):
    lines = lines_of(page_texts(dotted_pdf)[0])
    assert [line.text for line in lines] == ["Wells", *BODY * 3]
    tops = [line.box[1] for line in lines[1:]]
    assert tops == sorted(tops)


def test_a_document_of_them_is_read(dotted_pdf):
    document = read_document(dotted_pdf)
    assert [section.title for section in document.outline.sections][:1] == ["Wells"]
    assert any("keeper of the wells looks" in p.text for p in document.paragraphs)


def test_a_letter_with_a_false_box_does_not_make_its_font_huge():
    groups = [(1, 0.12)] * 4 + [(2, 0.12)]
    told = measured("keepX", [8.4, 5.5, 5.5, 7.8, 120.0], groups)
    assert told[2, 0.12] == told[1, 0.12] == 12


def test_a_size_that_can_be_true_is_left_alone():
    assert measured("a", [5.5], [(1, LEAST)]) == {}
