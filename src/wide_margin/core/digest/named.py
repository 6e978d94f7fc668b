"""What stands under a name: in a section called so, in a description, under a line of its own."""

from __future__ import annotations

import re
from functools import lru_cache
from itertools import pairwise
from typing import TYPE_CHECKING

from wide_margin.core.answers.candidates import only_points
from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.articles import without_article
from wide_margin.core.digest.overview import NOT_SAID
from wide_margin.core.explain import tell_changes
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.passages import names_in
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words
from wide_margin.core.search.vectors import frequency_rank

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

LABEL_MORE, LEAST_LABEL = 6, 4
"""How much longer a line may be than the name that it is, and how many letters a name has."""
MOST_NAMES = 5
"""Words of a function with its type and kind."""
LEAST_SAID, MOST_SAID = 3, 3
"""Words after an option that describe it, and paragraphs that go on with it."""
_AS_PRINTED = ("", "[-–−]", "(?:--|[–—])")
"""The dashes before an option, which some writers join: "–deep" for "--deep"."""
_NEXT = regex(r"\W{0,2}[–—-]{1,2}\w|(?:default|examples?|warning|note)\b", re.I)
"""Begins the next option, or what is said of its value and use."""
LEAST_MORE = 20
"""Letters that a description has at least which stands in one line with its term."""
SAYS_NOTHING = (*NOT_SAID, "works", "code", "caption")
"""Kinds of sentences that do not say what a thing is."""
_TAKES = regex(r"(?<=\w)\s*[\[({<].*")
"""What a command takes, after its name in a title: "\\brief { description }"."""
STEM = 3
"""Letters that a word of one stem begins with."""
_ASKING = regex(
    r"^\W*(?:how(?:\s+(?:many|much|long|often|far|large|big|old))?|what|which|why|when|where|who|can|does|is)\b", re.I
)  # fmt: skip
_HOW, LEAST_DONE, LEAST_CLOSE = frozenset(["how"]), 2, 3
_DOING = regex(r"^\W*(?:[^\W\d_]+ing|how\s+to)\b", re.I)
"""Begins the title of a section that tells how something is done, which has so many words at least,
and one more to be meant by a title that has a word of its own: "Reading logs" of all "Log files"."""
_NOUN_OF_DOING = regex(r"(?:tion|sion|ment|al|ing|ance|ure|up|port|nload)\W*$", re.I)
"""Ends a noun for what is done, as the last word of a title: "Pump configuration"."""
_DONE = regex(r"\b(?:i|you|one|we|they|to)\s+(?P<verb>[^\W\d_]{3,})\b", re.I)
"""What is to be done, in a question."""
_KIND = regex(
    r"^(?:command|function|option|method|class|program|module|tool|(?:sub)?routine|procedure|script|utility|daemon|widget|macro|environment|keyword|statement|operator|parameter"
    r"|argument|field|attribute|flag|directive|setting|variable|constant|predicate|filter|register|signal|type)\s+(?=\S)"
)  # fmt: skip
"""What a thing is, before its name."""
_KIND_AFTER = regex(
    r"(?<=\S)\s+(?:mode|command|function|option|method|class|program|module|tool|routine|macro|directive|setting|variable"
    r"|editor|button|menu|dialog|key|entry|field|parameter)s?$"
)
"""The same after it."""
_BRACKET = regex(r"\(([^()]{2,60})\)")
"""Beside a title, its short form: "Personal well books (PWB)"."""
_SHORT_AFTER = regex(r"\s*\([^\W\d][\w.-]{1,9}\)\s*$")
"""The same at its end."""
LONGEST_SHORT = 16
"""Its characters, with brackets and blanks."""
_OUTSIDE = regex(r"\s*[,;]\s*")
_BESIDE, NEAR_ENTRIES = ("entry", "row"), 2
"""Kinds of those that have their term across a gap, and how near before it one is."""
_HEADS, MOST_HEADS = ("row", "code", "entry"), 24
"""Kinds of paragraphs that are heads of functions, and how many stand over one description."""
_TYPED = regex(r"\s*(?:(?:[\w:~/@.-]+\s?)?[$%>#]\s|#\s?(?:ifn?def|if|include)\b)")
"""The sign of a shell, with its name or none, before what is typed; what asks after a name in C."""
_DASH = regex(r"\s+[–—-]\s+|:\s+|(?<=\w)—(?=\w)")
_SETS = regex(r"^\W*>\s|<-|(?<![=!<>])=(?!=)\s|\w\s+\d+\s+[^\W\d]")
"""A line of code that uses a function, or gives values to several, does not describe it."""
_WORDS = regex(r"[^\W\d_]+(?:[\s-]+[^\W\d_]+)+")


