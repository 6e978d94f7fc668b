"""One outline from the bookmarks in the file, the printed contents page and the headings."""

from __future__ import annotations

from bisect import bisect_left
from collections import Counter, defaultdict
from collections.abc import Collection, Container, Mapping, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.layout import tidy
from wide_margin.core.lexicon import squashed
from wide_margin.core.outline.aligning import NEAR, Named, align
from wide_margin.core.outline.contents import map_to_pages
from wide_margin.core.outline.headings import find_headings, heading_of
from wide_margin.core.outline.levels import disputes_of_level, settle_levels
from wide_margin.core.outline.model import close_sections
from wide_margin.core.outline.numbering import number_before, number_of, unnumbered
from wide_margin.core.outline.parts import parts_by_pages
from wide_margin.core.outline.reconcile import Record, as_section
from wide_margin.core.outline.titles import alike, bare, forms_of, is_called, letters_of, squash
from wide_margin.core.outline.told_again import without_told_again

if TYPE_CHECKING:
    from wide_margin.core.geometry import Box
    from wide_margin.core.layout import PageLabels, Paragraph
    from wide_margin.core.outline.contents import Contents, ContentsEntry
    from wide_margin.core.outline.headings import Heading
    from wide_margin.core.outline.model import Outline
    from wide_margin.core.outline.numbering import Number
    from wide_margin.core.pages import Bookmark

TRUSTED = 0.7
"""A contents page of whose entries this share is found in the document is believed in the rest."""

SEEN = 0.9
"""The same for the share whose words stand on the page that it names, in whatever place."""

BEGINS = 4
"""Letters of a title, at least, by which a paragraph is told to begin with it."""
LONGEST_LABEL, OFTEN, FAR_MORE = 40, 6, 3
"""Letters of a label, how often it stands in a document, and how many times as often as listed."""
FEWEST_OF_STYLE, DIFFERENT = 4, 0.75
"""Headings of a style that no list names, and the share of different titles among them, from which
they are sections deeper than any listed."""
_LISTS, _INDEXES = squashed("contents"), squashed("index")
"""Titles of what only lists the sections, and of indexes: some languages have one word for both."""
_LEFT_OUT = (squashed("references") | squashed("glossary") | _INDEXES) - _LISTS
"""Titles of sections that writers forget to list."""


def build_outline(
    paragraphs: Sequence[Paragraph],
    bookmarks: Sequence[Bookmark],
    contents: Contents,
    body_size: float,
    listings: frozenset[int],
    page_heights: Sequence[float],
    labels: PageLabels,
    damaged: Collection[int] = (),
) -> tuple[Outline, Contents]:
    """Find the sections by all three witnesses and settle where they disagree.

    Args:
        paragraphs: All paragraphs in reading order.
        bookmarks: The file's outline items, none to go without them.
        contents: What the printed contents page says, empty to go without it.
        body_size: The usual font size, in points.
        listings: Page indexes of contents pages and indexes.
        page_heights: In points.
        labels: Of the pages.
        damaged: Page indexes whose text is damaged: what looks like a heading there is none.

    Returns:
        The outline, and the contents page with the pages its entries mean.
    """
    listings = between(listings)
    listed = listed_rows(contents, paragraphs)
    pages = _Pages(paragraphs, listings, listed)
    titles = _titles_of(contents, paragraphs)
    headings = find_headings(paragraphs, body_size, listings, listed, titles)
    headings = [heading for heading in headings if heading.page not in damaged]
    records = [Record(heading=heading) for heading in headings]
    placed = list(dict.fromkeys(b for b in bookmarks if b.page is not None and b.title))
    records = _with_bookmarks(records, placed, pages)
    contents = map_to_pages(contents, labels, _places_of_listed(records, contents, pages))
    records = _with_contents(records, contents, pages)
    sources = tuple(
        name for name, there in (("bookmark", placed), ("contents", contents.entries),
                                 ("heading", headings)) if there
    )  # fmt: skip
    records = _worth_listing(records, sources)
    records = [r for r in records if r.is_listed or not _only_lists(r, len(page_heights))]
    records = without_told_again(records, paragraphs)
    if not records:
        return parts_by_pages(paragraphs, page_heights, labels, damaged), contents
    records = _halves_joined(_in_order(records, pages))
    levels = settle_levels(records)
    disputes = disputes_of_level(records, levels)
    sections = [
        as_section(record, level, disputed, pages, labels)
        for record, level, disputed in zip(records, levels, disputes, strict=True)
    ]
    return close_sections(sections, len(paragraphs), page_heights, sources), contents


