"""Which sentences can stand alone, and what is cut from them."""

from __future__ import annotations

import re
from collections.abc import Collection
from typing import TYPE_CHECKING

from wide_margin.core.digest.imprint import LICENCE_ABROAD
from wide_margin.core.digest.roles import THIS_ABROAD
from wide_margin.core.digest.telling import CAME_OF, THING
from wide_margin.core.explain.verbs import has_clause, is_order, seems_to_have_verb
from wide_margin.core.later import regex
from wide_margin.core.layout import UNSPACED, word_count
from wide_margin.core.search.analysis import SCRIPTS, common_words, words

if TYPE_CHECKING:
    from wide_margin.core.document import ReadDocument
    from wide_margin.core.passages import Sentence

SHORTEST, LONGEST = 6, 70
"""Words of a sentence that is quoted alone."""
SHORTEST_OF_NAME = 4
"""The fewest of one that says what the thing in the title is."""
WHOLE = 10
"""Words before a colon from which they are a statement."""
_GOES_ON = regex(r"[:;](?=\s)")
_HANGS = regex(
    r"^[\W_]*(?:however|therefore|thus|hence|moreover|furthermore|besides|instead|nevertheless|nonetheless|otherwise|likewise|similarly|consequently"
    r"|accordingly|then|also|again|finally|second(?:ly)?|third(?:ly)?|next|so|but|and|or|yet|still|rather|conversely|indeed|in addition|in contrast"
    r"|as a (?:result|consequence)|for example|for instance|e\.g|i\.e|that is|in other words|on the other hand|in this (?:case|way|example|context|respect)|in that case|(?:in|with|for|from) the (?:following|above|below|previous|preceding|last|next) (?:\w+ )?(?:examples?|code|listing|figure|table|program|script|session|snippet|fragment)|by doing so|doing so|to do (?:so|this)"
    r"|(?:at|by|during|in|until|since|before|after) (?:this|that) (?:time|point|moment|date|period)|as (?:above|before|mentioned|noted|described|shown|discussed|we (?:have )?(?:saw|seen))|both of|each of (?:these|them)|one of (?:these|them)|some of (?:these|them)|all of (?:these|them)|most of (?:these|them)"
    r"|it|its|they|their|them|he|she|his|her|this|these|those|that|such|the (?:latter|former|above|following|same|second|third|other|others)|the (?:first|fourth|fifth|sixth|last|rest) (?:is|are|was|were|will|has|have|had)|both|neither|another|others?|here|there|which|where|what follows"
    r"|dort|hier|nun|zunächst|zuerst|zudem|ferner|ebenso|hier(?:bei|zu|für|durch|mit)|dar(?:in|aus|an|auf|über)|davon|dies(?:e[rsnm]?)?|jene[rsnm]?|letztere[rsnm]?|erstere[rsnm]?|jedoch|deshalb|deswegen|daher|dadurch|dabei|dazu|dafür|damit|danach|darum|somit|folglich"
    r"|trotzdem|dennoch|allerdings|außerdem|dann|auch|es|sie|er|ihr[e]?|aber|und|oder|denn|sonst|zum beispiel|beispielsweise|ce(?:la|ci|s|t|tte)?|il|elle|ils|elles|celui-ci|celle-ci|ceux-ci|celles-ci|ces derni[eè]re?s|ce dernier|cette derni[eè]re|là|ici|d['’]abord|également|aussi|pourtant|alors|cependant|toutefois|néanmoins|donc|ainsi|puis|ensuite|enfin|mais|et|ou|or|par exemple|par conséquent|de plus|en outre|dans ce cas"
    r"|(?:[oa]s? )?(?:seus?|suas?)|(?:il|la|i|le) (?:suo|sua|suoi|sue)|sus?|ses|leurs?|seine?[mnrs]?"
    r"|est[eao]s?|es[eao]s?|ahí|allí|aquí|finalmente|sin embargo|además|entonces|pero|y|aquell[oa]s?|por (?:lo tanto|ejemplo|eso)|no obstante|así|luego|también"
    r"|quest[oaei]|quell[oaei]|ess[oaie]|lì|qui|poi|infatti|pertanto|tuttavia|però|quindi|inoltre|infine|invece|dunque|perciò|anche|ma|ad esempio|in questo caso"
    r"|isso|isto|aquilo|ess[ea]s?|porém|contudo|portanto|assim|além disso|também|mas|nesse caso"
    r"|dit|dat|deze|die|hij|zij|het|daar|vervolgens|echter|daarom|daardoor|daarnaast|bovendien|dus|maar|ook|bijvoorbeeld|in dat geval"
    r"|это|этот|эта|эти|он|она|оно|они|однако|поэтому|также|затем|кроме того|например|но|тогда)\b",
    re.I,
)  # fmt: skip
_WITH_AIM_BEFORE = regex(
    r"^\W*(?:(?:if|when) (?:you|we|one) (?:\w+ )?(?:want|wish|need|like|try) to|(?:in order )?to) \w+ (?:this|that|it|these|them|so)"
    r"(?:,| (?:you|we|one|please|just|simply|then|use|add|set|type|run|do)\b)",
    re.I,
)
"""Tells how to do what the sentence before speaks of: "If you want to avoid this you …"."""
_HANGS_UNSPACED = regex(
    r"^[^\w「『]*(?:さらに|しかし|そして|また[、は]|そのため|したがって|このため|これ[はらにをがで]|それ[はらにをがで]|その|そこで|なお|ただし|例えば|たとえば|つまり|すなわち|もう一つ"
    r"|この(?!文書|マニュアル|ガイド|本|書|論文|チュートリアル|ドキュメント|資料|章|節)|但是|但|因此|然而|此外|所以|而且|例如|比如|同样|另外|这(?!是|本|份|篇|个文档|个手册)|该|它|其|那|他们|她)"
)
"""The same where no blanks stand between words."""
_WITHOUT_SUBJECT = regex(
    r"\W*(?:(?:Is|Are|Was|Were|Has|Have|Had|Does|Contains|Consists|Returns|Provides|Allows|Supports|Specifies|Gives|Shows|Uses|Takes|Sets"
    r"|Defines|Adds|Creates|Enables|Indicates|Describes) "
    r"|(?:Can(?:not)?|May|Will|Should|Must|Could|Might) (?:\w+ly )?(?:be|not|only|also|have)\b"
    r"|(?:Explica|Describe|Descrive|Descreve|Contiene|Cont[ée]m|Presenta|Apresenta|Permite|Permette|Proporciona|Fornece|Fornisce"
    r"|Incluye|Inclui|Muestra|Mostra|Spiega|Trata|Tratta) )"
)
"""What is said of a term that stands beside it: "Is a formal description of a system"."""
SPEAKS_OF_SECTION = regex(
    r"\W*(?:where\b|(?:(?:in )?this|these|the following) (?:features?|section|chapter|subsections?)\b)",
    re.I,
)
"""Speaks of the section, and not yet of what it is called after."""
_OF_ANOTHER = regex(
    r"\W*(?:the|one|an?)\s(?:\w+\s){1,3}?of\s(?=(?:this|that|these|those|such)\s(?!(?:is|are|was|were|has|can|may|will)\b))",
    re.I,
)
"""Points back in what it is of: "The purpose of this mechanism is …"."""
_OWN_THING = regex(
    rf"th(?:is|ese)\s(?:\w+\s)?(?:{THING}|research|investigation|analysis|effort|course|lecture|series)s?\b", re.I
)  # fmt: skip
"""What a document may say of the thing that it is about, or of itself."""
_AS_TITLED = regex(
    r"\W*\d+[.)]\s+\w+ing\b(?!.*\b(?:is|are|was|were|can|will|may|must|should|has|have|does|do|you|we)\b)"
)
"""An item of a list that only names what is done: "4. Finding the depth of a well."."""
_ASKED_BEFORE = regex(r"[QA]:\s")
"""Stands in a list of questions, each with its answer."""
_LETTERED = regex(r"\W*\w{1,3}\)")
"""The mark of an item: "a) …"."""
_IN_BRACKETS = regex(r"\([^()]*\)")
"""A whole sentence in brackets, said by the way."""
_STANDS = regex(
    r"^[\W_]*(?:(?:this|the present|these|those) (?:\w+ )?(?:paper|article|document|documentation|manual|guide|handbook|thesis|dissertation|report|book|vignette|work|study|package|description"
    r"|essay|text|tutorial|policy|standard|specification|chapter|section|part|appendix|newsletter|release|edition|version|licen[sc]e|agreement|act|annex|draft|proposal|memo|white ?paper|leaflet|brochure)\b"
    r"|this (?:file|page|list) (?:\w+ly )?(?:contains|describes|documents|explains|introduces|lists|covers|gives|tells|discusses|summari[sz]es)\b"
    r"|this is (?:an?|the) (?:[\w’'/-]+ ){0,4}(?:manual|guide|handbook|documentation|tutorial|introduction|description|vignette|report|specification)\b"
    r"|in this (?:paper|article|section|chapter|document|manual|guide|vignette|work|study|thesis|report)\b|there (?:is|are|was|were)\b|here (?:we|is)\b|it is (?:not )?(?:possible|important|necessary|recommended|useful|common|advisable|easy|hard|difficult)\b"
    r"|both \w+ and\b|such as\b|in addition to\b|es (?:gibt|ist)\b|il (?:existe|faut|est)\b"
    r"|dies ist (?:das|die|eine?) (?:[\w-]+ ){0,3}(?:\w*handbuch|\w*anleitung|dokumentation|einführung|beschreibung|dokument)\b"
    r"|(?:ceci|ce document) est (?:un|une|le|la) (?:\w+ ){0,3}(?:manuel|guide|documentation|introduction|document)\b"
    r"|est[ea] (?:es|é) (?:una?|uma?|el|la|[oa]) (?:\w+ ){0,3}(?:manual|guía|guia|documento|documentación|documentação|introducción|introdução)\b"
    r"|quest[oa] è (?:una?|il|la) (?:\w+ ){0,3}(?:manuale|guida|documento|documentazione|introduzione)\b"
    r"|dit is (?:een|de|het) (?:\w+ ){0,3}(?:\w*handleiding|gids|document|documentatie|inleiding)\b"
    rf"|{THIS_ABROAD}\b)",
    re.I,
)  # fmt: skip
_FOLLOWS = regex(
    r"^\W*(?:after|before|until|besides|apart from|because of|instead of|in addition to) (?:that|this|these|those)\b(?! (?:paper|document|manual|guide|book|chapter|section)\b)"
    r"|^[^,;:]{3,60}?[\s,](?:therefore|hence|consequently|accordingly|nevertheless|nonetheless|in turn|too|likewise)[\s,]"
    r"|^\W*(?:\w+ly|often|mostly|sometimes|in practice|of course), (?:this|these|those|it|they|he|she|such)\b"
    r"|^[^,;:]{3,40}, (?:however|then|therefore|thus|though|for example|for instance|on the other hand|by contrast),", re.I
)  # fmt: skip
"""What comes first is followed by what ties it to the sentence before."""
_ASIDE = regex(
    r"\s*\((?:(?:see|cf\.?|e\.g\.,?|i\.e\.,?|siehe|voir|véase|section|chapter|figure|fig\.|table|page|p\.|eq)\b[^()]{0,90}"
    r"|[^()]{0,60}\b(?:1[89]|20)\d\d[a-z]?(?:[^()]{0,60})|[^()]{0,6}https?://[^()]{0,120})\)"
    r"|\s*\[\d+(?:\s*[,;–-]\s*\d+)*\]|\s*\[[^\[\]]{2,80}\b(?:1[89]|20)\d\d[a-z]?\]",
    re.I,
)  # fmt: skip
"""Citations, pointers and addresses in brackets."""
_CODE = regex(r"[\\{}@$<>=|#^~]|::|\w_\w|\w\(\)|\w\.\w+\(")
_MATHS = regex(r"[∑∏∫√≤≥≠≈∈∀∃αβγδεθλμνπρστφχψω∂∇×÷]|\b[a-z]\s*[=<>]\s*[\w(]")
_ENDS = regex(r"[.!?。！？．｡][\"'”’»)\]]*$")
FEWEST_WRITTEN_SMALL = 2
"""Words of a sentence that begin with a small letter, where its script has such."""
_QUOTES = "\"'“”‘’„«([「『（"
"""What a sentence may begin with; some programs set closing marks before a word as well."""
_IN_CAMEL = regex(r"[a-z]+[A-Z]\w*\b")
_WORDS = regex(r"[\w’'-]+|[^\w\s]")
_UNSPACED = regex(f"[{UNSPACED}]")
"""Letters of scripts that set no blanks between words."""
_SCRIPTS = {**SCRIPTS, "ja": _UNSPACED, "zh": _UNSPACED, "uk": SCRIPTS["ru"]}
FEWEST_SMALL, FEWEST_ALONE = 3, 2
"""Small words of English from which a sentence may be in it, and where it has no others."""
OWN_SCRIPT = 0.25
"""A sentence of a language has so many letters of its script; the others are names and code."""


