"""Sentences that define their subject, in other languages than English: "Ein Brunnen ist ein …".

Each language has its own words for "is a" and "means"; some put none between a thing and what it
is, and are told by the words around.
"""

from __future__ import annotations

from typing import NamedTuple

from wide_margin.core.later import regex
from wide_margin.core.search import is_common

LEAST = 4
"""Words, or pairs of signs, that say what a thing is."""
MEANS, OF_KIND, IS = 0.85, 0.68, 0.6
"""How surely a sentence defines its subject: where it says that it means something, is one of a
kind, or is something."""
_NAME = r"[^\W_][\w’'+/.-]*(?:\s+[\w’'+/.-]+){0,4}?"
_TERM = rf"[“\"„«‘]?\s?(?P<term>{_NAME})\s?[”\"“»’]?"
_BRACKET = r"(?:\s*\([^)]{1,90}\))?,?\s+"


class _Forms(NamedTuple):
    """How a language says it: articles, "means", "is a", "is the"; patterns."""

    articles: str
    means: str
    of_kind: str
    is_one: str


_FORMS = {
    "de": _Forms(
        r"ein|eine|der|die|das", r"bedeutet|bezeichnet|heißt",
        r"(?:ist|sind)\s+(?:(?:auch|also|hier|dabei)\s+)?(?:eine?n?|jede[rs]?)",
        r"(?:ist|sind)\s+(?:der|die|das)",
    ),
    "fr": _Forms(
        r"une?|les?|la|l[’']", r"désigne|signifie",
        r"(?:est|sont)\s+(?:(?:aussi|donc|ainsi|souvent)\s+)?(?:une?|des|tout)",
        r"(?:est|sont)\s+(?:les?|la|l[’'])",
    ),
    "es": _Forms(
        r"una?|el|la|los|las", r"significa|se refiere a|consiste en",
        r"(?:es|son)\s+(?:(?:también|decir)\s+)?(?:una?s?|unos)",
        r"(?:es|son)\s+(?:el|la|los|las|lo)",
    ),
    "it": _Forms(
        r"un|uno|una|il|lo|la|i|gli|le|l[’']|un[’']", r"significa|indica|consiste in",
        r"(?:è|sono)\s+(?:anche\s+)?(?:un[oa]?|dei|delle|degli)\b[’']?",
        r"(?:è|sono)\s+(?:il|lo|la|i|gli|le|l[’'])",
    ),
    "pt": _Forms(
        r"uma?|os?|as?", r"significa|refere-se|consiste",
        r"(?:é|são)\s+(?:também\s+)?(?:uma?s?|uns)", r"(?:é|são)\s+(?:os?|as?)",
    ),
    "nl": _Forms(
        r"een|het|de", r"betekent|staat voor|verwijst naar",
        r"(?:is|zijn)\s+(?:ook\s+)?een", r"(?:is|zijn)\s+(?:het|de)",
    ),
    "sv": _Forms(
        r"en|ett", r"betyder|innebär", r"är\s+(?:också\s+)?(?:en|ett)", r"är\s+(?:den|det|de)"
    ),
    "da": _Forms(r"en|et", r"betyder", r"er\s+(?:også\s+)?(?:en|et)", r"er\s+(?:den|det|de)"),
    "no": _Forms(r"en|et|ei", r"betyr", r"er\s+(?:også\s+)?(?:en|et|ei)", r"er\s+(?:den|det|de)"),
    "fi": _Forms("", r"tarkoittaa", r"on\s+(?:eräs|yksi)", r"on"),
    # What a thing is stands in a case of its own in Polish; "jest dostępny" says how it is.
    "pl": _Forms("", r"oznacza|to", r"jest\s+to", r"(?:jest|są)(?=\s+\w+(?:em|ym|im|ą|mi)\b)"),
    "cs": _Forms(
        "", r"znamená|označuje", r"je\s+to",
        r"(?:je|jsou)(?!\s+\w+[nt][ýáéío]\s+(?:na|ve?|pro|ke?|se?|od|do|ze?|i|pod|jako)\b)",
    ),
    "hu": _Forms(r"az?|egy", r"azt jelenti|jelentése", r"(?:egy|olyan)", r"az a"),
    "ro": _Forms(
        r"un|o", r"înseamnă|reprezintă", r"(?:este|sunt)\s+(?:un|o|niște)", r"(?:este|sunt)"
    ),
    "ca": _Forms(
        r"una?|uns|unes|els?|l[ae]s?|l", r"significa|vol dir|consisteix",
        r"(?:és|són)\s+(?:també\s+)?(?:una?|uns|unes)", r"(?:és|són)\s+(?:els?|l[ae]s?|l)",
    ),
    "uk": _Forms("", r"[—–-]\s+це|означає|[—–-]", r"є", r"це"),
    "ru": _Forms("", r"[—–-]\s+это|означает|[—–-]", r"является", r"это"),
    "el": _Forms(
        r"ένα[ςν]?|μ[ιί]α|το|η|ο", r"σημαίνει", r"είναι\s+(?:ένα[ςν]?|μ[ιί]α)",
        r"είναι\s+(?:το|η|ο)",
    ),
}  # fmt: skip
_PATTERNS = {
    language: tuple(
        (weight, regex(
            rf"^(?:(?:{forms.articles})(?:\s+|(?<=[’'])))?{_TERM}{_BRACKET}(?:{said})(?:\s|(?<=[’']))"
            if forms.articles else rf"^{_TERM}{_BRACKET}(?:{said})\s"
        ))
        for weight, said in (
            (MEANS, forms.means), (OF_KIND, forms.of_kind), (IS, forms.is_one)
        )
    )
    for language, forms in _FORMS.items()
}  # fmt: skip
_SIGNS = r"^(?P<term>[^，。：；、]{2,24}?)(?:（[^）]*）)?"
_NO_PREDICATE = (
    "(?<!はず)(?<!つもり)(?<!から)(?<!ため)(?<!よう)(?<!そう)"
    "(?<!わけ)(?<!べき)(?<!ほど)(?<![いたるうくすなのん])"
)
"""What stands before "です" without being what the thing is: it is likely, because, high."""
_SORTS_JA = (
    "(?:団体|組織|ソフトウェア|プログラム|システム|ライブラリ|言語|ツール|パッケージ"
    "|ディストリビューション|プロジェクト|形式|規格|装置|機械|方法)"
)
"""What a thing may be, where the sentence goes on."""
_KANA = r"^(?P<term>[^、。：は]{2,24}?)(?:（[^）]*）)?"
_OTHER_FORMS = {
    "zh": (
        (MEANS, regex(rf"{_SIGNS}(?:是指|指的是|即指|的意思是)")),
        (OF_KIND, regex(rf"{_SIGNS}，?是(?:一|用|由|个|個|指|基于)")),
    ),
    "ja": (
        (MEANS, regex(rf"{_KANA}とは")),
        (IS, regex(
            rf"{_KANA}は、?.*(?:{_NO_PREDICATE}です|である|ものです|ソフトウェア|システム)[．。]?$")),
        (IS, regex(rf"{_KANA}は、?[^。]{{2,80}}?(?:であり|{_SORTS_JA}で)、")),
    ),
    "ko": (
        (MEANS, regex(r"^(?P<term>\S{1,16}?)(?:이란|란)\s")),
        (IS, regex(r"^(?P<term>\S{1,16}?)[은는]\s.*(?:이다|입니다|것이다|것입니다)[.。]?$")),
    ),
    "tr": (
        (OF_KIND, regex(r"^(?P<term>[^\s,]+(?:\s[^\s,]+)??),?\s.*\bbir\b.*[dt][ıiuü]r\.?$")),
    ),
}  # fmt: skip
_GIVEN = (
    r"\s+(?:un[’']|une?\s|un[oa]?\s|eine?n?\s|el\s|la\s|il\s|le\s|l[’']|les\s|een\s|de\s|het\s|als\s)?"
    r"[“\"„«‘]?\s?(?P<term>[^\W\d_][\w’'-]*(?:\s+[^\W\d_][\w’'-]*){0,2}?)\s?[”\"“»’]?"
)
_CLOSED = r"(?=\s*(?:[.,;:()]|$))"
_GIVES_NAME = {
    "de": r"heißt|heißen|nennt man|nennen wir|nennt sich",
    "fr": r"s[’']appelle(?:nt)?|(?:est|sont) (?:appelé|nommé|dit)e?s?|porte(?:nt)? le nom de",
    "es": r"se (?:llaman?|denominan?|conocen? como)|(?:es|son) llamad[oa]s?|reciben? el nombre de",
    "it": r"si chiama(?:no)?|(?:è|sono) (?:chiamat|dett)[oaei]|prend(?:e|ono) il nome di",
    "pt": r"(?:chama|denomina)m?-se|(?:é|são) chamad[oa]s?|recebem? o nome de",
    "nl": r"heet|heten|noemen we|noemt men",
}
_NAMED_BETWEEN = {
    "de": ((r"wird|werden", r"genannt|bezeichnet"),), "nl": ((r"wordt|worden", r"genoemd"),),
}  # fmt: skip
_NAMES_IT = {
    language: (
        regex(rf"\b(?:{gives}){_GIVEN}{_CLOSED}"),
        *(
            regex(rf"\b(?:{first}){_GIVEN}\s+(?:{last})\b")
            for first, last in _NAMED_BETWEEN.get(language, ())
        ),
    )
    for language, gives in _GIVES_NAME.items()
}  # fmt: skip
"""Gives a thing its name after what it is: "Cet art s'appelle la gravure."."""
NAMED = 0.72
"""How surely it does."""
LANGUAGES = frozenset({*_PATTERNS, *_OTHER_FORMS})


