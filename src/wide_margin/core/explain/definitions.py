"""Definitions that a document gives: in sentences, in lists of terms, in glossaries, in brackets.

What a form of words is worth as a definition is told by its weight; where one term has several,
the surest comes first. English forms are looked for first; those of other languages are in
subjects_abroad.py.
"""

from __future__ import annotations

import re
import time
from bisect import bisect_left
from collections import defaultdict
from collections.abc import Iterator, Set
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

from wide_margin.core.explain.short_forms import find_short_forms, symbols_in
from wide_margin.core.explain.subjects_abroad import LANGUAGES, subject_abroad
from wide_margin.core.explain.verbs import PREPOSITIONS, first_finite, is_past
from wide_margin.core.later import regex
from wide_margin.core.layout import BEFORE_DASH, BULLETS, NOTE_MARK, fold, tidy
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.passages import is_said, names_in
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.layout import Paragraph
    from wide_margin.core.passages import Sentence
    from wide_margin.core.search import Analyser

MAX_TERM_WORDS = 5
SURE = 0.55
"""A definition of at least this weight is shown for each term of a longer selection."""
CLEAR = 0.6
"""A definition of at least this weight says what a term is."""
CLEARER = 0.85
"""One of at least this weight says more of a short form than what that stands for."""
OF_VALUE = 0.5
"""The weight of what says what follows from a thing."""
LEAST_WORDS = 6
"""A sentence of fewer words defines nothing by its form alone."""
LABEL = 5
"""What is set apart so often and described each time anew is a label."""
IN_TITLE = 0.15
"""Added where the title of the section around it holds the term."""


class Definition(NamedTuple):
    """A sentence that says what a term means."""

    term: str
    """As written where it is defined."""
    sentence: int
    """Row in the document's sentences."""
    kind: str
    """glossary, entry (of a list of terms), defined, section (of that title), abbreviation,
    symbol."""
    weight: float
    """How surely this is a definition, 0 to 1."""
    long_form: str = ""
    """What an abbreviation stands for."""
    first: int = -1
    """Row of the sentence that it leans on ("This is called …"); -1 where it stands alone."""


Definitions = dict[tuple[str, ...], list[Definition]]
"""Definitions by the stems of their term; of an abbreviation or symbol by what exact_key gives."""

