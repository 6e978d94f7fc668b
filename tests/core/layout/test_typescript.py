"""Typescripts: text in letters of one width is text, and what is set off in it are titles."""

import textwrap
from pathlib import Path

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document

FERRY = (
    "A ferry is a boat that carries people over the water. It leaves every hour from the north"
    " bank and comes back before dark. Nobody may bring salt on board without leave."
)
ROPES = (
    "Every rope is made of hemp and holds forty kilograms. Wet ropes are dried on the loft before"
    " they are coiled, and the keeper notes their age in the book."
)


def typed(path: Path, blocks: list[str], font: str = "Courier") -> Path:
    """A typescript of two pages: paragraphs with an empty row after each, rows as they are."""
    canvas = Canvas(str(path), pagesize=A4, invariant=1)
    for part in (blocks[: len(blocks) // 2], blocks[len(blocks) // 2 :]):
        canvas.setFont(font, 10)
        y = 780
        for block in part:
            for row in block.split("\n"):
                for line in textwrap.wrap(row, 66, drop_whitespace=False):
                    canvas.drawString(72, y, line)
                    y -= 12
            y -= 12
        canvas.showPage()
    canvas.save()
    return path


@pytest.mark.parametrize(
    ("blocks", "titles"),
    [
        (["1. The ferry", FERRY, "2. Ropes", ROPES], ["1. The ferry", "2. Ropes"]),
        (
            ["Of the well\n-----------", FERRY, "Of ropes\n--------", ROPES],
            ["Of the well", "Of ropes"],
        ),
        (["OF THE WELL", FERRY, ROPES, "OF ROPES", ROPES, FERRY], ["OF THE WELL", "OF ROPES"]),
    ],
)
def test_a_typescript_has_text_and_titles(tmp_path, blocks, titles):
    blocks = ["The book of the well", *[FERRY, ROPES] * 4, *blocks]
    document = read_document(typed(tmp_path / "typed.pdf", blocks))
    assert [section.title for section in document.outline.sections] == titles
    kinds = {sentence.kind for sentence in document.text.sentences if sentence.text in FERRY}
    assert kinds == {"body"}


def test_code_in_a_typescript_stays_code(tmp_path):
    code = 'for (rope = 0; rope < 12; rope++) {\n    wind[rope] = "hemp";\n}'
    document = read_document(typed(tmp_path / "typed.pdf", [FERRY, code, ROPES, FERRY]))
    kinds = {sentence.kind for sentence in document.text.sentences if "wind[" in sentence.text}
    assert kinds == {"code"}


@pytest.mark.parametrize("row", ["If you specify", "See the book of ropes,", "Note"])
def test_what_only_stands_alone_is_no_title(tmp_path, row):
    blocks = ["1. The ferry", FERRY, row, ROPES, "2. Ropes", row, FERRY, row, ROPES]
    document = read_document(typed(tmp_path / "typed.pdf", blocks))
    assert row not in [section.title for section in document.outline.sections]


def test_examples_of_a_manual_stay_code(tmp_path):
    pages = [[("h1", "1 Ropes"), ("text", ROPES), ("code", "wind the rope with hemp")]] * 3
    make_pdf(tmp_path / "manual.pdf", pages)
    document = read_document(tmp_path / "manual.pdf")
    kinds = {s.kind for s in document.text.sentences if s.text.startswith("wind the rope")}
    assert kinds == {"code"}


def test_a_face_called_after_typewriters_may_have_letters_of_many_widths():
    from wide_margin.core.pages.text import _font_named

    assert not _font_named("ABCDEF+AmericanTypewriter", 0).is_fixed
    assert _font_named("ABCDEF+LMTypewriter10-Regular", 0).is_fixed


def test_the_rule_under_a_title_tells_its_level_however_often_it_comes(tmp_path):
    parts = ["Ropes\n-----", ROPES, "Boats\n-----", FERRY]
    blocks = ["The book of the well", *[FERRY, ROPES] * 3]
    for version in ("1.4 (2023-09-01)", "1.2 (2023-06-06)", "1.0 (2022-10-05)"):
        title = f"Ferry {version}"
        blocks += [f"{title}\n{'=' * len(title)}", *parts]
    outline = read_document(typed(tmp_path / "typed.pdf", blocks)).outline
    assert [(s.title, s.level) for s in outline.sections] == [
        row
        for version in ("1.4 (2023-09-01)", "1.2 (2023-06-06)", "1.0 (2022-10-05)")
        for row in ((f"Ferry {version}", 0), ("Ropes", 1), ("Boats", 1))
    ]


def test_a_typescript_may_have_a_page_without_text(tmp_path):
    canvas = Canvas(str(tmp_path / "blank.pdf"), pagesize=A4, invariant=1)
    for page in (FERRY, "", ROPES):
        canvas.setFont("Courier", 10)
        for k, line in enumerate(textwrap.wrap(page, 66)):
            canvas.drawString(72, 780 - 12 * k, line)
        canvas.showPage()
    canvas.save()
    document = read_document(tmp_path / "blank.pdf")
    assert [paragraph.page for paragraph in document.paragraphs] == [0, 2]
