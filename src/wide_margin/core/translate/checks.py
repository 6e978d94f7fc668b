"""What can be told of a translation without understanding it: what must be the same is the same.

Our own rules. A fault names what is wrong; where a rule cannot tell, it says nothing.
"""

import re
import tomllib
from collections import Counter
from collections.abc import Sequence
from enum import StrEnum
from functools import cache
from typing import NamedTuple

from wide_margin.core.later import regex
from wide_margin.core.layout import fold
from wide_margin.core.lexicon import number_words, ordinal_words, thing_of
from wide_margin.core.search.analysis import common_words, guess_language
from wide_margin.core.search.vectors import frequency_rank
from wide_margin.core.shipped import text_of


class FaultKind(StrEnum):
    """What a check looks at."""

    EMPTY = "empty"
    NUMBER = "number"
    UNIT = "unit"
    DATE = "date"
    REFERENCE = "reference"
    NAME = "name"
    SIGN = "sign"
    NEGATION = "negation"
    UNTRANSLATED = "untranslated"
    LENGTH = "length"
    TERM = "term"


class Fault(NamedTuple):
    """Something that a translation lost, changed or made up."""

    kind: FaultKind
    what: str
    """A few words for the reader."""


class TermRule(NamedTuple):
    """How a term of a document is to be rendered."""

    term: str
    rendering: str
    """"" to keep it as it is."""


