"""What a document is: title, authors, date and the like, as they are printed on its front.

The page is the authority. The file's metadata is a second witness: it helps to choose among what
is printed, and where it says something else this is told. What is not printed is not stated.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from wide_margin.core.digest.front import (
    FrontLine,
    begins_abstract,
    front_lines,
    line_locator,
    running_lines,
)
from wide_margin.core.digest.kinds import DocumentKind, kind_of
from wide_margin.core.digest.names import (
    is_body,
    names_in_line,
    people_in_block,
    same_person,
    split_people,
)
from wide_margin.core.document import Locator, ReadDocument, locator_for
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.plain import one_line

_NO_TITLES = squashed(
    "contents", "list_of", "index", "preface", "abstract", "acknowledgements", "glossary"
) | frozenset(
    ["dedication", "foreword", "widmung", "dedicace", "dedicatoria", "introduction", "einleitung", "einfuhrung", "introduccion", "introduzione", "introducao",
     "inleiding", "generalinformation"]
)  # fmt: skip
"""What heads a part of a document is not what the document is called."""
SAME_SIZE = 0.94
"""Lines of a title have at least this share of its largest line's size."""
LONGEST_TITLE, LONGEST_SUBTITLE = 30, 20
"""Words."""
LONGEST_SENTENCE = 10
"""Words; what is longer and ends in a full stop is a sentence."""
TITLE_PAGES = 3
TITLE_PAGE_LINES = 8
"""A page with no more lines below its title is a title page, and no first page of text."""
APART, APART_ON_TITLE_PAGE = 2.2, 3.0
"""Lines of one title lie at most so many sizes apart, from top to top."""
_MONTHS = {
    name: number
    for number, names in enumerate(
        (
            "january jan januar janvier enero gennaio janeiro januari",
            "february feb februar février fevrier febrero febbraio fevereiro februari",
            "march mar märz mars marzo março maart", "april apr avril abril aprile",
            "may mai mayo maggio maio mei", "june jun juni juin junio giugno junho",
            "july jul juli juillet julio luglio julho",
            "august aug août aout agosto augustus",
            "september sep sept septembre septiembre settembre setembro",
            "october oct oktober octobre octubre ottobre outubro",
            "november nov novembre noviembre novembro",
            "december dec dezember décembre decembre diciembre dicembre dezembro",
        ),
        start=1,
    )
    for name in names.split()
}  # fmt: skip
_MONTH = "(?:" + "|".join(sorted(_MONTHS, key=len, reverse=True)) + r")\.?"
_YEAR = r"(?P<year>(?:1[5-9]|20)\d\d)"
_DATES = tuple(
    regex(pattern, re.I)
    for pattern in (
        rf"\b{_YEAR}-(?P<m>0[1-9]|1[0-2])-(?P<day>0[1-9]|[12]\d|3[01])\b",
        rf"(?<![.\d])\b(?P<day>0?[1-9]|[12]\d|3[01])(?:st|nd|rd|th|\.|er)?\s+(?:of\s+|de\s+)?(?P<month>{_MONTH}),?\s+(?:de\s+)?{_YEAR}\b",
        rf"\b(?P<day>0?[1-9]|[12]\d|3[01])[-–](?P<month>{_MONTH})[-–]{_YEAR}\b",
        rf"\b(?P<month>{_MONTH})\s+(?P<day>0?[1-9]|[12]\d|3[01])(?:st|nd|rd|th)?,?\s+{_YEAR}\b",
        rf"\b(?P<month>{_MONTH}),?\s+(?:de\s+)?{_YEAR}\b",
        rf"\b{_YEAR}-(?P<m>0[1-9]|1[0-2])\b",
        rf"\b(?P<day>0?[1-9]|[12]\d|3[01])[./](?P<m>0?[1-9]|1[0-2])[./]{_YEAR}\b",
        rf"\b{_YEAR}/(?P<m>0?[1-9]|1[0-2])/(?P<day>0?[1-9]|[12]\d|3[01])\b",
        rf"(?<![\d.–-]){_YEAR}(?![\d.]?\d|[–-]\d)",
    )
)  # fmt: skip
"""From the surest form to the bare year."""
_OF_COPYRIGHT = regex(r"©|\(c\)|copyright", re.I)
_OF_ANOTHER = regex(
    r"\b(?:gnu|free software foundation|license|licence|isbn|issn|doi|vol(?:ume)?\.?\s*\d"
    r"|originally|first (?:published|edition)|arxiv|permission)\b", re.I
)  # fmt: skip
_TELLS_DATE = regex(
    r"\b(?:date|dated|version|edition|release|updated?|revised|revision|as of|stand|compiled|built"
    r"|published|issued|printed|last (?:changed|modified))\b", re.I
)  # fmt: skip
_VERSION = regex(
    r"\b(?:for\s+)?(?P<word>version|release|edition|revision|auflage|édition|edición|edizione)\s+"
    r"(?P<number>\d+(?:\.\d+)*[\w.-]*|[IVX]+\b)"
    r"|\b(?P<ordinal>\d+(?:st|nd|rd|th)|first|second|third|fourth|fifth|sixth|seventh|revised)\s+(?P<word2>edition|release)\b"
    r"|(?:^|\s)[vV](?P<short>\d+(?:\.\d+)+)\b", re.I
)  # fmt: skip
_LICENCE = regex(
    r"\b(?:permission is granted|licen[sc]ed under|under the terms of|redistribut\w+ (?:it|and)|free documentation licen[sc]e"
    r"|general public licen[sc]e|creative commons|public domain|all rights reserved|may be (?:copied|reproduced|distributed))\b", re.I
)  # fmt: skip
_PUBLISHED = regex(
    r"\b(?:journal of|journal|proceedings|transactions on|published (?:by|in|as)|press\b|verlag\b|publish(?:er|ing|ers)\b"
    r"|technical report|working paper|university of|éditions|editorial (?-i:[A-ZÁÉÍÓÚ]))\b", re.I
)  # fmt: skip
_ONLY_KIND = regex(
    r"^\W*(?:(?:the|a|user'?s?|users['’]|technical|reference|research|working|original|review|short|quick|developer'?s?"
    r"|release|installation|final|annual|white|discussion|progress|internal|master'?s|doctoral|phd|bachelor'?s"
    r"|programmer'?s|administrator'?s|getting started|owner'?s|instruction|application|contributed)\s+){0,3}"
    r"(?:report|guide|manual|notes?|article|paper|papers|thesis|dissertation|documentation|handbook|tutorial|reference"
    r"|specification|vignette|communication|handbuch|benutzerhandbuch|anleitung|bericht|dokumentation|manuel|guide|rapport"
    r"|manuale|guida|manual de usuario|guía|handleiding)\W*$", re.I
)  # fmt: skip
"""Says of what kind a document is, and not what it is called."""
_SERIES = regex(
    r"\b(?:journal of|the journal|proceedings of|transactions on|annals of|letters|bulletin of)\b",
    re.I,
)
OF_KIND, OF_SERIES, LONGEST_SERIES = 1.2, 2.5, 8
"""Taken from the score of a title that only names a kind, or the journal it came out in; words."""
_POOR_TITLE = regex(
    r"^(?:untitled|no title|title|document\d*|microsoft word|slide \d|\W*)$|\.(?:docx?|tex|dvi|pdf|indd|fm|rnw)\b|^microsoft",
    re.I,
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Fact:
    """One thing the document says of itself, and where."""

    text: str
    locator: Locator


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
    lines = _without_listings(front_lines(document))
    title_lines = _title(document, lines)
    title = _fact(document, title_lines) if title_lines else None
    named = _metadata_title(document)
    if title is not None:
        title = replace(title, text=_closed_up(title.text).rstrip(" *∗†‡§¶"))
    if title is not None and _letters(title.text) == _letters(named):
        title = replace(title, text=one_line(named))  # the page has the letters, this the blanks
    rest = _after(lines, title_lines)
    subtitle = _subtitle(title_lines, rest)
    authors = _authors(document, lines, [line for line in rest if line not in subtitle])
    facts = Facts(
        kind=kind_of(document, title.text if title else ""),
        language=document.index.language,
        n_pages=document.facts.n_pages,
        n_words=sum(len(s.text.split()) for s in document.text.sentences),
        title=title,
        subtitle=_fact(document, subtitle) if subtitle else None,
        authors=authors,
        date=_date(document, lines, title_lines, rest) or _running_date(document),
        edition=_edition(document, [*lines, *running_lines(document)], title_lines),
        place=_published(document, lines, title_lines),
        licence=_licence(document),
    )
    return _with_disagreements(document, facts)


_LISTS = squashed("contents", "list_of", "index")
_ROW_END = regex(r"(?:\s{3,}|(?:\s?\.){3,}\s*)(?:\d{1,4}|[ivxlc]{1,6})$")
"""A leader, or a wide gap, and a page number."""
LISTED = 3
"""So many rows one after the other are a listing, under a heading or not."""


def _without_listings(lines: Sequence[FrontLine]) -> list[FrontLine]:
    """The lines without tables of contents: what they name is no title and no author."""
    kept: list[FrontLine] = []
    lists = -1
    for k, line in enumerate(lines):
        if line.page == lists:
            continue
        following = lines[k : k + LISTED]
        is_row = len(following) == LISTED and all(
            _ROW_END.search(row.text) and row.page == line.page for row in following
        )
        if is_row or bare(line.text) in _LISTS:
            lists = line.page
            continue
        kept.append(line)
    return kept


# --- title


def _title(document: ReadDocument, lines: Sequence[FrontLine]) -> list[FrontLine]:
    """The lines of the title: the largest type of the first pages that reads like one."""
    named = _metadata_title(document)
    if spaced := _spaced_title(lines, named):
        return spaced
    best: list[FrontLine] = []
    best_score = 0.0
    for page in range(TITLE_PAGES):
        on_page = [line for line in lines if line.page == page]
        is_title_page = len(on_page) <= TITLE_PAGE_LINES + 4
        for block in _blocks(on_page, APART_ON_TITLE_PAGE if is_title_page else APART):
            score = _title_score(block, on_page, named, page)
            if score > best_score:
                best, best_score = block, score
    return best


def _blocks(lines: Sequence[FrontLine], apart: float = APART) -> Iterator[list[FrontLine]]:
    """Lines of one size that follow each other closely, in a column of their own or not."""
    blocks: list[list[FrontLine]] = []
    for line in lines:
        for block in reversed(blocks):
            last = block[-1]
            if line.top - last.top <= apart * line.size and _look_alike(line, last):
                block.append(line)
                break
            if _overlap_across(line, last):
                blocks.append([line])
                break
        else:
            blocks.append([line])
    yield from blocks


def _look_alike(line: FrontLine, last: FrontLine) -> bool:
    sizes = line.size, last.size
    return (
        min(sizes) >= SAME_SIZE * max(sizes)
        and line.is_bold == last.is_bold
        and _overlap_across(line, last)
    )


def _overlap_across(line: FrontLine, other: FrontLine) -> bool:
    """Whether lines stand one above the other, or on either side of the middle of one column."""
    return line.left < other.right and other.left < line.right


def _title_score(
    block: Sequence[FrontLine], on_page: Sequence[FrontLine], named: str, page: int
) -> float:
    text = " ".join(line.text for line in block)
    n_words, n_letters = len(text.split()), sum(line.n_letters for line in block)
    if n_letters < 3 or n_words > LONGEST_TITLE or begins_abstract(text):
        return 0.0
    if n_words > LONGEST_SENTENCE and text.endswith((".", "。")):
        return 0.0
    number = number_of(text)
    if bare(number.rest if number else text) in _NO_TITLES or _is_torn(text):
        return 0.0
    largest = max(line.size for line in on_page)
    usual = sorted(line.size for line in on_page for _ in line.text)[
        sum(len(line.text) for line in on_page) // 2
    ]
    size = max(line.size for line in block)
    score = 2.0 * size / largest + min(size / max(usual, 1.0), 2.5) - 0.6 * page
    score += 0.4 if any(line.is_bold for line in block) else 0.0
    score -= 0.8 * (block[0].top > 450)
    score -= 1.5 * (number is not None and number.scheme == "decimal")
    score -= 1.2 * (n_letters < 0.5 * len(text.replace(" ", "")))
    score -= 1.0 * (len(block) == 1 and bool(names_in_line(text)) and size < largest)
    score -= OF_KIND * bool(_ONLY_KIND.match(text))
    score -= OF_SERIES * (bool(_SERIES.search(text)) and n_words <= LONGEST_SERIES)
    if named:
        score += 3.0 * _overlap(text, named)
    return score


def _is_torn(text: str) -> bool:
    """Whether a text is bits of one or two signs: letters of a font that says nothing of them."""
    tokens = text.split()
    is_spaced = len(tokens) >= 6 and sum(len(token) == 1 for token in tokens) >= 0.8 * len(tokens)
    return len(tokens) > 2 and not is_spaced and all(len(token) <= 2 for token in tokens)


def _closed_up(text: str) -> str:
    """A text set letter by letter as words: "W e l l s" is "Wells"."""
    tokens = text.split()
    if len(tokens) < 6 or sum(len(token) == 1 for token in tokens) < 0.8 * len(tokens):
        return text
    return re.sub(r"(?<=\b\w) (?=\w\b)", "", text)


def _metadata_title(document: ReadDocument) -> str:
    title = document.facts.title
    is_person = bool(names_in_line(title)) and len(title.split()) <= 4
    return "" if _POOR_TITLE.search(title) or (is_person and not document.facts.author) else title


def _spaced_title(lines: Sequence[FrontLine], named: str) -> list[FrontLine]:
    """Lines set letter by letter ("A  R E P O R T") that are the metadata's title to the letter."""
    wanted, found = _letters(named), list[list[FrontLine]]()
    for k, line in enumerate(lines):
        tokens = line.text.split()
        if len(tokens) < 6 or sum(len(token) == 1 for token in tokens) < 0.8 * len(tokens):
            continue
        for end in range(k + 1, min(k + 4, len(lines) + 1)):
            if wanted and _letters("".join(part.text for part in lines[k:end])) == wanted:
                found.append(list(lines[k:end]))
    return max(found, key=lambda block: block[0].size, default=[])  # a half title is smaller


def _letters(text: str) -> str:
    return "".join(re.findall(r"\w", text.casefold()))


def _overlap(one: str, other: str) -> float:
    """Share of the words of two texts that are in both."""
    a, b = ({w for w in re.findall(r"\w+", text.casefold())} for text in (one, other))
    return 2 * len(a & b) / (len(a) + len(b)) if a and b else 0.0


def _after(lines: Sequence[FrontLine], title: Sequence[FrontLine]) -> list[FrontLine]:
    """What follows the title on its page, up to the abstract, the first heading or running text."""
    if not title:
        return [line for line in lines if line.page == 0]
    found: list[FrontLine] = []
    is_full = sum(line.page == title[0].page for line in lines) > FULL_PAGE
    for line in lines:
        if line.page != title[0].page or line.top <= title[-1].top or line in title:
            continue
        if is_full and not any(_overlap_across(line, part) for part in title):
            continue  # the text of another column
        if begins_abstract(line.text) or _is_running_text(line, found):
            break
        found.append(line)
    return found


def _is_running_text(line: FrontLine, before: Sequence[FrontLine]) -> bool:
    words = line.text.split()
    n_small = sum(word[:1].islower() for word in words)
    runs_on = len(words) >= 9 and n_small >= 0.6 * len(words)
    return runs_on and bool(before)


def _subtitle(title: Sequence[FrontLine], rest: Sequence[FrontLine]) -> list[FrontLine]:
    """The block right below the title, smaller than it and no name, date or version."""
    if not title or not rest:
        return []
    block = next(_blocks(rest), [])
    text = " ".join(line.text for line in block)
    kinds = [line for line in rest if _ONLY_KIND.match(line.text)]
    if kinds and len([line for line in rest if line.page == kinds[0].page]) <= TITLE_PAGE_LINES:
        return kinds[:1]
    close = block[0].top - title[-1].top <= 4.5 * title[-1].size
    reads = (
        1 < len(text.split()) <= LONGEST_SUBTITLE
        and not any(names_in_line(line.text) for line in block)
        and not (text.islower() and names_in_line(text.title()))
        and not people_in_block(text)
        and not _SENTENCE.search(text)
        and sum(map(str.isalpha, text)) >= 0.6 * len(text.replace(" ", ""))
        and not _VERSION.search(text)
        and not any(pattern.search(text) for pattern in _DATES)
        and not re.match(r"by\b|\W", text, re.I)
        and "@" not in text
    )
    on_page = [line for line in rest if line.page == block[0].page]
    larger = block[0].size > 1.05 * min(line.size for line in on_page)
    is_alone = len(on_page) <= TITLE_PAGE_LINES
    return block if close and reads and (larger or is_alone) else []


_SENTENCE = regex(
    r"[.!?]\s+[A-Z]|\b(?:the|of|and|a|an|to|by|from|for|with|in|on|or)$"
    r"|^(?:this|these|those|you|if|please)\b", re.I
)  # fmt: skip
"""What begins, ends within or runs over a sentence is no subtitle."""

# --- authors

SMALLER = 0.93
"""Names in type smaller than the first ones' by more are those of their places of work."""
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
_SMALL_WORD = regex(r"(?<![\w.@/-])[^\W\d_A-ZÀ-Þ]{3,}(?![\w@/-]|\.\w)")


def _authors(
    document: ReadDocument, lines: Sequence[FrontLine], rest: Sequence[FrontLine]
) -> tuple[Fact, ...]:
    """The people or bodies named after the title; those of the metadata where they are printed."""
    found: list[Fact] = []
    titles = {_letters(section.title) for section in document.outline.sections}
    labels = [k for k, line in enumerate(rest) if _BY_ALONE.match(line.text)]
    after = rest[labels[0] + 1 :] if labels else list(rest)
    size = 0.0
    for line, names in _names_by_line(after):
        if _letters(line.text) in titles or line.size < SMALLER * size:
            continue
        for name in names:
            is_known = any(same_person(name, fact.text) for fact in found)
            if not is_known and not _is_heading_or_words(document, name, titles):
                found.append(Fact(name, line_locator(document, [line], name)))
                size = size or line.size
    printed = [
        fact for name in split_people(document.facts.author)
        if (fact := _printed(document, lines, name)) is not None
    ]  # fmt: skip
    if not found:
        found = printed
    elif printed and len(printed) < len(found):
        # The page may name places and offices that look like people; the file knows some of them.
        known = [f for f in found if any(same_person(f.text, p.text) for p in printed)]
        found = known if len(known) == len(printed) else found
    return tuple(found)


def _names_by_line(lines: Sequence[FrontLine]) -> Iterator[tuple[FrontLine, list[str]]]:
    """The names that lines give; a list of people with their places may run over several."""
    after = {id(line): following.text for line, following in pairwise(lines)}
    for block in _blocks(lines):
        people = people_in_block(" ".join(line.text for line in block))
        for line in block:
            is_street = _STREET.search(line.text) and _POSTCODE.match(after.get(id(line), ""))
            if people:
                told = [name for name in people if name.split()[-1] in line.text]
                people = [name for name in people if name not in told]
                yield line, told
            elif not is_street:
                yield line, names_in_line(line.text)


def _is_heading_or_words(document: ReadDocument, name: str, titles: set[str]) -> bool:
    """Whether what looks like a name is that of a section, or words that the text writes small."""
    letters = _letters(name)
    if len(letters) >= LONG_TITLE and any(letters in title for title in titles):
        return True
    words = {word for word in re.findall(r"[^\W\d_]{3,}", name) if word[0].isupper()}
    if len(words) < 2 or is_body(name):
        return False
    left = {word.lower() for word in words}
    for sentence in document.text.sentences[:MOST_LOOKED_AT]:
        left -= set(_SMALL_WORD.findall(sentence.text))
        if not left or (len(words) > 2 and len(left) == 1):  # one of three may be written large
            return True
    return False


def _printed(document: ReadDocument, lines: Sequence[FrontLine], name: str) -> Fact | None:
    wanted = name.casefold()
    for line in lines:
        if wanted in line.text.casefold():
            return Fact(name, line_locator(document, [line], name))
    for one, two in pairwise(lines):
        if wanted in f"{one.text} {two.text}".casefold():
            return Fact(name, line_locator(document, [one, two], name))
    return None


# --- date, edition, place, licence


def _date(
    document: ReadDocument,
    lines: Sequence[FrontLine],
    title: Sequence[FrontLine],
    rest: Sequence[FrontLine],
) -> Fact | None:
    """The date of issue: near the title, or where a line says that it is one, or of the copyright."""
    best: Fact | None = None
    best_score = 0.0
    title_page = title[0].page if title else 0
    n_front = _front_end(document)
    is_full = sum(line.page == title_page for line in lines) > FULL_PAGE
    for line in lines:
        if line.page > n_front:
            break
        kind = document.paragraphs[line.paragraph].kind if line.paragraph >= 0 else ""
        tells = bool(_TELLS_DATE.search(line.text))
        is_text = _is_of_paragraph(document, line) or (is_full and not _is_at(line, title, rest))
        if kind == "code" or (is_text and not tells):
            continue
        for rank, pattern in enumerate(_DATES):
            match = pattern.search(line.text)
            if match is None:
                continue
            score = 3.0 - 0.25 * rank - 0.5 * abs(line.page - title_page)
            share = len(match[0]) / max(len(line.text), 1)
            score += 1.5 * share + 1.0 * bool(_TELLS_DATE.search(line.text))
            score -= 1.5 * bool(_OF_ANOTHER.search(line.text))
            score -= 0.8 * bool(_OF_COPYRIGHT.search(line.text))
            score -= 1.5 * (len(line.text.split()) > 12 and not _TELLS_DATE.search(line.text))
            if score > best_score:
                best_score = score
                best = Fact(_iso(match), line_locator(document, [line], match[0]))
            break
    return best if best_score >= LEAST_OF_DATE else None


def _is_at(line: FrontLine, title: Sequence[FrontLine], rest: Sequence[FrontLine]) -> bool:
    """Whether a line stands above the title or follows it, before the text, or at the foot."""
    if not title or line.page != title[0].page:
        return False
    return line.top <= title[-1].top or line in rest or bool(_OF_COPYRIGHT.search(line.text))


def _running_date(document: ReadDocument) -> Fact | None:
    """A date, not just a year, that stands in a running head or foot."""
    for line in running_lines(document):
        for pattern in _DATES[:-1]:
            if (match := pattern.search(line.text)) and not _OF_ANOTHER.search(line.text):
                return Fact(_iso(match), line_locator(document, [line], match[0]))
    return None


SMALL_WORDS = 3
"""So many longer words in small letters make a line one of running text."""
LEAST_OF_DATE = 1.9
"""Score below which what looks like a date is more likely one of something else."""


def _iso(match: re.Match[str]) -> str:
    groups = match.groupdict()
    month = groups.get("m")
    if groups.get("month"):
        month = str(_MONTHS[groups["month"].casefold().rstrip(".")])
    parts = [groups["year"]]
    if month:
        parts.append(f"{int(month):02}")
        if groups.get("day"):
            parts.append(f"{int(groups['day']):02}")
    return "-".join(parts)


def _front_end(document: ReadDocument) -> int:
    """The last page of the front: before the contents, or before the body begins."""
    listing = min(document.listings, default=FRONT_OF_BOOK)
    return max(min(listing, FRONT_OF_BOOK), 0)


FRONT_OF_BOOK = 3
FULL_PAGE = 25
"""A page with more lines is no title page."""


def _edition(
    document: ReadDocument, lines: Sequence[FrontLine], title: Sequence[FrontLine]
) -> Fact | None:
    end = max(_front_end(document), title[0].page if title else 0)
    if title and sum(line.page == title[0].page for line in lines) > FULL_PAGE:
        end = title[0].page  # no title page: what follows is text, and may be of other works
    for line in lines:
        if line.page > end or len(line.text.split()) > 16 or _is_of_paragraph(document, line):
            continue
        match = _VERSION.search(line.text)
        is_of_list = match and re.match(r":\s*\w", line.text[match.end() :])
        if match and not is_of_list and not _OF_ANOTHER.search(line.text):
            said = one_line(match[0].removeprefix("for ").strip())
            return Fact(said, line_locator(document, [line], match[0]))
    return None


PROSE = 30
"""Words from which a paragraph of the front is text, and no line of its title page."""


def _is_of_paragraph(document: ReadDocument, line: FrontLine) -> bool:
    """Whether a line belongs to a paragraph of text; running lines belong to none."""
    return line.paragraph >= 0 and len(document.paragraphs[line.paragraph].text.split()) > PROSE


_DANGLES = regex(r"\b(?:of|the|and|on|in|for|by|at)$|[,&]$", re.I)
_INCLUDED = regex(
    r"^.*?\b(?:included|appeared|appears|published|presented)\s+in\s+(?=the\b|[A-Z])", re.I
)
_PLACE_OF_WORK = regex(
    r"^\W*(?:department|dept|faculty|school|institute|division|laboratory)\b", re.I
)
_NEXT_SENTENCE = regex(r"(?<=[a-z\]\)])\.\s+(?=[A-Z]).*$")


def _published(
    document: ReadDocument, lines: Sequence[FrontLine], title: Sequence[FrontLine]
) -> Fact | None:
    is_thesis = kind_of(document, "") is DocumentKind.THESIS
    for k, line in enumerate(lines):
        is_short = 2 <= len(line.text.split()) <= 16
        told = line.page <= 2 and is_short and line not in title and _PUBLISHED.search(line.text)
        if not told or _OF_ANOTHER.search(line.text) or _is_of_sentence(line.text):
            continue
        if line.text[:1] in "\"“‘'" or (told[0].casefold() == "university of" and not is_thesis):
            continue
        if _PLACE_OF_WORK.match(line.text) or _ONLY_KIND.match(line.text):
            continue
        whole = [line]
        for following in lines[k + 1 : k + 4]:
            if not _DANGLES.search(whole[-1].text) or following.page != line.page:
                break
            whole.append(following)
        text = _NEXT_SENTENCE.sub("", " ".join(part.text for part in whole))
        text = _INCLUDED.sub("", text).rstrip(" ,")
        return Fact(text, line_locator(document, whole, text))
    return None


def _is_of_sentence(text: str) -> bool:
    """Whether a line is part of running text, and does not say who published it."""
    words = text.split()
    n_small = sum(word[0].islower() and len(word) > 3 for word in words)
    return not re.search(r"\bpublished (?:by|in)\s+(?:the\s+)?[A-Z]", text) and (
        text[0].islower() or n_small >= SMALL_WORDS
    )


def _licence(document: ReadDocument) -> Fact | None:
    """The sentence that says what may be done with the text."""
    n_pages = document.facts.n_pages
    for row, sentence in enumerate(document.text.sentences):
        if 6 <= sentence.page < n_pages - 3 or sentence.kind in ("listing", "heading"):
            continue
        if _LICENCE.search(sentence.text) and 4 <= len(sentence.text.split()) <= 80:
            return Fact(sentence.text, locator_for(document, row))
    return None


# --- the second witness


def _with_disagreements(document: ReadDocument, facts: Facts) -> Facts:
    told = []
    named = _metadata_title(document)
    if facts.title and named and _overlap(facts.title.text, named) < 0.5:
        told.append(f"The file calls itself “{named}”; the page says “{facts.title.text}”.")
    people = split_people(document.facts.author)
    if facts.authors and people:
        missing = [p for p in people if not any(same_person(p, a.text) for a in facts.authors)]
        if missing:
            told.append(f"The file names {', '.join(missing)} as well, not printed on its front.")
    if not told:
        return facts
    return replace(facts, disagreements=tuple(told))


def _fact(document: ReadDocument, lines: Sequence[FrontLine]) -> Fact:
    parts = [lines[0].text]
    for line in lines[1:]:
        parts.append(line.text if parts[-1].endswith("-") else f" {line.text}")
    text = one_line("".join(parts))
    return Fact(text, line_locator(document, lines, text))
