"""Asked what something is or does, or which there are: what says that in so many words goes first.

That is the document's own definition, else what stands under the name (``named.py``).
"""

from __future__ import annotations

import re
from dataclasses import replace
from itertools import chain, islice, takewhile
from typing import TYPE_CHECKING

from wide_margin.core.answers import Quote, read_question
from wide_margin.core.answers.candidates import LEANS, OF_CODE, asked_term, explains
from wide_margin.core.answers.evidence import SAYS_WHAT
from wide_margin.core.answers.quoting import quote_rows, told_by
from wide_margin.core.answers.signs import begins_alike, defined_term, sign_of
from wide_margin.core.answers.terms_abroad import short_form_abroad
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.articles import without_article
from wide_margin.core.digest.defaults import default_of
from wide_margin.core.digest.in_full import is_defined_in_full, rows_in_full
from wide_margin.core.digest.listed import with_listed
from wide_margin.core.digest.named import (
    DECLARES,
    SAYS_NOTHING,
    content_of,
    rows_asked,
    rows_of_item,
    rows_of_option,
    rows_titled,
    rows_under,
    without_kind,
)
from wide_margin.core.digest.other_words import rows_by_path, rows_otherwise
from wide_margin.core.digest.reference import row_in_short, row_under_head, rows_declared
from wide_margin.core.digest.sentences import SPEAKS_OF_SECTION, tells_work
from wide_margin.core.digest.titled import title_of
from wide_margin.core.explain import define
from wide_margin.core.explain.definitions import is_its_own_kind, says_which_things
from wide_margin.core.explain.short_forms import find_short_forms, may_spell_out
from wide_margin.core.explain.verbs import seems_to_have_verb
from wide_margin.core.later import regex
from wide_margin.core.layout import BULLETS
from wide_margin.core.lexicon import bare
from wide_margin.core.passages import names_in
from wide_margin.core.search.analysis import is_common, words
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer, Question
    from wide_margin.core.document import Locator, ReadDocument
    from wide_margin.core.explain.definitions import Definition
    from wide_margin.core.passages import Sentence

