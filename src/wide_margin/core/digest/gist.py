"""The gist of a reach: whole sentences chosen together, in the length asked for.

Two things speak for a choice. Each sentence has a *prior*: how much sentences like it say of what
their document is about, by its place, its section, its wording and its form. And each term has a
*weight*: how likely a summary speaks of it. The sentences are chosen that together hold the most
weight and prior within the length, so that they cover and do not repeat (a budgeted maximum
coverage: Gillick and Favre 2009; greedy with exchange). Both are linear in features, with weights
fitted on articles whose abstract is known and hidden (bench/fit_gist.py).
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.front import begins_abstract
from wide_margin.core.digest.roles import CUES, ITSELF, ITSELF_ABROAD, OUTLINES, Role, roles_of
from wide_margin.core.digest.sentences import (
    form_of,
    gives_thanks,
    is_in_script,
    is_left_in_english,
    is_of_licence,
    least_words,
    says_something,
    says_who_paid,
    stands_alone,
    strangeness,
    tells_work,
    without_asides,
)
from wide_margin.core.digest.telling import THING, naming
from wide_margin.core.document import Locator, locator_for
from wide_margin.core.geometry import FloatArray, IntArray
from wide_margin.core.later import regex
from wide_margin.core.layout import word_count
from wide_margin.core.lexicon import words_for
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import NOT_LATIN
from wide_margin.core.search.vectors import frequency_rank
from wide_margin.core.shipped import json_of

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.geometry import BoolArray
    from wide_margin.core.passages import Sentence

USUAL_WORDS = 120
"""Length of a gist where none is asked for."""
OF_SENTENCE = 24
"""Words of a sentence, where so many sentences are asked for: longer ones say more and tell less."""
N_EXCHANGED = 80
"""The best sentences that may take the place of a chosen one."""
N_TRIED = 400
"""Sentences with the highest prior that are chosen among."""
ROUNDS = 3
"""Exchanges of one sentence for another, each over all of them."""
NEAR_COPY = 0.7
"""Share of terms in common from which a sentence repeats another."""
_CUES = ("purpose", "result", "limit", "conclusion", "next", "method", "data", "why")
_ROLES = (Role.ABSTRACT, Role.INTRODUCTION, Role.METHOD, Role.RESULTS, Role.DISCUSSION,
          Role.CONCLUSION, Role.APPENDIX, Role.THANKS, Role.LEGAL)  # fmt: skip
SENTENCE_FEATURES = (
    "bias", "early", "late", "first of section", "last of section", "first of paragraph",
    "first of document", "mass", "mean mass", "in title", "in section title", "spread", "length",
    "short", "long", "digits", "brackets", "strange", "pointer", "outline", "item", "capitals",
    *(f"cue {name}" for name in _CUES), *(f"role {role}" for role in _ROLES),
)  # fmt: skip
TERM_FEATURES = (
    "bias", "often", "passages", "in title", "in section titles", "in introduction",
    "in conclusion", "early", "rare word", "unknown word", "top", "length",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class GistLine:
    """A sentence of a gist: verbatim, with "…" where an aside was cut."""

    text: str
    locator: Locator
    sentence: int
    """Row in the document's text."""


@dataclass(frozen=True, slots=True, eq=False)
class Scored:
    """A document's sentences and terms, scored once; every gist is chosen from it.

    s sentences, t terms.
    """

    prior: FloatArray
    """(s,) how much a sentence like it says of what the document is about; -inf for one that
    cannot stand alone."""
    weight: FloatArray
    """(t,) how likely a summary speaks of the term, 0 to 1; 0 for common words."""
    n_words: IntArray
    """(s,) words of each sentence with its asides cut."""
    terms: tuple[IntArray, ...]
    """(s,) the different terms of weight in each sentence; empty where it cannot be chosen."""
    roles: tuple[Role, ...]
    """(k,) of every section."""
    on_itself: frozenset[int] = frozenset()
    """Rows of sentences that speak of the document, or name what its title names."""
    names: tuple[str, ...] = ()
    """What the title names, in lower case: words that are hardly used elsewhere."""


