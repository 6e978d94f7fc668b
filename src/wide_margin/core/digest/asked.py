"""Questions about the whole document or a part of it, told from those for a fact.

They ask about the document, not for a word in it: what it is about, why it was made, what it does
not do, what chapter 2 says. Which of them is asked is told by wording; a question with words of
its own beside that wording is one for a fact, and left to the search.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import islice
from typing import TYPE_CHECKING

from wide_margin.core.answers import Reach, section_reach
from wide_margin.core.answers.form import Form, take_form
from wide_margin.core.answers.within import rows_with
from wide_margin.core.digest.abroad import in_english, kind_abroad
from wide_margin.core.digest.gist import initials_in, printed_title
from wide_margin.core.digest.parts_abroad import part_asked_abroad
from wide_margin.core.digest.roles import Role, role_of_title
from wide_margin.core.digest.telling import THING
from wide_margin.core.document import section_numbered, section_titled
from wide_margin.core.later import regex
from wide_margin.core.lexicon import (
    alternatives,
    bare,
    number_words,
    ordinal_words,
    squashed,
    words_for,
)
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words
from wide_margin.core.search.vectors import frequency_rank, vectors_of
from wide_margin.core.shipped import text_of

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

FRONT = 6
"""Lines of the first page among which a subtitle is."""
OWN_WORDS = 1
"""So many words of its own a question about the whole may have beside its wording."""
SUBJECT = 0.25
"""Share of the passages that have a word which is what the document is about."""
FEW = 3
"""Passages: in a short document a word of fewer is none."""
NEAR_TITLE = 0.5
"""Share of a part's words that a section's title must have to be meant by it."""
_NUMBERS = {word: str(value) for word, value in number_words("en").items() if value <= 20}
_UNCOUNTED = squashed(
    "contents", "list_of", "abstract", "summary", "preface", "acknowledgements", "index"
)
_LEGAL = regex(r"(?:licen[sc]e|copyright|legal|lizenz|licence|licencia|licenza)\b", re.I)
"""Titles of sections that readers do not count."""
_ORDINALS = {word: str(value) for word, value in ordinal_words("en").items()}
_FREELY = r"(?:for free|free of charge|freely|commercially|in (?:a |my |our )?commercial (?:products?|software|projects?|settings?|use)|without paying)"
"""On which terms a thing may be had that is asked for."""
_IS_FREE = (
    r"^\W*(?:is|are) (?:it|this|they|(?:this|the) \w+|[\w.+-]+) (?:really |completely |entirely |totally )?"
    r"(?:free(?: software| to use| of charge)?|open[ -]source(?: software)?|in the public domain|proprietary|freely available)\W*$"
    rf"|\b(?:may|can|could|am) (?:i|we|one) (?:allowed to )?(?:use|get|have|copy|sell) (?:\S+ ){{1,3}}{_FREELY}\W*$|\bcommercial use\b"
)
"""Asks on what terms it may be had."""
_WORDINGS: dict[str, str] = {
    "install": r"\bhow (?:do|can|should|would|could|does|to|is)\b.{0,14}\b(?:install(?:ed)?|set up)\b|\bset (?:it|this) up\b|^(?:show me |give me )?(?:the )?install(?:ation|ing)?(?: instructions?| steps| guide)?\W*$",
    "cite": r"\bhow (?:do|can|should|would|could|to|is|does|must)\b.{0,20}\b(?:cited?|reference)\b|^(?:the )?citations?\W*$",
    "bugs": r"\b(?:where|how|to whom)\b.{0,20}\b(?:report|file|send|submit)\b.{0,20}\b(?:bugs?|issues?|problems?|errors?|bug reports?|feedback)\b|\b(?:where|how|whom?)\b.{0,16}\b(?:get|find|ask(?: \w+)? for|turn to for)\b.{0,8}\b(?:help|support)\b|\b(?:whom?|how) (?:do|can|should|could) (?:i|we|one) contact\b",
    "run": r"\bhow (?:do|can|should|would|could|does|to|is)\b.{0,14}\b(?:(?:run|start(?:ed)?|launch(?:ed)?|used?|invoked?|executed?|operated?)\b (?!\w+ing\b)|(?:run|used?|operated?)\W*$)",
    "licence": rf"{_IS_FREE}|\b(?:which|what|whose) licen[sc]e\b|^(?:what is |what's )?(?:the |its )?licen[sc]e\W*$|\b(?:its|the) licen[sc]e\s*\??$|\blicen[sc]ed\b|(?<!how )\b(?:may|can|am) i (?:allowed to )?(?:copy|change|modify|alter|adapt|translate|make (?:\w+ )?(?:changes|copies)|share|pass|use|distribute|redistribute|reproduce)|\bon what terms\b|\bcopyright\b|\bpass (?:this|it)\b.*\bon\b|\bredistribut",
    "authors and date": r"\b(?:what(?:'s|’s| is)|which is|give me|tell me) (?:the|its) (?:\w+ )?title\b|\bwho (?:wrote|made|created|is the author|are the authors?|edited|maintains|looks after|takes care of|keeps up|is behind|published|has written)\b|\bwho (?:develops|developed|programmed|built|designed|invented) (?:it|this(?: \w+)?|the (?:program|software|package|library|tool|system))\W*$|\b(?:name|list|names of|show|give me) (?:\w+ )?authors\b|^\W*(?:the )?authors?\W*$|\bby whom\b|\bwritten by\b|\bwhen (?:was|is|did) (?:it|this|the \w+) (?:written|made|published|issued|from|appear|come out)|\b(?:which|what) (?:version|edition|release|date|year|month|issue)\b|\bwhat(?:'s|’s| is) the (?:latest |current |newest |present )?(?:version|edition|release)\b(?: number)?|\bin (?:which|what) (?:journal|magazine|series|proceedings|conference)\b.*\b(?:publish\w*|appear\w*|come out|printed)\b|\bwho (?:is|was) (?:the|its) publisher\b|\bwhen was (?:it|this|the \w+) (?:last )?(?:updated|revised|changed|modified)\b|\bfrom when\b|\bhow old is\b|\bwhere (?:was|did) .*\b(?:published|come out|appear)",
    "new": r"\bwhat(?:'s|’s| is| are| was| has| have)?\b.*\b(?:new|changed?|added|altered|different)\b|\bchanges?\b.*\b(?:release|version|edition|since)\b|^(?!.*\b(?:where|download|how)\b)(?!(?:what|which)(?:'s|’s| is| was) the latest (?:\w+ )?(?:release|version|edition)\b).*\blatest (?:release|version|edition|changes)\b|\bwithdrawn\b|\bsince this was written\b",
    "terms": r"\b(?:key|main|important|special|central) (?:terms?|words?|concepts?|notions)\b|\bspecial meaning\b|\bvocabulary\b|\bglossary\b|\bwhich (?:words|terms)\b",
    "organised": r"\bhow is\b.*\b(?:organi[sz]ed|structured|divided|laid out|arranged)\b|\bstructure\b(?!\s+of\s+(?:an?|each|every|one)\b)|\bwhat (?:are|is in) (?:its|the) (?:parts|chapters|sections)\b(?!\s+(?:of|in)\s+(?!(?:this|the|it)\b(?:\s+(?:whole\s+)?(?:document|manual|guide|book|paper|text|handbook|report|thesis|essay|work|tutorial))?\W*$))|\boutline of\b",
    "begin": r"\bwhere (?:should|do|can|shall) i (?:begin|start)\b|\bnew to\b|\bnever used\b|^(?!.*\bneed\b).*\bget(?:ting)? started\b|\bhow (?:do|can|should) i (?:begin|start)(?: (?:with|using|reading)\b.*)?\s*\??$",
    "limits": r"\b(?:drawbacks?|limits?|limitations?|limited|shortcomings?|weakness(?:es)?|weak (?:points?|spots?|sides?)|disadvantages?|downsides?|caveats?|flaws?|fall short|falls short)\b|\bcan(?:'t|’t|not) (?:it|they|this)\b|\bcan (?:it|they) not\b|\b(?:admit|conced|acknowledg|confess)\w*|\bfail(?:s|ings?|ures?)?\b|\bbreaks? down\b|\bnot (?:set out|meant|intended|try|attempt) to\b|\bwhat .* not (?:do|cover|handle|(?:good|suitable|suited|meant|intended|designed|made|useful) for|good at)\b|\bknown (?:problems|bugs|issues|errors|defects)\b|\bproblems? (?:in|with|of) (?:it|the program|the software|its)\b",
    "conclusion": r"\bconclu(?:de|des|ded|sions?)\b|\bin the end\b|\bfinal (?:verdict|word|thoughts)\b|\btake-?aways?\b|\bbottom line\b",
    "next": r"\b(?:comes?|done|do|add|added|plans?|planned) (?:\w+ ){0,3}(?:next|later|(?:in|for) (?:the )?future)\b|\bnext\b.*\baccording\b|\bfuture (?:work|plans?|research|directions?)\b|\bimprovements?\b.*\b(?:later|mind|future)\b|\bopen (?:problems?|questions?)\b|\b(?:leave[sd]?|left) (?:open )?for (?:later|others|(?:the )?future)\b|\bwhat (?:comes|is) next\b|\bto-?do(?: list)?\b(?!\s+(?:so|it|this|that|with))|\b(?:still|remains?|left|yet|needs?) (?:needs? |has |have |to )*(?:to )?be (?:done|written|implemented|improved)\b|\bplan to\b",
    "why": r"\bwhy\b.*\b(?:made|written|created|bother|started|exist|write|make|developed|needed|begun|built)\b|\bmotivat\w*|\bwhat (?:prompted|led|drove|moved|made|caused) (?:the (?:authors?|writers?|developers?|team|project)|them|him|her|someone|anyone|people|its)\b|\bwrong with (?:the )?(?:existing|other|current)\b|\bwhat problem\b",
    "audience": r"\bwho (?:is|are|will|would|might|should)\b.*\b(?:for|useful|read|reader|find)\b|\b(?:whom|who) is (?:it|this|the \w+) (?:for|meant|intended|written)\b|\baudience\b|\bfor whom\b|\bwho should (?:read|use|bother|care)\b",
    "needs": r"\bwhat do (?:i|you|we) need\b|\b(?:need|needed|have) to (?:have|know|install)\b|\bneed(?:ed)? (?:first|before|installed)\b|\brequirements?\b|\bprerequisites?\b|\bto follow along\b|\bbefore (?:i|you|one) (?:start|begin|read)\b|\bhave installed\b",
    "findings": r"^(?!\W*how (?:do|can|could|should|would|to)\b(?: (?:i|you|we|one)\b)?).*\b(?:findings?|results?|outcomes?)\b|\bwhat (?:did|do|does|have|has) (?:they|it|the authors?|he|she) (?:find|found|show|shown|discover|learn)\b|\bc(?:a|o)me out (?:well|best|on top|ahead)\b|\bturn(?:s|ed)? out\b",
    "method": r"\b(?:which|what) (?:kind of |sort of |type of )?(?:\w+ )?(?:methods?|approach|model|technique|methodology)\b.*\b(?:use|used|rest|based|follow|take)|\bhow (?:did|do|does) (?:they|it|the authors?) (?:do it|proceed|go about|work)\b|^what (?:is the )?(?:method|approach|methodology)\s*\??$",
    "data": r"\b(?:which|what) (?:\w+ )?data\b(?!\s+(?:formats?|types?|structures?|files?|models?|layouts?)\b)|\bwhere do\b.*\bdata\b.*\bcome from\b|\bdata ?sets? (?:are|is|do)\b",
    "purpose": r"\b(?:goals?|aims?|purposes?|objectives?|mission)\b|\bresearch (?:questions?|problems?)\b|\btrying to (?:do|achieve|say|show)\b|\bset(?:s)? out to\b|\bmeant to (?:do|be|achieve|accomplish|ensure|provide)\b|\bwhat(?:'s|’s| is| are)\b.{0,40}\bfor\s*\??$|\bpoint of\b|\bintended to\b|\bwhat (?:does|do|can|will) (?:it|this|the)(?: \w+)? do\W*$",
    "about": r"\b(?:about|gist|tl;?dr|nutshell|synopsis|sums?\s+(?:\w+\s+)?up|summar(?:y|ise|ize|ised|ized)|condense|recap)\b|\bcontributions? of (?:the|this)\b|\b(?:main|key|chief|central|important) (?:points?|contributions?|ideas?|topics?|messages?|themes?|arguments?|thesis|contents?|takeaways?|facts)\b|\btake[- ]?aways?\b|\bwhat (?:does|do|is|will) .*\b(?:say|cover|covers|contain|contains|introduce|introduces|discuss|treat|deal with|tell)\b|\btopics?\b|\bin (?:brief|short|a few words)\b|\bexplain\b.*\bwhat\b|\b(?:simply|plain words|simple words)\b|\bwhat(?:'s|’s| is) (?:this|it|in (?:it|this|here))\s*\??$|\boverview\b|\bwhat is this (?:paper|document|manual|book|report|text|thing)\b|\bbroadly\b",
}  # fmt: skip
_KINDS = {kind: regex(pattern, re.I) for kind, pattern in _WORDINGS.items()}


def _vocabulary() -> frozenset[str]:
    text = text_of("overview-words.txt")
    return frozenset(line for line in text.splitlines() if line and not line.startswith("#"))


_VOCABULARY = _vocabulary()

_PART = regex(
    r"(?P<word>\b(?:section|sect?\.|chapter|part|appendix|annex)|§)\s*(?:number(?:ed)?\s+|no\.?\s*)?(?P<id>\d+(?:\.\d+)*|[IVXLC]+\b|[A-Z]\b(?:\.\d+)*)"
    r"|\b(?P<word2>section|chapter|part)\s+(?P<number>" + "|".join(_NUMBERS) + r")\b"
    r"|\b(?:the\s+)?(?P<ordinal>" + "|".join(_ORDINALS) + r"|last|final|previous|next)\s+(?P<word3>section|chapter|part)\b", re.I
)  # fmt: skip
_PAGE = regex(
    r"\b(?:the\s+)?(?P<file>file\s+)?(?:pages?|pp?\.)\s+(?:number(?:ed)?\s+)?(?P<a>\d+|[ivxlc]+)(?:\s*(?:-|–|to|and)\s*(?P<b>\d+|[ivxlc]+))?\b", re.I
)  # fmt: skip
_NAMED_PART = regex(
    r"\b(?:the\s+)?(?P<named>preface|foreword|introduction|abstract|conclusions?|discussion|methods?|results|epilogue|prologue|afterword|appendix|summary)\b\s*(?:section|chapter|part)?(?=\s*(?:$|[?.,;:!]|in\b|for\b|about\b|says?\b|please\b))"
    r"|\b(?:the\s+)?(?:section|chapter|part|bit|passage)s?\s+(?:(?:on|about|called|named|titled|entitled|dealing with|concerning|treating)\s+(?:the\s+)?[“\"‘]?|[“\"‘])(?P<title>[^?.,;:”\"]{3,70})", re.I
)  # fmt: skip
_CONDENSES = regex(
    r"\b(?:summar\w+|sum(?:s)? up|tl;?dr|gist|about|condense|recap|overview|what (?:does|do|is|are|happens)|tell me|explain|main points?|key points?|in short|in brief|nutshell|outline)\b"
    r"|^\W*(?:(?:section|chapter|part|appendix|annex|page|pages|the)\b|§|p\.)", re.I
)  # fmt: skip
_QUOTED = "\"'“”„«»‘’ "
"""What a title may be set in, in a question."""
_A_PART = alternatives("section", "chapter", "part", "appendix", in_text=True)
"""The parts of a document, as running text calls them."""
_SUMS_UP = regex(
    r"^\W*(?:(?:please|can you|could you|bitte)\W+)*"
    r"(?:summari[sz]e|sum\s+up|condense|recap(?:itulate)?|(?:give\s+(?:me\s+)?)?(?:an?|the)\s+(?:\w+\s+)?(?:summary|overview|outline|gist)\s+of"
    r"|outline|résume[rz]?|resum[aei]r?|riassum[iae](?:re)?|(?P<parted>fass(?:e|en sie)?|vat))\s+"
    rf"(?:(?:the|den|das|die|le|la|les|il|lo|el|[oa]|het|de)\s+|l['’])?(?:(?:{_A_PART})s?\s+)?(?:(?:on|about|called|named|titled|über|sur|sobre|su|over)\s+)?"
    rf"(?P<title>.+?)(?(parted)\s+(?:zusammen|samen)|(?:\s+(?:{_A_PART}))?)[\s?.!]*$", re.I
)  # fmt: skip
"""Asks for a part in short by what it is called, or for what is told of a matter."""
_NO_LETTERS = regex(r"[\W_]+")
WHOLE_TITLE = 0.85
"""Share of what is asked for that a section's title has where nothing else says it is one."""
_POINTS = regex(
    r"\b(?P<n>\d+|"
    + "|".join(_NUMBERS)
    + r")\s+(?:\w+\s+)?(?:bullet )?points?\b|\bmain points\b|\bbullets?\b",
    re.I,
)


