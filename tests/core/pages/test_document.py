import hashlib

import numpy as np
import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from wide_margin.core.errors import PasswordNeededError, UnreadableFileError
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.files import sha256_of
from wide_margin.core.pages.render import draw
from wide_margin.core.pages.rules import rules_of
from wide_margin.core.pages.text import read_text


def open_message(path, password=None):
    with pytest.raises(UnreadableFileError) as caught:
        PdfFile(path, password)
    return caught.value.message


def test_a_missing_file_says_so(tmp_path):
    assert "There is no file" in open_message(tmp_path / "nothing.pdf")


def test_a_folder_says_so(tmp_path):
    assert "is a folder" in open_message(tmp_path)


def test_an_empty_file_says_so(tmp_path):
    path = tmp_path / "empty.pdf"
    path.touch()
    assert "is empty" in open_message(path)


def test_a_text_file_is_not_a_pdf(tmp_path):
    path = tmp_path / "letter.pdf"
    path.write_text("Dear reader", encoding="utf-8")
    assert "is not a PDF" in open_message(path)


def test_a_header_with_nothing_behind_it_is_damaged(tmp_path, small_pdf):
    path = tmp_path / "cut.pdf"
    path.write_bytes(small_pdf.read_bytes()[:200])
    assert "is damaged" in open_message(path)


@pytest.fixture
def locked_pdf(tmp_path):
    path = tmp_path / "locked.pdf"
    canvas = Canvas(str(path), pagesize=A4, encrypt="sesame")
    canvas.drawString(72, 700, "Open at last")
    canvas.save()
    return path


def test_a_locked_file_asks_for_its_password(locked_pdf):
    with pytest.raises(PasswordNeededError, match="protected by a password"):
        PdfFile(locked_pdf)


def test_a_wrong_password_says_that_it_is_wrong(locked_pdf):
    with pytest.raises(PasswordNeededError, match="does not open the file"):
        PdfFile(locked_pdf, "simsalabim")


def test_the_right_password_opens_the_file(locked_pdf):
    pdf = PdfFile(locked_pdf, "sesame")
    assert read_text(pdf, 0).chars.strip() == "Open at last"
    pdf.close()


def test_facts_tell_sizes_and_title(small_pdf):
    pdf = PdfFile(small_pdf)
    facts = pdf.facts()
    pdf.close()
    assert facts.n_pages == 3
    assert facts.sizes[0] == pytest.approx(A4, abs=0.5)
    assert facts.labels == (None, None, None)
    assert len(facts.identity) == 32


def test_bookmarks_come_in_order_with_their_places(tmp_path):
    path = tmp_path / "marked.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    for key, title, level in (("a", "Part", 0), ("b", "Chapter", 1), ("c", "Next", 0)):
        canvas.bookmarkHorizontal(key, 0, 700)
        canvas.addOutlineEntry(title, key, level=level)
        canvas.drawString(72, 700, title)
        canvas.showPage()
    canvas.save()
    pdf = PdfFile(path)
    found = list(pdf.bookmarks())
    pdf.close()
    assert [(b.title, b.level, b.page) for b in found] == [
        ("Part", 0, 0), ("Chapter", 1, 1), ("Next", 0, 2)
    ]  # fmt: skip
    assert found[0].y == pytest.approx(A4[1] - 700, abs=1)


def test_links_lead_to_pages_and_addresses(tmp_path):
    path = tmp_path / "linked.pdf"
    canvas = Canvas(str(path), pagesize=A4)
    canvas.linkURL("https://example.org/", (72, 700, 172, 720))
    canvas.linkAbsolute("next", "there", (72, 600, 172, 620))
    canvas.showPage()
    canvas.bookmarkPage("there")
    canvas.drawString(72, 700, "There")
    canvas.save()
    pdf = PdfFile(path)
    links = pdf.links(0)
    pdf.close()
    assert {link.address for link in links} == {"https://example.org/", ""}
    assert [link.page for link in links if not link.address] == [1]
    outside = next(link for link in links if link.address)
    assert outside.box == pytest.approx((72, A4[1] - 720, 172, A4[1] - 700), abs=0.1)


def test_a_page_is_drawn_where_its_text_is(small_pdf):
    pdf = PdfFile(small_pdf)
    text, picture = read_text(pdf, 0), draw(pdf, 0, 2.0)
    pdf.close()
    rows = np.frombuffer(picture.data, np.uint8).reshape(picture.height, picture.stride)
    assert (picture.width, picture.height) == (1191, 1684)
    x0, y0, x1, y1 = (2 * text.boxes[text.chars.index("W")]).astype(int)
    assert rows[y0:y1, 4 * x0 : 4 * x1].min() < 60  # ink
    assert rows[100:140, :400].min() > 250  # paper


def test_a_part_of_a_page_is_drawn_alone(small_pdf):
    pdf = PdfFile(small_pdf)
    picture = draw(pdf, 0, 1.0, clip=(72.0, 80.0, 172.0, 130.0))
    pdf.close()
    assert (picture.width, picture.height) == (100, 50)


def test_the_hash_is_that_of_the_bytes(small_pdf):
    assert sha256_of(small_pdf) == hashlib.sha256(small_pdf.read_bytes()).hexdigest()


def test_a_page_is_loaded_once_for_all_that_is_asked_of_it_at_a_time(small_pdf, monkeypatch):
    pdf = PdfFile(small_pdf)
    loaded = []
    load = type(pdf._pdf).get_page
    monkeypatch.setattr(
        type(pdf._pdf), "get_page", lambda self, k: loaded.append(k) or load(self, k)
    )
    text = read_text(pdf, 0)
    rules_of(pdf, 0)
    with pdf.page(0), pdf.page(1):
        pass
    again = read_text(pdf, 0)
    pdf.close()
    assert loaded == [0, 1]
    assert again.chars == text.chars