@lru_cache(maxsize=4)  # each side of a comparison is looked for more than once
def rows_under(document: ReadDocument, name: str, *, is_function: bool = False) -> range:
    """Rows of what stands under a name, however its words end; none where nothing is called so.

    That is a section with such a title (with its heading, where that goes on with what the name
    stands for), the description of a function or an option (with it), or the text under a line
    that is the name and nothing else (with that).

    Args:
        document: It.
        name: As asked.
        is_function: Whether it is said to be one: an everyday word may be the name of anything.
    """
    name = without_article(name.lower())
    if not name.strip():
        return range(0)
    for bare_name in (_KIND.sub("", name), _KIND_AFTER.sub("", name)):  # "the constant NDIM"
        if bare_name == name:
            continue
        kind = name.replace(bare_name, " ").strip()
        if rows := rows_titled(document, f"{kind} {bare_name}") or rows_titled(document, bare_name):
            return rows  # "Class canvas" for "the canvas class"
    is_name = is_function or not name.isalpha() or frequency_rank(name) is None
    return (
        rows_titled(document, name)
        or (is_function and _described(document, name, is_called=True))
        or (is_name and (_described(document, name) or _stacked(document, name)))
        or (is_name and _numbered_head(document, name))
        or (not name.isalpha() and _among_entries(document, name))
        or _labelled(document, name)
        or rows_of_item(document, name)
    )


LEAST_OF_CODE = 3
"""Letters of a name of code that a paragraph may begin with."""


def rows_of_item(document: ReadDocument, name: str) -> range:
    """The item of a list that a name begins: "Make Smaller (Alt+S). Scales it down"."""
    called = without_article(name.lower()).strip()
    for plain in dict.fromkeys((called, _KIND_AFTER.sub("", called))):  # "the Purge command"
        label = r"\s+".join(map(re.escape, plain.split()))
        begins = re.compile(
            rf"(?:[^\w\s]\s)?{label}(?:\s?\([^()]*\))?(?:[:.]|\s[–—-])\s+(?P<says>\S.*)",
            re.I | re.S,
        )
        for row in rows_with(document, document.index.analyser.terms(plain)):
            said = document.text.sentences[row]
            is_change = said.section >= 0 and tell_changes(document)[said.section]
            is_item = said.kind == "item" and not is_change
            match = begins.match(document.paragraphs[said.paragraph].text) if is_item else None
            says = match["says"] if match is not None else ""
            if len(says.split()) >= LEAST_SAID and not only_points(says):
                return document.rows_of(said.paragraph, said.paragraph + 1)
    return _run_in(document, called)


def _run_in(document: ReadDocument, name: str) -> range:
    """The paragraph that a name of code begins, with a sentence after it: "rope.wind The rope is"."""
    if len(name) < LEAST_OF_CODE or (name.isalpha() and frequency_rank(name) is not None):
        return range(0)
    begins = re.compile(rf"\W{{0,2}}(?i:{re.escape(name)})(?:\(\))?\s+[A-Z][\w’-]*\s[a-z]\w*\s")
    for row in rows_with(document, document.index.analyser.terms(name)):
        said = document.text.sentences[row]
        if said.kind in ("body", "item") and begins.match(said.text):
            rows = document.rows_of(said.paragraph, said.paragraph + 1)
            if rows.start == row:
                return rows
    return range(0)


def _numbered_head(document: ReadDocument, name: str) -> range:
    """The paragraph that a numbered name with what it takes begins: "3.8.72 draw(x). Draws …"."""
    head = re.compile(rf"\d+(?:\.\d+)+\.?\s+{re.escape(name)}\s?(?:\(.*\))?[.:]", re.I)
    for row in rows_with(document, document.index.analyser.terms(name)):
        said = document.text.sentences[row]
        if said.kind == "body" and head.fullmatch(said.text):
            end = document.rows_of(said.paragraph, said.paragraph + 1).stop
            if end > row + 1:
                return range(row, end)
    return range(0)


def without_kind(name: str) -> str:
    """The name of a thing without what it is: "the argument lab.z"."""
    named = without_article(name.strip())
    return named[kind.end() :] if (kind := _KIND.match(named.lower())) else name