MOSTLY_LEGAL = 0.1
"""A document of whose sentences this share is worded as licences are is one; so of money."""
CHIEFLY_LEGAL = 0.5
"""A document of whose sentences this share stands under titles of licences is about them."""
_BOOK_ON = regex(
    r"^(?:the\s+)?(?P<name>[\w.+-]+(?:\s+[\w.+-]+){1,2}?)\s+(?:(?:user|reference|programmer|developer|administrator)"
    r"(?:s|['’]s|s['’])?\s+)*(?:manual|guide|handbook|documentation|reference|tutorial|primer)\b", re.I
)  # fmt: skip
_THING_CALLED = regex(
    rf"^(?:(?:an?\s+)?(?:\w+\s+)?(?:introduction|guide|overview|tutorial)\s+(?:to|of|for)\s+)?the\s+(?P<name>[\w.+-]+)\s+(?P<thing>{THING})\b",
    re.I,
)
SELDOM, TAKEN_UP = 8_000, 3
"""A name is rarer than so many words of the language, and stands in so many sentences."""
FOREIGN = 0.5
"""From this share on, sentences in another language belong to the document."""
LEAST_INITIALS = 3
"""Of a title that make a name."""
OFTEN, AHEAD = 0.015, 1.3
"""Share of the sentences that the chief coined word stands in, and how far the next lies behind."""
_WORD = regex(r"[^\W_][\w+.-]*\w")
WRITTEN_BY_PROGRAM = 4
"""Times from which a sentence that differs in numbers and names only says nothing."""
OPENING = 16
"""Characters that those have in common; what begins as hardly another does need not be compared."""
FRONT = 40
"""Sentences at the beginning, in which "this" is what the title names."""
INTRODUCED = 400
"""Sentences in which the short form of a title is given, after a table of contents."""
_SORT_OF_TEXT = regex(
    r"(?:documents?|documentation|manual|guide|handbook|book|paper|article|thesis|report|reference|tutorial|introduction|description"
    r"|specification|contents|index|notes?|slides?|vignette|abstract|preface|readme|faq|licen[sc]es?|untitled)", re.I
)  # fmt: skip
"""The title of a text that names nothing."""
_MADE_BY = regex(r"\s(?:(?i:written|edited|compiled|prepared|maintained) by\s+(?=[A-Z])|©|\(c\)\s)")
"""Ends a title: who made it, and whose it is."""
_NUMBERED = regex(r"([A-Za-z]{3,})-?\d\w*$")
"""A name with the number of its version."""
_SHORT_FORM = regex(r"\s\(([^\W\d_][\w-]{1,14})\)")
"""A word alone in brackets: "(GKeep)"."""
_DEMONSTRATIVES = {
    "en": "This", "de": "Diese[rs]?", "fr": "Cet?|Cette", "es": "Est[ea]", "pt": "Est[ea]",
    "it": "Quest[oa]", "nl": "Dit|Deze", "sv": "Denna|Detta", "da": "Denne|Dette",
    "no": "Denne|Dette", "pl": "Ten|Ta|To", "cs": "Tento|Tato|Toto", "ru": "Этот|Эта|Это",
}  # fmt: skip
_THIS = {
    language: regex(rf"(?:{words}) (?=([^\W\d_][\w-]{{2,}}[^\W_]))")
    for language, words in _DEMONSTRATIVES.items()
}
"""Points at what is named next, by language: "This pump"; the title may name it too."""
_ASKING = ("?", "?”", '?"', "？", "؟")
"""Ends of a question, which says nothing."""
_REPLIES = regex(
    r"\W*(?:because|yes|no|weil|ja|nein|parce que|oui|non|porque|sí|sim|perché|omdat|nee)\b", re.I
)
"""Begins a reply, which says little without its question."""
BREATH = 256
"""Sentences after which others can be served."""


@lru_cache(maxsize=1)
def gist_weights() -> dict[str, FloatArray]:
    """The fitted weights: "sentence", "term", and "coverage" (one value)."""
    data = json_of("gist-weights.json")
    return {
        "sentence": np.array([data["sentence"][name] for name in SENTENCE_FEATURES]),
        "term": np.array([data["term"][name] for name in TERM_FEATURES]),
        "coverage": np.array([data["coverage"]]),
    }