_OF_THANKS = ("thank", "hanks", "grateful", "indebted", "contributed", "helped", "assisted",
              "encourage", "guidance", "help from", "help of", "to me by", "to us by", "edicated to",
              "acknowledge")  # fmt: skip
_THANKS = regex(
    r"^\W*(?:(?:many|special|our|my|warm) )*thanks (?:go |are due |also )?to (?:(?-i:[A-Z])|all\b|every|my\b|our\b|those\b"
    r"|the (?:many|people|members|team)\b)|\b(?:we|i|the authors?) (?:(?:would|wish|like|want|also|especially|to) )*thank\b"
    r"|\b(?:am|are|is) (?:\w+ )?(?:grateful|thankful|indebted) to\b|\bgratefully acknowledge"
    r"|\b(?:is|are) (?:\w+ly )?(?:thanked|acknowledged) for\b"
    r"|\b(?:contributed|helped|assisted)\b.{0,40}\b(?:corrections|suggestions|proofread\w*)\b"
    r"|\bwith (?:the |much |great |kind |generous )?(?:(?:\w+ and )?(?:guidance|encouragement|support|help)|encouragement and \w+)"
    r" (?:of|from|by) (?-i:[A-Z])|^\W*(?:this (?:\w+ )?is )?dedicated to (?:(?-i:[A-Z])|my |our |all |the memory)"
    r"|\b(?:first |kindly )?(?:suggested|proposed|pointed out) to (?:me|us) by\b", re.I
)  # fmt: skip
"""Thanks somebody; one of the words before stands in it."""
_THANKS_ABROAD = regex(
    r"\b(?:agrade[cz]\w+ a|gracias a|obrigad[oa] a|remerci\w+|merci à|danke?n?t? (?:an|für|allen|auch|den)|ringrazi\w+|grazie a|bedank\w+|dziękuj\w+)\b"
    r"|\b(?:ajud|ayud|aid|aiut)\w+ .{0,40}\b(?:corre[cçz]\w+|sugest\w+|sugerencias|suggeriment\w+)\b", re.I
)  # fmt: skip
"""The same in other languages."""
_WITH_LICENCE = regex(
    r"\b(?:receb\w+|recibi\w+|ricev\w+|reçu|erhalten|ontvangen)\b.{0,40}\b(?:cópia|copia|copie|exemplaire|kopie) (?:d[aeo]s?|del|della|der|van)\b"
    r".{0,20}\b(?:licen|lizenz|public|GPL)", re.I
)  # fmt: skip
"""Says in other languages that a copy of the licence comes with it."""
_UNDER_LICENCE = regex(
    r"^(?:(?!\b(?:is|are) an?\b).)*\b(?:released|distributed|licen[sc]ed|available|published|provided|covered)\s+under\s+"
    r"(?:either\s+|both\s+|the\s+|an?\s+|version\s+\d\s+of\s+)*(?:terms\s+of\s+(?:the\s+)?)?(?:[\w/.-]+\s+){0,6}licen[sc]es?\b", re.I
)  # fmt: skip
"""Says under what licence something is, and not what it is."""
KEYWORDS = (
    r"^\W*(?:(?:author\s+)?key[\s-]?words?(?:\s+and\s+phrases)?|index\s+terms|mots[\s-]cl[ée]s|schlüsselw[öo]rter|schlagw[öo]rter|stichw[öo]rter"
    r"|palabras\s+clave|parole\s+chiave|palavras[\s-]chave|trefwoorden|nyckelord|słowa\s+kluczowe|ключевые\s+слова|关键词|关键字|キーワード)\s*(?:[:.—–-]|$)"
)
"""Begins the keywords of a paper; for a pattern."""
_OF_THE_COPY = regex(
    r"^\W*(?:please\s+)?(?:send|mail|address|report|direct)\s+(?:all\s+|any\s+|your\s+)?(?:questions|comments|bugs?|bug reports|suggestions|corrections|feedback)\b"
    r"|\b(?:this|the) (?:manual|document(?:ation)?|guide|book)\b.{0,30}\b(?:is|are) (?:also )?available (?:via|from|at|on|online|in)\b"
    r"|\b(?:contains|download|browse|print|printed copy of|copy of) (?:it|this|the) (?:manual|document(?:ation)?|guide|book)\b"
    r"|\b(?:this|the) (?:manual|document(?:ation)?|guide|book) (?:was|is|has been) (?:\w+ )?(?:formatted|typeset|printed|composed)\b"
    r"|\b(?:this|the) (?:manual|document(?:ation)?|guide|book|text|work)\b.{0,30}\b(?:is|are) (?:\w+ )?(?:distributed|licen[sc]ed|released|published|available) under\b"
    r"|^(?=.*(?:://|@)).*\breport\w*\s+(?:any\s+|an?\s+|all\s+|your\s+)?(?:bugs?|issues|problems)\b"
    rf"|^[^,;:]{{2,60}}{CAME_OF}"
    r"|^.{0,60}[,;] more (?:\w+ ){0,2}?can be found (?:in|at|on)\b"
    rf"|{KEYWORDS}"
    r"|^\W*(?:more|further|additional|detailed|full|complete) (?:\w+ ){0,2}?(?:information|descriptions?|details|documentation|instructions|examples)\b.{0,60}?\b(?:(?:can|may) be found|(?:is|are) (?:available|given|provided|found) (?:in|at|from|on))\b"
    r"|^\W*(?:please )?(?:see|refer to|consult)\b.*\bfor (?:more|further|additional|full|complete|detailed|the details|details|instructions|information)\b"
    r"|^\W*(?:the )?translations? (?:of this (?:manual|document) )?(?:is|are) (?:part of|available|maintained)\b|\bis (?:\w+ )?copyright(?:ed)? (?:©|\(c\)|\d{4}|by\b)"
    r"|\b(?:written|developed|made|created) with (?:the )?(?:financial )?support (?:from|of|by)\b|\b(?:is|are|was|were) (?:\w+ )?(?:funded|supported financially|financially supported) (?:by|through|under)\b"
    r"|\b(?:this|the) (?:manual|document(?:ation)?|guide|book|text) is (?:still )?(?:a |very much a )?work in progress\b"
    r"|\b(?:this|the) (?:report|document|manual|page|file) was (?:\w+ly )?generated (?:by|using|with|from)\b"
    r"|\bplaced (?:in|into) the public domain\b|\bdistribution point for this\b"
    r"|^\W*for (?:an?|the) [^,;:]{3,60}, (?:please )?(?:see|refer to|consult)\b"
    r"|^\W*for (?:more|further|additional) details\b|^\W*for (?:an?|the) (?:full|complete|exhaustive) (?:list|description|account|documentation|reference)\b"
    r"|^\W*(?:for (?:more|further|additional) information|para (?:más|mayor(?:es)?|mais|maiores) informa[cç]\w+|pour (?:plus|davantage|de plus amples?) (?:d[’'])?informations?"
    r"|(?:für )?(?:weitere|mehr) informationen|per (?:ulteriori|maggiori) informazioni|voor meer informatie)\b", re.I
)  # fmt: skip
"""Says where questions go, where a document is to be had and where more is told."""


