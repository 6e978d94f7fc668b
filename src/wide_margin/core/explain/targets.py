"""What a document's own references can lead to, gathered once."""

from __future__ import annotations

import re
from collections import defaultdict
from functools import cached_property
from typing import TYPE_CHECKING

from wide_margin.core.document import section_titled
from wide_margin.core.later import regex
from wide_margin.core.layout import fold, tidy
from wide_margin.core.lexicon import alternatives, thing_of
from wide_margin.core.outline.numbering import number_of, unnumbered
from wide_margin.core.outline.titles import squash
from wide_margin.core.search import is_common, rank, read_terms
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.layout import Paragraph

_EQUATION_NUMBER = regex(r"\(([A-Z]?\.?\d{1,3}(?:\.\d{1,3})*[a-z]?)\)\s*$")
_LABEL = regex(
    r"^\s*(?P<word>[^\W\d_]+)\.?\s+(?P<id>(?:[A-Z]\.?)?\d+(?:[.–-]\d+)*[a-z]?|[IVX]+|[A-Z])(?P<after>[^\w].*|$)", re.S
)  # fmt: skip
_HEAD = regex(r"^(?P<id>\d+(?:\.\d+)*|[A-Z](?:\.\d+)+)\.?\s+[^\W\d_]")
_OWN_NUMBER = regex(r"^\s*(\d{1,2})[.)]?\s+[A-Z]")
_KEY = regex(r"^\s*(?:\[(?P<key>[^\]\s]{1,12})\]|(?P<number>\d{1,3})\.)\s")
_SURNAME = regex(r"[A-ZÀ-ÖØ-Þ][\w’'-]+")
_FURTHER_NAMES = regex(r"et\s+al|others")
WINDOW = 120
"""Paragraphs looked at around a place for the nearest of a kind."""
_KINDS = {
    "table": ("row", "entry"), "list": ("item",), "code": ("code",), "listing": ("code",),
    "example": ("code",), "figure": ("figure",), "diagram": ("figure",),
}  # fmt: skip
_NAMED = {
    "appendix": ("appendix",), "glossary": ("glossary",), "index": ("index",),
    "bibliography": ("references",), "introduction": ("introduction",), "preface": ("preface",),
    "conclusion": ("conclusion",), "conclusions": ("conclusion",),
}  # fmt: skip


