import csv
import io
import json
from xml.etree import ElementTree

import pikepdf
import pytest

from tests.making import make_pdf
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export import FORMATS, export_outline, write_bookmarks
from wide_margin.core.outline import Outline, Section
from wide_margin.core.pages.document import PdfFile


def exported(document, form):
    return export_outline(document.outline, document.labels, form, document.facts.title)


@pytest.mark.parametrize("form", FORMATS)
def test_every_format_has_every_section(handbook, form):
    text = exported(handbook, form)
    for section in handbook.outline.sections:
        assert section.title.split(" ", 1)[-1][:20] in text.replace("&amp;", "&")


def test_opml_nests_sections_and_reads_back(handbook):
    root = ElementTree.fromstring(exported(handbook, "opml"))
    assert root.get("version") == "2.0"
    items = root.findall(".//outline")
    assert [item.get("text") for item in items] == [s.title for s in handbook.outline.sections]
    chapter = root.find(".//outline[@text='9 Bench marks']")
    assert [item.get("text") for item in chapter][:2] == ["9.1 Siting", "9.2 Running the line"]
    assert chapter.get("label") == "17"


def test_json_has_ends_and_witnesses(handbook):
    rows = json.loads(exported(handbook, "json"))
    assert set(rows[0]) == {"title", "level", "page", "label", "y", "end", "witnesses",
                            "disagreements"}  # fmt: skip
    assert rows[-1]["end"]["page"] == handbook.facts.n_pages


def test_csv_has_a_row_for_each_section(handbook):
    rows = list(csv.DictReader(io.StringIO(exported(handbook, "csv"))))
    assert [row["title"] for row in rows] == [s.title for s in handbook.outline.sections]
    assert rows[0]["label"] == "xv"


def test_html_opens_and_closes_its_lists_in_pairs(handbook):
    text = exported(handbook, "html")
    assert text.count("<ul>") == text.count("</ul>") > 3
    assert text.count("<li>") == text.count("</li>") == len(handbook.outline.sections)


def test_an_unknown_format_is_our_mistake(handbook):
    with pytest.raises(ValueError, match="format must be"):
        exported(handbook, "rtf")


def test_a_copy_has_the_sections_as_bookmarks(handbook, handbook_path, tmp_path):
    copy = tmp_path / "copy.pdf"
    before = handbook_path.read_bytes()
    n = write_bookmarks(handbook_path, copy, handbook.outline)
    pdf = PdfFile(copy)
    found = list(pdf.bookmarks())
    pdf.close()
    assert n == len(found) == len(handbook.outline.sections)
    for bookmark, section in zip(found, handbook.outline.sections, strict=True):
        assert (bookmark.title, bookmark.page) == (section.title, section.page)
        assert bookmark.y == pytest.approx(section.y, abs=1)
    assert handbook_path.read_bytes() == before


def test_the_original_is_never_replaced(handbook, handbook_path):
    with pytest.raises(WideMarginError, match="cannot replace"):
        write_bookmarks(handbook_path, handbook_path, handbook.outline)


def test_a_copy_that_cannot_be_written_is_told(handbook, handbook_path, tmp_path):
    with pytest.raises(WideMarginError, match="could not be written"):
        write_bookmarks(handbook_path, tmp_path / "no" / "copy.pdf", handbook.outline)


@pytest.mark.parametrize("turns", [0, 90, 180, 270])
def test_bookmarks_lead_to_their_heading_on_turned_and_cropped_pages(tmp_path, turns):
    source, target = tmp_path / "turned.pdf", tmp_path / "copy.pdf"
    make_pdf(source, [[("h1", "1 Wells"), ("text", "A well is a hole. It holds water.")]])
    with pikepdf.open(source, allow_overwriting_input=True) as pdf:
        pdf.pages[0].obj.Rotate = turns
        pdf.pages[0].obj.CropBox = [20, 30, 560, 800]
        pdf.save(source)
    section = Section("1 Wells", 0, 0, 123.0, 0, 1, 0, 500.0)
    write_bookmarks(source, target, Outline((section,)))
    pdf = PdfFile(target)
    (item,) = pdf.bookmarks()
    pdf.close()
    assert item.page == 0
    assert item.y == pytest.approx(123.0, abs=1.0)


def test_the_copy_of_a_protected_file_is_protected_or_refused(tmp_path):
    plain, locked = tmp_path / "plain.pdf", tmp_path / "locked.pdf"
    make_pdf(plain, [[("h1", "1 Wells"), ("text", "A well is a hole. It holds water.")]])
    with pikepdf.open(plain) as pdf:
        pdf.save(locked, encryption=pikepdf.Encryption(user="reader", owner="owner"))
    outline, target = Outline((Section("1 Wells", 0, 0, 9.0, 0, 1, 0, 50.0),)), tmp_path / "c.pdf"
    with pytest.raises(WideMarginError, match="protected by a password"):
        write_bookmarks(locked, target, outline)
    with pytest.raises(WideMarginError, match="would not be"):
        write_bookmarks(locked, target, outline, password="reader")
    assert not target.exists()
    assert write_bookmarks(locked, target, outline, password="owner") == 1
    with pytest.raises(pikepdf.PasswordError):
        pikepdf.open(target)
    with pikepdf.open(target, password="owner") as copy:
        assert copy.is_encrypted


def test_a_copy_that_fails_leaves_the_older_one(tmp_path, monkeypatch):
    source, target = tmp_path / "a.pdf", tmp_path / "copy.pdf"
    make_pdf(source, [[("h1", "1 Wells")]])
    target.write_bytes(b"older")

    def full(self, *arguments, **options):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(pikepdf.Pdf, "save", full)
    with pytest.raises(WideMarginError):
        write_bookmarks(source, target, Outline())
    assert target.read_bytes() == b"older"
    assert {path.name for path in tmp_path.iterdir()} == {"a.pdf", "copy.pdf"}
