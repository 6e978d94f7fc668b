"""What the sections and sentences of a document do: their roles, told by titles and wording."""

from __future__ import annotations

import re
from enum import StrEnum
from typing import TYPE_CHECKING

from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives

if TYPE_CHECKING:
    from wide_margin.core.outline import Outline


class Role(StrEnum):
    """What a section is for."""

    ABSTRACT = "abstract"
    INTRODUCTION = "introduction"
    METHOD = "method"
    RESULTS = "results"
    DISCUSSION = "discussion"
    CONCLUSION = "conclusion"
    APPENDIX = "appendix"
    THANKS = "thanks"
    LEGAL = "legal"
    BODY = "body"


_TITLES = {
    Role.ABSTRACT: alternatives("abstract"),
    Role.INTRODUCTION: alternatives("introduction", "preface") + r"|overview|about (?:this|the)|motivation|purpose|background|scope",
    Role.METHOD: r"methods?|methodology|materials?|data|model|design|approach|theory|implementation|methode|méthode|métodos?|metodi",
    Role.RESULTS: r"results?|findings|evaluation|experiments?|application|examples?|illustrations?|ergebnisse|résultats|resultados|risultati",
    Role.DISCUSSION: r"discussion|limitations?|diskussion|discusión|discussione",
    Role.CONCLUSION: rf"(?:{alternatives('conclusion', 'summary')})(?!\s+(?:of|for)\b)"
    r"|outlook|future (?:work|directions?)|closing (?:remarks?|words|thoughts|comments)",
    Role.APPENDIX: alternatives("appendix") + "|supplement",
    Role.THANKS: alternatives("acknowledgements") + "|thanks|computational details|session ?info(?:rmation)?|availability|(?:contributors|credits|authors)$",
    Role.LEGAL: r"licen[sc](?:es?|ing)|copyright|copying|legal|permission|gnu free documentation|gnu general public|warranty|terms of use"
    r"|(?:declaration|statement) of (?:originality|authorship|authenticity|independent work|academic integrity)|author.s declaration|(?:eidesstattliche|ehrenwörtliche|selbstständigkeits)\s?erklärung"
    r"|\w*(?:独创性|原创性)声明|\w*使用授权\w*",
}  # fmt: skip
_PATTERNS = {
    role: regex(rf"^(?:[\dA-Z]+(?:\.\d+)*\.?\s+|[ivxIVX]+\.\s+)?(?:the\s+)?(?:{words})\b", re.I)
    for role, words in _TITLES.items()
}
_LEGAL_ANYWHERE = regex(_TITLES[Role.LEGAL], re.I)


def role_of_title(title: str) -> Role:
    """The role that a section's title names; BODY where it names none."""
    for role, pattern in _PATTERNS.items():
        if pattern.search(title) and not (role is Role.APPENDIX and _LEGAL_ANYWHERE.search(title)):
            return role  # "Appendix D The licence" is the licence
    return Role.LEGAL if _LEGAL_ANYWHERE.search(title) else Role.BODY


def roles_of(outline: Outline) -> list[Role]:
    """The role of every section; what has none of its own takes that of the section around it."""
    found: list[Role] = []
    for section, parent in zip(outline.sections, outline.parents, strict=True):
        role = role_of_title(section.title)
        if role is Role.BODY and parent >= 0 and found[parent] is not Role.INTRODUCTION:
            role = found[parent]
        found.append(role)
    return found


