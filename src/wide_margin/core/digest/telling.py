"""Wordings that decide what a sentence tells of its document, beside those that only may.

A cue of ``roles.CUES`` is a word that such sentences have, and many others too: "required",
"because". What stands here is said by hardly any sentence that does not tell it. All of it is
looked for in lower-case text.
"""

import re
from functools import lru_cache
from re import Pattern, escape
from typing import NamedTuple

from wide_margin.core.digest.roles import PEOPLE
from wide_margin.core.later import regex

_DOCUMENT = (
    r"(?:this|the present|the current|our)\s+(?:\w+\s+)?(?:paper|article|document|documentation|manual|guide|handbook"
    r"|thesis|dissertation|report|book|booklet|vignette|work|study|essay|text|tutorial|policy|standard|specification"
    r"|agreement|licen[sc]e|newsletter|survey|notes?|primer|introduction|faq|draft|proposal|memo|white ?paper|leaflet|brochure)"
)
_TELLS = (
    r"(?:describ|introduc|present|discuss|explain|provid|cover|illustrat|review|gives?\b|summari|aims?\b|outlin|propos"
    r"|demonstrat|contains?\b|deals?\b|addresses|offers?|focus|concern|documents\b|defines?\b|specif|sets? out|examin"
    r"|clarif|compar(?:es|ing)\b|reports?\b|reviews\b|surveys\b|shows? (?:how|you|that)\b|attempts?\b|seeks?\b|serves?\b"
    r"|investigat|analy[sz]es|studies|is (?:about|an?|the|intended|meant|designed|aimed|concerned)\b)"
)
_WE_DO = (
    r"(?:present|propose|describe|introduce|develop|discuss|illustrate|demonstrate|provide|give|review|outline|show"
    r"|study|analy[sz]e|investigate|examine|explore|address|report|compare|characteri[sz]e|evaluate|survey)"
)
_MEASURED = r"(?:results?|findings?|analysis|analyses|experiments?|evaluation|simulations?|comparisons?|tests?|data)"
_SHOWS = r"(?:shows?|showed|suggests?|suggested|indicates?|indicated|reveals?|revealed|confirms?|confirmed|demonstrates?|impl(?:y|ies))\b"
_OBSERVED = (
    r"(?:patients|participants|respondents|subjects|observations|samples|users|individuals|records|students"
    r"|stations|species|sites|households|volunteers|countries)"
)

_THIS_IS = (
    r"^\W*(?:this is (?:the|an?) (?:[\w-]+ ){0,3}?"
    r"(?:manual|guide|handbook|documentation|tutorial|introduction|reference|primer|description|specification) (?:to|for|of|on|about)"
    r"|(?:dies|das|hier) ist (?:das|die|der|eine?) (?:[\w-]+ ){0,3}?(?:\w*handbuch|\w*anleitung|dokumentation|leitfaden|einführung|\w*beschreibung)"
    r"|(?:ceci est|voici|c['’]est) (?:le|la|une?) (?:\w+ ){0,2}?(?:manuel|guide|documentation|tutoriel|introduction|notice|description)"
    r"|(?:est[aeo]|isto) (?:es|é) (?:el|la|una?|[oa]|uma?) (?:\w+ ){0,2}?(?:manual|guía|guia|documentación|documentação|tutorial|introducción|introdução)"
    r"|quest[oa] è (?:il|la|una?) (?:\w+ ){0,2}?(?:manuale|guida|documentazione|tutorial|introduzione)"
    r"|dit is (?:de|het|een) (?:[\w-]+ ){0,3}?(?:\w*handleiding|gids|documentatie|inleiding|handboek)"
    r"|(?:detta|dette|det här) (?:är|er) (?:en |ett |et )?(?:\w+ ){0,2}?(?:\w*manual|\w*manualen|handbok|handboken|håndbok|guide|dokumentation)"
    r"|(?:to|oto) jest (?:\w+ ){0,2}?(?:podręcznik|przewodnik|instrukcja|dokumentacja)"
    r"|t(?:o|oto) je (?:\w+ ){0,2}?(?:příručka|průvodce|manuál|dokumentace|návod)"
    r"|(?:это|це) (?:\w+ ){0,2}?(?:руководство|документация|учебник|справочник|посібник|документація|підручник|довідник))\b"
)
"""Says of what sort the document is and goes on with what it is on: "This is the manual of …"."""

OF_DOCUMENT = regex(rf"^\W*(?:in )?{_DOCUMENT}\b")
"""Begins a sentence that speaks of the document, and not of the thing that it is on."""
OF_READERS = regex(
    rf"^\W*(?:in )?{_DOCUMENT}\s+(?:\w+ly\s+|also\s+)?(?:assumes|expects|requires|presumes|supposes)\b"
)
"""Begins one that says what its readers bring with them."""

