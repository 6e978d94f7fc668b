"""Questions about the whole document in other languages than English.

Each wording stands for the whole question, but for the small words of its language and the names
that a document goes by: with a word of its own beside, a question is one for a fact.
"""

import re

from wide_margin.core.later import regex
from wide_margin.core.lexicon import alternatives

_FILLERS = (
    r"(?:hier|es|in|im|um|von|für|dies\w*|das|der|die|dem|den|des|ist|sind|wird|wurde|ein\w*|dokument\w*|handbuch\w*|buch\w*|text\w*|bericht\w*|artikel\w*|arbeit"
    r"|aufsatz\w*|anleitung|schrift|vortrag|präsentation|kurs|kurz|bitte|mir|inhalt|ganze\w*|gedacht|bestimmt|geschrieben|verfasst"
    r"|destinée?s?|conçue?s?|écrite?s?|dirigid[oa]|pensad[oa]|escrit[oa]|destinad[oa]|destinat[oa]|pensat[oa]|scritt[oa]|bedoeld|geschreven"
    r"|ici|il|elle|de|du|des|d|l|la|le|les|un|une|ce|cet|cette|dans|en|pour|est|sont|été|a|document|manuel|livre|texte|rapport|article|guide|thèse|mémoire"
    r"|cours|formation|présentation|exposé|moi|bref|quelques|mots|s|qu|t|on"
    r"|aquí|el|los|las|lo|esto|est[ea]|del|es|son|fue|ha|sido|para|documento|manual|libro|texto|informe|artículo|guía|tesis|breve|por|favor"
    r"|qui|il|lo|gli|questo|questa|di|della|dello|è|sono|stato|stata|per|documento|manuale|libro|testo|rapporto|articolo|guida|tesi"
    r"|aqui|o|os|as|este|esta|isto|do|da|dos|das|foi|livro|texto|relatório|artigo|guia|tese"
    r"|het|dit|deze|van|voor|is|zijn|werd|boek|tekst|verslag|artikel|handleiding|gaat|over"
    rf"|{alternatives('program')})"
)
_WORDINGS = {
    "about": rf"worum geht|um was geht|wovon handelt|was steht|was ist der inhalt|worüber|fass\w*(?: {_FILLERS}){{0,3}} zusammen|zusammenfassung|überblick"
             r"|de quoi (?:parle|traite|s.agit|est|il)|quel est le (?:sujet|contenu)|résum\w+|que dit|en bref"
             r"|de qué (?:trata|habla|va)|cuál es el (?:tema|contenido)|resum\w+|qué dice"
             r"|di (?:che )?cosa (?:parla|tratta|si tratta)|qual è (?:il|l.) ?(?:tema|argomento|contenuto)|riassum\w+|riassunto"
             r"|de que (?:trata|fala|se trata)|sobre o que é|qual é o (?:tema|assunto)"
             rf"|waar gaat|waarover gaat|vat(?: {_FILLERS}){{0,3}} samen|samenvatting",
    "authors and date": r"wer (?:ist der autor|ist die autorin|sind die autor\w+|schrieb)|wer hat(?: \w+){0,3} (?:geschrieben|verfasst|herausgegeben)|von wem|wann erschien|wann (?:wurde|ist)(?: \w+){0,3} (?:geschrieben|erschienen|veröffentlicht)"
             r"|qui (?:a écrit|est l.auteur|sont les auteurs|en est l.auteur)|quand a(?:-t-il)?(?: \w+){0,3} (?:écrit|publié|paru)"
             r"|quién(?:es)? (?:escribió|es el autor|es la autora|son los autores|ha escrito)|cuándo (?:se )?(?:escribió|publicó)|cuándo fue(?: \w+){0,3} (?:escrito|publicado)"
             r"|chi (?:ha scritto|è l.autor\w+|sono gli autori)|quando è stat[oa](?: \w+){0,2} (?:scritt[oa]|pubblicat[oa])"
             r"|quem (?:escreveu|é o autor|são os autores)|quando foi(?: \w+){0,2} (?:escrito|publicado)"
             r"|wie (?:schreef|is de auteur|zijn de auteurs)|wie heeft(?: \w+){0,3} geschreven|wanneer (?:is|werd)(?: \w+){0,3} (?:geschreven|verschenen)",
    "audience": r"für wen|an wen (?:richtet|wendet) sich|wer soll\w*(?: \w+){0,3} lesen|à qui s.adresse|pour qui|a quién (?:va|está) dirigid[oa]|para quién|a chi (?:è rivolt[oa]|si rivolge)|per chi"
             r"|a quem se (?:destina|dirige)|para quem|voor wie",
    "purpose": r"was (?:macht|tut|kann)|was ist (?:das ziel|der zweck)|wozu (?:dient|ist)|que fait|qué hace|(?:che )?cosa fa|o que faz|wat doet|welche\w* zweck|quel est (?:le but|l.objectif)|à quoi sert|cuál es (?:el objetivo|el propósito)|para qué sirve|qual è (?:lo scopo|l.obiettivo)|a (?:che )?cosa serve"
             r"|qual é (?:o objetivo|o propósito)|para que serve|wat is het doel|waarvoor dient",
    "licence": r"(?:unter )?welche\w? lizenz|sous quelle licence|quelle est la licence|bajo qué licencia|cuál es la licencia|con quale licenza|sob que licença|onder welke licentie",
    "install": r"wie installier\w+ (?:ich|man)|wie wird(?: \w+){1,2} installiert|comment (?:l.)?installer|comment (?:on )?(?:s|l).installe|cómo (?:se |lo )?instal\w+|come (?:si )?install\w+"
               r"|como (?:se |o )?instal\w+|hoe installeer (?:ik|je)",
    "conclusion": r"was ist (?:das fazit|die schlussfolgerung)|fazit|quelle est la conclusion|cuál es la conclusión|qual è la conclusione|qual é a conclusão|wat is de conclusie",
}  # fmt: skip
_BOOK = r"(?: (?:den|det|denne|dette|denna|detta|här|her|(?:hånd|hand)?bo[gk]\w*|manual\w*|dokument\w*|te[kx]s?t\w*|rapport\w*|guid\w*|arti[kc]\w*)){0,3}"
"""What a document is called in the languages of the north."""
_OF_THE_NORTH_AND_EAST = (
    r"(?:den|det|de|här|denna|detta|dette|denne|boken|bogen|bok|bog|manualen|dokumentet|artikeln|artiklen|rapporten|texten|guiden|är|er|om|i"
    r"|ten|ta|to|tego|tej|ta?to|tento|toto|je|jest|dokument\w*|książk\w+|podręcznik\w*|artykuł\w*|tekst\w*|kniha|knihu|příručk\w+|manuál\w*|článek"
    r"|эт[аиоу]т?|этого|этой|этом|данн\w+|здесь|тут|документ\w*|книг\w+|стать\w+|текст\w*|руководств\w+|учебник\w*|отчёт\w*|он[аои]?|кратко|пожалуйста"
    rf"|{alternatives('program')}"
    r"|przeznaczon\w+|napisan\w+|určen\w*|napsán\w*|предназначен\w*|написан\w*|tarkoitettu|avsedd"
    r"|aquest\w*|això|llibre|guia|text|el|la|l|en|breu|acest\w*|această|document(?:ul)?|manualul|cartea|carte|ghidul|textul|το|τη|την|τον|ο|η|αυτό|αυτή|εδώ|έγγραφο|κείμενο|βιβλίο|εγχειρίδιο|bu|belgeyi|kitabı|kılavuzu|metni"
    r"|цей|ця|це|цього|ez|a|az|könyv|dokumentum|kézikönyv|tämä|tässä|kirja|kirjassa|asiakirja)"
)
_NORTH_AND_EAST = {
    "audience": rf"vem (?:är|vänder){_BOOK} (?:(?:avsedd )?för|sig till)|hve[mn](?:em)? er{_BOOK} (?:for|beregnet (?:på|til|for)|ment for|tenkt for)|hve[mn](?:em)? (?:henvender|retter){_BOOK} se[gi]g? (?:til|mot)"
    r"|kenelle|dla kogo|do kogo|pro koho|kinek (?:szól|való|készült)|для кого|на кого рассчитан\w*|pentru cine|cui se adresează|για ποιον|σε ποιον απευθύνεται|kimin için|kime yönelik",
    "about": rf"va(?:d|t) handlar (?:{_OF_THE_NORTH_AND_EAST} ){{0,3}}om|hva(?:d)? handler (?:{_OF_THE_NORTH_AND_EAST} ){{0,3}}om|mistä (?:{_OF_THE_NORTH_AND_EAST} ){{0,2}}kertoo|o czym jest|o čem (?:je|pojednává)|miről szól"
    r"|о ч[её]м(?: говорится| рассказывает| ид[её]т речь)?|про що|sammanfatta|oppsummer|sammenfat|tiivistä|podsumuj|streść|shrň|foglald össze|перескажи|кратко изложи|подведи итог"
    r"|de què (?:tracta|parla|va|es tracta)|resumeix|підсумуй|стисло перекажи|despre ce (?:este|e|vorbește|tratează)|για τι (?:μιλά\w*|πρόκειται)|τι (?:περιγράφει|πραγματεύεται)|(?:bu )?(?:belge|kitap|kılavuz|metin) (?:ne hakkında|neyi anlatıyor)",
    "purpose": r"vad (?:gör|kan)|hva(?:d)? (?:gør|gjør|kan)|do czego służy|co robi|k čemu (?:je|slouží)|co dělá|mire (?:való|jó)|mit csinál|для чего(?: нужн\w+| служит)?|что делает|для чого"
    r"|per a? ?què serveix|quin és l.objectiu|що робить|la ce (?:servește|folosește)|ce face|τι κάνει|σε τι χρησιμεύει|ne işe yarar",
    "authors and date": r"vem (?:har )?skr[ei]\w+|hve[mr](?:em)? (?:har )?skre\w+|kuka (?:on )?kirjoit\w+|kto (?:to )?napisał\w*|kto jest autor(?:em|ką)|kim jest autor\w*|kdo (?:to )?napsal\w*|kdo je autor\w*|ki (?:írta|a szerzője)"
    r"|vem är författare\w*|hve[mr](?:em)? er forfatter\w*|kuka on (?:sen )?kirjoittaja"
    r"|кто (?:автор\w*|написал\w*|составил\w*)|хто (?:автор\w*|написав)|när skrevs|hvornår blev(?: \w+){0,2} skrevet|når ble(?: \w+){0,2} skrevet"
    r"|kiedy(?: \w+){0,2} napisan\w*|kdy bylo? (?:to )?napsán\w*|когда(?: \w+){0,2} (?:написан\w*|издан\w*|выш\w+)"
    r"|qui (?:ha escrit|va escriure|és l.autor\w*|en són els autors)|cine (?:l-a |a |le-a )?scris|cine (?:este autorul|sunt autorii)|ποι[οό]ς (?:το )?έγραψε|ποι[οό]ς είναι ο συγγραφέας|ποιοι (?:το )?έγραψαν|(?:bunu )?kim yazdı|yazarı kim",
    "licence": r"(?:under )?vilken licens|hvilken licens|hvilken lisens|na jakiej licencji|jaka (?:to )?licencja|pod jakou licencí|(?:под )?как(?:ая|ой) лицензи\w+"
    r"|sub ce licență|(?:με|υπό) ποια άδεια|hangi lisans\w*",
    "install": r"hur installerar (?:jag|man)|hvordan installerer (?:jeg|man)|jak (?:to |go |ją )?(?:za)?instalować|jak (?:to |ho )?(?:na)?instal\w+"
    r"|как (?:его |её |это )?(?:установить|устанавлива\w+)|як (?:його )?встановити"
    r"|com (?:s.|es |ho )?instal\w+|cum (?:se |îl |o )?instal\w+|πώς (?:το )?εγκα\w+|nasıl (?:kurulur|kurarım)",
}
_WITHOUT_BLANKS = {
    "about": r"(?:この|本)?(?:文書|文章|書|本|資料|論文|マニュアル|説明書|ドキュメント|手引き)?(?:の内容)?(?:は|って)?、?(?:何|なに)(?:について|が書(?:いて|かれて)|の(?:話|本|文書|資料))\S*"
             r"|(?:(?:この|本)(?:文書|文章|書|本|資料|論文|マニュアル))?(?:を|の)?(?:短く)?要約\S*|概要(?:は|を)?\S*"
             r"|(?:这|這|本|该|該)?(?:份|篇|本|个|個|部)?(?:文档|文檔|文件|文章|手册|手冊|书|書|论文|論文|报告|報告)?(?:主要)?(?:是)?(?:关于|關於|讲|講|说|說|介绍|介紹|讨论|討論)\S{0,3}?(?:什么|什麼|哪些)\S{0,4}"
             r"|(?:请|請)?(?:总结|總結|概括|概述)(?:一下)?(?:这|這|本|该|該)?(?:份|篇|本)?(?:文档|文檔|文件|文章|手册|手冊|书|書|论文|論文)?"
             r"|(?:이\s?)?(?:문서|책|논문|설명서|글)(?:는|은)?\s?(?:무엇|뭐)\S*(?:\s\S+){0,3}|(?:이\s?(?:문서|책|글)를?\s?)?요약\S*(?:\s\S+)?",
    "purpose": r"(?:これ|(?:この|本)(?:文書|文章|書|本|資料|マニュアル|説明書|手引き|プログラム|パッケージ|ソフト(?:ウェア)?|ツール|ライブラリ))(?:の目的)?(?:は|って)?、?(?:何|なに|なん)(?:のため|に使|をする|です)\S*"
             r"|(?:这|這|本|该|該)(?:份|篇|本|个|個|部|款)?(?:文档|文檔|手册|手冊|书|書|程序|程式|软件|軟件|軟體|工具|包|库|庫)(?:是)?(?:用来|用來)?(?:做|干|幹|有)(?:什么|什麼)\S{0,4}"
             r"|(?:这|這|本|该|該)\S{1,5}的(?:目的|用途|作用)是(?:什么|什麼)|이\s?(?:문서|책|설명서|프로그램|패키지|도구)(?:는|은)?\s?(?:무엇을 위한|무엇에 쓰|무슨 일을)\S*(?:\s\S+)?",
    "authors and date": r"(?:この|本)?(?:文書|書|本|マニュアル|論文)?(?:の)?(?:著者|作者|筆者)(?:は|が)?(?:誰|だれ)?(?:です)?か?|(?:誰|だれ)が(?:書|作)\S*"
             r"|(?:谁|誰)(?:写|寫|编写|編寫|著)(?:了|的)?\S{0,8}|(?:\S{0,6}的)?作者是(?:谁|誰)|(?:저자|작가|지은이)(?:는|가)?\s?누구\S*",
    "licence": r"ライセンス(?:は)?(?:何|なに)?(?:です)?か?|(?:使用)?(?:什么|什麼|何种|哪种)(?:许可证|許可證|许可|授权|授權)\S{0,3}|라이선스(?:는|가)?\s?(?:무엇|뭐)?\S*",
    "install": r"(?:どうやって|どのように)インストール\S*|インストール(?:の)?(?:方法|手順|する(?:に|方法))\S*|(?:如何|怎么|怎麼|怎样|怎樣)(?:安装|安裝)|(?:安装|安裝)(?:方法|步骤|步驟)\S{0,4}|설치(?:하는)?\s?(?:방법)\S*",
}  # fmt: skip
_KINDS: dict[str, tuple[re.Pattern[str], ...]] = {
    kind: tuple(
        regex(rf"^\W*(?:{wordings[kind]}){rest}\W*$", re.I)
        for wordings, rest in (
            (_WORDINGS, rf"(?:[\s’']+{_FILLERS})*"),
            (_NORTH_AND_EAST, rf"(?:[\s’']+{_OF_THE_NORTH_AND_EAST})*"),
            (_WITHOUT_BLANKS, ""),
        )
        if kind in wordings
    )
    for kind in _WORDINGS
}
# Questions that only a section called so answers: "Wat heb ik nodig?" by "Requirements".
_TITLED = {
    "needs": (
        r"was (?:brauche|brauchen|benötige|benötigen|braucht|benötigt) (?:ich|man|wir|es)|was wird benötigt"
        r"|(?:was|welche) sind die (?:\w*voraussetzungen|\w*anforderungen)|welche (?:\w*voraussetzungen|\w*anforderungen) (?:gibt es|gelten|bestehen|hat)"
        r"|de quoi (?:ai-je|a-t-on|avons-nous) besoin|que (?:me |nous )?faut-il|quels sont les (?:pr[ée]-?requis|besoins)(?: système| minimaux)?"
        r"|quelle est la configuration (?:minimale|requise|nécessaire)|(?:qué|que) (?:necesito|se necesita|hace falta)|cuáles son (?:los|sus) requisitos(?: mínimos| del sistema)?"
        r"|di (?:che )?cosa (?:ho|si ha|c[’']è) bisogno|(?:che )?cosa (?:mi )?serve|quali sono i requisiti(?: minimi| di sistema)?"
        r"|(?:o |de )?que (?:eu )?(?:preciso|é preciso|é necessário)|quais são os requisitos(?: mínimos| do sistema)?"
        r"|wat (?:heb ik|heeft men) nodig|wat is er nodig|wat zijn de (?:systeem)?(?:vereisten|eisen)"
    ),
    "limits": (
        r"(?:was|welche) sind (?:die|seine|ihre) (?:grenzen|einschränkungen|nachteile|schwächen)|welche (?:grenzen|einschränkungen|nachteile|schwächen) (?:gibt es|hat \w+)"
        r"|quelles? sont (?:les|ses) (?:limites|limitations|inconvénients|faiblesses|restrictions)"
        r"|cuáles son (?:las|sus) (?:limitaciones|desventajas|restricciones)|qué (?:limitaciones|desventajas|restricciones) (?:tiene|hay)"
        r"|quali sono (?:i limiti|le limitazioni|gli svantaggi|le restrizioni)|(?:che|quali) (?:limiti|limitazioni|svantaggi) (?:ha|ci sono)"
        r"|quais são as (?:suas )?(?:limitações|desvantagens|restrições)|(?:que|quais) (?:limitações|desvantagens) (?:tem|há)"
        r"|wat zijn de (?:beperkingen|nadelen)|welke (?:beperkingen|nadelen) (?:zijn er|heeft \w+)"
    ),
    "new": (
        r"was ist neu|was gibt es neues|was hat sich geändert|welche neuerungen gibt es"
        r"|quoi de neuf|quelles sont les nouveautés|qu[’']est-ce qui (?:est nouveau|a changé)"
        r"|qué hay de nuevo|qué novedades (?:hay|tiene|trae)|cuáles son las novedades|qué ha cambiado"
        r"|(?:che )?cosa c[’']è di nuovo|quali sono le novità|(?:che )?cosa è cambiato"
        r"|o que há de novo|quais são as novidades|o que mudou|wat is er (?:nieuw|veranderd)"
    ),
    "bugs": (
        r"(?:wo|wie) (?:melde|meldet|melden) (?:ich|man|wir)(?: einen| die)? (?:fehler|bugs?|probleme)"
        r"|(?:où|comment) (?:puis-je |peut-on )?(?:signaler|rapporter) (?:un |une |les |des )?(?:bugs?|bogues?|erreurs?|problèmes?)"
        r"|(?:dónde|cómo) (?:puedo |se pueden? |se )?(?:informo|informa[rn]?|reporto|reporta[rn]?|notifico|notifica[rn]?) (?:de |sobre )?(?:un |los )?(?:errores|error|fallos?|bugs?|problemas?)"
        r"|(?:dove|come) (?:posso |si possono |si )?(?:segnalo|segnala(?:re|no)?) (?:un |gli |i )?(?:errori|errore|bug|problemi|problema)"
        r"|(?:onde|como) (?:posso |se )?(?:relato|relata[rm]?|reporto|reporta[rm]?|informo|informa[rm]?) (?:um |os )?(?:erros|erro|bugs?|problemas?)"
        r"|(?:waar|hoe) (?:meld|meldt|kan) (?:ik|men|je)(?: een)? (?:fouten|fout|bugs?)(?: melden)?"
    ),
}  # fmt: skip
_OF_TITLED = {
    kind: regex(rf"^\W*(?:{wordings})(?:[\s’']+{_FILLERS})*\W*$", re.I)
    for kind, wordings in _TITLED.items()
}
# As they are put to that section.
_IN_ENGLISH = {
    "needs": "What do I need?", "limits": "What are its limits?", "new": "What is new?",
    "bugs": "Where do I report bugs?",
}  # fmt: skip
_WHEN = regex(r"^\W*(?:wann|quand|cuándo|quando|wanneer|när|når|hvornår|kiedy|kdy|когда)\b", re.I)


def in_english(text: str) -> str:
    """A question after authors or date as it is put in English: the facts go by that."""
    return "when was it written?" if _WHEN.match(text) else "who wrote it?"


def kind_abroad(text: str) -> str:
    """Which question about the whole a text asks in another language; "" for none."""
    kinds = (k for k, patterns in _KINDS.items() if any(p.match(text) for p in patterns))
    return next(kinds, "")


def titled_kind_abroad(text: str) -> tuple[str, str]:
    """What is asked in another language that a section of its own may answer, and it in English.

    Its kind as in ``titled.KINDS``; "" twice for other questions.
    """
    kinds = (kind for kind, pattern in _OF_TITLED.items() if pattern.match(text))
    kind = next(kinds, "")
    return kind, _IN_ENGLISH.get(kind, "")
