"""Questions about the whole in other languages, told from those for a fact."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.answers.terms_abroad import short_form_abroad
from wide_margin.core.digest import Digester
from wide_margin.core.digest.abroad import kind_abroad, titled_kind_abroad
from wide_margin.core.digest.asked import read_overview
from wide_margin.core.digest.by_kind import LONG
from wide_margin.core.digest.parts_abroad import part_asked_abroad
from wide_margin.core.digest.sides import sides_of
from wide_margin.core.digest.telling import tells
from wide_margin.core.digest.telling_abroad import told_abroad
from wide_margin.core.explain.subjects_abroad import subject_abroad


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("Worum geht es hier?", "about"),
        ("Fasse das Dokument kurz zusammen.", "about"),
        ("Wer hat dieses Handbuch geschrieben?", "authors and date"),
        ("Wann ist das Buch erschienen?", "authors and date"),
        ("An wen richtet sich dieses Buch?", "audience"),
        ("Unter welcher Lizenz ist es?", "licence"),
        ("De quoi parle ce document ?", "about"),
        ("Résume le document en quelques mots", "about"),
        ("À qui s’adresse ce manuel ?", "audience"),
        ("Qui a écrit ce livre ?", "authors and date"),
        ("Quel est le but de ce guide ?", "purpose"),
        ("¿De qué trata este libro?", "about"),
        ("¿Quién escribió este manual?", "authors and date"),
        ("¿Para quién es este libro?", "audience"),
        ("Für wen ist das Buch gedacht?", "audience"),
        ("Hvem er håndboken for?", "audience"),
        ("Vem är den här boken avsedd för?", "audience"),
        ("Dla kogo jest ta książka przeznaczona?", "audience"),
        ("Di cosa parla questo documento?", "about"),
        ("Qual è lo scopo di questa guida?", "purpose"),
        ("De que trata este livro?", "about"),
        ("Waar gaat dit boek over?", "about"),
        ("Vad handlar den här boken om?", "about"),
        ("O czym jest ten dokument?", "about"),
        ("De què tracta aquest document?", "about"),
        ("Qui ha escrit aquest llibre?", "authors and date"),
        ("О чём этот документ?", "about"),
        ("О чем эта книга?", "about"),
        ("この文書は何についてですか？", "about"),
        ("これは何のための文書ですか", "purpose"),
        ("このプログラムは何をするものですか？", "purpose"),
        ("この文書の目的は何ですか", "purpose"),
        ("这个软件是做什么的？", "purpose"),
        ("本手册的目的是什么？", "purpose"),
        ("이 프로그램은 무엇을 위한 것입니까?", "purpose"),
        ("この文書を要約してください。", "about"),
        ("这份文件讲了什么？", "about"),
        ("请总结这篇文章", "about"),
        ("이 문서는 무엇에 관한 것입니까?", "about"),
        ("Was macht das Paket?", "purpose"),
        ("A che cosa serve il pacchetto?", "purpose"),
        ("Que fait ce programme ?", "purpose"),
        ("Do czego służy pakiet?", "purpose"),
        ("Для чего нужна эта программа?", "purpose"),
        ("Vem har skrivit boken?", "authors and date"),
        ("Kto napisał tę książkę?", ""),
        ("Kto napisał ten podręcznik?", "authors and date"),
        ("Кто автор этой книги?", "authors and date"),
        ("著者は誰ですか？", "authors and date"),
        ("作者是谁？", "authors and date"),
        ("Wie installiere ich es?", "install"),
        ("Comment l’installer ?", "install"),
        ("Как его установить?", "install"),
        ("インストール方法は？", "install"),
        ("如何安装？", "install"),
        ("Под какой лицензией этот документ?", "licence"),
        ("Despre ce este acest document?", "about"),
        ("Cine a scris acest document?", "authors and date"),
        ("Για τι μιλάει αυτό το βιβλίο;", "about"),
        ("Ποιος έγραψε το έγγραφο;", "authors and date"),
        ("Bu belge ne hakkında?", "about"),
    ],
)
def test_the_whole_is_asked_about(question, kind):
    assert kind_abroad(question) == kind


@pytest.mark.parametrize(
    "question",
    [
        "Wer hat den Brunnen gebaut?",
        "Worum geht es bei der Wahl der Seile?",
        "Wann wurde der Brunnen gegraben?",
        "De quoi a besoin le gardien ?",
        "À qui s’adresse le message d’erreur ?",
        "Qui a écrit le script du puits ?",
        "¿De qué está hecha la cuerda?",
        "Chi ha scritto il messaggio sul secchio?",
        "What is it about?",
        "Para que serve a corda?",
        "Was macht das Seil im Brunnen?",
        "Do czego służy lina?",
        "О чём говорит верёвка на колодце?",
        "Как установить верёвку?",
        "Vem byggde brunnen?",
        "Für wen ist das Seil gedacht?",
        "Hvem er tauet for?",
        "如何安装字体？",
        "水桶是谁的？",
        "ロープは何で作られていますか？",
    ],
)
def test_a_fact_is_asked_for(question):
    assert kind_abroad(question) == ""


@pytest.mark.parametrize(
    ("question", "said"),
    [
        ("Wer hat das geschrieben?", "Marta Lindqvist"),
        ("¿Quién escribió este manual?", "Marta Lindqvist"),
        ("Quando è stato scritto?", "4 May 2019"),
        ("À qui s’adresse ce manuel ?", ""),
    ],
)
def test_facts_are_told_and_what_is_not_said_is_declined(tmp_path, question, said):
    text = ("text", "The rope is of hemp and is changed every eighteen months by the keeper.")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "Village Wells"), ("said", "Marta Lindqvist"), ("said", "4 May 2019")], [text] * 9,
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(question, WHOLE, None)
    told = " ".join(quote.text for quote in answer.quotes)
    assert said in told
    assert bool(told) == bool(said)


def test_chapters_of_a_long_document_speak_in_its_language(tmp_path):
    syllables = [a + b for a in "bdfgklmnprst" for b in "aeiou"]

    def name(k):
        return (syllables[k % 60] + syllables[k // 60 % 60] + syllables[k * 7 % 60]).capitalize()

    def told(k):
        return [f"{name(3 * n)} liegt bei {name(3 * n + 1)} und {name(3 * n + 2)} an dem Weg."
                for n in range(40 * k, 40 * k + 40)]  # fmt: skip

    pages = [[("h1", f"{k} {name(k)}"), ("text", " ".join(told(k)))] for k in range(1, 56)]
    make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    assert len(document.text.sentences) > LONG
    assert document.index.language == "de"
    assert len(Digester(document).gist(n_words=100)) >= 3


@pytest.mark.parametrize(
    ("question", "section"),
    [
        ("Fasse Kapitel 2 zusammen", "2 Seile"),
        ("De quoi parle le chapitre 1 ?", "1 Brunnen"),
        ("Worum geht es in Abschnitt 2?", "2 Seile"),
        ("Resume el capítulo 1", "1 Brunnen"),
        ("Wie lang ist das Seil in Kapitel 2?", None),
    ],
)
def test_a_part_is_asked_about(tmp_path, question, section):
    text = (
        "text",
        "Das Seil ist aus Hanf und wird alle achtzehn Monate von dem Wärter gewechselt.",
    )
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Brunnen"), text, ("h1", "2 Seile"), text]])
    found = read_overview(read_document(tmp_path / "a.pdf"), question, WHOLE)
    assert (found and found.reach.name) == section


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("本篇《水井维护者指南》（2022-05-09）教程文档面向所有的井夫。", True),
        ("本指南注重描述现代的水井。", True),
        ("本机的绳子是麻做的。", False),
        ("niniejsze krótkie wprowadzenie opisuje system studni.", True),
        ("celem tego dokumentu nie jest opis studni.", False),
        ("dieses dokument ist keine einführung in den brunnenbau.", False),
        ("the purpose of this guide is not to describe ropes.", False),
        ("this guide does not describe ropes, it is on wells.", False),
    ],
)  # fmt: skip
def test_what_a_document_is_for_and_not_for(said, is_told):
    told = tells("purpose", said, is_front=True) or told_abroad(
        "purpose", said, "pl", is_front=True
    )
    assert told is is_told


@pytest.mark.parametrize(
    ("said", "language", "is_subject"),
    [
        ("Studniarz jest programem do opisu studni i lin.", "pl", True),
        ("Studniarz jest dostępny na wielu wyspach doliny.", "pl", False),
        ("Studnař je program pro popis studní a lan.", "cs", True),
        ("Studnař je dostupný na mnoha ostrovech údolí.", "cs", False),
    ],
)  # fmt: skip
def test_how_a_thing_is_does_not_say_what_it_is(said, language, is_subject):
    assert (subject_abroad(said, language) is not None) is is_subject


@pytest.mark.parametrize("typed", ["Kto jest autorem?", "Kdo je autorem?", "Vem är författaren?"])
def test_who_wrote_it_is_asked_in_more_languages(typed):
    assert kind_abroad(typed) == "authors and date"


def three_gates(folder):
    """A document of three sections, each on a page of its own."""
    said = ("text", "The lid of the well is lifted in the morning and closed at night by hand.")
    make_pdf(folder / "a.pdf", [[("h1", f"{k} Gates"), said] for k in (1, 2, 3)])
    return read_document(folder / "a.pdf")


@pytest.mark.parametrize(
    "typed",
    ["Streść rozdział 2", "Shrň kapitolu 2", "Sammanfatta kapitel 2", "Перескажи главу 2",
     "Oppsummer kapittel 2", "Hva handler kapittel 2 om?", "Was steht im zweiten Kapitel?",
     "Kannst du mir bitte Kapitel zwei zusammenfassen?", "Wovon handelt Abschnitt 2?",
     "Was ist das Thema von Kapitel 2?", "Que contient le deuxième chapitre ?",
     "Que dit la deuxième partie ?",
     "Qu'y a-t-il dans le chapitre 2 ?", "¿Qué explica el capítulo dos?",
     "Di cosa parla il capitolo 2?",
     "O que diz o segundo capítulo?", "Wat staat er in hoofdstuk 2?", "Miről szól a 2. fejezet?",
     "第2章讲什么？", "第二章的内容是什么？", "总结一下第2章", "第2章には何が書かれていますか",
     "2장의 내용은 무엇입니까?"],
)  # fmt: skip
def test_a_numbered_part_is_asked_for_in_more_languages(tmp_path, typed):
    found = read_overview(three_gates(tmp_path), typed, WHOLE)
    assert found is not None
    assert (found.kind, found.reach.name) == ("section", "2 Gates")


@pytest.mark.parametrize(
    ("typed", "part"),
    [("Que dit la première partie ?", ("partie", "1")), ("Was steht im Vorwort?", ("Vorwort", "")),
     ("Was steht im letzten Brief?", ("", ""))],
)  # fmt: skip
def test_which_part_is_asked_for(tmp_path, typed, part):
    assert part_asked_abroad(three_gates(tmp_path), typed) == part


@pytest.mark.parametrize(
    "typed",
    ["Wo wird in Kapitel 2 der Deckel erklärt?", "¿Cómo se abre la tapa en el capítulo 2?",
     "Wo ist Kapitel 2?", "Wie viele Kapitel hat es?", "第2章的井盖是什么？",
     "Welches Kapitel handelt von Deckeln?"],
)  # fmt: skip
def test_what_stands_in_a_part_is_another_question(tmp_path, typed):
    found = read_overview(three_gates(tmp_path), typed, WHOLE)
    assert found is None or found.reach == WHOLE


@pytest.mark.parametrize(
    "typed",
    ["Was steht auf Seite 2?", "Que dit la page 2 ?", "¿Qué hay en la página 2?", "第2页讲什么？"],
)
def test_a_page_is_asked_for_in_more_languages(tmp_path, typed):
    found = read_overview(three_gates(tmp_path), typed, WHOLE)
    assert (found.kind, found.reach.first_page, found.reach.last_page) == ("page", 1, 1)


@pytest.mark.parametrize(
    ("typed", "title"),
    [("Fasse die Einleitung zusammen", "Einleitung"), ("Was steht im Vorwort?", "Vorwort"),
     ("Fasse die Winden zusammen", "Winden"), ("Fasse die Leitern zusammen", None)],
)  # fmt: skip
def test_a_named_part_is_told_and_not_the_whole(tmp_path, typed, title):
    said = ("text", "Der Deckel wird morgens von dem Wärter gehoben und nachts geschlossen.")
    titles = ("Vorwort", "Einleitung", "Winden")
    make_pdf(tmp_path / "a.pdf", [[("h1", each), said, said] for each in titles])
    found = read_overview(read_document(tmp_path / "a.pdf"), typed, WHOLE)
    assert (found and found.reach.name) == title


def test_who_wrote_it_is_found_in_the_text_of_more_languages(tmp_path):
    said = "Acest document a fost scris de Ann Bale cu Cy Dow pentru fântâni."
    other = ("text", "Capacul de lemn este închis noaptea, iar frânghia este de cânepă.")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Capace"), other, other], [("h1", "2 Despre acest document"), ("text", said)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Cine a scris acest document?", WHOLE, None
    )
    assert answer.quotes[0].text == said


@pytest.mark.parametrize(
    ("question", "short"),
    [
        ("Wofür steht APT?", "APT"), ("Wofür steht die Abkürzung GKF?", "GKF"),
        ("Hva står SLA for?", "SLA"), ("Vad står GKF för?", "GKF"),
        ("Que signifie le sigle GKF ?", "GKF"), ("¿Qué significan las siglas GKF?", "GKF"),
        ("Cosa significa la sigla GKF?", "GKF"), ("Waarvoor staat GKF?", "GKF"),
        ("Co oznacza skrót GKF?", "GKF"), ("Wo steht der Brunnen?", ""),
        ("Was bedeutet das Seil?", ""),
    ],
)  # fmt: skip
def test_what_a_short_form_stands_for_is_asked_in_more_languages(question, short):
    assert short_form_abroad(question) == short


def test_what_a_short_form_stands_for_is_told_in_another_language(tmp_path):
    text = (
        "Das Buch beschreibt die Brunnen der Stadt und ihre Pflege. Jeder Brunnen hat ein Seil,"
        " und das GKF wird jeden Tag geprüft. Das Gemeinsame Kontrollfenster (GKF) ist aus Eiche."
        " Es wird im Herbst gestrichen, und wer es öffnet, der schreibt seinen Namen in das Buch."
    )
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Die Brunnen"), ("text", text)]])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Wofür steht GKF?", WHOLE, None)
    assert "Gemeinsame Kontrollfenster (GKF)" in answer.quotes[0].text
    assert answer.sure > 0.5


@pytest.mark.parametrize(
    ("question", "sides"),
    [
        ("Worin unterscheiden sich stable und testing?", ("stable", "testing")),
        ("Hva er forskjellen på en hendelse og et problem?", ("en hendelse", "et problem")),
        ("Vad är skillnaden mellan rep och linor?", ("rep", "linor")),
        ("Чем верёвка отличается от каната?", ("верёвка", "каната")),
        ("ロープと鎖の違いは何ですか", ("ロープ", "鎖")),
        ("绳子和链条有什么区别？", ("绳子", "链条")),
        ("Jaka jest różnica między liną a sznurem?", ("liną", "sznurem")),
        ("Чем отличается верёвка от каната?", ("верёвка", "каната")),
        ("Чим відрізняється мотузка від каната?", ("мотузка", "каната")),
        ("绳子和链条有哪些不同？", ("绳子", "链条")),
        ("ロープと鎖はどう違いますか", ("ロープ", "鎖")),
        ("로프와 사슬의 차이는 무엇입니까?", ("로프", "사슬")),
        ("Was unterscheidet Seil von Kette?", ("Seil", "Kette")),
        ("¿En qué se diferencia la cuerda de la cadena?", ("cuerda", "cadena")),
        ("Em que difere a corda da corrente?", ("corda", "corrente")),
        ("In che cosa differisce la corda dalla catena?", ("corda", "catena")),
        ("Waarin verschilt een touw van een ketting?", ("touw", "ketting")),
        ("Hur skiljer sig rep från linor?", ("rep", "linor")),
        ("Hvordan skiller tau seg fra kjetting?", ("tau", "kjetting")),
        ("Czym się różni lina od sznura?", ("lina", "sznura")),
        ("Čím se liší lano od řetězu?", ("lano", "řetězu")),
    ],
)
def test_two_sides_are_told_in_more_languages(question, sides):
    assert sides_of(question) == sides


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("Was brauche ich dafür?", ""), ("Was brauche ich?", "needs"),
        ("Was sind die Systemvoraussetzungen?", "needs"), ("De quoi ai-je besoin ?", "needs"),
        ("Quels sont les prérequis ?", "needs"), ("¿Cuáles son los requisitos mínimos?", "needs"),
        ("Quali sono i requisiti di sistema?", "needs"), ("Quais são os requisitos?", "needs"),
        ("Wat heb ik nodig?", "needs"), ("¿Qué se necesita para pintar el pozo?", ""),
        ("Welche Einschränkungen gibt es?", "limits"), ("Quelles sont ses limites ?", "limits"),
        ("¿Cuáles son las limitaciones?", "limits"),
        ("Quali sono i limiti del programma?", "limits"),
        ("Quais são as limitações?", "limits"), ("Quelles sont les limites de la corde ?", ""),
        ("Was ist neu?", "new"), ("Quoi de neuf ?", "new"), ("¿Qué novedades hay?", "new"),
        ("Quali sono le novità?", "new"), ("O que mudou?", "new"),
        ("Wo melde ich einen Fehler?", "bugs"), ("Comment signaler un bogue ?", "bugs"),
        ("¿Cómo se informa de un error?", "bugs"), ("Come posso segnalare un errore?", "bugs"),
        ("Como posso relatar um erro?", "bugs"), ("What do I need?", ""),
        ("Was brauche ich zum Bohren?", ""),
    ],
)  # fmt: skip
def test_what_a_section_of_its_own_may_tell_is_known_in_other_languages(question, kind):
    assert titled_kind_abroad(question)[0] == kind


SAID_ON_WELLS = (
    "O guarda do poço anota todas as noites a altura da água no seu livro e fecha a porta da casa."
    " Ninguém pode entrar sem licença, e os livros são guardados durante muitos anos na ilha."
)


def test_that_section_answers_and_without_it_the_text_is_searched(tmp_path):
    needs = [("h1", "2 Recursos necessários"), ("text", "São precisos uma corda e um balde.")]
    others = [("h1", "1 Introdução"), ("text", SAID_ON_WELLS), ("text", SAID_ON_WELLS)]
    for name, blocks in (("with.pdf", needs), ("without.pdf", [])):
        make_pdf(tmp_path / name, [others, blocks, [("h1", "3 Poços"), ("text", SAID_ON_WELLS)]])
    told, other = (
        Digester(read_document(tmp_path / name)).answer("Quais são os requisitos?", WHOLE, None)
        for name in ("with.pdf", "without.pdf")
    )
    assert told.kind == "overview: needs"
    assert told.quotes[0].text == "São precisos uma corda e um balde."
    assert other.kind != "overview: needs"
