"""Questions about the whole document in other languages than English.

Each wording stands for the whole question, but for the small words of its language and the names
that a document goes by: with a word of its own beside, a question is one for a fact.
"""

import re

from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives

_FILLERS = (
    r"(?:hier|es|in|im|um|von|für|dies\w*|das|der|die|dem|den|des|ist|sind|wird|wurde|ein\w*|dokument\w*|handbuch\w*|buch\w*|text\w*|bericht\w*|artikel\w*|arbeit"
    r"|aufsatz\w*|anleitung|schrift|kurz|bitte|mir|inhalt|ganze\w*"
    r"|ici|il|elle|de|du|des|d|l|la|le|les|un|une|ce|cet|cette|dans|en|pour|est|sont|été|a|document|manuel|livre|texte|rapport|article|guide|thèse|mémoire"
    r"|cours|moi|bref|quelques|mots|s|qu|t|on"
    r"|aquí|el|los|las|lo|esto|est[ea]|del|es|son|fue|ha|sido|para|documento|manual|libro|texto|informe|artículo|guía|tesis|breve|por|favor"
    r"|qui|il|lo|gli|questo|questa|di|della|dello|è|sono|stato|stata|per|documento|manuale|libro|testo|rapporto|articolo|guida|tesi"
    r"|aqui|o|os|as|este|esta|isto|do|da|dos|das|foi|livro|texto|relatório|artigo|guia|tese"
    r"|het|dit|deze|van|voor|is|zijn|werd|boek|tekst|verslag|artikel|handleiding|gaat|over)"
)
_WORDINGS = {
    "about": r"worum geht|um was geht|wovon handelt|was steht|was ist der inhalt|worüber|fass\w*(?: \w+){0,3} zusammen|zusammenfassung|überblick"
             r"|de quoi (?:parle|traite|s.agit|est|il)|quel est le (?:sujet|contenu)|résum\w+|que dit|en bref"
             r"|de qué (?:trata|habla|va)|cuál es el (?:tema|contenido)|resum\w+|qué dice"
             r"|di (?:che )?cosa (?:parla|tratta|si tratta)|qual è (?:il|l.) ?(?:tema|argomento|contenuto)|riassum\w+|riassunto"
             r"|de que (?:trata|fala|se trata)|sobre o que é|qual é o (?:tema|assunto)"
             r"|waar gaat|waarover gaat|vat(?: \w+){0,3} samen|samenvatting",
    "authors and date": r"wer (?:ist der autor|ist die autorin|sind die autor\w+|schrieb)|wer hat(?: \w+){0,3} (?:geschrieben|verfasst|herausgegeben)|von wem|wann erschien|wann (?:wurde|ist)(?: \w+){0,3} (?:geschrieben|erschienen|veröffentlicht)"
             r"|qui (?:a écrit|est l.auteur|sont les auteurs|en est l.auteur)|quand a(?:-t-il)?(?: \w+){0,3} (?:écrit|publié|paru)"
             r"|quién(?:es)? (?:escribió|es el autor|es la autora|son los autores|ha escrito)|cuándo (?:se )?(?:escribió|publicó)|cuándo fue(?: \w+){0,3} (?:escrito|publicado)"
             r"|chi (?:ha scritto|è l.autor\w+|sono gli autori)|quando è stat[oa](?: \w+){0,2} (?:scritt[oa]|pubblicat[oa])"
             r"|quem (?:escreveu|é o autor|são os autores)|quando foi(?: \w+){0,2} (?:escrito|publicado)"
             r"|wie (?:schreef|is de auteur|zijn de auteurs)|wie heeft(?: \w+){0,3} geschreven|wanneer (?:is|werd)(?: \w+){0,3} (?:geschreven|verschenen)",
    "audience": r"für wen|an wen (?:richtet|wendet) sich|wer soll\w*(?: \w+){0,3} lesen|à qui s.adresse|pour qui|a quién (?:va|está) dirigid[oa]|para quién|a chi (?:è rivolt[oa]|si rivolge)|per chi"
             r"|a quem se (?:destina|dirige)|para quem|voor wie",
    "purpose": r"was ist (?:das ziel|der zweck)|wozu dient|welche\w* zweck|quel est (?:le but|l.objectif)|à quoi sert|cuál es (?:el objetivo|el propósito)|para qué sirve|qual è (?:lo scopo|l.obiettivo)|a (?:che )?cosa serve"
             r"|qual é (?:o objetivo|o propósito)|para que serve|wat is het doel|waarvoor dient",
    "licence": r"(?:unter )?welche\w? lizenz|sous quelle licence|quelle est la licence|bajo qué licencia|cuál es la licencia|con quale licenza|sob que licença|onder welke licentie",
    "conclusion": r"was ist (?:das fazit|die schlussfolgerung)|fazit|quelle est la conclusion|cuál es la conclusión|qual è la conclusione|qual é a conclusão|wat is de conclusie",
}  # fmt: skip
_KINDS = {
    kind: regex(rf"^\W*(?:{wording})(?:[\s’']+{_FILLERS})*\W*$", re.I)
    for kind, wording in _WORDINGS.items()
}
CONDENSES = regex(
    r"\b(?:fass\w*|zusammen\w*|worum|geht|es|résum\w+|parle|traite|resum\w+|trata|riassum\w+|samenvat\w*|vat|samen|gaat)\b", re.I
)  # fmt: skip
"""Words with which one asks what a part says."""
PART = regex(
    rf"\b(?P<word>{alternatives('section', 'chapter', 'part', 'appendix', in_text=True)})"
    r"\s*(?P<id>\d+(?:\.\d+)*|[IVXLC]+\b|[A-Z]\b)", re.I,
)  # fmt: skip


_WHEN = regex(r"^\W*(?:wann|quand|cuándo|quando|wanneer)\b", re.I)


def in_english(text: str) -> str:
    """A question after authors or date as it is put in English: the facts go by that."""
    return "when was it written?" if _WHEN.match(text) else "who wrote it?"


def kind_abroad(text: str) -> str:
    """Which question about the whole a text asks in another language; "" for none."""
    return next((kind for kind, pattern in _KINDS.items() if pattern.match(text)), "")
