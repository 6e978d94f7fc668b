"""What kind of document it is, by how it is built and how it speaks."""

from __future__ import annotations

import re
from collections import Counter
from enum import StrEnum
from typing import TYPE_CHECKING

from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument

SAMPLE = 600
"""Sentences looked at, spread over the document."""


class DocumentKind(StrEnum):
    """Kinds that a reader asks different things of."""

    ARTICLE = "article"
    MANUAL = "manual"
    REPORT = "report"
    STATUTE = "statute"
    """Or a contract or licence."""
    THESIS = "thesis"
    NARRATIVE = "narrative"
    """Or a script."""
    FORM = "form"
    OTHER = "other"

    @property
    def with_article(self) -> str:
        """The kind as one says it: "an article"; of another kind only that it is a document."""
        if self is DocumentKind.OTHER:
            return "any document"
        return f"an {self}" if self[:1] in "aeiou" else f"a {self}"


_IN_TITLE = {
    DocumentKind.MANUAL: r"manual|hand ?book|guide|reference|tutorial|introduction to|how-?to|handbuch|anleitung|manuel|manuale|user'?s|documentation|faq|policy"
    r"|podręcznik|przewodnik|příručka|kézikönyv|handleiding|håndbok|håndbog|handbok|guía|guida|käsikirja|opas\b|руководство|справочник"
    r"|посібник|εγχειρίδιο|el kitabı|マニュアル|ハンドブック|手引|ガイド|手册|手冊|指南|教程|매뉴얼|안내서|설명서",
    DocumentKind.REPORT: r"\breport\b|annual|bericht|rapport|review of|newsletter|minutes|white ?paper|survey of|statistics|\bnews\b|assessment|audit"
    r"|informe\b|relatório|relazione|sprawozdanie|отчёт|отчет|報告書|报告|보고서",
    DocumentKind.STATUTE: r"\bact\b|\blaw\b|statute|licen[sc]e|agreement|contract|terms|regulation|directive|bylaws|charter|gesetz|code of|constitution"
    r"|licencia|licença|licenza|lizenz|\blicence|ustawa|закон\b|лицензия|ライセンス|使用許諾|许可证|法律",
    DocumentKind.THESIS: r"thesis|dissertation|th[èe]se\b|doctoral|diplomarbeit|masterarbeit|memoria|tesis\b|\btese\b|\btesi\b|rozprawa|диссертация|学位論文|学位论文",
    DocumentKind.NARRATIVE: r"\btale|novel|story|stories|history of|play in|drama|comedy|tragedy|memoirs|adventures",
    DocumentKind.FORM: r"\bform\b|application for|questionnaire|formular|checklist",
}  # fmt: skip
_IN_SECTIONS = {
    DocumentKind.ARTICLE: r"^(?:\d+\.?\s+)?(?:abstract|introduction|methods?|results|discussion|conclusions?|related work|references|acknowledge?ments|bibliography|summary(?: and .*)?|concluding remarks)\b",
    DocumentKind.MANUAL: r"install|getting started|usage|options|commands|configur|troubleshoot|reference|how to|using|files|examples|setup|functions|keywords|bugs",
    DocumentKind.REPORT: r"executive summary|findings|recommendations|key figures|outlook|balance sheet|financial|activities|year in",
    DocumentKind.STATUTE: r"^(?:article|section|§|art\.|clause|schedule)\s*[\divxlc]+|definitions|termination|liability|warranty|governing law|scope|penalt",
    DocumentKind.THESIS: r"declaration|acknowledge?ments|state of the art|research question|methodology|future work|danksagung|remerciements|curriculum vitae",
    DocumentKind.NARRATIVE: r"^(?:chapter|act|scene|book|canto|kapitel|chapitre)\s+[\divxlc]+\.?$|prologue|epilogue|dramatis personae",
}  # fmt: skip
_IN_TEXT = {
    DocumentKind.ARTICLE: r"\b(?:we (?:propose|show|present|consider|use|find)|this (?:paper|article|vignette)|et al|p-value|our (?:method|approach|results))\b",
    DocumentKind.MANUAL: r"\b(?:you (?:can|may|should|need|must|want)|click|type|run|the following command|by default|see section|the option|the user)\b",
    DocumentKind.REPORT: r"\b(?:per cent|percent|million|billion|fiscal|quarter|the committee|the board|was established|members)\b",
    DocumentKind.STATUTE: r"\b(?:shall|hereby|thereof|pursuant|notwithstanding|herein|the licensor|licensee|the parties|provided that)\b",
    DocumentKind.THESIS: r"\b(?:this (?:thesis|dissertation)|in this (?:thesis|dissertation))\b",
    DocumentKind.NARRATIVE: r"\b(?:he|she|said|cried|replied|asked|thought|went|looked|came)\b",
}  # fmt: skip
_USUAL = {
    DocumentKind.ARTICLE: 6.0, DocumentKind.MANUAL: 7.0, DocumentKind.REPORT: 6.0,
    DocumentKind.STATUTE: 9.0, DocumentKind.THESIS: 1.0, DocumentKind.NARRATIVE: 45.0,
}  # fmt: skip
"""How often in a thousand words such words stand in a document of the kind."""
LEAST = 1.15
"""Evidence below which no kind is claimed."""
_NAMES = {
    DocumentKind.ARTICLE: "paper article vignette study note essay",
    DocumentKind.MANUAL: "manual guide handbook tutorial faq documentation",
    DocumentKind.REPORT: "report newsletter issue audit survey assessment review engagement",
    DocumentKind.STATUTE: "license licence agreement act contract regulation directive treaty",
    DocumentKind.THESIS: "thesis dissertation",
    DocumentKind.NARRATIVE: "story tale history novel play",
    DocumentKind.FORM: "form application questionnaire",
}
_CALLED = {name: kind for kind, names in _NAMES.items() for name in names.split()}
_THIS = regex(rf"\bthis ({'|'.join(_CALLED)})\b", re.I)
"""What a document calls itself."""
OF_NAME, NAMED_OFTEN = 0.9, 3
"""What it counts, in full from so many times on; shared where it uses several such names."""
_BLANKS = regex(r"_{4,}|\.{12,}|□|☐|\[ ?\]")