_OF_LICENCE = regex(
    r"\b(?:permission is (?:hereby )?granted|redistributions? (?:in|of)|verbatim copies|see the (?:\w+ ){1,5}licen[sc]e for (?:more )?details|(?:copyright|permission) notice"
    r"|without (?:even )?(?:the implied |any )?(?:warrant|guarant[ey])|merchantability|copy of (?:the|this) (?:[\w/-]+ ){0,6}licen[sc]e|may be used to endorse"
    r"|may (?:also )?be (?:freely )?(?:copied|distributed|redistributed|modified)(?:,? (?:and|or|and/or) (?:modified|distributed|copied))* (?:under|for any purpose|freely|in any form|provided|for a fee)\b"
    r"|\b(?:est[ea]|quest[oa]|ce|cette|diese[rs]?) (?:documento|documentação|documentación|manuale?|document|documentation|manuel|dokument|handbuch|livr[oe]|libro|text[eo]?)"
    r" (?:pode|puede|può|peut|darf|kann)\W+(?:\w+\W+){0,2}?(?:re|ri|weiter)?(?:distribu|copi|modifi|diffus|verbreit|verteil|kopier|veränder|geänder)"
    r"|protegid[oa]s? por (?:direitos (?:autorais|de autor)|derechos de autor)|\bé (?:lançad|distribuíd|publicad|licenciad)[oa] sob\b"
    r"|\bcopyright\s*(?:©|\(c\))|(?:©|\(c\))\s?(?:19|20)\d\d\b|all rights reserved|^\W*(?:this \w+ is )?licensed under the\b|under the (?:terms|conditions) of (?:the|this)|free documentation licen[sc]e"
    r"|hope that it will be useful|(?:for|is) informational purposes only|subject to change without (?:prior )?notice|\breserves? the right to (?:revise|change|modify|make)\b"
    r"|(?:(?:shall|will|can|may) not|cannot) be (?:held )?(?:liable|responsible) for|in no event (?:shall|will)|makes? no (?:\w+ ){0,4}warrant|\byour legal rights\b|\bassumes? no (?:\w+ ){0,2}(?:responsibility|liability)\b"
    r"|\b(?:subject to the copyright|(?:trademarks|property|copyrights?)) of (?:their|its) (?:respective )?(?:owners|holders)\b"
    r"|\bto (?:the )?public domain\b|\brelinquish\w*\b.{0,60}\brights\b"
    r"|no (?:warranty|warranties|liability|representations?) (?:of any kind|is|are|with respect|whatsoever)|(?:registered )?trademarks? (?:of|or registered)"
    r"|\byou must give appropriate credit|\bthe licensor (?:cannot|endorses)|\bunder the following terms|^\W*(?:photo|image|picture) credits?\b"
    r"|\bcréditer l['’][œo]e?uvre|\bl['’]offrant\b|^\W*crédits? (?:photo|image)|\bder lizenzgeber\b|\bel licenciante\b|\bil licenziante\b|\bo licenciante\b"
    r"|\berkläre(?:n)? (?:hiermit )?(?:eides|ehren)|\beidesstattlich\b|\bdéclare sur l['’]honneur\b|^\W*partage dans les mêmes conditions\b"
    r"|es wird die erlaubnis|die erlaubnis wird|ohne (?:jede |irgendeine )?(?:gewährleistung|garantie)|urheberrechts(?:vermerk|hinweis)|alle rechte vorbehalten"
    r"|il est permis de (?:\w+ (?:et|ou) (?:de )?)?(?:copier|distribuer|redistribuer|reproduire|modifier|traduire|produire)|notice de (?:copyright|permission)|sans (?:aucune )?garantie|tous droits réservés"
    r"|se (?:permite|concede|otorga) (?:\w+ ){0,3}(?:permiso|copiar|distribuir|la copia)|sin (?:ninguna )?garantía|todos los derechos reservados"
    r"|è permesso (?:\w+ )?(?:copiare|distribuire)|è concesso (?:il permesso|a chiunque)|senza (?:alcuna )?garanzia|tutti i diritti riservati"
    r"|é (?:permitid[oa]|concedid[oa]|garantid[oa]) (?:\w+ ){0,3}(?:copiar|distribuir|permissão|cópia)|sem (?:nenhuma |qualquer )?garantia|todos os direitos reservados"
    r"|zonder (?:enige )?garantie|alle rechten voorbehouden|toestemming is verleend)", re.I
)  # fmt: skip
"""Permission, notice and warranty, in seven languages."""
_OF_LICENCE_UNSPACED = regex(
    r"著作権表示|許可文|(?:複製|配布|再配布|改変|転載)[^。．]{0,24}(?:許可|許諾)(?:する|します|される|されて)|(?:無|いかなる)保証"
    r"|(?:版权|版權|著作权|著作權)(?:声明|聲明|所有)|(?:准许|准許|允许|允許)[^。]{0,16}(?:复制|複製|分发|分發|散布|修改)|任何(?:形式的)?(?:担保|擔保|保证|保證)|저작권 표시|보증하지 않"
)  # fmt: skip
"""The same in Japanese, Chinese and Korean."""


