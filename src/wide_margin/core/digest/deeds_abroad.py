"""What a thing does, and who made it, asked and told in other languages than English."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from wide_margin.core.answers.quoting import told_by
from wide_margin.core.answers.within import rows_with, rows_within
from wide_margin.core.digest.articles import without_article
from wide_margin.core.digest.defined import MENTIONED, OF_SECTION
from wide_margin.core.digest.named import SAYS_NOTHING, content_of, rows_under
from wide_margin.core.digest.who_and_when import OF_MAKER
from wide_margin.core.later import regex

if TYPE_CHECKING:
    from wide_margin.core.answers import Answer
    from wide_margin.core.document import ReadDocument

_KINDS = (
    r"(?:befehls?|funktion|option|programms?|paket|makro|umgebung|parameter|variable|commande|fonction|programme|paquet|environnement"
    r"|paramètre|comando|función|opción|programa|paquete|entorno|parámetro|variable|funzione|opzione|programma|pacchetto"
    r"|ambiente|parametro|variabile|função|opção|pacote|parâmetro|variável|commando|functie|optie|pakket|kommandot?"
    r"|funktionen|programmet|paketet)"
)
_ARTICLE = r"(?:(?:d(?:er|ie|as|en|em)|l[aeo]s?|el|il|lo|[oa]s?|het|de)\s+|l['’]\s*)"
_NAMED = rf"(?:{_ARTICLE})?(?:{_KINDS}\s+)?(?P<name>[^?¿]{{2,60}}?)"
_DOES = regex(
    rf"^\W*(?:was\s+(?:macht|bewirkt|tut|leistet)|wozu\s+dient|que\s+fait|à\s+quoi\s+sert|qué\s+hace|para\s+qué\s+sirve"
    rf"|(?:che\s+)?cosa\s+fa|(?:a\s+(?:che\s+)?)?cosa\s+serve|o\s+que\s+faz|para\s+que\s+serve|wat\s+doet|waarvoor\s+dient"
    rf"|vad\s+gör|hvad\s+gør|hva\s+gjør|что\s+делает|для\s+чего\s+(?:нуж\w+|служит|предназначен\w*)|co\s+robi|do\s+czego\s+służy"
    rf"|co\s+dělá|k\s+čemu\s+slouží"
    r"|(?:was\s+(?:bedeutet|heißt)|que\s+(?:signifie|veut\s+dire)|qué\s+(?:significa|quiere\s+decir)|(?:che\s+)?cosa\s+significa"
    rf"|o\s+que\s+significa|wat\s+betekent)(?=\s+(?:{_ARTICLE})?{_KINDS}\s))\s+{_NAMED}\W*$", re.I
)  # fmt: skip
"""Asks what something does; of a command or an option, what it means is that."""
_MADE = (
    r"(?:entwickelt|geschrieben|erfunden|geschaffen|programmiert|entworfen|verfasst|erdacht|gebaut|gegründet"
    r"|écrite?s?|créée?s?|développée?s?|inventée?s?|conçue?s?|fondée?s?|réalisée?s?"
    r"|escrit[oa]s?|cread[oa]s?|desarrollad[oa]s?|inventad[oa]s?|diseñad[oa]s?|fundad[oa]s?"
    r"|scritt[oaie]|creat[oaie]|sviluppat[oaie]|inventat[oaie]|ideat[oaie]|progettat[oaie]|realizzat[oaie]|fondat[oaie]"
    r"|criad[oa]s?|desenvolvid[oa]s?|projetad[oa]s?"
    r"|geschreven|ontwikkeld|gemaakt|bedacht|ontworpen|utvecklat|utvecklades|skriven|skrivet|skapat|skapades"
    r"|entwickelte|schrieb|erfand|schuf|écrivit|créa|escribió|creó|desarrolló|inventó|diseñó|scrisse|creò|ideò|escreveu|criou"
    r"|desenvolveu|inventou|skrev|skapade|utvecklade)"
)
_ASKS_WHO = regex(
    rf"^\W*(?:wer\s+(?:hat|haben)|von\s+wem\s+(?:wurde|ist)|qui\s+a|par\s+qui\s+a\s+été|chi\s+ha|da\s+chi\s+è\s+stat[oa]|wie\s+heeft"
    rf"|(?:qui[eé]n(?:es)?|quem|vem|chi|wer|qui|wie)(?=\s+{_MADE}))\s+(?P<before>{_MADE}\s+)?(?P<name>\S.{{0,60}}?)(?(before)|\s+{_MADE})\W*$",
    re.I,
)
"""Asks who made something."""
_NAME = r"(?-i:(?<![\w’'-])[A-ZÀ-Þ][\w’'-]+\.?(?:\s+(?:(?:van|von|de|da|del|di|der|den|le|la)\s+)*[A-ZÀ-Þ][\w’'.-]*)+)"
_BY = r"(?:von|par|por|dal?|pelo|pela|door|av|af)"
_BY_ONE = regex(
    rf"\b(?:{_MADE}\b.{{0,60}}?\b{_BY}\s+{_NAME}|\b{_BY}\s+{_NAME}.{{0,80}}?\b{_MADE}\b)", re.I
)
"""It was made by somebody."""
_WAS = r"(?:été|est|sont|était|sido|es|fue|son|é|foi|são|è|sono|stat[oaie]|ist|sind|wurden?|worden|werden|is|werd|är|blev)"
"""Says that it was made, and not that it made something."""
_ONE_DID = regex(
    rf"{_NAME}\s+(?:(?:hat|haben|a|ha|hanno|ont|heeft)\s+)?(?:(?:(?!\b{_WAS}\b).){{0,60}}?\s)?{_MADE}\b",
    re.I,
)
"""Somebody made it."""
_MAY = (
    r"(?:kann|können|muss|müssen|sollte[n]?|darf|dürfen|peu(?:t|vent)|doi(?:t|vent)|puede[n]?|debe[n]?|può|possono"
    r"|dev(?:e|ono)|pode[m]?|devem|kan|kunnen|moet(?:en)?|может|могут|можно|должн\w+|może|mogą|można|musi|může|mohou|lze)\b"
)
"""Begins what can or must be done with a thing, and not what it does itself."""
_QUOTES, MOST_SAID = " “”\"«»„‘’'", 3
"""What may stand around a name; and sentences that are quoted of what stands under it."""
NEAR = 60
"""Letters before what says by whom a thing was made within which the thing is named."""


def with_deeds_abroad(document: ReadDocument, answer: Answer) -> Answer:
    """The answer with what says what a thing does, or who made it, where it is asked for abroad.

    Of a question in English, and of one that nothing answers so, it stays as it is; of who made
    something it is less sure then.
    """
    if answer.reach.kind != "document" or document.index.language == "en":
        return answer
    if (asked := _DOES.match(answer.question)) is not None:
        return _doing(document, answer, asked["name"])
    if (asked := _ASKS_WHO.match(answer.question)) is not None:
        return _making(document, answer, asked["name"])
    return answer


def asks_who_abroad(typed: str) -> bool:
    """Whether a question in another language asks who made something."""
    return _ASKS_WHO.match(typed) is not None


def _doing(document: ReadDocument, answer: Answer, name: str) -> Answer:
    """The answer with the first sentence that begins with a thing and goes on."""
    thing = re.escape(without_article(name).strip(_QUOTES))
    head = rf"(?![>$#%]\s)\W*(?:{_ARTICLE})?(?:{_KINDS}\s+)?[\W_]*{thing}(?!\w)(?:\s*[\[{{(][^\]}})]*[\]}})])*"
    begins = re.compile(
        rf"{head}(?:\s+(?!{_MAY})|\s*(?:[-–—:]|\s:)\s+)[^\W\d_]+[’']?[^\W\d_]*,?\s+\S+\s+\S", re.I
    )
    rows = rows_with(document, sorted(content_of(document, name)))
    told = rows_within(document, answer.quotes[0].locators[0].spans) if answer.quotes else []
    if told and begins.match(document.text.sentences[told[0]].text):
        return replace(answer, sure=max(answer.sure, OF_SECTION))
    for row in rows:
        sentence = document.text.sentences[row]
        if sentence.kind in ("body", "item", "entry") and begins.match(sentence.text):
            return told_by(document, answer, row, row + 1, OF_SECTION)
    if any(begins.match(document.text.sentences[row].text) for row in told):  # as in a table
        return replace(answer, sure=max(answer.sure, OF_SECTION))
    under = rows_under(document, without_article(name).strip(_QUOTES))
    if len(under) > 1 and not set(told) & set(under):  # "BCOR=Korrektur" over what it does
        return told_by(
            document, answer, under.start, min(under.start + MOST_SAID, under.stop), OF_SECTION
        )
    return answer


def _making(document: ReadDocument, answer: Answer, name: str) -> Answer:
    """The answer with what says by whom a thing was made; at most the nearest where nothing does."""
    terms, wanted = document.index.analyser.terms, content_of(document, name)
    for row in rows_with(document, sorted(wanted)):
        said = document.text.sentences[row]
        if said.kind in SAYS_NOTHING:
            continue
        made, did = _BY_ONE.search(said.text), _ONE_DID.search(said.text)
        spoken_of = [said.text[max(0, made.start() - NEAR) : made.end()]] if made else []
        spoken_of += [said.text[did.start() : did.end() + NEAR]] if did else []
        if any(wanted <= set(terms(text)) for text in spoken_of):
            return told_by(document, answer, row, row + 1, OF_MAKER)
    return replace(answer, sure=min(answer.sure, MENTIONED))
