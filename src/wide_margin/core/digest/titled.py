"""Questions that a section of their own answers, as it begins: how to install it, run it, cite it.

Every manual has such sections and names them alike. The one with the plainest title near the top
of the outline counts; deeper ones, and those with more words of their own, tell how to do it with
some part, or with something else.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from wide_margin.core.answers.form import take_form
from wide_margin.core.digest.abroad import titled_kind_abroad
from wide_margin.core.digest.asked import Overview, is_subject, own_words
from wide_margin.core.digest.gist import printed_title
from wide_margin.core.later import regex
from wide_margin.core.lexicon import bare
from wide_margin.core.outline.numbering import unnumbered
from wide_margin.core.search import is_common
from wide_margin.core.search.analysis import words

if TYPE_CHECKING:
    from wide_margin.core.answers import Reach
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.outline import Section

FIRST = 3
"""Sections within one among which it may begin to tell what it is called after."""
DEPTH = 2
"""Levels of the outline whose sections are of the whole."""
OF_ANOTHER = {"install": 1, "bugs": 1}
"""Words of its own that a title of the first kind may have besides: it is installed on this or
that."""
_FIRST_STEPS = (
    r"getting started|quick ?start(?: guide)?|first steps|erste schritte|schnelleinstieg|premiers pas|primeros pasos"
    r"|primeiros passos|primi passi|eerste stappen"
)
_TITLES = {
    "install": (
        r"(?<!post[- ])(?<!pre[- ])\b(?:install(?:ation|ing)|installieren|instalaci[oó]n|instalaç[aã]o|installazione|installatie|instalacja|instalace)\b"
        r"|インストール|安装|安裝|설치|установка",
        r"^[\d.\s]*(?:building|compiling)(?: (?:the )?(?:package|program|software|library|sources?|from source))?\W*$",
    ),
    "run": (
        r"\b(?:running|invoking|invocation|how to (?:use|run|start|call|invoke)|usage|basic use|starting(?: up)?"
        r"|benutzung|bedienung|verwendung|gebrauch|aufruf|utilisation|lancement|uso|utilización|utilizzo|esecuzione|utilização|gebruik|użycie|použití)\b"
        r"|使い方|使用方法|用法|사용법|использование|запуск",
        rf"\b(?:using|command[- ]line(?: (?:usage|options|interface|syntax|arguments))?|{_FIRST_STEPS})\b",
    ),
    "begin": (rf"\b(?:how to (?:begin|start)|{_FIRST_STEPS})\b",),
    "cite": (
        r"\b(?:how to cite|citing|citation|cite|zitier\w+|zitation|citer|citar|citare|citeren)\b|引用",
    ),
    "bugs": (
        r"\b(?:report(?:ing)? (?:\w+ ){0,3}?(?:bugs?|problems?|issues?|errors?)|bug[- ]reports?|(?:getting|finding|further|more) (?:more |further )?(?:help|support)|technical support"
        r"|fehler melden|signaler (?:un|des) (?:bogues?|bugs?|problèmes?))\b|сообщения об ошибках|バグ報告",
        r"\b(?:(?:resources and )?contact(?:s|ing)?(?: (?:information|details|addresses|persons?|us))?|support|feedback|mailing[- ]lists?|contributing|where to get help|(?<!known )bugs|kontakt|contacto?)\b",
    ),
    "limits": (
        r"\b(?:known (?:bugs|issues|problems|limitations)|limitations|shortcomings|caveats|restrictions"
        r"|einschränkungen|bekannte (?:fehler|probleme)|limites|limitaciones|limitazioni|limitações|beperkingen)\b",
        r"^[\d.\s]*bugs\W*$",
    ),
    "new": (
        r"\b(?:what['’]?s new|what is new|new (?:features|in)|release notes|changes (?:in|since)"
        r"|recent changes|neuerungen|neuigkeiten|nouveautés|novedades|novità|novidades)\b"
        r"|^[\d.\s]*(?:news|change ?log|changes)\W*$",
    ),
    "next": (
        r"\b(?:future (?:work|plans?|directions?|developments?|research|improvements|enhancements|extensions|versions)|road ?map|planned (?:features|work|changes|improvements)"
        r"|next steps|what['’]?s next|plans for the future|ausblick|perspectives|travaux futurs|trabajos? futuros?|lavori futuri|sviluppi futuri"
        r"|trabalhos? futuros?|toekomstig(?:e)? werk)\b|^[\d.\s]*(?:to[- ]?do(?: list)?|outlook|open (?:problems|questions|issues))\W*$|今後の課題|未来工作",
    ),
    "terms": (
        r"(?:^(?:[\dA-Z][\d.]*\s+)?|\b(?:and|of|the|key|basic|main|important)\s)(?:definitions?(?: of terms)?|(?-i:T)erms(?: and (?:definitions|conventions))?|concepts)\W*$"
        r"|\b(?:glossary|terminology|vocabulary|nomenclature"
        r"|glossar|begriffe|glossaire|définitions|glosario|definiciones|glossario|definizioni|glossário|definições|begrippen)\W*$",
    ),
    "needs": (
        r"\b(?:(?:system |hardware |software )?requirements?|prerequisites?|dependencies|what (?:you|do you) need|before you (?:begin|start)"
        r"|(?:resources|hardware|software|what is) (?:needed|required)|(?:required|needed) (?:resources|hardware|software)"
        r"|(?:system|hardware)?(?:voraussetzung(?:en)?|anforderungen)|pr[ée]-?requis|requisitos|requisiti|vereisten"
        r"|configuration (?:minimale|requise|nécessaire)|configurazioni? minim[ae]|configuraci[oó]n(?:es)? mínimas?|configuraç(?:ão|ões) mínimas?"
        r"|recursos neces(?:sá|a)rios|mindest(?:\w*voraussetzungen|\w*anforderungen|ausstattung))\b",
    ),
}  # fmt: skip
_BY_PARTS = frozenset(["run"])
"""What parts of a thing may have each for itself: each program of several is started."""
_KINDS = {kind: tuple(regex(t, re.I) for t in titles) for kind, titles in _TITLES.items()}
"""Those of the second kind of title are asked where there are none of the first."""
KINDS = frozenset(_TITLES)
_VERSION = regex(r"\d+(?:\.\d+)+")
_VERSION_ALONE = regex(r"(?:version|release)?\s*v?(\d+(?:\.\d+)+)\W*", re.I)
NEARLY_ALL = 0.7
"""Share of a document's paragraphs."""
_RELEASE = regex(r"\b(?:release|version|edition|revision)\s+(\d+)\b", re.I)
"""One that is counted in whole numbers."""
_YEAR = regex(r"\b(?:19|20)\d\d\b")
"""One that changes are asked of, or told under."""
ANOTHER = 3
"""How far the title of another version is from the one asked for."""
_HISTORY = regex(
    r"\b(?:(?:version|revision|release|change) (?:history|log|notes)|history of (?:changes|versions|releases)|change ?log|changes"
    r"|releases|versionsgeschichte|änderungen|historique|historial|cronologia)\W*$", re.I
)  # fmt: skip
"""Under these stands what each version brought."""
_TOLD: dict[str, re.Pattern[str]] = {
    "run": regex(
        r"^(?:to|in order to) (?:start|run|use|launch|invoke) (?P<what>[\w-]+)"
        r"|^(?:the )?(?P<name>[\w-]+) (?:program )?(?:is|can be) (?:started|run|invoked|launched|executed) (?:by|with|from|as|using)\b", re.I
    ),
    "cite": regex(
        r"\bplease\b.{0,60}\bcite\b|\b(?:correct|appropriate|preferred|recommended|suggested|proper|the) citation\b[^.;]{0,40}\b(?:is|are|reads)\b|\b(?:should|must) (?:be )?cited?\b|\bcite (?:the|this|our|it) (?:\w+ ){0,3}(?:papers?|articles?|references?|manual|publications?|as)\b", re.I
    ),
    "bugs": regex(
        r"(?=.*(?:https?://|www\.|\S@\S|\btrack(?:er|ing)\b|\bmailing[- ]list|\bforums?\b|\b(?:[A-Z]\w+|news|users?|discussion)[- ]?groups?\b))"
        r"(?=.*\b(?:report|send|sent|submit|file|contact|post|use)(?:s|ed|ing|ting|ted)?\b)"
        r"(?=.*\b(?:bugs?|bug[- ]reports?|issues?|problems?|feedback|comments|suggestions|questions)\b)"
        r"|(?=.*\b(?:bugs?|bug[- ]reports?|problems?)\b)"
        r"(?=.*\b(?:report|send|sent|submit|address|direct|e?-?mail)(?:ed|ted)?\s(?:[^.;]{1,60}\s)?to\s[^.;]{0,60}"
        r"(?:\bhelp ?desk\b|\b(?:maintainers?|authors?|developers?|(?:support|development)\s(?:team|group|office))\b|:\s*$))", re.I
    ),
    "next": regex(r"\b(?:to-?do|wish) ?lists?\b|\broad ?maps?\b", re.I),
}  # fmt: skip
"""What a sentence says that answers where no section is called so."""