_NUMBER = regex(
    r"(?<![\w.])(?:\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?!\d)(?:[.,]\d+)?|\d+(?:[.,’'\u00a0\u202f]\d+)*)(?!\w*[A-Za-z]\d)"
)
_MEASURE = regex(
    r"(\d+(?:[.,]\d+)*)\s?(%|‰|°\s?[CF]|°|km/h|m/s|km|cm|mm|dm|µm|nm|m²|m³|m|kg|mg|g|t|MB|GB|kB|KB|TB|MHz|GHz|kHz|Hz|kW|MW"
    r"|W|V|A|Pa|hPa|bar|l|ml|ms|s|min|h|ft|in|lb|mph|€|\$|£|EUR|USD|GBP)(?![\w/])"
)
_SAME_UNIT = {
    "EUR": "€", "USD": "$", "GBP": "£", "KB": "kB",
    **dict.fromkeys(("metre", "metres", "meter", "meters", "metern", "mètre", "mètres", "metro", "metros"), "m"),
    **dict.fromkeys(("kilometre", "kilometres", "kilometer", "kilometers", "kilometern", "kilomètre", "kilomètres", "kilómetro", "kilómetros"), "km"),
    **dict.fromkeys(("centimetre", "centimetres", "centimeter", "centimeters", "zentimeter", "zentimetern", "centimètre", "centimètres", "centímetros"), "cm"),
    **dict.fromkeys(("millimetre", "millimetres", "millimeter", "millimeters", "millimetern", "millimètre", "millimètres", "milímetros"), "mm"),
    **dict.fromkeys(("percent", "per cent", "prozent", "pour cent", "por ciento", "procent", "per cento"), "%"),
    **dict.fromkeys(("kilogram", "kilograms", "kilogramm", "kilogramme", "kilogrammes", "kilo", "kilos", "kilogramos"), "kg"),
    **dict.fromkeys(("gram", "grams", "gramm", "gramme", "grammes", "gramos"), "g"),
    **dict.fromkeys(("hour", "hours", "stunde", "stunden", "heure", "heures", "hora", "horas", "uhr"), "h"),
    **dict.fromkeys(("minute", "minutes", "minuten", "minutos"), "min"),
    **dict.fromkeys(("second", "seconds", "sekunde", "sekunden", "seconde", "secondes", "segundos"), "s"),
    **dict.fromkeys(("litre", "litres", "liter", "liters", "litern", "litro", "litros"), "l"),
    **dict.fromkeys(("foot", "feet", "fuß", "pied", "pieds", "pies"), "ft"),
    **dict.fromkeys(("euro", "euros"), "€"), **dict.fromkeys(("dollar", "dollars", "dólares"), "$"),
    **dict.fromkeys(("degree", "degrees", "grad", "degré", "degrés", "grados"), "°"),
}  # fmt: skip
_WORD_UNIT = regex(
    r"(\d+(?:[.,]\d+)*)[\s-]?("
    + "|".join(
        sorted(map(re.escape, (k for k in _SAME_UNIT if k.islower())), key=len, reverse=True)
    )
    + r")(?!\w)",
    re.I,
)
_MONTHS = [
    set(names.split()) for names in (
        "january januar janvier enero gennaio janeiro januari jan", "february februar février febrero febbraio fevereiro februari feb",
        "march märz mars marzo março maart mar", "april avril abril aprile apr", "may mai mayo maggio maio mei",
        "june juni juin junio giugno junho jun", "july juli juillet julio luglio julho jul",
        "august août agosto augustus aug", "september septembre septiembre settembre setembro sept sep",
        "october oktober octobre octubre ottobre outubro oct okt", "november novembre noviembre novembro nov",
        "december dezember décembre diciembre dicembre dezembro dec dez",
    )
]  # fmt: skip
_DAYS = [
    set(names.split()) for names in (
        "monday montag lundi lunes lunedì segunda maandag", "tuesday dienstag mardi martes martedì terça dinsdag",
        "wednesday mittwoch mercredi miércoles mercoledì quarta woensdag", "thursday donnerstag jeudi jueves giovedì quinta donderdag",
        "friday freitag vendredi viernes venerdì sexta vrijdag", "saturday samstag sonnabend samedi sábado sabato zaterdag",
        "sunday sonntag dimanche domingo domenica zondag",
    )
]  # fmt: skip
_ONE_OR_TWO = frozenset(
    ["a", "an", "ein", "eine", "einen", "einem", "einer", "un", "une", "uno", "una", "both", "beide",
     "once", "twice", "einmal", "zweimal", "half", "hälfte", "zweite", "erste", "ersten", "zweiten"]
)  # fmt: skip
_NOT_ONLY_ORDINALS = frozenset(["andra", "secondo", "segundo", "quarto"])
"""They mean others, by what somebody says, and a room, too, and stand for no number alone."""
_AMBIGUOUS = frozenset(
    ["may", "mar", "mai", "mars", "march", "mei", "sept", "sep", "set", "jan", "dec", "dez"]
)
"""Months that are other words too; they count beside a number."""
_BESIDE_NUMBER = regex(
    r"\d{1,2}\.?\s+(?:"
    + "|".join(sorted(_AMBIGUOUS))
    + r")\b|\b(?:"
    + "|".join(sorted(_AMBIGUOUS))
    + r")\s+\d",
    re.I,
)
_LABELLED = regex(r"(?<!\w)([^\W\d_]{1,14}\.?)\s+(\d+(?:\.\d+)*)(?![\w.]*\d)")
_SIGN = regex(
    r"https?://\S+[\w/]|[\w.+-]+@[\w-]+\.[\w.]+|--[\w-]+|(?<![\w-])-[A-Za-z](?!\w)|\$\{?\w+\}?|%[sd]|\{\w+\}"
    r"|\w+\(\)|\w*[a-z]_\w+|\w+::\w+|(?<![\w.])/?(?:[\w.-]+/)+[\w.-]+|\b[a-z]+[A-Z]\w+|\[\d+\]|`[^`]+`"
)
_CAPITAL = regex(r"(?<![\w.!?:“\"„«(-])(?<!^)(?:[A-ZÀ-ÖØ-Þ][\w’'-]+)")
_WORD = regex(r"[^\W\d_]+(?:['’-][^\W\d_]+)*")
_LATIN = (
    "en",
    "de",
    "fr",
    "es",
    "it",
    "pt",
    "nl",
    "pl",
    "cs",
    "sv",
    "da",
    "fi",
    "tr",
    "no",
    "hu",
    "ro",
)
RATIO = {"de": 1.12, "fr": 1.15, "es": 1.12, "it": 1.1, "pt": 1.1, "nl": 1.08, "ru": 1.08, "uk": 1.05,
         "zh": 0.36, "ja": 0.5, "ko": 0.55, "ar": 0.9, "fi": 1.05, "pl": 1.08}  # fmt: skip