@dataclass(frozen=True, slots=True)
class Overview:
    """A question about the whole or a part, read."""

    kind: str
    """"about", "section", "page" or another key of the wordings."""
    reach: Reach
    form: Form
    n_points: int = 0
    question: str = ""
    is_all_known: bool = False
    """Whether the whole wording is one for the whole, with no word of its own to search for."""


OF_ITSELF = frozenset(["install", "run", "cite", "bugs"])
"""What is asked of the document's thing itself: "from CD" asks for more."""
_STRICT = frozenset(["purpose", "about", "organised"]) | OF_ITSELF
"""What a thing in the document may have or do as well: no word of its own is allowed."""

_NAME_IN_CODE = regex(r"[^\W\d_]\w*(?:[._]\w+)+")
"""A name whose parts are words, as "lid.limit": it asks for no limits."""
_OF_THINGS = frozenset(["authors and date", "licence", "limits"])
"""What a thing in the document may have too: its maker, its version, its limits."""
_OF_SOME = frozenset(["data", "findings", "method"])
"""What each of several things in a document may have: asked by a name of its own it is a fact."""
_WAYS = regex(
    r"\b(?:install\w*|run|start(?:ed)?|launch(?:ed)?|used?|invoked?|executed?|operated?|cited?|citations?|reference|report(?:ed)?|file|send|submit"
    r"|bugs?|issues?|problems?|errors?|feedback|get|find|ask|help|support|contact)\b", re.I
)  # fmt: skip
"""With these it is asked how something is done with the whole."""
_FOR_FREE = regex(
    rf"\b(?:{_FREELY}|free(?: software| to use| of charge)?|open[ -]source(?: software)?|public domain|proprietary|freely available|commercial use)\b",
    re.I,
)  # fmt: skip
"""With these it is asked on what terms the whole may be used."""
_AT_END = squashed(
    "contents", "list_of", "references", "index", "glossary", "acknowledgements", "appendix"
)
_NO_MATTER = frozenset({Role.THANKS, Role.LEGAL, Role.APPENDIX})
"""What stands at the end of a document and is no chapter of it."""
_SOME_OF_IT = regex(
    r"\b(?:only|just|single|several|multiple|each|every|specific)\b"
    r"|\b(?:run|start|launch|use|invoke|execute|operate)\s+(?:an?|another|new)\b", re.I
)  # fmt: skip
"""Asked of some of the things in it: "run only one test", "start a new one"."""
_OF_ONE = regex(r"^\W*what(?:['’]s|\s+is|\s+are)\s+an?\s", re.I)
"""Asks what such a thing is for, which the title may name too, not what the whole is for."""
_ALLOWED = regex(r"\b(?:may|can|am) i\b", re.I)
"""Asked of the whole it is a question of its licence; of something in it, one of what it can do."""
_ADVISED = regex(r"\b(?:should|ought|recommended|must)\b", re.I)
"""Which licence others should take is no question of that of the document."""
_ONLY_CAN = regex(
    r"\bwithout (?!(?:paying|payment|permission|asking|(?:an? )?(?:licen[sc]e|charge|fee)|credit|attribution|mentioning|naming|restrictions?)\b)"
    r"|\b(?:before|after|while) \w+ing\b|\boffline\b", re.I
)  # fmt: skip
"""Whether a thing can be done so is no question of what is allowed: "use it without a rope"."""
_OF_A_STEP = regex(r"\bneeded\b", re.I)
"""Why it is, may be asked of one step of many."""
_OF_A_SYSTEM = regex(
    r"\b(?:(?:system|hardware|software|minimum|minimal|recommended|basic)\s+)+(?=requirements?\b)",
    re.I,
)
"""Which requirements are asked for; sections are called by them with and without the word."""
_INTRODUCES = regex(
    r"\b(?:introduction|(?<!user )(?<!user['’]s )(?<!users['’] )(?<!users )(?<!reference )guide|tutorial|primer|course|companion|beginner['’]?s guide|lectures?|notes|interfaces?|bindings?|front-?end|wrapper)"
    r"\s+(?:to|on|in|for)\s+(?P<matter>\S.*)", re.I
)  # fmt: skip
_BRINGS_IN = regex(
    r"\b(?:for|to|with|in|on|from|using|under|against|as|based on|port(?:ing|ed)?)\b", re.I
)
"""Comes between the name of a thing and those of others, in a title."""
_ITSELF = regex(
    r"\b(?:this|the) (?:\w+ )?(?:document|book|guide|manual|paper|tutorial|introduction|course|text|notes?|primer)\b", re.I
)  # fmt: skip
_THE_THING = regex(rf"\b(?:the|this)\s+({THING})\b")
"""The kind of thing that a document is on, as it may be called: "the game"."""
_A_DOCUMENT = regex(
    r"\b(?:document(?:ation)?|book|guide|manual|handbook|paper|article|tutorial|introduction|course|text|notes?|primer|report|thesis"
    r"|vignette|standard|policy|specification|agreement|licen[sc]e)\b", re.I
)  # fmt: skip
_NAMED_THING = regex(
    r"\b(?:the|an?|these|those|of|in|with|for)\s+(?=([\w'’-]{2,})(?:\s+([\w'’-]{3,}))?)", re.I
)