def _titles_of(contents: Contents, paragraphs: Sequence[Paragraph]) -> frozenset[str]:
    """The titles of a contents page, with and without their numbers.

    One that stands in the document far more often than it is listed is a label: "Notes" under
    each entry, of which one is a section.
    """
    listed = Counter(form for e in contents.entries for form in forms_of(e.title) if form)
    texts = Counter(p.text for p in paragraphs if len(p.text) <= LONGEST_LABEL)
    labels = {
        form for text, n in texts.items() if n >= OFTEN
        for form in forms_of(text) if n > FAR_MORE * listed[form]
    }  # fmt: skip
    return frozenset(listed) - labels


def listed_rows(contents: Contents, paragraphs: Sequence[Paragraph]) -> frozenset[int]:
    """Rows of the paragraphs that are entries of a contents page, wherever on a page they stand."""
    boxes: dict[int, list[Box]] = defaultdict(list)
    for entry in (*contents.entries, *contents.figures):
        boxes[entry.at_page].append(entry.box)
    rows = set()
    for row, paragraph in enumerate(paragraphs):
        line = paragraph.pieces[0].line.box
        middle = 0.5 * (line[1] + line[3])
        for box in boxes.get(paragraph.page, ()):
            if box[1] <= middle <= box[3] and box[0] - 2 <= line[0] <= box[2]:
                rows.add(row)
    return frozenset(rows)