_IN_FORM = regex(r"\S*[\d_/\\]\S*|\S+[.:]\w\S*")
"""Numbers, files and names of code: what is filled into a form."""
_SPACED = regex(r"(?:\b[^\W\d_] ){4}")
"""A word whose letters stand apart."""


_CITED = regex(r"\b\d+\s*(?:\(\d+\))?\s*:\s*e?\d+\s*[-–]\s*\d+\b(?!:)|\bdoi\s?:")
"""In what tells a work: "Wells 18: 821–829"; so do the hours of a day and verses, without a year."""
_YEAR = regex(r"\b(?:1[5-9]|20)\d\d\b")
_BY_SEVERAL = regex(r"\W*(?:[A-Z][\w’'-]+ (?:[A-Z]\.?-?){1,3}(?:, |\.? )){3}")
"""Begins a work with its authors: "Moore A, Wells BC, Tarn D, Rope cycles"."""
LONGEST_WORK = 60
"""Words of a paragraph that tells a work, at most."""


def tells_work(document: ReadDocument, sentence: Sentence) -> bool:
    """Whether a sentence stands in a paragraph that tells a work and nothing else."""
    text = document.paragraphs[sentence.paragraph].text
    is_told = bool(_CITED.search(text)) and bool(_YEAR.search(text))
    is_told = is_told and len(text.split()) <= LONGEST_WORK
    return is_told or _BY_SEVERAL.match(sentence.text) is not None