LONGER = 3
"""Letters by which a name is longer than one that it is made of, and no other form of it."""
_VERSION_OF = regex(r"\b(?:version|release|edition)s?\s+of\s+(?:the\s+)?(?P<name>\w[\w.-]*)", re.I)

_MINE = regex(
    r"(?<!\bon )(?<!\bin )(?<!\bto )(?<!\bfrom )(?<!\bfor )(?<!\bunder )\b(?:my|your|our)\b", re.I
)
"""The reader's own thing, and not the document's; "on my machine" is where it is used."""
_MUST_BE_HAD = regex(r"\b(?:needs?|needed|requires?|required|necessary)\b", re.I)
_OTHER_WORK = regex(
    r"\b[Tt]he\s(?:\w+\s)?(?P<name>[A-Z]\w+)\s(?:book|paper|article|report|manual|guide|handbook|thesis)\b"
)
"""Names a work by its matter: "the original ROPE book"."""


_WORDED = {
    "licence": _FOR_FREE,
    "organised": regex(
        r"\b(?:organi[sz]\w*|structure[ds]?|divided|laid|arranged|parts?|chapters?|sections?|outline|layout)\b",
        re.I,
    ),
}
"""Words in which a kind is asked for, which are none of the question's own."""


def read_overview(document: ReadDocument, typed: str, reach: Reach) -> Overview | None:
    """Read a question about the whole or a part; None for one that asks for a fact.

    Args:
        document: Its sections and pages are what "section 3" and "page 12" name.
        typed: As typed.
        reach: As chosen in the ask line.
    """
    whole = " ".join(typed.split())
    points = _POINTS.search(whole)
    n_points = _count(points) if points else 0
    text, form = take_form(_OF_A_SYSTEM.sub("", whole))
    if points:
        text = text.replace(points[0], " ") if points[0] in text else text
    if (abroad := part_abroad(document, text)) is not None:
        return Overview(_asked_of(abroad), abroad, form, n_points, text)
    if asked := kind_abroad(text) or kind_abroad(_without_title(document, text)):
        put = in_english(text) if asked == "authors and date" else text
        return Overview(asked, reach, form, n_points, put, is_all_known=True)
    is_condensed = points is not None or _CONDENSES.search(text) is not None
    part, rest = (named_part if is_condensed else _part_by_number)(document, text)
    if part is None and (part := _summed_up(document, text)) is not None:
        return Overview("section", part, form, n_points, text)
    rest = _CONDENSES.sub(" ", rest)
    if part is not None and is_condensed and not own_words(document, rest):
        return Overview(_asked_of(part), part, form, n_points, text)
    in_words = _NAME_IN_CODE.sub("it", text)
    kind = next((k for k, pattern in _KINDS.items() if pattern.search(in_words)), "")
    if not kind and n_points:
        kind = "about"
    if not kind or part is not None:
        return None
    allowed = (OWN_WORDS if kind not in _STRICT else 0) + (
        kind in ("data", "findings", "limits", "why", "audience")
    )
    worded = _WAYS if kind in OF_ITSELF else _WORDED.get(kind)
    own = own_words(document, worded.sub(" ", text) if worded else text)
    if kind in OF_ITSELF:
        short = [w for w in words(text.casefold()) if len(w) == 2 and not is_common(w, "en")]
        own = [word for word in (*own, *short) if not is_subject(document, word)]
        own += _SOME_OF_IT.findall(text) + _MINE.findall(text)
    if _asks_for_a_fact(document, kind, text, own):
        return None
    if (kind == "why" and _OF_A_STEP.search(text)) or (
        kind == "licence" and (_ALLOWED.search(text) or _FOR_FREE.search(text))
    ):
        allowed = 0
    if len(own) > allowed or (kind in _OF_THINGS and _names_a_thing(document, text, own)):
        return None
    if kind == "needs":  # of hardware or of software may matter
        text = take_form(whole)[0]
    return Overview(kind, reach, form, n_points, text)