class Targets:
    """Captions, numbered formulas and statements, works, headings of a document."""

    def __init__(self, document: ReadDocument) -> None:
        """Nothing is gathered before it is asked for."""
        self._document = document

    @cached_property
    def _labels(self) -> dict[tuple[str, str], int]:
        """Rows of paragraphs that a word and a number name: captions, theorems, steps."""
        found: dict[tuple[str, str], list[tuple[int, int]]] = defaultdict(list)
        listings = self._document.listings
        for row, paragraph in enumerate(self._document.paragraphs):
            if paragraph.page in listings or paragraph.kind in ("code", "figure", "note"):
                continue
            match = _LABEL.match(paragraph.text[:60])
            if match is None:
                continue
            after = match["after"].lstrip()
            said = bool(after[:1].islower()) and match["after"][:1].isspace()  # "Table 2 provides"
            surer = 0 if paragraph.kind == "caption" and not said else 2 if said else 1
            found[_short(match["word"]), match["id"].lower()].append((surer, row))
        return {key: min(rows)[1] for key, rows in found.items()}

    def labelled(self, word: str, identifier: str) -> int | None:
        """Row of the paragraph that "Table 3" or "Theorem 2" names."""
        row = self._labels.get((_short(word), identifier.lower()))
        if row is None and (letter := re.match(r"(.*\d)[a-z]$", identifier)):
            row = self._labels.get((_short(word), letter[1].lower()))  # part a of figure 3
        return row

    @cached_property
    def _equations(self) -> dict[str, int]:
        found: dict[str, int] = {}
        for row, paragraph in enumerate(self._document.paragraphs):
            last = paragraph.text.rstrip()
            if not last.endswith(")") or paragraph.kind not in ("formula", "row", "body"):
                continue
            match = _EQUATION_NUMBER.search(last)
            if match is None:
                continue
            set_off = paragraph.kind == "formula" or "\t" in paragraph.text[: match.start() + 1]
            if set_off:
                found.setdefault(match[1].lower(), row)
        return found

    def equation(self, identifier: str) -> int | None:
        """Row of the formula with a number."""
        return self._equations.get(identifier.lower())

    @cached_property
    def _heads(self) -> dict[str, int]:
        """Numbered headings that the outline does not have: bookmarks may leave them out."""
        sizes = sorted(p.pieces[0].line.size for p in self._document.paragraphs[:2000])
        usual = sizes[len(sizes) // 2] if sizes else 10.0
        found: dict[str, int] = {}
        for row, paragraph in enumerate(self._document.paragraphs):
            line = paragraph.pieces[0].line
            if paragraph.page in self._document.listings:
                continue
            stands_out = line.is_bold or line.is_italic or line.size > 1.1 * usual
            match = _HEAD.match(paragraph.text.strip()) if stands_out else None
            if match and len(paragraph.text) < 120:
                found.setdefault(match["id"], row)
        return found

    def numbered_heading(self, identifier: str) -> int | None:
        """Row of a heading with a number."""
        return self._heads.get(identifier)

    def listed_section(self, identifier: str) -> int:
        """Row of the section that the contents page numbers so, the outline not; -1 for none."""
        for entry in self._document.contents.entries:
            number = number_of(entry.title)
            if number and number.identifier.casefold() == identifier.casefold():
                return section_titled(self._document.outline, number.rest)
        return -1

    def numbered_nearby(self, identifier: str, section: int) -> int | None:
        """Row of a paragraph that begins with a number, in the chapter around a section.

        A licence in an appendix counts its own sections; the number before or after it must be
        there too.
        """
        if section < 0:
            return None
        outline = self._document.outline
        top = section
        while (parent := outline.parents[top]) >= 0:
            top = parent
        whole, found = outline.sections[top], dict[str, int]()
        for row in range(whole.first_paragraph + 1, whole.end_paragraph):
            paragraph = self._document.paragraphs[row]
            match = _OWN_NUMBER.match(paragraph.text)
            if match and paragraph.kind in ("body", "item", "row"):
                found.setdefault(match[1], row)
        number = int(identifier)
        counted = str(number + 1) in found or str(number - 1) in found
        return found.get(identifier) if counted else None

    @cached_property
    def _works(self) -> list[tuple[int, str]]:
        """Row and folded text of each paragraph that names a published work."""
        rows = dict.fromkeys(
            s.paragraph for s in self._document.text.sentences if s.kind == "works"
        )
        return [(row, fold(tidy(self._document.paragraphs[row].text))) for row in rows]

    def work(self, names: str, year: str) -> int | None:
        """Row of the work by some authors of a year; the year's letter counts where it is there."""
        surnames = [fold(name) for name in _SURNAME.findall(_FURTHER_NAMES.sub("", names))]
        if not surnames:
            return None
        best: tuple[int, int] | None = None
        for row, text in self._works:
            at = text.find(surnames[0])
            if at < 0 or at > 40 or year[:4] not in text:
                continue
            points = 4 * (at < 12) + 2 * (year in text)
            points += sum(name in text[:200] for name in surnames[1:])
            extra = len(surnames) == 1 and not _FURTHER_NAMES.search(names)
            authors = text[: text.find(year[:4])]
            points -= extra and (" and " in authors or " & " in authors)
            if best is None or points > best[0]:
                best = points, row
        return best[1] if best else None

    @cached_property
    def _keys(self) -> dict[str, int]:
        found: dict[str, int] = {}
        for row, _ in self._works:
            if match := _KEY.match(self._document.paragraphs[row].text):
                found.setdefault((match["key"] or match["number"]).lower(), row)
        return found

    def keyed_work(self, key: str) -> int | None:
        """Row of the work with a key in brackets."""
        return self._keys.get(key.lower())

    def section_about(self, topic: str) -> int:
        """Row of the section whose title holds the words of a topic best; -1 for none."""
        analyser = self._document.index.analyser

        def stems(text: str) -> set[str]:
            return {t for w in words(text) if not is_common(w) for t in analyser.terms_of(w)[:1]}

        wanted = stems(topic)
        best, found = 0.0, -1
        for row, section in enumerate(self._document.outline.sections):
            title = stems(section.title)
            shared = len(wanted & title)
            share = shared / max(len(title), 1) * shared / max(len(wanted), 1) if shared else 0.0
            if share > best + 1e-9:
                best, found = share, row
        return found if best >= 0.25 else -1

    def part_named(self, name: str) -> int:
        """Row of the last section of a kind: the appendix, the glossary; -1 for none."""
        pattern = re.compile(rf"{alternatives(*_NAMED[name.lower()])}", re.I)
        for row, section in enumerate(self._document.outline.sections):
            title = unnumbered(section.title)
            is_one = name.lower() == "appendix" and pattern.match(section.title)
            if is_one or pattern.fullmatch(title.strip()):
                return row
        return -1

    def section_from(self, section: int, what: str, step: int) -> int:
        """Row of the section before (-1), after (1) or around (0) another; -1 for none.

        A chapter is the outermost section unless chapters stand in parts; a section lies within.
        """
        outline = self._document.outline
        if section < 0:
            return -1
        path = [section]
        while (parent := outline.parents[path[-1]]) >= 0:
            path.append(parent)
        path.reverse()
        depth = self._depth_of(what, path)
        if depth >= len(path):
            depth = len(path) - 1
        here = path[depth]
        if not step:
            return here
        level, parent = outline.sections[here].level, outline.parents[here]
        siblings = [
            k for k, s in enumerate(outline.sections)
            if s.level == level and (what == "chapter" or outline.parents[k] == parent)
        ]  # fmt: skip
        at = siblings.index(here) + step
        if 0 <= at < len(siblings):
            return siblings[at]
        after = here + 1 if step > 0 else here - 1
        return after if 0 <= after < len(outline.sections) else -1

    def _depth_of(self, what: str, path: list[int]) -> int:
        """How deep in a path the nearest section lies that a word names."""
        if what == "part":
            return 0
        sections = self._document.outline.sections
        chapters = [
            k
            for k, row in enumerate(path)
            if thing_of(sections[row].title.split()[0] if sections[row].title else "") == "chapter"
        ]
        if what in ("chapter", "appendix"):
            return chapters[0] if chapters else 0
        has_chapters = bool(chapters) or len(path) > 2
        return len(path) - 1 if not has_chapters or len(path) < 2 else max(1, len(path) - 1)

    def nearest(self, what: str, paragraph: int, step: int) -> int | None:
        """Row of the nearest paragraph of a kind before or after another one."""
        paragraphs = self._document.paragraphs
        word = _short(what)
        kinds = _KINDS.get(what, ())
        at = paragraph + step
        for _ in range(WINDOW):
            if not 0 <= at < len(paragraphs):
                return None
            near = paragraphs[at]
            names = near.kind == "caption" and _short(near.text.split()[0]) == word
            if names or near.kind in kinds or (what == "paragraph" and near.kind == "body"):
                return at
            at += step
        return None

    def alike(self, text: str, row: int, step: int) -> int | None:
        """Row of the best sentence before or after another that speaks of the same things."""
        document = self._document
        query = read_terms(text, document.index)
        if not query.terms:
            return None
        ranked = rank(document.index, document.text, query)
        sentences = document.text.sentences
        path = document.path_at(sentences[row].section)
        for passage_row in ranked.passages[:30]:
            passage = document.text.passages[passage_row]
            aside = passage.kind != "text" or passage.first <= row < passage.end
            elsewhere = document.path_at(passage.section)[:1] != path[:1]  # another chapter
            if not aside and not elsewhere and (passage.first > row) == (step > 0):
                return int(passage.first)
        return None


def _short(word: str) -> str:
    """A word by its first letters: "Fig.", "Figures" and "figure" are one."""
    plain = squash(word)
    return plain[:2] if plain.startswith(("eq", "al")) else plain[:3]


def is_caption(paragraph: Paragraph) -> bool:
    """Whether a paragraph names a figure or table rather than speaking of one."""
    match = _LABEL.match(paragraph.text[:60])
    return paragraph.kind == "caption" and not (match and match["after"].lstrip()[:1].islower())
