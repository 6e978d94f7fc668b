"""A document that has been read: everything the later steps ask about."""

from __future__ import annotations

from bisect import bisect_left
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cache, partial
from typing import TYPE_CHECKING

from wide_margin.core.jobs import here
from wide_margin.core.layout import (
    Line,
    PageLabels,
    Paragraph,
    as_typed,
    find_furniture,
    label_pages,
    paragraphs_of,
    usual_size,
    vocabulary,
)
from wide_margin.core.outline import (
    Contents,
    Outline,
    anchored,
    build_outline,
    find_contents,
    listing_pages,
)
from wide_margin.core.pages import FileFacts
from wide_margin.core.passages import Text, build_passages, sentences_in
from wide_margin.core.search.coded import code
from wide_margin.core.search.index import Index, build_index

if TYPE_CHECKING:
    from wide_margin.core.jobs import Aside, CancelToken, Progress
    from wide_margin.core.layout import Furniture
    from wide_margin.core.outline import Section
    from wide_margin.core.pages import Bookmark
    from wide_margin.core.passages import Said
    from wide_margin.core.search.coded import Coded

RUNNING_PAGES = 4
"""Running heads of so many pages are kept."""
STEPS = 5
"""Of understanding a document, each told when it is done."""
OWN = 0.15
"""Share of the paragraphs of which the sentences are told after the sections, in this process: as
long as finding the sections takes, another one has told the rest."""


@dataclass(frozen=True, slots=True, eq=False)
class ReadDocument:
    """All that reading gives; made once, then only asked."""

    facts: FileFacts
    labels: PageLabels
    paragraphs: tuple[Paragraph, ...]
    contents: Contents
    """What the printed contents page says, lists of figures included."""
    outline: Outline
    text: Text
    index: Index
    without_text: tuple[int, ...]
    """Page indexes that hold no characters."""
    failed: tuple[int, ...]
    """Page indexes that could not be read."""
    listings: frozenset[int]
    """Page indexes of contents pages and indexes."""
    recognised: tuple[tuple[int, float], ...] = ()
    """Pages whose text was recognised in a picture, with how sure the engine was, 0 to 1."""
    garbled: tuple[int, ...] = ()
    """Pages whose text is damaged."""
    running: tuple[Line, ...] = ()
    """Running heads and feet of the first pages."""
    unread: frozenset[int] = frozenset()
    """Pages that have not been read yet, while reading goes on."""

    @property
    def to_recognise(self) -> tuple[int, ...]:
        """Pages whose text is yet to be recognised in their pictures."""
        return tuple(sorted({*self.without_text, *self.garbled}))

    @property
    def n_searched(self) -> int:
        """How many pages an answer over the whole document looks at."""
        return self.facts.n_pages - len({*self.to_recognise, *self.failed})

    def path_at(self, section: int) -> tuple[str, ...]:
        """Section titles from the outermost down."""
        return self.outline.path(section)

    def under_heading(self, section: Section) -> int:
        """Position of the first paragraph under a section's heading, which may take several."""
        row, outline = section.first_paragraph + 1, self.outline
        while row < section.end_paragraph:
            begun = outline.sections[outline.at_paragraph(row)].first_paragraph == row
            kinds = {self.text.sentences[at].kind for at in self.rows_of(row, row + 1)}
            if begun or kinds != {"heading"}:
                break
            row += 1
        return row

    def rows_of(self, first: int, end: int) -> range:
        """Rows of the sentences of the paragraphs [first, end): both lie in reading order."""
        sentences = self.text.sentences
        start = bisect_left(sentences, first, key=lambda s: s.paragraph)
        return range(start, bisect_left(sentences, end, lo=start, key=lambda s: s.paragraph))


def understand(
    facts: FileFacts,
    bookmarks: Sequence[Bookmark],
    lines: Sequence[Sequence[Line]],
    failed: Sequence[int],
    token: CancelToken,
    progress: Progress,
    *,
    words: Counter[str] | None = None,
    listings: Iterable[int] | None = None,
    blank: Collection[int] = (),
    damaged: Collection[int] = (),
    use_contents: bool = True,
    aside: Aside = here,
) -> ReadDocument:
    """Make a read document of the lines of all its pages.

    Args:
        facts: What the file says of itself.
        bookmarks: Its outline items; none to go by the headings alone.
        lines: Lines of every page; none where a page has no text or failed.
        failed: Page indexes that could not be read.
        token: Checked between the steps.
        progress: Told the steps done of all steps.
        words: The vocabulary of the lines, where it was counted already.
        listings: Page indexes that only list places, where they were found already.
        blank: Page indexes on which nothing is printed: they lack no text.
        damaged: Page indexes whose text is damaged: no headings are looked for there.
        use_contents: Whether the printed contents page is a witness.
        aside: Does a part of the work beside the rest.
    """
    furniture = find_furniture(lines, facts.heights, is_wide=facts.is_wide)
    labels = label_pages(facts.labels, lines, facts.heights)
    text_lines = as_typed(furniture.texts(lines))
    body_size = usual_size(text_lines)
    progress(1, STEPS)
    token.check()
    paragraphs = paragraphs_of(text_lines, body_size, words or vocabulary(text_lines), aside)
    ahead = cache(aside(partial(_sentences_ahead, paragraphs[int(OWN * len(paragraphs)) :])))
    progress(2, STEPS)
    token.check()
    listing = listing_pages(lines) if listings is None else frozenset(listings)
    contents = find_contents(text_lines, listing)
    listing |= contents.pages
    witness = contents if use_contents else replace(contents, entries=())
    outline, contents = build_outline(
        paragraphs, bookmarks, witness, body_size, listing, facts.heights, labels, damaged
    )
    progress(3, STEPS)
    token.check()
    text = build_passages(paragraphs, outline, listing, lambda: ahead()[0])
    progress(4, STEPS)
    token.check()
    index = build_index(text, outline, ahead()[1])
    progress(5, STEPS)
    return ReadDocument(
        facts, labels, tuple(paragraphs), contents, outline, text, index,
        _empty(lines, {*failed, *blank}), tuple(failed), listing, garbled=tuple(damaged),
        running=_running(furniture, lines),
    )  # fmt: skip


def _empty(lines: Sequence[Sequence[Line]], none: Collection[int]) -> tuple[int, ...]:
    """The pages without a line, but for some."""
    return tuple(p for p, on_page in enumerate(lines) if not on_page and p not in none)


def _sentences_ahead(paragraphs: Sequence[Paragraph]) -> tuple[list[list[Said]], Coded]:
    """The sentences of some paragraphs before their sections are known, and the words of all."""
    said = [sentences_in(paragraph) for paragraph in paragraphs]
    return said, code([each.text for some in said for each in some])


def _running(furniture: Furniture, lines: Sequence[Sequence[Line]]) -> tuple[Line, ...]:
    """The running heads and feet of the first pages."""
    pages = zip(furniture.rows[:RUNNING_PAGES], lines, strict=False)
    return tuple(on[row] for rows, on in pages for row in sorted(rows) if not on[row].apart)


def with_outline(document: ReadDocument, outline: Outline) -> ReadDocument:
    """The document by another outline, of which only titles, levels and places count."""
    heights = document.facts.heights
    outline = anchored(outline, document.paragraphs, heights)
    text = build_passages(document.paragraphs, outline, document.listings)
    return replace(document, outline=outline, text=text, index=build_index(text, outline))
