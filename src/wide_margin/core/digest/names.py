"""Names of people and bodies in the lines of a title page."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache
from itertools import takewhile
from typing import TYPE_CHECKING

import numpy as np

from wide_margin.core.answers.signs import MONTH
from wide_margin.core.later import regex
from wide_margin.core.layout import word_count
from wide_margin.core.search.vectors import frequency_rank, vectors_of

if TYPE_CHECKING:
    from wide_margin.core.geometry import FloatArray

COMMON = 4_000
"""A word among so many of the most frequent of the language is a word first, and a name second."""
MOST_TOKENS = 5
MOST_BESIDE_BODY = 4
"""Words that a line has beside the name of a body."""
_PARTICLES = frozenset(
    ["van", "von", "de", "der", "den", "del", "della", "da", "dos", "du", "di", "la", "le", "el", "al", "bin", "ibn",
     "ten", "ter", "zu", "zur", "y", "af", "av", "och", "und"]
)  # fmt: skip
_TITLES = regex(
    r"\b(?:Dr\.?-Ing|Dipl\.?-Ing|Dr|Prof|Professor|Mr|Mrs|Ms|Sir|Ing|Dipl|PhD|Ph\.D|MSc|M\.Sc|BSc|MD|Jr|Sr|Esq)\b\.?,?", re.I
)  # fmt: skip
_SPLIT = regex(
    r"\s*(?:,|，|、|;|·|•|\||/|(?<!\w)&|&(?!\w)|\band\b|\bund\b|\bet\b|\bи\b|\b(?:y|e|en|ja|oraz|og|och)\b(?=\s[A-ZÀ-Þ])|\bwith\b|\s{3,})\s*"
)
AUTHORS = r"authors?|autor(?:en|es|zy|i|ři)?|auteurs?|autore|forfattere?|författare|tekijät?|автор(?:ы|и)?|yazar(?:lar)?"
"""What they are called, as an alternative of patterns."""
EDITORS = r"editors?|herausgeber(?:in)?|redaktion|redactie|éditeurs?|editor(?:es|i)|a cura di|redaktor(?:zy)?|редактор(?:ы)?"
"""What those are called who put a work together."""
WHICH_PEOPLE = r"(?:(?:the|original|main|principal|primary|lead|first|current|present|former)\s+)*"
"""What may stand before that: "the original authors"."""
LABEL_OF_PEOPLE = rf"{WHICH_PEOPLE}(?:{AUTHORS}|{EDITORS}|programmers?|developers?|maintainers?)"
"""Before a colon it names them: "Current programmers: Ann Bale"."""
_BY = regex(
    r"^\W*(?:(?:written|edited|compiled|created|prepared|maintained)\s+)?(?:by|von|par|por|door)\b[:\s]*"
    r"|^\W*(?:di|a cura di|av|af)\s+(?=[A-ZÀ-Þ])|^\W*(?-i:de\s+(?=(?:[A-ZÀ-Þ][\w’'-]+[\s*†‡]+){1,3}[A-ZÀ-Þ][\w’'-]+))"
    rf"|^\W*{LABEL_OF_PEOPLE}\s*:\s*", re.I
)  # fmt: skip
_TOKEN = regex(
    r"(?:[A-ZÀ-ÖØ-ÞĀ-ŽΑ-ΩА-ЯЁ]\.?-?){1,3}"
    r"|[A-ZÀ-ÖØ-ÞĀ-ŽΑ-ΩА-ЯЁ][\w’'ʼ]+(?:-[A-ZÀ-ÖØ-ÞА-Яa-zà-ÿ][\w’']+)*\.?"
)
_CHINESE_NAME = regex(r"[\u4e00-\u9fff]\s?[\u4e00-\u9fff]{1,3}")
"""A family name and one or two more signs."""
_CHINESE_PERSON = regex(
    r"(?:[王李张張刘劉陈陳杨楊黄黃赵趙吴吳周徐孙孫马馬朱胡郭何林罗羅郑鄭梁谢謝宋唐许許邓鄧冯馮韩韓曹曾彭萧蕭蔡潘董袁叶葉蒋蔣杜苏蘇魏程吕呂丁"
    r"沈姚卢盧傅钟鍾姜崔谭譚廖范汪陆陸戴贾賈韦韋邱侯邹鄒熊孟秦阎閻薛尹黎陶贺賀顾顧郝龚龔邵钱錢覃莫]|欧阳|司马|诸葛)\s?[\u4e00-\u9fff]\s?[\u4e00-\u9fff]?"
)
"""One of the family names that most people in China have, and what they are called."""
_CHINESE_WORDS = frozenset(
    ["许可", "许可证", "范围", "范例", "程序", "程式", "张量", "周期", "陈述", "谢辞", "谢谢", "何时", "何为"]
)  # fmt: skip
"""Words of documents that begin with the sign of a family name."""
_SHORT_FORMS = regex(r"[A-Z]{2,}s")
_ARTICLES = frozenset(
    ["das", "der", "die", "the", "het", "il", "les", "für", "pour", "para", "per", "voor", "dla"]
)
"""What begins no name; the last begin a dedication."""
_NO_NAME = regex(
    r"\b(?:universi[td]\w*|uniwersytet|univerzit\w*|\w*hochschule|école|escuela|\w*verlag|éditions|institut\w*|department|dept|faculty|facult\w+|school|college|laborator\w*|cent(?:er|re)|academy"
    r"|division|section|chapter|part|appendix|abstract|introduction|contents|preface|version|edition|release|revision"
    r"|manual|guide|handbook|standards?|guidelines?|conventions?|specifications?|tutorial|reference|report|paper|journal|volume|issue|vignette|package|license|licence|copyright|draft|inc|ltd|gmbh"
    r"|street|avenue|ave|road|boulevard|blvd|lane|drive|suite|square|highway|box|email|e-mail|phone|tel|fax|http|www|hospital|bank|ministry|office|company|corporation|press"
    r"|homepage|webpage|website|downloads?|conference|workshop|symposium|congress|meeting|seminar|lecture|course|summit"
    r"|research|consult\w+|science|sciences|technology|engineering|statistics|mathematics|biostatistics|medicine|bioinformatics"
    r"|january|february|march|april|may|june|july|august|september|october|november|december|keywords?|figure|table|usa|uk"
    r"|germany|austria|france|england|canada|switzerland|netherlands|using|for|the|of|with|in|on|from|to|at|(?-i:an?))\b|^An?\s", re.I
)  # fmt: skip
_BODY = regex(
    r"\b(?:the\s+)?(?P<name>(?:[A-Z][\w+./-]*\s+){1,5}(?:[Dd]evelopment [Tt]eam|[Tt]eam|[Pp]roject|[Cc]ommittee|[Ww]orking [Gg]roup"
    r"|[Dd]evelopers|[Cc]onsortium|[Ff]oundation|[Ss]ociety|[Aa]uthority|[Cc]ommission|[Aa]ssociation|[Mm]ailing [Ll]ist))\b"
    r"|\b(?P<abroad>(?:[Ee]l\s+equipo|[Ll][’']équipe|[Aa]\s+equip[ea]|[Ii]l\s+team|[Dd]as\s+Team|[Dd]ie\s+Entwickler|[Ll]os\s+desarrolladores|[Ll]es\s+développeurs)"
    r"\s+(?:de\s+(?:desarroll(?:o|adores)|développement|developpement|desenvolvimento|documentación|traducción)\s+)?(?:de|do|da|du|di|von|der|des)\s+[A-Z][\w+.-]*)"
)  # fmt: skip
_ONLY_ARTICLE = regex(r"(?:the|il|la|le|el|o|der|die|das|het|de|our|this)\s+\w+$", re.I)
_ADDRESS = regex(r"\d{2,5}[a-z]?\s+[A-ZÀ-Þ]")
"""The number of a house comes before its street."""
_POSTCODE = regex(r"[^\W\d_]\W+(?:[A-Z]{2}\W+)?(?:\d{5,6}|\d{3} \d{2,3})\W*$")
"""The number of a place comes after its name: "New Harbour 110 067"."""
ITS_DATE = regex(rf",\s+(?:\d{{1,2}}\.?\s+)?{MONTH}\.?(?:\s+\d{{1,2}},)?\s+\d{{4}}$", re.I)
"""When it was written, behind who wrote it: "Mary Dot, March 2021"."""
_AT_PLACE = regex(r"(?P<name>[^–—-]+\w)\s+[–—-]\s+(?P<place>[^\W\d_][^–—-]+)$")
"""A name and where its bearer works: "Mary Dot - WELLS"."""
_POSSESSIVE = regex(r"\w[’']s\b")
_AND_OTHERS = regex(r"[\s,]*\b(?:et al\b\.?|and others|and contributors|u\.\s?a\.)\s*$", re.I)
_NO_LINE_OF_NAMES = regex(r"(?<!authors)(?<!author)(?<!by):\s*$|[^\W\d_]\d{3}|\d{3}[^\W\d_]", re.I)
"""A label of what follows, and a number of something: "Contract No:", "HM0476-15-D"."""
_EMAIL = regex(r"[<(\[]?[^\s<(\[]+\s?@\s?\S+[>)\]]?|[<(]https?://\S+[>)]|https?://\S+")


_CAPITALS_FIRST = regex(
    r"\W*(?P<names>[A-ZÀ-Þ][A-ZÀ-Þ.’'-]+[*†‡§¶∗⋆♯]*(?:\s+(?:[A-ZÀ-Þ][A-ZÀ-Þ.’'-]*[*†‡§¶∗⋆♯]*|and))+)\s*[*†‡§¶∗⋆♯\d]*\s*,\s+[A-ZÀ-Þ]?[A-Za-zÀ-þ]*[a-zß-þ].*,"
)
"""People in capitals and then where they work: "ANNA HOLM, The Wells Group, Norway"."""
_NICKNAME = regex(r"(?<=\w)\s+[“\"‘'«][^\s“”\"«»]{2,20}[”\"’'»]\s+(?=[A-ZÀ-Þ])")
"""A name by which one is called, between the others: "Anna “weir” Holm"."""


_NUMBERED_HEIR = regex(r"\s*,\s+(?=(?:II|III|IV)(?!\w))")
"""Before the number of one who is called as his father is: "Anna Holm, IV"."""
_FIRM_FORM = regex(r",(?=\s+(?:inc|ltd|llc|gmbh|corp|co)\b)", re.I)
"""The comma inside the name of a firm: "Well Works, Inc."."""


def names_in_line(text: str) -> list[str]:
    """The names of people or bodies that a line consists of; none where it says anything else.

    A line of names may begin with "by", carry titles, degrees and addresses, and join names with
    commas and "and".
    """
    if _ADDRESS.match(text.strip()) or _POSTCODE.search(text) or _NO_LINE_OF_NAMES.search(text):
        return []
    text = _NUMBERED_HEIR.sub(" ", ITS_DATE.sub("", text))
    if in_capitals := _CAPITALS_FIRST.match(text):
        text = in_capitals["names"]  # and where they work
    if (at := _AT_PLACE.match(text)) and (at["place"].isupper() or _NO_NAME.search(at["place"])):
        text = at["name"]
    plain = _AND_OTHERS.sub("", _EMAIL.sub(" ", text))
    plain = re.sub(r"\([^)]*\)|\[[^\]]*\]|[*†‡§¶∗⋆♯#]+|\d+", " ", plain).strip()
    plain = _FIRM_FORM.sub(" ", _NICKNAME.sub(" ", plain))
    told = bool(_BY.match(plain))
    plain = _TITLES.sub(" ", _BY.sub("", plain))
    body = _BODY.search(plain)
    if body and not _ONLY_ARTICLE.match(said := body["name"] or body["abroad"]):
        before = plain[: body.start()].strip()
        if before.endswith(",") and (people := names_in_line(before.rstrip(" ,"))):
            return people  # who belong to it
        rest = (plain[: body.start()] + plain[body.end() :]).strip(" ,.")
        return [" ".join(said.split())] if word_count(rest) <= MOST_BESIDE_BODY else []
    if told:  # "by Anna Holm   by Mary Dot"
        plain = "   ".join(_BY.sub("", part) for part in plain.split("   "))
    if plain.isupper() and (people := _in_capitals(plain)):
        return people
    parts = [" ".join(part.split()).strip(" .,:-") for part in _SPLIT.split(plain)]
    if all(_CHINESE_PERSON.fullmatch(part) and part not in _CHINESE_WORDS for part in parts):
        return parts
    parts = [name for part in parts if part for name in _side_by_side(part)]
    if not parts:
        return []
    names = [part for part in parts if is_name(part, is_told=told)]
    if len(parts) >= LIST and len(names) >= MOSTLY * len(parts):
        # Among people "Arthur Blue" is one, and a body may stand among them.
        return [part for part in parts if is_name(part, is_told=True)]
    return names if len(names) == len(parts) or (told and names) else _at_work(parts)


def _in_capitals(text: str) -> list[str]:
    """The people of a line in capitals: "ANNA HOLM AND MARY DOT"; titles have an "AND" as well."""
    parts = [part.strip(" .") for part in re.split(r",(?:\s+AND\b)?|\bAND\b|&", text)]
    are_people = len(parts) > 1 and all(
        is_name(part) and _is_given(part.split()[0], NEAR_GIVEN) for part in parts
    )
    return parts if are_people else []


def _at_work(parts: Sequence[str]) -> list[str]:
    """The people of a line that goes on with where they work: "Anna Holm, Wells University, Norway"."""
    people = list(takewhile(lambda part: not _NO_NAME.search(part), parts))
    are_people = all(map(is_surely_name, people))
    return people if people and len(people) < len(parts) and are_people else []


def names_going_on(line: str, following: str) -> list[str]:
    """The names of a line; those of a list whose last one goes on in the next."""
    names = names_in_line(line)
    ends = line.count(",") < LIST - 1 or line.rstrip().endswith(".")
    return names if names or ends else names_in_line(f"{line} {following}")


_WITH_INITIAL = r"[^\W\d_][\w’'-]+(?:\s[^\W\d_]\.)+\s[^\W\d_][\w’'-]+"
_SIDE_BY_SIDE = regex(rf"{_WITH_INITIAL}(?:\s{_WITH_INITIAL})+")


def _side_by_side(text: str) -> list[str]:
    """Names with initials that only stand beside each other, one by one."""
    return re.findall(_WITH_INITIAL, text) if _SIDE_BY_SIDE.fullmatch(text) else [text]


_OF_CALENDAR = regex(
    rf"(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?|{MONTH}", re.I
)
LIST, MOSTLY = 3, 0.6
"""A line of so many parts is a list of people where this share of them surely are."""


def people_in_block(text: str) -> list[str]:
    """The people of a list that gives everyone's place of work: "A Keeper, The Wells; B …"."""
    parts = [part.strip() for part in text.split(";")]
    if len(parts) < 2 or not all("," in part for part in parts):
        return []
    found = []
    for part in parts:
        *people, _ = part.split(",")
        found.append(names_in_line(", ".join(people)) or names_in_line(people[0]))
    return [name for names in found for name in names] if all(found) else []


