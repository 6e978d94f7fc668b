"""References in a text ("section 8.4", "Figures 1 and 2", "the next chapter"), led to places."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import TYPE_CHECKING

from wide_margin.core.document import Locator, section_numbered, section_titled
from wide_margin.core.explain.model import Reference
from wide_margin.core.explain.targets import Targets
from wide_margin.core.later import regex
from wide_margin.core.layout import tidy
from wide_margin.core.lexicon import alternatives

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.layout import SpanOnPage

_ID = r"(?-i:[A-Z]\.?)?\d+(?:[.–-]\d+)*[a-z]?(?![\w])|(?-i:[IVXLC]+)\b|(?-i:[A-Z])\b(?:\.\d+)*"
_MORE = rf"(?:\s*(?:,|;|and|or|to|und|oder|bis|et|ou|y|e|&|[–—-]|,\s*and|through)\s*(?:{_ID}))*"
_SECTION = regex(
    rf"(?<!\w)(?P<word>{alternatives('section', 'chapter', 'part', 'appendix', 'article', in_text=True)}"
    r"|clauses?|sub-?sections?|sub-?clauses?|rules?|schedules?|lessons?|annex(?:es)?)"
    rf"\s+(?P<ids>(?:{_ID}){_MORE})"
    r"|§+\s*(?P<par>\d+(?:\.\d+)*(?:\s*(?:,|and|und|[–-])\s*\d+(?:\.\d+)*)*)", re.I
)  # fmt: skip
_FLOAT = regex(
    rf"(?<!\w)(?P<word>{alternatives('figure', 'table', 'listing')}|figs?\.|tabs?\.|figures|tables"
    r"|plates?|exhibits?|box|algorithms?|equations?|eqs?\.|eqns?\.|formulae?|theorems?|lemmas?|definitions?|propositions?"
    r"|corollar(?:y|ies)|examples?|exercises?|problems?|remarks?|steps?|items?)"
    rf"\s+(?P<ids>(?:\()?(?:{_ID})\)?(?:\s*(?:,|and|or|to|und|et|&|[–—-]|,\s*and)\s*\(?(?:{_ID})\)?)*)", re.I
)  # fmt: skip
_BARE_EQUATION = regex(r"(?<![\w)])\((?P<id>[A-Z]?\.?\d{1,3}(?:\.\d{1,3})*[a-z]?)\)")
_PAGE = regex(
    rf"(?<!\w)(?:{alternatives('page', in_text=True)}|pp?\.|s\.)\s*"
    r"(?P<ids>(?:\d{1,4}|[ivxlc]+)(?:\s*(?:,|and|to|und|[–—-])\s*(?:\d{1,4}|[ivxlc]+))*)\b",
    re.I,
)
_ONE_ID = regex(rf"{_ID}|[ivxlc]+\b|\d+", re.I)
_NAME = r"[A-ZÀ-ÖØ-Þ][\w’'-]+"
_CITED = regex(
    rf"(?P<names>(?:(?:van|von|de|der|la|le|di)\s+)*{_NAME}(?:(?:,\s+|\s+(?:and|&|und|et|y|with)\s+|,\s+(?:and|&)\s+)(?:(?:van|von|de|der)\s+)*{_NAME})*"
    r"(?:,?\s+(?:et\s+al\.?|and\s+others|u\.\s?a\.))?)"
    r"(?:’s|'s)?,?\s*(?P<open>[(\[])?\s*(?P<year>(?:1[5-9]|20)\d\d)(?P<letter>[a-z])?(?P<pages>(?:[,:]\s*(?:pp?\.\s*)?\d+(?:[–-]\d+)?)*)(?(open)[^()\[\]]{0,60}[)\]])"
)  # fmt: skip
_YEARS = regex(r",\s*((?:1[5-9]|20)\d\d[a-z]?)\b")
_KEYED = regex(
    r"\[(?P<ids>[A-Za-z+]{0,8}\d{1,4}[a-z]?(?:\s*[,;–-]\s*[A-Za-z+]{0,8}\d{1,4}[a-z]?)*)(?:,\s*[^\]]{1,30})?\]"
)
_RELATIVE = regex(
    r"\b(?:the|this|in|see)\s+(?P<which>previous|preceding|last|next|following|foregoing|present|current|this)\s+"
    r"(?P<what>chapter|section|part|subsection|page|table|figure|example|list|appendix|paragraph)\b"
    r"|\b(?P<here>this)\s+(?P<what2>chapter|section|part|appendix)\b"
    r"|\bthe\s+(?P<what3>table|figure|list|example|diagram|code|listing)\s+(?P<where>above|below|overleaf|opposite)\b"
    r"|\bthe\s+(?P<only>appendix|glossary|index|bibliography|introduction|conclusions?|preface)\b", re.I
)  # fmt: skip
_ON_TOPIC = regex(
    r"\b(?:the\s+)?(?:section|chapter|part|appendix)\s+(?:on|about|called|entitled|titled|named|dealing with|describing)\s+"
    r"(?:the\s+)?[“\"‘']?(?P<topic>[^,.;:()”\"’]{3,60})", re.I
)  # fmt: skip
_TITLED = regex(
    r"(?:\b[Ss]ee|\bin|\bunder|\bcf\.)\s+(?:the\s+)?[“\"‘](?P<title>[^”\"’]{4,90})[”\"’]"
)
_DIRECTION = regex(
    r"\b(?:(?:see|described|discussed|mentioned|explained|shown|given|defined|listed|stated|noted|introduced|outlined|presented|specified)"
    r"(?:\s+\w+){0,3}?\s+)(?P<where>above|below|earlier|later|hereafter|overleaf)\b(?=\s*(?:[.,;:)]|$))", re.I
)  # fmt: skip


def find_references(
    document: ReadDocument, text: str, targets: Targets | None = None, row: int = -1
) -> list[Reference]:
    """The references in a text, in order, each once.

    Args:
        document: Where they lead.
        text: Where they stand.
        targets: What can be referred to, where it was gathered before.
        row: The sentence that the text begins in: "the next chapter" is told from there; -1 where
            it is not known.
    """
    finder = _Finder(document, targets or Targets(document), row)
    found: dict[str, tuple[int, Reference]] = {}
    taken: list[tuple[int, int]] = []
    for find in (
        finder.works, finder.sections, finder.floats, finder.equations, finder.pages,
        finder.titles, finder.relative, finder.directions,
    ):  # fmt: skip
        for start, end, reference in find(text):
            if any(start < other_end and other < end for other, other_end in taken):
                continue
            taken.append((start, end))
            found.setdefault(reference.text.casefold(), (start, reference))
    return [reference for _, reference in sorted(found.values(), key=lambda pair: pair[0])]


Found = Iterator[tuple[int, int, Reference]]


class _Finder:
    """Looks for one sort of reference after the other."""

    def __init__(self, document: ReadDocument, targets: Targets, row: int) -> None:
        self._document, self._targets, self._row = document, targets, row
        sentences = document.text.sentences
        self._section = sentences[row].section if row >= 0 else -1
        self._paragraph = sentences[row].paragraph if row >= 0 else -1

    def sections(self, text: str) -> Found:
        """Sections by their number."""
        for match in _SECTION.finditer(text):
            ids, at = (
                (match["ids"], match.start("ids"))
                if match["ids"]
                else (match["par"], match.start("par"))
            )
            word = (match["word"] or "§").lower()
            for n, part in enumerate(_ONE_ID.finditer(ids)):
                written = text[match.start() : at + part.end()] if not n else f"{word} {part[0]}"
                start = match.start() if not n else at + part.start()
                yield start, at + part.end(), self._numbered(written, word, part[0])

    def _numbered(self, written: str, word: str, identifier: str) -> Reference:
        index = section_numbered(self._document.outline, word, identifier)
        if index < 0:
            index = self._targets.listed_section(identifier)
        if identifier.isdecimal() and not self._is_around(index):
            row = self._targets.numbered_nearby(identifier, self._section)
            if row is not None:
                return self._to_paragraph(written, row)
        if index >= 0:
            return self._to_section(written, index)
        row = self._targets.numbered_heading(identifier)
        if row is None:
            row = self._targets.labelled(word, identifier)
        return self._to_paragraph(written, row)

    def _is_around(self, index: int) -> bool:
        """Whether a section lies in the chapter that the text stands in."""
        if index < 0 or self._section < 0:
            return False
        document = self._document
        return document.path_at(index)[:1] == document.path_at(self._section)[:1]

    def floats(self, text: str) -> Found:
        """Figures, tables, equations, theorems and steps by their number."""
        for match in _FLOAT.finditer(text):
            at = match.start("ids")
            for n, part in enumerate(_ONE_ID.finditer(match["ids"])):
                written = (
                    text[match.start() : at + part.end()] if not n else f"{match['word']} {part[0]}"
                )
                written += ")" if written.count("(") > written.count(")") else ""
                start = match.start() if not n else at + part.start()
                yield start, at + part.end(), self._labelled(written, match["word"], part[0])

    def _labelled(self, written: str, word: str, identifier: str) -> Reference:
        if word[:2].lower() in ("eq", "fo"):
            row = self._targets.equation(identifier)
        else:
            row = self._targets.labelled(word, identifier)
        return self._to_paragraph(written, row)

    def equations(self, text: str) -> Found:
        """A bare number in brackets, where an equation carries it."""
        for match in _BARE_EQUATION.finditer(text):
            row = self._targets.equation(match["id"])
            opens = not text[: match.start()].strip() or text[: match.start()].rstrip()[-1] in ":;."
            if row is not None and not opens:
                yield match.start(), match.end(), self._to_paragraph(match[0], row)

    def pages(self, text: str) -> Found:
        """Pages by their label."""
        for match in _PAGE.finditer(text):
            at = match.start("ids")
            for n, part in enumerate(_ONE_ID.finditer(match["ids"])):
                written = text[match.start() : at + part.end()] if not n else f"p. {part[0]}"
                start = match.start() if not n else at + part.start()
                yield start, at + part.end(), self._to_page(written, part[0])

    def works(self, text: str) -> Found:
        """Cited works: by authors and year, or by the key in brackets."""
        for match in _CITED.finditer(text):
            year, names = match["year"] + (match["letter"] or ""), match["names"]
            row = self._targets.work(names, year)
            while row is None and ", " in names:  # "(3SLS, Bale and Dow 1962)"
                names = names.partition(", ")[2]
                row = self._targets.work(names, year)
            if row is None and match["open"]:
                names = match["names"]
            if row is not None or match["open"]:
                start = match.start() + len(match["names"]) - len(names)
                more = list(_YEARS.finditer(match["pages"]))
                end = match.start("pages") if more and not match["open"] else match.end()
                written = text[start:end].rstrip(" ,;:")
                yield start, end, self._to_paragraph(written, row)
                for other in more:  # "Dow 2006, 2002"
                    if (another := self._targets.work(names, other[1])) is not None:
                        at = match.start("pages")
                        span = at + other.start(1), at + other.end(1)
                        yield *span, self._to_paragraph(f"{names} {other[1]}", another)
        for match in _KEYED.finditer(text):
            for part in re.finditer(r"[A-Za-z+]{0,8}\d{1,4}[a-z]?", match["ids"]):
                row = self._targets.keyed_work(part[0])
                if row is not None:
                    at = match.start("ids")
                    yield (
                        at + part.start(),
                        at + part.end(),
                        self._to_paragraph(f"[{part[0]}]", row),
                    )

    def titles(self, text: str) -> Found:
        """Sections by their title, or by what they are about."""
        for match in _TITLED.finditer(text):
            index = section_titled(self._document.outline, match["title"])
            if index >= 0:
                yield (
                    match.start("title"),
                    match.end("title"),
                    self._to_section(match["title"], index),
                )
        for match in _ON_TOPIC.finditer(text):
            index = self._targets.section_about(match["topic"])
            if index >= 0:
                yield match.start(), match.end(), self._to_section(match[0].strip(), index)

    def relative(self, text: str) -> Found:
        """Places told from where the text stands: "the next chapter", "the table below"."""
        for match in _RELATIVE.finditer(text):
            written = re.sub(r"^(?:in|see)\s+", "", match[0], flags=re.I)
            if match["only"]:
                index = self._targets.part_named(match["only"])
                if index >= 0:
                    yield match.start(), match.end(), self._to_section(written, index)
                continue
            if self._row < 0:
                continue
            what = (match["what"] or match["what2"] or match["what3"]).lower()
            which = (match["which"] or match["here"] or match["where"]).lower()
            if reference := self._told_from_here(written, what, which):
                yield match.start(), match.end(), reference

    def _told_from_here(self, written: str, what: str, which: str) -> Reference | None:
        back = which in ("previous", "preceding", "last", "foregoing", "above")
        here = which in ("this", "present", "current")
        if what in ("chapter", "section", "part", "subsection", "appendix"):
            index = self._targets.section_from(
                self._section, what, 0 if here else -1 if back else 1
            )
            return self._to_section(written, index) if index >= 0 else None
        if what == "page":
            page = self._document.text.sentences[self._row].page + (
                0 if here else -1 if back else 1
            )
            if 0 <= page < self._document.facts.n_pages:
                label = self._document.labels.of(page) or str(page + 1)
                return Reference(written, f"page {label}", self._place(page, ()))
            return None
        row = self._targets.nearest(what, self._paragraph, -1 if back or here else 1)
        return self._to_paragraph(written, row) if row is not None else None

    def directions(self, text: str) -> Found:
        """A bare "above" or "below": the nearest passage that way that treats the same things."""
        if self._row < 0:
            return
        for match in _DIRECTION.finditer(text):
            back = match["where"].lower() in ("above", "earlier")
            row = self._targets.alike(text, self._row, -1 if back else 1)
            if row is not None:
                sentence = self._document.text.sentences[row]
                yield match.start(), match.end(), self._to_paragraph(match[0], sentence.paragraph)

    def _to_section(self, written: str, index: int) -> Reference:
        section = self._document.outline.sections[index]
        paragraph = self._document.paragraphs[section.first_paragraph]
        spans = paragraph.spans(0, len(paragraph.text))
        return Reference(written, section.title, self._place(section.page, spans, index))

    def _to_paragraph(self, written: str, row: int | None) -> Reference:
        if row is None:
            return Reference(written, "", None)
        paragraph = self._document.paragraphs[row]
        spans = paragraph.spans(0, len(paragraph.text))
        section = self._document.outline.at_paragraph(row)
        title = tidy(paragraph.text)[:120]
        return Reference(written, title, self._place(paragraph.page, spans, section))

    def _to_page(self, written: str, identifier: str) -> Reference:
        pages = self._document.labels.find(identifier)
        if not pages:
            return Reference(written, "", None)
        return Reference(written, f"page {identifier}", self._place(pages[0], ()))

    def _place(
        self, page: int, spans: tuple[SpanOnPage, ...], section: int | None = None
    ) -> Locator:
        if section is None:
            section = self._document.outline.at_place(page, 0.0)
        document = self._document
        return Locator(page, document.labels.of(page), spans, document.path_at(section))
