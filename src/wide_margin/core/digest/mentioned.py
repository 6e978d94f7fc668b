"""Asked whether and where a document speaks of something: the places where it does, or none.

Also which figures, tables or works there are, and whether there is a glossary or an index.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers import Excerpt, Quote
from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.articles import without_article
from wide_margin.core.digest.gist import printed_title
from wide_margin.core.document import figure_locator, find_figures, locator_for
from wide_margin.core.explain.short_forms import find_short_forms
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare, squashed
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search.analysis import is_common, words

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

CERTAIN, NEARLY = 0.9, 0.6
"""The chance that what has the very words speaks of what is asked for; that what has them apart."""
MOST_PLACES, MOST_ASKED, MOST_LISTED = 4, 12, 40
"""Places shown, each on a page of its own, and where it is asked on which; figures, works or
sections that are listed."""
SPELLED_OUT = 0.9
"""How sure a short form and what it stands for must be."""
MOST_WORDS = 5
"""A longer thing is a question of its own."""
AHEAD = 1
"""Words before a thing at the beginning of a sentence on it: "The"."""
STEM, ENDING = 4, 3
"""Letters of a word that stay, and of an ending at most."""
A_DOCUMENT = (
    r"(?:(?:the|this)\s+(?:\w+\s+)?(?:document|book|paper|article|manual|guide|handbook|report|thesis"
    r"|text|file|pdf|volume|work|essay|tutorial|vignette))"
)
"""What a question calls the document."""
IT = rf"(?:it|this|they|the\s+authors?|{A_DOCUMENT})"
"""The same, and who wrote it."""
_SPEAKS = (
    r"(?:mention|discuss|cover|address|talk\s+about|speak\s+(?:of|about)|touch\s+(?:on|upon)|deal\s+with|refer\s+to"
    r"|(?:say|have|contain|include|tell(?:\s+us|\s+me)?)\s+(?:anything|something|much|any\s+information)\s+(?:about|on|of))"
)
_SPOKEN = r"(?:mentioned|discussed|talked\s+about|spoken\s+of|referred\s+to)"
"""Not "covered": whether damage is covered is asked of a policy, not of its words."""
_ANYWHERE = rf"(?:\s+(?:in\s+(?:{IT}|here|there)|here|anywhere|at\s+all|somewhere|in\s+detail|too|as\s+well))*"
_ASKS = tuple(
    regex(rf"^\W*{pattern}{_ANYWHERE}[\s?!.]*$", re.I)
    for pattern in (
        rf"(?:does|do)\s+{IT}\s+(?:also\s+|ever\s+|even\s+)?{_SPEAKS}\s+(?P<what>.+?)",
        r"is\s+there\s+(?:anything|something|any\s+(?:information|mention|discussion)|information|a\s+(?:mention|discussion)|a\s+word)\s+"
        r"(?:about|on|of|regarding|concerning)\s+(?P<what>.+?)",
        rf"(?:is|are)\s+(?P<what>.+?)\s+(?:ever\s+|also\s+|even\s+)?{_SPOKEN}",
        r"where\s+(?:exactly\s+)?(?:is|are)\s+(?P<what>.+?)\s+(?:mentioned|talked\s+about|spoken\s+of|referred\s+to)",
        rf"where\s+(?:does|do)\s+{IT}\s+(?:mention|talk\s+about|speak\s+of|refer\s+to)\s+(?P<what>.+?)",
        r"(?:(?:on|at)\s+)?(?:which|what)\s+pages?\s+(?:mentions?|speaks?\s+of|talks?\s+about|refers?\s+to|contains?|discuss(?:es)?)\s+(?P<what>.+?)",
        rf"(?:on|at)\s+(?:which|what)\s+pages?\s+(?:is|are)\s+(?P<what>.+?)\s+{_SPOKEN}",
        r"(?:wo\s+|auf\s+welche[rn]\s+seiten?\s+)?(?:wird|werden)\s+(?P<what>.+?)\s+(?:irgendwo\s+|auch\s+)?(?:erwähnt|genannt|behandelt|angesprochen)",
        r"(?:gibt\s+es|steht)\s+(?:etwas|irgendetwas|was)\s+(?:über|zu)\s+(?P<what>.+?)(?:\s+(?:darin|drin))?",
        r"(?:est-ce\s+qu[e’'](?:\s*on\s+parle\s+de|il\s+est\s+question\s+de)|o[uù]\s+parle-t-on\s+de|parle-t-on\s+de)\s+(?P<what>.+?)",
        r"(?:dónde\s+)?se\s+(?:menciona|habla\s+de)\s+(?P<what>.+?)",
        r"(?:dove\s+)?(?:si\s+parla\s+di|viene\s+menzionat[oa])\s+(?P<what>.+?)",
        r"(?:onde\s+)?(?:se\s+fala\s+de|é\s+mencionad[oa])\s+(?P<what>.+?)",
    )
)  # fmt: skip
_ASKS_SECTION = regex(
    rf"^\W*(?:is\s+there|does\s+{IT}\s+have|has\s+it)\s+an?\s+(?:section|chapter|part|appendix)\s+(?:about|on|for|called|titled|named|that\s+is\s+about)\s+"
    rf"(?P<what>.+?){_ANYWHERE}[\s?!.]*$", re.I
)  # fmt: skip
_ASKS_PART = regex(
    rf"^\W*(?:is\s+there|does\s+{IT}\s+have|has\s+it)\s+an?\s+(?P<part>glossary|index|bibliography|preface|introduction|conclusion|summary|abstract|appendix)"
    rf"{_ANYWHERE}\W*$", re.I
)  # fmt: skip
_PARTS = {"bibliography": "references"}
_ASKS_LIST = regex(
    r"^\W*(?:(?:which|what)\s+(?P<what>figures|tables|works|references|publications)\s+(?:are\s+(?:there|listed|cited|referenced|shown|given|included)|exist"
    rf"|does\s+{IT}\s+(?:have|cite|list|contain))|list\s+(?:all\s+|the\s+|all\s+the\s+)?(?P<listed>figures|tables|references|cited\s+works))"
    rf"{_ANYWHERE}\W*$", re.I
)  # fmt: skip
_SHORT = r"(?:abbreviations|acronyms|short\s+forms)"
_ASKS_SHORT = regex(
    rf"^\W*(?:(?:what|which)\s+(?:are\s+(?:the\s+|its\s+)?{_SHORT}|{_SHORT}\s+(?:are\s+there|are\s+used|exist|does\s+{IT}\s+(?:have|use)))"
    rf"|what\s+do\s+the\s+{_SHORT}(?=\s+(?:mean|stand))"
    rf"|(?:please\s+)?(?:list|show(?:\s+me)?|explain|give(?:\s+me)?)\s+(?:all\s+)?(?:the\s+)?{_SHORT})"
    rf"(?:\s+(?:used|mean|stand\s+for))?{_ANYWHERE}\W*$", re.I
)  # fmt: skip
_ASKS_SECTIONS = regex(
    rf"^\W*(?:(?:please\s+)?(?:list|show(?:\s+me)?|give(?:\s+me)?|name)\s+(?:(?:all|the|its|main|top)\s+)*(?:sections|chapters|parts|(?:table\s+of\s+)?contents)"
    r"|(?:welche|quel(?:le)?s|qué|cuáles|quali|quais|welke)\s+(?:kapitel|abschnitte|chapitres|sections|capítulos|secciones|capitoli|sezioni|seções|hoofdstukken)"
    r"\s+(?:gibt\s+es|hat\s+(?:es|das\s+\w+)|y\s+a-t-il|hay|ci\s+sono|há|zijn\s+er)"
    r"|(?:which|what)\s+(?:(?:main|top)\s+)?(?:sections|chapters|parts)\s+(?:are\s+there|exist|has\s+it"
    rf"|do(?:es)?\s+{IT}\s+(?:have|contain))"
    rf"|what(?:['’]s|\s+is|\s+are)\s+(?:in\s+)?(?:the|its)\s+(?:(?:main|top)\s+)?(?:sections|chapters|table\s+of\s+contents)){_ANYWHERE}\W*$", re.I
)  # fmt: skip
_ASKS_WHERE = regex(
    r"^\W*(?:where|wo|o[uù]|dónde|dove|onde|(?:(?:on|at|auf)\s+)?(?:which|what|welche[rn]))\b", re.I
)
_QUESTION = regex(r"^(?:how|why|whether|what|that|when|where|who|if|to|which)\b", re.I)
_QUOTES = " “”\"‘’'.,?!"


def answer_whether(
    document: ReadDocument, typed: str, search: Callable[[str], Answer]
) -> Answer | None:
    """The places where a document speaks of what is asked for, else that it does not.

    Args:
        document: It.
        typed: The question; None is returned where it asks for no such thing.
        search: Finds an answer to a question, for the order of the pages.
    """
    if listed := _ASKS_LIST.match(typed):
        what = (listed["what"] or listed["listed"]).lower()
        return _listed(document, what, search(typed))
    if _ASKS_SECTIONS.match(typed):
        return _sections(document, search(typed))
    if _ASKS_SHORT.match(typed):
        return _short_forms(document, search(typed))
    if asked := _ASKS_PART.match(typed):
        return _part(document, asked["part"].lower(), search(typed))
    section = _ASKS_SECTION.match(typed)
    thing = section["what"].strip(_QUOTES) if section else _thing_of(typed)
    if not thing:
        return None
    found = replace(search(thing), question=typed.strip())
    if section and (called := _sections_called(document, thing)):
        headings = [_heading(document, k) for k in called[:MOST_PLACES]]
        return with_quotes(found, headings, CERTAIN, len(called))
    most = MOST_ASKED if _ASKS_WHERE.match(typed) else MOST_PLACES
    told = places_of(document, thing, found, most)
    if told is not None:
        return replace(told, sure=min(told.sure, NEARLY)) if section else told
    if section:
        return declining(found, f"No section is called “{thing}”, and the words stand nowhere.")
    return declining(found, not_mentioned(thing))


def places_of(
    document: ReadDocument, thing: str, found: Answer, most: int = MOST_PLACES
) -> Answer | None:
    """The places that speak of a thing, each on a page of its own; None where there are none.

    Args:
        document: It.
        thing: As asked for.
        found: What a search for it found, for the order of the pages.
        most: So many places at most.
    """
    plain = without_article(thing)
    says = _saying(plain, document.index.language)
    if says is None:
        return None
    terms = _terms_of(document, plain)
    rows = rows_that_may_say(document, thing)
    among = [row for row in rows if _counts(document, row)]
    exact = [row for row in among if says.search(_text(document, row))]
    if not exact and len(terms) < 2:
        return None
    chosen = _one_a_page(document, exact or among, found, says)
    quotes = [quote_of(document, row) for row in chosen[:most]]
    sure = CERTAIN if exact else NEARLY
    return with_quotes(found, quotes, sure, len(chosen)) if quotes else None


def rows_saying(document: ReadDocument, thing: str, rows: Iterable[int]) -> list[int]:
    """Those of some sentences with the words of a thing side by side; titles only for want of others."""
    says = _saying(without_article(thing), document.index.language)
    counted = (row for row in rows if _counts(document, row))
    said = [row for row in counted if says is not None and says.search(_text(document, row))]
    return [row for row in said if document.text.sentences[row].kind != "heading"] or said


def rows_that_may_say(document: ReadDocument, thing: str) -> Iterable[int]:
    """The sentences with all words of a thing, wherever in them; all where it has none: "C++"."""
    terms = _terms_of(document, without_article(thing))
    return rows_with(document, terms) if terms else range(len(document.text.sentences))


def _terms_of(document: ReadDocument, thing: str) -> list[str]:
    """The stems of the words of a thing that tell something."""
    return [
        term for word in words(thing) if not is_common(word, document.index.language)
        for term in document.index.analyser.terms_of(word)[:1]
    ]  # fmt: skip


def not_mentioned(thing: str) -> str:
    """Why it is declined where nothing speaks of a thing."""
    return f"“{thing}” is not mentioned in these words."


def _sections_called(document: ReadDocument, thing: str) -> list[int]:
    """The sections whose titles have the words of a thing."""
    says = _saying(without_article(thing), document.index.language)
    sections = document.outline.sections
    return [k for k, s in enumerate(sections) if says is not None and says.search(s.title)]


def _thing_of(typed: str) -> str:
    """What it is asked whether the document speaks of; "" for other questions."""
    for pattern in _ASKS:
        if (asked := pattern.match(typed)) and (thing := thing_in(asked["what"])):
            return thing
    return ""


def thing_in(text: str) -> str:
    """A thing as a question names it; "" where that is too long for one, or a question itself."""
    thing = text.strip(_QUOTES)
    is_thing = len(thing.split()) <= MOST_WORDS and not _QUESTION.match(thing)
    return thing if is_thing else ""


def _saying(thing: str, language: str) -> re.Pattern[str] | None:
    """Finds the words of a thing side by side; names, in capitals, letter by letter.

    In German every noun has a capital.
    """
    parts = []
    for word in thing.split():
        plain = word.strip(_QUOTES + "()")
        if not plain:
            continue
        is_noun = language == "de" and plain.istitle()
        if (plain != plain.lower() and not is_noun) or not plain.isalpha():
            parts.append(rf"(?:{re.escape(plain)}|{re.escape(plain.upper())})(?:[’']?s)?")
        elif len(plain) > STEM:
            kept = len(plain) - (ENDING if plain.endswith("ies") else ENDING - 1)
            stem = plain[: max(STEM, kept)]
            parts.append(rf"(?i:{re.escape(stem)}\w{{0,{ENDING + 1}}})")
        else:
            parts.append(rf"(?i:{re.escape(plain)}s?)")
    if not parts:
        return None
    return re.compile(r"(?<!\w)" + r"[\s/–-]+(?:(?:the|an?|of)\s+)?".join(parts) + r"(?!\w)")


def _counts(document: ReadDocument, row: int) -> bool:
    return document.text.sentences[row].kind not in ("listing", "works")


def _text(document: ReadDocument, row: int) -> str:
    return document.text.sentences[row].text


def _one_a_page(
    document: ReadDocument, rows: Iterable[int], found: Answer, says: re.Pattern[str]
) -> list[int]:
    """A sentence on each page, one that is on the thing where there is one, of the best pages."""
    sentences = document.text.sentences
    order = {e.locator.page: k for k, e in enumerate(found.excerpts)}
    best: dict[int, tuple[int, int]] = {}
    for row in rows:
        page, weight = sentences[row].page, _weight(document, row, says)
        if page not in best or weight > best[page][0]:
            best[page] = weight, row
    pages = sorted(best, key=lambda page: (-best[page][0], order.get(page, len(order)), page))
    return [best[page][1] for page in pages]


def _weight(document: ReadDocument, row: int, says: re.Pattern[str]) -> int:
    """More for a statement, and for one that begins with the thing."""
    sentence = document.text.sentences[row]
    found = says.search(sentence.text)
    begins = found is not None and len(sentence.text[: found.start()].split()) <= AHEAD
    is_said = sentence.kind in ("body", "item", "entry", "note")
    return is_said + (is_said and begins)


def quote_of(document: ReadDocument, row: int) -> Quote:
    """A sentence, quoted with its place."""
    return Quote(_text(document, row), (locator_for(document, row),))


def with_quotes(
    found: Answer, quotes: Sequence[Quote], sure: float, n_found: int = 0, kind: str = "mentioned"
) -> Answer:
    """The answer that some quotes give; the excerpts begin with their places.

    Args:
        found: What a search found.
        quotes: What is quoted instead.
        sure: The chance that they answer.
        n_found: How many there are, where only some are quoted.
        kind: What of the document they tell.
    """
    told = [Excerpt(quote.text, quote.locators[0], 1.0) for quote in quotes]
    pages = {quote.locators[0].page for quote in quotes}
    others = [e for e in found.excerpts if e.locator.page not in pages]
    return replace(
        found, kind=f"overview: {kind}", quotes=tuple(quotes), missing=(), reason="", sure=sure,
        excerpts=(*told, *others), n_found=n_found if n_found > len(quotes) else 0,
    )  # fmt: skip


def declining(found: Answer, reason: str) -> Answer:
    """What was found as the nearest only, and why nothing answers."""
    return replace(found, quotes=(), missing=(), reason=reason, sure=0.0)


def _listed(document: ReadDocument, what: str, found: Answer) -> Answer:
    """The captions of all figures or tables, or the works of the list of works, as they come."""
    if what in ("figures", "tables"):
        quotes = [
            Quote(figure.caption, (figure_locator(document, figure),))
            for figure in find_figures(document)
            if figure.text and figure.caption.lower().startswith(what[:3])
        ]
    else:
        quotes = _works(document)
    if not quotes:
        return declining(found, f"No {what} were found.")
    return with_quotes(found, quotes[:MOST_LISTED], CERTAIN, len(quotes))


def _sections(document: ReadDocument, found: Answer) -> Answer:
    """The headings of the outermost sections; of those within where one stands over all."""
    depths = document.outline.depths
    top = int(depths.count(0) == 1 < len(depths))
    title = bare(printed_title(document))
    sections = document.outline.sections
    outermost = [
        k for k, depth in enumerate(depths) if depth == top and bare(sections[k].title) != title
    ]
    quotes = [_heading(document, k) for k in outermost[:MOST_LISTED]]
    if not quotes:
        return declining(found, "No sections were found.")
    return with_quotes(found, quotes, CERTAIN, len(outermost))


def _short_forms(document: ReadDocument, found: Answer) -> Answer:
    """The words with which each short form is spelled out, as they are printed, in their order."""
    spelled: dict[str, Quote] = {}
    for row, sentence in enumerate(document.text.sentences):
        if sentence.kind not in ("body", "item", "entry", "note", "caption", "row"):
            continue
        for short, long, sure in find_short_forms(sentence.text):
            as_printed = rf"{re.escape(long)}\W{{1,3}}{re.escape(short)}\)?"
            said = re.search(as_printed, sentence.text)
            if sure < SPELLED_OUT or said is None or short in spelled or set(long) & set("()"):
                continue
            is_open = "(" in said[0] and not said[0].endswith(")")
            text = f"{said[0]} …)" if is_open else said[0]
            spelled[short] = Quote(text, (locator_for(document, row),))
    quotes = list(spelled.values())
    if not quotes:
        return declining(found, "No short form is spelled out.")
    return with_quotes(found, quotes[:MOST_LISTED], CERTAIN, len(quotes))


def _heading(document: ReadDocument, k: int) -> Quote:
    """A section's title, with the place where it stands."""
    section = document.outline.sections[k]
    rows = document.rows_of(section.first_paragraph, section.end_paragraph)
    return Quote(section.title, (locator_for(document, rows.start),))


def _works(document: ReadDocument) -> list[Quote]:
    """Each work of the list of works as one quote."""
    sentences = document.text.sentences
    paragraphs = dict.fromkeys(s.paragraph for s in sentences if s.kind == "works")
    found = []
    for paragraph in paragraphs:
        rows = document.rows_of(paragraph, paragraph + 1)
        text = " ".join(sentences[row].text for row in rows)
        found.append(Quote(text, (locator_for(document, rows.start, rows.stop),)))
    return found


def _part(document: ReadDocument, part: str, found: Answer) -> Answer:
    """The heading of a glossary or an index, where there is one."""
    named = squashed(_PARTS.get(part, part))
    sections = document.outline.sections
    called = [k for k, s in enumerate(sections) if bare(unnumbered(s.title)) in named]
    if not called:
        return declining(found, f"No {part} was found.")
    return with_quotes(found, [_heading(document, called[0])], CERTAIN)