_CONCLUDE = (
    r"conclude(?! (?:this|by|with|in section|the (?:paper|article|section|chapter|example)))"
)
"""Says what follows from all of it, and not how it ends: "we conclude with a few remarks"."""
_SMALL_PART = (
    r"(?:the|this|an?|each|every|these|those)\s(?:\w+\s)?"
    r"(?:routine|subroutine|function|method|procedure|option|command|parameter|argument|variable|field|button|menu|dialog(?:ue)?"
    r"|window|flag|step|loop|table|figure|chapter|section|appendix|exercise|rule|class|script|macro|line|column|test)s?\b"
)
"""Something of which a document has many: what that is for is not what the document is for."""
_NO_CASE = r"(?<!\bif )(?<!\bwhen )(?<!\bwhere )(?<!\bthat )(?<!\bwhich )"
"""Before what is told of the document: "When this agreement covers two works" tells a case."""
TELLING: dict[str, Pattern[str]] = {
    "purpose": regex(
        rf"{_NO_CASE}\b{_DOCUMENT}\s+(?:\w+ly\s+|also\s+)?{_TELLS}|{_THIS_IS}"
        rf"|\bin {_DOCUMENT}\W+(?:\w+\W+){{0,3}}?we\s+(?:\w+ly\s+)?{_WE_DO}\b"
        rf"|^\W*the (?:\w+ ){{0,2}}(?:aim|purpose|goal|objective|object)s? of (?!{_SMALL_PART})(?:this \w+|[“\"‘][^”\"’]{{3,60}}[”\"’]) (?:is|was) to\b"
        r"|\b(?:dieses?|vorliegende[ns]?) (?:arbeit|handbuch|dokument|buch|text|bericht)\b.{0,40}"
        r"\b(?:beschreib|behandelt|erklärt|versucht|will|soll|ist|stellt|gibt|richtet)"
        r"|\b(?:cet?|cette) (?:article|document|manuel|livre|travail|thèse|rapport|guide)\b.{0,30}"
        r"\b(?:décri|présent|expli|propos|vise|est|trait)"
        r"|\best[ea] (?:art[íi]culo|documento|manual|libro|livro|trabajo|trabalho|guía|tesis)\b.{0,30}"
        r"\b(?:descr[ei]|a?presenta|expli|propo|trata|aborda|es|tiene|tem)"
        r"|\bquest[oa] (?:\w+ )?(?:documento|manuale|guida|libro|articolo|tutorial|rapporto|tesi|testo)\b.{0,30}"
        r"\b(?:descri|present|spiega|tratta|illustra|fornisc|cerca di|intend|vuole|è (?:un|il|la|rivolt|destinat))"
        r"|\b(?:dit|deze) (?:\w+ )?(?:document|handleiding|boek|gids|artikel|rapport|proefschrift|scriptie)\b.{0,30}"
        r"\b(?:beschrijft|behandelt|geeft|legt|is een|gaat over|bevat)"
        r"|\b(?:den här|det här|denna|detta|denne|dette) (?:\w+ )?(?:manual|manualen|bok|boken|dokument|dokumentet|guide|guiden|handbok|håndbok|artikel|rapport)\w*\b.{0,30}"
        r"\b(?:beskriv|behandla|behandler|ger|gir|giver|är en|er en|innehåller|handlar|forklarer|förklarar)"
        r"|\b(?:ten|to|niniejsz\w+|ta|tato|tento|toto) (?:\w+ )?(?:dokument|podręcznik|książka|artykuł|przewodnik|wprowadzenie|opracowanie|instrukcja|příručka|manuál|kniha|článek)\b.{0,30}"
        r"\b(?:opis|przedstaw|zawiera|omawia|popis|obsahuje|jest|je )"
        r"|\b(?:эт(?:от|а|о|ом|ой)|данн\w+|настоящ\w+) (?:документ|руководств|книг|стать|учебник|пособи|работ)\w{0,3}\b.{0,30}"
        r"(?:опис|представл|содерж|посвящ|рассматр|предназнач|расска|объясн)"
        r"|(?:この|本)(?:文書|マニュアル|ガイド|書|論文|チュートリアル|ドキュメント|資料|稿|手引き|記事)(?:で)?は"
        r"|本[篇份册]?(?:《[^》]{2,40}》(?:（[^）]{0,20}）)?[^，。]{0,8}|(?:文|书|手册|文档|指南|教程|文件|规范|标准|报告|论文|课程))"
        r"(?:将|主要|旨在|是|介绍|描述|说明|讨论|提供|面向|讲述|阐述|注重|尝试|适合|适用)"
        r"|이 (?:문서|설명서|책|안내서|논문|매뉴얼)(?:는|은|에서는)",
    ),
    "audience": regex(
        rf"\b{_DOCUMENT}\s+(?:is|was)\s+(?:\w+\s+)?(?:(?:aimed|directed|targeted|geared) (?:\w+ly )?(?:at|to|towards?)|intended (?:\w+ly )?for|meant for|written (?:\w+ly )?for|addressed to)\b"
        rf"|\b{_DOCUMENT}\s+(?:is|was)\s+(?:\w+\s+)?for (?:\w+ ){{0,4}}?(?:{PEOPLE}|\w{{3,}}ists|\w{{3,}}ers|you|those|people)\b"
        rf"|\b{_DOCUMENT}\b[^.;:]{{0,80}}?\bfor (?:someone|anyone|anybody|everyone|everybody|those|people|readers|users) (?:who|that|wishing|wanting|new|interested|familiar|with)\b"
        rf"|\b{_DOCUMENT}\s+assumes\b|\brichtet sich\b.{{0,30}}\ban\b|\bs['’]adresse (?:à|aux?)\b|\bdirigid[oa] a\b"
        r"|\bsi rivolge a\b|\bdestina-se a\b",
    ),
    "needs": regex(
        r"\b(?:system|hardware|software|minimum|technical|basic) requirements?\b.{0,20}(?::|\b(?:are|is|include)\b)|(?<!\ba )\bprerequisites?\b"
        r"|(?<!would )(?<!only )\brequires? (?:at least|version|\w+ version|the following)\b|(?<!that )(?<!which )\b(?:must|needs? to|has to|have to|should) be installed\b(?! (?:in|into|under|at|by|as|with|using)\b)",
    ),
    "procedure": regex(
        r"^\W*(?:\d+[.)]\s*)?(?:in order )?to \w+\b.{3,90}?,\s*(?:simply |just |please |first )?(?:use|click|choose|select|run|type|press|call|enter|open|execute"
        r"|invoke|issue|go to|follow|set|turn|pull|push|take|add|remove|install|download|copy|move|drag|insert|hold|hit|write"
        r"|you (?:must|need to|have to|should|can))\b"
        r"|\b(?:do|take|follow|takes|perform|performs|in) (?:the following|these) (?:\w+ )?steps\b|\bproceed as follows\b"
        r"|\b(?:is|are) (?:measured|taken|read|checked) (?:every|once|twice|daily|by hand)\b",
    ),
    "warning": regex(
        r"^\W*(?:warning|caution|danger|attention|beware|important)\b\W"
        r"|(?<!to )\b(?:be (?:very )?careful|beware|make sure|take care|be sure|be aware)\b"
        r"|(?:^|[;:] |\bplease )(?:do not|don['’]t|never) \w|\bmust (?:not|never)\b"
        r"|\b(?:may|can|will|could|might) (?:\w+ )?(?:damage|destroy|lose|corrupt|overwrite|delete|erase|harm|injure|crash)\b",
    ),
    "limit": regex(
        r"(?<!strengths and )(?<!benefits and )(?<!advantages and )\b(?:limitations?|drawbacks?|shortcomings?|disadvantages?|caveats?|weakness(?:es)?)\b|\bknown (?:problems|issues|bugs)\b"
        r"|\b(?:does|do|is|are|can) not (?:yet|currently)\b|\bnot (?:yet )?(?:supported|implemented)\b|\bno support for\b"
        r"|\b(?:currently|at present|so far|as yet)\b.{0,30}\b(?:only|not|no|limited|unable)\b|\bis limited to\b|\bonly works?\b",
    ),
    "conclusion": regex(
        rf"\b(?:in conclusion|in summary|to (?:conclude|summari[sz]e|sum up)|all in all|we {_CONCLUDE}|we have (?:shown|presented|described"
        rf"|introduced|demonstrated)|{_DOCUMENT} (?:has )?(?:briefly )?(?:presented|introduced|described|shown))\b|\boverall,",
    ),
    "next": regex(
        r"\bfuture (?:work|research|versions?|releases?|directions?|developments?|studies)\b|\bwe (?:plan|intend|hope) to\b"
        r"|\b(?:is|are) (?:planned|under development)\b|\bremains? (?:to be|an open)\b|\bfurther (?:work|research|study|studies)\b"
        r"|\bopen (?:questions?|problems?)\b|\bwill be (?:implemented|addressed)\b|\bwill be (?:added|supported|included)\b.{0,40}\b(?:soon|later|next|future|subsequent|coming|versions?|releases?)\b|\bin the (?:near )?future\b",
    ),
    "method": regex(
        r"\bwe (?:\w+ly )?(?:use|used|employ|employed|apply|applied|adopt|adopted|implement|implemented|collected"
        r"|measured|compare|compared|estimate|estimated|fit|fitted|analy[sz]ed|trained|instrumented|simulate|simulated)\b"
        r"|\b(?:our|the proposed|this|the new) (?:\w+ )?(?:method|approach|algorithm|procedure|model|framework|estimator|technique)s? "
        r"(?:is|are|uses?|consists?|works?|relies|takes?|follows?|combines?)\b",
    ),
    "data": regex(
        r"(?:^\W*|\b(?:the|this|these|those|our|its|their|an?|two|three|four|five|several|following|\d+) (?:[\w-]+ ){0,3}?)data ?sets? (?:\w+ )?(?:is|was|were|are|from|of|on|consists?|contains?|comprises?|includes?|used)\b"
        r"|\b(?:sample|survey|cohort|corpus) of\b"
        rf"|\b\d[\d,]* (?:\w+ ){{0,2}}{_OBSERVED}\b|\bdata (?:were|was|have been) (?:collected|obtained|taken|provided|gathered|recorded|sampled)\b"
        r"|\bwe collected\b|\bonline survey\b|^\W*(?:we )?(?:use|consider|analy[sz]e|study) the (?:[\w.-]+ ){0,3}data\b"
        r"|\bdata ?sets? (?:[\w.-]+ ){0,3}?(?:included|available|provided|supplied|shipped|distributed|introduced|comes? with|taken from)\b",
    ),
    "result": regex(
        rf"\bwe (?:\w+ly )?(?:found|find(?= (?:that|no|little|strong|evidence|support)\b)|observed|{_CONCLUDE}|demonstrated?|showed)\b|\b{_MEASURED} (?:\w+ly |of \S+ |also )?{_SHOWS}"
        r"|\b(?:increased|decreased|rose|fell|improved|dropped|grew|reduced) (?:by|from|to)\b.{0,30}\d|\boutperform"
        r"|\bsignificant(?:ly)? (?:higher|lower|better|worse|more|less|faster|slower|differen\w+|effects?|problems?|increase|decrease|reduction)\b"
        r"|\bit (?:turns out|turned out|was found)\b|\bthis study (?:shows|showed|found|finds)\b",
    ),
    "change": regex(
        r"\bnew (?:in|since)\b|(?<!developing )(?<!testing )\bnew features? (?:of|in|include|added|since|are|have|has|was|were|:)"
        r"|\bha(?:s|ve) been (?:added|removed|renamed|revised|extended|rewritten)\b"
        r"|\bsince (?:version|release|the (?:last|previous|first) (?:edition|version|release))\b"
        r"|\b(?:this|the (?:new|current|present|second|third|fourth|fifth|latest)) (?:edition|version|release|revision) (?:\w+ )?(?:adds?|contains?|includes?|introduces?|differs?|brings?|fixes)\b"
        r"|\bchanges (?:since|from) (?:the )?(?:version|release|previous|last|first)\b|\bchanges in (?:this|the new|version|release)\b",
    ),
}  # fmt: skip
"""By the names of the cues; a cue that is not here decides by itself."""
IN_FRONT: dict[str, Pattern[str]] = {
    "purpose": regex(
        rf"\b(?<!for )(?:the|our|its) (?:\w+ ){{0,2}}(?:aim|purpose|goal|objective|mission|intention)s? (?:(?:of|behind) (?!{_SMALL_PART})[^:]{{2,240}}? )?(?:is|are|was|were)\b"
        r"|\bwith the (?:aim|purpose|goal|intention|objective) of \w+ing\b"
        rf"|\bthe (?:\w+ )?object of {_DOCUMENT}|\bour object\b"
        r"|\bwe (?:present|propose|introduce|describe|demonstrate)\b",
    ),
    "audience": regex(
        rf"\b(?:intended|aimed|written|meant|designed|addressed) (?:for|at|to) (?:\w+ ){{0,3}}?(?:{PEOPLE}|\w{{3,}}ists|\w{{3,}}ers)\b"
        r"|\b(?:this \w+|we|it) assumes? (?:that )?(?:you|the reader|readers|some|a (?:basic|working)|familiarity|knowledge|no prior)\b"
        r"|\breaders? (?:is|are|should|needs?|must) (?:be |to be )?(?:assumed|expected|familiar|know|have|supposed)"
        r"|\byou (?:should|need to|must|ought to) (?:already )?(?:know|be familiar|have (?:some|basic) (?:knowledge|experience))"
        r"|\bif you are (?:new to|a|an)\b|\bno (?:prior|previous) (?:knowledge|experience)\b|\b(?:prior|basic|working) knowledge of\b",
    ),
    "needs": regex(
        r"\brequires?\b.{0,50}\b(?:installed|or (?:later|higher|newer|above))\b"
        r"|(?:^\W*|[,:;] |\b(?:that|then|first|so|and|but|installation|\w+ing|it) )you (?:will |also |would )*(?:need|must have)\b(?! (?:to|in|for|not|be|it|them|this|that|these|those|only do|do|more than|some way|both)\b|\W*$)"
        r"|\bbefore (?:you|using|installing|beginning|starting)\b.{0,60}\b(?:must|need|should|have to|make sure|install)\b"
        r"|\bdepends on (?:the )?(?:\S+ ){0,3}(?:package|packages|library|libraries)\b",
    ),
    "why": regex(
        r"\bmotivat\w+|\b(?:there (?:is|was|has been) (?:an?|little)|the|growing|increasing|an urgent) (?:\w+ )?(?:need|demand|lack) (?:for|of|to)\b|\black of\b"
        r"|\bno (?:existing|native|built-in) \w+|\bno (?:other|such) (?:[\w-]+ ){0,3}?(?:packages?|software|programs?|tools?|librar(?:y|ies)|implementations?|solutions?|methods?|systems?"
        r"|approach(?:es)?|ways?|books?|manuals?|guides?|documentation)\b"
        r"|\b(?:little|few|no) (?:is known|attention|work|research|studies)\b"
        r"|\bha(?:s|ve) (?:not|never) (?:yet )?been (?:\w+ly )?(?:studied|investigated|addressed|explored|available|implemented|considered|described|solved|possible|documented|published)\b"
        r"|\bwas (?:\w+ly )?(?:created|started|written|born|founded|developed|designed|begun|conceived) (?:because|to|as|in (?:order|response)|out of)\b"
        r"|\bwas (?:original|initial|first)(?:ly)? (?:intended|conceived|meant)\b|\bwe (?:knew that we )?wanted to\b"
        r"|\b(?:main|primary|chief|principal|original|several|many) reasons? (?:for|why|is|was|to)\b"
        r"|\breasons? (?:for|why|behind) (?:we |i |the )?(?:writ|creat|develop|mak|start|found|build|project|package|book|manual)\w*|\b(?:is|are) (?:often|much|urgently|badly) needed\b",
    ),
}  # fmt: skip
"""What tells only near the front: deep in a document it is said of some detail."""
_OF_PART = regex(
    r"\b(?:this|the (?:next|following|previous)|in) (?:sub)?(?:section|chapter|part|appendix|paragraph|figure|table)\b|\bof each\b"
)
"""Speaks of a part of the document."""
_NO_NAME = (
    r"(?!(?:if|when|where|while|whether|that|because|since|as|in|on|at|with|for|of|using|from|to|by|and|or|but|unless|so"
    r"|although|then|once|after|before|each|every|this|these|another|unlike|like|without|under|inside|note)\b|\w{4,}ing\b)"
)
"""What begins no name of two words, as in "GNU …"."""
THING = (
    r"(?:package|library|software|program|system|project|toolkit|framework|language|tool|suite|module|utility|script"
    r"|distribution|application|platform|environment|format|protocol|add-?on|plug-?in|daemon|extension|editor"
    r"|compiler|interpreter|engine|game|database|standard|specification|api|(?:document )?class|bundle|template)"
)
"""What a name may be followed by that says which kind of thing it is."""
_PART = r"(?:class|module|format|api|template|extension|database|environment|plug-?in|add-?on)"
"""Kinds of things that a thing has of its own: "the Wellkeep pump class" is not what it is."""
_WORK = r"(?:documentation|manual|guide|handbook|introduction|tutorial|description)"
"""What is written about a thing, by whatever it begins with: "this is the user manual of …"."""
_LEADS_IN = (
    r"(?:(?:\w+ly(?: speaking)?|in (?:short|brief|essence|other words|a nutshell)|(?:simply|briefly) put"
    r"|at its core|as (?:its|the) name (?:says|implies|suggests)),\s+)?"
)
"""What may stand before a sentence that says what a thing is: "Technically speaking, …"."""
_NAMED_IS = (
    r"(?:is|are)(?:, [^,]{2,40},)? (?:\w+ly |first of all |first and foremost |above all )?(?:an?(?! (?:[\w-]+ ){1,4}(?:that|which) (?:would|could|might)\b)(?! (?:\w+ly )?(?:useful|powerful|great|good|nice|fine|excellent|wonderful|valuable) [\w-]+\s?[.!]$)|one of|(?:[\w-]+ ){0,2}(?:soft|middle|firm|hard|free)ware)\b|stands for\b"
    rf"|(?:is|are) the (?:[\w-]+ ){{0,4}}?(?:{THING}|implementation|successor|port|name) (?:for|of|that|which|to|behind|used)\b"
    r"|(?:can|may) be (?:thought of|viewed|regarded|seen|described|understood) as\b"
    r"|ist (?:eine?|das|der|die)\b|est (?:une?|le|la|l['’])|es (?:una?|el|la)\b|è (?:una?|il|la|l['’]|un['’])|é uma?\b"
    r"|is een\b|är (?:en|ett)\b|er (?:en|et)\b|to (?:jest|est)\b|je\b|— это\b|este (?:un|o)\b|είναι\b|là (?:một|bản|hệ|công|phần|chương|gói|tên)\b"
)
_NAMED_DOES = (
    r"(?:is|are) the\b|(?:is|are) (?:meant |intended )?for\b|(?:provide[sd]?|offers?|allows?|enables?|helps?|lets|computes?|implements?|aims|combines|consists of|makes it)\b"
    r"|(?:is|was|are|were|has been) (?:\w+ly )?(?:(?:designed|developed|written|created|intended|meant|conceived)(?: (?:at|by|in|since) [^,.;]{3,40}?){0,2} (?:to|for|as)|used (?:to|for|as|by))\b"
    r"|can be used (?:to|for|as)\b"
)
_SOMETIMES = r"(?:optional|usual|normal|automatical|typical|internal|current|silent|temporari|occasional|final|initial)ly"
"""Says of a thing how it behaves, and not what it does."""
_NAMED_WORKS = (
    r"(?:performs|supports|contains|includes|gives|defines|describes|serves|displays|converts|reads|writes|generates"
    r"|produces|manages|handles|extends|adds|simplifies|facilitates|estimates|calculates|creates|makes|builds|runs(?! (?:much |very |far )?(?:fast|faster|slow|slower|well|on|under|in)\b)"
    r"|works|turns|tries|takes|translates|compiles|controls|monitors|measures|stores|searches|finds|solves|draws|plays"
    r"|simulates|models|visuali[sz]es|parses|checks|automates|analy[sz]es|renders|processes|detects|predicts|identifies|transforms|compares)\b"
)
"""What a thing may be said to do where it is introduced, and anywhere else as well."""