def score(document: ReadDocument, pause: Callable[[], None] = lambda: None) -> Scored:
    """Score every sentence and term of a document; ``pause`` is called now and then."""
    weights = gist_weights()
    roles = tuple(roles_of(document.outline))
    weight = term_weights(document, roles, weights["term"])
    pause()
    sentences, names = document.text.sentences, names_of(document)
    usable = np.zeros(len(sentences), dtype=bool)
    language = document.index.language
    is_english = language == "en"
    titled = _WORD.findall(f"{document.facts.title} {printed_title(document)}".lower())
    for row, sentence in enumerate(sentences):
        stands = stands_alone(sentence, names) or (
            row < FRONT and _is_of_title(sentence, titled, language)
        )
        says = stands and (not is_english or says_something(sentence.text))
        if row and sentences[row - 1].text.endswith(_ASKING) and _REPLIES.match(sentence.text):
            says = False
        usable[row] = (
            says and not sentence.text.endswith(_ASKING) and not tells_work(document, sentence)
            and not gives_thanks(sentence.text, language)
        )  # fmt: skip
        if row % BREATH == 0:
            pause()
    usable &= ~_of_another_language(document, usable, pause)
    usable &= ~_under_titles_aside(sentences, roles, usable)
    for is_worded_so in (is_of_licence, says_who_paid):
        found = _saying(sentences, usable, is_worded_so)
        if found.sum() < MOSTLY_LEGAL * max(int(usable.sum()), 1):  # else it is what it is about
            usable &= ~found
    usable &= ~_said_again_and_again(sentences, usable, pause)
    terms = _terms_of(document, weight, usable)
    pause()
    features = sentence_features(document, roles, weight, terms, usable, pause)
    prior = np.where(usable, features @ weights["sentence"], -np.inf)
    n_words = np.zeros(len(sentences), dtype=np.int64)
    for k, row in enumerate(np.flatnonzero(usable).tolist()):
        n_words[row] = word_count(without_asides(sentences[row].text))
        if n_words[row] < least_words(sentences[row].text, names):  # what is left says nothing
            prior[row] = -np.inf
        if k % BREATH == 0:
            pause()
    on_itself = _rows_on_itself(document, usable, names)
    return Scored(prior, weight, n_words, terms, roles, on_itself, names)


def _saying(
    sentences: Sequence[Sentence], usable: BoolArray, says: Callable[[str], bool]
) -> BoolArray:
    """(s,) which of the usable sentences say something."""
    found = [ok and says(s.text) for ok, s in zip(usable, sentences, strict=True)]
    return np.array(found, dtype=bool)


def _is_of_title(sentence: Sentence, titled: Collection[str], language: str) -> bool:
    """Whether a sentence on the first pages speaks of what the title names: "This driver …"."""
    match = _THIS.get(language, _THIS["en"]).match(sentence.text)
    if match is None or match[1].lower() not in titled:
        return False
    return stands_alone(sentence._replace(text=sentence.text.replace(match[0], "The ", 1)))


def _of_another_language(
    document: ReadDocument, usable: BoolArray, pause: Callable[[], None]
) -> BoolArray:
    """(s,) sentences in another script than the document's, or left in English, where they are few."""
    language, sentences = document.index.language, document.text.sentences
    foreign = np.zeros(len(sentences), dtype=bool)
    for k, row in enumerate(np.flatnonzero(usable).tolist()):
        said = sentences[row].text
        foreign[row] = not is_in_script(said, language) or is_left_in_english(said, language)
        if k % BREATH == 0:
            pause()
    # Of a document that is half translated they say as much as the others.
    return foreign & bool(foreign.sum() < FOREIGN * usable.sum())


def _under_titles_aside(
    sentences: Sequence[Sentence], roles: Sequence[Role], usable: BoolArray
) -> BoolArray:
    """(s,) what stands under "License Notice" or in thanks, unless most of a document does."""
    of = np.array([roles[s.section] if 0 <= s.section < len(roles) else "" for s in sentences])
    found = np.zeros(len(sentences), dtype=bool)
    for role in (Role.LEGAL, Role.THANKS):
        under = (of == role) & usable
        is_aside = under.sum() < CHIEFLY_LEGAL * usable.sum()
        found |= under & bool(is_aside or _begins_late(under))
    return found


def _begins_late(found: BoolArray) -> bool:
    """Whether the first of some sentences stands in the second half: tables and code may be before."""
    return bool(found.any()) and 2 * int(np.argmax(found)) > len(found)


def _said_again_and_again(
    sentences: Sequence[Sentence], usable: BoolArray, pause: Callable[[], None]
) -> BoolArray:
    """(s,) what a program wrote, such as "Definition at line 12 of file wells.c."."""
    openings = Counter(sentence.text[:OPENING] for sentence in sentences)
    forms: list[str] = []
    for row, sentence in enumerate(sentences):
        is_often = openings[sentence.text[:OPENING]] >= WRITTEN_BY_PROGRAM
        forms.append(form_of(sentence.text) if is_often else "")
        if row % BREATH == 0:
            pause()
    use = Counter(form for form in forms if form)
    return np.array([use[form] >= WRITTEN_BY_PROGRAM for form in forms], dtype=bool) & usable