@lru_cache(maxsize=4)  # asked for at several steps of one answer
def rows_titled(document: ReadDocument, name: str) -> range:
    """Rows of what stands in the section whose title is a name in small letters."""
    terms = document.index.analyser.terms
    wanted = terms(name)
    for row, section in enumerate(document.outline.sections if wanted else ()):
        whole = _TAKES.split(unnumbered(section.title), maxsplit=1)[0]
        title, _, says = (part.strip() for part in _DASH.sub("\n", whole, 1).partition("\n"))
        # "consult/1, load/1" is the title of both.
        parts = (title, *title.split(",")) if "," in title else (title,)
        if " :: " in section.title:  # a variable after its type
            parts = (_TAKES.sub("", section.title.rpartition(" :: ")[2]),)
        if bracket := _BRACKET.search(section.title):
            parts = (*parts, *_OUTSIDE.split(bracket[1]))
        if any(terms(without_article(part.lower())) == wanted for part in parts):
            return own_rows(document, row, with_heading=bool(says))
    if (member := _MEMBER.match(name)) is not None:
        return _member_titled(document, member["of"], member["name"])
    for row, section in enumerate(document.outline.sections if wanted else ()):
        called = _CALLED.match(unnumbered(section.title))
        if called is not None and terms(called["name"].lower()) == wanted:
            return own_rows(document, row)
    return range(0)


_MEMBER = regex(
    r"(?:\w+(?:::?|\.))*(?P<of>\w+)(?:::?|\.)(?P<name>~?[^\W\d]\w*)(?:\s?\(.*\)|/\d+)?$"
)
"""The name of a function with that of its class or module: "Well::wind()", "wells:wind/2"."""


_N_TAKEN = regex(r"(?<=\w)/\d+$")
"""After the name of a function, how many arguments it takes: "wind/2"."""


def _member_titled(document: ReadDocument, of: str, name: str) -> range:
    """Rows of the section called after a function, within one that names its class."""
    outline = document.outline
    is_of = re.compile(rf"(?:\w+(?:::|\.))*{re.escape(of)}\b", re.I)
    for row, section in enumerate(outline.sections):
        title = unnumbered(section.title).lower()
        if _N_TAKEN.sub("", _TAKES.split(title, maxsplit=1)[0].strip()) != name:
            continue
        is_member = any(is_of.match(unnumbered(around)) for around in outline.path(row)[:-1])
        if is_member and (rows := own_rows(document, row)):  # "call/2" right above "call/3"
            return rows
    return range(0)


_CALLED = regex(
    r"(?:invoking|running|calling|aufruf von|appel d[e’'])\s*(?P<name>\S+)(?:\s+(?:command|program))?$", re.I
)  # fmt: skip
"""The title of a section on a command: "Invoking wellkeep"."""
_OTHER_FORM = r"[–—-]{1,2}[\w-]+(?:[= ][^\s,]+)?(?:\s?[,/|]\s?|\s+(?=[–—-]))"
"""Another form of an option before the one that is asked for: "-c, --chdir", "-c [DIR] --chdir"."""
_OTHER_FORMS = regex(r"(?:[\s,|/]+(?:[–—-]{1,2}[\w-]+|%\w+ \w+))*[’'\"”\s]*")
"""After an option on a line of its own: nothing, or its other forms."""
_GIVEN = regex(r"[= ]\d\S*\s+[–—-]{1,2}[\w-]+[= ]\S")
"""An option that is given a number beside others that are given something: "--turns=3 --wet=1"."""
_AS_TYPED = regex(r"(?:\s--?\w.*){2}")
IN_WORDS = regex(r"(?<!\S)[A-Za-z]?[a-z]+(?:\s[a-z]+){2}")
"""After an option: two others, as on a command line; and three words, as in a description."""
_IS_SAID = regex(r"[A-Z][a-z]+(?:\s[a-z]+){2,}[^{}=;<>]*\.\s*$", re.S)
"""A description in words, which is set like the option that it is of."""
_POINTS_AWAY = regex(
    r"\W*\(?(?:see|cf\.)\s[^()]{1,80}\)\W*$|[\s.,]*(?:-[\w-]+[\s.,]+)*(?:see|cf\.)\s[^.]{1,40}\.(?:\s+[–—-]|\s*$)",
    re.I,
)
"""After an option that is described elsewhere: "--dry. See §14."."""


