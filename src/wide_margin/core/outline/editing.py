"""Changes a reader makes to an outline; each gives a new outline, the old one stays."""

from bisect import bisect_right
from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

from wide_margin.core.outline.aligning import Named, align
from wide_margin.core.outline.jumps import without_jumps
from wide_margin.core.outline.model import Disagreement, Outline, Reading, Section, close_sections


class Edit(NamedTuple):
    """An outline after a change, and the section that was changed."""

    outline: Outline
    at: int
    """Its index; -1 where it is gone."""


class OutlineEditor:
    """Changes outlines of one document.

    Sections stand in reading order, whatever is done to them: a place decides where a section
    comes, its level what it hangs under.
    """

    def __init__(self, page_heights: Sequence[float]) -> None:
        """Heights in points, one for each page."""
        self._heights = page_heights

    def rename(self, outline: Outline, index: int, title: str) -> Edit:
        """Give a section another title; one without letters changes nothing."""
        title = " ".join(title.split())
        if not title:
            return Edit(outline, index)
        return self._with(outline, index, outline.sections[index]._replace(title=title))

    def raise_(self, outline: Outline, index: int) -> Edit:
        """Move a section and what hangs under it one level out."""
        if outline.sections[index].level == 0:
            return Edit(outline, index)
        return self._shifted(outline, index, -1)

    def lower(self, outline: Outline, index: int) -> Edit:
        """Hang a section, with what hangs under it, under the section before it."""
        sections = outline.sections
        if index == 0 or sections[index - 1].level < sections[index].level:
            return Edit(outline, index)
        return self._shifted(outline, index, 1)

    def move(self, outline: Outline, index: int, page: int, y: float) -> Edit:
        """Let a section start at another place."""
        moved = outline.sections[index]._replace(page=page, y=y, first_paragraph=-1)
        return self._with(outline, index, moved)

    def add(self, outline: Outline, page: int, y: float, title: str) -> Edit:
        """A new section at a place, at the level of the one it stands in."""
        at = bisect_right([(s.page, s.y) for s in outline.sections], (page, y))
        level = outline.sections[at - 1].level if at else 0
        made = Section(" ".join(title.split()), level, page, y, -1, 0, page, y)
        sections = [*outline.sections[:at], made, *outline.sections[at:]]
        return self._closed(outline, sections, made)

    def delete(self, outline: Outline, index: int) -> Edit:
        """Take a section out; what hung under it moves one level out."""
        sections = list(outline.sections)
        end = _end_of(sections, index)
        below = [s._replace(level=s.level - 1) for s in sections[index + 1 : end]]
        return self._closed(outline, [*sections[:index], *below, *sections[end:]], None)

    def take(self, outline: Outline, index: int, witness: str) -> Edit:
        """Use what one witness says of a section; its disagreements are settled by that."""
        section = outline.sections[index]
        reading = section.reading(witness)
        if reading is None:
            return Edit(outline, index)
        level = next(
            (d.level for d in section.disagreements if d.about == "level" and d.witness == witness),
            section.level,
        )
        page, y = section.page, section.y
        if reading.page is not None:
            page, y = reading.page, reading.y
        taken = section._replace(
            title=reading.title, level=level, page=page, y=y, disagreements=(), first_paragraph=-1
        )
        return self._with(outline, index, taken)

    def settle(self, outline: Outline, index: int) -> Edit:
        """Leave a section as it is; its disagreements are settled by that."""
        kept = outline.sections[index]._replace(disagreements=())
        return self._with(outline, index, kept)

    def from_rows(self, outline: Outline, rows: Sequence[Mapping[str, Any]]) -> Outline:
        """An outline of rows read from a file, in place of another one.

        Rows say title, level (from 0), page (index, or None) and y (or None). What a row leaves
        out is taken from the section of the same title; a row that is nowhere starts where the
        one before it does. Readings of the witnesses stay with sections of the same title.
        """
        known = [Named(s.title, s.page, s.y) for s in outline.sections]
        named = [Named(str(row["title"]), row.get("page"), row.get("y")) for row in rows]
        partner = dict(align(named, known))
        sections: list[Section] = []
        place = (0, 0.0)
        for k, row in enumerate(rows):
            same = outline.sections[partner[k]] if k in partner else None
            page, y = row.get("page"), row.get("y")
            if page is None or not 0 <= page < len(self._heights):
                page, y = (same.page, same.y) if same else place
            elif y is None:
                y = same.y if same and same.page == page else 0.0
            place = page, float(y or 0.0)
            readings = same.readings if same else ()
            sections.append(
                Section(str(row["title"]), int(row["level"]), *place, -1, 0, *place, readings)
            )
        return self._closed(outline, sections, None).outline

    def _shifted(self, outline: Outline, index: int, by: int) -> Edit:
        sections = list(outline.sections)
        end = _end_of(sections, index)
        for k in range(index, end):
            sections[k] = sections[k]._replace(level=sections[k].level + by)
        return self._closed(outline, sections, sections[index])

    def _with(self, outline: Outline, index: int, section: Section) -> Edit:
        sections = list(outline.sections)
        sections[index] = section
        return self._closed(outline, sections, section)

    def _closed(
        self, outline: Outline, sections: Sequence[Section], changed: Section | None
    ) -> Edit:
        order = sorted(range(len(sections)), key=lambda k: (sections[k].page, sections[k].y, k))
        ordered = [sections[k] for k in order]
        levels = without_jumps([s.level for s in ordered])
        ordered = [s._replace(level=level) for s, level in zip(ordered, levels, strict=True)]
        index = -1
        if changed is not None:
            index = next(n for n, k in enumerate(order) if sections[k] is changed)
        n_paragraphs = max((s.end_paragraph for s in outline.sections), default=0)
        made = close_sections(ordered, n_paragraphs, self._heights, outline.sources, is_edited=True)
        return Edit(made, index)