def names_of(document: ReadDocument) -> tuple[str, ...]:
    """What the title names, and what the document calls what it is about.

    Words of the title that are hardly used elsewhere, what its first letters make (GLPK), and the
    word unknown to the language that the text uses most by far.
    """
    language = document.index.language
    is_english = language == "en"  # whose words alone are known
    titles = [_WORD.findall(t) for t in (document.facts.title, printed_title(document))]
    words, first = [*titles[0], *titles[1]], {title[0] for title in titles if title}
    found = []
    for word in words:
        rank, lower = frequency_rank(word.lower()), word.lower()
        if is_common(lower, language) or not any(map(str.isalpha, lower)):
            continue
        if not is_english and lower in words_for("program"):
            continue
        # A title begins with a small letter only where a name does.
        is_name = word[0].isupper() or any(letter.isdigit() for letter in word) or word in first
        # So does a word in the letters of another script than the text's.
        is_name |= (is_english or (language in NOT_LATIN and word.isascii())) and rank is None
        is_whole = [word] in titles and _SORT_OF_TEXT.fullmatch(word) is None
        is_rare = rank is None or rank > SELDOM or is_whole
        if not is_rare and _in_capitals(document, word, words) >= TAKEN_UP:
            is_rare = True
        if is_name and is_rare and _n_rows(document, word) >= TAKEN_UP:
            found.append(lower)
        numbered = _NUMBERED.match(word)  # "WELL-07P" is called "WELL" in the text
        if numbered and _n_in_capitals(document, numbered[1].upper()) >= TAKEN_UP:
            found.append(numbered[1].lower())
        stem = lower.rpartition(".")[0]  # of a file: "wellkeep.cls"
        if stem and frequency_rank(stem) is None and _n_rows(document, stem) >= TAKEN_UP:
            found.append(stem)
    found += _beside_title(document, titles)
    found += initials_in(document, " ".join(words))
    if is_english and not found:
        title = " ".join(words).lower()  # of "libwells" they speak as "wells"
        found += _titled_so(document) or [
            word for word in _coined(document) if word in title or _is_capital(document, word)
        ]  # fmt: skip
    elif is_english:  # "Debug Malloc Library" of "dmalloc"
        coined = [word for word in _coined(document) if any(name in word for name in found)]
        often = max((_n_rows(document, name) for name in found), default=0)
        found += [word for word in coined if _n_rows(document, word) > AHEAD * often]
        found += _said_first(document, found)
    return tuple(dict.fromkeys(found))


def own_words_of(document: ReadDocument) -> frozenset[str]:
    """Words that stand for what a document is about: of its names, and of its title alone.

    In small letters; those that the language has only where there are no others.
    """
    names, titles = names_of(document), (document.facts.title, printed_title(document))
    named, titled = (
        {word.lower() for text in texts for word in _WORD.findall(text)}
        for texts in (names, titles)
    )
    coined = {word for word in named | titled if frequency_rank(word) is None}
    return frozenset(coined or named)


def initials_in(document: ReadDocument, title: str) -> list[str]:
    """What first letters of the words of a title make that the document speaks of: "glpk"."""
    initials = "".join(word[0] for word in _WORD.findall(title) if word[0].isupper()).lower()
    return [
        initials[a:b]
        for a in range(len(initials)) for b in range(a + LEAST_INITIALS, min(a + 7, len(initials) + 1))
        if _n_rows(document, initials[a:b]) >= TAKEN_UP
        and frequency_rank(initials[a:b]) is None
    ]  # fmt: skip


def _beside_title(document: ReadDocument, titles: Sequence[Sequence[str]]) -> list[str]:
    """The short form that follows what a title begins with: "Gauge Keeper (GKeep) is"."""
    begins = tuple({" ".join(t[:n]).lower() for t in titles for n in range(2, len(t) + 1)})
    for sentence in document.text.sentences[:INTRODUCED] if begins else ():
        for match in _SHORT_FORM.finditer(sentence.text):
            is_of_title = sentence.text[: match.start()].lower().endswith(begins)
            if _SORT_OF_TEXT.fullmatch(match[1]):  # "An introduction (vignette)"
                continue
            if is_of_title and _n_rows(document, match[1].lower()) >= TAKEN_UP:
                return [match[1].lower()]
    return []