class _Pages:
    """Paragraphs by page, and the search for a title among them."""

    def __init__(
        self, paragraphs: Sequence[Paragraph], listings: frozenset[int],
        listed: frozenset[int] = frozenset(),
    ) -> None:  # fmt: skip
        self.paragraphs, self.listings, self._listed = paragraphs, listings, listed
        self._rows: dict[int, list[int]] = defaultdict(list)
        for row, paragraph in enumerate(paragraphs):
            self._rows[paragraph.page].append(row)
        self._order = sorted(self._rows)
        self._squashed: dict[int, str] = {}

    def heading_of(self, title: str, page: int, y: float = 0.0) -> int | None:
        """The paragraph on a page that is a title by itself, the one nearest to a height."""
        best, best_distance = None, 1e9
        for row in self._rows.get(page, ()):
            paragraph = self.paragraphs[row]
            if row in self._listed:
                continue
            if len(paragraph.text) > 2 * len(title) + 40 and "\t" not in paragraph.text[:80]:
                continue
            if self._titled(paragraph, title):
                distance = abs(paragraph.pieces[0].line.box[1] - y)
                if distance < best_distance:
                    best, best_distance = row, distance
        return best

    def described_at(self, title: str, page: int, headings: Container[int]) -> int | None:
        """The first paragraph on a page that has a title as its first line, or declares it.

        A heading may begin with it, too.
        """
        for row in self._rows.get(page, ()):
            if row in self._listed:
                continue
            first = tidy(self.paragraphs[row].pieces[0].line.text)
            if alike(title, first) or is_called(first, title):
                return row
            if row in headings and f"{first} ".startswith(f"{title} "):
                return row
        return None

    def ends_with(self, title: str, row: int) -> bool:
        """Whether a title ends with all that a paragraph says."""
        return squash(title).endswith(squash(self.paragraphs[row].text) or " ")

    def mentions(self, entry: ContentsEntry) -> bool:
        """Whether the page that an entry names has its words, wherever they stand."""
        wanted, page = squash(unnumbered(entry.title)), entry.page
        if page is None:
            return False
        if page not in self._squashed:
            rows = self._rows.get(page, ())
            self._squashed[page] = letters_of(" ".join(self.paragraphs[row].text for row in rows))
        return bool(wanted) and wanted in self._squashed[page]

    def heading_near(self, title: str, page: int) -> int | None:
        """A paragraph on a page close by that is exactly a title; listings do not count."""
        forms = forms_of(title) - {""}
        for other in sorted(range(page - NEAR, page + NEAR + 1), key=lambda p: abs(p - page)):
            if other == page or other in self.listings:
                continue
            for row in self._rows.get(other, ()):
                text = self.paragraphs[row].text
                if len(text) <= len(title) + 16 and forms & forms_of(tidy(text)):
                    return row
        return None

    def begun_with(self, title: str, page: int, least: float) -> float | None:
        """The height of the first paragraph on a page, from some height on, that begins so."""
        for row in self._rows.get(page, ()):
            line = self.paragraphs[row].pieces[0].line
            if line.box[1] >= least and tidy(line.text.replace("\t", " ")).startswith(f"{title} "):
                return line.box[1]
        return None

    def begun_by(self, titles: Sequence[str]) -> dict[str, list[int]]:
        """Pages where paragraphs begin with titles, each squashed; listings do not count."""
        by_begin: dict[str, list[str]] = defaultdict(list)
        for title in set(titles):
            if len(title) >= BEGINS:
                by_begin[title[:BEGINS]].append(title)
        found: dict[str, list[int]] = defaultdict(list)
        for row, paragraph in enumerate(self.paragraphs):
            if row in self._listed or paragraph.page in self.listings:
                continue
            said = squash(paragraph.pieces[0].line.text)
            for title in by_begin.get(said[:BEGINS], ()):
                if said.startswith(title):
                    found[title].append(paragraph.page)
        return found

    def first_after(self, page: int, y: float) -> int:
        """Row of the first paragraph that is not over a place."""
        for row in self._rows.get(page, ()):
            if self.paragraphs[row].pieces[0].line.box[3] > y:
                return row
        at = bisect_left(self._order, page + 1)
        return self._rows[self._order[at]][0] if at < len(self._order) else len(self.paragraphs)

    def found_heading(self, row: int, title: str) -> Heading:
        """A paragraph that another witness says is a heading, which it calls by a title."""
        paragraph = self.paragraphs[row]
        cell = paragraph.text.partition("\t")[0]
        if alike(title, tidy(paragraph.text.replace("\t", " "))):
            return heading_of(paragraph, row)
        return heading_of(paragraph, row, tidy(cell) if alike(title, tidy(cell)) else title)

    def _titled(self, paragraph: Paragraph, title: str) -> bool:
        """Whether a paragraph is a title, or has it in front and something else across a gap."""
        text = paragraph.text
        if alike(title, tidy(text.replace("\t", " "))):
            return True
        return "\t" in text and alike(title, tidy(text.partition("\t")[0]))