def _asked_of(part: Reach) -> str:
    """The kind of a question about a part."""
    return "section" if part.kind == "section" else "page"


def _asks_for_a_fact(document: ReadDocument, kind: str, text: str, own: Sequence[str]) -> bool:
    """Whether a question asks something else than its wording says that is asked of the whole."""
    match kind:
        case "authors and date":
            return (
                _asks_of_matter(document, text)
                or _asks_of_another(document, text)
                or _names_another(document, own)
            )
        case "licence":
            return bool(_ADVISED.search(text) or _ONLY_CAN.search(text))
        case "purpose":
            return _OF_ONE.match(text) is not None
        case "limits":
            return bool(own) and _stands_with(document, own, _KINDS[kind])
        case _:
            return kind in _OF_SOME and _names_another(document, own)


def matter_summed_up(typed: str) -> str:
    """The matter that a question wants told in short: "Summarise the ropes"; "" where it does not."""
    match = _SUMS_UP.match(" ".join(typed.split()))
    return match["title"].strip(_QUOTED) if match else ""


def _summed_up(document: ReadDocument, text: str) -> Reach | None:
    """The section that is to be told in short, named by its title alone."""
    title = matter_summed_up(text)
    if not title:
        return None
    sections, own = document.outline.sections, own_words(document, title)
    is_quoted = any(mark in text for mark in '"“„«')
    row = section_titled(document.outline, title) if own or is_quoted else -1
    if row < 0 and own:
        row = _titled(document, title, WHOLE_TITLE)
    return section_reach(sections[row]) if row >= 0 else None


