"""Who wrote a document: the people or bodies named below its title."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence, Set
from functools import reduce
from itertools import pairwise, takewhile
from typing import TYPE_CHECKING

from wide_margin.core.digest.front import (
    FULL_PAGE,
    Fact,
    blocks_of,
    is_of_paragraph,
    letters_of,
    line_locator,
)
from wide_margin.core.digest.names import (
    AUTHORS,
    ITS_DATE,
    LABEL_OF_PEOPLE,
    WHICH_PEOPLE,
    is_body,
    is_rare_name,
    is_surely_name,
    names_going_on,
    names_in_line,
    people_in_block,
    same_person,
    split_people,
)
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex
from wide_margin.core.layout import STOPS, fold
from wide_margin.core.outline.candidates import BULLET

if TYPE_CHECKING:
    from wide_margin.core.digest.front import FrontLine
    from wide_margin.core.document import ReadDocument

NEXT = 3
"""Lines after a title in which the name of nobody but an author is set like a heading."""
SMALLER = 0.93
"""Names in type smaller than the first ones' by more are those of their places of work."""
HELD = regex(
    r"^\W*(?:copyright\s*(?:©|\(c\))?|©|\(c\))\s*(?:by\s+)?\(?(?:\d{4}(?:\s*[-–,]\s*\d{2,4})*)?\)?\s*,?\s*(?:by\s+)?(?=[^\W\d_])", re.I
)  # fmt: skip
"""Comes before those who hold the copyright."""
_FIRM = regex(
    r"\b(?:group|international|electronics|consultants?|consulting|tools|systems?|software|solutions|networks?|communications?|technologies"
    r"|labs?|studios?|media|rights|reserved|partners|associates|industries|enterprises|ag|bv|cc|plc|sa|llc|n\.v)\b\.?", re.I
)  # fmt: skip
"""Words of the name of a firm."""
_TEAM = regex(r"\b[Tt]eam$")
"""Ends the name of several who work together."""
_POSTCODE = regex(r"(?:[A-Z]{1,2}[- ])?\d{4,6}\b")
_STREET = regex(r"\s\d{1,4}[a-z]?$")
LONG_TITLE = 8
"""Letters from which a part of a section's title is no coincidence."""
MOST_LOOKED_AT = 4_000
"""Sentences in which words are looked for that a name might be made of."""
_BY_ALONE = regex(
    r"\W*(?:(?:prepared|written|edited|compiled|submitted|presented|created|produced|a thesis|a report)\s+)?by\W*$"
    r"|\W*(?:authors?|editors?)\s*:?\s*$", re.I
)  # fmt: skip
"""A line that says that names follow."""
_AUTHORS = regex(
    rf"\W*(?:\d[\d.]*\s+)?{WHICH_PEOPLE}(?:{AUTHORS})"
    r"(?:(?:\s+and|\s*[,/&])\s+(?:contributors?|maintainers?|copyright|licen[sc]e|credits|history|contact))?\W*$", re.I
)  # fmt: skip
"""A heading under which they stand."""
_BY_EACH = regex(r"\bby\s+((?-i:[A-ZÀ-Þ])[^,;.()<]*?)(?=\s*(?:[,;.(<]|$))")
"""Those by whom each part was made: "lids by Ann Bale and Cy Dow, ropes by Di Eft"."""
_TOLD = regex(rf"\W*{LABEL_OF_PEOPLE}(?:\(\w{{1,3}}\))?\s*:\s*(?=\w)", re.I)
"""The beginning of a line that gives them."""
_OF_ANOTHER = regex(
    r"\W*(?:(?:co-?)?(?:supervis\w+|advis[eo]r\w*)|referees?|examin\w+|betreu\w+|(?:erst|zweit)?gutachter\w*"
    r"|(?:cor)?relator[ei]|orientador\w*|coorientador\w*|(?:co-?)?direct(?:eur|rice|or|ora)\w*|promot\w+|vedoucí|opiekun"
    r"|handledare|vejleder|veileder|научный руководитель|指導教員|导师)\b[^:]{0,20}(?::|$)", re.I
)  # fmt: skip
"""Says that the name after it is that of who looked after the work."""
_SMALL_WORD = regex(r"(?<![\w.@/-])[^\W\d_A-ZÀ-Þ]{3,}(?![\w@/-]|\.\w)")
_SPELLED_ADDRESS = regex(
    r"(?:mailto:\s?)?[\w.]+(?:\s[\w.]+){0,4}\s(?:at|\(at\)|\[at\])\s[\w-]+"
    r"(?:\.[^\W\d_]{2,}|(?:\s[\w-]+)?\s(?:dot|\(dot\)|\[dot\])\s[^\W\d_]{2,})+",
    re.I,
)
"""An address of mail put into words: "mary dot green at wells dot net"."""
_INITIAL = regex(r"\b[^\W\d_a-z]\.")
_JOINS = frozenset(["and", "und", "et", "y", "e", "en", "och", "og", "with"])
"""Stand between the names of a list."""