def _with_bookmarks(
    records: list[Record], bookmarks: Sequence[Bookmark], pages: _Pages
) -> list[Record]:
    """Match bookmarks to headings; those without one make records of their own."""
    if not bookmarks:
        return records
    named = [Named(b.title, b.page, b.y) for b in bookmarks]
    headings = [Named(r.title, *r.place) for r in records]
    by_row = {r.heading.paragraph: r for r in records if r.heading}
    partner: dict[int, Record] = {i: records[j] for i, j in align(named, headings)}
    n_named = Counter(squash(bookmark.title) for bookmark in bookmarks)
    made: list[Record] = []
    lost: list[int] = []
    for i, bookmark in enumerate(bookmarks):
        assert bookmark.page is not None
        record = partner.get(i)
        if record is None or record.place[0] != bookmark.page:
            row = pages.heading_of(bookmark.title, bookmark.page, bookmark.y or 0.0)
            taken = row is not None and row in by_row and by_row[row].bookmark is not None
            if row is None and record is None and n_named[squash(bookmark.title)] == 1:
                row = pages.heading_near(bookmark.title, bookmark.page)
            if row is not None and not taken:
                record = by_row.get(row) or Record(heading=pages.found_heading(row, bookmark.title))
        if record is None or record.bookmark is not None:
            lost.append(i)
            continue
        record.bookmark, record.at_bookmark = bookmark, i
        if record.heading and record.heading.paragraph not in by_row:
            by_row[record.heading.paragraph] = record
            made.append(record)
    matched = _Matched(records)
    placed = {r.at_bookmark: r.place for r in (*records, *made) if r.bookmark is not None}
    for i in lost:
        record = _reworded(i, bookmarks, records, matched, pages) or Record()
        if record.bookmark is None and record.heading is None:
            made.append(record)
            record.y = _height_of(bookmarks[i], placed.get(i - 1), pages)
        record.bookmark, record.at_bookmark = bookmarks[i], i
        placed[i] = record.place
    return records + made


def _height_of(bookmark: Bookmark, before: tuple[int, float] | None, pages: _Pages) -> float:
    """Where on its page a bookmark leads to whose words are no heading: not above the one before.

    That is the paragraph that begins with them, where there is one.
    """
    page = bookmark.page or 0
    least = before[1] if before is not None and before[0] == page else 0.0
    found = pages.begun_with(bookmark.title, page, least)
    return least if found is None else found


class _Matched:
    """Which record each bookmark has, for looking between two of them."""

    def __init__(self, records: Sequence[Record]) -> None:
        self._records = records
        at = {r.at_bookmark: k for k, r in enumerate(records) if r.bookmark is not None}
        self._bookmarks = sorted(at)
        self._at = at
        self._pages = [record.place[0] for record in records]
        self._titles = Counter(squash(record.title) for record in records)

    def n_called(self, title: str) -> int:
        """How many headings have a title."""
        return self._titles[squash(title)]

    def on_pages(self, first: int, last: int) -> tuple[int, int]:
        """Range of records on some pages."""
        return bisect_left(self._pages, first), bisect_left(self._pages, last + 1)

    def around(self, i: int) -> tuple[int, int]:
        """Records of the bookmarks before and after one, exclusive."""
        at = bisect_left(self._bookmarks, i)
        before = self._at[self._bookmarks[at - 1]] if at else -1
        after = self._at[self._bookmarks[at]] if at < len(self._bookmarks) else len(self._records)
        return before, after

    def is_matched(self, i: int) -> bool:
        """Whether a bookmark has the record of a heading; the one before the first counts."""
        return i == -1 or i in self._at


def _reworded(
    i: int,
    bookmarks: Sequence[Bookmark],
    records: Sequence[Record],
    matched: _Matched,
    pages: _Pages,
) -> Record | None:
    """The heading that a bookmark leads to whose words stand nowhere near.

    Bookmarks lead to a place just over their heading: what stands there first, if it is a
    heading that has none of its own; or the only such heading between those of the bookmarks
    before and after, when it is near. A title that comes again and again is not meant.
    """
    bookmark = bookmarks[i]
    page, y = bookmark.page, bookmark.y or 0.0
    assert page is not None
    before, after = matched.around(i)
    first, end = matched.on_pages(page - NEAR, page + NEAR)
    free = [
        record for record in records[max(first, before + 1) : min(end, after)]
        if record.bookmark is None and not _numbered_otherwise(bookmark.title, record.title)
        and matched.n_called(record.title) < 3
    ]  # fmt: skip
    first_row = pages.first_after(page, y - 4.0)
    for record in free:
        if (
            record.heading
            and record.place[0] == page
            and (0 <= record.heading.paragraph - first_row <= 1)
        ):
            return record
    only_one = len(free) == 1 and matched.is_matched(i - 1) and matched.is_matched(i + 1)
    return free[0] if only_one else None