_NAME = r"[^\W_][\w’'/+-]*(?:\s+[\w’'/+-]+){0,4}?"
_TERM = rf"(?P<term>[“\"‘']?{_NAME}[”\"’']?)"
_ADVERB = (
    r"(?:(?:often|usually|commonly|generally|sometimes|also|simply|then|thus|therefore|hence|here"
    r"|formally|informally|normally|traditionally|typically|collectively|still|now|just|basically"
    r"|essentially|called|technically|\w+ly),?\s+)"
)
_IN_FIELD = (
    r"In (?:[\w-]+ ){0,2}(?:general|\w*(?:ics|ing|logy|graphy|metry)|science|theory|algebra|analysis|law|medicine|parlance"
    r"|terminology|jargon|terms),\s"
)
"""Leads in to what something is in a field: "In computer programming, a cast is …"."""
_ASIDE = r"(?:\s?(?:-{2,3}|[–—])[^–—.;:]{2,60}?(?:-{2,3}|[–—])|,\s[^,.;:]{2,50},)"
"""What is put in before it is said what something is: "A weir is, like a lock, a dam"."""
_IS = regex(
    rf"^(?P<article>An?|The|By|Each|Every|{_IN_FIELD}(?:an?\s|the\s)?|Eine?|Der|Die|Das|Une?|Les?|La|El|Los)?\s*"
    rf"(?:(?:term|word|name|phrase|notion|concept|expression)s?\s+)?{_TERM}"
    r"(?:\s*\((?:(?P<abbr>[^)]{1,30})|[^)]{1,90})\)|\s[–—-]\s[^–—]{2,60}?\s[–—-](?=\s))?,?\s+"
    rf"(?:,?\s*{_ADVERB}){{0,2}}"
    r"(?P<verb>(?:is|are|was|were|can be|may be) (?:\w+ly )?(?:defined (?:as|to be)|understood (?:as|to (?:be|mean))|taken to mean)|is meant(?! (?:to|for|as)\b)|means|refers? to|denotes?"
    r"|(?:stands?|is short) for|(?:is|are) used (?:here |throughout )?(?:to (?:mean|denote|describe|refer)|for)"
    r"|(?:is|are) (?:designed|intended|meant) to(?! be\b)"
    rf"|(?:is|are){_ASIDE}? (?:{_ADVERB})?(?:the|those|any|an?|one|kinds? of|what|simply|just)\b"
    r"|(?:describes|represents) (?:the|an?|one|all|any)\b"
    r"|provides? an? (?:\w+ )?(?:mechanism|means|way)\b"
    r"|bedeutet|bezeichnet|ist (?:ein|der|die|das)\w*|sind|est (?:une?|le|la)|désigne|es una?|es el|es la|significa)\s",
)  # fmt: skip
_ARE = regex(
    r"^(?P<article>)(?P<term>[^\W_][\w’'/+-]*(?:\s+[\w’'/+-]+){0,2}?s)(?:\s*\((?P<abbr>[^)]{1,30})\))?\s+"
    r"(?P<verb>are)\s+(?:(?:essentially|basically|simply|just|really|actually|effectively)\s+)?(?=(?P<what>(?:[a-z-]+\s+){0,2}?[a-z-]{3,}[^\Ws]s)\s+(?:of|that|which|for|in|with|used|from|to|where|who|whose|between|(?:\w+ly\s+)?(?:\w{3,}ed|made|built|given|drawn|taken))\b)"
)  # fmt: skip
_TYPED = regex(r"\s*[%$#>]\s+\S")
"""What is typed after the sign of a shell is a command, and no term."""
_NOTED = regex(
    r"(?<=\w{3})(?:[*†‡]|\s?\[\d[\d,;\s–-]*\]|\s[(<]?https?://[^\s()<>]+[)>]?"
    r"|\s\[[^\[\]]{2,80}\b(?:1[89]|20)\d\d[a-z]?\]|\s\([^()]{2,80}\b(?:1[89]|20)\d\d[a-z]?\))(?=\s)"
)
"""The mark of a footnote, of a work or an address after a word: "JIB* is a sail", "Jib [3] is one",
"Jib (Moore 1998) is one", "Jib http://jib.example is one"; "A*" is a name."""
_MAY_BE_NOTED = regex(r"[\[(*†‡]|://")
"""What every such mark has: most sentences are passed over by it, three times as fast."""
_TELLS_OF, _OF_ANY = ("describes", "represents"), frozenset(["A", "An", "Each", "Every"])
"""What these say of any such thing defines it, what they say of one does not."""
_ARTICLED = regex(r"(?:an?|the|each|every)\s")
_NO_PLURALS = frozenset(
    ["alway", "perhap", "sometime", "afterward", "backward", "forward", "toward", "les", "thu"]
)
"""Words whose last letter makes no plural, without it."""
_OR = regex(
    r"(?:(?:or (?:simply|just)|or|also called|also|in short)\s+(?:the\s+|an?\s+)?(?=\S)|(?=[“\"‘][^“”\"‘’]+[”\"’]$))(?P<name>.*)$", re.I
)  # fmt: skip
"""The other name of a term: "a collaboration site (or “site”) means", "a site (“place”) is"."""
_PART = r"(?:(?:sub)?sections?|chapters?|parts?|appendix|appendices|paragraphs?|tables?|figures?|examples?|pages?|headings?|titles?)"
"""What has a title: "the section called “Ropes”" says nothing of ropes."""
_CALLED = regex(
    rf"(?:\b(?:is|are|was|were|be|being|been)\s+{_ADVERB}{{0,2}}(?:called|known as|termed|named|dubbed|labell?ed"
    r"|referred to as|defined to be|denoted as)\s+"
    r"|\b(?:we|I|they|people|one|which we|here|many|some|authors|you|users)\s+"
    rf"{_ADVERB}?(?:will |shall |may |can )?{_ADVERB}?call\s+(?:(?:this|these|it|them|that|such)\b\s*(?:\w+\s+){{0,3}}?)?"
    r"|\bso-called\s+|\bknown as\s+|[,(]\s*(?:or\s+)?(?:also\s+|often\s+|usually\s+|sometimes\s+)?"
    rf"(?:called|known as|termed|named)\s+|\b(?!{_PART}\s)\w{{3,}}\s+(?:called|termed)\s+)"
    r"(?P<article>an?\s+|the\s+|its\s+|their\s+)?(?P<quote>[“\"‘'`]{1,2})?"
    r"(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,3})[”\"’']{0,2}",
)  # fmt: skip
_OTHER_NAME = regex(r"\s\((?:or\s+|also\s+)?[“\"‘](?P<name>[^“”\"‘’()]{3,40})[”\"’]\)")
"""A second name behind the first: "is called ΔT (“Delta T”)"."""
_IS_NAMED = regex(
    r"(?:This|That|It)\s+is\s+(?:the|an?|what is called the)\s+[“\"‘'”„](?P<term>[^\W\d_][\w’'-]*(?:\s+[\w’'-]+){0,3})[”\"’']"
)
"""Gives what was spoken of before its name: "This is the “burn-in” phase"."""
_IS_MEANT = regex(
    r"(?:This|That|It)\s+is\s+(?:\w+ly\s+)?what\s+(?:(?:is|was)\s+(?:meant|understood)|(?:we|I|one|people)\s+(?:mean|understand))\s+by\s+"
    r"(?:(?:an?|the|saying|calling)\s+)?[“\"‘'”„]?(?P<term>[^\W\d_][\w’'-]*[”\"’']?(?:\s+[^\W\d_][\w’'-]*){0,3}?)[”\"’']?\s*(?:[.,:;]|$)"
)
"""The same without marks: "This is what is meant by a short rope"."""
_DENIED = regex(r"\b(?:not|never|isn['’]t|aren['’]t)\b(?:\W+\w+){0,2}\W*$", re.I)
"""Before "what we call a polymer": then it says what none is."""
_IS_CALLED = regex(r"(?:is|are|was|were|be|being|been)\s", re.I)
_IS_NOT = regex(r"\b(?:not|never|isn['’]t|aren['’]t)\s+(?:what|which|that)\s*$", re.I)
"""The same before "is called": "A copy that is not clear is called opaque" says what one is."""
_CALLS_IT = regex(r"[^,.;:]+\sas\s")
"""After "refers to": then it is the other thing that is called something."""
_OF_FILE = regex(r"[./\\]\w")
"""After a name that is that of a file: "called wells.ini"."""
_BOTH_CALLED = regex(
    r"\b(?:are|were)\s+(?:called|named|termed|known as)\s+(?:the\s+)?(?P<one>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,2}?)"
    r"\s+and\s+(?:the\s+)?(?P<other>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,2}?),?\s+respectively\b"
)
"""Gives two things their names, in order: "These are called lids and bungs, respectively"."""
_GOES_ON_QUOTED = regex(r"\s?[“\"‘'`]\w")
"""After the first word of a name: "are called JIB 'extensions'"."""
_ITEM_NUMBER = regex(r"^\(?(?:\d{1,2}|[a-zA-Z]|[ivx]{1,4})[.)]\s+(?=\S)")
"""Counts an item, and is no part of what it says."""
_WORD_FOR = regex(
    r"\b(?:we|I|one|authors?)\s+(?:shall\s+|will\s+)?uses?\s+the\s+(?:terms?|words?|names?|expressions?|phrases?)\s+[“\"‘'`]?"
    r"(?P<term>[^\W\d_][\w’'-]*(?:\s+[\w’'-]+){0,2}?)[”\"’']?\s+(?:to\s+(?:mean|refer|denote|describe|stand)|for|in\s+the\s+sense)\b"
    r"(?:.{4,160}?\band\s+[“\"‘'`]?(?P<other>[A-Z][\w’'-]*|[^\W\d_][\w’'-]*(?=[”\"’']))[”\"’']?\s+to\s+(?:mean|refer|denote|describe|stand)\b)?",
    re.I,
)
"""Says how a word is used: "I use the word cylinder to refer to a place, and track to refer to it"."""
_FOR_IS = regex(
    r"^(?:[A-Z]\w+ )?(?:the |an? )?(?:technical |usual |general |common |standard |proper )?"
    r"(?:term|word|name|expression)\s+(?:used\s+)?(?:for|of|given to)\s+(?:(?!\b(?:because|since|there|but|although|whereas)\b).){3,90}?\s+(?:is|are|was)\s+"
    r"(?:an?\s+|the\s+)?[“\"‘'`]*(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,3})[”\"’']*[.,;:]?", re.I
)  # fmt: skip
_BY_MEAN = regex(
    r"\b(?:by|with)\s+(?:an?\s+|the\s+)?[“\"‘']?(?P<term>[^\W\d_][\w’'-]*(?:\s+[\w’'-]+){0,3}?)[”\"’']?,?\s+"
    r"(?:we|I|one|is|are|it is)\s+(?:mean|understand|refer|meant|understood)\b", re.I
)  # fmt: skip
_APPOSED = regex(
    r"(?:^|[\s(])(?:(?P<article>[Aa]n?|[Tt]he)\s+)?(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,2}),\s+"
    r"(?:(?:which|that|who)\s+(?:is|are|means?|denotes?)\s+(?:an?|the|any|what)\b|i\.e\.,?|that is,?"
    r"|an?\s+(?:\w+\s+)?(?:kind|type|sort|form|set|collection|program|file|method|function|measure|way|tool"
    r"|system|person|place|piece|unit|list|group|number|command|value|process|device|language|package)\b"
    r"|the\s+(?:\w+\s+)?(?:distance|number|ratio|set|time|rate|amount|process|part|place|point|sum|difference"
    r"|length|height|depth|name|ability|act|use|practice|study|person|degree|probability|proportion)\s+(?:of|between|from|at|to|by|in|who|where|that)\b)",
)  # fmt: skip
_WHICH_IS = regex(r",\s+(?:which|that|who)\s+(?:is|are|means?|denotes?)\s")
"""Goes on with what the term before it is: ", which are a set of …"."""
_NAME_APPOSED = regex(
    r"(?<=[a-z\d)] )(?P<term>[A-Z][\w’'+-]*(?:\s+[A-Z][\w’'+-]*){0,2}|[a-z][\w’'+-]{2,}),\s+(?:an?|the)\s+(?P<what>[\w’'-]+(?:\s+[\w’'-]+){0,11})(?=\s*(?:[,.;:()]|$))"
)
"""A name in the middle of a sentence, and what it is: "a front-end to Remind, an alarm program"."""
_DASHED = regex(r"\b(?P<term>[^\W\d_][\w’'+-]*)\s?[—–]\s(?:an?|the)\s+[^—–]{8,110}\s?[—–]\s")
"""A name and what it is between dashes: "the tree is made by dtc — the compiler of it — in May"."""
_SHORT_APPOSED = regex(
    r"(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,3})\s+\([A-Z][A-Za-z]?[A-Z]+s?\),\s+(?:an?|the)\s+[^,.;()]{10,}"
    r"\b(?:which|that|who|where|of|between|for|by)\b[^,;()]*[.;]"
)
"""A term with its short form, and what it is up to the end: "rope wear (RW), the loss of …"."""
_THEN_IS = regex(
    r"^(?:if|when(?:ever)?|where|as soon as)\s.{10,160},\s+(?:then\s+)?(?:it|this|that|they|these)\s+(?:is|are|becomes?)\s+"
    r"(?:called\s+)?(?:(?:an?|the)\s+)?(?:[“\"](?P<quoted>[^“”\"]{2,40})[”\"]|(?P<term>[A-Z][\w’'-]*(?:\s+[A-Z][\w’'-]*){0,2}))\s*\.\s*$", re.I
)  # fmt: skip
"""Says when a thing is one of a name: "If you build it over a spring, it is a Well House."."""
_QUOTED_WHERE = regex(
    r"[“\"](?P<term>[^“”\"]{3,40})[”\"],?\s+(?:(?:mode|state|option|feature)\s+)?(?:where|in which|whereby|by which)\s"
)
"""A term in quotation marks, and what is so under it: "“Dry mode”, in which no bucket is lowered"."""
_CONSISTS = regex(r"[“\"](?P<term>[^“”\"]{3,40})[”\"],? consist(?:ing|s) of\b")
"""A term in quotation marks, and what it is made of."""
_BRACKET = regex(
    r"\s\((?:that is,?|i\.e\.,?|meaning|an?\s+\w{3,}\s+\w+|the\s+(?!(?:rest|latter|former|same|first|last|only)\b)\w{3,}\s+\w+|twice|half|any\s+\w+|those\s+\w+)\b[^()]{6,}\)"
)  # fmt: skip
_BEFORE_BRACKET = regex(
    r"(?:\b(?P<article>an?|the)\s+)?(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,2})$"
)
_SHORT_WITHIN = regex(
    r"^(?P<short>(?:An?|The|Each|Every)\s+[A-Z][\w-]*)\s\(=?\s?[^()]{3,60}\)(?=\s[a-z]\w*\s(?:is|are)\s)"
)
"""A short form with what it stands for, and more of the name: "A WKR (Well Record) file is"."""
_FORMS = regex(r"\s{2,}|\s*[=,;]\s*|\s+(?=--?\w)")
"""Between the forms that a term is written in: "[u, s] = svd (a)", "-v --verbose"."""
_TITLE_PARTS = regex(r"\s+[-–—]\s+|:\s+|\s*[()]\s*|,\s+")
_TITLE_FRONT = regex(
    r"^(?:(?:an?\s+)?(?:introduction|overview|about|definitions?)\s*(?:to|of)?\s+)?(?:the|an?|using)\s+|^introduction to ",
    re.I,
)
_QUOTED, _CLOSES = regex(r"[“\"‘'`]"), regex(r"[”\"]")
_GLOSSARY = regex(
    r"\b(?:glossary|abbreviations?|acronyms|definitions?|terms|terminology|nomenclature|vocabulary|symbols|notation|conventions"
    r"|glossar|begriffe|abkürzungen|glossaire|définitions|abréviations|glosario|definiciones)\b", re.I
)  # fmt: skip
_ENTRY = regex(
    rf"^(?:[{BULLETS}–—-]\s*)?"
    r"(?P<term>[^\W_][^:—–\t.;!?]{0,50}?)\s*(?:[:—–]|\s-{1,3}\s|\t)\s*(?P<rest>\S.{3,})$",
    re.S,
)
_SAYS_WHAT = regex(
    r"(?:(?:an?|the|any|one|all|those|to|used|means?|is|are|see|short|same|every|each|describes?|denotes?"
    r"|refers?|stands?|contains?|holds?|specif\w+|gives?|\w+s)\b|[A-Z])"
)
_NAMED_SO = regex(r"(?!known|so-|(?:are|were|be|been|being)\b)\w{2,}[^\Ws]\s+(?:called|termed)\b")
"""A name given to one thing, as of a file: "a file called diary"."""
_BESIDE = regex(r"[,(—–]\s?(?:the|an?)\s$")
"""Before "so-called", where it gives what was just told its name; else it only mentions one."""
_CONDITION = regex(r"\W*(?:if|when|unless|whenever|wenn|falls|si|als)\b", re.I)
"""Begins what is said of a field or a box that has a plain word for its name."""
_POINTS_BACK = regex(
    r"^(?:this|these|those|such|it|they|that|both|the (?:former|latter|result|process|whole|two))\b", re.I
)  # fmt: skip
_FOR_THIS = regex(
    r"\b(?:for (?:this|that|these) (?:purposes?|reasons?|tasks?|jobs?)|to (?:this|that) end)\b",
    re.I,
)
_WITH_SORT = regex(
    r"(?P<name>[^\W\d_][\w.-]+)\s(?:class|function|command|package|module|method|object|library|program|tool|directive|macro"
    r"|environment|format|type)$"
)
"""A name of code with what sort of thing it is."""
_PROPER = regex(r"(?:[A-Z][\w’'+-]*\s+)+[A-Z][\w’'+-]*")
"""A name of several words, of which there is one: "The Well Keepers Act is a law"."""
_NOT = regex(
    r"^(?:not|no|never|also|only|still|always|already|true|false|possible|(?:registered\s)?trade-?\s?marks?"
    r"|the\s+(?:\w+\s+)?(?:result|outcome|fruit)\s+of\s+(?:my|our|his|her|their))\b"
)
_JOINING = frozenset(["of", "the", "and", "in", "for", "to", "on", "by", "with", "de", "du", "des"])
_NO_TERMS = """
    this that these those it there here what which who he she they we you i one such
    following example examples section chapter figure table result results reason reasons
    purpose idea case cases point first second next last other another default question
    answer problem way thing things rest difference aim goal advantage disadvantage only
    main same name latter former nothing something everything anything both all most some
    many few each fact note exception alternative solution intention left right above below
    if when while others
"""
_WEAK = frozenset(_NO_TERMS.split())
_SORT_NAMES = """
    program tool language library package system application editor utility format standard
    protocol command framework module service server client device machine method algorithm
    project company organisation organization institute university foundation association city
    town village country island river mountain region person author engineer scientist
    mathematician physicist physician writer poet painter composer book journal newspaper
    interface toolkit environment compiler interpreter database platform distribution simulator
    generator viewer player browser engine network website game instrument ship vessel
"""
_SORTS = frozenset(_SORT_NAMES.split())
"""What a thing with a name may be."""
_STRONG = regex(
    r"defined|means?\b|refer|denote|stand|short|meant|understood|bedeutet|bezeichnet|désigne|significa|used"
)