_THIS = regex(
    rf"^\W*{_LEADS_IN}(?:(?:this|the present) {THING}\s+(?:\w+ly |also )?(?:{_NAMED_IS}|{_NAMED_DOES}|{_NAMED_WORKS})"
    rf"|this is an? (?:[\w-]+ ){{0,3}}{THING} (?:that|which|for|to)\b)"
)
"""Begins with what the thing is or does that the document is on, without its name."""


class Naming(NamedTuple):
    """Finds what is said of the names of a document."""

    is_a: Pattern[str]
    """What such a thing is."""
    beside: Pattern[str]
    """The same, told beside its name where the document is told of: "This describes X, a tool for …"."""
    tells: Pattern[str]
    """What it is or does."""
    works: Pattern[str]
    """The same, and what many sentences say that do not introduce it."""


_LEANS_AT_END = regex(
    r"\b(?:this|that|these|those) \w+[.!]$|\bone of (?:such|these|those|them)\b(?! that| which)"
)
"""What it speaks of at its end was named before it."""
_GIVEN_AWAY = regex(
    r"\b(?:entire agreement\b|redistribut|distributed (?:under|in the hope)|licen[cs]|lizenz|licencia|licença|rozpowszechn|gwarancj|verbreitet in der hoffnung|distribuit[oa] (?:nella|sotto))"
    r"|лиценз|許諾|条件の下|许可|许可证|授权|배포|라이선스"
)
"""Says on which terms a document is given to its readers."""