def is_on_beginning(title: str) -> bool:
    """Whether a section is called after how one begins, and not after how something is run."""
    run, begin = _KINDS["run"][0], _KINDS["begin"][0]
    return begin.search(title) is not None and run.search(title) is None


def sections_titled(document: ReadDocument, kind: str) -> Iterator[Section]:
    """The sections that are called after what is asked for, the outermost and plainest first.

    Args:
        document: It.
        kind: One of KINDS.
    """
    outline, title = document.outline, bare(printed_title(document))
    language = document.index.language
    names = {w for w in words(title_of(document)) if len(w) > 2 and not is_common(w, language)}
    # The document's own title may stand over all others.
    under = 1 if outline.depths.count(0) == 1 else 0
    depths = [max(depth - under, 0) for depth in outline.depths]
    shallow = [
        (s, depth) for s, depth in zip(outline.sections, depths, strict=True)
        if depth < DEPTH
        # One that names the whole is of the whole: under a part, chapters are a level deeper.
        or (depth == DEPTH and not names.isdisjoint(words(s.title)))
    ]  # fmt: skip
    for pattern, most in zip(_KINDS[kind], (OF_ANOTHER.get(kind, 0), 0), strict=False):
        told = [
            (depth, n_others, len(section.title.split()), section.page, section)
            for section, depth in shallow
            if (found := pattern.search(section.title)) and bare(found[0]) not in title
            and (n_others := _n_others(document, pattern.sub(" ", section.title))) <= most
            and not (kind in _BY_PARTS and _is_of_part(document, section, depth))
        ]  # fmt: skip
        yield from (section for *_, section in sorted(told, key=lambda row: row[:-1]))


