"""Signs that a sentence gives the kind of answer that is wanted."""

import re

_MONTH = (
    r"(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?"
    r"|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)"
)
_NUMBER_WORD = (
    r"(?:two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen"
    r"|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety"
    r"|hundred|thousand|million|once|twice|half|dozen)"
)
NUMBER = re.compile(
    rf"(?<![\w.])[±≤≥<>~]?\d[\d,.  ]*(?:\s?(?:%|°\s?C?|[a-zA-Zµ]{{1,12}}\b))?|\b{_NUMBER_WORD}\b",
    re.I,
)
QUANTITY = re.compile(r"(?<![\w.])\d[\d.,]*\s?(?:%|°|[a-zA-Zµ]{1,12}\b)")
DATE = re.compile(
    rf"\b(?:\d{{1,2}}\s+)?{_MONTH}\.?\s+\d{{1,4}}(?:,?\s+\d{{4}})?\b|\b(?:1[5-9]|20)\d\d\b"
    rf"|\b(?:within|after|before|by|every|until|since|during)\s+(?:the\s+)?(?:\d+|{_NUMBER_WORD}|first|last|next)\s+\w+",
    re.I,
)
NAME = re.compile(
    r"(?<![.!?]\s)(?<!^)\b[A-Z][\w’'-]+(?:\s+(?:of|the|de|van|von|and)?\s*[A-Z][\w’'.-]+)*"
)
ROLE = re.compile(
    r"\b(?:keeper|observer|officer|warden|editor|maintainer|author|manager|director|secretary|clerk|chair\w*"
    r"|president|committee|board|council|minister|administrator|developer|team|user|inspector|agent|engineer"
    r"|employer|employee|member|professor|inventor|founder)s?\b", re.I
)  # fmt: skip
FREQUENCY = re.compile(
    r"\b(?:every|each|once|twice|daily|weekly|monthly|yearly|hourly|annually|quarterly|per|always|never|seldom)\b"
    r"|\btimes (?:an?|each|per)\b", re.I
)  # fmt: skip
REASON = re.compile(
    r"\b(?:because|since|so that|in order|therefore|thus|hence|due to|reason|avoid|prevent|otherwise"
    r"|as a result|owing to|leads? to|cause[sd]?|weil|damit|parce que|afin|porque)\b", re.I
)  # fmt: skip
STEP = re.compile(
    r"\b(?:to \w+|you (?:can|may|must|should|need)|must|should|use|set|call|type|run|press|enter|open"
    r"|choose|first|then|by \w+ing)\b", re.I
)  # fmt: skip
DEFINES = r"(?:\s*\([^)]*\))?,?\s+(?:is|are|was|means?|refers? to|denotes?|stands? for|consists? of|describes?|occurs?|indicates?)\b"


_COUNTED = re.compile(r"\bhow (?:many|much)\s+(?:more\s+|different\s+)?(\w+)", re.I)


def counted_thing(question: str) -> str:
    """What a "how many …" question counts, "" where it does not say."""
    match = _COUNTED.search(question)
    return match[1].lower() if match else ""


def counts_it(sentence: str, thing: str) -> bool:
    """Whether a number stands in front of the thing, as in "eleven people"."""
    stem = re.escape(thing[: max(4, len(thing) - 2)])
    number = r"(?:\d[\d.,]*|" + _NUMBER_WORD + r"(?:-\w+)?)"
    return bool(re.search(rf"\b{number}\s+(?:[\w-]+\s+){{0,2}}{stem}", sentence, re.I))


def sign_of(kind: str, sentence: str, topic: tuple[str, ...]) -> float:
    """How far a sentence has the form of the wanted answer, 0 to 1.

    Args:
        kind: From read_question.
        sentence: A candidate.
        topic: The question's content words; for "what is" the thing defined is among them.
    """
    if kind == "how many":
        if QUANTITY.search(sentence):
            return 1.0
        return 0.5 if NUMBER.search(sentence) else 0.0
    if kind == "how often":
        return 1.0 if FREQUENCY.search(sentence) else 0.0
    if kind == "when":
        return 1.0 if DATE.search(sentence) else 0.0
    if kind == "who":
        return 1.0 if ROLE.search(sentence) else (0.7 if NAME.search(sentence) else 0.0)
    if kind == "why":
        return 1.0 if REASON.search(sentence) else 0.0
    if kind == "how to":
        return 0.6 if STEP.search(sentence) else 0.0
    if kind == "what is":
        return _defines(sentence, topic)
    return 0.0


def _defines(sentence: str, topic: tuple[str, ...]) -> float:
    for word in topic:
        stem = re.escape(word[: max(4, len(word) - 2)])
        if re.search(
            rf"^(?:an?|the|by|“|\")?\s*[\w“”\"‘’'-]*\s*{stem}\w*[”\"’]?{DEFINES}", sentence, re.I
        ):
            return 1.0
        if re.search(rf"\b{stem}\w*[”\"’]?{DEFINES}", sentence, re.I):
            return 0.7
        if re.search(
            rf"\b(?:called|known as|termed|defined as|means?)\b.*\b{stem}", sentence, re.I
        ):
            return 0.6
        if re.search(rf"^{stem}\w*\s*[:—–-]\s", sentence, re.I):
            return 0.9
    return 0.0


def emphasis_for(kind: str, sentence: str) -> tuple[tuple[int, int], ...]:
    """Ranges of a sentence that answer most directly."""
    pattern = {"how many": NUMBER, "when": DATE, "who": NAME}.get(kind)
    if pattern is None:
        return ()
    found = [m.span() for m in pattern.finditer(sentence)]
    figures = [(a, b) for a, b in found if any(c.isdigit() for c in sentence[a:b])]
    if kind == "how many" and figures:
        found = figures  # "4 mm" answers; the "two" of "the two heights" does not
    return tuple(_trimmed(sentence, a, b) for a, b in found if b > a)[:3]


def _trimmed(text: str, start: int, end: int) -> tuple[int, int]:
    while end > start and text[end - 1] in " ,.":
        end -= 1
    return start, end
