"""What a question in another language than English wants defined: "Qu'est-ce qu'un puits ?"."""

from __future__ import annotations

import re
from collections.abc import Iterable

from wide_margin.core.later import regex

_MARKS = " “”\"‘’'«»„?？;；.。!"
_TERM = r"(?P<term>[^,?？;；。]{2,60}?)"
_END = r"\s*[?？;；。.]*\s*$"
_BEFORE = (
    r"qu[’']est[- ]ce (?:que |qu[’'])(?:c[’']est (?:que |qu[’']))?"
    r"(?:l[’']|une? |les? |la |des |du |d[’'])?",
    r"(?:c[’']est quoi|que (?:signifie(?:nt)?|veut dire|sont)) (?:l[’']|une? |les? |la |des |du )?",
    r"was (?:bedeuten|versteht man unter|heißt) (?:eine[mrn]? |d(?:er|ie|as|em) )?",
    r"qué (?:es|son|significan?|quiere decir) (?:una? |el |la |los |las )?",
    r"(?:che )?cos(?:[’']è|a è|a sono|a significa(?:no)?|a vuol dire) "
    r"(?:un[’']|un[oa]? |il |l[oae] |l[’']|i |gli )?",
    r"che (?:significa|vuol dire) (?:un[’']|un[oa]? |il |l[oae] |l[’'])?",
    r"o que (?:é|são|significam?|quer dizer) (?:uma? |[oa]s? )?",
    r"wat (?:is|zijn|betekent|betekenen) (?:een |het |de )?",
    r"vad (?:är|betyder|innebär) (?:en |ett |den |det )?",
    r"hvad? (?:er|betyder|betyr) (?:en |et |ei |den |det )?",
    r"(?:mikä on|mitä ovat|mitä tarkoittaa) ",
    r"(?:co to (?:jest|są)|czym (?:jest|są)|co (?:oznacza|znaczy)) ",
    r"co (?:je|jsou|znamená|to je) (?:to )?",
    r"mi(?:t jelent)? az? (?:az? )?",
    r"ce (?:este|e|sunt|înseamnă) (?:un |o )?",
    r"què (?:és|són|significa|vol dir) (?:una? |uns |unes |els? |l[ae]s? |l[’'])?",
    r"что (?:такое|значит|означает) ", r"що (?:таке|означає) ",
    r"τι (?:είναι|σημαίνει) (?:ένα[ςν]? |μ[ιί]α |τ[οηα] |[οη] )?",
    r"(?:什么|什麼)(?:是|叫)",
)  # fmt: skip
"""What stands before the term."""
_SHORT = (
    rf"(?:wofür|für was) (?:steht|stehen) (?:die abkürzung |das kürzel |die buchstaben )?{_TERM}",
    rf"was (?:heißt|bedeutet) (?:die abkürzung|das kürzel) {_TERM}",
    rf"(?:que|qu[’']est-ce que) (?:signifie|veut dire)"
    rf" (?:le sigle|l[’']acronyme|l[’']abréviation) {_TERM}",
    rf"qué (?:significan?|quieren? decir) (?:las? siglas?|el acrónimo|la abreviatura) {_TERM}",
    rf"(?:che )?cosa (?:significa|vuol dire) (?:la sigla|l[’']acronimo|l[’']abbreviazione) {_TERM}",
    rf"(?:per (?:che )?cosa sta|(?:che )?cosa sta per) {_TERM}",
    rf"o que significa a (?:sigla|abreviatura) {_TERM}",
    rf"waar(?:voor)? staa[tn] (?:de afkorting )?{_TERM}(?: voor)?",
    rf"(?:vad|hvad?) står (?:förkortningen |forkortelsen |forkortinga )?{_TERM} f[oö]r",
    rf"co (?:oznacza skrót|znamená zkratka) {_TERM}", rf"mit jelent a[z]? {_TERM} rövidítés",
    rf"(?:что|как) (?:означает|расшифровывается) (?:аббревиатура |сокращение )?{_TERM}",
    rf"ce (?:înseamnă|reprezintă) (?:prescurtarea|abrevierea|acronimul) {_TERM}",
)  # fmt: skip
"""Asks what a short form stands for."""
_AFTER = (
    r"\s+(?:nedir|ne demek\w*)",
    r"(?:是|指的是|係)(?:什么|什麼|何)(?:意思|东西|東西)?",
    r"(?:とは|って|は)、?(?:何|なん|なに|どういう(?:意味|もの))(?:です|でしょう|だ)?か?",
    r"(?:이란|란|은|는|이|가)?\s*(?:무엇|뭐|뭔)\S*",
)  # fmt: skip
"""What stands after it."""
_ASKED = (
    *(regex(rf"^\W*{before}[“\"„«‘’']*{_TERM}{_END}") for before in _BEFORE),
    *(regex(rf"^\W*{_TERM}{after}{_END}") for after in _AFTER),
)
_ASKED_SHORT = tuple(regex(rf"^\W*{pattern}{_END}") for pattern in _SHORT)


def short_form_abroad(question: str) -> str:
    """The short form of which a question asks what it stands for; "" for none.

    Args:
        question: As typed, in any language but English.
    """
    return _first_of(_ASKED_SHORT, question)


def term_abroad(question: str) -> str:
    """The term that a question wants defined, in any language but English; "" for none.

    Args:
        question: As typed.
    """
    return short_form_abroad(question) or _first_of(_ASKED, question)


def _first_of(patterns: Iterable[re.Pattern[str]], question: str) -> str:
    """What the first pattern that fits takes for the term, as typed; "" for none."""
    small = question.strip().lower()
    for pattern in patterns:
        if match := pattern.match(small):
            start, end = match.span("term")
            return question.strip()[start:end].strip(_MARKS)
    return ""
