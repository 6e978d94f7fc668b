"""Slides that only name a part of a talk hold those after them; bars beside them are no text."""

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import read_document

WIDE = (360.0, 270.0)
PARTS = ("Wells", "Ropes", "Lids")
TITLES = ("Digging one", "Lining it", "Spinning hemp", "Tying knots", "Oak and elm", "Hinges",
          "Painting it", "Mending it", "Locks")  # fmt: skip
BAR = ("Wells of the island", "Ropes of hemp", "Lids of oak", "Buckets")


def talk(path, *, begun=lambda part: [(150, 130, 14, part)], bar=lambda k: ()):
    """A talk of three parts, three slides in each; a part begins with a slide of its own.

    Args:
        path: Where it is written.
        begun: What the slide has that begins a part: (left, top, size, text) of each line.
        bar: The texts that run along slide k, in small print.
    """
    canvas = Canvas(str(path), pagesize=WIDE)

    def slide(k, lines):
        for left, top, size, text in [
            *lines,
            *((8, 60 + 9 * n, 5, t) for n, t in enumerate(bar(k))),
        ]:
            canvas.setFont("Helvetica", size)
            canvas.drawString(left, WIDE[1] - top, text)
        canvas.showPage()

    slide(0, [(120, 120, 20, "On harbours"), (140, 150, 11, "A talk to keepers")])
    for k, title in enumerate(TITLES):
        if k % 3 == 0:
            slide(k, begun(PARTS[k // 3]))
        said = [(100, 70 + 20 * n, 11, f"The keeper minds {title.lower()} in week {n}.")
                for n in range(4)]  # fmt: skip
        slide(k, [(20, 30, 14, title), *said])
    canvas.save()
    return read_document(path)


def levels_of(document):
    return {section.title: section.level for section in document.outline.sections}


@pytest.mark.parametrize("label", ["", "Section 2"])
def test_slides_hang_under_the_one_that_begins_their_part(tmp_path, label):
    def begun(part):
        return [*([(150, 110, 14, label)] if label else []), (150, 140, 14, part)]

    levels = levels_of(talk(tmp_path / "a.pdf", begun=begun))
    assert {levels[title] for title in TITLES} == {1}
    assert [title for title, level in levels.items() if level == 0 and title.endswith(PARTS)]


@pytest.mark.parametrize(
    "begun",
    [
        lambda part: [(20, 30, 14, part)],  # as high as other titles: over a picture
        lambda part: [(150, 130, 14, part), (100, 160, 11, f"What the keeper has to know of {part}"
                      " and of all that belongs to them, by day and by night, at all times")],
    ],
)  # fmt: skip
def test_other_slides_hold_none(tmp_path, begun):
    levels = levels_of(talk(tmp_path / "a.pdf", begun=begun))
    assert {levels[title] for title in TITLES} == {0}


def test_the_sections_that_run_along_a_talk_are_no_text(tmp_path):
    document = talk(tmp_path / "a.pdf", bar=lambda _: BAR)
    assert not any(name in p.text for p in document.paragraphs for name in BAR)
    assert set(TITLES) <= set(levels_of(document))


def test_small_print_of_some_slides_stays(tmp_path):
    document = talk(tmp_path / "a.pdf", bar=lambda k: BAR if k < 4 else ())
    assert sum(BAR[3] in p.text for p in document.paragraphs) >= 4
