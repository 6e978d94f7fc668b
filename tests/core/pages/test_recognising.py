"""Text recognised in pictures: drawn pages, turned ones, and engines that misbehave."""

import shutil
import stat

import numpy as np
import pikepdf
import pypdfium2 as pdfium
import pytest
from PIL import Image

from tests.making import make_pdf
from wide_margin.core.errors import PageFailedError
from wide_margin.core.layout import lines_of
from wide_margin.core.pages import PageText
from wide_margin.core.pages import recognising as room
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.recognising import (
    NoEngineError,
    Recognised,
    RecognisedPages,
    is_garbled,
    languages_for,
    recognise,
)
from wide_margin.core.pages.source import TextSource

SAID = (
    "The keeper of the mill writes every height down in the red book of the station. Nobody else"
    " may write in it, and nothing in it is ever struck out by anybody. The rope is changed every"
    " eighteen months, whether or not it looks worn, and the old rope is burnt in the yard."
)
needs_engine = pytest.mark.skipif(not shutil.which("tesseract"), reason="no engine here")


def as_picture(source, target, *, turns=0, tilt=0.0):
    """A PDF whose one page is a picture of another's first page at 200 dots per inch."""
    drawn = pdfium.PdfDocument(source)[0].render(scale=200 / 72).to_pil().convert("L")
    if tilt:
        drawn = drawn.rotate(tilt, fillcolor=255, resample=Image.Resampling.BICUBIC)
    drawn.rotate(-90 * turns, expand=True).save(target, "PDF", resolution=200.0)
    return target


@pytest.fixture(scope="module")
def written(tmp_path_factory):
    path = tmp_path_factory.mktemp("pictures") / "written.pdf"
    make_pdf(path, [[("h1", "1 The mill"), ("text", SAID), ("text", SAID)]])
    return path


def words_of(text):
    return [word.strip(".,") for word in text.split()]


@needs_engine
@pytest.mark.parametrize(("turns", "tilt"), [(0, 0.0), (1, 0.0), (2, 0.0), (3, 0.0), (0, 1.5)])
def test_a_drawn_page_is_read_however_it_lies(written, tmp_path, turns, tilt):
    path = as_picture(written, tmp_path / "picture.pdf", turns=turns, tilt=tilt)
    pdf = PdfFile(path, None)
    try:
        found = recognise(pdf, 0, "eng")
    finally:
        pdf.close()
    wanted, read = words_of(SAID), words_of(found.text.chars)
    n_right = sum(word in read for word in wanted)
    assert n_right >= 0.97 * len(wanted)
    assert found.sure > 0.8
    x = found.text.boxes[:, [0, 2]]
    y = found.text.boxes[:, [1, 3]]
    assert np.nanmin(x) > 0
    assert np.nanmax(x) < found.text.width
    assert np.nanmin(y) > 0
    assert np.nanmax(y) < found.text.height


@needs_engine
def test_words_stand_where_they_are_drawn(written, tmp_path):
    """The boxes of a recognised word lie on those of the same word in the text itself."""
    path = as_picture(written, tmp_path / "picture.pdf")
    boxes = {}
    for name, over in ((written, False), (path, True)):
        pdf = PdfFile(name, None)
        try:
            text = recognise(pdf, 0, "eng").text if over else TextSource(pdf).page(0)
        finally:
            pdf.close()
        at = text.chars.index("eighteen")
        boxes[over] = np.nanmean(text.boxes[at : at + 8], axis=0)
    assert boxes[True] == pytest.approx(boxes[False], abs=3.0)


@needs_engine
def test_its_lines_are_lines_of_text_of_one_size(written, tmp_path):
    pdf = PdfFile(as_picture(written, tmp_path / "picture.pdf"), None)
    try:
        found = recognise(pdf, 0, "eng").text
    finally:
        pdf.close()
    lines = [line for line in lines_of(found) if len(line.text) > 30]
    assert len(lines) >= 6
    assert len({line.size for line in lines}) == 1
    assert lines[0].size == pytest.approx(11, abs=2.5)


# --- engines that are not as they should be


def engine(folder, script):
    """A program of that name, in place of the real one."""
    path = folder / "tesseract"
    path.write_text(f"#!/bin/sh\n{script}\n")
    path.chmod(path.stat().st_mode | stat.S_IXUSR)
    return str(path)


@pytest.fixture(autouse=True)
def forgotten():
    room.engine_languages.cache_clear()
    yield
    room.engine_languages.cache_clear()


def asked(written, program, seconds=2.0):
    pdf = PdfFile(written, None)
    try:
        return recognise(pdf, 0, "eng", program=program, seconds=seconds)
    finally:
        pdf.close()