def form_of(text: str) -> str:
    """A sentence without what differs where a program writes the same one again and again."""
    return _IN_FORM.sub("#", text.casefold())


def is_of_licence(text: str) -> bool:
    """Whether a sentence has the wording of a licence, wherever it stands, or of an imprint."""
    said = (_OF_LICENCE, _OF_LICENCE_UNSPACED, _OF_THE_COPY)
    if any(pattern.search(text) for pattern in said) or LICENCE_ABROAD.match(text):
        return True
    if "icen" not in text and "ublic" not in text:
        return False
    return any(pattern.search(text) for pattern in (_WITH_LICENCE, _UNDER_LICENCE))


def gives_thanks(text: str, language: str) -> bool:
    """Whether a sentence of a document in a language thanks somebody, or says who helped."""
    if any(word in text for word in _OF_THANKS) and _THANKS.search(text):
        return True
    return language != "en" and _THANKS_ABROAD.search(text) is not None


_FUNDED = (
    r"(?:work|research|stud(?:y|ies)|projects?|developments?|authors?|investigations?|effort|analys[ei]s|papers?|thesis|software"
    r"|survey|he|she|we|i|creation|writing|activities)"
)
_GIVERS = (
    r"(?:grants?|foundation|council|funds?|fund(?:ing|ed)|ministry|programme|program|universit(?:y|ies)|awards?|scholarship"
    r"|fellowship|institut\w*|agency|NSF|DFG|NIH|EPSRC|EU|european|commission|society|department|national|academy|cent(?:re|er)"
    r"|inc|ltd|gmbh|corporation|company|contract)"
)
_SAYS_PAID = regex(
    rf"\b{_FUNDED}\b[^;]{{0,90}}?\b(?:was|were|is|are|been|being|be)\s+(?:\w+ly\s+|also\s+){{0,2}}(?:supported|funded|financed|sponsored|paid\s+for)\b"
    rf"(?:\s+(?:in\s+part|partially|partly|financially|jointly))*\s*,?\s*(?:by|through|from|under|within|with|via)\b[^;]{{0,160}}\b{_GIVERS}\b"
    rf"|\b(?:funding|financial\s+(?:support|assistance)|(?:research|travel)\s+grants?)\b[^.;]{{0,60}}?\b(?:by|from|of|through)\b[^;]{{0,120}}\b{_GIVERS}\b"
    r"|\bsupport(?:ed)?\s+(?:by|from|of|under)\b[^;]{0,60}\bgrants?\b"
    r"|\b(?:gefördert|finanziert)\s+(?:durch|von|vom|aus)\b|\b(?:durch|von|vom)\s(?:\S+\s){1,10}(?:gefördert|finanziert)\b"
    r"|\bfinanc(?:ée?s?|iad[oa]s?)\s+(?:par|por|pelo|pela)\b|\bfinanziat[oaie]\s+d(?:a|al|alla|all['’])",
    re.I,
)  # fmt: skip
_MAY_SAY_PAID = regex(r"fund|finan|sponsor|paid|support|grant|förder", re.I)
"""What every such sentence has: nearly all others are passed over by it."""
_SOUGHT = regex(
    r"\b(?:if|may|can|could|must|should|request\w*|appl(?:y|ied|ies|ication)|eligible|will)\b", re.I
)
"""Speaks of money that somebody may be given."""


