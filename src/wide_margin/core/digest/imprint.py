"""When, in which edition, where and on what terms a document came out, as its front says."""

from __future__ import annotations

import re
from bisect import bisect_left
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import pairwise, takewhile
from typing import TYPE_CHECKING

from wide_margin.core.digest.front import (
    FULL_PAGE,
    Fact,
    is_of_paragraph,
    line_locator,
    running_lines,
)
from wide_margin.core.document import locator_for
from wide_margin.core.later import regex
from wide_margin.core.layout import word_count
from wide_margin.core.outline.numbering import number_of
from wide_margin.core.plain import one_line
from wide_margin.core.search import is_common

if TYPE_CHECKING:
    from wide_margin.core.digest.front import FrontLine
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.passages import Sentence

_MONTHS = {
    name: number
    for number, names in enumerate(
        (
            "january jan januar janvier enero gennaio janeiro januari января январь stycznia styczeń ledna leden",
            "february feb februar février fevrier febrero febbraio fevereiro februari февраля февраль lutego luty února únor",
            "march mar märz mars marzo março maart марта март marca marzec března březen marts", "april apr avril abril aprile апреля апрель kwietnia kwiecień dubna duben",
            "may mai mayo maggio maio mei мая май maja května květen maj", "june jun juni juin junio giugno junho июня июнь czerwca czerwiec června červen",
            "july jul juli juillet julio luglio julho июля июль lipca lipiec července červenec",
            "august aug août aout agosto augustus августа август sierpnia sierpień srpna srpen augusti",
            "september sep sept septembre septiembre settembre setembro сентября сентябрь września wrzesień září",
            "october oct oktober octobre octubre ottobre outubro октября октябрь października październik října říjen",
            "november nov novembre noviembre novembro ноября ноябрь listopada listopad listopadu",
            "december dec dezember décembre decembre diciembre dicembre dezembro декабря декабрь grudnia grudzień prosince prosinec",
        ),
        start=1,
    )
    for name in names.split()
}  # fmt: skip
MONTH_NAMES = "(?:" + "|".join(sorted(_MONTHS, key=len, reverse=True)) + r")\.?"
_YEAR = r"(?P<year>(?:1[5-9]|20)\d\d)"
DATES = tuple(
    regex(pattern, re.I)
    for pattern in (
        rf"\b{_YEAR}-(?P<m>0[1-9]|1[0-2])-(?P<day>0[1-9]|[12]\d|3[01])\b",
        rf"(?<![.\d])\b(?P<day>0?[1-9]|[12]\d|3[01])(?:st|nd|rd|th|\.|er)?\s+(?:of\s+|de\s+)?(?P<month>{MONTH_NAMES}),?\s+(?:de\s+)?{_YEAR}\b",
        rf"\b(?P<day>0?[1-9]|[12]\d|3[01])[-–](?P<month>{MONTH_NAMES})[-–]{_YEAR}\b",
        rf"\b(?P<month>{MONTH_NAMES})\s+(?P<day>0?[1-9]|[12]\d|3[01])(?:st|nd|rd|th)?,?\s+{_YEAR}\b",
        rf"\b(?P<month>{MONTH_NAMES}),?\s+(?:de\s+)?{_YEAR}\b",
        rf"\b{_YEAR}-(?P<m>0[1-9]|1[0-2])\b",
        rf"\b(?P<day>0?[1-9]|[12]\d|3[01])[./](?P<m>0?[1-9]|1[0-2])[./]{_YEAR}\b"
        r"|\b(?P<m_>0?[1-9]|1[0-2])[/-](?P<day_>1[3-9]|2\d|3[01])[/-](?P<year_>(?:19|20)\d\d)\b",
        rf"\b{_YEAR}/(?P<m>0?[1-9]|1[0-2])/(?P<day>0?[1-9]|[12]\d|3[01])\b",
        rf"{_YEAR}\s?[年년]\s?(?P<m>0?[1-9]|1[0-2])\s?[月월](?:\s?(?P<day>[12]\d|3[01]|0?[1-9])\s?[日일])?",
        rf"(?<![\d.–-]){_YEAR}(?![\d.]?\d|[–-]\d|(?<=, \d\d\d\d)\))",  # none of "(Reed, 1999)"
        rf"^\W*(?:19|20)\d\d\s?[–-]\s?{_YEAR}\W*$",  # years of work, and nothing else in the line
    )
)  # fmt: skip
"""From the surest form to the bare year and the last of some years."""
BARE = 2
"""So many of them, at the end, give a year alone."""
_REVISED = regex(
    r"\b(?:revised|updated|last (?:changed|modified|updated)|überarbeitet|révisée?|mise? à jour|revisad[oa]|rivist[oa])\b\W*",
    re.I,
)
"""Comes before the later one of two dates."""
_OF_COPYRIGHT = regex(r"©|\(c\)|copyright", re.I)
_OF_ANOTHER = regex(
    r"\b(?:gnu|free software foundation|license|licence|isbn|issn|doi|vol(?:ume)?\.?\s*\d"
    r"|originally|first (?:published|edition)|arxiv|permission)\b", re.I
)  # fmt: skip
_OF_ISSUE = regex(r"\b(?:issn|doi|vol(?:ume)?\.?\s*\d)", re.I)
"""Names the journal that a paper is in."""
_TELLS_DATE = regex(
    r"\b(?:date|dated|version|edition|release|updated?|revised|revision|as of|stand|compiled|built"
    r"|published|issued|printed|last (?:changed|modified))\b", re.I
)  # fmt: skip
VERSION = regex(
    r"\b(?:for\s+)?(?P<word>version|release|edition|revision|auflage|édition|edición|edizione)\s*:?\s+[“\"']?"
    r"(?P<number>\d+(?:\.\d+)*[\w.-]*(?:\s(?:alpha|beta|rc|preview)\b(?:\s?\d+\b)?)?|[IVX]+\b)"
    r"|\b(?P<ordinal>\d+(?:st|nd|rd|th)|first|second|third|fourth|fifth|sixth|seventh|revised)\s+(?P<word2>edition|release)\b"
    r"|(?:^v\s|(?:^|\s)v\.?)(?P<short>\d+(?:\.\d+)+)\b", re.I
)  # fmt: skip
_NUMBER_ALONE = regex(r"v?\d+(?:\.\d+)+\w*")
_NUMBER_IN_TITLE = regex(r"(?P<of>[^\W\d_]+)\s(?P<number>v?\d+(?:\.\d+)+[a-z]?)(?![\w.])")
"""A version after a word of a title: "Wellkeep 5.2"."""
_IN_TEXT = regex(
    r"\b(?:in|the|with|since|by|an?|than|der|die|das|zur|von|la|le|el|de|del|da|do|di)\s+$|\bin\s+[A-Z]\w*\s+$"
)
"""Before a version that is spoken of: "available in the version 5 fonts", "in Q version 4"."""
_FIGURE = regex(r"\d")
_GOES_ON = regex(r"(?:version|release|edition|revision)\s[\w.]+\s[a-z]{3,}")
"""A version in the middle of a sentence: "version 5 fonts are"."""
_LICENCE = regex(
    r"\b(?:permission is (?:hereby )?granted|permission to (?:use|copy|reproduce)\b.{0,160}\bis (?:hereby )?granted"
    r"|(?:grants?|gives?) (?:\w+ )?permission to (?:use|copy|reproduce|print|distribute)|licen[sc]ed under|under the terms of|redistribut\w+ (?:it|and)|free documentation licen[sc]e"
    r"|general public licen[sc]e|creative commons|(?:is|are|placed|put|released|dedicated|donated) (?:in|into|to) the public domain|all rights reserved|may be (?:freely )?(?:copied|reproduced|distributed))\b", re.I
)  # fmt: skip
LICENCE_ABROAD = regex(
    r"(?=.*(?:licen[csçz]|lizenz|licen[tc]i|лиценз|许可|授权|ライセンス|라이선스|\bGPL\b)).*?"
    r"(?:\b(?:unter|gemäß) de[rnm] (?:bedingungen|bestimmungen|lizenz)\b|\bsteht unter\b"
    r"|\b(?:selon|suivant) les (?:termes|conditions)\b|\bsous (?:la |les termes de la )?licence\b|\bconformément aux termes\b"
    r"|\b(?:dentro de|según) los términos\b|\bbajo (?:los términos|las condiciones|(?:la |una )?licencia)\b"
    r"|\b(?:secondo|sotto|nei|alle|ai) (?:i |le )?(?:termini|condizioni)\b|\b(?:sotto|con) (?:la )?licenza\b"
    r"|\b(?:sob|de acordo com|nos|dentro d[oa]s|segundo) (?:os |as )?(?:termos|condições)\b|\bsob (?:a )?licença\b"
    r"|\bonder de (?:bepalingen|voorwaarden)\b|\bna (?:licencji|warunkach)\b|\bpo(?:d|dle) licenc\w+"
    r"|\bunder (?:villkoren|vilkårene|betingelserne|licensen|lisensen)\b|на условиях|под лицензией"
    r"|の条件の?[下もと]|ライセンスの[下もと]|(?:遵守|遵循|根据|基于|采用))", re.I | re.S
)  # fmt: skip
"""The same in other languages, near the front of a document alone."""
_PERMITTED_ABROAD = regex(
    r".*\b(?:il est permis|(?:la )?permission est (?:accordée|donnée)|es (?:ist|wird) (?:erlaubt|gestattet|die erlaubnis)"
    r"|se (?:permite|concede|otorga|autoriza)|(?:è|é|e') (?:permess|consentit|concess|garantit|permitid|concedid)[oa]"
    r"|het is toegestaan|zezwala się)\b.{0,120}\b(?:copi\w+|cópi\w+|kopi\w+|distribu\w+|verteil\w+|verbreit\w+|reprodu\w+"
    r"|verspreid\w*|rozpowszechnia\w*|vervielfältig\w*)\b.{0,80}\b(?:document\w*|dokument\w*|manuel|manual\w*|handbuch\w*|livre|libro"
    r"|texte?|testo|texto|publication|copies (?:conformes|exactes)|copias (?:literales|exactas)|copie (?:letterali|esatte)"
    r"|cópias (?:literais|exatas)|kopien)\b", re.I | re.S
)  # fmt: skip
"""Says in other languages that the text itself may be copied."""
_THIS_ABROAD = regex(
    r"\W*(?:ce|cet|cette|diese[rs]?|est[ea]|quest[oa]|deze|dit|ten|niniejsz\w+|t[ao]to|tento|denn?[ae]|dette|эт\w+|данн\w+|本|この)\b"
    r"|本|この", re.I,
)  # fmt: skip
"""Speaks of the document itself."""
_OF_SEVERAL = regex(
    r"\W*(?!\w+ of this\b)(?:\w{4,}ly,?\s+)?(?:all (?!rights)|most|many|some|such|those|other|alle|viele|tou(?:s|tes)|tod[oa]s|tutt[ie]|все)\b",
    re.I,
)
"""Speaks of other things, of which there are many."""
_RESERVED = regex(r".*?\ball rights reserved\b", re.I | re.S)
_OF_LICENCE_TEXT = regex(
    r"\bthis License\b|\bModified Versions?\b|^The Free Software Foundation\b.{0,60}\bmay\b|^[A-Z]\. [A-Z]|^\d+\. [A-Z]{4,}"
    r"|\bthe Document under the terms\b"
)
"""The terms of a licence that is printed whole, which say of no text that it is under them."""
_ON_LICENCE = regex(
    r"^\W*(?:[\dA-Z][\d.]*\s+)?(?:copyright|licen[cs](?:e|es|ing)|copying|legal (?:notices?|information))(?:\s+(?:and|&)\s+\w+)?\W*$", re.I
)  # fmt: skip
"""The title of a section that says what may be done."""
_OF_ANY = regex(r"\b(?:any|all|every|each|other|those)\b.{0,20}\bpublished\b", re.I)
"""Speaks of whatever is published there: "any work published by the Wells Press"."""
_PUBLISHED = regex(
    r"\b(?:journal of|journal|proceedings|transactions on|published (?:by|in|as)|press\b|verlag\b|publish(?:er|ing|ers)\b"
    r"|technical report|working paper|university of|éditions|editorial (?-i:[A-ZÁÉÍÓÚ]))\b", re.I
)  # fmt: skip
ONLY_KIND = regex(
    r"^\W*(?:(?:the|a|user['’]?s?|users['’]|technical|reference|research|working|original|review|short|quick|developer['’]?s?"
    r"|release|installation|final|annual|white|discussion|progress|internal|master['’]?s|doctoral|phd|bachelor['’]?s"
    r"|programmer['’]?s|administrator['’]?s|getting started|owner['’]?s|instruction|application|contributed)\s+){0,3}"
    r"(?:report|guide|manual|notes?|article|paper|papers|thesis|dissertation|documentation|handbook|tutorial|reference"
    r"|specification|vignette|communication|handbuch|benutzerhandbuch|anleitung|bericht|dokumentation|manuel|guide|rapport"
    r"|manuale|guida|manual de usuario|guía|handleiding)\W*$", re.I
)  # fmt: skip
"""Says of what kind a document is, and not what it is called."""
SMALL_WORDS = 3
"""So many longer words in small letters make a line one of running text."""
LEAST_OF_DATE = 1.9
"""Score below which what looks like a date is more likely one of something else."""
NEXT_TO_YEAR = 16
"""Characters after a year within which it is told to be that of issue: "(2010), published in"."""
SHORTEST_LICENCE, LONGEST_LICENCE = 4, 80
"""Words of a sentence that states one."""
LICENCE_PAGES, AT_END = 6, 3
"""Pages of the front, without its contents, and at the end, on which a licence is stated."""
FRONT_OF_BOOK = 3
"""Index of the last page of the front where no contents end it sooner."""
DANGLES = regex(
    r"\b(?:of|the|and|on|in|for|by|at|to|an?|with|from)$|[,&‐\ufffe]$|[a-z]-$|\s[—–-]$", re.I
)
"""Ends a line whose next one belongs to it."""
_OF_ANOTHER_WORK = regex(
    r"(?!\W*(?:this|these|it|(?:an?|the) (?:\w+ )?(?:version|paper|article|work|report|book|manuscript|part))\b)"
    r".*\S\s(?:was|were|is|are|been)\s+(?:\w+ly\s+|first\s+)?published\b", re.I
)  # fmt: skip
"""Says where another thing came out: "The formula was published by Wells"."""
_INCLUDED = regex(
    r"^.*?\b(?:included|appeared|appears|published|presented)\s+in\s+(?=the\b|[A-Z])", re.I
)
"""Comes before what published a work: "This paper appeared in the …"."""
_PLACE_OF_WORK = regex(
    r"^\W*(?:department|dept|faculty|school|institute|division|laboratory)\b", re.I
)
"""Begins an author's address, which publishes nothing."""
PLACE_PAGES = 2
"""Index of the last page that says where a document came out."""
_PAGES = regex(r"\bpp?\.\s?\d")
_TORN = regex(r"\w[-‐\ufffe]$")
"""Ends a line in the middle of a word."""
_NEXT_SENTENCE = regex(r"(?<=[a-z\]\)])\.\s+(?=[A-Z]).*$")
"""What follows in a line after the sentence that names the publisher."""