def _without_title(document: ReadDocument, text: str) -> str:
    """A question without the document's own name: "Wie installiere ich Wellkeep?" is of the whole."""
    title = _title_words(document)
    return " ".join(w for w in text.split() if w.strip("?¿!.,«»„“”").casefold() not in title)


def part_abroad(document: ReadDocument, text: str) -> Reach | None:
    """The part whose contents a question in another language asks for; None where it does not."""
    word, identifier = part_asked_abroad(document, text)
    if not word:
        return None
    if not identifier:
        row = _outermost(document, word)
        return section_reach(document.outline.sections[row]) if row >= 0 else None
    if word.lower() in words_for("page"):
        pages = document.labels.find(identifier)
        name = document.labels.shown(pages[0]) if pages else ""
        return Reach("pages", first_page=pages[0], last_page=pages[0], name=name) if pages else None
    outline = document.outline
    row = section_numbered(outline, word, identifier)
    if row < 0 and identifier.isdigit():
        row = section_numbered(outline, "chapter", identifier)
    if row < 0 and identifier.isdigit():
        row = _nth(document, int(identifier))
    return section_reach(outline.sections[row]) if row >= 0 else None


def _asks_of_matter(document: ReadDocument, text: str) -> bool:
    """Whether the maker is asked for of what a document only introduces to: "Introduction to X"."""
    pieces = (piece for p in document.paragraphs[:FRONT] for piece in p.pieces)
    subtitles = (piece.line.text for piece in pieces if piece.line.page == 0)
    titles = [printed_title(document), document.facts.title, *islice(subtitles, FRONT)]
    match = next(filter(None, map(_INTRODUCES.search, titles)), None)
    if match is None or _ITSELF.search(text):
        return False
    matter = {word.casefold() for word in words(match["matter"]) if not is_common(word, "en")}
    return any(word in matter for word in words(text.casefold()))