def says_who_paid(text: str) -> bool:
    """Whether a text says by whom something was paid for, and not who may ask for money."""
    if not _MAY_SAY_PAID.search(text):
        return False
    return _SAYS_PAID.search(text) is not None and _SOUGHT.search(text) is None


def is_in_script(text: str, language: str) -> bool:
    """Whether a sentence is written in the script of a language, as far as that tells."""
    script = _SCRIPTS.get(language)
    if script is None:
        return True
    n_letters = sum(map(str.isalpha, text))
    return len(script.findall(text)) >= OWN_SCRIPT * n_letters


def is_left_in_english(text: str, language: str) -> bool:
    """Whether a sentence of a document in another language has not been translated."""
    if language == "en":
        return False
    said = list(words(text))
    n_english = sum(word in common_words("en") for word in said)
    n_own = sum(word in common_words(language) for word in said)
    return n_english >= (FEWEST_SMALL if n_own else FEWEST_ALONE) and n_english > 2 * n_own


_NOTED = regex(r"(?:\[[^\]]*\])?[,;:]?$")
"""What may be glued to a name: the number of a work, a comma."""


def _starts(text: str, names: Collection[str]) -> bool:
    """Whether a sentence begins as one does; many scripts have no capitals, and some names."""
    bare = text.lstrip(_QUOTES)
    if names and _NOTED.sub("", bare.split(maxsplit=1)[0]) in names:
        return True
    first = bare[:1]
    if first.isalpha():
        return not first.islower() or bool(_IN_CAMEL.match(bare)) or text[0] in '"“'
    return first.isdigit() or text[:1] in ('"', "“")


