"""Reading a question: what kind of answer it wants."""

import re
from dataclasses import dataclass

from wide_margin.core.answers.terms_abroad import term_abroad
from wide_margin.core.later import regex

_MEASURES = (
    r"port|time-?out|threshold|resolution|capacity|voltage|angle|radius|diameter|volume|mass|density|pressure"
    r"|altitude|latitude|longitude|population|probability|dos(?:e|age)|delay|budget|average"
)
"""What is told in figures."""
_WHAT_IN_GERMAN = (
    r"was (?:ist|sind|wars?|waren|bedeut\w*|hei(?:ß|ss)\w*|versteht|mach(?:t|en)|tut|tun|passiert|geschieht|kann|können|muss|müssen|soll\w*|darf"
    r"|dürfen|wird|werden|wurden?|hat|haben|gibt|gehör(?:t|en)|steht|stehen|gilt|gelten|bewirk(?:t|en)|enthält|enthalten|brauch(?:t|en|e)|benötig\w*"
    r"|unterscheidet|kostet|zeigt|liefert|bietet|leistet|fehlt|folgt|sagt|regelt|zählt|umfasst|bringt|hilft|nützt|bezeichnet|beschreibt)\b"
)
"""Begins a question in German that is no question whether something was."""
_WHEN_CALLED = r"\s+(?:is|are|was|were)\s.*\b(?:called|termed|known as|said to be)\s+(?:an?\s+)?\S+(?:\s\S+)?\s*\?*$"
"""Behind "when": asks what something is that has a name, and for no time."""
_KINDS: tuple[tuple[str, re.Pattern[str]], ...] = tuple(
    (kind, regex(pattern, re.I))
    for kind, pattern in (
        ("where", r"^(?:in |on |under )?(?:which|what) (?:section|chapter|part|page|appendix|annex|figure|table|heading)\b(?!\s+(?:should|must)\b)"
                  r"|^where (?:can|could|do|should|would) (?:i|we|one|you) (?:read|find out|learn|look)\b"
                  r"|^where does (?:it|the \w+) (?:say|tell|explain|describe)\b"
                  r"|^where (?:does|do|is|are|can i (?:find|read|look)|in)\b.*\b(?:manual|handbook|document|text|book|paper"
                  r"|report|essay|guide|thesis|policy|list|described|discussed|explained|section|chapter|begin)\b"
                  r"|^where (?:are|is) the (?:\w+ )?(?:requirements?|rules?|instructions?|guidelines?|conditions|explanations?|descriptions?"
                  r"|definitions?|details|advice|tables?|figures?|formula|procedures?)\b"
                  r"|^(?:in welchem|dans quel(?:le)?) (?:abschnitt|kapitel|section|chapitre)"),
        ("compare", r"\bdifference between\b|\bcompare[ds]?\b|\bversus\b|\bvs\b|\bdiffers? from\b"),
        ("how often", r"^how (?:often|frequently|regularly)\b|\bhow many times\b|^wie oft\b|^combien de fois\b"),
        ("how many", r"\bhow (?:many|much|long|far|large|big|high|deep|old|fast|heavy|wide|tall|soon|late|close|hot|cold|few|small)\b"
                     r"|\b(?:what|which) (?:number|percentage|share|size|value|tolerance|limit|length|width|height|depth|distance|amount"
                     r"|cost|price|rate|speed|temperature|frequency|interval|duration|range|fraction|ratio|weight|maximum|minimum"
                     rf"|{_MEASURES})\b"
                     r"|^what (?:is|was|are|were) (?:the|its|their) (?:[\w’'-]+ ){0,3}(?:number|percentage|size|length|width|height|depth"
                     r"|distance|amount|cost|price|fees?|payments?|salary|rate|speed|temperature|interval|duration|weight|age|value"
                     rf"|{_MEASURES})\b"
                     r"|^wie ?viele?\b|^combien\b|^cuánt[oa]s?\b|\bat (?:most|least) how\b"),
        ("when", rf"^when\b(?!{_WHEN_CALLED})(?!.*,\s*(?:which|what|who|how|where|is|are|do|does|can|should)\b)|\b(?:what|which) (?:year|date|day|month|time|century)\b|\bsince when\b|^wann\b|^quand\b|^cuándo\b"),
        ("who", r"^who(?:se|m)?\b|\b(?:which|what) (?:person|people|author|editor|institution|company|organi[sz]ation|keeper|officer|role)\b"
                r"|^by whom\b|^wer\b|^wem\b|^qui\b|^quién"),
        ("list", r"^(?:list|name|enumerate)\b|\b(?:what|which) are (?:the|all|its|their)\b|\b(?:which|what) (?:\w+ ){0,2}\w+s (?:are|have|must|should|can|may|do|does|did|showed|show|were|need|belong|count)\b"
                 r"|\bwhat (?:kinds|types|sorts|steps|options|reasons|conditions|requirements|parts)\b"
                 r"|^(?:in )?(?:which|what) (?:two|three|four|five|six|seven|eight|nine|ten|\d+) \w+"
                 r"|^what is (?:not )?(?:allowed|forbidden|permitted|required|needed)\b"),
        ("what is", r"^what(?:'s| is| are| does)\b.{0,60}\b(?:mean(?=\s*(?:$|[?,]|by\b|in\b|for\b|when\b|to\b|that\b|here\b|under\b|with))"
                    r"|meant\b|stand for\b|defined\b|definition\b)|^define\b|\bmeaning of\b|\bwhat is meant\b"
                    rf"|^when\b{_WHEN_CALLED}"
                    r"|^what(?:'s| is| are) (?!.*\b(?:called|named)\??$)(?:an?|the term)? ?[\w'’“” -]{1,40}\??$|^was (?:ist|sind|bedeutet)\b|^qu[’']est-ce\b|^qué es\b"),
        ("how to", r"^how (?:do|can|should|must|would|to|does one|is one|may)\b|\bwhat (?:should|must|do) (?:i|we|one|you) do\b|\bsteps?\b.*\bto\b|^wie (?:kann|muss|soll|macht|\w+ (?:ich|man|wir))\b|^comment\b|^cómo\b"),
        ("why", r"^why\b|\bwhat (?:is|was) the reason\b|\bfor what reason\b|\bhow come\b|^warum\b|^weshalb\b|^pourquoi\b|^por qué\b"),
        ("yes or no", rf"^(?!{_WHAT_IN_GERMAN})(?:is|are|was|were|do|does|did|can|could|may|must|should|would|will|has|have|am|might)\b"),
    )
)  # fmt: skip