PEOPLE = (
    r"(?:users|readers|people|beginners|developers|students|anyone|everyone|those who|programmers"
    r"|administrators|authors|researchers|engineers|teachers|scientists)"
)
_THIS = (
    r"(?:this|the present|the current|our)\s+(?:\w+\s+)?(?:paper|article|document|documentation|manual|guide|handbook|thesis"
    r"|dissertation|report|book|booklet|vignette|work|study|package|software|program|essay|text|tutorial|policy|standard"
    r"|specification|library|chapter|section|part|appendix|newsletter|collection|draft|proposal|memo|white ?paper|leaflet|brochure)"
)
THIS_ABROAD = (
    r"(?=[dvceqэд])(?:(?:dies(?:es|e[rsmn]?)|vorliegende[rsmn]?)\s+(?:\w*handbuch|dokument|arbeit|buch|kapitel|abschnitt|einführung|\w*anleitung|dokumentation|bericht"
    r"|artikel|beitrag|text|leitfaden|tutori(?:um|al)|übersicht|kurs|teil|anhang|skript|norm|richtlinie|heft|ausgabe|[\w-]*klasse|[\w-]*paket|programm|[\w-]*software|[\w-]*bibliothek|[\w-]*vorlage)"
    r"|cet?(?:te)?\s+(?:article|document|manuel|livre|chapitre|section|guide|rapport|thèse|introduction|documentation|tutoriel|notice|ouvrage|texte"
    r"|brochure|mémoire|annexe|partie|fiche|norme|travail|cours|formation|présentation|paquet|extension|programme|logiciel|classe|bibliothèque)"
    r"|est[ea]\s+(?:art[íi](?:culo|go)|artigo|documento|manual|libro|livro|cap[íi]tulo|secci[óo]n|seção|secção|guía|guia|informe|relatório|tesis|tese"
    r"|introducción|introdução|documentación|documentação|refer[eê]ncia|tutorial|texto|trabajo|trabalho|apéndice|apêndice|parte|curso|paquete|pacote|programa|software|clase|classe|biblioteca|librería)"
    r"|quest[oa]\s+(?:articolo|documento|manuale|libro|capitolo|sezione|guida|rapporto|tesi|introduzione|documentazione|tutorial|testo|lavoro|appendice|parte|corso|pacchetto|programma|software|classe|libreria)"
    r"|(?:dit|deze)\s+(?:artikel|document|\w*handleiding|boek|hoofdstuk|sectie|gids|rapport|proefschrift|inleiding|documentatie|tutorial|tekst|pakket|programma|software|klasse|bibliotheek)"
    r"|(?:эт(?:от|а|о)|данн\w\w)\s+(?:документ|руководство|книга|статья|глава|раздел|справочник|учебник|работа|введение|пакет|программа|библиотека))"
)
"""The document, or a part of it, in other languages."""
_SAYS = (
    r"(?:describ|introduc|present|discuss|explain|provid|cover|illustrat|show|review|gives?\b|summari|aims?\b|outlin|propos"
    r"|demonstrat|contains?\b|deals?\b|addresses|offers?|focus|concern|documents|implements|is (?:about|an?|the|intended|meant|for))"
)
ITSELF, ITSELF_ABROAD = regex(rf"\b{_THIS}\b"), regex(rf"\b{THIS_ABROAD}\b")
"""A sentence that speaks of the document it stands in, in English and not; in lower-case text."""
CUES = {
    "purpose": regex(  # the whole alone: a chapter says what that chapter is for
        rf"\b{_THIS}\s+(?:\w+\s+)?{_SAYS}|\bin (?:this|the present) (?:paper|article|work|vignette|thesis|report|study)\b"
        r"|\bwe (?:present|propose|describe|introduce|develop|discuss|illustrate|demonstrate|provide|give|review|outline|show how)\b"
        r"|\b(?<!same )(?:aim|purpose|goal|objective|intention|motivation|idea|mission)s?\b.{0,40}\b(?:is|are|was|were|of|to)\b"
        r"|\b(?:is|are|was|were) (?:designed|intended|meant|written|created|developed|aimed) (?:to|for|at|as|by)\b"
        r"|\b(?:dieses?|vorliegende[ns]?) (?:arbeit|handbuch|dokument|buch|text|einführung|anleitung|dokumentation|leitfaden)\b"
        r"|\b(?:cet?|cette) (?:article|document|manuel|livre|travail|thèse|guide|introduction|documentation|tutoriel)\b"
        r"|\best[ea] (?:art[íi]culo|documento|manual|libro|livro|trabajo|trabalho|guía|guia|introducción|introdução|documentación)\b"
        r"|\bquest[oa] (?:documento|manuale|guida|libro|articolo|introduzione|documentazione)\b",
    ),
    "result": regex(
        r"\b(?:results?|findings|analysis|comparison|experiments?|simulations?|estimates?) (?:show|suggest|indicate|reveal|confirm|demonstrate|are|imply)"
        r"|\bwe (?:found|find|conclude|observe|obtain|see)\b|\bit (?:turns out|can be seen|was found|appears|is shown)\b"
        r"|\b(?:outperforms?|performs? (?:well|better|best)|rose|fell|increased|decreased|improved) (?:by|to|from|than|the|over)?"
        r"|\bsignificant(?:ly)?\b",
    ),
    "limit": regex(
        r"(?<!strengths and )(?<!benefits and )(?<!advantages and )\b(?:limitations?|limited|drawbacks?|shortcomings?|disadvantages?|downsides?|caveats?|restricted to|weakness(?:es)?|known (?:problems|issues|bugs))\b"
        r"|\b(?:can ?not|is not|are not|does not|do not|not) (?:yet|currently|possible|supported|available|handle|feasible|cover|work)\b"
        r"|\b(?:no longer|too slow|rather slow|computationally (?:expensive|intensive)|problematic|only (?:an? )?approximat\w+|should be used with care|beware)\b",
    ),
    "conclusion": regex(
        r"\b(?:in (?:conclusion|summary|short|sum)|to (?:conclude|summari[sz]e|sum up)|overall|all in all|we conclude|we have (?:shown|presented|described|introduced|demonstrated)"
        r"|this (?:paper|article|vignette|work) (?:has|briefly|presented|introduced|described))\b",
    ),
    "next": regex(
        r"\b(?:future|further|next|planned|plans?|forthcoming|upcoming|to do|todo|remains? to be|left (?:for|to)|will be|would be (?:interesting|useful|desirable))\b"
        r".{0,60}\b(?:work|research|versions?|releases?|directions?|developments?|improvements?|extensions?|study|studies|steps?|added|implemented|done|include|support)\b"
        r"|\b(?:is|are) (?:under development|planned|imaginable|desirable)\b|\bfuture (?:work|research|versions?|directions?)\b",
    ),
    "method": regex(
        r"\b(?:method|approach|model|algorithm|procedure|technique|estimator|framework|strategy|technique|assum\w+|based on|is (?:defined|computed|estimated|calculated|obtained|fitted) (?:as|by|from|with|using))\b",
    ),
    "data": regex(
        r"\b(?:data ?sets?|the data|sample of|samples|observations|respondents|patients|participants|survey|census|records|cases (?:in|of|from)|measurements|collected|corpus|real[- ]world)\b",
    ),
    "why": regex(
        r"\b(?:motivat\w+|because|since there|lack of|no (?:existing|other|native|built-in)|in contrast to|existing (?:packages|software|implementations|tools|approaches|methods)|was (?:created|started|written|born|founded)|needed|reason (?:for|why)|problem (?:with|is|was))\b",
    ),
    "audience": regex(
        rf"\b{_THIS} (?:is|was) (?:\w+ )?for (?:\w+ ){{0,3}}?(?:{PEOPLE}|\w{{3,}}(?:ers|ors|ists))\b|"
        rf"\bfor (?:all |new |other )?{PEOPLE}\b|"
        r"\b(?:intended for|aimed at|readers? (?:who|should|are|is)|users who|if you are (?:new|a)|you should (?:already )?(?:know|be familiar)|(?<!not )familiar with|assumes?|prerequisites?|beginners?|newcomers?)\b",
    ),
    "needs": regex(
        r"\b(?:requires?|requirements?|prerequisites?|must (?:be|have) installed|needs? to be (?:installed|loaded)|you (?:will )?need|depends on|before you (?:begin|start)|first install|is available (?:from|at)|can be (?:downloaded|obtained|installed))\b",
    ),
    "procedure": regex(
        r"\b(?:to \w+ (?:a|an|the|your)\b.{0,60}\b(?:use|click|choose|select|run|type|press|call|enter|take|set|put|turn|open)|step \d+|the following (?:steps|command|commands)|proceed as|is (?:started|run|invoked|called) (?:by|with|from)|(?:is|are) (?:made|done|measured|taken|read|set|checked) (?:by|with|from|every|once|twice))\b",
    ),
    "warning": regex(
        r"\b(?:warning|caution|never|must not|do not|danger|be careful|note that|beware|important|make sure|otherwise)\b"
    ),
    "duty": regex(r"\b(?:shall|must|is required to|are required to|is obliged|has to|undertakes?|agrees? to|may not|shall not)\b"),
    "right": regex(r"\b(?:may\b(?! not)|is entitled|are entitled|has the right|is permitted|are permitted|is allowed|grants?|free to|permission)\b"),
    "definition": regex(
        r"\b(?:means?|refers? to|is defined as|are defined as|is called|are called|denotes?|is understood|shall mean)\b|[“\"][^”\"]{2,40}[”\"] (?:means|is|are)\b"
    ),
    "exception": regex(r"\b(?:except|unless|notwithstanding|provided that|does not apply|do not apply|other than|subject to|exempt\w*)\b"),
    "money": regex(r"[€$£¥]\s?\d|\b\d[\d,.]*\s?(?:per cent|percent|%|million|billion|euros?|dollars?|pounds?|days?|months?|years?)\b"),
    "decision": regex(r"\b(?:decided|resolved|agreed|approved|adopted|voted|elected|appointed|rejected|launched|introduced)\b"),
    "recommendation": regex(r"\b(?:recommend\w*|should|advis\w+|propos\w+|suggest\w*|ought to)\b"),
    "change": regex(
        r"\b(?:new (?:in|features?|functionality)|has been (?:added|removed|changed|replaced|renamed)|have been (?:added|removed|changed)|since (?:version|release)|no longer|was (?:added|changed)|now (?:also|supports?|allows?|requires?)|previously|earlier versions?|modified|outdated)\b",
    ),
    "remark": regex(r"\b(?:because|never|always|nothing|everything|nobody|everybody|reason|truth)\b"),
    "story": regex(r"\b(?:said|cried|asked|replied|went|came|died|married|killed|returned|found|born)\b"),
}  # fmt: skip
"""Wordings, to be looked for in lower-case text: three times as quick as without regard to case."""
OUTLINES = regex(
    r"\b(?:(?:sections?|chapters?|parts?|appendix) (?-i:\d+|[A-Z]|[IVX]+)(?:\.\d+)*"
    r"|the (?:remaining|following|other|next|subsequent|later|rest of the) (?:\w+ )?(?:sections|chapters|parts)(?: of (?:the|this) \w+)?)"
    r" (?:describ|introduc|present|discuss|explain|provid|cover|illustrat|show|review|gives?|contain|concludes?|deals?|outlines?)", re.I
)  # fmt: skip
"""A sentence that tells what a section does."""