@pytest.mark.parametrize(
    ("script", "said"),
    [
        ("exit 1", "ended over it"),
        ("kill -9 $$", "ended over it"),
        ("exec sleep 20", "too long"),
        ("cat > /dev/null; kill -11 $$", "ended over it"),
    ],
)
def test_an_engine_that_fails_costs_its_page_alone(written, tmp_path, script, said):
    with pytest.raises(PageFailedError) as caught:
        asked(written, engine(tmp_path, script), seconds=0.6)
    assert said in caught.value.hint


@pytest.mark.parametrize("told", ["", "nonsense", "level\\ttext\\n5\\tx", "\\000\\377"])
def test_what_is_no_table_gives_a_page_without_text(written, tmp_path, told):
    found = asked(written, engine(tmp_path, f"cat > /dev/null; printf '{told}'"))
    assert found.text.chars == ""
    assert found.sure == 0.0
    assert found.text.boxes.shape == (0, 4)


def test_no_engine_is_told_with_what_to_install(written, tmp_path, monkeypatch):
    monkeypatch.setenv("PATH", str(tmp_path))
    with pytest.raises(NoEngineError) as caught:
        languages_for("en")
    assert "tesseract-ocr" in caught.value.hint
    with pytest.raises(NoEngineError):
        asked(written, "tesseract")


def test_the_languages_of_a_document_are_those_that_the_engine_has(tmp_path, monkeypatch):
    engine(tmp_path, "printf 'List (3):\\ndeu\\neng\\nosd\\n'")
    monkeypatch.setenv("PATH", f"{tmp_path}:/usr/bin:/bin")
    assert languages_for("de") == "deu+eng"
    assert languages_for("en") == "eng"
    assert languages_for("fr") == "eng"


# --- damaged text, and what is kept


@pytest.mark.parametrize(
    ("text", "is_so"),
    [
        (SAID, False),
        ("", False),
        ("\ufffd" * 40 + SAID[:60], True),
        ("(cid:12)(cid:7)(cid:31) " * 20, True),
        ("".join(chr(ord(c) - 29) if c.isalpha() else c for c in SAID), True),
        ("XKCD WRTL BCDF GHJK LMNP QRST VWXZ BRRR TSKS PFFT " * 8, True),
        ("12.5 33.1 44.0 0.07 " * 40, False),
        ("Водяная мельница стоит у реки и мелет зерно. " * 8, False),
        ("水車小屋の番人は毎日の高さを赤い帳面に書き込む。" * 8, False),
        ("".join(chr(ord(c) % 28 + 128) if c in "aeiou" else c for c in SAID), True),
        (SAID.replace("y ", "\x02\r\n").replace("k", "\x0c"), False),
        ("int main(void) { return x_1 + y_2; } " * 10, False),
    ],
)
def test_damaged_text_is_told_from_sound_text(text, is_so):
    assert is_garbled(text) is is_so


def test_recognised_text_lies_over_pages_without_any_alone(written, tmp_path):
    kept = RecognisedPages(tmp_path / "kept")
    made = PageText.empty(0, 595, 842)
    kept.keep(0, Recognised(made, 0.9))
    assert kept.known() == frozenset([0])
    assert kept.recognised(0).sure == 0.9
    assert kept.page(1) is None
    pdf = PdfFile(written, None)
    try:
        assert "keeper of the mill" in TextSource(pdf, [kept]).page(0).chars
    finally:
        pdf.close()


def test_a_damaged_page_on_disk_is_as_good_as_none(tmp_path):
    kept = RecognisedPages(tmp_path)
    (tmp_path / "3.page").write_bytes(b"no")
    (tmp_path / "x.page").write_bytes(b"no")
    assert kept.page(3) is None
    assert kept.known() == frozenset([3])


def test_a_page_with_hidden_damaged_text_takes_what_was_recognised(tmp_path):
    source = tmp_path / "garbled.pdf"
    make_pdf(source, [[("text", "XKCD WRTL BCDF GHJK LMNP QRST VWXZ BRRR TSKS PFFT " * 12)]])
    with pikepdf.open(source) as opened:
        assert len(opened.pages) == 1
    kept = RecognisedPages(tmp_path / "kept")
    pdf = PdfFile(source, None)
    try:
        page = TextSource(pdf).page(0)
        assert is_garbled(page.chars)
        kept.keep(0, Recognised(PageText.empty(0, page.width, page.height), 0.5))
        assert TextSource(pdf, [kept]).page(0).chars == ""
    finally:
        pdf.close()
