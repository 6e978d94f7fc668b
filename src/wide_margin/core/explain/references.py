"""References such as "section 8.4" or "Table 3", resolved to places."""

import re
from typing import NamedTuple

from wide_margin.core.document import Locator, ReadDocument, section_numbered
from wide_margin.core.layout import SpanOnPage, tidy
from wide_margin.core.lexicon import alternatives

_SECTION = re.compile(
    rf"(?<!\w){alternatives('section', 'chapter', 'part', 'appendix', in_text=True)}"
    r"\s+(?P<id>\d+(?:\.\d+)*|[IVX]+\b|[A-Z]\b(?:\.\d+)*)"
    r"|§+\s*(?P<par>\d+(?:\.\d+)*)", re.I
)  # fmt: skip
_FLOAT = re.compile(
    rf"(?<!\w)(?P<word>{alternatives('figure', 'table', 'listing')})\s+"
    r"(?P<id>[A-Z]?\d+(?:[.–-]\d+)*|[IVX]+\b)", re.I
)  # fmt: skip
_PAGE = re.compile(
    rf"(?<!\w)(?:{alternatives('page', in_text=True)}|p\.|s\.)\s+" r"(?P<id>\d{1,4}|[ivxlc]+)\b",
    re.I,
)


class Reference(NamedTuple):
    """A reference in a text and the place it leads to."""

    text: str
    """As written: "section 8.4"."""
    title: str
    """What is there: the section's title, the caption, or "page 12"."""
    locator: Locator | None
    """None where no such place was found."""


def find_references(document: ReadDocument, text: str) -> list[Reference]:
    """The references in a text, in order, each once."""
    found: dict[str, tuple[int, Reference]] = {}
    for match in _SECTION.finditer(text):
        reference = _section(document, match.group(), match["id"] or match["par"])
        found.setdefault(match.group().casefold(), (match.start(), reference))
    for match in _FLOAT.finditer(text):
        reference = _caption(document, match.group(), match["word"], match["id"])
        found.setdefault(match.group().casefold(), (match.start(), reference))
    for match in _PAGE.finditer(text):
        reference = _page(document, match.group(), match["id"])
        found.setdefault(match.group().casefold(), (match.start(), reference))
    return [reference for _, reference in sorted(found.values(), key=lambda pair: pair[0])]


def _section(document: ReadDocument, written: str, identifier: str) -> Reference:
    index = section_numbered(document.outline, written.split()[0], identifier)
    if index < 0:
        return _heading(document, written, identifier)
    section = document.outline.sections[index]
    paragraph = document.paragraphs[section.first_paragraph]
    spans = paragraph.spans(0, len(paragraph.text))
    return Reference(written, section.title, _place(document, section.page, spans, index))


def _heading(document: ReadDocument, written: str, identifier: str) -> Reference:
    """A numbered heading that the outline does not have: the file's bookmarks may leave it out."""
    pattern = re.compile(rf"^{re.escape(identifier)}\.?\s+[^\W\d_]")
    for row, paragraph in enumerate(document.paragraphs):
        line = paragraph.pieces[0].line
        stands_out = line.is_bold or line.is_italic or line.size > 1.1 * _body_size(document)
        if stands_out and len(paragraph.text) < 120 and pattern.match(paragraph.text.strip()):
            spans = paragraph.spans(0, len(paragraph.text))
            section = document.outline.at_paragraph(row)
            title = tidy(paragraph.text)
            return Reference(written, title, _place(document, paragraph.page, spans, section))
    return Reference(written, "", None)


def _body_size(document: ReadDocument) -> float:
    sizes = sorted(p.pieces[0].line.size for p in document.paragraphs[:2000])
    return sizes[len(sizes) // 2] if sizes else 10.0


def _caption(document: ReadDocument, written: str, word: str, identifier: str) -> Reference:
    pattern = re.compile(rf"^{word[:3]}\w*\.?\s+{re.escape(identifier)}(?![\d.]*\d)", re.I)
    for row, paragraph in enumerate(document.paragraphs):
        text = paragraph.text.lstrip()
        is_caption = paragraph.kind == "caption" or word.casefold() == "form"
        if is_caption and pattern.match(text):
            spans = paragraph.spans(0, len(paragraph.text))
            section = document.outline.at_paragraph(row)
            title = tidy(text)[:120]
            return Reference(written, title, _place(document, paragraph.page, spans, section))
    return Reference(written, "", None)


def _page(document: ReadDocument, written: str, identifier: str) -> Reference:
    pages = document.labels.find(identifier)
    if not pages:
        return Reference(written, "", None)
    section = document.outline.at_place(pages[0], 0.0)
    return Reference(written, f"page {identifier}", _place(document, pages[0], (), section))


def _place(
    document: ReadDocument, page: int, spans: tuple[SpanOnPage, ...], section: int
) -> Locator:
    return Locator(page, document.labels.of(page), spans, document.path_at(section))