def _asks_of_another(document: ReadDocument, text: str) -> bool:
    """Whether the version of a thing is asked for that the title does not name.

    Or it is asked who made one that the title only brings in after its own: "RopeKeep for Linux".
    """
    match = _VERSION_OF.search(text)
    if match is not None and (
        _MUST_BE_HAD.search(text)
        or match["name"].casefold() not in _title_words(document) | _VOCABULARY
    ):
        return True
    other = _OTHER_WORK.search(text)
    if other is not None and other["name"].casefold() not in _title_words(document):
        return True
    asked = {word.casefold() for word in words(text)}
    own, *others = _BRINGS_IN.split(printed_title(document) or document.facts.title, 1)
    first = _coined(own)
    if not first or asked & first:
        return False
    most = max(n_passages_with(document, word) for word in first)
    return any(
        n_passages_with(document, word) < most for part in others for word in _coined(part) & asked
    )


def _coined(text: str) -> set[str]:
    """The words of a text, in small letters, that the language does not have: names."""
    return {w.casefold() for w in words(text) if len(w) > 2 and not _is_known(w.casefold())}


def _names_another(document: ReadDocument, own: Sequence[str]) -> bool:
    """Whether a name among a question's own words is one that the text has and is not about.

    What the document's thing is called after is another: "Wells" beside "RopeWells".
    """
    index = document.index
    title = _title_words(document)
    names = [name for name in title if frequency_rank(name) is None]
    longer = (len(name) - len(word) for name in names for word in own if word in name)
    if not title & set(own) and any(more >= LONGER for more in longer):
        return True
    coined = [word for word in own if not all(map(_is_known, word.split("-")))]
    return any(
        any(term in index.term_ids for term in index.analyser.terms_of(word))
        and not is_subject(document, word)
        for word in coined
    )