def _said_first(document: ReadDocument, names: Sequence[str]) -> list[str]:
    """The word unknown to English that a section named after it says first of all what it is.

    "Chapter 1. wellkeep - Keeping Wells": "wellkeep is a package for …", where the title has other
    names, or a part of that one.
    """
    sections = document.outline.sections
    for sentence in document.text.sentences[:INTRODUCED]:
        match = _FIRST_IS.match(sentence.text) if sentence.kind == "body" else None
        word = match[1].lower() if match else ""
        if not word or word in names or frequency_rank(word) is not None or sentence.section < 0:
            continue
        title = unnumbered(sections[sentence.section].title).lower()
        is_titled = title.startswith(word) or any(name in word for name in names)
        return [word] if is_titled and _n_rows(document, word) >= TAKEN_UP else []
    return []


_FIRST_IS = regex(
    r"(?:this (?:document|manual|guide|book|paper|report) (?:describes|documents|covers|is about) (?:\S+ ){0,5}?(?=\S+, (?:an?|the) ))?"
    r"([^\W\d_](?:[^\W_]|-){2,})(?: (?:is|are)|,) (?:an?|the)\b", re.I
)  # fmt: skip
"""Says of a name what it is, or of the document that it describes one: no name of code."""


def _in_capitals(document: ReadDocument, word: str, title: Sequence[str]) -> int:
    """How many sentences have a word of capitals alone from a title that has others: "CLIPS Guide"."""
    if not word.isupper() or len(word) < LEAST_INITIALS or all(other.isupper() for other in title):
        return 0
    return _n_in_capitals(document, word)


def _n_in_capitals(document: ReadDocument, word: str) -> int:
    """How many sentences that are not all in capitals have a word of capitals."""
    written = re.compile(rf"\b{re.escape(word)}\b")
    return sum(
        bool(written.search(s.text)) for s in document.text.sentences if not s.text.isupper()
    )


def _titled_so(document: ReadDocument) -> list[str]:
    """A name of plain words before what kind of book or thing it is.

    "Scheme 48 Reference Manual" counts where a sentence says what that is; "The wells package",
    where one begins with it.
    """
    for title in (document.facts.title, printed_title(document)):
        plain = " ".join(title.split())
        match = _BOOK_ON.match(plain)
        name = match["name"].lower() if match else ""
        found = naming((name,)) if " " in name else None
        said = (sentence.text.lower() for sentence in document.text.sentences)
        if found and any(found.is_a.match(text) for text in said):
            return [name]
        if (match := _THING_CALLED.match(plain)) is not None:
            called = f"the {match['name']} {match['thing']}".lower()
            said = (sentence.text.lower() for sentence in document.text.sentences)
            if any(text.startswith(called) for text in said):
                return [match["name"].lower()]
    return []


def _coined(document: ReadDocument) -> list[str]:
    """The word unknown to English that the text uses by far the most, if one is."""
    index = document.index
    often = np.diff(index.by_sentence.starts)
    unknown: list[int] = []
    for number in np.argsort(-often[: len(index.term_ids)]).tolist():
        form = index.forms[number]
        is_word = len(form) > 2 and form.isalpha() and not is_common(form, "en")
        if is_word and frequency_rank(form) is None:
            unknown.append(number)
        if len(unknown) == 2:
            break
    if not unknown:
        return []
    n, n_next = (int(often[number]) for number in (unknown[0], unknown[-1]))
    n_next = n_next if len(unknown) > 1 else 0
    least = max(TAKEN_UP, OFTEN * len(document.text.sentences))
    return [index.forms[unknown[0]]] if n >= least and n > AHEAD * n_next else []


def _is_capital(document: ReadDocument, word: str) -> bool:
    """Whether a word is mostly written with a capital within sentences; where it never is, before."""
    anywhere = re.compile(rf"(?P<before>[\w,;] )?(?<![^\W_]){re.escape(word)}(?![^\W_])", re.I)
    rows = rows_with(document, document.index.analyser.terms(word))
    texts = [document.text.sentences[row].text for row in rows]
    found = [match for text in texts for match in anywhere.finditer(text)]
    within = [match for match in found if match["before"]] or found
    n_small = sum(word in match[0] for match in within)
    return 2 * n_small <= len(within)


def _n_rows(document: ReadDocument, word: str) -> int:
    """In how many sentences a word stands, such as "gauge" or "gauge-book"."""
    stems = document.index.analyser.terms(word)
    if len(stems) > 1:
        return sum(word.lower() in sentence.text.lower() for sentence in document.text.sentences)
    number = document.index.term_ids.get(stems[0]) if stems else None
    return len(document.index.by_sentence.of(number)[0]) if number is not None else 0