_KIND_OF_OPTION = (
    r"(?:(?:command[- ]line|compiler|linker) )?(?:option|flag|switch|parameter|argument)s?"
)
_HAS_DONE = (
    r"(?:that |which )?(?:\w+ly )?(?:(?!is\b|was\b|has\b|does\b|as\b|means\b)[a-z]+[^\Ws]s (?!(?:not|no) )|(?:is|are) used (?:to|for)\b|(?:is|are) (?:needed|required|necessary) (?:to|for|so that|when|if)\b|(?:can|may|must) be used to\b"
    r"|(?:will|can) (?!be\b|not\b|also be\b)[a-z]+ |to (?!(?:the|an?|your|all|its|his|their|each|this) )[a-z]+ |means? )"
)
_OPTION_IN_TEXT = (
    rf"(?<![\w-])@[”\"’'»)]?(?: \(or --?[\w-]+\))? {_KIND_OF_OPTION} {_HAS_DONE}|\b{_KIND_OF_OPTION} [“\"‘'«(]?@[”\"’'»)]?,? {_HAS_DONE}"
    rf"|\b(?i:use|uses|using|specify|set) (?:the )?[“\"‘'«(]?@[”\"’'»)]?(?: {_KIND_OF_OPTION})? (?:to (?!(?:the|an?) )[a-z]+|if you|if one)\b"
)
"""A sentence that says what an option, "@", has a program do: "There is a -q flag that stops it"."""


def is_no_description(rest: str) -> bool:
    """Whether what stands behind an option points elsewhere, or is more of a command line."""
    is_typed = _AS_TYPED.search(rest) is not None and IN_WORDS.search(rest) is None
    return is_typed or _POINTS_AWAY.match(rest) is not None


def rows_of_option(document: ReadDocument, name: str) -> range:
    """Rows of what is said of an option of a command line: "-C  Show more", and what follows.

    Its letter counts as it is written; one that is only given to a command is not described.
    """
    rest = name.lstrip("-")
    # Some writers draw the line of "wet_rope" between two words.
    option = _AS_PRINTED[len(name) - len(rest)] + re.escape(rest).replace("_", "[_ ]")
    begins = re.compile(
        rf"(?:[^\w[–—-]|_){{0,2}}(?:{_OTHER_FORM})?{option}(?=$|[\s,:;|=<\[(/’'”\"]|\.(?:\s|$))"
    )
    paragraphs = document.paragraphs
    described = {term.paragraph for term in document.text.terms}
    for at, paragraph in enumerate(paragraphs):
        match = begins.match(paragraph.text)
        if match is None or paragraph.page in document.listings:
            continue
        rest = paragraph.text[match.end() :]
        if is_no_description(rest):
            continue
        said = len(rest.split())
        after = paragraphs[at + 1] if at + 1 < len(paragraphs) else None
        goes_on = (
            after is not None
            and (after.kind == "body" or (after.kind == "code" and _IS_SAID.match(after.text)))
            and (
                after.text[:1].isupper() or _OTHER_FORMS.fullmatch(rest)
                or (at in described and " -" not in rest)
            )
        )  # fmt: skip
        if paragraph.kind == "code" and (not goes_on or _GIVEN.search(paragraph.text)):
            continue
        if said >= LEAST_SAID or goes_on:
            end = at + 1
            while end < min(at + MOST_SAID, len(paragraphs)) and not _NEXT.match(
                paragraphs[end].text
            ):
                end += 1
            rows, sentences = document.rows_of(at, end), document.text.sentences
            stop = (row for row in rows[1:] if sentences[row].kind == "heading")
            return range(rows.start, next(stop, rows.stop))
    among = re.compile(
        rf"(?<!\S)(?:-\w,\s*{option}|{option},\s*--[\w-]+)(?:[ =][A-Z]+)?\s+[A-Z]?[a-z]+\s[a-z]"
        rf"|(?<!\S){option}(?:[ =][A-Z]+)?\s+[A-Z][a-z]+\s[a-z]"
        rf"|^\W{{0,2}}-.*(?<!\S){option}(?:\s--?\w[\w-]*)?(?:\s+[a-z]+){{3}}"
        rf"|(?<!\S){option}\s-\w(?:\s+[a-z]+){{3}}"
    )
    for row, sentence in enumerate(document.text.sentences):
        if sentence.kind in ("code", "row", "entry") and among.search(sentence.text):
            return range(row, row + 1)  # one of several that are printed as they are typed
    in_text = re.compile(_OPTION_IN_TEXT.replace("@", option))
    for row, sentence in enumerate(document.text.sentences):
        if sentence.kind in ("body", "item") and in_text.search(sentence.text):
            return range(row, row + 1)
    return range(0)