def authors_of(
    document: ReadDocument,
    lines: Sequence[FrontLine],
    rest: Sequence[FrontLine],
    title: Sequence[FrontLine] = (),
) -> tuple[Fact, ...]:
    """The people or bodies named after the title; those of the metadata where they are printed.

    Args:
        document: It.
        lines: Of its front.
        rest: Those after the title.
        title: Those of the title, over which names may stand as well.
    """
    found: list[Fact] = []
    titles = {letters_of(section.title) for section in document.outline.sections}
    labels = [k for k, line in enumerate(rest) if _BY_ALONE.match(line.text)]
    after = rest[labels[0] + 1 :] if labels else list(rest)
    size = 0.0
    others = _of_others(after) | _of_text(document, after)
    by_line = list(_names_by_line(after, _streets(lines)))
    told = _told(by_line)
    for line, names in told or by_line:
        if id(line) in others:
            continue
        is_told = (bool(labels) and line is after[0]) or bool(ITS_DATE.search(line.text))
        is_rare = is_told or (line in rest[:NEXT] and all(map(is_rare_name, names)))
        if (letters_of(line.text) in titles and not is_rare) or line.size < SMALLER * size:
            continue
        for name in names:
            is_known = any(same_person(name, fact.text) for fact in found)
            is_other = _is_heading_or_words(document, name, set() if is_rare else titles)
            if not is_known and not is_other:
                found.append(Fact(name, line_locator(document, [line], name)))
                size = size or line.size
    # The school for whose theses something is made stands under who made it as well.
    of_title = letters_of(" ".join(line.text for line in title))
    found = [fact for fact in found if letters_of(fact.text) not in of_title] or found
    # People come first; a team behind them is where they work.
    if found and not _TEAM.search(found[0].text):
        found = [fact for fact in found if not _TEAM.search(fact.text)]
    printed = [
        fact for name in split_people(document.facts.author)
        if (fact := _printed(document, lines, name)) is not None
    ]  # fmt: skip
    if not found and not printed:
        found = _above_title(document, lines, title) or _under_heading(document, lines)
    if not found and (labelled := _labelled(document, lines, printed)):
        return tuple(labelled)
    if not found:
        found = _with_those_beside(document, lines, printed) or _holders(document, lines)
        found = found or _of_section(document)
    elif printed and len(printed) < len(found) and not told:
        # The page may name places and offices that look like people; the file knows some of them.
        known = [f for f in found if any(same_person(f.text, p.text) for p in printed)]
        found = known if len(known) == len(printed) else found
    return tuple(found)


def _told(by_line: list[tuple[FrontLine, list[str]]]) -> list[tuple[FrontLine, list[str]]]:
    """The first line that says whose its names are, and those its list goes on in."""
    at = next(
        (k for k, (line, names) in enumerate(by_line) if names and _TOLD.match(line.text)), -1
    )
    return list(takewhile(lambda item: bool(item[1]), by_line[at:])) if at >= 0 else []


def _of_others(lines: Sequence[FrontLine]) -> set[int]:
    """Lines, by their ids, that name who looked after a thesis: "Supervisor: …", or under that."""
    found = {id(line) for line in lines if _OF_ANOTHER.match(line.text)}
    for line, following in pairwise(lines):
        if id(line) in found and line.text.rstrip().endswith(":"):
            found.add(id(following))
    return found


def _of_text(document: ReadDocument, lines: Sequence[FrontLine]) -> set[int]:
    """Lines, by their ids, that are a list's or, on a full page, belong to running text."""
    is_full = len(lines) > FULL_PAGE
    return {
        id(line) for line in lines
        if BULLET.match(line.text)
        or (is_full and (is_of_paragraph(document, line) or _ends_text(document, line)))
    }  # fmt: skip


def _ends_text(document: ReadDocument, line: FrontLine) -> bool:
    """Whether a line is not the first of a sentence: "… ask the / Harbour Office."."""
    if line.paragraph < 0:
        return False
    text = document.paragraphs[line.paragraph].text
    return text.rstrip().endswith(tuple(STOPS)) and not text.startswith(line.text)


def _only_names(text: str) -> list[str]:
    """The names of a line that has nothing else but what joins them; none of any other line."""
    names = names_in_line(text)
    rest = reduce(lambda left, name: left.replace(name, " "), names, text)
    return [] if set(re.findall(r"[^\W\d_]+", rest)) - _JOINS else names


def _above_title(
    document: ReadDocument, lines: Sequence[FrontLine], title: Sequence[FrontLine]
) -> list[Fact]:
    """The people of lines of names alone on the first page, under which or after which the title stands."""
    if not title:
        return []
    top = float("inf") if title[0].page else title[0].top
    found: list[Fact] = []
    for line in (line for line in lines if not line.page and line.top < top):
        names = _only_names(line.text)
        if names and all(is_rare_name(name) or _INITIAL.search(name) for name in names):
            found += [Fact(name, line_locator(document, [line], name)) for name in names]
        elif found:
            break
    return found