_NAMING = "(?:called|termed|named|known)"
"""Between a sort of thing and the name of one."""
BREATH = 32
"""Sentences after which gathering can be broken off."""


def key_of(term: str, analyser: Analyser) -> tuple[str, ...]:
    """The stems a term is looked up by; small words in front are left out."""
    parts = [word for word in words(term) if not is_common(word, analyser.language)]
    return tuple(analyser.terms_of(word)[0] for word in parts if analyser.terms_of(word))


def exact_key(written: str) -> tuple[str]:
    """The key of what is looked up as it is written: an abbreviation, a symbol."""
    return ("=" + "".join(c for c in written if c not in ". "),)


def define(document: ReadDocument, term: str) -> Definition | None:
    """The surest definition of one term; None where nothing clearly says what it is.

    Only the paragraphs that hold its words are looked through, so that a question after a term
    need not wait until a long document has been gone through.
    """
    index = document.index
    key = key_of(term, index.analyser)
    if not 0 < len(key) <= MAX_TERM_WORDS:
        return None
    numbers = [index.term_ids.get(stem, -1) for stem in key]
    if min(numbers) < 0:
        return None
    sentences = document.text.sentences
    rows = [set(index.by_sentence.of(number)[0].tolist()) for number in numbers]
    holding = [{sentences[row].paragraph for row in some} for some in rows]
    among = set.intersection(*holding)
    among |= {paragraph + 1 for paragraph in among}  # a term on a line of its own
    found = find_definitions(document, Among(among, set.intersection(*rows)))
    short = [d for d in found.get(exact_key(term), []) if d.kind == "abbreviation"]
    of_it = [d for d in found.get(key, []) if not _is_other_option(d.term, term)]
    clear = [d for d in of_it if d.weight >= CLEARER]  # more than what it is short for
    for definition in clear + short + of_it:
        if definition.kind not in ("section", "symbol") and definition.weight >= CLEAR:
            return definition
    if len(key) > 1:  # "A copy that is not clear is called “opaque”": an opaque copy
        named = [d for d in found.get(key[:1], []) if d.kind == "defined" and d.weight >= CLEAR]
        noun = list(words(term))[-1]
        return next((d for d in named if _calls_one(sentences[d.sentence].text, noun)), None)
    return None


