"""What a part of a document says, asked in another language than English: "Was steht in Kapitel 3?"."""

from __future__ import annotations

import re
from itertools import chain
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives, bare, number_words, ordinal_words
from wide_margin.core.outline.numbering import chinese_number
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import guess_language, words

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument


_SAYS = regex(
    r"(?:steht|stehen|sagt|gesagt|geschrieben|berichtet|erklärt|gezegd|geschreven|handelt|geht|behandelt|enthält|beinhaltet|beschreibt|erklärt|erläutert|erzählt|thema|themen|inhalt\w*|drin|gib|überblick|kurz\w*"
    r"|fass\w*|zusammen\w*|worum|wovon|worüber"
    r"|dit|parle|traite|contient|décrit|explique|aborde|présente|contenu|sujet|thème|trouve|trouve-t-on|résum\w+|a-t-il|qu['’]y"
    r"|dice|trata|habla|contiene|describe|explica|cuenta|contenido|tema|resum\w+|hay"
    r"|parla|tratta|descrive|spiega|contenuto|argomento|riassu\w+|c[’']è"
    r"|diz|fala|contém|descreve|conteúdo|assunto|há"
    r"|zegt|staat|gaat|bevat|beschrijft|onderwerp|inhoud|samen\w*|vat|over"
    r"|handlar|handler|står|säger|siger|sier|innehåller|indeholder|inneholder|innehåll\w*|indhold\w*|innhold\w*|sammanfatta|sammenfat|oppsummer|beskriver|temat|emne\w*"
    r"|kertoo|sanoo|käsittelee|sisältää|tiivistä|mistä|aihe"
    r"|mówi|zawiera|dotyczy|opisuje|temat\w*|treść|streść|podsumuj|czym"
    r"|říká|obsahuje|pojednává|píše|téma|obsah\w*|shrň|popisuje"
    r"|szól|tartalm\w+|téma|foglald|össze|miről"
    r"|spune|tratează|conține|conținut\w*|rezumă|despre"
    r"|говорит\w*|содерж\w+|рассказыв\w+|описыв\w+|описано|написано|тем[аеы]|перескажи|изложи|кратко|подведи|итог|речь|ид[её]т|ч[её]м"
    r"|йдеться|мовиться|міститься|описує|зміст\w*|підсумуй"
    r"|λέει|περιγράφει|περιέχει|θέμα|περιεχόμεν\w+|συνόψισε|μιλά\w*"
    r"|anlat\w+|diyor|içer\w+|konu\w*|özetle|hakkında)", re.I
)  # fmt: skip
"""Words of what a part says, and of being told it in short."""
_POLITE = regex(
    r"(?:bitte|kannst|können|könnten|könntest|peux-tu|pouvez-vous|pourriez-vous|plaît|puedes|puede|podrías|favor|puoi|può|potresti|pode|podes|poderia"
    r"|kun|kunt|alsjeblieft|graag|kan|kunne|snälla|proszę|możesz|prosím|můžeš|kérlek|пожалуйста|можешь|можете|lütfen|παρακαλώ)", re.I
)  # fmt: skip
"""Words of asking for something."""
_A_PART = alternatives("section", "chapter", "part", "appendix", "page", in_text=True)
_NUMBERED = r"\d+(?:\.\d+)*|[IVXLC]+\b|[A-Z]\b"
_PARTS = (
    regex(rf"\b(?P<word>{_A_PART})\s*(?:n[°ºor]\.?\s*)?(?P<id>{_NUMBERED})", re.I),
    regex(rf"\b(?P<id>\d+(?:\.\d+)*)\.?\s*(?P<word>{_A_PART})\b", re.I),
    regex(rf"\b(?P<word>{_A_PART})\s+(?P<number>[^\W\d_]+)", re.I),
    regex(rf"(?P<ordinal>[^\W\d_]{{4,}})\s+(?P<word>{_A_PART})\b", re.I),
)
"""A part by its number, in figures after or before its name, or in words."""
_PART_UNSPACED = regex(
    r"[第제]?\s*(?P<id>\d+(?:\.\d+)*|[〇一二三四五六七八九十百]+)\s*(?P<word>章|节|節|部分|部|篇|장|절|부|页|頁|ページ|쪽|페이지)"
)
_BY_NAME = regex(
    rf"(?<!\w)(?:{alternatives('introduction', 'preface', 'conclusion', 'abstract', 'summary')})(?!\w)", re.I
)  # fmt: skip
"""A section that has one name in every document."""
_SAYS_UNSPACED = regex(
    r"(?:请|請|帮我|给我|一下|主要|关于|關於|介绍|介紹|总结|總結|概括|概述|讨论|討論|讲述|描述|内容|內容|什么|什麼|哪些|讲|講|说|說|写|寫|有|是|的|了|在|里|裡|中|吗|呢"
    r"|について|何が|なにが|書かれて|要約|まとめ|説明|内容|教えて|ください|いますか|いる|ありますか|ですか|です|して|何|なに|[はのをがでに]"
    r"|무엇|내용|요약|대해|설명|해\s?주세요|해\s?줘|입니까|인가요|이에요|뭐|예요|에|는|은|이|의|를|을)"
)
"""The same without blanks between words, and the small words around them."""
INFLECTED = 2
"""Letters that an ordinal may have behind its stem: "drittes", "terceira"."""