def stands_alone(sentence: Sentence, names: Collection[str] = ()) -> bool:
    """Whether a sentence is whole and makes sense without the one before.

    Args:
        sentence: It.
        names: Words in small letters that sentences may begin with.
    """
    text = sentence.text
    n_words = word_count(text)
    if sentence.kind not in ("body", "item") or n_words < least_words(text, names):
        return False
    if n_words > LONGEST and word_count(without_asides(text)) > LONGEST:
        return False
    if not _ENDS.search(text) or not _starts(text, names):
        return False
    if _is_torn_off(text):
        return False
    if (
        _points_back(text)
        or _AS_TITLED.match(text)
        or _IN_BRACKETS.fullmatch(text)
        or _ASKED_BEFORE.match(text)
    ):
        return False
    if hangs(text) or text.count("\t") or _SPACED.search(text) or _only_names(text):
        return False
    bare = _DATED.sub("", text)
    letters = sum(map(str.isalpha, bare))
    return letters >= 0.68 * len(bare.replace(" ", "")) and text.count(". .") == 0


_DATED = regex(r"\s?[(（][^()（）]{0,40}\d[^()（）]{0,40}[)）]")
"""Brackets with figures, as of a version and its date: letters are counted without them."""


_IS_ONE = ("is a", "is an", "is the", "is one")