MOST_SENTENCES = 3
"""Of an entry in a list of terms."""
LONGEST_SAID = 60
"""Words of what is quoted of a setting, at most, with what goes on from it."""
MOST_LOOKED_AT = 100
"""Sentences with a short form among which one may spell it out."""
FIRST_SAID = 4
"""Sentences of a section in which it is told what it is called after."""
LEAST_SAID = 4
"""Words that describe a term without a verb."""
MENTIONED = 0.3
"""The chance that what speaks of a term says what it is, though it has no form of a definition: of
some seventy such answers on thirty manuals four did."""
_DEFINES = regex(
    r"\b(?:is|are|was|were)\s+(?:\w+ly\s+)?(?:an?|the|any|one|some|defined|called|what|that|something|simply|when|where)\b"
    r"|\b(?:can|may)\s+be\s+(?:thought\s+of|viewed|regarded|seen|described|understood)\s+as\b"
    r"|\bused\s+(?:to|for|as)\b|\bmeans?\b|\brefers?\s+to\b|\bstands?\s+for\b|\bdenotes?\b|\bconsists?\s+of\b"
    r"|\b(?:called|known\s+as|termed)\b|\b(?:is|are|was|were)\s+named\b|\boccurs?\s+(?:when|if)\b|\bhas\s+the\s+form\b"
    r"|^\W*[^\W_][\w\s/+-]{1,40}(?:\([^)]*\)\s*)?(?::|\s[–—-])\s+(?!\d)(?:\S+\s+){2}\S", re.I
)  # fmt: skip
"""What the sentences have that say what a thing is, beside those that go on about it."""
_TELLS_ALL = regex(
    r"^\W*(?:what(?:['’]s|\s+(?:is|are|has|have|was|were))?|why|how\s+(?:do|can|to))\b", re.I
)
"""Asks for all that a section says, and not for one thing in it."""
_STANDS_FOR = regex(r"\b(?:stands?|short|abbreviation|acronym) (?:for|of)\b", re.I)
_LEADS_TO_LONG = regex(
    r"\b(?:stands?\s+for|short\s+for|(?:abbreviation|acronym|initials)\b.*|expan(?:ds?|ded|sion)\b.*)[^.;]{0,30}$",
    re.I,
)
"""A sentence that breaks off before what a short form stands for."""
_OF_ANOTHER = regex(r"\b(?:whose|dessen|deren|dont|cuy[oa]s?)\s+(?:\w+\s+)?$")
"""Before a thing that another one has, of which it is said what that is."""
_CALLS = regex(r"\b(?:is|are)\s+(?:\w+ly\s+)?(?:called|named|termed|known\s+as)\b", re.I)
_MARKS = ".,;:!?()“”\"'‘’"
_KINDS = (
    r"(?:sub-?)?(?:commands?|functions?|options?|methods?|class|programs?|modules?|utility|tools?|routines?|macros?"
    r"|environments?|keywords?|statements?|operators?|parameters?|arguments?|fields?|attributes?|flags?|switch|tags?|buttons?|directives?|settings?|variables?)"
)
"""What things that do something are."""
_DOES = regex(rf"^what\s+(?:does|do|can)\s+(?P<name>.+?)(?P<kind>\s+{_KINDS})?\s+do\s*\??$", re.I)
_MEANS = regex(
    rf"^what\s+(?:does|do)\s+(?:the\s+)?(?:(?P<kind>{_KINDS})\s+(?P<name>\S+)|(?P<named>\S+)\s+(?P<sort>{_KINDS}))\s+mean\s*\??$", re.I
)  # fmt: skip
"""Asks for the same of what has no other meaning: "What does the option lid mean?"."""
_RETURNS = regex(
    rf"^what\s+(?:does|do|is)\s+(?:the\s+)?(?:function\s+|method\s+)?(?P<name>[\w.:/$-]+(?:\s?\([^)]*\))?)(?:\s+{_KINDS})?"
    r"\s+(?:returned|return|give(?:\s+back)?|yield|evaluate\s+to)\W*$", re.I
)  # fmt: skip
"""Asks for what a function gives."""
_GIVES = regex(r"\b(?:returns?|returned|gives?|yields?|evaluates?\s+to|result|value)\b", re.I)
_RETURN_VALUE = regex(
    r"\W*(?:return(?:s|ed)?(?: values?| codes?)?\s?[:–—-]\s*\S|(?:this|the) (?:function|method|macro|routine|call) (?:\w+ly |always )?returns\b)",
    re.I,
)
"""Begins what is told of what a function gives, in a description by parts or in a sentence."""
_VALUE = r"returns?(?: values?)?"
_HEADS_VALUE, _HEADS_PARTS = (
    regex(rf"{_VALUE}\W*", re.I),
    regex(rf"(?:parameters?|arguments?|{_VALUE}|see also)\W*", re.I),
)
"""Stand over it, and over all that a function takes or gives."""
_HAS_IT_DO = (
    r"(?:is (?:an?|the) (?:[\w-]+ ){1,4}?(?:that|which) (?:\w+ly )?\w+s\b|is (?:\w+ly )?(?:used|introduced|provided|meant|intended|designed|there) (?:to|for)\b"
    r"|(?:can|will) (?:also |then )?(?!be |not |only |have |also |then |come |depend |fail |either |need |appear |become |work )[a-z]{3,}\b"
    r"|(?:will |can |also |then |simply )?(?!(?:is|was|has|does|as|needs|requires|comes|depends|always|sometimes|perhaps|thus|plus|this|its) |(?:runs|works) on )(?:\w+[^\Ws]s|output|create|print|read|write|set|return"
    r"|show|compute|make|take)\b)"
)
_SORT_BEFORE = r"(?:an?\s(?:[\w‐-]+\s){1,4})?"
"""What sort of thing it is, before a name with capitals: "A real-time program WELLNAV reads"."""
_TO_DO = regex(r"\W*(?:in order )?to [a-z]+\b", re.I)
"""How a sentence begins that says how something is done."""
_BEGINS_DOING = regex(
    rf"\W*(?:this (?:{_KINDS} )?|it )?(?P<does>{_HAS_IT_DO}|[a-z]{{3,}} (?:the|an?|all|its|your|this|each|no|to|from|\w{{3,}}s)\b)",
    re.I,
)
"""How a description begins: "Prints the well", "Print the well"."""
_ASKS_WORKS = regex(
    r"\b(?:cit\w+|refer\w*|papers?|books?|articles?|publi\w+|literature|works?|authors?|wrote|written|bibliograph\w+|stud(?:y|ies)|who|whose"
    r"|title|read(?:ing)?|source|thesis|report|journal|studied)\b", re.I
)  # fmt: skip
"""May ask for titles of works."""
_EVALUATES = regex(
    r"^\W*(?:[^\W_][\w/-]*\s+){1,3}(?:is|are|ist|sind|est|sont|es|son|è|sono|é|são)\s+(?:the|an?|die|der|das|ein[ers]?|la|le|les|el|il|lo|un[ea]?|uma?|[oa])\s+"
    r"(?:(?:right|best|wrong|better|good|obvious|ideal|richtige|beste|falsche|gute|bessere|bonne?|meilleure?|mejor|buena?|miglior[e]?|melhor|boa)\s+"
    r"(?:choice|option|way|place|idea|solution|wahl|lösung|weg|idee|choix|opción|elección|scelta|opção|escolha)|(?:elección|scelta|opción|escolha)\s+(?:correcta|giusta|certa))\b",
    re.I,
)
"""Says how good a thing is, and not what it is: "Unstable is the right choice for them"."""
_OPTIONS, MANY_OPTIONS = regex(r"(?<![\w-])--?[a-z]\w+"), 3
"""Options, and how many of them show how a command is called."""
_OPTION = r"(?:command[- ]line\s+)?(?:option|flag|switch|parameter|argument)"
_OF_OPTION = regex(
    rf"^what\s+(?:does|do|is|are)\s+(?:the\s+)?(?:{_OPTION}\s+)?(?P<name>--?\w[\w+-]*(?:\s\w)?)(?:\s+{_OPTION})?"
    r"\s+(?:do|mean|for|used\s+for|good\s+for)\W*$", re.I
)  # fmt: skip
"""Asks what an option of a command line does."""
OF_OPTION = 0.8
"""The chance that what begins with an option describes it: of some forty such answers on sixteen
manuals all did."""
_POINTS_ON = regex(
    r"^\W*(?:(?:more |further |full )?(?:details?|information|documentation|an? (?:\w+ )?(?:description|explanation))\b.{0,90}"
    r"\b(?:can be|is|are|may be) (?:found|given|described|available)\b|(?:please )?(?:see|refer to|consult)\b"
    r"|(?:definition|defined) at line \d+ of\b|referenced by \w|references [\w:~<>]+(?:\(\))?[,.])", re.I
)  # fmt: skip
"""Only says where more is said, or where the source has it."""
_ASKS_FOR_ONE = regex(r"\W*what(?:['’]s|\s+is)\s+an?\s+[a-z]", re.I)
"""Asks what one of a kind is, and not what is called so."""
_IS_CODE = regex(
    r"^\W*what(?:['’]s|\s+is)\s+(?:the\s+)?(?:(?P<kind>function|command|method|class|macro|variable)\s+)?"
    r"(?P<name>[^\W\d]\w*(?:[._:]{1,2}\w+)+)(?:\(\))?\W*$", re.I
)  # fmt: skip
"""Asks what a name of code is: what it does says that."""
OF_SECTION = 0.6
"""The chance that the section of that name says first what the thing is or does."""
OTHERWISE = 0.5
"""The chance that a section says how something is done whose title has another verb for it."""
OF_FULL = 0.8
"""The chance that what begins with what a short form stands for says what that is."""
OF_UNNAMED = 0.45
"""The same where it does not name the thing."""