def date_of(
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
    labels = Counter((line.page, _label_of(line)) for line in lines)
    for line in lines:
        if line.page > n_front:
            break
        kind = document.paragraphs[line.paragraph].kind if line.paragraph >= 0 else ""
        # "Updated: 2022-07-10" again and again is said of each thing that is described.
        is_again = labels[line.page, label := _label_of(line)] > 1 and label.endswith(":")
        tells = bool(_TELLS_DATE.search(line.text)) and not is_again
        is_text = is_of_paragraph(document, line) or (is_full and not _is_at(line, title, rest))
        if kind == "code" or (is_text and not tells):
            continue
        for rank, pattern in enumerate(DATES):
            revised = _REVISED.search(line.text)
            match = revised and pattern.search(line.text, revised.end())
            match = match or pattern.search(line.text)
            if match is None:
                continue
            is_bare = rank >= len(DATES) - BARE
            near = line.text[: match.end() + NEXT_TO_YEAR]
            if is_bare and is_text and not _TELLS_DATE.search(near):
                continue  # "in 1999 two papers were published"
            score = (
                3.0 - 0.25 * min(rank, len(DATES) - BARE - 1) - 0.5 * abs(line.page - title_page)
            )
            share = len(match[0]) / max(len(line.text), 1)
            score += 1.5 * share + 1.0 * tells
            # "May 2015, Volume 3" is over a paper the date of its issue.
            is_head = not is_bare and not line.text[: match.start()].strip()
            score -= 1.5 * (is_again or (not is_head and bool(_OF_ANOTHER.search(line.text))))
            score -= 0.8 * bool(_OF_COPYRIGHT.search(line.text))
            score -= 1.5 * (len(line.text.split()) > 12 and not tells)
            if score > best_score:
                best_score = score
                best = Fact(iso_of(match), line_locator(document, [line], match[0]))
            break
    return best if best_score >= LEAST_OF_DATE else None


def has_date(text: str) -> bool:
    """Whether a text has a date in one of its forms."""
    return any(pattern.search(text) for pattern in DATES)


def _label_of(line: FrontLine) -> str:
    """What a line says before its first figure."""
    return _FIGURE.split(line.text, maxsplit=1)[0].strip()


def _is_at(line: FrontLine, title: Sequence[FrontLine], rest: Sequence[FrontLine]) -> bool:
    """Whether a line stands above the title or follows it, before the text, or at the foot."""
    if not title or line.page != title[0].page:
        return False
    return line.top <= title[-1].top or line in rest or bool(_OF_COPYRIGHT.search(line.text))


def running_date(document: ReadDocument) -> Fact | None:
    """A date, not just a year, that stands in a running head or foot."""
    for line in running_lines(document):
        for pattern in DATES[:-BARE]:
            said = _OF_ISSUE.sub(" ", line.text)  # of the journal that the paper is in
            if (match := pattern.search(line.text)) and not _OF_ANOTHER.search(said):
                return Fact(iso_of(match), line_locator(document, [line], match[0]))
    return None


def iso_of(match: re.Match[str]) -> str:
    """The date that one of DATES found, as 2021-03-14, 2021-03 or 2021."""
    groups = {name.rstrip("_"): said for name, said in match.groupdict().items() if said}
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


def edition_of(
    document: ReadDocument, lines: Sequence[FrontLine], title: Sequence[FrontLine]
) -> Fact | None:
    """The edition or version that a line of the front names."""
    end = max(_front_end(document), title[0].page if title else 0)
    if title and sum(line.page == title[0].page for line in lines) > FULL_PAGE:
        end = title[0].page  # no title page: what follows is text, and may be of other works
    name = " ".join(line.text for line in title)
    for line in lines:
        if line.page > end or len(line.text.split()) > 16 or is_of_paragraph(document, line):
            continue
        after = line.text.removeprefix(name).strip() if name else ""
        if after != line.text and _NUMBER_ALONE.fullmatch(after):
            return Fact(after, line_locator(document, [line], after))  # "Wellkeep 2.8.1"
        match = VERSION.search(line.text)
        following = match and VERSION.search(line.text, match.end())
        if match and following and has_date(line.text[match.end() : following.start()]):
            continue  # one after the other, each with its date
        is_of_list = match and re.match(r":\s*\w", line.text[match.end() :])
        is_of_text = match and (
            _IN_TEXT.search(line.text[: match.start()]) or _GOES_ON.match(line.text, match.start())
        )
        if match and not (is_of_list or is_of_text) and not _OF_ANOTHER.search(line.text):
            told = match[0]
            if following and line.text[match.end() : following.start()].strip() in ("", ","):
                told = line.text[match.start() : following.end()]  # "Version 11, Release 7.7"
            said = re.sub(r"\s*:\s*", " ", told.removeprefix("for ").strip().rstrip("."))
            return Fact(one_line(said), line_locator(document, [line], match[0]))
    return _edition_in(document, title)


def _edition_in(document: ReadDocument, title: Sequence[FrontLine]) -> Fact | None:
    """The version within a title: "Wellkeep 5.6.17 User's Manual"."""
    for line in title:
        match = _NUMBER_IN_TITLE.search(line.text)
        if match is not None and not is_common(match["of"].lower(), document.index.language):
            return Fact(match["number"], line_locator(document, [line], match["number"]))
    return None


def published(
    document: ReadDocument,
    lines: Sequence[FrontLine],
    title: Sequence[FrontLine],
    *,
    is_thesis: bool,
) -> Fact | None:
    """Where it came out, or who published it; of a thesis that is its university."""
    torn = {id(line) for before, line in pairwise(lines) if _TORN.search(before.text)}
    early = takewhile(lambda sentence: sentence.page <= PLACE_PAGES, document.text.sentences)
    works = {sentence.paragraph for sentence in early if sentence.kind in ("works", "code")}
    for k, line in enumerate(lines):
        is_short = 2 <= len(line.text.split()) <= 16
        told = is_short and line not in title and _PUBLISHED.search(line.text)
        if told and not told.start() and id(line) in torn:
            continue  # "… EX-", and under it "PRESS OR IMPLIED"
        if line.page > PLACE_PAGES or line.paragraph in works:
            continue
        is_cited = line.page and _PAGES.search(line.text)
        is_other = _OF_ANOTHER.search(line.text) or _OF_ANY.search(line.text)
        if not told or is_cited or is_other or _is_of_sentence(line.text):
            continue
        if line.text[:1] in "\"“‘'•" or (told[0].casefold() == "university of" and not is_thesis):
            continue
        if _PLACE_OF_WORK.match(line.text) or ONLY_KIND.match(line.text):
            continue
        number = number_of(" ".join(line.text.split()))
        if (number is not None and number.scheme == "decimal") or line.text.startswith("("):
            continue  # a heading, or the rest of a sentence
        whole = [line]
        for following in lines[k + 1 : k + 4]:
            is_next = following.page == line.page and following.paragraph <= line.paragraph + 1
            if not DANGLES.search(whole[-1].text) or not is_next:
                break
            whole.append(following)
        text = re.sub(r"(?<=[a-z])[-‐\ufffe] (?=[a-z])", "", " ".join(part.text for part in whole))
        text = _NEXT_SENTENCE.sub("", text)
        text = _INCLUDED.sub("", text).rstrip(" ,.")
        return Fact(text, line_locator(document, whole, text))
    return None


def _is_of_sentence(text: str) -> bool:
    """Whether a line is part of running text, and does not say who published it."""
    if _OF_ANOTHER_WORK.match(text):
        return True
    words = text.split()
    n_small = sum(word[0].islower() and len(word) > 3 for word in words)
    return not re.search(r"\bpublished (?:by|in)\s+(?:the\s+)?[A-Z]", text) and (
        text[0].islower() or n_small >= SMALL_WORDS
    )


def licence_of(document: ReadDocument) -> Fact | None:
    """The sentence that says what may be done with the text.

    That all rights are reserved is said beside a licence as well, which then tells more.
    """
    stating = _stating(document)
    first = next(stating, None)
    if first is None:
        return _licence_of_section(document)
    row, sentence = first
    if (reserved := _RESERVED.match(sentence.text)) is None:
        return Fact(sentence.text, locator_for(document, row))
    for later, told in takewhile(lambda item: item[1].page <= sentence.page + 1, stating):
        if not _RESERVED.match(told.text):
            return Fact(told.text, locator_for(document, later))
    return Fact(reserved[0], locator_for(document, row))


def _stating(document: ReadDocument) -> Iterator[tuple[int, Sentence]]:
    """Sentences of the front and the end, with their rows, that say so."""
    n_pages, listings = document.facts.n_pages, sorted(document.listings)
    for row, sentence in enumerate(document.text.sentences):
        page = sentence.page - bisect_left(listings, sentence.page)  # a long contents is no front
        if page >= LICENCE_PAGES and sentence.page < n_pages - AT_END:
            continue
        if sentence.kind in ("listing", "heading"):
            continue
        if not _states(sentence.text) or _OF_SEVERAL.match(sentence.text):
            continue
        is_near = page < FRONT_OF_BOOK or _THIS_ABROAD.match(sentence.text)
        is_of_it = is_near and (
            LICENCE_ABROAD.match(sentence.text) or _PERMITTED_ABROAD.match(sentence.text)
        )
        if is_of_it or _LICENCE.search(sentence.text):
            yield row, sentence


def _licence_of_section(document: ReadDocument) -> Fact | None:
    """The first sentence that says so in a section on the licence, wherever it stands."""
    for section in document.outline.sections:
        if not _ON_LICENCE.match(section.title):
            continue
        for row in document.rows_of(document.under_heading(section), section.end_paragraph):
            said = document.text.sentences[row]
            if said.kind == "body" and _LICENCE.search(said.text) and _states(said.text):
                return Fact(said.text, locator_for(document, row))
    return None


def _states(text: str) -> bool:
    """Whether a sentence is long enough to state a licence, and none of one that is printed whole."""
    is_term = _OF_LICENCE_TEXT.search(text) is not None
    return not is_term and SHORTEST_LICENCE <= word_count(text) <= LONGEST_LICENCE