def _rows_on_itself(
    document: ReadDocument, usable: BoolArray, names: Sequence[str]
) -> frozenset[int]:
    """Rows of sentences that speak of the document, or name what its title names."""
    index = document.index
    sentences = document.text.sentences
    patterns = (ITSELF,) if index.language == "en" else (ITSELF, ITSELF_ABROAD)
    rows = {
        k for k in np.flatnonzero(usable).tolist() for text in (sentences[k].text.lower(),)
        if any(pattern.search(text) for pattern in patterns)
    }  # fmt: skip
    for stem in index.analyser.terms(" ".join((document.facts.title, *names))):
        if (number := index.term_ids.get(stem)) is not None:
            rows.update(index.by_sentence.of(number)[0].tolist())
    return frozenset(rows)


# --- terms


def term_weights(document: ReadDocument, roles: Sequence[Role], weights: FloatArray) -> FloatArray:
    """(t,) how likely a summary speaks of each term."""
    features, is_content = term_features(document, roles)
    odds = 1 / (1 + np.exp(-np.clip(features @ weights, -30, 30)))
    weight: FloatArray = np.where(is_content, odds, 0.0)
    return weight


def term_features(document: ReadDocument, roles: Sequence[Role]) -> tuple[FloatArray, BoolArray]:
    """(t, len(TERM_FEATURES)) features, and (t,) whether a term is a word with content."""
    index = document.index
    n_terms, n_sentences = len(index.term_ids), len(document.text.sentences)
    is_content = np.array(
        [
            len(form) > 2 and form.isalpha() and not is_common(form, index.language)
            for form in index.forms
        ],
        dtype=bool,
    )[:n_terms]
    of_sentence = np.repeat(np.arange(n_sentences), np.diff(index.token_starts))
    running = np.array(
        [s.kind not in ("listing", "works", "code", "row") for s in document.text.sentences]
    )
    tokens, places = index.tokens, of_sentence
    if n_sentences:
        kept = running[of_sentence]
        tokens, places = tokens[kept], of_sentence[kept]
    often = np.bincount(tokens, minlength=n_terms).astype(float)[:n_terms]
    role_of = np.array([_role_at(document, roles, s.section) for s in document.text.sentences])
    first = np.full(n_terms, float(max(n_sentences, 1)))
    np.minimum.at(first, tokens, places)

    def within(*wanted: Role) -> FloatArray:
        inside = np.isin(role_of, [str(role) for role in wanted])
        counted = np.bincount(tokens[inside[places]], minlength=n_terms)[:n_terms]
        scaled: FloatArray = np.log1p(counted.astype(float))
        return scaled

    in_titles = np.zeros(n_terms)
    for term in range(n_terms):
        rows, values = index.titles.of(term)
        if len(rows):
            in_titles[term] = min(float(values.max()) * np.log1p(len(rows)), 3.0)
    in_title = np.zeros(n_terms)
    for name in index.analyser.terms(document.facts.title + " " + printed_title(document)):
        if (number := index.term_ids.get(name)) is not None:
            in_title[number] = 1.0
    ranks = [frequency_rank(form) for form in index.forms[:n_terms]]
    rare = np.array([np.log10((rank or 0) + 10) if rank is not None else 0.0 for rank in ranks])
    unknown = np.array([rank is None for rank in ranks], dtype=float)
    order = np.argsort(np.argsort(-often * is_content))
    passages = index.document_frequency[:n_terms] / max(len(document.text.passages), 1)
    scale = np.log1p(often.max(initial=1.0))
    columns = [
        np.ones(n_terms), np.log1p(often) / scale, np.sqrt(passages), in_title, in_titles,
        within(Role.INTRODUCTION, Role.ABSTRACT) / scale, within(Role.CONCLUSION) / scale,
        1.0 - first / max(n_sentences, 1), rare / 5.0, unknown, (order < 12).astype(float),
        np.array([min(len(form), 14) / 14 for form in index.forms[:n_terms]]),
    ]  # fmt: skip
    return np.stack(columns, axis=1), is_content


def printed_title(document: ReadDocument) -> str:
    """The first words of the document in the largest type, which hold its title."""
    lines = [
        piece.line for p in document.paragraphs[:30] for piece in p.pieces
        if piece.line.page == 0 and piece.line.apart != "side"
    ]  # fmt: skip
    largest = max((line.size for line in lines), default=0.0)
    title = " ".join(line.text for line in lines if line.size > 0.9 * largest)[:300]
    return _MADE_BY.split(title, maxsplit=1)[0].strip() or title


def _role_at(document: ReadDocument, roles: Sequence[Role], section: int) -> str:
    return str(roles[section]) if 0 <= section < len(roles) else str(Role.BODY)