def with_definition(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with what says in so many words what is asked for, where the document has that.

    Of what something is that is its definition, else what stands under its name; of what something
    does the latter; of which things there are what lists them. An answer that begins so stays as it
    is, with what it goes on to say; one that only mentions the thing is made less sure.
    """
    question = read_question(answer.question)
    if answer.reach.kind != "document":
        return answer
    told = _with_definition(document, question, answer)
    if asks_in_full(question.text) and (short := defined_term(question.text)):
        return _spelled_out(document, question, told, short)
    return told


def _spelled_out(document: ReadDocument, question: Question, answer: Answer, short: str) -> Answer:
    """The answer with what spells a short form out; less sure where nothing does."""
    sentences = document.text.sentences

    def spells_out(row: int) -> bool:
        said = sentences[row]
        return said.kind not in SAYS_NOTHING and may_spell_out(said.text, short)

    def is_exact(row: int) -> bool:
        text = sentences[row].text
        is_entry = text.startswith(f"{short} ") and sentences[row].kind in ("entry", "row")
        is_formal = is_entry or any(found == short for found, *_ in find_short_forms(text))
        return is_formal and spells_out(row)

    quoted = [row for q in answer.quotes for row in rows_within(document, q.locators[0].spans)]
    if any(map(is_exact, quoted)):
        return replace(answer, sure=max(answer.sure, OF_SECTION))
    among = rows_with(document, document.index.analyser.terms(short))[:MOST_LOOKED_AT]
    found = next((range(row, row + 1) for row in among if is_exact(row)), None)
    if found is None and any(map(spells_out, quoted)):
        return replace(answer, sure=max(answer.sure, OF_SECTION))
    if found is None:
        found = next((range(row, row + 1) for row in among if spells_out(row)), None)
    if found is None:  # "The acronym can be expanded to", and what it stands for on its own line
        leads = [row for row in among if _LEADS_TO_LONG.search(sentences[row].text)]
        after = (range(row, row + 2) for row in leads if row + 1 < len(sentences))
        found = next((rows for rows in after if spells_out(rows[-1])), None)
    if found is None:
        return replace(answer, sure=min(answer.sure, MENTIONED))
    return told_by(document, answer, found.start, found.stop, OF_SECTION)


def asks_in_full(typed: str) -> bool:
    """Whether a question is what a short form stands for."""
    return _STANDS_FOR.search(typed) is not None or bool(short_form_abroad(typed))


def asks_of_option(typed: str) -> bool:
    """Whether a question is what an option of a command line does, and of nothing else."""
    return _OF_OPTION.match(typed.strip()) is not None


def _with_definition(document: ReadDocument, question: Question, answer: Answer) -> Answer:
    rows, title, whole = rows_asked(document, question.text)
    is_poor = answer.sure < OF_SECTION and _TELLS_ALL.match(question.text) is not None
    within = whole if question.kind == "how to" else rows
    if question.kind == "how to" and _comes_late(document, answer, rows):
        end = min(rows.start + MOST_SENTENCES, rows.stop)
        return told_by(document, answer, rows.start, end, max(answer.sure, OF_SECTION))
    if title.endswith("?") and rows and _is_within(document, answer, within):
        return replace(answer, sure=max(answer.sure, OF_SECTION))  # it asks the very same
    if rows and (is_poor or not _is_within(document, answer, within)):
        told = _with_rows(document, question, answer, title, rows)
        return told if told is not answer else _with_all(document, question, answer, rows)
    if question.kind == "how to" and not whole:
        answer = _with_path(document, question, answer)
    if title and not rows and whole and answer.sure < OF_SECTION:  # it is shown in pictures
        return told_by(document, answer, whole.start, whole.start + 1, OF_UNNAMED)
    if (option := _OF_OPTION.match(question.text.strip())) and (
        described := rows_of_option(document, option["name"])
    ):
        return _by_option(document, answer, described)
    if (by_default := default_of(document, question.text, answer)) is not None:
        return by_default
    if question.kind == "how to":
        answer = _with_how(document, question, answer)
    if (asked := _RETURNS.match(question.text.strip())) is not None:
        return _returning(document, answer, asked["name"])
    if (meant := _MEANS.match(question.text.strip())) is not None:
        name, kind = meant["name"] or meant["named"], meant["kind"] or meant["sort"]
        return _doing(document, question, answer, name, kind)
    if question.kind != "what is":
        doing = _DOES.match(question.text.strip()) or _IS_CODE.match(question.text.strip())
        if doing is not None:
            name = _without_own_name(document, doing["name"])
            told = _doing(document, question, answer, name, doing["kind"])
            is_other = bool(told.quotes) and _is_of_other_letter(told.quotes[0].text, name)
            return replace(answer, sure=min(answer.sure, MENTIONED)) if is_other else told
        return with_listed(document, question, answer)
    term = defined_term(question.text)
    definition = define(document, term)
    if definition is not None:
        said = document.text.sentences[definition.sentence].text
        is_declared = term.isalpha() and OF_CODE.search(said) is not None
        says_nothing = _only_looks_like_one(said) or _only_repeats(term, said)
        if is_declared or says_nothing or _is_label(document, definition.sentence):
            definition = None
    if definition is None:
        return _undefined(document, question, answer, term)
    return _defining(document, question, answer, definition)


def _without_own_name(document: ReadDocument, name: str) -> str:
    """The name of a command that has a section, without that of the program: "wellkeep wind"."""
    first, _, rest = name.partition(" ")
    is_own = rest and first.lower() in words(title_of(document).lower())
    return rest if is_own and rows_titled(document, _plain(rest)) else name


def _is_of_other_letter(said: str, name: str) -> bool:
    """Whether a name of one letter is not in a text as it is written: "G" for "g"."""
    letter = without_kind(name).strip()
    return len(letter) == 1 and not re.search(rf"(?<!\w){re.escape(letter)}(?!\w)", said)


def _undefined(document: ReadDocument, question: Question, answer: Answer, term: str) -> Answer:
    """The answer about a term that nothing defines: what stands under its name, if anything does."""
    topic = asked_term(document, question)
    under = rows_under(document, term)
    for k, quote in enumerate(answer.quotes if topic else ()):
        if _says_it(document, quote, topic, is_plain=bool(under)):
            others = (*answer.quotes[:k], *answer.quotes[k + 1 :])
            return replace(answer, quotes=(quote, *others))
    asks_what = not question.text.rstrip(" ?").endswith(" for")
    if asks_what and answer.quotes and topic and len(topic) == len(list(words(term))):
        quotes = not_of_works(document, answer)
        quotes = _with_what_one_does(document, question, quotes, term)
        quotes = tuple(q for q in quotes if not DECLARES.match(q.text)) or quotes
        answer = replace(answer, quotes=quotes, sure=min(answer.sure, MENTIONED))
    is_of_code = not under and not term.isalpha() and " " not in term
    if is_of_code and (declared := rows_declared(document, term)):
        return told_by(document, answer, declared.start, declared.stop, OF_OPTION)
    return _with_rows(document, question, answer, term, under)


def _with_how(document: ReadDocument, question: Question, answer: Answer) -> Answer:
    """The answer with how something is done, where what was found is not sure to tell it."""
    if answer.sure >= OF_SECTION:
        return answer
    entry = row_in_short(document, question.text)
    if entry is not None:
        return told_by(document, answer, entry, entry + 1, OF_SECTION)
    answer = _without_bare_rows(document, answer)
    rows = rows_otherwise(document, question.text)
    if rows and not _is_within(document, answer, rows):
        return _told_otherwise(document, answer, rows)
    return answer


def _with_path(document: ReadDocument, question: Question, answer: Answer) -> Answer:
    """The answer by the section whose title, with those over it, has all that is asked for.

    What a single quote has all the words of is left.
    """
    rows = rows_by_path(document, question.text)
    if not rows or _is_within(document, answer, rows):
        return answer
    wanted = content_of(document, question.text)
    holds_all = (wanted <= content_of(document, quote.text) for quote in answer.quotes)
    return answer if any(holds_all) else _told_otherwise(document, answer, rows)


def _told_otherwise(document: ReadDocument, answer: Answer, rows: range) -> Answer:
    """The answer with how a section called by another verb says it is done: "To wind it, turn"."""
    sentences = document.text.sentences
    said = [row for row in rows if sentences[row].kind not in SAYS_NOTHING]
    how = (row for row in said[:MOST_SENTENCES] if _TO_DO.match(sentences[row].text))
    first = next(how, said[0] if said else -1)
    if first < 0:
        return answer
    return told_by(document, answer, first, min(first + FIRST_SAID, rows.stop), OTHERWISE)


def _comes_late(document: ReadDocument, answer: Answer, rows: range) -> bool:
    """Whether what is quoted stands far behind a first sentence that says how: "To wind it, turn"."""
    if not rows or not _TO_DO.match(document.text.sentences[rows.start].text):
        return False
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    return bool(told) and told[0] - rows.start > FIRST_SAID


def _without_bare_rows(document: ReadDocument, answer: Answer) -> Answer:
    """How something is done, without rows of tables that say nothing in words."""

    def says(quote: Quote) -> bool:
        rows = rows_within(document, quote.locators[0].spans)
        return any(
            document.text.sentences[row].kind != "row"
            or seems_to_have_verb(document.text.sentences[row].text)
            for row in rows
        )

    said = tuple(filter(says, answer.quotes))
    if said or not answer.quotes:
        return replace(answer, quotes=said)
    return replace(answer, quotes=answer.quotes[:1], sure=min(answer.sure, MENTIONED))


def _defining(
    document: ReadDocument, question: Question, answer: Answer, definition: Definition
) -> Answer:
    """The answer with a definition; of a short form with what is said of what that stands for."""
    sentences = document.text.sentences
    at = definition.sentence
    is_short = definition.kind == "abbreviation"
    long = definition.long_form if is_short else _only_spelled_out(sentences[at].text, definition)
    if long and not asks_in_full(question.text) and not is_defined_in_full(
        sentences[at].text, definition.term
    ):  # fmt: skip
        in_full = rows_in_full(document, definition.term, long)
        if in_full:
            return told_by(document, answer, in_full.start, in_full.stop, OF_FULL)
    first = definition.first if definition.first >= 0 else at
    end = at + 1
    if definition.kind in ("glossary", "entry"):
        last = min(at + MOST_SENTENCES, len(sentences))
        while end < last and sentences[end].paragraph == sentences[at].paragraph:
            end += 1
    quote = quote_rows(document, question, first, end)
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    if first in told or (definition.first < 0 and at in told):
        return replace(answer, sure=max(answer.sure, definition.weight))
    return replace(answer, quotes=(quote,), missing=(), reason="", sure=definition.weight)


def _only_spelled_out(said: str, definition: Definition) -> str:
    """What a list of terms has beside a short form, where that is no more than it stands for."""
    short = definition.term
    if definition.kind not in ("glossary", "entry") or not said.lstrip().startswith(short):
        return ""
    rest = said.lstrip()[len(short) :].strip(" \t:–—-.")
    is_brief = len(rest.split()) <= len(short) + 1
    return rest if is_brief and may_spell_out(rest, short) else ""


def _with_what_one_does(
    document: ReadDocument, question: Question, quotes: tuple[Quote, ...], term: str
) -> tuple[Quote, ...]:
    """The quotes after what any one of a kind does, where that is said: "A pawl holds the drum"."""
    one = re.compile(
        rf"\W*(?:an?|each|every)\s+{re.escape(term)}\s+(?:\w+ly\s+)?(?P<does>[a-z]+[^\Ws]s)\s", re.I
    )
    for row in rows_with(document, document.index.analyser.terms(term)):
        sentence = document.text.sentences[row]
        does = one.match(sentence.text) if sentence.kind in ("body", "item") else None
        if does is None or is_common(does["does"].lower(), "en") or does["does"] in _SAYS_LITTLE:
            continue
        said = quote_rows(document, question, row, row + 1)
        others = (q for q in quotes if not _overlap(q.locators[0], said.locators[0]))
        return (said, *islice(others, MOST_SENTENCES - 1))
    return quotes


_SAYS_LITTLE = frozenset(["needs", "requires", "comes", "begins", "starts", "follows", "appears"])
"""What these say of a thing does not tell what it is."""


def _doing(
    document: ReadDocument, question: Question, answer: Answer, name: str, kind: str | None
) -> Answer:
    """The answer with what says of a thing what it does.

    That is what stands under its name, unless that does not name it and what is quoted has it do
    something already; else the first sentence that begins with it and has it do something.
    """
    is_titled = bool(rows_titled(document, _plain(name)))
    bare_name = name if is_titled else without_kind(name)  # "the filter element" may be one
    name, is_function = bare_name, bool(kind) or bare_name != name
    plain = _plain(name)
    thing = re.escape(plain)
    if (row := _row_introducing(document, name, thing)) is not None:
        return told_by(document, answer, row, row + 1, OF_SECTION)
    titled = rows_titled(document, plain)[:FIRST_SAID]
    is_in_section = any(plain in document.text.sentences[row].text.lower() for row in titled)
    is_name = is_function or not plain.isalpha() or frequency_rank(plain) is None
    if (told := _at_its_head(document, answer, bare_name, is_name=is_name)) is not None:
        return told
    is_sort = is_name or name.split()[-1].isupper()
    if is_sort and (row := _row_of_its_sort(document, name)) is not None:
        return told_by(document, answer, row, _end_of_said(document, row), OF_SECTION)
    if is_name and not is_in_section and (item := rows_of_item(document, name)):
        return told_by(document, answer, item.start, _end_of_said(document, item.start), OF_SECTION)
    is_said = bool(answer.quotes) and _says_what_does(answer.quotes[0].text, name)
    rows = rows_under(document, name, is_function=is_function)
    before = _SORT_BEFORE if is_name and not name.islower() else ""
    begins = re.compile(
        rf"\W*(?:the )?(?:{_KINDS}\s)?{before}[\W_]*{thing}(?:[\[({{]\S*[\])}}])?[\W_]*(?:\s(?:\w+\s)?{_KINDS})?\s{_HAS_IT_DO}",
        re.I,
    )
    first = _row_beginning(document, name, begins)
    told = _under_its_name(document, question, answer, name, rows, first)
    if told is not None and told.sure > MENTIONED:
        return told
    if (row := row_under_head(document, name)) is not None:
        return told_by(document, answer, row, row + 1, OF_SECTION)
    if is_name and not is_in_section and (option := _rows_of_bare_option(document, name)):
        return _by_option(document, answer, option)
    told_of = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    is_plain = any(begins.match(document.text.sentences[row].text) for row in told_of)
    is_poor = answer.sure < OF_SECTION or not is_said
    if first is not None and (is_poor or not is_plain):
        end = first + 1 if plain.isalpha() else _end_of_said(document, first)
        return told_by(document, answer, first, end, OF_SECTION)
    if answer.quotes and not rows and not is_said:
        return replace(answer, sure=min(answer.sure, MENTIONED))
    goes_on = re.compile(
        rf"(?:^|[.:;]\s|\bthe\s)[\W_]*{thing}[\W_]*(?:\s{_KINDS})?\s"
        rf"(?:{_HAS_IT_DO}|(?:will|can|may)\s(?:also\s)?(?:be\sused\s)?(?!not\b|be\b)\w)", re.I
    )  # fmt: skip
    last = document.text.sentences[told_of[-1]].text if told_of else ""
    if begins.match(last) and not plain.isalpha() and len(answer.quotes) == 1:
        end = _end_of_said(document, told_of[-1])
        return told_by(document, answer, told_of[-1], end, answer.sure)
    is_plain = is_plain or any(goes_on.search(quote.text) for quote in answer.quotes)
    # Of some sixty answers on unseen manuals that only speak of the thing sixteen told what it does.
    return answer if is_plain else replace(answer, sure=min(answer.sure, MENTIONED))


def _row_of_its_sort(document: ReadDocument, name: str) -> int | None:
    """Row of a list of names that says what one is for: "WIND n  A command used to wind a rope"."""
    written = without_article(name)
    listed = re.compile(
        rf"\W*{re.escape(written)}\b[^a-z]{{0,24}}(?:\b[a-z]\b[^a-z]{{0,8}}){{0,4}}"
        rf"\b[Aa]n?\s+(?:\w+\s)?{_KINDS}\s(?:(?:that|which|to|for)|(?:is\s)?used\s(?:to|for))\b"
    )
    sentences = document.text.sentences
    rows = rows_with(document, document.index.analyser.terms(name))
    return next((row for row in rows if listed.match(sentences[row].text)), None)


def _at_its_head(
    document: ReadDocument, answer: Answer, name: str, *, is_name: bool = True
) -> Answer | None:
    """The answer by what stands where a name is declared, or at the head of its page.

    An everyday word (no ``is_name``) heads pages that are about anything.
    """
    declared = rows_declared(document, name)
    if declared:
        return told_by(document, answer, declared.start, declared.stop, OF_OPTION)
    row = _row_headed(document, _plain(name)) if is_name else None
    return None if row is None else told_by(document, answer, row, row + 1, OF_SECTION)


def _row_headed(document: ReadDocument, name: str) -> int | None:
    """Row of the head of a page that names a thing and says what it does: "winch—Wind the rope"."""
    thing = re.escape(name)
    head = re.compile(
        rf"\W?{thing}(?:\s?\([^()]*\)|\s?=\s?\S+)?\s?(?:[—–]|\s-\s)\s?[^\W\d_]+(?:\s+[\w’'/-]+)+",
        re.I,
    )
    sentences = document.text.sentences
    for row in rows_with(document, document.index.analyser.terms(name)):
        is_first = not row or sentences[row].paragraph != sentences[row - 1].paragraph
        if (
            is_first
            and sentences[row].kind in ("body", "heading")
            and head.match(sentences[row].text)
        ):
            return row
    return None


def _rows_of_bare_option(document: ReadDocument, name: str) -> range:
    """Rows of an option that is asked for without its dashes; looked for only where it stands."""
    if name.startswith("-"):
        return range(0)
    printed = re.compile(rf"(?<![\w–—-])[–—-]{{1,2}}{re.escape(name)}(?![\w-])")
    rows = rows_with(document, document.index.analyser.terms(name))
    is_there = any(printed.search(document.text.sentences[row].text) for row in rows)
    return rows_of_option(document, f"--{name}") if is_there else range(0)


def _by_option(document: ReadDocument, answer: Answer, rows: range) -> Answer:
    """The answer with the description of an option."""
    end = min(rows.stop, rows.start + MOST_SENTENCES)
    return told_by(document, answer, rows.start, end, OF_OPTION)


def _row_beginning(document: ReadDocument, name: str, begins: re.Pattern[str]) -> int | None:
    """The first row that begins with a thing and has it do something."""
    sentences = document.text.sentences
    return next(
        (row for row in rows_with(document, document.index.analyser.terms(name))
         if sentences[row].kind in ("body", "item") and begins.match(sentences[row].text)), None
    )  # fmt: skip


def _under_its_name(
    document: ReadDocument, question: Question, answer: Answer, name: str, rows: range,
    first: int | None,
) -> Answer | None:  # fmt: skip
    """The answer with what stands under a name, where that may say what the thing does.

    Where it does not name it, and ``first`` is a row that does, it is none.
    """
    told = _with_rows(document, question, answer, name, rows)
    if told is answer:
        return None
    said, plain = told.quotes[-1].text, _plain(name)
    names_it = any(_plain(without_kind(plain)) in quote.text.lower() for quote in told.quotes)
    if names_it or _begins_doing(said):
        return told
    if first is not None or not rows_titled(document, plain):
        return None
    is_words = plain.replace(" ", "").isalpha()
    return replace(told, sure=min(told.sure, OF_UNNAMED)) if is_words else told


def _end_of_said(document: ReadDocument, row: int) -> int:
    """The row after what a paragraph goes on to say of a setting: "If it is set to 1, …"."""
    sentences, end = document.text.sentences, row + 1
    n_words = len(sentences[row].text.split())
    while (
        end < min(row + MOST_SENTENCES, len(sentences))
        and sentences[end].paragraph == sentences[row].paragraph
    ):
        n_words += len(sentences[end].text.split())
        if n_words > LONGEST_SAID:
            break
        end += 1
    return end


def _returning(document: ReadDocument, answer: Answer, name: str) -> Answer:
    """The answer with what says under a function's name what it gives, else what it does."""
    rows = rows_under(document, without_kind(name), is_function=True)
    said = [row for row in rows if _tells(document, document.text.sentences[row])]
    texts = document.text.sentences
    under = (row + 1 for row in rows[:-1] if _HEADS_VALUE.fullmatch(texts[row].text))
    in_full = (row for row in said if _RETURN_VALUE.match(texts[row].text))
    labelled = next(chain(under, in_full), None)
    if labelled is not None:
        return told_by(document, answer, labelled, labelled + 1, OF_SECTION)
    if not said or (answer.sure >= OF_SECTION and _is_within(document, answer, rows)):
        return answer
    gives = [row for row in said if _GIVES.search(texts[row].text)]
    first = next((row for row in said if _begins_doing(texts[row].text)), None)
    if first is not None:
        end = gives[0] if gives and first < gives[0] < first + MOST_SENTENCES else first
        return told_by(document, answer, first, end + 1, OF_SECTION)
    return told_by(document, answer, gives[0], gives[0] + 1, OF_SECTION) if gives else answer


def _plain(name: str) -> str:
    """A name as titles are compared with it: in small letters, without its article."""
    return without_article(name.lower()).strip()


def _begins_doing(said: str) -> bool:
    """Whether a text begins like a description: "Prints the well"."""
    begins = _BEGINS_DOING.match(said)
    is_plain = begins is not None and not is_common(next(words(begins["does"]), ""))
    return is_plain or _OF_THIS_SORT.match(said) is not None


def _row_introducing(document: ReadDocument, name: str, thing: str) -> int | None:
    """Row of what gives a thing its name and goes on with what it does: "A script called x makes"."""
    introduces = re.compile(
        rf"\W*(?:an?|the|one)\s(?:[\w-]+\s){{1,4}}(?:called|named)\s\W*{thing}\W*\s{_HAS_IT_DO}",
        re.I,
    )
    return next(
        (row for row in rows_with(document, document.index.analyser.terms(name))
         if introduces.match(document.text.sentences[row].text)), None
    )  # fmt: skip


def _is_within(document: ReadDocument, answer: Answer, rows: range) -> bool:
    """Whether what is quoted first lies within some rows."""
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    return bool(told) and all(row in rows for row in told)


def _says_what_does(said: str, name: str) -> bool:
    """Whether a text has a thing do something, and does not only mention it."""
    thing = re.escape(_plain(name))
    does = rf"\b{thing}\b[\w\s,()’'-]{{0,40}}?\s(?:\w+(?:[^s\W]s|ed)|can|will|may|must|is|are|was|were|has|have)\b"
    return bool(re.search(does, said.lower()))


def _with_rows(
    document: ReadDocument, question: Question, answer: Answer, name: str, rows: range
) -> Answer:
    """The answer with what is said first under a name, where something is."""
    if not rows:
        return answer
    sentences = document.text.sentences
    forms = {term.paragraph for term in document.text.terms}
    said = [
        row for row in rows if _tells(document, sentences[row])
        and (sentences[row].kind == "entry" or sentences[row].paragraph not in forms)
    ]  # fmt: skip
    is_of_code = " " not in name and not name.isalpha()
    if not said and is_of_code:  # "Number of turns of the rope" describes n_turns
        said = [row for row in rows if _describes(sentences[row])][:1]
    if not said:
        return answer
    at = said[0]
    if any(_HEADS_PARTS.fullmatch(sentences[row].text) for row in range(rows.start, at)):
        return replace(answer, sure=min(answer.sure, MENTIONED))  # what it takes and gives alone
    said = said[:FIRST_SAID]
    if sentences[rows.start].paragraph not in forms:
        at = min(said, key=lambda row: _leads_in(document, sentences[row], name))
    if all(_only_leads_in(document, sentences[row], name) for row in said):
        return replace(answer, sure=min(answer.sure, MENTIONED))
    end, is_item = at + 1, sentences[at].kind == "item"
    if end < len(sentences) and sentences[end].paragraph == sentences[at].paragraph:
        end += 1
    stop = min(rows.stop, at + MOST_SENTENCES)
    while is_item and end < stop and sentences[end].kind == "item":
        end += 1  # a slide says it in its points
    begins = sentences[rows.start]
    is_label = begins.kind == "entry" or bare(begins.text) == bare(name)
    is_label |= begins.kind == "row" and _names_and_says(begins.text, name)
    quotes = [quote_rows(document, question, rows.start if is_label else at, end)]
    named = set(document.index.analyser.terms(name))
    if begins.kind == "heading" and named <= set(document.index.analyser.terms(begins.text)):
        # It says by itself what it is.
        heading = quote_rows(document, question, rows.start, rows.start + 1)
        quotes = [heading, quote_rows(document, question, at, end)]
    told = answer.quotes[0].locators[0] if answer.quotes else None
    is_same = told is not None and _overlap(told, quotes[-1].locators[0])
    is_plain = " " in name and name.replace(" ", "").isalpha()
    is_in_section = is_plain and rows == rows_titled(document, name)
    is_told = not is_in_section or _DEFINES.search(quotes[-1].text) is not None
    is_told |= _has_it_do(quotes[-1].text, name)
    has_name = bool(named & set(document.index.analyser.terms(quotes[-1].text)))
    is_named = is_label or (has_name and is_told)
    is_named |= _OF_THIS_SORT.match(quotes[-1].text) is not None
    # "What is a rope?" asks for no command of that name: "Report all ropes".
    is_named &= not (_ASKS_FOR_ONE.match(question.text) and _begins_doing(quotes[-1].text))
    least = OF_SECTION if is_named or question.kind != "what is" else OF_UNNAMED
    sure = max(answer.sure, least) if is_same else least
    return replace(answer, quotes=tuple(quotes), missing=(), reason="", sure=sure)


def _has_it_do(said: str, name: str) -> bool:
    """Whether a text begins with a thing of two words that does something: "The list view shows"."""
    thing = without_article(name)
    begins = rf"\W*(?:the\s)?{re.escape(thing)}\s(?:\([^()]*\)\s)?{_HAS_IT_DO}"
    return " " in thing and re.match(begins, said, re.I) is not None


def _with_all(document: ReadDocument, question: Question, answer: Answer, rows: range) -> Answer:
    """The answer with how some rows begin, where they are only commands and what leads in to them."""
    end = min(rows.stop, rows.start + MOST_SENTENCES)
    said = document.text.sentences[rows.start : end]
    if any(
        s.kind == "heading" or SPEAKS_OF_SECTION.match(s.text) or _POINTS_ON.match(s.text)
        for s in said
    ):
        return answer
    return told_by(document, answer, rows.start, end, OF_SECTION)


def _leads_in(document: ReadDocument, said: Sentence, name: str) -> tuple[bool, bool]:
    """For sorting: what only leads in to others comes last, what does not name the thing later."""
    terms = document.index.analyser.terms
    is_bare = said.text.endswith(":") or said.kind in ("item", "row")
    if "_" in name:  # as others of its family are
        names_it = name.lower().removesuffix("()") in said.text.lower()
        return is_bare, not (names_it or _begins_doing(said.text))
    names_it = bool(set(terms(name)) & set(terms(said.text)))
    return is_bare, not (names_it or _OF_THIS_SORT.match(said.text))


_OF_THIS_SORT = regex(rf"\W*this\s+{_KINDS}\s+\w+s\b", re.I)
"""Says what the thing does that its section is called after: "This function winds it"."""


def _only_leads_in(document: ReadDocument, said: Sentence, name: str) -> bool:
    """Whether a sentence leads in to others and does not name the thing: "To make it anew:"."""
    return said.text.endswith(":") and _leads_in(document, said, name)[1]


def _names_and_says(text: str, name: str) -> bool:
    """Whether a row begins with a name and says more: "nturns  the turns of the drum  integer  4"."""
    first, *others = text.split()
    return first.lower() == name.lower() and len(others) >= LEAST_SAID


def _tells(document: ReadDocument, said: Sentence) -> bool:
    """Whether a sentence under a name says something of it."""
    if (
        said.kind in SAYS_NOTHING
        or SPEAKS_OF_SECTION.match(said.text)
        or _POINTS_ON.match(said.text)
    ):
        return False
    if shows_call(said.text) or _IS_NOT_DONE.fullmatch(said.text):
        return False
    if said.kind == "entry" and not any(map(str.isalpha, names_in(said.text).split())):
        return False  # names alone: "rope_kind ROPE_WET [Kind]", described under it
    has_verb = seems_to_have_verb(said.text) or _begins_doing(said.text)
    return document.index.language != "en" or has_verb


_IS_NOT_DONE = regex(
    r"\W*\S+\s(?:is|are|was|were|will be|can be)\s(?:not|never|no longer)\s\w+\W*|\W*(?:this|the)\s\w+\s(?:never\sfails?|always\ssucceeds?)\W*",
    re.I,
)
"""Only says what does not happen: "ROPE_END is never returned", "This function never fails"."""


def _describes(said: Sentence) -> bool:
    """Whether a sentence may describe a name, verb or none."""
    is_long = len(said.text.split()) >= LEAST_SAID
    says_none = _POINTS_ON.match(said.text) or _IS_NOT_DONE.fullmatch(said.text)
    return said.kind == "body" and is_long and not says_none


def shows_call(said: str) -> bool:
    """Whether a text shows how a command is called: with many options, in no words."""
    return len(_OPTIONS.findall(said)) >= MANY_OPTIONS or _CALL.fullmatch(said) is not None


_CALL = regex(r"\W*[\w./-]+(?:\s+\[[^.;:]*\]|\s+<[^.;:]*>)(?:\s+\w+)?\W*")
"""A command and what it takes, to the end: "wind [rope [turns]] options"."""


def without_works(document: ReadDocument, answer: Answer) -> Answer:
    """The answer, where only titles of works answer what asks for none: the nearest there is."""
    if not answer.quotes or _ASKS_WORKS.search(answer.question):
        return answer
    quotes = not_of_works(document, answer)
    if quotes == answer.quotes:
        return answer
    is_left = quotes[0] in answer.quotes
    return replace(
        answer, quotes=quotes, sure=answer.sure if is_left else min(answer.sure, MENTIONED)
    )


def not_of_works(document: ReadDocument, answer: Answer) -> tuple[Quote, ...]:
    """What is quoted without titles of works; else the nearest passage that is none of them."""

    def is_work(place: Locator) -> bool:
        rows = rows_within(document, place.spans)
        return any(document.text.sentences[row].kind == "works" for row in rows)

    kept = tuple(quote for quote in answer.quotes if not is_work(quote.locators[0]))
    if kept or not answer.quotes:
        return kept
    near = (e for e in answer.excerpts if not is_work(e.locator))
    return tuple(Quote(e.text, (e.locator,)) for e in islice(near, 1)) or answer.quotes


_NAMES_ADDRESS = regex(r"\W*(?:[\w.-]+[ :]+){1,6}(?:https?://|www\.|\S+@\S)", re.I)
"""Only says where somebody or something is found: "Well keepers: https://…"."""
_ONLY_NAMES = regex(r"\W*this is (?:the|an?) [“\"‘'][^”\"’']+[”\"’'] \w+\W*$", re.I)
"""Says which sort of thing a name is, and no more: "This is the “lid depth” option."."""


def _only_looks_like_one(said: str) -> bool:
    """Whether a text with the form of a definition shows, judges or names a thing, or finds it."""
    others = (_EVALUATES.search, _ONLY_NAMES.match, _NAMES_ADDRESS.match)
    return shows_call(said) or any(match(said) for match in others)


def _only_repeats(term: str, said: str) -> bool:
    """Whether a text says little more than the term itself: "Incomplete nested dissection method."."""
    asked, told = (list(words(t)) for t in (term.lower(), said.lower().removeprefix(term.lower())))
    return set(asked) <= set(told) and len(told) <= len(asked) + AT_MOST_BESIDE


AT_MOST_BESIDE = 2
"""Words besides those of a term that make no description of it."""


def _says_it(
    document: ReadDocument, quote: Quote, topic: tuple[str, ...], *, is_plain: bool = False
) -> bool:
    """Whether what is quoted has the form of a definition, and does not only speak of a thing.

    ``is_plain`` asks for one that begins with the thing, as where a section of its own tells more.
    """
    for row in rows_within(document, quote.locators[0].spans):
        said = document.text.sentences[row]
        if said.kind in SAYS_NOTHING or tells_work(document, said):
            continue
        if _only_looks_like_one(said.text) or _only_repeats(" ".join(topic), said.text):
            continue
        if _IS_NONE.search(said.text.lower().partition(topic[0])[0]):
            continue
        if explains(document, row, topic) and not _is_label(document, row):
            return True
        leans = row > 0 and LEANS.match(said.text) is not None
        named = f"{document.text.sentences[row - 1].text} {said.text}" if leans else said.text
        if not _has_all(named, topic):
            continue
        if is_its_own_kind(" ".join(topic), said.text) or _OF_ANOTHER.search(
            said.text.lower().rpartition(topic[0])[0]
        ):
            continue  # "a group whose table is …"
        if is_plain and not _begins_with(said.text, topic):
            continue
        if sign_of("what is", said.text, topic) < SAYS_WHAT:
            continue
        if not _DEFINES.search(said.text) and not says_which_things(said.text):
            continue
        if not _names_another(said.text, topic):
            return True
    return False


_IS_NONE = regex(r"\b(?:is|are|was|were)(?:n['’]t|\s+not|\s+never)\s+(?:an?\s+|the\s+|any\s+)?$")
"""Before a term: says of something that it is none, "if it is not a"."""


def _has_all(said: str, topic: tuple[str, ...]) -> bool:
    """Whether a sentence has all words of a term."""
    held = [word.strip(_MARKS) for word in said.lower().split()]
    return all(any(begins_alike(word, wanted) for word in held) for wanted in topic)


def _begins_with(said: str, topic: tuple[str, ...]) -> bool:
    """Whether a sentence begins with the words of a term, an article before them or none."""
    first = without_article(said.lower().lstrip(f"{BULLETS}–—- ")).split()[: len(topic)]
    return all(
        begins_alike(word.strip(_MARKS), wanted) for word, wanted in zip(first, topic, strict=False)
    )


def _names_another(said: str, topic: tuple[str, ...]) -> bool:
    """Whether a sentence says only what some of a kind are called: "A well is called dry if …"."""
    found = list(_DEFINES.finditer(said))
    called = _CALLS.search(said)
    if called is None or any(match.start() not in range(*called.span()) for match in found):
        return False
    phrase = without_article(_ENDS_NAME.split(said[called.end() :].lstrip(), maxsplit=1)[0].lower())
    name = list(takewhile(lambda word: not is_common(word), phrase.split()))
    # "This is known as a rope shift" does not say what a rope is.
    return not (name and begins_alike(name[-1].strip(_MARKS), topic[-1]))


_ENDS_NAME = regex(r"[,;:()]|\.(?:\s|$)")
"""What a name in a text does not go on past."""


def _is_label(document: ReadDocument, row: int) -> bool:
    """Whether what stands beside a term is too little to describe it, as the words of a drawing."""
    said = document.text.sentences[row]
    if said.kind != "entry" or said.term < 0:
        return False
    term = document.text.terms[said.term].text
    more = said.text.removeprefix(term).split()
    return len(more) < LEAST_SAID and not seems_to_have_verb(said.text)


def _overlap(one: Locator, other: Locator) -> bool:
    return any(
        a.page == b.page and a.start < b.end and b.start < a.end
        for a in one.spans for b in other.spans
    )  # fmt: skip