def _numbered_otherwise(a: str, b: str) -> bool:
    number_a, number_b = number_of(a), number_of(b)
    return (
        number_a is not None and number_b is not None and number_a.identifier != number_b.identifier
    )


def _places(records: Sequence[Record]) -> dict[str, list[int]]:
    """Pages where titles are known to stand, by squashed title with and without number."""
    places: dict[str, list[int]] = defaultdict(list)
    for record in records:
        for title in {record.title, record.heading.title if record.heading else record.title}:
            for form in forms_of(title) - {""}:
                places[form].append(record.place[0])
    return places


def _places_of_listed(
    records: Sequence[Record], contents: Contents, pages: _Pages
) -> dict[str, list[int]]:
    """Pages of titles as ``_places`` tells them, by squashed title.

    Where most of the listed titles are not known, also those where paragraphs begin with one.
    A function may be described in the line that has its name, and be no heading by itself.
    """
    places = _places(records)
    unknown = [e for e in contents.entries if not forms_of(e.title) & places.keys()]
    if 2 * len(unknown) > len(contents.entries):
        for form, at in pages.begun_by([bare(entry.title) for entry in unknown]).items():
            places[form].extend(at)
    return places


def _with_contents(records: list[Record], contents: Contents, pages: _Pages) -> list[Record]:
    """Match the entries of the contents page; what only they name is looked for on its page."""
    entries = contents.entries
    if not entries:
        return records
    records = _in_order(records, pages)
    kept = [r for r in records if not _is_listed(r, contents)]
    named = [Named(r.title, r.place[0]) for r in kept]
    aligned = align([Named(e.title, e.page) for e in entries], named)
    partner = {i: _outermost_of(kept, j) for i, j in aligned}
    by_row = {r.heading.paragraph: r for r in records if r.heading}
    made = []
    n_found = 0
    for i, entry in enumerate(entries):
        record = partner.get(i)
        if record is None and (record := _on_its_page(entry, by_row, pages)):
            assert record.heading is not None
            if record.heading.paragraph not in by_row:
                by_row[record.heading.paragraph] = record
                made.append(record)
        if record is not None and record.contents is None:
            record.contents, record.at_contents = entry, i
            n_found += 1
    by_entry = {r.at_contents: r for r in [*records, *made] if r.contents is not None}
    left = [e for i, e in enumerate(entries) if i not in by_entry]
    if n_found >= TRUSTED * len(entries) or (
        n_found + sum(pages.mentions(e) for e in left) >= SEEN * len(entries)
    ):
        before: Record | None = None
        for i, entry in enumerate(entries):
            record = by_entry.get(i)
            if record is None and entry.page is not None:
                # Not found on its page: it comes after the entry before it, if that is there.
                y = before.place[1] + 0.1 if before and before.place[0] == entry.page else 0.0
                record = Record(contents=entry, at_contents=i, y=y)
                made.append(record)
            before = record or before
    return records + made


def _is_listed(record: Record, contents: Contents) -> bool:
    """Whether a record stands on a contents page, and not below its last entry."""
    page, y = record.place
    if page not in contents.pages:
        return False
    ends = [entry.box[3] for entry in contents.entries if entry.at_page == page]
    return not ends or y < max(ends)


def _outermost_of(records: Sequence[Record], at: int) -> Record:
    """A record, or one beside it on its page that has its title and is set as an outer heading.

    A chapter may follow at once on the section of the same name that ends the one before.
    """
    record = records[at]
    alike = [
        r for r in records[max(0, at - 1) : at + 2]
        if r.heading is not None and r.place[0] == record.place[0]
        and bare(r.title) == bare(record.title)
    ]  # fmt: skip
    return min([record, *alike], key=lambda r: r.heading.level if r.heading is not None else 0)