def subject_abroad(text: str, language: str) -> tuple[str, float] | None:
    """The subject that a sentence defines, and how surely; None where it defines none.

    Args:
        text: A sentence.
        language: Of the document, as its code.
    """
    small = text[:1].lower() + text[1:]
    for weight, pattern in _PATTERNS.get(language, ()):
        match = pattern.match(small)
        if match is None:
            continue
        start, end = match.span("term")
        term = text[start:end]
        if len(text[match.end() :].split()) >= LEAST and _is_term(term, language):
            return term, weight
    for weight, pattern in _OTHER_FORMS.get(language, ()):
        match = pattern.match(text)
        if match is not None and len(text) - match.end("term") > 2 * LEAST:
            return match["term"].strip(), weight
    for gives in _NAMES_IT.get(language, ()):
        named = gives.search(text)
        is_after = named is not None and len(text[: named.start()].split()) >= LEAST
        if named is not None and is_after and _is_term(named["term"], language):
            return named["term"], NAMED
    return None


def _is_term(term: str, language: str) -> bool:
    """Whether some words can be the name of a thing: none of the small words at its ends."""
    parts = term.lower().split()
    if len(term) < 2 or not parts or not parts[0][0].isalpha():
        return False
    return not any(is_common(part, language) for part in parts)