def defines_term(document: ReadDocument, row: int) -> bool:
    """Whether a sentence clearly says what some term means."""
    sentence = document.text.sentences[row]
    found = _in_sentence(document.text.sentences, sentence, row)
    return sentence.kind in ("body", "item") and any(
        definition.kind == "defined" and definition.weight >= CLEAR for definition in found
    )


def _calls_one(text: str, noun: str) -> bool:
    """Whether what a sentence names is a thing of some sort: "a copy that is …", "a rope called"."""
    stem = re.escape(noun[: max(4, len(noun) - 2)])
    return (
        re.search(rf"^\W*(?:\w+\s+){{0,2}}{stem}|\b{stem}\w*\s+{_NAMING}\b", text, re.I) is not None
    )


def _is_other_option(name: str, term: str) -> bool:
    """Whether a name is that of an option with a word like a term: "--persist" of "persistent"."""
    return name.startswith("-") and name.strip("-").casefold() != term.strip("- ").casefold()


class Among(NamedTuple):
    """Where one term may be defined; symbols are not looked for there."""

    paragraphs: Set[int]
    sentences: Set[int]
    """Rows of those that hold all words of the term."""


def find_definitions(document: ReadDocument, among: Among | None = None) -> Definitions:
    """Every definition in a document, or in some of it; the surest first for each term."""
    found = GatheringDefinitions(document, among).go_on(float("inf"))
    assert found is not None
    return found


