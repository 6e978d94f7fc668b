"""The one source of text: what the file says, or a layer over pages that say nothing."""

import numpy as np

from tests.making import make_pdf
from wide_margin.core.layout import lines_of
from wide_margin.core.pages import Font, PageText
from wide_margin.core.pages.document import PdfFile
from wide_margin.core.pages.source import TextSource


class Recognised:
    """A layer that knows some pages."""

    def __init__(self, texts):
        self.texts = texts
        self.asked = []

    def page(self, index):
        self.asked.append(index)
        if index not in self.texts:
            return None
        chars = self.texts[index]
        left = 72.0 + 6.0 * np.arange(len(chars), dtype=np.float32)
        boxes = np.stack([left, np.full_like(left, 100), left + 6, np.full_like(left, 112)], axis=1)
        font = Font("recognised", is_bold=False, is_italic=False, is_fixed=False)
        return PageText(index, 595, 842, chars, boxes, np.array([0]), np.array([0]),
                        np.array([11.0], np.float32), (font,))  # fmt: skip


def test_a_page_without_text_takes_that_of_the_layer(tmp_path):
    path = tmp_path / "mixed.pdf"
    make_pdf(path, [[("text", "The gauge stands on the pier.")], []], numbers=False)
    pdf = PdfFile(path)
    try:
        layer = Recognised({0: "never asked", 1: "Read from a picture."})
        source = TextSource(pdf, [layer])
        assert "gauge" in source.page(0).chars
        assert source.page(1).chars == "Read from a picture."
        assert [line.text for line in lines_of(source.page(1))] == ["Read from a picture."]
        assert layer.asked == [1, 1]
    finally:
        pdf.close()


def test_the_first_layer_that_has_a_page_goes_first_and_none_leaves_it_empty(tmp_path):
    path = tmp_path / "empty.pdf"
    make_pdf(path, [[], []], numbers=False)
    pdf = PdfFile(path)
    try:
        source = TextSource(pdf, [Recognised({0: "first"}), Recognised({0: "second"})])
        assert source.page(0).chars == "first"
        assert source.page(1).chars.strip() == ""
    finally:
        pdf.close()