def _terms_of(
    document: ReadDocument, weight: FloatArray, usable: BoolArray
) -> tuple[IntArray, ...]:
    index = document.index
    none = np.zeros(0, dtype=np.int64)
    found: list[IntArray] = []
    for row, ok in enumerate(usable.tolist()):
        if not ok:
            found.append(none)
            continue
        tokens = np.unique(index.tokens[index.token_starts[row] : index.token_starts[row + 1]])
        found.append(tokens[weight[tokens] > 0])
    return tuple(found)


# --- sentences


def sentence_features(
    document: ReadDocument,
    roles: Sequence[Role],
    weight: FloatArray,
    terms: Sequence[IntArray],
    usable: BoolArray,
    pause: Callable[[], None] = lambda: None,
) -> FloatArray:
    """(s, len(SENTENCE_FEATURES)) features of the sentences; zeros where they are not usable."""
    sentences = document.text.sentences
    features = np.zeros((len(sentences), len(SENTENCE_FEATURES)))
    section_rows = _extent_by(sentences, lambda k: sentences[k].section)
    paragraph_rows = _extent_by(sentences, lambda k: sentences[k].paragraph)
    n_passages = max(len(document.text.passages), 1)
    spread = np.sqrt(document.index.document_frequency / n_passages)
    title_terms = _title_rows(document)
    rows = np.flatnonzero(usable)
    first = int(rows[0]) if len(rows) else 0
    for k, row in enumerate(rows.tolist()):
        if k % BREATH == 0:
            pause()
        sentence, own = sentences[row], terms[row]
        text = sentence.text
        n_words = word_count(text)
        start, end = section_rows[sentence.section]
        mass = float(weight[own].sum())
        in_document, in_section = title_terms
        section = in_section.get(sentence.section, frozenset())
        values = [
            1.0,
            1.0 - row / len(sentences),
            row / len(sentences),
            float(row - start <= 1),
            float(end - row <= 2),
            float(row == paragraph_rows[sentence.paragraph][0]),
            float(row - first < 4),
            mass / 5.0,
            mass / max(np.sqrt(n_words), 1.0),
            len(in_document.intersection(own.tolist())) / max(len(in_document), 1),
            len(section.intersection(own.tolist())) / max(len(section), 1),
            float(spread[own].mean()) if len(own) else 0.0,
            min(n_words, 40) / 40,
            float(n_words < 10),
            float(n_words > 38),
            min(sum(map(str.isdigit, text)) / max(len(text), 1) * 10, 1.0),
            min(text.count("(") / 2, 1.0),
            strangeness(text),
            float(_points(text)),
            float(bool(OUTLINES.search(text))),
            float(sentence.kind == "item"),
            min(sum(w[:1].isupper() for w in text.split()[1:]) / n_words * 2, 1.0),
        ]
        lowered = text.lower()
        values += [float(bool(CUES[name].search(lowered))) for name in _CUES]
        role = roles[sentence.section] if 0 <= sentence.section < len(roles) else Role.BODY
        values += [float(role is known) for known in _ROLES]
        features[row] = values
    return features


def _points(text: str) -> bool:
    lower = text.casefold()
    return any(
        word in lower
        for word in ("figure ", "fig.", "table ", "see section", "equation", "listing ")
    )


def _extent_by(sentences: Sequence[object], key: object) -> dict[int, tuple[int, int]]:
    extents: dict[int, tuple[int, int]] = {}
    for row in range(len(sentences)):
        value = key(row)  # type: ignore[operator]
        first, _ = extents.get(value, (row, row))
        extents[value] = (first, row + 1)
    return extents


def _title_rows(
    document: ReadDocument,
) -> tuple[frozenset[int], dict[int, frozenset[int]]]:
    """Terms of the document's title, and of each section's."""
    index = document.index

    def ids(text: str) -> frozenset[int]:
        return frozenset(
            number for word in index.analyser.terms(text)
            if (number := index.term_ids.get(word)) is not None
            and not is_common(index.forms[number], index.language)
        )  # fmt: skip

    of_sections = {k: ids(s.title) for k, s in enumerate(document.outline.sections)}
    return ids(f"{document.facts.title} {printed_title(document)}"), of_sections


# --- choosing