def least_words(text: str, names: Collection[str] = ()) -> int:
    """How many words a sentence must have to say something: "Jib is a sail" says what jib is."""
    first, *others = text.lower().split(maxsplit=3) or [""]
    is_of_name = first in names and " ".join(others[:2]) in _IS_ONE
    return SHORTEST_OF_NAME if is_of_name else SHORTEST


def _points_back(text: str) -> bool:
    """Whether it is said of "this" and of nothing that is the document's own: its text, its thing."""
    match = _OF_ANOTHER.match(text)
    if match is None:
        return False
    whole = text[match.end() :]
    return not (_OWN_THING.match(whole) or _STANDS.match(whole))


def _is_torn_off(text: str) -> bool:
    """Whether a sentence begins inside brackets, or goes on after what is cut from its front."""
    closes, opens = text.find(")"), text.find("(")
    if closes >= 0 and not 0 <= opens < closes and not _LETTERED.match(text):
        return True
    aside = _ASIDE.match(text)
    return aside is not None and text[aside.end() :].lstrip()[:1].islower()


def _only_names(text: str) -> bool:
    """Whether hardly a word is written small: "Ann Bale, Cy Dow, Di Eft, e Francesco P."."""
    told = [word for word in text.split() if word[:1].isalpha()]
    n_large = sum(word[0].isupper() for word in told)
    return n_large > 1 and len(told) - n_large < FEWEST_WRITTEN_SMALL


def says_something(text: str) -> bool:
    """Whether an English text has a verb: a signature and a caption have none."""
    if seems_to_have_verb(text):
        return True
    plain = text.lower().replace("’", "'")
    parts = [_WORDS.findall(part) for part in plain.split(",")]
    return has_clause(_WORDS.findall(plain)) or any(map(is_order, parts))


def hangs(text: str) -> bool:
    """Whether a sentence leans on the one before it."""
    if _WITHOUT_SUBJECT.match(text) and not text.rstrip().endswith("?"):
        return True
    if _WITH_AIM_BEFORE.match(text):
        return True
    leans = _HANGS.match(text) or _FOLLOWS.match(text) or _HANGS_UNSPACED.match(text)
    return bool(leans) and not _STANDS.match(text)


def _up_to_colon(text: str) -> str:
    """The first statement of a long sentence, where it is long enough to be one."""
    for match in _GOES_ON.finditer(text):
        n_words = word_count(text[: match.start()])
        if n_words > LONGEST:
            break
        if n_words >= WHOLE:
            return f"{text[: match.start()]} …"
    return text


def strangeness(text: str) -> float:
    """How much of a sentence is code or formula, 0 to 1."""
    n = len(_CODE.findall(text)) + len(_MATHS.findall(text))
    return min(n / 6.0, 1.0)


def without_asides(text: str) -> str:
    """A sentence with citations and pointers cut, "…" in their place.

    Of one that is too long even so, what it goes on with after a colon or semicolon is cut.
    """
    cut = _ASIDE.sub(" …", text)
    if len(cut) > LONGEST and word_count(cut) > LONGEST:
        cut = _up_to_colon(cut)
    if cut == text:
        return text
    cut = re.sub(r"\s*…\s*…", " …", cut)
    cut = re.sub(r"\s*…\s*(?=[.!?]$)", " …", cut)
    return re.sub(r"…(?=\w)", "… ", cut).strip()