def _under_heading(document: ReadDocument, lines: Sequence[FrontLine]) -> list[Fact]:
    """The people of the line under a heading that says so, on any page of the front."""
    for line, following in pairwise(lines):
        if not _AUTHORS.match(line.text) or following.page != line.page:
            continue
        names = [name for name in names_in_line(following.text) if is_rare_name(name)]
        if names:
            return [Fact(name, line_locator(document, [following], name)) for name in names]
    return []


def _labelled(
    document: ReadDocument, lines: Sequence[FrontLine], printed: Sequence[Fact]
) -> list[Fact]:
    """The people of a line of the front that says they are the authors: "Authors: A. Holm".

    Where the file names some as well, one of them is among those.
    """
    for line in lines:
        label = _TOLD.match(line.text)
        names = names_in_line(line.text[label.end() :]) if label else []
        is_known = any(same_person(name, fact.text) for name in names for fact in printed)
        if names and (is_known if printed else all(map(is_surely_name, names))):
            return [Fact(name, line_locator(document, [line], name)) for name in names]
    return []


def row_on_authors(document: ReadDocument) -> int | None:
    """Row of the first sentence of the section on the authors, wherever it stands."""
    for section in document.outline.sections:
        if _AUTHORS.match(section.title):
            rows = document.rows_of(document.under_heading(section), section.end_paragraph)
            return rows[0] if rows else None
    return None


def _of_section(document: ReadDocument) -> list[Fact]:
    """The people whom that sentence names."""
    if (row := row_on_authors(document)) is None:
        return []
    said = document.text.sentences[row].text
    names = [name for part in _BY_EACH.findall(said) for name in names_in_line(part)]
    names = names or _only_names(said)
    return [Fact(name, locator_for(document, row)) for name in names if is_rare_name(name)]


def _holders(document: ReadDocument, lines: Sequence[FrontLine]) -> list[Fact]:
    """The people who hold the copyright, where lines of the front name them and nobody else."""
    found: dict[str, Fact] = {}
    for line in lines:
        for name in people_holding(line.text):
            found.setdefault(name, Fact(name, line_locator(document, [line], name)))
    return list(found.values())


def people_holding(text: str) -> list[str]:
    """The people who hold the copyright, where a text says so and names nobody else."""
    held = HELD.match(text)
    names = _only_names(text[held.end() :]) if held else []
    is_other = any(is_body(name) or _FIRM.search(name) or name.isupper() for name in names)
    return [] if is_other else names


def _with_those_beside(
    document: ReadDocument, lines: Sequence[FrontLine], printed: list[Fact]
) -> list[Fact]:
    """People whom the file names, with all others of a line that has nothing but names."""
    for line in lines:
        names = _only_names(line.text)
        if len(names) > 1 and any(
            same_person(name, fact.text) for name in names for fact in printed
        ):
            return [Fact(name, line_locator(document, [line], name)) for name in names]
    return printed


def _streets(lines: Sequence[FrontLine]) -> set[int]:
    """Lines, by their ids, that are a street with its number, over a place with its own."""
    return {
        id(line) for line, following in pairwise(lines)
        if _STREET.search(line.text) and _POSTCODE.match(following.text)
    }  # fmt: skip


def _names_by_line(
    lines: Sequence[FrontLine], streets: Set[int]
) -> Iterator[tuple[FrontLine, list[str]]]:
    """The names that lines give; a list of people with their places may run over several."""
    after = {id(line): following.text for line, following in pairwise(lines)}
    for block in blocks_of(lines):
        people = people_in_block(" ".join(line.text for line in block))
        for line in block:
            if people:
                told = [name for name in people if name.split()[-1] in line.text]
                people = [name for name in people if name not in told]
                yield line, told
            elif id(line) not in streets:
                yield line, names_going_on(line.text, after.get(id(line), ""))


def _is_heading_or_words(document: ReadDocument, name: str, titles: set[str]) -> bool:
    """Whether what looks like a name is that of a section, or words that the text writes small."""
    letters = letters_of(name)
    if len(letters) >= LONG_TITLE and any(letters in title for title in titles):
        return True
    words = {word for word in re.findall(r"[^\W\d_]{3,}", name) if word[0].isupper()}
    if len(words) < 2 or is_body(name):
        return False
    left = {word.lower() for word in words}
    small = name.lower()  # "© 2005 anna holm" is a name as well
    for sentence in document.text.sentences[:MOST_LOOKED_AT]:
        said = _SPELLED_ADDRESS.sub(" ", sentence.text).replace(small, " ")
        left -= set(_SMALL_WORD.findall(said))
        if not left or (len(words) > 2 and len(left) == 1):  # one of three may be written large
            return True
    return False


def _printed(document: ReadDocument, lines: Sequence[FrontLine], name: str) -> Fact | None:
    wanted = fold(name)
    for line in lines:
        if wanted in fold(line.text):
            return Fact(name, line_locator(document, [line], name))
    for one, two in pairwise(lines):
        if wanted in fold(f"{one.text} {two.text}"):
            return Fact(name, line_locator(document, [one, two], name))
    return None