class GatheringDefinitions:
    """Finds the definitions of a document piece by piece, so that others can be served between."""

    def __init__(self, document: ReadDocument, among: Among | None = None) -> None:
        """Nothing is found yet; ``among`` is what to look through, None for all."""
        self._document = document
        self._rest = _all(document, among)
        self._found: Definitions = defaultdict(list)
        self._titles: dict[int, set[str]] = {}

    def go_on(self, seconds: float) -> Definitions | None:
        """Look on for so long; the surest first for each term once all is looked through."""
        until = time.monotonic() + seconds
        for definition in self._rest:
            if definition is not None:
                self._take(definition)
            if time.monotonic() > until:
                return None
        return self._sorted()

    def _take(self, definition: Definition) -> None:
        document, analyser = self._document, self._document.index.analyser
        if definition.kind in ("abbreviation", "symbol"):
            self._found[exact_key(definition.term)].append(definition)
            return
        key = key_of(definition.term, analyser)
        if not 0 < len(key) <= MAX_TERM_WORDS:
            return
        section = document.text.sentences[definition.sentence].section
        if section >= 0 and section not in self._titles:
            title = document.outline.sections[section].title
            self._titles[section] = set(key_of(title, analyser))
        if section >= 0 and set(key) <= self._titles[section]:
            weight = min(1.0, definition.weight + IN_TITLE)
            definition = definition._replace(weight=weight)
        self._found[key].append(definition)

    def _sorted(self) -> Definitions:
        for key, definitions in self._found.items():
            definitions.sort(key=lambda d: (-d.weight, d.sentence))
            set_apart = sum(d.kind in ("entry", "glossary") for d in definitions)
            # The name of a thing may stand in letters of its own wherever it is written.
            is_name = set_apart > 1 and any(
                d.kind == "defined" and d.weight >= CLEAR for d in definitions
            )
            labels = set_apart >= LABEL
            if labels or is_name:  # "See also", a parameter of every function: it names nothing
                self._found[key] = [
                    d for d in definitions if d.kind not in ("entry", "glossary") or d.weight > 0.9
                ]
        return {key: definitions for key, definitions in self._found.items() if definitions}


def _within(document: ReadDocument, titled: re.Pattern[str]) -> tuple[bool, ...]:
    """Whether each section has such a title, or lies in one that has."""
    found: list[bool] = []
    for section, parent in zip(document.outline.sections, document.outline.parents, strict=True):
        found.append((parent >= 0 and found[parent]) or bool(titled.search(section.title)))
    return tuple(found)


@lru_cache(maxsize=2)
def _in_glossary(document: ReadDocument) -> tuple[bool, ...]:
    """Whether each section is a glossary, or lies in one."""
    return _within(document, _GLOSSARY)


_CHANGES = regex(
    r"\b(?:release notes|(?:release|revision|document) history|version history|history of changes|change\s?-?log|changes (?:in|since|from|between)"
    r"|(?:noteworthy|recent|major|important|latest|user[- ]visible) changes|(?:summary|list|overview) of (?:the )?changes|what['’]?s new|what is new"
    r"|neuerungen|neuigkeiten|nouveautés|novedades|novità|novidades|wijzigingen|änderungs\w*|versionsgeschichte|historique des (?:versions|modifications)|registro de cambios|historial de (?:cambios|versiones))\b"
    r"|^[\d.\s]*(?:news|new features|changes)\W*$",
    re.I,
)