def _is_known(word: str) -> bool:
    """Whether the language has a word, so that it is no name; "built-in" is made of two."""
    return frequency_rank(word) is not None or is_common(word, "en")


def names_thing(document: ReadDocument, text: str) -> frozenset[str]:
    """The words of the title by which a question names the thing that a document is on.

    There are none where it asks of the document itself.
    """
    if _A_DOCUMENT.search(text):
        return frozenset()
    asked = {w for w in words(text.casefold()) if not is_common(w, "en")}
    return frozenset(asked & _title_words(document))


def _title_words(document: ReadDocument) -> frozenset[str]:
    """The words of the title, as the file and as its first page have it, and its short form."""
    title = f"{document.facts.title} {printed_title(document)}"
    return frozenset([*map(str.casefold, words(title)), *initials_in(document, title)])


def _stands_with(document: ReadDocument, own: Sequence[str], wording: re.Pattern[str]) -> bool:
    """Whether a sentence has all of a question's own words beside what is asked of them."""
    index = document.index
    rows = rows_with(document, [term for word in own for term in index.analyser.terms(word)])
    return any(wording.search(document.text.sentences[row].text) for row in rows)


def _names_a_thing(document: ReadDocument, text: str, own: Sequence[str]) -> bool:
    """Whether one of a question's own words is a thing other than the document's subject."""
    for found in _NAMED_THING.finditer(text.casefold()):
        is_whole = found[1] in _VOCABULARY  # "the text", and what follows is said of it
        named = found.groups()[: 1 if is_whole else 2]
        if any(word in named and not is_subject(document, word) for word in own):
            return True
    return False


def is_subject(document: ReadDocument, word: str) -> bool:
    """Whether so much of a document speaks of a word that it is what the document is about."""
    least = max(SUBJECT * len(document.text.passages), FEW)
    return n_passages_with(document, word) >= least


def n_passages_with(document: ReadDocument, word: str) -> int:
    """In how many passages a word stands, in any form; of one with a hyphen, all of it."""
    index = document.index
    whole, *parts = [index.term_ids.get(t, -1) for t in index.analyser.terms_of(word)] or [-1]
    rows = [whole] if whole >= 0 or not parts else parts  # "well-mode" is no subject by "well"
    return min(0 if row < 0 else int(index.document_frequency[row]) for row in rows)


def _count(match: re.Match[str]) -> int:
    said = match.groupdict().get("n") or ""
    if said.isdigit():
        return int(said)
    return int(_NUMBERS.get(said.lower(), "5"))


def own_words(document: ReadDocument, text: str) -> list[str]:
    """Words of a question beside those that any question about a whole may have."""
    title = _title_words(document)
    itself = {thing for thing in _THE_THING.findall(text.casefold()) if is_subject(document, thing)}
    return [
        w for w in words(text.casefold())
        if not is_common(w, "en") and w not in _VOCABULARY and w not in title and len(w) > 2
        and not w.isdigit() and w.removesuffix("'s").removesuffix("’s") not in title
        and w not in itself
    ]  # fmt: skip


def named_part(document: ReadDocument, text: str) -> tuple[Reach | None, str]:
    """The section or pages that a question names, and the question without them."""
    row, rest = _written_out(document, text)
    if row >= 0:
        return section_reach(document.outline.sections[row]), rest
    return _part_by_number(document, text)


