"""One section from what the witnesses say of it, with every disagreement named."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Protocol

from wide_margin.core.layout import is_torn
from wide_margin.core.outline.contents import ContentsEntry
from wide_margin.core.outline.headings import Heading
from wide_margin.core.outline.model import WITNESSES, Disagreement, Reading, Section
from wide_margin.core.outline.numbering import number_of, unnumbered
from wide_margin.core.outline.titles import squash, words_differ
from wide_margin.core.pages import Bookmark

if TYPE_CHECKING:
    from wide_margin.core.layout import PageLabels

_NAMES = {"bookmark": "bookmark", "contents": "contents page", "heading": "heading"}


class FindsRows(Protocol):
    """What knows where paragraphs stand."""

    def first_after(self, page: int, y: float) -> int:
        """Row of the first paragraph that is not over a place."""


@dataclass(slots=True, eq=False)
class Record:
    """What the witnesses say of one section, while they are being matched."""

    heading: Heading | None = None
    bookmark: Bookmark | None = None
    at_bookmark: int = -1
    """Index among the bookmarks."""
    contents: ContentsEntry | None = None
    at_contents: int = -1
    """Index among the entries of the contents page."""
    y: float = 0.0
    """Height on the page, where no heading and no bookmark tells it."""

    @property
    def is_listed(self) -> bool:
        """Whether bookmarks or the contents page name it."""
        return self.bookmark is not None or self.contents is not None

    @property
    def place(self) -> tuple[int, float]:
        """Page index and height: of the heading where there is one, since the words stand there."""
        if self.heading is not None:
            return self.heading.page, self.heading.y
        if self.bookmark is not None and self.bookmark.page is not None:
            return self.bookmark.page, self.y if self.bookmark.y is None else self.bookmark.y
        assert self.contents is not None
        return self.contents.page or 0, self.y

    @property
    def title(self) -> str:
        """What it is called for now."""
        if self.bookmark is not None and self.heading is None:
            return self.bookmark.title
        if self.heading is not None:
            return self.heading.title
        assert self.contents is not None
        return self.contents.title

    def start_row(self, rows: FindsRows) -> int:
        """Row of the paragraph it starts with."""
        return self.heading.paragraph if self.heading else rows.first_after(*self.place)

    def level(self, witness: str) -> int | None:
        """Its level on a witness's own scale."""
        if witness == "bookmark":
            return self.bookmark.level if self.bookmark else None
        if witness == "contents":
            return self.contents.level if self.contents else None
        return self.heading.level if self.heading and self.heading.level >= 0 else None


def as_section(
    record: Record,
    level: int,
    disputed: Sequence[tuple[str, int]],
    rows: FindsRows,
    labels: PageLabels,
) -> Section:
    """The section, its readings and its disagreements.

    Args:
        record: What the witnesses say.
        level: As settled.
        disputed: Witnesses that put it at another level, and which that would be.
        rows: For the paragraph it starts with.
        labels: For naming pages.
    """
    readings = _readings(record)
    title, why = _chosen_title(readings)
    page, y = record.place
    disagreements = [
        Disagreement("title", r.witness, f"The {_NAMES[r.witness]} reads “{r.title}”. {why}")
        for r in readings if words_differ(r.title, title)
    ]  # fmt: skip
    for reading in readings:
        if reading.page is not None and reading.page != page:
            used = "heading" if record.heading else "bookmark"
            disagreements.append(
                Disagreement("page", reading.witness, _about_page(reading, page, used, labels))
            )
    disagreements += [
        Disagreement("level", witness, _about_level(witness, level, record), says)
        for witness, says in disputed
    ]  # fmt: skip
    return Section(
        title, level, page, y, record.start_row(rows), 0, page, y, readings, tuple(disagreements)
    )


def _about_level(witness: str, level: int, record: Record) -> str:
    others = [
        _NAMES[name] for name in WITNESSES if name != witness and record.level(name) is not None
    ]
    used = (
        f"The {' and the '.join(others)} put"
        if len(others) > 1
        else (f"The {others[0]} puts" if others else "The sections around it put")
    )
    return (
        f"The {_NAMES[witness]} lists it among sections of another level. {used} it at level"
        f" {level + 1}, which is used."
    )