CAME_OF = (
    r"\b(?:is|are)\s+the\s+(?:\w+\s+)?(?:result|outcome|fruit)\s+of\s+(?:\w+\s+){0,3}"
    r"(?:work|efforts?|labou?r|collaboration|cooperation|years)\b"
)
"""Says whose work a thing came of."""
ON_TERMS = regex(
    r"\b(?:is|are)\s+(?:an?\s+)?(?:(?:free|libre|open[- ]source)(?:\s+(?:and|or|/)\s+(?:libre|open[- ]source))?\s+(?:software|programs?)\b"
    r"\W*(?:$|you\b|in\s+(?:both|every|all|the)\s+(?:\w+\s+)?senses?\b|under\b|and\b|(?:released|distributed|available|licensed)\b)|(?:registered\s+)?trade-?\s?mark\b)"
    rf"|{CAME_OF}",
    re.I,
)
"""Says on what terms a thing or its name may be used, or what it came of, and not what it is."""
_NOT_FOR = regex(
    r"^.{0,70}?\b(?:(?:(?:aim|purpose|goal|intention|objective)s?\b.{0,40}? (?:is|was|are)|this \w+ (?:is|does|will)|it is) not(?! only| just| merely)"
    r"|nie jest(?! tylko)|ist (?:es )?(?:nicht(?! nur)|keine?\b)|n['’]est pas(?! seulement)|no (?:es|pretende)(?! s[oó]lo)|non (?:è|si propone|intende)(?! solo)"
    r"|não (?:é|pretende)(?! só| apenas)|не (?:является|ставит)|is (?:niet(?! alleen)|geen)|är inte|er ikke)\b"
)
"""Says what a document is not for."""