def titled_abroad(document: ReadDocument, typed: str, reach: Reach) -> Overview | None:
    """What a question in another language than English asks that a section of its own tells."""
    kind, put = titled_kind_abroad(typed)
    if not kind or not any(
        document.rows_of(document.under_heading(section), section.end_paragraph)
        for section in sections_titled(document, kind)
    ):
        return None
    return Overview(kind, reach, take_form(typed)[1], 0, put, is_all_known=True)


def begins_in(document: ReadDocument, section: Section, kind: str) -> Section:
    """Where a section begins to tell what it is called after.

    One that begins at once with another, "System requirements", tells how to install in a later
    one of those that are called so.
    """
    sections = document.outline.sections
    row = sections.index(section)
    inner = [
        s for s in sections[row + 1 :] if s.first_paragraph < section.end_paragraph
    ]  # fmt: skip
    if not inner or document.rows_of(document.under_heading(section), inner[0].first_paragraph):
        return section
    first = [s for s in inner if s.level == inner[0].level][:FIRST]
    return next((s for s in first if _KINDS[kind][0].search(s.title)), section)


def _is_of_part(document: ReadDocument, section: Section, depth: int) -> bool:
    """Whether the section around another is of something else than the whole: "The plotter"."""
    outline = document.outline
    parent = outline.parents[outline.sections.index(section)] if depth else -1
    return parent >= 0 and _n_others(document, unnumbered(outline.sections[parent].title)) > 1


def title_of(document: ReadDocument) -> str:
    """The document's title, as the file and as its first pages have it."""
    return f"{document.facts.title} {printed_title(document)}"