def _end_of(sections: Sequence[Section], index: int) -> int:
    """One past the last section that hangs under one."""
    level = sections[index].level
    end = index + 1
    while end < len(sections) and sections[end].level > level:
        end += 1
    return end


def as_rows(outline: Outline) -> list[dict[str, Any]]:
    """An edited outline as plain values, for the store."""
    return [
        {
            "title": s.title, "level": s.level, "page": s.page, "y": s.y,
            "readings": [list(reading) for reading in s.readings],
            "disagreements": [list(conflict) for conflict in s.disagreements],
        }
        for s in outline.sections
    ]  # fmt: skip


def from_store(
    rows: Sequence[Mapping[str, Any]], found: Outline, heights: Sequence[float]
) -> Outline:
    """The reverse of as_rows; ``found`` is what the document gives by itself."""
    n_paragraphs = max((s.end_paragraph for s in found.sections), default=0)
    sections = []
    for row in rows:
        readings = tuple(
            Reading._make([*values[:7], tuple(values[7])]) for values in row.get("readings", ())
        )
        conflicts = tuple(Disagreement(*values) for values in row.get("disagreements", ()))
        page, y = int(row["page"]), float(row["y"])
        sections.append(
            Section(str(row["title"]), int(row["level"]), page, y, -1, 0, page, y,
                    readings, conflicts)
        )  # fmt: skip
    return close_sections(sections, n_paragraphs, heights, found.sources, is_edited=True)


def carried_over(edited: Outline, found: Outline, heights: Sequence[float]) -> Outline:
    """An edited outline for a new version of its document.

    Sections whose title the new version still has move to where it stands now, with what the
    witnesses say there; the others stay on their page, or on the last one.
    """
    known = [Named(s.title, s.page, s.y) for s in found.sections]
    partner = dict(align([Named(s.title, s.page, s.y) for s in edited.sections], known))
    sections = []
    for k, section in enumerate(edited.sections):
        if k in partner:
            now = found.sections[partner[k]]
            section = section._replace(page=now.page, y=now.y, readings=now.readings,
                                       disagreements=now.disagreements)  # fmt: skip
        elif section.page >= len(heights):
            section = section._replace(page=max(0, len(heights) - 1), y=0.0, readings=())
        sections.append(section._replace(first_paragraph=-1))
    sections.sort(key=lambda s: (s.page, s.y))
    n_paragraphs = max((s.end_paragraph for s in found.sections), default=0)
    return close_sections(sections, n_paragraphs, heights, found.sources, is_edited=True)