def _on_its_page(
    entry: ContentsEntry, by_row: Mapping[int, Record], pages: _Pages
) -> Record | None:
    """The heading of an entry, or a new one of the paragraph that has it as its first line.

    What is set as one with its description, or declared with its arguments, is called as the
    entry calls it.
    """
    if entry.page is None:
        return None
    row = pages.heading_of(entry.title, entry.page)
    if row is not None:
        label = by_row.get(row - 1)  # "Part I" over it, and both are one heading
        if label and label.heading and pages.ends_with(label.heading.title, row):
            return label
        return by_row.get(row) or Record(heading=pages.found_heading(row, entry.title))
    row = pages.described_at(entry.title, entry.page, by_row)
    if row is None:
        return None
    known = by_row.get(row)
    if known is None or known.heading is None:
        return Record(heading=pages.found_heading(row, entry.title))
    if known.contents is None:
        known.heading = known.heading._replace(title=pages.found_heading(row, entry.title).title)
    return known


def _in_order(records: Sequence[Record], pages: _Pages) -> list[Record]:
    return sorted(records, key=lambda r: (r.place[0], r.start_row(pages), r.place[1]))


def _halves_joined(records: Sequence[Record]) -> list[Record]:
    """Join a heading that was taken for two, where a list has its whole title."""
    joined: list[Record] = []
    for record in records:
        first = joined[-1] if joined else None
        if first and not first.is_listed and record.is_listed and _are_halves(first, record):
            assert first.heading is not None
            title = record.bookmark.title if record.bookmark else record.title
            record.heading = first.heading._replace(title=title)
            joined[-1] = record
        else:
            joined.append(record)
    return joined


def _are_halves(first: Record, second: Record) -> bool:
    one, two = first.heading, second.heading
    if one is None or two is None or one.page != two.page or two.paragraph - one.paragraph > 2:
        return False
    if number_of(one.title) and number_of(two.title):
        return False
    titles = [item.title for item in (second.bookmark, second.contents) if item is not None]
    return any(alike(f"{one.title} {two.title}", title) for title in titles)


def _worth_listing(records: Sequence[Record], sources: Sequence[str]) -> list[Record]:
    """Leave out headings that a list of all sections would have named.

    A printed contents page leaves out whole kinds of headings: where it names most headings
    of a style, one that it does not name is no heading. Bookmarks may be missing anywhere;
    but where all the others of a style have one, a single line without is no heading either,
    unless its number counts on.
    """
    if not {"bookmark", "contents"} & set(sources):
        return list(records)
    by_style: dict[object, list[Record]] = defaultdict(list)
    for record in records:
        if record.heading is not None:
            by_style[record.heading.style].append(record)
    numbers = {n.identifier for r in records if r.is_listed and (n := number_of(r.title))}
    share_in_contents, share_of_bookmarks = {}, {}
    for style, members in by_style.items():
        share_in_contents[style] = sum(r.contents is not None for r in members) / len(members)
        share_of_bookmarks[style] = sum(r.bookmark is not None for r in members) / len(members)
    n_listed = sum(record.is_listed for record in records)
    last_page = max((record.place[0] for record in records), default=0)
    is_sparse = n_listed * 5 < last_page
    listed = [r.heading for r in records if r.is_listed and r.heading and r.heading.level >= 0]
    outermost = min((heading.level for heading in listed), default=0)
    innermost = max((heading.level for heading in listed), default=len(records))
    many_called = _many_called(by_style)
    looks_listed = _set_as_listed(by_style, innermost)
    first_listed = min((heading.page, heading.y) for heading in listed) if listed else (0, 0.0)
    kept = []
    for record in records:
        if record.is_listed:
            kept.append(record)
            continue
        assert record.heading is not None
        number, style = number_of(record.title), record.heading.style
        is_deeper = record.heading.is_sure and record.heading.level > innermost
        is_deeper = is_deeper and style not in many_called
        is_kind_listed = share_in_contents[style] > 0.5
        if record.heading.is_sure and "bookmark" not in sources and not is_kind_listed:
            kept.append(record)  # a contents page may go less deep than the headings
            continue
        is_left_out = record.heading.is_sure and bare(record.title) in _LEFT_OUT
        is_left_out |= is_kind_listed and _is_next(record, numbers)
        if is_left_out or (number is not None and _counts_on(number, numbers)):
            kept.append(record)
        elif "contents" in sources and "bookmark" not in sources and record.place < first_listed:
            kept.append(record)  # a contents page leaves out what stands before it
        elif "contents" in sources:
            outside = record.heading.level < outermost
            is_set_so = style in looks_listed and record.heading.level > innermost
            if (number is None and is_set_so) or (
                share_in_contents[style] < 0.15
                and (is_sparse or outside or is_deeper or share_of_bookmarks[style] > 0.15)
            ):
                kept.append(record)
        elif 0.15 < share_of_bookmarks[style] < 0.92 or (
            share_of_bookmarks[style] <= 0.15 and (is_sparse or is_deeper)
        ):
            kept.append(record)
    return kept