_ABROAD: tuple[tuple[str, re.Pattern[str]], ...] = tuple(
    (kind, regex(rf"^(?:{pattern})", re.I)) for kind, pattern in (
        ("how many", r"(?:cuánt|quant)[oiae]s?\b|quants?\b|πόσ[οαηωε]\w*|hoeveel\b|hur (?:många|mycket|lång[ta]?|ofta)\b|hvor (?:mange|meget|mye|lang|ofte)\b"
                     r"|kuinka (?:monta|paljon|kauan|usein)\b|montako\b|ile\b|kolik\b|hány\b|mennyi\w*|câ[tț][iae]?\b|сколько\b|скільки\b"
                     r"|kaç\b|いくつ|何[個人本回枚冊]|多少|几[个個次]|몇|얼마"),
        ("when", r"(?:desde )?(?:cuándo|quando)\b|seit wann\b|depuis quand\b|wanneer\b|när\b|hvornår\b|når\b|milloin\b|kiedy\b|kdy\b"
                 r"|mikor\b|când\b|quan\b|когда\b|коли\b|πότε\b|ne zaman\b|いつ|什么时候|什麼時候|何时|何時|언제"),
        ("who", r"quién(?:es)?\b|chi\b|quem\b|vem\b|hvem\b|kuka\b|ketkä\b|kto\b|kdo\b|ki(?:k)?\b|cine\b|qui (?:és|són|ha|va|pot)\b|кто\b|хто\b|ποι[οό][ςιύ]\b|誰|谁|누가|누구"),
        ("what is", r"qué (?:es|son|significa)\b|(?:che )?cos['’]è\b|che cosa (?:è|sono|significa)\b|o que (?:é|são|significa)\b|wat (?:is|zijn|betekent)\b"
                    r"|vad (?:är|betyder)\b|hvad (?:er|betyder)\b|hva (?:er|betyr)\b|mikä on\b|co to (?:jest|je)\b|czym jest\b|co je\b|mi az?\b"
                    r"|ce este\b|què (?:és|són|significa|vol dir)\b|что такое\b|що таке\b|τι (?:είναι|σημαίνει)\b|什么是|什麼是"),
        ("why", r"por ?qu[eé]\b|perch[eé]\b|waarom\b|varför\b|hvorfor\b|miksi\b|dlaczego\b|proč\b|miért\b|de ce\b|per què\b|почему\b|зачем\b|чому\b|γιατί\b"
                r"|neden\b|なぜ|どうして|为什么|為什麼|왜"),
        ("list", r"welche\b.*\bgibt es\b|welche \w+ (?:werden|sind|kann|können|gehören)\b|quel(?:le)?s (?:sont|\w+ (?:sont|existent|peut|peuvent|faut))\b"
                 r"|cuáles son\b|qué \w+s (?:hay|existen|son|se)\b|quali (?:sono\b|\w+ (?:sono|esistono|ci|si|vengono|possono)\b)"
                 r"|quais (?:são\b|\w+ (?:são|existem|há)\b)|welke (?:zijn\b|\w+ (?:zijn|worden|kan|kunnen)\b)"),
        ("how to", r"cómo\b|come (?:si|posso|devo|faccio|\w{3,}o)\b|como\b|hoe (?:kan|moet|wordt|doe)\b|hur (?:gör|kan|ska)\b|hvordan\b|miten\b|jak\b"
                   r"|hogyan\b|cum\b|com (?:puc|es|cal|he|podem|faig|\w{3,}o)\b|как\b|як\b|πώς\b|nasıl\b|どうやって|どのように|如何|怎么|怎麼|怎样|怎樣|어떻게"),
    )
)  # fmt: skip
"""The words with which questions begin in other languages than those above."""
_CLOSED = regex(
    rf"(?!{_WHAT_IN_GERMAN})(?:is|are|was|were|do|does|did|can|could|may|must|should|would|will|has|have|am)\b",
    re.I,
)
_OPEN = frozenset({"how often", "how many", "when", "who", "list", "what is", "how to", "why"})
"""Kinds that a question which begins like "Does …" is not of: "Does it say how much …"."""