"""Length of a text in characters, over that of the same in English."""
SHORTEST, LONGEST = 0.55, 1.8
"""A translation outside of these, times what is usual, lost or added something."""
FEW_CHARACTERS = 40
RUN = 5
"""So many words of the source in a row were left as they are."""
NEAR = 3
"""First letters by which a name is known again in another spelling."""
RARE = 12_000
"""A capitalised word that frequent in the language may be one that is translated."""


def faults_of(
    source: str,
    target: str,
    language: str,
    *,
    from_language: str = "",
    rules: Sequence[TermRule] = (),
) -> tuple[Fault, ...]:
    """What a translation lost, changed, or left as it was.

    Args:
        source: One sentence.
        target: Its translation.
        language: Code of the language it is to be in.
        from_language: Code of the source's; found out where it is empty.
        rules: How terms are to be rendered.
    """
    if not target.strip():
        return (Fault(FaultKind.EMPTY, "nothing was translated"),) if source.strip() else ()
    origin = from_language or guess_language(source)
    found = [
        *_numbers(source, target, origin, language), *_units(source, target),
        *_dates(source, target), *_references(source, target), *_names(source, target, origin, language),
        *_signs(source, target), *_negations(source, target, origin, language),
        *_untranslated(source, target, origin, language), *_length(source, target, origin, language),
        *_terms(source, target, rules),
    ]  # fmt: skip
    return tuple(dict.fromkeys(found))


def _plain_number(text: str) -> str:
    """Digits alone, decimals told from thousands where that can be: "1,250.5" is "1250.5"."""
    text = re.sub(r"[’'\u00a0\u202f ]", "", text)
    separators = re.findall(r"[.,]", text)
    if not separators:
        return text.lstrip("0") or "0"
    last = max(text.rfind("."), text.rfind(","))
    grouped = len(text) - last - 1 == 3 and (len(set(separators)) == 1)
    if grouped and text[:last].count(text[last]) == len(separators) - 1:
        return re.sub(r"[.,]", "", text)  # "1,250" may be either; both sides are read alike
    whole, part = re.sub(r"[.,]", "", text[:last]), text[last + 1 :]
    return f"{whole.lstrip('0') or '0'}.{part}" if len(set(separators)) <= 2 else text


def _numbers(source: str, target: str, origin: str, language: str) -> list[Fault]:
    def counted(text: str) -> Counter[str]:
        return Counter(_plain_number(n) for n in _NUMBER.findall(text))

    have, got = counted(source), counted(target)
    lost = have - got
    added = got - have
    faults = [
        Fault(FaultKind.NUMBER, f"{n} is missing")
        for n in lost
        if not _said_in_words(n, target, language)
    ]
    faults += [
        Fault(FaultKind.NUMBER, f"{n} is not in the source")
        for n in added if not _said_in_words(n, source, origin) and not _is_month(n, source)
    ]  # fmt: skip
    return faults


def _said_in_words(number: str, text: str, language: str) -> bool:
    if not number.isdecimal() or int(number) > 20:
        return False
    words = {w.lower() for w in _WORD.findall(text)}
    said = number_words(language) | ordinal_words(language)
    words -= _NOT_ONLY_ORDINALS
    return int(number) in {said.get(word) for word in words} or (
        int(number) in (1, 2) and bool(words & _ONE_OR_TWO)
    )


def _is_month(number: str, text: str) -> bool:
    words = {w.lower() for w in _WORD.findall(text)}
    return number.isdecimal() and 1 <= int(number) <= 12 and bool(_MONTHS[int(number) - 1] & words)