_NEVER: dict[str, Pattern[str]] = {
    "data": regex(
        r"^\W*(?:now |let us |so )?(?:suppose|assume|imagine|consider (?:a|an|some)|if|given|let)\b"
        r"|\b(?:monte carlo|posterior|mcmc) sample of\b|\bbootstrap (?:data ?sets?|samples?)\b|\bresampl\w+"
    ),
    "why": regex(r"\b(?:section|chapter|part|appendix) (?:\d|[ivx]+\b)"),
    "limit": regex(
        r"\b(?:similar|the same|these|those|this|such) (?:\w+ )?"
        r"(?:limit(?:ation)?|restriction|drawback|shortcoming|problem|caveat)s?\b"
        r"|\bnot currently (?:necessary|needed|used|required)\b|\bif you (?:have|find|know|feel)\b"
        r"|\b(?:alleviat|resolv|overcom|circumvent|avoid)\w*\b[^.;]{0,40}\b(?:limitation|drawback|shortcoming|restriction|caveat)s?\b"
    ),
}
"""By the names of the cues, what tells nothing of them whatever else it says: what data might be
like, and what was drawn from a distribution; in which section why it was made is told; limits that
were named before."""


def decides(cue: str) -> bool:
    """Whether a cue has wordings that decide; others do so by themselves."""
    return cue in TELLING or cue in IN_FRONT


