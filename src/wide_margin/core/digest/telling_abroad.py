"""Wordings that decide what a sentence tells, in other languages than English.

Those of ``telling.py`` are asked first, whatever the language: much text is translated in part.
"""

from __future__ import annotations

from wide_margin.core.digest.telling import is_not_for
from wide_margin.core.later import regex

_FRONT = frozenset({"purpose", "audience"})
"""What is said of a document near its front only; deep in it, it is said of some detail."""
_FORMS = {
    "de": {
        "purpose": r"\bziel (?:dieses|dieser|des|der) \w+ ist\b|\bsoll(?:en)? (?:dabei )?helfen\b"
                   r"|\b(?:gibt|bietet) (?:\w+ ){0,2}(?:einführung|überblick|übersicht)\b"
                   r"|\b(?:dient|dienen) (?:zum|zur|dazu)\b"
                   r"|\b(?:wurde|ist) (?:\w+ ){0,2}(?:erstellt|entwickelt|geschrieben|entworfen|gedacht),? (?:um|damit|für)\b",
        "audience": r"\b(?:richtet|wendet) sich (?:\w+ )?an\b|\bzielgruppe\b"
                    r"|\bfür (?:\w+ )?(?:anwender|benutzer|leser|entwickler|einsteiger|anfänger|studierende|alle)\w*\b.{0,40}\bgedacht\b",
        "needs": r"\b(?:system)?voraussetzung(?:en)? (?:ist|sind|für)\b|\bsystemvoraussetzungen\b"
                 r"|\b(?:muss|müssen) (?:\w+ ){0,4}installiert (?:sein|werden)\b",
        "procedure": r"^um .{3,90} zu \w+, (?:\w+ ){0,2}(?:sie|man|du|muss|kann|genügt|verwende|gib)\b"
                     r"|\bgehen sie (?:\w+ )?(?:wie folgt|folgendermaßen)\b",
        "warning": r"^\W*(?:achtung|warnung|vorsicht|wichtig)\b|\b(?:darf|dürfen) (?:\w+ ){0,3}nicht\b"
                   r"|\b(?:niemals|auf keinen fall)\b|\bseien sie vorsichtig\b|\bachten sie darauf\b",
        "limit": r"\beinschränkung(?:en)?\b|\bnachteil(?:e|en)?\b|\b(?:wird|werden) (?:\w+ )?nicht unterstützt\b"
                 r"|\bfunktioniert nicht\b|\bbekannte (?:probleme|fehler)\b",
        "conclusion": r"\bzusammenfassend\b|\binsgesamt\b|\b(?:als|im) fazit\b",
        "next": r"\bgeplant\b|\bzukünftigen? versionen\b",
        "result": r"\b(?:ergebnisse?|untersuchung) (?:zeigt|zeigen)\b|\bes zeigt(?:e)? sich\b",
    },
    "fr": {
        "purpose": r"\b(?:le |l['’])?(?:but|objectif|objet) (?:de ce|de cette|de cet|du|est)\b"
                   r"|\bdestinée?s? à \w+(?:er|ir|re)\b"
                   r"|\b(?:a|ont) pour (?:but|objectif|objet)\b|\bvise à\b",
        "audience": r"\bs['’]adresse (?:\w+ )?(?:à|aux?)\b|\b(?:lecteur|public) (?:cible|visé)\b|\bà l['’]intention d|\bsuppose que (?:vous|le lecteur)\b"
                    r"|\bdestinée?s? (?:à|aux?) (?:\w+ )?(?:utilisateurs|lecteurs|développeurs|débutants|étudiants|ceux|personnes|tous)\b",
        "needs": r"\b(?:prérequis|pré-requis|configuration requise)\b"
                 r"|\bdoi(?:t|vent) (?:\w+ )?être installée?s?\b|\bvous devez (?:disposer|avoir installé)\b",
        "procedure": r"^(?:pour|afin de|afin d['’]) ?\w.{3,90}, (?:\w+ )?(?:il (?:faut|suffit)|utilisez|cliquez|lancez|tapez"
                     r"|exécutez|choisissez|ajoutez|vous (?:devez|pouvez)|on (?:utilise|doit|peut))\b",
        "warning": r"^\W*(?:attention|avertissement|danger|important)\b|\bne (?:\w+ ){1,4}(?:jamais|surtout)\b"
                   r"|\b(?:veillez|prenez garde|faites attention)\b|\bne (?:doit|doivent) pas\b",
        "limit": r"\blimitations?\b|\binconvénients?\b|\bpas (?:encore )?pris(?:es?)? en charge\b"
                 r"|\bne fonctionne(?:nt)? pas\b|\b(?:problèmes|bogues) connus\b",
        "conclusion": r"\ben (?:conclusion|résumé)\b|\bpour conclure\b",
        "next": r"\bfutures versions\b|\bversions? (?:futures?|ultérieures?)\b|\best prévue?\b",
        "result": r"\b(?:les résultats|cette étude) (?:montre|montrent|indique|indiquent)\b",
    },
    "es": {
        "purpose": r"\b(?:el |un )?(?:objetivo|propósito|fin) (?:de est[ea]|del?|es)\b|\bpretende\b"
                   r"|\btiene (?:como|por) (?:objetivo|objeto|finalidad)\b",
        "audience": r"\bse dirige a\b|\b(?:lector|público) (?:objetivo|al que va dirigid[oa])\b|\b(?:dirigid|destinad|pensad)[oa]s? (?:a|para) (?:\w+ )?(?:usuarios|lectores|desarrolladores|principiantes|estudiantes|quienes|personas|aquellos|todos)\b",
        "needs": r"\brequisitos (?:mínimos|previos|del sistema|de)\b|\bdeben? (?:estar|ser) instalad[oa]s?\b"
                 r"|\bes necesario (?:tener|instalar|disponer)\b",
        "procedure": r"^para \w.{3,90}, (?:\w+ )?(?:use|utilice|ejecute|pulse|haga|escriba|seleccione|debe|deberá|puede|hay que|basta"
                     r"|es necesario|se (?:debe|puede|usa|utiliza))\b",
        "warning": r"^\W*(?:advertencia|atención|cuidado|peligro|importante|aviso)\b|\bno deben?\b"
                   r"|\b(?:nunca|jamás)\b|\btenga cuidado\b|\basegúrese\b",
        "limit": r"\blimitaci(?:ón|ones)\b|\bdesventajas?\b|\binconvenientes?\b|\bno (?:está )?soportad[oa]s?\b"
                 r"|\bno funcionan?\b|\bproblemas conocidos\b",
        "conclusion": r"\ben (?:conclusión|resumen|definitiva)\b|\bpara concluir\b",
        "next": r"\bfuturas versiones\b|\bestá previst[oa]\b",
        "result": r"\b(?:los resultados|este estudio) (?:muestra|muestran|indica|indican)\b",
    },
    "it": {
        "purpose": r"\b(?:lo )?scopo (?:di quest|del|è)\b|\b(?:l['’])?obiettivo (?:di quest|del|è)\b"
                   r"|\bha lo scopo di\b|\bsi propone di\b",
        "audience": r"\bsi rivolge a\w*\b|\b(?:rivolt|destinat|pensat)[oa] (?:a\w*|per) (?:\w+ )?(?:utenti|lettori|sviluppatori|principianti|studenti|coloro|chi|persone|tutti)\b",
        "needs": r"\bprerequisiti\b|\brequisiti (?:minimi|di sistema)\b|\bdev(?:e|ono) essere installat[oaie]\b"
                 r"|\bè necessario (?:avere|disporre)\b",
        "procedure": r"^per \w.{3,90}, (?:\w+ )?(?:usare|usa|usate|eseguire|esegui|cliccare|digitare|scegliere|basta|bisogna|occorre|si (?:deve|può|usa)"
                     r"|è (?:necessario|sufficiente|possibile))\b",
        "warning": r"^\W*(?:attenzione|avvertenza|avviso|pericolo|importante)\b|\bnon (?:\w+ ){0,2}mai\b"
                   r"|\bnon dev(?:e|ono)\b|\bassicur(?:arsi|atevi|ati)\b",
        "limit": r"\blimitazion[ei]\b|\bsvantagg[io]\w*\b|\bnon (?:è |sono )?(?:ancora )?supportat[oaie]\b"
                 r"|\bnon funziona(?:no)?\b|\bproblemi noti\b",
        "conclusion": r"\bin (?:conclusione|sintesi|definitiva)\b|\bper concludere\b",
        "next": r"\bfuture versioni\b|\bè prevista?\b",
        "result": r"\b(?:i risultati|questo studio) (?:mostra|mostrano|indica|indicano)\b",
    },
    "pt": {
        "purpose": r"\b(?:o )?(?:objetivo|objectivo|propósito) (?:dest[ea]|d[oa]|é)\b|\bvisa \w"
                   r"|\btem (?:como|por) (?:objetivo|objectivo|finalidade)\b|\bpretende\b|\bdestina-se a \w+[aei]r\b",
        "audience": r"\bdestina-se a(?! \w+[aei]r\b)\w*\b|\b(?:leitor|público)[- ]alvo\b|\b(?:dirigid|destinad|voltad)[oa]s? (?:a\w*|para) (?:\w+ )?(?:usuários|utilizadores|leitores|programadores|iniciantes|estudantes|quem|pessoas|aqueles|todos)\b",
        "needs": r"\bpré-requisitos\b|\brequisitos (?:mínimos|d[eo])\b|\bdevem? (?:estar|ser) instalad[oa]s?\b"
                 r"|\bé necessário (?:ter|instalar)\b",
        "procedure": r"^para \w.{3,90}, (?:\w+ )?(?:use|utilize|execute|clique|digite|escolha|deve|pode|basta|é necessário|pode-se"
                     r"|deve-se)\b",
        "warning": r"^\W*(?:aviso|atenção|cuidado|perigo|importante)\b|\bnão devem?\b|\b(?:nunca|jamais)\b"
                   r"|\b(?:certifique-se|tenha cuidado)\b",
        "limit": r"\blimitaç(?:ão|ões)\b|\bdesvantage(?:m|ns)\b|\bnão (?:é |são )?suportad[oa]s?\b"
                 r"|\bnão funcionam?\b|\bproblemas conhecidos\b",
        "conclusion": r"\bem (?:conclusão|resumo|suma)\b|\bpara concluir\b|\bconclui-se\b",
        "next": r"\bfuturas versões\b|\bestá previst[oa]\b",
        "result": r"\b(?:os resultados|este estudo) (?:mostra|mostram|indica|indicam)\b",
    },
    "nl": {
        "purpose": r"\b(?:het )?doel (?:van (?:dit|deze|het)|is)\b",
        "audience": r"\b(?:bedoeld|bestemd|geschreven) voor (?:\w+ )?(?:gebruikers|lezers|ontwikkelaars|beginners|studenten|mensen|iedereen)\b|\bricht zich (?:op|tot)\b",
        "needs": r"\bsysteemvereisten\b|\bmoet(?:en)? (?:\w+ ){0,3}geïnstalleerd (?:zijn|worden)\b|\bu heeft minstens\b",
        "procedure": r"^om .{3,90} te \w+,? (?:\w+ )?(?:u|moet|kunt|gebruikt?|volstaat|dient)\b",
        "warning": r"^\W*(?:waarschuwing|let op|pas op|belangrijk|opgelet)\b|\bnooit\b"
                   r"|\bmag (?:\w+ ){0,3}niet\b|\bzorg ervoor\b",
        "limit": r"\bbeperking(?:en)?\b|\bnade(?:el|len)\b|\bniet ondersteund\b|\bwerkt niet\b",
        "conclusion": r"\b(?:samenvattend|tot slot|concluderend)\b",
        "next": r"\b(?:is|zijn|staat) gepland\b|\btoekomstige versies\b",
    },
    "ru": {
        "purpose": r"\bцель(?:ю)? (?:этого|данного|настоящего|этой|данной)\b|\bпредназначен[аоы]? для\b",
        "audience": r"\b(?:адресован|рассчитан|предназначен)[аоы]? (?:для |на )?(?:\w+ )?(?:тех|пользовател|читател|разработчик|начинающ|студент)",
        "needs": r"\b(?:необходимо установить|системные требования|должн[аоы]? быть установлен)",
        "procedure": r"^(?:для того,? )?чтобы .{3,90}, (?:\w+ )?(?:используйте|выполните|нажмите|введите|нужно|необходимо|достаточно)\b",
        "warning": r"^\W*(?:внимание|предупреждение|осторожно|важно)\b|\b(?:никогда не|нельзя|не следует)\b",
        "limit": r"\b(?:ограничени|недостат(?:ок|ки|ком))\w*|\bне поддерживается\b|\bне работает\b",
        "next": r"\bпланируется\b|\bв будущих версиях\b",
    },
    "pl": {
        "purpose": r"\bcel(?:em)? (?:tego|niniejsz\w+|dokumentu)\b",
        "audience": r"\b(?:przeznaczon|skierowan)\w+ (?:dla|do) (?:\w+ )?(?:użytkownik|czytelnik|programist|początkując|student|osób|tych)",
        "needs": r"\bwymagania systemowe\b|\bmusi być zainstalowan\w+",
        "procedure": r"^aby .{3,90}, (?:należy|trzeba|wystarczy|można|użyj|wpisz|uruchom)\b",
        "warning": r"^\W*(?:uwaga|ostrzeżenie|ważne)\b|\b(?:nigdy nie|nie wolno|nie należy)\b",
        "limit": r"\bograniczeni(?:a|em|e)\b|\bwad(?:a|y|ą)\b|\bnie jest obsługiwan\w+|\bnie działa\b",
        "next": r"\bw przyszłych wersjach\b|\bplanowan\w+",
    },
    "zh": {
        "purpose": r"(?:本|该|这)\S{1,4}(?:旨在|用于|的目的)|(?:手册|文档|指南|教程|本书)[^。]{0,60}旨在",
        "audience": r"目标(?:读者|用户)|(?:面向|适合|适用于)\S{1,12}(?:者|人员|用户|读者)",
        "needs": r"(?:需要|必须)(?:先)?(?:安装|具备)|系统要求", "warning": r"^\W*(?:注意|警告|小心|重要)|(?:不要|切勿|千万不)",
        "limit": r"(?:限制|缺点|不支持|尚未|暂不)", "next": r"(?:将来|未来|计划)(?:会|将|支持)",
    },
    "ja": {
        "purpose": r"(?:目的(?:は|と)|ことを目指)", "audience": r"(?:を対象と|向け(?:の|に|です))",
        "needs": r"(?:が必要(?:です|である|となり)|をインストールしておく|動作環境)",
        "warning": r"^\W*(?:注意|警告|重要)|(?:しないでください|してはいけません|してはならない)",
        "limit": r"(?:制限|欠点|対応していません|サポートしていません|できません)", "next": r"(?:今後|将来)",
    },
}  # fmt: skip
"""By language and the name of the cue, to be looked for in lower-case text."""
_PATTERNS = {
    language: {cue: regex(form) for cue, form in forms.items()}
    for language, forms in _FORMS.items()
}


def told_abroad(cue: str, text: str, language: str, *, is_front: bool) -> bool:
    """Whether a sentence surely tells what a cue stands for, in its own language.

    Args:
        cue: A name in ``roles.CUES``.
        text: The sentence in lower case.
        language: Of the document, as its code.
        is_front: Whether it stands near the front of the document.
    """
    if cue in _FRONT and not is_front:
        return False
    pattern = _PATTERNS.get(language, {}).get(cue)
    is_told = pattern is not None and pattern.search(text) is not None
    return is_told and not (cue == "purpose" and is_not_for(text))