@lru_cache(maxsize=2)
def tell_changes(document: ReadDocument) -> tuple[bool, ...]:
    """Whether each section tells what changed, or lies in one: its items define nothing."""
    return _within(document, _CHANGES)


def _all(document: ReadDocument, among: Among | None) -> Iterator[Definition | None]:
    """The definitions in the order of the document; None now and then where there is none."""
    in_glossary, language = _in_glossary(document), document.index.language
    of_changes = tell_changes(document)
    if among is None:
        yield from _sections(document)
    last_paragraph, last_term = -1, -1
    for row, sentence in enumerate(document.text.sentences):
        if among is not None and sentence.paragraph not in among.paragraphs:
            continue
        if sentence.kind in ("listing", "heading", "works", "formula", "figure"):
            continue
        if row % BREATH == 0:
            yield None
        starts_paragraph = sentence.paragraph != last_paragraph
        last_paragraph = sentence.paragraph
        if starts_paragraph and not (sentence.section >= 0 and of_changes[sentence.section]):
            glossary = sentence.section >= 0 and in_glossary[sentence.section]
            paragraph = document.paragraphs[sentence.paragraph]
            is_listed = _is_listed(document, sentence.paragraph)
            yield from _entry(paragraph, row, language, is_glossary=glossary, is_listed=is_listed)
            mark = NOTE_MARK.match(paragraph.text) if sentence.kind == "note" else None
            if mark and not mark[1].isdecimal():
                yield Definition(mark[1], row, "symbol", 0.8)
            if sentence.term >= 0 and sentence.term != last_term:
                last_term = sentence.term
                yield from _described(document, sentence, row)
        if sentence.kind == "code" or (among is not None and row not in among.sentences):
            continue
        for found in _in_sentence(document.text.sentences, sentence, row):
            # "Ce paquet est un …" says what one of them is.
            if language == "en" or not is_common(found.term.split()[0].lower(), language):
                yield found
        if language in LANGUAGES and (subject := subject_abroad(sentence.text, language)):
            yield Definition(subject[0], row, "defined", subject[1])
        for symbol, meaning, weight in symbols_in(sentence.text) if among is None else ():
            yield Definition(symbol, row, "symbol", weight, meaning)


def _sections(document: ReadDocument) -> Iterator[Definition]:
    """A section that a term is the title of: what its first sentence says."""
    sentences = document.text.sentences
    rows = [
        row for row, s in enumerate(sentences)
        if s.kind in ("body", "item", "entry") and len(s.text.split()) >= 5
    ]  # fmt: skip
    starts = [sentences[row].paragraph for row in rows]
    for section in document.outline.sections:
        at = bisect_left(starts, section.first_paragraph)
        if at == len(rows) or starts[at] >= section.end_paragraph:
            continue
        row = rows[at]
        if sentences[row].text.isupper():
            continue
        title = unnumbered(section.title)
        for part in dict.fromkeys((title, *_TITLE_PARTS.split(title))):
            name = _TITLE_FRONT.sub("", part.strip(" .:,"))
            if 0 < len(name.split()) <= MAX_TERM_WORDS and len(name) > 1:
                said = fold(name)[:6] in fold(sentences[row].text)
                yield Definition(name, row, "section", 0.45 if said else 0.35)


_GOES_ON = regex(
    r"(?:was|were|has|have|had|can|could|will|would|may|might|must|should|does|did)\s"
    r"|(?:is|are)(?:\s(?:\w+ly|now|also|still|often))?\s(?:not|never|defined,|\w{3,}ed\s(?!(?:as|to|for|by|by means of|in order to)\b))"
)
"""After a name that is set in its own letters wherever it stands: a sentence like any other."""


def _is_listed(document: ReadDocument, at: int) -> bool:
    """Whether a paragraph sets its term apart by a dash, and one beside it does too."""
    if not BEFORE_DASH.match(document.paragraphs[at].text):
        return False
    beside = (*document.paragraphs[max(0, at - 1) : at], *document.paragraphs[at + 1 : at + 2])
    return any(BEFORE_DASH.match(other.text) for other in beside)


def _entry(
    paragraph: Paragraph, row: int, language: str, *, is_glossary: bool, is_listed: bool
) -> Iterator[Definition]:
    """A paragraph that sets its term apart: in bold or italics, by a colon, a dash or a tab.

    Args:
        paragraph: It.
        row: Of its first sentence.
        language: Of the document, as its code.
        is_glossary: Whether it stands in a glossary.
        is_listed: Whether it sets its term apart by a dash beside others that do.
    """
    if paragraph.kind in ("caption", "note", "side") or (
        paragraph.kind == "row" and not is_glossary
    ):
        return
    first = paragraph.pieces[0].line
    if first.lead and 1 < first.lead < len(paragraph.text) - 5:
        term = tidy(paragraph.text[: first.lead]).strip(" .:—–-•*")
        rest = paragraph.text[first.lead :].lstrip(" .:—–-")
        names = 0 < len(term.split()) <= MAX_TERM_WORDS and bool(_SAYS_WHAT.match(rest))
        names = names and not _GOES_ON.match(rest)
        if language != "en" and not is_glossary and rest[:1].islower():
            # Its verbs are not known: "Quorble es …" is told from a term by what parts the two.
            names = names and bool(_PARTED.search(paragraph.text[: -len(rest)]))
        if names and (is_glossary or _is_term(term)):
            yield Definition(term, row, "glossary", 1.0 if is_glossary else 0.68)
            return
    if match := _ENTRY.match(paragraph.text):
        term = tidy(match["term"])
        if not 0 < len(term.split()) <= MAX_TERM_WORDS:
            return
        if is_glossary:
            yield Definition(term, row, "glossary", 0.95)
        elif paragraph.kind in ("item", "body") and len(match["rest"].split()) >= 4:
            sets_apart = _is_term(term) and bool(_SAYS_WHAT.match(match["rest"]))
            if sets_apart:
                is_sure = is_listed or paragraph.kind == "item"
                yield Definition(term, row, "entry", CLEAR if is_sure else 0.5)


