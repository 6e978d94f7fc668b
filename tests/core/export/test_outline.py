import csv
import io
import json
from xml.etree import ElementTree

import pytest

from wide_margin.core.errors import WideMarginError
from wide_margin.core.export import FORMATS, export_outline, write_bookmarks
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