@dataclass(frozen=True, slots=True)
class Question:
    """A question as typed, and the kind of answer it wants."""

    text: str
    kind: str


_ABOUT_THE_BOOK = regex(
    r"\b(?:sections?|chapters?|parts?|pages?|appendix|annex|manual|handbook|document|book|paper|report|essay|guide|thesis"
    r"|deals?|dealing|tells?|explains?|explained|describes?|described|discuss(?:es|ed)?|covers?|covered|says?|sets?|gives?"
    r"|lists?|listed|contains?|mentions?|mentioned|read|find|found|look|begins?|starts?|rules?|information|about)\b", re.I
)  # fmt: skip


_HOW = regex(
    r"\bhow (?:often|long|many|much|far|old|frequently|large|big)\b|\bhow many times\b", re.I
)  # fmt: skip


_MEANS = regex(
    r"\b(?:meant|understood) by\b|\bmeaning of\b|\b(?:mean|stand|stands) (?:for|by|in|when)\b|\bmean\s*\?*$"
    r"|\b(?:definition|defined)\b|\bstands? for\b|\bit mean\b|\bthe (?:term|word|abbreviation)\b|\bwhat (?:is|are|does)\b"
    r"|\b(?:(?:also|otherwise|else|better|sometimes) )*(?:known|referred to) as\b|\b(?:good|useful) for\W*$", re.I
)  # fmt: skip
_LIGHT = regex(
    r"\b(?:t(?:akes?|aken|aking|ook) (?:part|place)|carr(?:y|ies|ied|ying) out"
    r"|(?:gets?|got|getting|stands?|stood|come|comes|came) in (?:the|its|their|your|my) way"
    r"|(?:bring|brings|brought|come|comes|came) about|turn(?:s|ed|ing)? out|end(?:s|ed)? up"
    r"|(?:find|finds|found) out|(?:make|makes|made) sure|make (?:no )?sense|no longer|for good|for certain|in all"
    r"|at all|at once|in total|all in all|in the end|as a whole|of course|so to speak|altogether|really|actually"
    r"|exactly|anyway|ever)\b|(?<=\bwhat )(?:kind|sort|type) of\b|(?<=\bwhich )(?:kind|sort|type) of\b", re.I
)  # fmt: skip
"""Phrases in which no word says what is asked about."""
_SAYS = regex(
    r"\baccording to (?:the|this) (?:manual|handbook|document|text|book|paper|report|guide|authors?)\b"
    r"|\b(?:does|do|did) (?:the|this) (?:manual|handbook|document|text|book|paper|report|guide|authors?)"
    r" (?:say|tell|mention|explain|describe|give|state|recommend|suggest)\b"
    r"|\b(?:is|are|was|were) (?:described|mentioned|named|called|referred to) as\b", re.I
)  # fmt: skip


_WORKS = regex(
    r"^(how (?:does|do|did|would|will)\s+(?!(?:i|you|we|one)\b)\S+.*?)(?<!\ba)(?<!\ban)(?<!\bthe)(?<!\bthis)"
    r"\s+(?:actually |really )?(?:works?|functions?|operates?)"
    r"(?=\W*$|\s+(?:in|with|for|on|under|at|here|when|if|internally)\b)", re.I
)  # fmt: skip
"""What is asked about, without the verb that only asks for a description."""


def topic_of(question: Question) -> str:
    """The question without the words that only speak of its kind or of the document's parts."""
    if question.kind == "what is":
        rest = _MEANS.sub(" ", question.text)
        return rest if re.search(r"\w{2,}", rest) else question.text
    if question.kind != "where":
        plain = _WORKS.sub(r"\1", question.text)
        rest = _LIGHT.sub(" ", _SAYS.sub(" ", _HOW.sub(" ", plain)))
        return rest if re.search(r"\w{3,}", rest) else question.text
    rest = _ABOUT_THE_BOOK.sub(" ", question.text)
    return rest if re.search(r"\w{4,}", rest) else question.text


def read_question(text: str) -> Question:
    """Tell what kind of answer a question wants; "general" where its words do not say."""
    plain = " ".join(text.split())
    asked = plain.lstrip("¿¡ ")
    is_closed = _CLOSED.match(asked) is not None
    for kind, pattern in _KINDS:
        if pattern.search(asked) and not (is_closed and kind in _OPEN):
            return Question(plain, kind)
    for kind, pattern in _ABROAD:
        if pattern.match(asked):
            return Question(plain, kind)
    return Question(plain, "what is" if term_abroad(asked) else "general")
