"""Fonts without a name are told apart by how wide their letters are."""

import string

import pytest

from tests.making import read_document
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.text import read_text

NARROW, WIDE = "fijlrt", "mwMW"
TEXT = {c: 280 if c in NARROW else 830 if c in WIDE else 540 for c in string.ascii_letters}
CUTS = {
    "text": TEXT,
    "bold": {c: round(1.15 * w) for c, w in TEXT.items()},
    "slanted": {c: round(1.02 * w) for c, w in TEXT.items()},
    "small capitals": {c: 540 + 12 * k for k, c in enumerate(TEXT)},
    "typewriter": {c: 600 if c == "w" else 525 for c in TEXT},  # a letter reaches over its box
}


def type_3_pdf(path, lines):
    """A page whose letters are drawn by fonts that have no name.

    Args:
        path: Written.
        lines: Cut, size and text of each line.
    """
    letters = {c: c for c in string.ascii_letters} | {" ": "space"}
    names = " ".join(f"{ord(c)} /{name}" for c, name in letters.items())
    objects = ["<< /Type /Catalog /Pages 2 0 R >>", "<< /Type /Pages /Kids [3 0 R] /Count 1 >>"]
    fonts, bodies = [], []
    for k, widths in enumerate(CUTS.values()):
        first = 5 + len(bodies)
        told = " ".join(str(widths.get(chr(c), 330)) for c in range(32, 123))
        procs = " ".join(
            f"/{name} {first + n} 0 R" for n, name in enumerate(letters.values(), start=1)
        )
        fonts.append(f"/F{k} {first} 0 R")
        bodies.append(
            f"<< /Type /Font /Subtype /Type3 /FontBBox [0 0 1000 1000]"
            f" /FontMatrix [.001 0 0 .001 0 0] /FirstChar 32 /LastChar 122 /Widths [{told}]"
            f" /CharProcs << {procs} >>"
            f" /Encoding << /Type /Encoding /Differences [{names}] >> >>"
        )
        bodies += [_stream(_drawn(widths[c]) if c in widths else "330 0 d0") for c in letters]
    marks = "".join(
        f"BT /F{list(CUTS).index(cut)} {size} Tf 72 {740 - 24 * k} Td ({text}) Tj ET\n"
        for k, (cut, size, text) in enumerate(lines)
    )
    objects += [
        f"<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R"
        f" /Resources << /Font << {' '.join(fonts)} >> >> >>",
        _stream(marks), *bodies,
    ]  # fmt: skip
    out, places = b"%PDF-1.4\n", []
    for n, body in enumerate(objects, start=1):
        places.append(len(out))
        out += f"{n} 0 obj\n{body}\nendobj\n".encode("latin-1")
    table = "".join(f"{place:010} 00000 n \n" for place in places)
    end = f"xref\n0 {len(places) + 1}\n0000000000 65535 f \n{table}"
    end += f"trailer << /Size {len(places) + 1} /Root 1 0 R >>\nstartxref\n{len(out)}\n%%EOF\n"
    path.write_bytes(out + end.encode("latin-1"))


def _drawn(width):
    return f"{width} 0 0 0 200 700 d1 50 0 150 700 re f"


def _stream(text):
    return f"<< /Length {len(text)} >>\nstream\n{text}\nendstream"


def fonts_of(path):
    """What is said of the font of each line, by its first word."""
    pdf = PdfFile(path, None)
    try:
        page = read_text(pdf, 0, only_edges=True)
    finally:
        pdf.close()
    ends = [*page.run_starts.tolist()[1:], len(page.chars)]
    runs = zip(page.run_starts.tolist(), ends, page.run_fonts.tolist(), strict=True)
    return {
        page.chars[a:b].split()[0]: page.fonts[n] for a, b, n in runs if page.chars[a:b].split()
    }


SAID = "the keeper of each well winds its rope on a drum made of oak"
BODY = [("text", 10, f"text{c} {SAID}".replace("text", "t")) for c in "abcdefgh"]


@pytest.mark.parametrize(
    ("cut", "size", "is_bold", "is_fixed"),
    [
        ("bold", 10, True, False),
        ("bold", 14, True, False),
        ("bold", 7, False, False),  # letters are cut wider for their small size
        ("slanted", 10, False, False),
        ("small capitals", 10, False, False),
        ("typewriter", 10, False, True),
    ],
)
def test_a_cut_is_told_by_its_letters(tmp_path, cut, size, is_bold, is_fixed):
    type_3_pdf(tmp_path / "a.pdf", [(cut, size, f"Ropes {SAID}"), *BODY])
    told = fonts_of(tmp_path / "a.pdf")
    assert (told["Ropes"].is_bold, told["Ropes"].is_fixed) == (is_bold, is_fixed)
    assert (told["ta"].is_bold, told["ta"].is_fixed) == (False, False)
    assert told["Ropes"].name == told["ta"].name == ""


def test_few_letters_tell_nothing(tmp_path):
    type_3_pdf(tmp_path / "a.pdf", [("bold", 10, "eve ee"), ("typewriter", 10, "oo o"), *BODY])
    told = fonts_of(tmp_path / "a.pdf")
    assert not (told["eve"].is_bold)
    assert not (told["oo"].is_fixed)


def test_a_single_font_is_compared_with_none(tmp_path):
    type_3_pdf(tmp_path / "a.pdf", [("bold", 10, f"Ropes {SAID}")])
    assert not fonts_of(tmp_path / "a.pdf")["Ropes"].is_bold


def test_bold_lines_of_fonts_without_names_stand_apart(tmp_path):
    titles = ["Drums of Oak", "Lids of Zinc", "Ropes of Hemp", "Wells in Winter"]
    lines = []
    for title in titles:
        lines += [("bold", 10, title), *BODY[:3], ("typewriter", 10, f"wind drum rope {title}")]
    type_3_pdf(tmp_path / "a.pdf", lines)
    paragraphs = read_document(tmp_path / "a.pdf").paragraphs
    assert [p.text for p in paragraphs if p.pieces[0].line.is_bold] == titles
    assert all(p.pieces[-1].line.is_fixed for p in paragraphs if p.text not in titles)