FRONT, LONGEST_LABEL, OF_LABEL = 40, 40, 1.2
"""Paragraphs at the front of which one may say that it is a thesis, its letters, and what it counts."""
DEGREE_WORK = r"(?:博士|硕士|碩士|修士|学士|學士|本科|毕业|畢業|卒業)(?:学位|學位)?(?:论文|論文|设计|設計)|(?:석사|박사|학사)\s?학위\s?논문"
"""What a thesis is called in Chinese, Japanese and Korean, as an alternative of patterns."""
_DEGREE = regex(
    rf"{DEGREE_WORK}|^\W*(?:(?:doctoral|ph\.?\s?d\.?|master['’]?s?|bachelor['’]?s?|diploma)\s+(?:thesis|dissertation)|diplomarbeit|dissertation|(?:master|bachelor|doktor)arbeit"
    r"|th[èe]se(?:\s+de\s+doctorat)?|mémoire\s+de\s+master|tesis\s+(?:doctoral|de\s+\w+)|tesi\s+di\s+\w+|tese\s+de\s+\w+|dissertação\s+de\s+\w+)\W*$", re.I
)  # fmt: skip
"""A line that says that what follows is a thesis."""


def kind_of(document: ReadDocument, title: str = "") -> DocumentKind:
    """The kind for which title, sections and wording speak most; OTHER where little does."""
    scores = _scores(document, title or document.facts.title)
    best = max(scores, key=scores.__getitem__)
    return best if scores[best] >= LEAST else DocumentKind.OTHER


def _scores(document: ReadDocument, title: str) -> dict[DocumentKind, float]:
    sections = [section.title for section in document.outline.sections]
    n_pages = document.facts.n_pages
    step = max(1, len(document.text.sentences) // SAMPLE)
    sample = document.text.sentences[::step]
    text = " ".join(s.text for s in sample if s.kind in ("body", "item", "note"))
    n_words = max(len(text.split()), 1)
    scores = dict.fromkeys(DocumentKind, 0.0)
    for kind, pattern in _IN_TITLE.items():
        scores[kind] += 1.0 * bool(re.search(pattern, title, re.I))
    for kind, pattern in _IN_SECTIONS.items():
        n = sum(bool(re.search(pattern, name, re.I)) for name in sections)
        share = n / max(len(sections), 1)
        scores[kind] += min(0.25 * n, 0.8) + 0.7 * share
    for kind, pattern in _IN_TEXT.items():
        often = 1000 * len(re.findall(pattern, text, re.I)) / n_words
        scores[kind] += min(often / _USUAL[kind], 1.3)
    said = (s.text for s in document.text.sentences if s.kind in ("body", "item", "note"))
    named = Counter(_CALLED[name.lower()] for text in said for name in _THIS.findall(text))
    n_named = named.total()
    for kind, n in named.items():
        scores[kind] += OF_NAME * min(n / NAMED_OFTEN, 1.0) * n / max(n_named, 1)
    n_code = sum(s.kind == "code" for s in sample) / max(len(sample), 1)
    n_works = sum(s.kind == "works" for s in document.text.sentences)
    has_abstract = any(
        re.match(r"\W*abstract\b", s.text, re.I) for s in document.text.sentences[:60]
    )
    front = (p.text for p in document.paragraphs[:FRONT] if len(p.text) <= LONGEST_LABEL)
    scores[DocumentKind.THESIS] += OF_LABEL * any(map(_DEGREE.search, front))
    scores[DocumentKind.MANUAL] += 0.5 * min(n_code / 0.08, 1.0) + 0.4 * (n_pages > 80)
    scores[DocumentKind.ARTICLE] += 0.9 * has_abstract + 0.5 * (n_works > 5) - 0.9 * (n_pages > 70)
    scores[DocumentKind.THESIS] += 0.4 * (n_pages > 60) * (n_works > 20)
    blanks = len(_BLANKS.findall(" ".join(p.text for p in document.paragraphs[:400])))
    scores[DocumentKind.FORM] += min(blanks / max(2.0 * n_pages, 8.0), 1.5)
    return scores