_OPTION = regex(r"\W?[–—-]")
_PARTED = regex(r"[.:–—-]\s*$")
"""Ends a term that a sign parts from what is said of it."""


def _described(document: ReadDocument, sentence: Sentence, row: int) -> Iterator[Definition]:
    """The first sentence under a term of a list or a reference: an option, a function, a word."""
    term = document.text.terms[sentence.term]
    if term.is_label or len(sentence.text) < 20 or sentence.kind in ("code", "row"):
        return
    if _TYPED.match(term.text):
        return
    described = document.paragraphs[sentence.paragraph].text.removeprefix(term.text)
    if not is_said(described):
        return
    forms = [form.strip(" .:,\"“”‘’'`") for form in _FORMS.split(names_in(term.text))]
    is_option = _OPTION.match(term.text) is not None
    for name in dict.fromkeys(forms):
        if is_option and _OPTION.match(name) is None:
            continue  # what it is given: "-x PLUG"
        parts = name.split()
        names = 0 < len(parts) <= MAX_TERM_WORDS and not is_common(parts[0].lower())
        if _CONDITION.match(described) and all(frequency_rank(p.lower()) for p in parts):
            continue
        if names and any(c.isalpha() for c in name):
            yield Definition(name, row, "entry", 0.66)


def _in_sentence(
    sentences: tuple[Sentence, ...], sentence: Sentence, row: int
) -> Iterator[Definition]:
    text = sentence.text
    said = without_notes(_as_sentence(text) if sentence.kind == "item" else text)
    yield from _subject(_SHORT_WITHIN.sub(r"\g<short>", said, count=1), row)
    leans = row - 1 if row and (_POINTS_BACK.match(text) or _FOR_THIS.search(text)) else -1
    if leans >= 0 and sentences[leans].kind == "heading":
        leans = -1
    if "call" in text or "known as" in text or "ed " in text or "dubbed" in text:
        for match in _CALLED.finditer(text):
            term = _until_small_word(match["term"])
            denied = _IS_NOT if _IS_CALLED.match(match[0]) else _DENIED
            if denied.search(text[: match.start()]) or _OF_FILE.match(text, match.end()):
                continue
            if not match["quote"] and _GOES_ON_QUOTED.match(text, match.end()):
                continue
            if _is_term(term) and not (
                term[0].isupper()
                and not match["quote"]
                and match["article"] is None
                and " by " in text
            ):
                is_named = _NAMED_SO.match(match[0]) or (
                    match[0].startswith("so-called") and not _BESIDE.search(text, 0, match.start())
                )
                weight = 0.8 if match["quote"] else 0.5 if is_named else 0.72
                if match["article"] and match["article"].strip() in ("its", "their"):
                    weight -= 0.1
                yield Definition(term, row, "defined", weight, first=leans)
                other = _OTHER_NAME.match(text, match.start("term") + len(term))
                if other and _is_term(other["name"]):
                    yield Definition(other["name"], row, "defined", weight, first=leans)
    both = _BOTH_CALLED.search(text) if "respectively" in text else None
    for name in filter(_is_term, both.groups() if both else ()):
        yield Definition(name, row, "defined", 0.72, first=leans)
    if (named := _IS_NAMED.match(text)) and _is_term(term := named["term"]):
        yield Definition(term, row, "defined", 0.72, first=leans)
    if (meant := _IS_MEANT.match(text)) and _is_term(term := _CLOSES.sub("", meant["term"])):
        yield Definition(term, row, "defined", 0.85, first=leans)
    for word in _used_for(text):
        yield Definition(word, row, "defined", 0.85)
    for found in filter(None, (_FOR_IS.match(text), _BY_MEAN.search(text))):
        if _is_term(term := _until_small_word(found["term"])):
            yield Definition(term, row, "defined", 0.85)
    if (then := _THEN_IS.match(text)) and (term := then["quoted"] or then["term"])[:1].isupper():
        yield Definition(term, row, "defined", 0.72)
    for where in _QUOTED_WHERE.finditer(text) if " whe" in text or " which " in text else ():
        if _is_term(where["term"]):
            yield Definition(where["term"], row, "defined", 0.6)
    yield from _apposed(text, row)
    for short, long, weight in find_short_forms(text):
        yield Definition(short, row, "abbreviation", weight, long)


def _apposed(text: str, row: int) -> Iterator[Definition]:
    """Terms that have what they are beside them: "the weir, a low wall in the stream"."""
    apposed = list(_APPOSED.finditer(text)) if "," in text else []
    for bracket in _BRACKET.finditer(text) if " (" in text else ():
        before = text[max(0, bracket.start() - 60) : bracket.start()]
        apposed += [m for m in [_BEFORE_BRACKET.search(before)] if m]
    for match in apposed:
        term = _from_capital(_last_words(match["term"]))
        # "If it stops for any ropes, that is a bug" says nothing of ropes.
        is_said = _WHICH_IS.search(match[0]) is not None and not _CONDITION.match(text)
        cut = match["term"][: len(match["term"]) - len(term)].split()
        has_article = bool(match["article"]) or (bool(cut) and cut[-1] in ("a", "an", "the"))
        if (has_article or " " in term or term[:1].isupper()) and _is_term(term):
            yield Definition(term, row, "defined", CLEAR if is_said else 0.45)
    for match in _SHORT_APPOSED.finditer(text) if "), " in text else ():
        if _is_term(term := _until_small_word(_last_words(match["term"]))):
            yield Definition(term, row, "defined", CLEAR)
    for match in _CONSISTS.finditer(text) if "consist" in text else ():
        if _is_term(match["term"]):
            yield Definition(match["term"], row, "defined", CLEAR)
    for match in _NAME_APPOSED.finditer(text) if "," in text else ():
        what = match["what"].lower().split()
        head = next((k for k, word in enumerate(what) if word in PREPOSITIONS), len(what)) - 1
        is_sort = head >= 0 and what[head] in _SORTS
        is_sort &= match["term"][0].isupper() or frequency_rank(match["term"]) is None
        if is_sort and first_finite(what) < 0 and _is_term(match["term"]):
            yield Definition(match["term"], row, "defined", CLEAR)
    for match in _DASHED.finditer(text) if "—" in text or "–" in text else ():
        if frequency_rank(match["term"].lower()) is None and _is_term(match["term"]):
            yield Definition(match["term"], row, "defined", CLEAR)