def _set_as_listed(by_style: Mapping[object, Sequence[Record]], innermost: int) -> set[object]:
    """Styles of listed headings in which others lie deeper than any listed: under an appendix."""
    found = set()
    for style, members in by_style.items():
        deeper = sum(r.heading is not None and r.heading.level > innermost for r in members)
        n_listed = sum(r.contents is not None for r in members)
        if n_listed > 1 and deeper >= FEWEST_OF_STYLE:
            found.add(style)
    return found


def _many_called(by_style: Mapping[object, Sequence[Record]]) -> set[object]:
    """Styles of labels that come again ("Usage", "Value" under each function), and rare ones."""
    return {
        style for style, members in by_style.items()
        if len(members) < FEWEST_OF_STYLE
        or len({squash(r.title) for r in members}) < DIFFERENT * len(members)
    }  # fmt: skip


def _only_lists(record: Record, n_pages: int) -> bool:
    """Whether it is the title over the table of contents, which is no section of its own."""
    if number_of(record.title) is not None or bare(record.title) not in _LISTS:
        return False
    return bare(record.title) not in _INDEXES or 2 * record.place[0] < n_pages


def _is_next(record: Record, known: set[str]) -> bool:
    """Whether a heading is surely one, and its number the next after a listed chapter's."""
    number = number_of(record.title)
    is_sure = record.heading is not None and record.heading.is_sure
    return is_sure and number is not None and number_before(number) in known


def _counts_on(number: Number, known: set[str]) -> bool:
    """Whether a numbered heading goes on from listed ones: its parent or its neighbours."""
    if number.identifier in known:
        return False
    parent, _, last = number.identifier.rpartition(".")
    if parent:
        return parent in known
    if not last.isdigit():
        return False
    return {str(int(last) - 1), str(int(last) + 1)} <= known


def between(listings: frozenset[int]) -> frozenset[int]:
    """Listing pages with the single pages between two of them."""
    return listings | {page + 1 for page in listings if page + 2 in listings}


def anchored(
    outline: Outline, paragraphs: Sequence[Paragraph], page_heights: Sequence[float]
) -> Outline:
    """The outline with the paragraphs that its sections start with, told from their places."""
    pages = _Pages(paragraphs, frozenset())
    sections = []
    for section in outline.sections:
        row = pages.heading_of(section.title, section.page, section.y)
        near = row is not None and abs(paragraphs[row].pieces[0].line.box[1] - section.y) < 30.0
        first = row if near and row is not None else pages.first_after(section.page, section.y)
        sections.append(section._replace(first_paragraph=first))
    sections.sort(key=lambda s: s.first_paragraph)
    return close_sections(
        sections, len(paragraphs), page_heights, outline.sources, is_edited=outline.is_edited
    )


def heading_rows(outline: Outline) -> dict[int, int]:
    """Paragraph row to section index, for paragraphs that are a section's heading."""
    return {
        s.first_paragraph: k for k, s in enumerate(outline.sections) if "heading" in s.witnesses
    }