def is_body(name: str) -> bool:
    """Whether a name is that of a body rather than of a person."""
    return _BODY.fullmatch(name) is not None


def is_name(text: str, *, is_told: bool = False) -> bool:
    """Whether a text reads like a person's name.

    Args:
        text: Without titles, marks and addresses.
        is_told: Whether something before it says that a name follows.
    """
    tokens = text.split()
    if not 2 <= len(tokens) <= MOST_TOKENS or _NO_NAME.search(text) or _POSSESSIVE.search(text):
        return False
    if text.isupper() and len(text) > 4:
        tokens = [token if "." in token[:-1] else token.capitalize() for token in tokens]
    # "Le Shu" and "Bin Zhang" are people where others are; "La Paz" alone is none.
    plain = [
        token for k, token in enumerate(tokens)
        if token.casefold() not in _PARTICLES or (is_told and not k and token[0].isupper())
    ]  # fmt: skip
    # What is left of a postal code; "Das Werkzeug".
    if any(token.endswith("-") for token in plain) or tokens[0].casefold() in _ARTICLES:
        return False
    if any(_SHORT_FORMS.fullmatch(token) for token in plain):
        return False  # "Web APIs"
    if all(_OF_CALENDAR.fullmatch(token) for token in plain):
        return False  # "Tue Oct"
    if len(plain) < 2 or not all(_TOKEN.fullmatch(token) for token in plain):
        return False
    whole = [token.strip(".") for token in plain if len(token.strip(".")) > 1]
    if not whole:
        return False
    n_common = sum(_is_common(token) for token in whole)
    if is_told or n_common < len(whole):
        return True
    has_initial = len(whole) < len(plain)
    return has_initial or (len(plain) == len(whole) and _is_given(whole[0]))