def of_version(
    document: ReadDocument, sections: Sequence[Section], question: str
) -> Sequence[Section]:
    """The sections of the version or year asked about: under those on what is new, or a history.

    Without a version all that tell what is new; of one that is nearly all of a document, as release
    notes are, what tells of the latest.
    """
    wanted = _VERSION.findall(question) or _RELEASE.findall(question)
    years = [] if wanted else _YEAR.findall(question)
    if not wanted and not years:
        return [_latest(document, section) for section in sections]
    outline = document.outline
    histories = [s for s in outline.sections if _HISTORY.search(s.title)]
    within = [
        s for outer in (*sections, *histories) for s in outline.sections
        if outer.first_paragraph <= s.first_paragraph < outer.end_paragraph
    ]  # fmt: skip
    if years:
        return [s for s in within if any(re.search(rf"\b{y}\W*$", s.title) for y in years)]
    found = [s for s in within if min(_apart(s.title, w) for w in wanted) < ANOTHER]
    return sorted(found, key=lambda s: min(_apart(s.title, w) for w in wanted))


def versions_in(text: str) -> frozenset[str]:
    """The versions that a text names: "1.2" of "since v1.2"."""
    return frozenset(_VERSION.findall(text))


def rows_of_version(document: ReadDocument, rows: Sequence[int], question: str) -> list[int]:
    """What a line leads in to that names the version asked about: "Changes from 1.1 to 1.2 are:".

    Asked of no version, what the first of such lines does, as the latest is told first; empty
    where no line does.

    Args:
        document: It.
        rows: Of the sentences of a section on what is new.
        question: It.
    """
    sentences = document.text.sentences
    wanted = _VERSION.findall(question)
    leads = [
        k for k, row in enumerate(rows)
        if sentences[row].text.endswith((":", "：")) and _VERSION.search(sentences[row].text)
    ]  # fmt: skip
    for n, k in enumerate(leads):
        told = _VERSION.findall(sentences[rows[k]].text)[-1]
        if not wanted or told in wanted:
            return list(rows[k : leads[n + 1] if n + 1 < len(leads) else len(rows)])
    return []


def _latest(document: ReadDocument, section: Section) -> Section:
    """The section of the latest version within one that is nearly the whole document."""
    n_inside = section.end_paragraph - section.first_paragraph
    if n_inside < NEARLY_ALL * len(document.paragraphs):
        return section
    versions = [
        ([int(part) for part in match[1].split(".")], -row) for row, s in enumerate(document.outline.sections)
        if section.first_paragraph < s.first_paragraph < section.end_paragraph
        and (match := _VERSION_ALONE.fullmatch(s.title))
    ]  # fmt: skip
    return document.outline.sections[-max(versions)[1]] if versions else section


def _apart(title: str, wanted: str) -> int:
    """How far a title is from a version: of it, of its first release, of a later one, of another."""
    bare_title = unnumbered(title)
    versions = _VERSION.findall(bare_title) or _RELEASE.findall(bare_title)
    versions = versions or _VERSION.findall(title)
    if wanted in versions:
        return 0
    if f"{wanted}.0" in versions:
        return 1
    return 2 if any(version.startswith(f"{wanted}.") for version in versions) else ANOTHER


def words_titling(kind: str, question: str) -> str:
    """A question without the words that sections are called by: others tell of what it asks."""
    for pattern in _KINDS[kind]:
        question = pattern.sub(" ", question)
    return question


def _n_others(document: ReadDocument, rest: str) -> int:
    """How many words the rest of a title has that are of something else than the whole."""
    return sum(
        any(map(str.isalpha, word)) and not is_subject(document, word)
        for word in own_words(document, rest)
    )


def rows_telling(document: ReadDocument, kind: str, rows: Sequence[int]) -> list[int]:
    """The rows of the sentences that say what is asked for, in order; empty for other kinds."""
    pattern = _TOLD.get(kind)
    if pattern is None:
        return []
    names = {word for word in words(printed_title(document).casefold()) if not is_common(word)}
    found = []
    for row in rows:
        sentence = document.text.sentences[row]
        told = pattern.search(sentence.text) if sentence.kind in ("body", "item", "entry") else None
        if told and set(map(str.casefold, filter(None, told.groups()))) <= names:
            found.append(row)
    return found