def _units(source: str, target: str) -> list[Fault]:
    def measured(text: str) -> dict[str, set[str]]:
        found: dict[str, set[str]] = {}
        for pattern in (_MEASURE, _WORD_UNIT):
            for number, unit in pattern.findall(text):
                plain = unit.replace(" ", "")
                found.setdefault(_plain_number(number), set()).add(
                    _SAME_UNIT.get(plain, _SAME_UNIT.get(plain.lower(), plain))
                )
        return found

    have, got = measured(source), measured(target)
    faults = []
    for number, units in have.items():
        other = got.get(number, set())
        if other and not units & other:
            faults.append(
                Fault(FaultKind.UNIT, f"{number} {min(units)} became {number} {min(other)}")
            )
        bare = not other and number in {_plain_number(n) for n in _NUMBER.findall(target)}
        if bare and any(not u.isalpha() or len(u) > 1 for u in units):
            faults.append(Fault(FaultKind.UNIT, f"the unit of {number} {min(units)} is missing"))
    return faults


def _dates(source: str, target: str) -> list[Fault]:
    return _named(source, target, _MONTHS, "month") + _named(source, target, _DAYS, "day")


def _named(source: str, target: str, names: Sequence[set[str]], what: str) -> list[Fault]:
    """Months or days that one side names and the other names otherwise."""

    def told(text: str) -> set[int]:
        words = [word for word in _WORD.findall(text) if word.lower() not in _AMBIGUOUS]
        words += [found[0].strip(" .0123456789") for found in _BESIDE_NUMBER.finditer(text)]
        return {k for k, group in enumerate(names) for word in words if word.lower() in group}

    have, got = told(source), told(target)
    return [Fault(FaultKind.DATE, f"another {what}")] if have and got and have != got else []


def _references(source: str, target: str) -> list[Fault]:
    def labelled(text: str) -> dict[str, set[str]]:
        found: dict[str, set[str]] = {}
        for word, number in _LABELLED.findall(text):
            if thing := thing_of(word):
                found.setdefault(number, set()).add(thing)
        return found

    have, got = labelled(source), labelled(target)
    return [
        Fault(FaultKind.REFERENCE, f"{min(things)} {number} became {min(got[number])} {number}")
        for number, things in have.items() if number in got and not things & got[number]
    ]  # fmt: skip


def _names(source: str, target: str, origin: str, language: str) -> list[Fault]:
    if origin == "de" or origin not in _LATIN or language not in _LATIN:
        return []  # German writes every noun with a capital; other scripts spell names anew
    have = fold(target)
    lost = []
    for name in dict.fromkeys(_CAPITAL.findall(source)):
        plain = fold(name.removesuffix("’s").removesuffix("'s"))
        rank = frequency_rank(plain)
        if len(plain) < 3 or (rank is not None and rank < RARE) or _is_calendar(plain):
            continue
        if plain not in have and plain[: max(NEAR, len(plain) - 3)] not in have:
            lost.append(Fault(FaultKind.NAME, f"“{name}” is missing"))
    return lost


def _is_calendar(word: str) -> bool:
    return any(word in group for group in (*_MONTHS, *_DAYS))


def _signs(source: str, target: str) -> list[Fault]:
    have = Counter(_SIGN.findall(source))
    squeezed = "".join(target.split())
    return [
        Fault(FaultKind.SIGN, f"“{sign}” is missing") for sign in have
        if "".join(sign.strip("`").split()) not in squeezed
    ]  # fmt: skip


_SOFT = frozenset(
    [
        "n",
        "plus",
        "personne",
        "un",
        "hardly",
        "kaum",
        "noch",
        "ni",
        "né",
        "nem",
        "ne",
        "sans",
        "sin",
        "ohne",
        "zonder",
        "without",
    ]
)
"""Words that deny by the side, or not always; a translation may do it otherwise."""


@cache
def _denials() -> dict[str, frozenset[str]]:
    return {k: frozenset(v.split()) for k, v in tomllib.loads(text_of("negations.toml")).items()}