def rows_asked(document: ReadDocument, question: str) -> tuple[range, str, range]:
    """Rows of the section whose title asks what is asked, and the title; none where none does.

    Those before its first part come first, all of them last.

    "How many threads shall I use?" asks it in so many words, "Compiling the kernel" how that is done.
    """
    asked, form = content_of(document, question), _asking(question)
    begins = [term[:STEM] for term in asked]
    done = _DONE.search(question) if form in _HOW else None
    verb = content_of(document, done["verb"]) if done else frozenset()
    outline = document.outline
    for row in sorted(
        range(len(outline.sections) if asked and form else 0), key=outline.depths.__getitem__
    ):  # of several that are called so, that of the whole
        said = outline.sections[row].title.lower()
        if not all(begin in said for begin in begins):
            continue  # most of them, at no cost
        title = unnumbered(outline.sections[row].title)
        named = content_of(document, title)
        is_whole = named == asked
        if is_whole and _asking(title) == form:
            return own_rows(document, row), title, _all_rows(document, row)
        is_close = len(asked) >= LEAST_CLOSE and asked < named and len(named) == len(asked) + 1
        if form not in _HOW or len(asked) < LEAST_DONE or not (is_whole or is_close):
            continue
        first, *_, last = (title.split()[k] for k in (0, -1))
        is_done = verb and (
            content_of(document, first) == verb
            or (is_whole and _NOUN_OF_DOING.search(last) and content_of(document, last) == verb)
        )
        if _DOING.match(title) or is_done:
            return own_rows(document, row), title, _all_rows(document, row)
    return range(0), "", range(0)


def _all_rows(document: ReadDocument, row: int) -> range:
    section = document.outline.sections[row]
    return document.rows_of(section.first_paragraph, section.end_paragraph)


def _asking(text: str) -> str:
    """The words that a question begins with; "" for none."""
    match = _ASKING.match(text)
    return " ".join(match[0].lower().split()) if match else ""


def own_rows(document: ReadDocument, row: int, *, with_heading: bool = False) -> range:
    """Rows of a section before the next one begins; of all of it where that is at once."""
    sections = document.outline.sections
    section, end = sections[row], sections[row].end_paragraph
    if row + 1 < len(sections):
        end = min(end, sections[row + 1].first_paragraph)
    first = document.under_heading(section)
    if not document.rows_of(first, end):  # "Synopsis" follows
        end = section.end_paragraph
    return document.rows_of(section.first_paragraph if with_heading else first, end)


def _labelled(document: ReadDocument, name: str) -> range:
    """Rows of a line that is a name, and of the paragraph under it."""
    label = bare(name)
    if len(label) < LEAST_LABEL:
        return range(0)
    opens, closes = "([{", ")]}"
    paragraphs, most = document.paragraphs, len(name) + LABEL_MORE
    for at, (paragraph, after) in enumerate(pairwise(paragraphs)):
        if len(paragraph.text) >= most + LONGEST_SHORT:
            continue
        first = paragraph.text[:1]
        if first.isascii() and first.isalnum() and first.lower() != label[0]:
            continue  # most are passed over by that
        text = paragraph.text.rstrip()
        if text.endswith(")"):
            text = _SHORT_AFTER.sub("", text)
        if len(text) >= most or bare(text) != label:
            continue
        if sum(map(text.count, opens)) != sum(map(text.count, closes)):
            continue  # the end of a longer line
        if after.kind == "body" and len(after.pieces) > 1:
            return document.rows_of(at, at + 2)
    return range(0)


def _described(document: ReadDocument, name: str, *, is_called: bool = False) -> range:
    """Rows of the description of the function or option of a name, in small letters.

    ``is_called`` are those alone that take something in brackets.
    """
    sentences, nearest = document.text.sentences, range(0)
    wanted, name = f"{name}(" if is_called else name, name.removeprefix("\\")
    for k, term in enumerate(document.text.terms):
        if wanted not in term.text.lower().replace(" (", "("):
            continue
        named = list(words(names_in(term.text)))
        if name not in named or len(set(named)) > MOST_NAMES or _SETS.search(term.text):
            continue
        if _TYPED.match(term.text) or _is_of_other_function(term.text, name):
            continue
        if term.text.count(")") > term.text.count("("):
            continue  # what a function takes whose head stands over it
        if len(named) > 1 and term.text.rstrip().endswith(":"):
            continue  # leads in to a list
        if (
            _WORDS.fullmatch(term.text.strip())
            and not _DECLARES_TYPE.match(term.text)
            and all(
                frequency_rank(word) is not None or is_common(word)
                for word in named
                if word != name
            )
        ):
            continue  # "Monad utilities" are no function
        own = document.rows_of(term.paragraph, term.paragraph + 1)
        if not own:
            continue
        if wanted.startswith("\\") and not _is_form(document, term.text, wanted, own.start):
            continue
        end = own.stop
        while end < len(sentences) and sentences[end].term == k:
            end += 1
        more = len(sentences[own.start].text) - len(term.text)
        if end > own.stop or (sentences[own.start].term == k and more >= LEAST_MORE):
            return range(own.start, end)
        if not nearest and end < len(sentences) and sentences[end].kind == "body":
            paragraph = sentences[end].paragraph  # as far out as its function
            nearest = range(own.start, document.rows_of(paragraph, paragraph + 1).stop)
    return nearest