def choose(
    scored: Scored, rows: Iterable[int], *, n_words: int = 0, n_sentences: int = 0,
    first: Sequence[int] = (),
) -> list[int]:  # fmt: skip
    """Rows of the sentences that say most together, in reading order.

    Args:
        scored: Of the whole document.
        rows: Those to choose among.
        n_words: At most so many words; 0 for no limit.
        n_sentences: At most so many sentences; 0 for no limit.
        first: Rows that are taken in any case.
    """
    among = [row for row in rows if np.isfinite(scored.prior[row]) and row not in first]
    among.sort(key=lambda row: (-scored.prior[row], row))
    among = [*first, *among[:N_TRIED]]
    if not among:
        return []
    table = _Table(scored, among)
    limit = n_words or (n_sentences * OF_SENTENCE if n_sentences else USUAL_WORDS)
    picked = table.greedy(limit, n_sentences, len(first))
    if n_sentences and not n_words and len(picked) < n_sentences:
        limit = 10**6  # only long ones are left
        picked = table.greedy(limit, n_sentences, len(first))
    table.exchange(picked, limit, len(first))
    return sorted(among[k] for k in picked)


class _Table:
    """The sentences to choose among and their terms, as arrays: a sentences, t terms of theirs."""

    def __init__(self, scored: Scored, among: Sequence[int]) -> None:
        numbers, places = np.unique(
            np.concatenate([scored.terms[row] for row in among]), return_inverse=True
        )
        lengths = np.array([len(scored.terms[row]) for row in among])
        self.has = np.zeros((len(among), len(numbers)), dtype=bool)
        self.has[np.repeat(np.arange(len(among)), lengths), places.astype(int)] = True
        self.worth: FloatArray = (
            float(gist_weights()["coverage"][0]) * scored.weight[numbers.astype(int)]
        )
        self.n_words = scored.n_words[list(among)]
        self.own: FloatArray = np.maximum(scored.prior[list(among)], 0.01) * self.n_words
        counts = self.has.astype(np.float32)
        shared, size = counts @ counts.T, counts.sum(axis=1)
        least = np.minimum(size[:, None], np.maximum(size[None, :], 1))
        self.repeats = (shared >= NEAR_COPY * least) & (size[:, None] > 0)
        """(a, a) whether a sentence says what another one says already."""

    def greedy(self, limit: int, n_sentences: int, n_first: int) -> list[int]:
        """Take the first ones, then what adds most for its words, until nothing fits."""
        picked = list(range(n_first))
        per = np.maximum(self.n_words, 1) ** 0.9
        open_ = ~self.repeats[:, picked].any(axis=1)
        open_[picked] = False
        fresh = ~self.has[picked].any(axis=0)
        left = limit - int(self.n_words[picked].sum())
        while len(picked) < (n_sentences or len(self.own)):
            rate = (self.own + self.has @ (self.worth * fresh)) / per
            rate[~open_ | (self.n_words > left)] = 0.0
            best = int(rate.argmax())
            if rate[best] <= 0:
                break
            picked.append(best)
            fresh &= ~self.has[best]
            left -= int(self.n_words[best])
            open_ &= ~self.repeats[:, best]
            open_[best] = False
        return picked

    def exchange(self, picked: list[int], limit: int, n_first: int) -> None:
        """Exchange one sentence for another while that says more within the same length.

        The first ones stay.
        """
        best_ones = np.arange(min(N_EXCHANGED, len(self.own)))
        for _ in range(ROUNDS):
            is_better = False
            for k in range(n_first, len(picked)):
                rest = picked[:k] + picked[k + 1 :]
                used = int(self.n_words[rest].sum())
                fresh = ~self.has[rest].any(axis=0)
                adds = self.own + self.has @ (self.worth * fresh)
                fits = self.n_words[best_ones] + used <= limit
                fits &= ~self.repeats[best_ones][:, rest].any(axis=1)
                fits &= ~np.isin(best_ones, picked)
                better = fits & (adds[best_ones] > adds[picked[k]] + 1e-6)
                if better.any():
                    picked[k] = int(best_ones[int(better.argmax())])
                    is_better = True
            if not is_better:
                return


def _without_label(document: ReadDocument, row: int) -> str:
    """A sentence without the "Abstract" that is set apart at its beginning."""
    sentence = document.text.sentences[row]
    lead = document.paragraphs[sentence.paragraph].pieces[0].line.lead
    if sentence.start or not lead or not begins_abstract(sentence.text[:lead]):
        return sentence.text
    label, _, said = sentence.text.partition(" ")
    return said if said and len(label) <= lead else sentence.text


def gist_lines(document: ReadDocument, rows: Iterable[int]) -> tuple[GistLine, ...]:
    """The sentences of some rows, asides cut; what is said again word for word is left out."""
    first: dict[str, int] = {}
    for row in rows:
        first.setdefault(without_asides(_without_label(document, row)), row)
    return tuple(GistLine(text, locator_for(document, row), row) for text, row in first.items())