def _used_for(text: str) -> list[str]:
    """The words of which a sentence says what they are used for."""
    used = _WORD_FOR.search(text) if " use" in text else None
    return [w for w in ((used["term"], used["other"]) if used else ()) if w and _is_term(w)]


def _as_sentence(item: str) -> str:
    """An item as a sentence: "• a waypoint is …" without its bullet, and with a capital."""
    said = _ITEM_NUMBER.sub("", item.lstrip(f"{BULLETS}–—- "))
    return said[:1].upper() + said[1:] if _ARTICLED.match(said) else said


def _subject(text: str, row: int) -> Iterator[Definition]:
    """A sentence whose subject is the term: "A keeper is a person who …"."""
    match = _IS.match(text) or says_which_things(text)
    if match is None or _NOT.match(text[match.end() :]) or len(text.split()) < LEAST_WORDS:
        return
    term = match["term"].strip("“”\"‘’'")
    if not _is_term(term):
        return
    weight = 0.85 if _STRONG.search(match["verb"]) else 0.6
    if _QUOTED.match(match["term"]):
        weight += 0.1
    article = (match["article"] or "").strip()
    if match["verb"].startswith(_TELLS_OF) and article not in _OF_ANY:
        return  # "The figure describes a …"
    if match["verb"].startswith("refer") and _CALLS_IT.match(text, match.end()):
        return  # "Wellkeep refers to the deep one as a shaft"
    if "called" in match["verb"] or is_its_own_kind(term, text):
        return  # it is the other name that is defined, or an argument: "here, rope is a wet rope"
    if match["verb"] == "means" and text[match.end() :].startswith("that "):
        weight = OF_VALUE  # "A negative value means that …"
    if article.startswith(("A", "Each", "Every", "In ", "Ein", "Un")):
        weight += 0.08  # of the kind, not of one of them
    elif article == "The" and (_PROPER.fullmatch(term) or _WITH_SORT.match(term)):
        pass  # a part of the name
    elif article in ("The", "Der", "Die", "Das", "Le", "La", "El"):
        weight -= 0.12
    yield Definition(term, row, "defined", min(1.0, weight))
    of_its_sort = _WITH_SORT.match(term)
    if of_its_sort and frequency_rank(of_its_sort["name"].lower()) is None:
        yield Definition(of_its_sort["name"], row, "defined", weight)  # "The WellBook class is"
    other = _OR.match(match["abbr"] or "")
    if other and _is_term(name := other["name"].strip("“”\"‘’'")):
        yield Definition(name, row, "defined", min(1.0, weight))


def without_notes(text: str) -> str:
    """A sentence without the marks of footnotes and of works after its words."""
    return _NOTED.sub("", text) if _MAY_BE_NOTED.search(text) else text


def is_its_own_kind(term: str, said: str) -> bool:
    """Whether a word is only said to be one of those that it names: "rope is a wet rope"."""
    word = re.escape(term)
    is_one = rf"\b{word}\s(?:is|are)\s(?:an?|the)\s(?:[\w-]+\s){{1,4}}?{word}(?=[,.;:]|$)"
    return re.search(is_one, said, re.I) is not None


def says_which_things(text: str) -> re.Match[str] | None:
    """A sentence that says of several which things they are: "Attractors are stable cycles of …"."""
    match = _ARE.match(text)
    if match is None:
        return None
    *says_how, what = match["what"].lower().split()
    plain = not any(is_past(word) or is_common(word) or word.endswith("ly") for word in says_how)
    is_thing = not is_common(what) and what[:-1] not in _NO_PLURALS and not is_past(what)
    return match if plain and is_thing else None


def _is_term(term: str) -> bool:
    """Whether some words can be the name of a thing: no pronouns, no clauses."""
    parts = term.lower().split()
    if not parts or len(term) < 2 or (len(term) == 2 and not term.isupper()):
        return False
    if not parts[0][0].isalpha() or parts[0] in _WEAK or parts[0] in _JOINING or parts[-1] in _WEAK:
        return False
    return (
        all(part in _JOINING or not is_common(part) for part in parts) and parts[-1] not in _JOINING
    )


def _until_small_word(term: str) -> str:
    kept: list[str] = []
    for word in term.split():
        if kept and is_common(word.lower()):
            break
        kept.append(word)
    return " ".join(kept)


def _from_capital(term: str) -> str:
    """A name without the words in small letters before it: "defines Wooden Drums"."""
    words = term.split()
    first = next((k for k, word in enumerate(words) if word[0].isupper()), 0)
    return " ".join(words[first:])


def _last_words(term: str) -> str:
    """The words after the last small one: "of the mean range" is about the mean range."""
    kept: list[str] = []
    for word in reversed(term.split()):
        if is_common(word.lower()):
            break
        kept.append(word)
    return " ".join(reversed(kept))
