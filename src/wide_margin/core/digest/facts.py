"""What a document is: title, authors, date and the like, as they are printed on its front.

The page is the authority. The file's metadata is a second witness: it helps to choose among what
is printed, and where it says something else this is told. What is not printed is not stated.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from wide_margin.core.digest.authors import authors_of
from wide_margin.core.digest.front import (
    Fact,
    fact_of,
    front_lines,
    is_of_paragraph,
    letters_of,
    running_lines,
    without_listings,
)
from wide_margin.core.digest.imprint import (
    ONLY_KIND,
    date_of,
    edition_of,
    licence_of,
    published,
    running_date,
)
from wide_margin.core.digest.kinds import DocumentKind, kind_of
from wide_margin.core.digest.names import same_person, split_people
from wide_margin.core.digest.titles import (
    after_title,
    closed_up,
    metadata_title,
    overlap,
    parted_command,
    subtitle_of,
    title_of,
    without_dashes,
)
from wide_margin.core.later import regex
from wide_margin.core.layout import is_spaced
from wide_margin.core.outline.numbering import number_before, number_of, unnumbered
from wide_margin.core.plain import one_line

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument


SEVERAL = 2
"""Authors named in a line from which on it says who they are."""
_ARROWS = regex(r"^\W*<-\s*\w+\s+|\s+\w+\s*->\W*$")
"""Lead to the pages beside one from the web: "<-previous Chapter 3 - Ropes next->"."""
_UNFINISHED = regex(
    r"(?<=\w)[\s(:,–—-]+(?:still )?(?:under development|work in progress)\W*$", re.I
)
"""Says after a title that its document is not done."""


@dataclass(frozen=True, slots=True)
class Facts:
    """What a document is; None and () where it does not say."""

    kind: DocumentKind
    language: str
    """Code, ISO 639-1."""
    n_pages: int
    n_words: int
    title: Fact | None = None
    subtitle: Fact | None = None
    authors: tuple[Fact, ...] = ()
    date: Fact | None = None
    """ISO 8601, as far as it is known: 2023, 2023-01, 2023-01-19."""
    edition: Fact | None = None
    place: Fact | None = None
    """Where it was published, or by whom."""
    licence: Fact | None = None
    disagreements: tuple[str, ...] = ()
    """Where the file's metadata says something else than the page."""

    def named(self) -> Iterator[tuple[str, tuple[Fact, ...]]]:
        """Every fact by its name, in the order a reader looks for them."""
        for name in ("title", "subtitle", "authors", "date", "edition", "place", "licence"):
            value = getattr(self, name)
            yield name, value if isinstance(value, tuple) else (value,) if value else ()


def facts_within(facts: Facts, first_page: int, last_page: int) -> Facts:
    """The facts that are stated on some pages, by their indexes, both included."""
    kept = {
        name: tuple(fact for fact in stated if first_page <= fact.locator.page <= last_page)
        for name, stated in facts.named()
    }

    def one(name: str) -> Fact | None:
        return kept[name][0] if kept[name] else None

    return replace(
        facts, title=one("title"), subtitle=one("subtitle"), authors=kept["authors"],
        date=one("date"), edition=one("edition"), place=one("place"), licence=one("licence"),
    )  # fmt: skip


def find_facts(document: ReadDocument) -> Facts:
    """Read the front of a document."""
    lines = without_listings(front_lines(document))
    title_lines = title_of(document, lines)
    title = fact_of(document, title_lines) if title_lines else None
    named = metadata_title(document)
    if title is not None:
        text = _ARROWS.sub("", closed_up(title.text)).rstrip(" *∗†‡§¶☰≡:–—")
        text = _UNFINISHED.sub("", text)
        title = replace(title, text=_with_name(text, named))
    is_run_together = " " not in named and title is not None and not is_spaced(title.text)
    if title is not None and letters_of(title.text) == letters_of(named) and not is_run_together:
        title = replace(title, text=one_line(named))  # the page has the letters, this the blanks
    if title is not None and _is_first_section(document, title.text):
        title = replace(title, text=unnumbered(title.text))
    rest = after_title(lines, title_lines)
    subtitle = subtitle_of(title_lines, rest)
    if subtitle and is_of_paragraph(document, subtitle[0]):
        subtitle = []  # where a column of text begins
    under = fact_of(document, subtitle) if subtitle else None
    under = under and replace(under, text=without_dashes(under.text))
    name, says = parted_command(document, lines, title_lines)
    if title is not None and name:
        title, under = replace(title, text=name), replace(title, text=says)
    authors = authors_of(
        document, lines, [line for line in rest if line not in subtitle], title_lines
    )
    if title is not None:  # a name that the title ends with is what it is about
        ends = title.text.casefold().endswith
        authors = tuple(fact for fact in authors if not ends(fact.text.casefold()))
    if under is not None and sum(fact.text in under.text for fact in authors) >= SEVERAL:
        under = None  # who wrote it, with a name that is torn
    kind = kind_of(document, title.text if title else "")
    facts = Facts(
        kind=kind,
        language=document.index.language,
        n_pages=document.facts.n_pages,
        n_words=sum(len(s.text.split()) for s in document.text.sentences),
        title=title,
        subtitle=under,
        authors=authors,
        date=date_of(document, lines, title_lines, rest) or running_date(document),
        edition=edition_of(document, [*lines, *running_lines(document)], title_lines),
        place=published(document, lines, title_lines, is_thesis=kind is DocumentKind.THESIS),
        licence=licence_of(document),
    )
    return _with_disagreements(document, facts)


def _with_name(title: str, named: str) -> str:
    """A title that says of what kind its document is, with the name that the file has before it.

    The name itself may be drawn.
    """
    is_end = letters_of(named).endswith(letters_of(title)) and ONLY_KIND.match(title)
    return one_line(named) if is_end and not ONLY_KIND.match(named) else title


def _is_first_section(document: ReadDocument, title: str) -> bool:
    """Whether a document without a title goes by that of its first section: "1 Wells"."""
    first, number = document.outline.sections[:1], number_of(title)
    if not first or number is None or number.scheme != "decimal" or number.depth > 1:
        return False
    return not number_before(number) and letters_of(first[0].title) == letters_of(title)


def _with_disagreements(document: ReadDocument, facts: Facts) -> Facts:
    told = []
    named = metadata_title(document)
    is_other = facts.title and letters_of(facts.title.text) != letters_of(named)
    if facts.title and named and is_other and overlap(facts.title.text, named) < 0.5:
        told.append(f"The file calls itself “{named}”; the page says “{facts.title.text}”.")
    people = split_people(document.facts.author)
    if facts.authors and people:
        missing = [p for p in people if not any(same_person(p, a.text) for a in facts.authors)]
        if missing:
            told.append(f"The file names {', '.join(missing)} as well, not printed on its front.")
    if not told:
        return facts
    return replace(facts, disagreements=tuple(told))