def _part_by_number(document: ReadDocument, text: str) -> tuple[Reach | None, str]:
    """The same by its number, its pages or what it is called with the word for a section."""
    sections = document.outline.sections
    if match := _PART.search(text):
        word = match["word"] or match["word2"] or match["word3"]
        identifier = match["id"] or _NUMBERS.get((match["number"] or "").lower(), "")
        ordinal = (match["ordinal"] or "").lower()
        if ordinal in ("last", "final"):
            row = _last(document)
        else:
            identifier = identifier or _ORDINALS.get(ordinal, "")
            row = section_numbered(document.outline, word, identifier) if identifier else -1
            if row < 0 and identifier.isdigit():
                row = _nth(document, int(identifier))
        if row >= 0:
            return section_reach(sections[row]), text[: match.start()] + " " + text[match.end() :]
    if match := _PAGE.search(text):
        pages = document.labels.find(f"file {match['a']}" if match["file"] else match["a"])
        if pages:
            last = document.labels.find(match["b"])[:1] if match["b"] else []
            first, end = sorted((pages[0], last[0] if last else pages[0]))
            name = f"page {match['a']}" if not match["b"] else f"pages {match['a']}–{match['b']}"
            reach = Reach("pages", first_page=first, last_page=end, name=name)
            return reach, text[: match.start()] + " " + text[match.end() :]
    if match := _NAMED_PART.search(text):
        title = (match["title"] or match["named"]).strip()
        row = _outermost(document, title) if match["named"] else -1
        row = row if row >= 0 else _titled(document, title)
        if row >= 0:
            return section_reach(sections[row]), text[: match.start()] + " " + text[match.end() :]
    return None, text


def _written_out(document: ReadDocument, text: str) -> tuple[int, str]:
    """The section whose title a question has word for word, number and all, and what else it has.

    So it is copied from a page or from the contents.
    """
    asked = f" {_NO_LETTERS.sub(' ', text.casefold())} "
    found, of_found = -1, ""
    if any(map(str.isdigit, asked)):
        for row, section in enumerate(document.outline.sections):
            title = _plain_title(section.title)
            if len(title) > len(of_found) and f" {title} " in asked and _has_both(title):
                found, of_found = row, title
    return found, asked.replace(f" {of_found} ", " ", 1).strip() if of_found else text


@lru_cache(maxsize=1 << 13)
def _plain_title(title: str) -> str:
    """A title in small letters, with blanks for its signs; asked for again with each question."""
    return _NO_LETTERS.sub(" ", title.casefold()).strip()


def _has_both(title: str) -> bool:
    """Whether a title has a number and words."""
    return any(map(str.isdigit, title)) and " " in title and any(map(str.isalpha, title))


def _last(document: ReadDocument) -> int:
    """The last chapter that tells something: no list of works, index, thanks or licence."""
    outline = document.outline
    depth = int(outline.depths.count(0) == 1 < len(outline.sections))  # one under the title
    tops = [k for k, each in enumerate(outline.depths) if each == depth]
    tops = tops or [k for k, each in enumerate(outline.depths) if not each]
    telling = [
        k for k in tops
        if bare(unnumbered(outline.sections[k].title)) not in _AT_END
        and role_of_title(outline.sections[k].title) not in _NO_MATTER
    ]  # fmt: skip
    return max(telling or tops, default=-1)


def _outermost(document: ReadDocument, named: str) -> int:
    """The section whose title begins with a word, that of the whole rather than of a chapter."""
    named = named.casefold()
    found = []
    for row, section in enumerate(document.outline.sections):
        title = unnumbered(section.title).casefold()
        if f"{title} ".startswith(f"{named} "):
            found.append((section.level, title != named, row))
    return min(found)[2] if found else -1


def _nth(document: ReadDocument, n: int) -> int:
    """The n-th section of the first level, where sections carry no numbers.

    What comes before the text proper is not counted.
    """
    tops = [
        k for k, s in enumerate(document.outline.sections)
        if s.level == 0 and bare(s.title) not in _UNCOUNTED and not _LEGAL.match(s.title)
    ]  # fmt: skip
    if any(re.match(r"\d+[.\s]", document.outline.sections[k].title) for k in tops):
        return -1
    return tops[n - 1] if 0 < n <= len(tops) else -1


def _titled(document: ReadDocument, wanted: str, least: float = NEAR_TITLE) -> int:
    """The section whose title has, or comes near, some words."""
    row = section_titled(document.outline, wanted)
    if row >= 0:
        return row
    asked = [w.casefold() for w in words(wanted) if not is_common(w, "en")]
    if not asked:
        return -1
    best, best_share = -1, 0.0
    for k, section in enumerate(document.outline.sections):
        title = [w.casefold() for w in words(section.title)]
        share = sum(_nearness(document, word, title) for word in asked) / len(asked)
        share -= 0.01 * len(title) + 0.005 * section.level
        if share > best_share:
            best, best_share = k, share
    return best if best_share >= least else -1


def _nearness(document: ReadDocument, word: str, title: Sequence[str]) -> float:
    """How near a word comes to one of a title, 0 to 1: by its stem, else by its meaning."""
    stem = document.index.analyser.terms_of(word)[:1]
    if any(document.index.analyser.terms_of(other)[:1] == stem for other in title):
        return 1.0
    vectors, of = vectors_of([word, *title])
    if len(of) < 2 or of[0] != 0:
        return 0.0
    return max(0.0, float((vectors[1:] @ vectors[0]).max()) - 0.1)