def said_in_front(cue: str) -> bool:
    """Whether what a cue stands for is usually said near the front, if at all."""
    return cue in IN_FRONT


def tells_besides(cue: str) -> bool:
    """Whether much of what tells a cue has none of the cue's own words."""
    return cue in ("next", "change", "limit", "data")


_THIS_FILE = regex(r"^(\W*(?:in )?)this file\b")


def file_as_text(text: str) -> str:
    """A sentence in lower case near the front; "this file", which begins it, is the document."""
    return _THIS_FILE.sub(r"\1this text", text)


def tells(cue: str, text: str, names: Naming | None = None, *, is_front: bool) -> bool:
    """Whether a sentence surely tells what a cue stands for.

    Args:
        cue: A name in ``roles.CUES``.
        text: The sentence in lower case.
        names: Finds sentences that say what the thing in the document's title is.
        is_front: Whether it stands near the front of the document.
    """
    if is_front:
        text = file_as_text(text)
    if cue == "purpose":
        if _OF_PART.search(text) or _GIVEN_AWAY.search(text):
            return False
        if is_front and names is not None and names.tells.match(text):
            return not is_not_for(text)
    if cue in _NEVER and _NEVER[cue].search(text):
        return False
    is_told = cue in TELLING and bool(TELLING[cue].search(text))
    is_told = is_told or (is_front and cue in IN_FRONT and bool(IN_FRONT[cue].search(text)))
    return is_told and not (cue == "purpose" and is_not_for(text))


