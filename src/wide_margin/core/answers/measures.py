"""What a "how long …" question wants measured: a time, a length, a weight, and its units."""

import re

from wide_margin.core.answers.signs import NUMBER_WORD
from wide_margin.core.later import regex

_FIGURE = r"(?<![\w.])[±≤≥<>~≈]?\d(?:[\d.,]*\d)?(?:\s*(?:to|[-–]|or)\s*[\d.]+)?"
_SOME = rf"\b(?:{NUMBER_WORD}|a few|few|several|an?|half an?|one)"
_PERIODS = r"(?:(?:milli|micro|nano)?second|minute|hour|day|night|week|fortnight|month|quarter|year|decade|generation)s?|centur(?:y|ies)"
_CLOCK = r"[mnµ]?s|secs?|mins?|h|hrs?|yrs?"
_LENGTHS = r"(?:(?:kilo|centi|milli|micro|nano)?met(?:re|er)|yard|mile|point|pixel|light[- ]year|parsec|fathom)s?|inch(?:es)?|f(?:oo|ee)t"
_METRES = r"[kcmµn]?m|in|ft|pt|px|AU"
_TEXTS = r"(?:character|letter|digit|word|line|column|page|sentence|paragraph|byte|bit|chapter|block|sample|base|residue|nucleotide)s?|entries"
_MASSES, _GRAMS = r"(?:(?:kilo|milli)?gram|ton|tonne|pound|ounce|stone)s?", r"[kmµ]?g|lbs?|oz|t"
_SPEEDS = r"times|(?:[\w-]+\s+){1,3}(?:per|an?|each|every|/)\s*(?:second|minute|hour|day)"
_HASTE = r"km/h|mph|m/s|knots?|[kMG]?Hz|fps|[kKMGT]?i?[bB](?:it|yte)?s?/s"
_LASTING = r"for ?ever|indefinitely|overnight|immediately|instantly|at once|permanently|lifetime|all (?:day|night|year)"
_LASTS = regex(
    r"\bhow (?:long ago|soon|late|early)\b|\bhow long\b.*\b(?:take|takes|took|taken|last(?:s|ed|ing)?|wait(?:ed|ing)?"
    r"|stay(?:s|ed)?|remain(?:s|ed)?|ke(?:ep|pt)|run(?:s|ning)?|ran|valid|until|till|before|after|lived?|sleep|going)\b", re.I
)  # fmt: skip
"""Asks for a time: "How long does it take?"."""


def _measured(units: str, symbols: str, besides: str = "") -> re.Pattern[str]:
    """Figures of units, which may stand a word or two behind them, and of symbols for units."""
    more = f"|\\b(?:{besides})\\b" if besides else ""
    return regex(
        rf"(?:{_FIGURE}[\s-]*(?:(?:[a-z]+[\s-]+){{0,2}}?(?:{units})|(?:{symbols}))|{_SOME}[\s-]+(?:{units}))(?!\w){more}",
        re.I,
    )


_TIME = _measured(_PERIODS, _CLOCK, _LASTING)
_MEASURES = (
    (r"long", _measured(f"{_PERIODS}|{_LENGTHS}|{_TEXTS}", f"{_CLOCK}|{_METRES}", _LASTING)),
    (r"far", _measured(f"{_LENGTHS}|{_TEXTS}|(?:space|step|level|row|position|place)s?", _METRES)),
    (r"tall|thick", _measured(_LENGTHS, _METRES)),
    (r"old", _measured(_PERIODS, _CLOCK, r"(?:1[5-9]|20)\d\d")),
    (r"heavy", _measured(_MASSES, _GRAMS)),
    (r"hot|cold|warm", _measured(r"degrees?|kelvin", r"°\s?[CF]?|[KCF]")),
    (r"fast|quick|slow", _measured(
        f"{_SPEEDS}|{_PERIODS}", f"{_HASTE}|{_CLOCK}", r"(?:faster|slower) than|as fast as|at \w+ speed")),
    (r"precise|accurate|exact", _measured(
        rf"per\s?cent|arc[- ]?\w+|(?:decimal )?digits?|decimals?|degrees?|{_PERIODS}|{_LENGTHS}", rf"%|ppm|°|{_CLOCK}|{_METRES}",
        r"(?:accuracy|precision|error) (?:of|is|was|are)|(?:as|more|less) (?:accurate|precise|exact)"
        r"|(?:accurate|precise|exact) to")),
)  # fmt: skip
_PART_OF = r"(?:half|halves|(?:one|two|three|a)[ -](?:third|quarter|fourth|fifth|tenth)s?|majority|minority|most of|none of)"
_A_VERSION = r"(?<![\d_.])v?\d+\.\d+|\b(?:version|release)s?\s+v?\d|\b\d+ (?:or|and) (?:later|newer|above|higher)\b"
_NUMBERED = regex(_A_VERSION, re.I)
_VERSIONS_OF = regex(
    r"\b(?i:which|what)\s+(?:(?P<name>[A-Z][\w.+-]*)\s+versions?|versions?\s+of\s+(?:the\s+)?(?P<of>[A-Z][\w.+-]*))\b"
)
"""Versions of something with a name, which are told behind it: "Windows 98 and 2000"."""
_WHICH = (
    (r"percentage|share|proportion|fraction", _measured(r"per\s?cent", "%", _PART_OF)),
    (r"temperatures?", _measured(r"degrees?|kelvin", r"°\s?[CF]?|[KCF]")),
    (r"(?:[\w.+-]+\s+)?versions?", _NUMBERED),
)
_HOW = (
    *((regex(rf"\bhow (?:{which})\b", re.I), form) for which, form in _MEASURES),
    *((regex(rf"\b(?:what|which)\s+(?:{which})\b", re.I), form) for which, form in _WHICH),
)


def measure_asked(question: str) -> re.Pattern[str] | None:
    """What the measure looks like that a question asks for; None where it asks for none."""
    if _LASTS.search(question):
        return _TIME
    if named := _VERSIONS_OF.search(question):
        name = re.escape(named["name"] or named["of"])
        return re.compile(rf"{_A_VERSION}|\b{name}\s+(?:version\s+)?v?\d", re.I)
    return next((form for asks, form in _HOW if asks.search(question)), None)