def _readings(record: Record) -> tuple[Reading, ...]:
    readings = []
    if (bookmark := record.bookmark) is not None:
        readings.append(
            Reading("bookmark", bookmark.title, bookmark.level, bookmark.page, bookmark.y or 0.0)
        )
    if (entry := record.contents) is not None:
        # It names a page only: where the heading is on it, that is the place meant.
        y = record.heading.y if record.heading and record.heading.page == entry.page else 0.0
        readings.append(
            Reading("contents", entry.title, entry.level, entry.page, y, entry.printed,
                    entry.at_page, entry.box)
        )  # fmt: skip
    if (heading := record.heading) is not None:
        readings.append(
            Reading("heading", heading.title, record.level("heading"), heading.page, heading.y,
                    seen_page=heading.page, seen_box=heading.box)
        )  # fmt: skip
    return tuple(readings)


def _chosen_title(readings: Sequence[Reading]) -> tuple[str, str]:
    """The title, and why where they differ.

    Two against one win; else the words on the page do. A title without its number is filled
    up from the page, or from the contents where the page has it in words.
    """
    by_witness = {r.witness: r.title for r in readings}
    title, why = _worded(by_witness)
    for witness in ("heading", "contents"):
        title = _with_number(title, by_witness.get(witness, ""))
    return title, why


def _worded(by_witness: Mapping[str, str]) -> tuple[str, str]:
    """The wording that is used of those of some witnesses, and why."""
    heading = by_witness.get("heading")
    listed = [title for name, title in by_witness.items() if name != "heading"]
    if heading is None:
        return listed[0], "The bookmark is used."
    if not listed:
        return heading, ""
    if len(listed) == 2 and words_differ(heading, listed[0]) and not words_differ(*listed):
        return listed[0], "Bookmark and contents page agree."
    if all(words_differ(heading, title) for title in listed):
        if is_torn(heading) and not is_torn(listed[0]):
            return listed[0], "The bookmark is used: the letters on the page have no meaning."
        return heading, "The heading is used: these words stand on the page."
    same = next(title for title in listed if not words_differ(heading, title))
    if _lacks_accents(same, heading) or _is_shouted(same, heading):
        same = heading
    return same, "The heading is used: these words stand on the page."


def _lacks_accents(title: str, heading: str) -> bool:
    """Whether a title is that on the page without its accents, as some programs write bookmarks."""
    printed = unnumbered(heading)
    has_some = any(sign.isalpha() and not sign.isascii() for sign in printed)
    return has_some and title.isascii() and squash(unnumbered(title)) == squash(printed)


def _is_shouted(title: str, heading: str) -> bool:
    """Whether a title is that on the page in capitals, which hide how names are spelled."""
    is_in_capitals = title.isupper() and not heading.isupper()
    return is_in_capitals and squash(unnumbered(title)) == squash(unnumbered(heading))


def _with_number(title: str, other: str) -> str:
    """The title with the number that another witness has before it: the page, or the contents."""
    # The letter of "A Tour of Wells" is no number where the page has "2 A Tour of Wells".
    has_none = not number_of(title) or squash(unnumbered(other)) == squash(title)
    if number_of(other) and has_none and squash(other).endswith(squash(title)):
        return other
    return title


def _about_page(reading: Reading, page: int, used: str, labels: PageLabels) -> str:
    def named(index: int) -> str:
        label = labels.of(index)
        return (
            f"printed page {label} (page {index + 1} of the file)"
            if label
            else (f"page {index + 1} of the file")
        )

    assert reading.page is not None
    if reading.witness == "contents":
        says = f"The contents page prints {reading.printed}"
    else:
        says = f"The {_NAMES[reading.witness]} leads to {named(reading.page)}"
    stands = "the heading stands on" if used == "heading" else "the bookmark leads to"
    return f"{says}; {stands} {named(page)}. The {used} is used."