def is_not_for(text: str) -> bool:
    """Whether a sentence, in lower case, says what a document is not for."""
    return _NOT_FOR.match(text) is not None


_USED_SOMEWHERE = regex(
    rf"^\W*[^.;:]{{1,40}}? (?:is|are) an? {THING} (?:that|which) (?:is|are) (?:\w+ly )?"
    r"(?:used|run|available|found|installed) (?:on|by|in|at|under|with)\b"
)
"""Says where a thing is used, and not what it is: "Wellkeep is a tool that is used on islands"."""


def says_what_it_is(names: Naming | None, text: str) -> bool:
    """Whether a sentence, in lower case, says what the thing in the title is: "X is a …"."""
    is_said = names is not None and bool(names.is_a.match(text))
    says_nothing = (_LEANS_AT_END, ON_TERMS, _USED_SOMEWHERE)
    return is_said and not any(pattern.search(text) for pattern in says_nothing)


def says_what_this_does(text: str) -> bool:
    """Whether a sentence, in lower case, says what "this program" is or does."""
    return bool(_THIS.match(text)) and not _GIVEN_AWAY.search(text)


_MADE_IT = r"(?:develop(?:ed)?|present(?:ed)?|introduced?|proposed?|created?|built|designed|implemented|wrote|written|made)"
"""What its makers say they did: "we developed Wellkeep, which …"."""