def part_asked_abroad(document: ReadDocument, text: str) -> tuple[str, str]:
    """The part whose contents a question asks for in another language.

    A question with a word of its own beside is one for a fact.

    Args:
        document: Its language is one that may be asked in.
        text: The question.

    Returns:
        The word for the part ("Kapitel", "page") and its number in figures; the title of a section
        that has one name in every document, and ""; "" twice where no part is asked for.
    """
    if (match := _PART_UNSPACED.search(text)) is not None:
        rest = _SAYS_UNSPACED.sub("", text[: match.start()] + text[match.end() :])
        if not any(map(str.isalnum, rest)):
            identifier = match["id"]
            number = identifier if identifier[0].isascii() else str(chinese_number(identifier))
            return match["word"], number
    spoken = {document.index.language, guess_language(text)}
    for match in chain.from_iterable(pattern.finditer(text) for pattern in _PARTS):
        identifier = _number(match.groupdict())
        if identifier and _only_asks(text[: match.start()] + " " + text[match.end() :], spoken):
            return match["word"], identifier
    for match in _BY_NAME.finditer(text):
        rest = text[: match.start()] + " " + text[match.end() :]
        if not _SAYS.fullmatch(match[0]) and _only_asks(rest, spoken):
            return match[0], ""
    return "", ""


def _only_asks(text: str, spoken: set[str]) -> bool:
    """Whether a text only asks what something says, in words of some languages."""
    others = list(words(text))
    said = [other for other in others if _SAYS.fullmatch(other)]
    left = (other for other in others if not _SAYS.fullmatch(other))
    return bool(said) and all(_is_small(other, spoken) for other in left)


def _is_small(word: str, spoken: set[str]) -> bool:
    """Whether a word is a small one of a language, or what is left of one before an apostrophe."""
    if len(word) == 1 or _POLITE.fullmatch(word):
        return True
    return any(is_common(word.lower(), language) for language in spoken)


def _number(named: dict[str, str | None]) -> str:
    """The number by which a part is named, in figures; "" where what stands beside it is none."""
    if identifier := named.get("id"):
        return identifier
    if number := named.get("number"):
        return str(number_words().get(number.lower(), 0) or "")
    said = bare(named.get("ordinal") or "")
    for ordinal, value in ordinal_words().items():
        if value and said.startswith(bare(ordinal[:-1])) and len(said) - len(ordinal) < INFLECTED:
            return str(value)
    return ""