def _negations(source: str, target: str, origin: str, language: str) -> list[Fault]:
    known = _denials()
    if origin not in known or language not in known:
        return []

    def denies(text: str, code: str) -> bool:
        words = {
            w for found in _WORD.findall(text.lower()) for w in (found, *re.split("['’-]", found))
        }
        if code == "fr" and words & {"plus", "personne"} and not words & {"ne", "n"}:
            words -= {"plus", "personne"}
        if code == "en":
            words |= (
                {"not"}
                if re.search(r"n['’]t\b|\bnon-|\bun\w{4,}|\bin\w{4,}able|\w+less\b", text.lower())
                else set()
            )
        if code == "de" and re.search(r"\bun\w{4,}|\w+los(?:e[nrsm]?)?\b", text.lower()):
            words.add("nicht")
        if code in ("fr", "es", "it", "pt") and re.search(
            r"\b(?:in|im|dés|des)\w{4,}", text.lower()
        ):
            words.add(min(known[code]))
        return bool(words & known[code])

    strict = set(_WORD.findall(source.lower())) & (known[origin] - _SOFT)
    strict |= (
        set(re.findall(r"n['’]t\b|\bn['’]", source.lower())) if origin in ("en", "fr") else set()
    )
    if strict and not denies(target, language):
        return [Fault(FaultKind.NEGATION, "the source denies, the translation does not")]
    plain = not denies(source, origin)
    if (
        plain
        and re.search(
            r"\b(?:not|nicht|kein\w*|pas|nunca|non|não|niet|geen|never|niemals|jamais)\b",
            target.lower(),
        )
        and denies(target, language)
    ):
        return [Fault(FaultKind.NEGATION, "the translation denies, the source does not")]
    return []


def _untranslated(source: str, target: str, origin: str, language: str) -> list[Fault]:
    if origin == language:
        return []
    words = [w.lower() for w in _WORD.findall(source)]
    into = [w.lower() for w in _WORD.findall(target)]
    if len(words) < 3:
        return []
    if words == into and any(w in common_words(origin) for w in words):
        return [Fault(FaultKind.UNTRANSLATED, "left as it was")]
    run = _longest_run(words, into)
    if len(run) >= RUN and sum(w in common_words(origin) for w in run) >= 2:
        return [Fault(FaultKind.UNTRANSLATED, f"“{' '.join(run[:8])}” was left as it was")]
    own, others = common_words(language), common_words(origin)
    if own and others and len(into) >= 5:
        foreign = sum(w in others and w not in own for w in into)
        native = sum(w in own and w not in others for w in into)
        if foreign >= 3 and foreign > native:
            return [Fault(FaultKind.UNTRANSLATED, "not in the language asked for")]
    return []


def _longest_run(a: Sequence[str], b: Sequence[str]) -> list[str]:
    """The longest run of words that both have."""
    best, end = 0, 0
    before = [0] * (len(b) + 1)
    for i, word in enumerate(a):
        row = [0] * (len(b) + 1)
        for j, other in enumerate(b):
            if word == other:
                row[j + 1] = before[j] + 1
                if row[j + 1] > best:
                    best, end = row[j + 1], i + 1
        before = row
    return list(a[end - best : end])


def _length(source: str, target: str, origin: str, language: str) -> list[Fault]:
    usual = RATIO.get(language, 1.0) / RATIO.get(origin, 1.0)
    ratio = len(target) / max(len(source), 1) / usual
    few = len(source) < FEW_CHARACTERS
    low, high = (SHORTEST * 0.5, LONGEST * 1.8) if few else (SHORTEST, LONGEST)
    if ratio < low:
        return [Fault(FaultKind.LENGTH, "much shorter: something may be left out")]
    if ratio > high:
        return [Fault(FaultKind.LENGTH, "much longer: something may be added")]
    return []


def _terms(source: str, target: str, rules: Sequence[TermRule]) -> list[Fault]:
    folded, into = fold(source), fold(target)
    faults = []
    for rule in rules:
        if not re.search(rf"(?<!\w){re.escape(fold(rule.term))}(?!\w)", folded):
            continue
        wanted = rule.rendering or rule.term
        if fold(wanted) not in into:
            faults.append(Fault(FaultKind.TERM, f"“{rule.term}” is to be “{wanted}”"))
    return faults