@lru_cache(maxsize=8)
def naming(names: tuple[str, ...]) -> Naming | None:
    """Finds sentences that begin with a name and go on with what it is or does."""
    if not names:
        return None
    written = (escape(name).replace(r"\-", r"(?:\s?-\s?|\s)?") for name in names)
    either = "|".join(sorted(written, key=len, reverse=True))
    one = (
        # "Wellkeep/Wellkeep-lite is a …", "Island::Wellkeep is a …"
        rf"(?:\w[\w-]*(?:\s?/\s?|::?))?(?:{either})(?:\s?/\s?\w[\w-]*)?"
    )
    name = rf"{one}(?:\(\d\w?\))?(?:\s+(?:{either}))*(?:[\s-](?:{THING}|(?:[\w-]+\s+){{1,2}}(?!{_PART}\b){THING}))?(?:\s+(?:(?!{_SOMETIMES}\b)\w+ly|also|itself|\d[\d.]*))?"
    spelled_out = rf"{_NO_NAME}(?:[\w’'-]+\s+){{2,7}}\([“\"‘']?(?:{either})[”\"’']?(?:\s+(?:for|in)\s+short|,\s[^()]{{2,40}})?\)"
    known_as = (
        rf"(?:{_NO_NAME}\w+\s+){{1,3}}(?:(?:aka|a\.k\.a\.|alias|or)\s+(?:{either})(?:\s+{THING})?"
        rf"|\(or (?:just|simply|in short|for short)\s+[“\"‘']?(?:{either})[”\"’']?\))"
    )
    one_of_many = rf"an?\s+(?:{either})\s+{THING}\b"  # "A Wellkeep library is" part of it
    begins = (
        rf"^\W*(?:\w+:\s+)?{_LEADS_IN}(?!{one_of_many})(?:the\s+)?(?:{spelled_out}|{known_as}|(?:{_NO_NAME}\w+[®™]?\s+|\w+\s+{THING}\s+)?{name}[®™”\"’]?)"
        r"(?:\s?\[[\d, –-]+\])?\s*(?:[,(].{2,60}?[,)]\s*|[–—-]\s.{2,60}?\s[–—-]\s*)?"
    )
    is_a = rf"{begins}(?:は|是(?:一|指|用)|\b(?:{_NAMED_IS}))|^\W*welcome to (?:the )?{name}, (?:an?|the|your)\b"
    thing = rf"(?:the )?(?:{either})(?: {THING})?"
    a_sort = rf"(?:the |an? |our )?(?:(?!(?:of|for|to|in|on|with|by|from) )\w+ ){{0,3}}?{thing}"
    is_a += rf"|^\W*this is (?:the|an?) (?:\w+ ){{0,3}}{_WORK} (?:of|for|to|on) {a_sort} (?:for|to|that|which)\b"
    is_a += rf"|^\W*(?:the|its) (?:\w+ )?(?:purpose|aim|goal|objective) of (?:{thing}|this {THING}) (?:is|was) to\b"
    is_a += (
        rf"|^\W*(?:[^.;:]{{3,60}},\s+)?(?:we|i) (?:have |had |therefore |thus |then |now |also ){{0,2}}{_MADE_IT}"
        rf" (?:the |an? |our |my )?(?:\w+ ){{0,2}}?(?:{either})(?:\s*\([^()]{{2,80}}\))?(?: {THING})?(?:\s*\([^()]{{2,80}}\))?,?"
        r" (?:which|that|to|for|an?|as an?)\b"
    )
    called = rf"^\W*(?:the\s+)?(?:{either})\s+{THING}\s*(?:[,(].{{2,60}}?[,)]\s*)?"
    tells = rf"{begins}(?:は|\b(?:{_NAMED_DOES}))|{called}\b{_NAMED_WORKS}|{is_a}"
    version = r"(?: v(?:ersion|\.)? ?\d[\w.]*)?(?: ?\([^()]{1,40}\))?"
    of_document = rf"(?:in )?{_DOCUMENT}|this is (?:the|an?|our) (?:[\w-]+ ){{0,3}}{_WORK}"
    beside = (
        rf"^\W*(?:{of_document})\b[^.;:]{{0,80}}?\b(?:{either})(?: {THING})?{version},"
        r" (?:an?|the) [“\"‘']?(?:[\w-]+[”\"’']? ){1,5}?(?:for|that|which|to|of)\b"
        rf"|^\W*(?:{of_document})\b[^.;:]{{0,60}}?\b(?:an?|the|our) (?:[\w-]+ ){{0,3}}?{THING}\b[^.;:]{{0,80}}?"
        rf"(?::|,| called| named) [“\"‘']?(?:{either})(?=[”\"’'.,;]|$)"
    )
    return Naming(
        regex(is_a), regex(beside), regex(tells), regex(rf"{begins}\b{_NAMED_WORKS}|{tells}")
    )