def is_rare_name(text: str) -> bool:
    """Whether a text can be nothing but a person's name: none of its words is used otherwise."""
    tokens = [token.strip(".") for token in text.split()]
    return is_name(text) and not text.isupper() and not any(map(_is_common, tokens))


def is_surely_name(text: str) -> bool:
    """Whether a text is a rare name, or one that begins with a given name: "Andrew Baker"."""
    return is_rare_name(text) or (is_name(text) and _is_given(text.split()[0]))


_GIVEN = [
    "john",
    "david",
    "mary",
    "peter",
    "anna",
    "michael",
    "maria",
    "thomas",
    "susan",
    "robert",
    "hans",
    "pierre",
    "carlos",
]
LIKE_GIVEN = 0.33
"""How near given names lie to these at least, by their vectors: "Mark" does, "Fox" does not."""
NEAR_GIVEN = 0.12
"""The same where a line is a list of what may all be people: "Carlo" does, "Safety" does not."""


def _is_given(word: str, least: float = LIKE_GIVEN) -> bool:
    """Whether a word is used as given names are: its vector is near the middle of theirs."""
    vectors, _ = vectors_of([word.casefold()])
    return bool(len(vectors)) and float(vectors[0] @ _middle_of_given()) >= least


@lru_cache(maxsize=1)
def _middle_of_given() -> FloatArray:
    """(dimensions,) the direction of the given names together, of length 1."""
    middle: FloatArray = vectors_of(_GIVEN)[0].mean(axis=0)
    return middle / np.linalg.norm(middle)


def _is_common(token: str) -> bool:
    rank = frequency_rank(token.casefold())
    return rank is not None and rank < COMMON


def split_people(text: str) -> list[str]:
    """The people that the metadata names, which may be anything."""
    text = text.replace("©", " ")
    plain = re.sub(r"（[^）]*）", " ", _TITLES.sub(" ", _EMAIL.sub(" ", text)))
    if plain.count(",") == 1 and ";" not in plain and " and " not in plain:
        family, given = (part.strip() for part in plain.split(","))
        if family and given and " " not in family:
            plain = f"{given} {family}"
    parts = [" ".join(part.split()).strip(" .,:") for part in _SPLIT.split(plain)]
    return [
        part for part in parts
        if part and (is_name(part, is_told=True) or _CHINESE_NAME.fullmatch(part))
    ]  # fmt: skip


def same_person(one: str, other: str) -> bool:
    """Whether two names have the family name in common, and no other initial."""
    a, b = one.casefold().split(), other.casefold().split()
    return bool(a and b) and a[-1] == b[-1] and a[0][0] == b[0][0]