_DECLARES_TYPE = regex(r"\W*(?:data|newtype|class|type|struct|enum|union|interface|typedef)\s")
"""Declares what has a name of one kind: "data Rope a"."""
DECLARES = regex(
    r"[\w\s*&]+[\s*&](?P<name>\w+)\s?\(\s*"
    r"(?:(?:const|struct|unsigned|signed|int|char|void|long|float|double|bool|\w+_t)\b|(?:\w+\s+){0,2}\w+\s*\*)"
)
"""Declares a function, and says nothing of it: "int wind (const ROPE * rope, int turns)"."""


_POINTS_AT = regex(r"[\w\s]+\*+\s?(?P<name>\w+)\s?\(")
"""Declares one that gives back where something is: "rope *rope_new (drum)"."""


def _is_of_other_function(term: str, name: str) -> bool:
    """Whether a name in small letters is only the type of what another function takes."""
    declared = DECLARES.match(term) or _POINTS_AT.match(term)
    return declared is not None and declared["name"].lower() != name


def _is_form(document: ReadDocument, term: str, name: str, row: int) -> bool:
    """Whether a line with a command is its form, and none of an example.

    A form has places for arguments, or what stands under it speaks of the command.
    """
    said = " ".join(sentence.text for sentence in document.text.sentences[row : row + 2])
    speaks = said.lower().count(name) > term.lower().count(name)
    return speaks or _HOLDS_PLACE.search(term) is not None


_HOLDS_PLACE = regex(r"[⟨〈‹]|\bh[a-z -]+i(?!\w)|[\[{]<\w")
"""What stands for an argument in the form of a command: "\\wind{⟨turns⟩}"; some fonts give "hturnsi"."""


def _stacked(document: ReadDocument, name: str) -> range:
    """Rows of what describes several functions whose heads stand over it, one of that name."""
    paragraphs = document.paragraphs
    declared = rf"[\w*&\s]*\w[\s*&]+{re.escape(name)}\s?\([^;=]*"
    is_head = re.compile(rf"{declared}\)?\s*(?:\[\w+\])?$", re.I)
    for at, paragraph in enumerate(paragraphs):
        if paragraph.kind not in _HEADS or paragraph.page in document.listings:
            continue
        if name not in paragraph.text.lower() or not is_head.match(paragraph.text):
            continue
        end = at + 1
        while end < min(at + MOST_HEADS, len(paragraphs)) and paragraphs[end].kind in _HEADS:
            end += 1
        if end < len(paragraphs) and paragraphs[end].kind == "body":
            return document.rows_of(end, end + 1)
    return range(0)


def _among_entries(document: ReadDocument, name: str) -> range:
    """Rows of what describes one of several terms, too long a one for a gap after it."""
    paragraphs = document.paragraphs
    for at, paragraph in enumerate(paragraphs):
        begins = paragraph.text[: len(name) + 1].lower() == f"{name} "
        if paragraph.kind != "body" or not begins:
            continue
        if _WORDS.fullmatch(name) and not paragraph.text[len(name) + 1 :][:1].isupper():
            continue  # goes on with the words of another term
        if any(p.kind in _BESIDE for p in paragraphs[max(at - NEAR_ENTRIES, 0) : at]):
            return document.rows_of(at, at + 1)
    return range(0)


def content_of(document: ReadDocument, text: str) -> frozenset[str]:
    """The terms of a text's words, without the small words."""
    index = document.index
    named = [word for word in words(text) if not is_common(word, index.language)]
    return frozenset(
        term for word in named if any(map(str.isalpha, word))
        for term in index.analyser.terms_of(word)[:1]
    )  # fmt: skip
