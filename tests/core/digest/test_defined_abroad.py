"""What something is, asked and said in other languages than English."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, read_question
from wide_margin.core.answers.signs import defined_term
from wide_margin.core.digest import Digester
from wide_margin.core.explain.subjects_abroad import subject_abroad


@pytest.mark.parametrize(
    ("typed", "term"),
    [
        ("Qu'est-ce qu'un puits ?", "puits"), ("Qu’est-ce que c’est que l’eau ?", "eau"),
        ("Was ist ein Brunnen?", "Brunnen"), ("¿Qué es un pozo?", "pozo"),
        ("Che cos'è la carrucola?", "carrucola"), ("Cos’è un pozzo?", "pozzo"),
        ("O que é um poço?", "poço"), ("Wat is een put?", "put"), ("Vad är en brunn?", "brunn"),
        ("Hvad er en brønd?", "brønd"), ("Hva er en brønn?", "brønn"), ("Mikä on kaivo?", "kaivo"),
        ("Co to jest studnia?", "studnia"), ("Co je studna?", "studna"), ("Mi az a kút?", "kút"),
        ("Ce este o fântână?", "fântână"), ("Что такое колодец?", "колодец"),
        ("Що таке колодязь?", "колодязь"), ("Τι είναι το πηγάδι;", "πηγάδι"),
        ("Kuyu nedir?", "Kuyu"), ("什么是水井？", "水井"), ("水井是什么？", "水井"),
        ("井戸とは何ですか", "井戸"), ("우물이란 무엇인가?", "우물"),
    ],
)  # fmt: skip
def test_what_is_to_be_defined(typed, term):
    assert defined_term(typed) == term
    assert read_question(typed).kind == "what is"


@pytest.mark.parametrize(
    "typed",
    ["Comment fermer le puits ?", "¿Cuándo se cierra el pozo?", "Wie tief ist der Brunnen?",
     "What was found in it?", "Was the well closed?", "どうやって井戸を閉めますか"],
)  # fmt: skip
def test_other_questions_want_nothing_defined(typed):
    assert read_question(typed).kind != "what is"


@pytest.mark.parametrize(
    ("language", "said", "term"),
    [
        ("de", "Ein Haspel ist eine Vorrichtung, mit der man den Eimer hebt.", "Haspel"),
        ("fr", "Un treuil est une machine qui sert à lever le seau du puits.", "treuil"),
        ("fr", "L’anse désigne la partie par laquelle on tient le seau plein.", "anse"),
        ("es", "El torno es una máquina que sirve para subir el cubo lleno.", "torno"),
        ("it", "La carrucola è una ruota con una gola per la corda del pozzo.", "carrucola"),
        ("pt", "O sarilho é uma máquina que serve para levantar o balde cheio.", "sarilho"),
        ("nl", "Een lier is een werktuig waarmee men de emmer ophaalt.", "lier"),
        ("sv", "En vinsch är en anordning som lyfter upp den fulla hinken.", "vinsch"),
        ("da", "Et spil er en indretning, der løfter den fulde spand op.", "spil"),
        ("no", "En vinsj er en innretning som løfter opp den fulle bøtta.", "vinsj"),
        ("pl", "Kołowrót to urządzenie, które służy do podnoszenia pełnego wiadra.", "kołowrót"),
        ("cs", "Rumpál je zařízení, které slouží ke zvedání plného vědra.", "rumpál"),
        ("hu", "A csörlő egy olyan gép, amely felhúzza a teli vödröt.", "csörlő"),
        ("ro", "Un scripete este o roată care ridică găleata plină din fântână.", "scripete"),
        ("ru", "Ворот — это устройство, которое служит для подъёма ведра.", "ворот"),
        ("el", "Το βίντσι είναι ένα μηχάνημα που ανεβάζει τον κουβά από το πηγάδι.", "βίντσι"),
        ("tr", "Çıkrık, kovayı kuyudan yukarı çeken bir makinedir.", "Çıkrık"),
        ("zh", "辘轳是一种用来从井里提水的装置。", "辘轳"),
        ("ja", "滑車とは、井戸から桶を上げるための車輪である。", "滑車"),
        ("ja", "滑車は、井戸の桶を上げる車輪であり、毎年五月に油をさします。", "滑車"),
        ("ja", "滑車は、井戸の桶を上げる車輪です。", "滑車"),
        ("ja", "滑車は、桶を上げるための装置で、五月に油をさします。", "滑車"),
        ("ko", "도르래란 우물에서 두레박을 올리는 바퀴이다.", "도르래"),
        ("es", "El arte de cortar la plancha recibe el nombre de grabado (en metal).", "grabado"),
        ("fr", "Cette machine du puits de la cour s'appelle un treuil.", "treuil"),
        ("de", "Das Gerät an der Wand des Brunnens wird Haspel genannt.", "Haspel"),
        ("de", "Das Gerät an der Wand des Brunnens heißt „Haspel“.", "Haspel"),
        ("it", "La ruota sopra il pozzo della corte si chiama carrucola.", "carrucola"),
        ("pt", "A roda por cima do poço da casa chama-se roldana.", "roldana"),
        ("nl", "Het werktuig boven de put op het erf wordt lier genoemd.", "lier"),
    ],
)  # fmt: skip
def test_a_sentence_defines_its_subject(language, said, term):
    found = subject_abroad(said, language)
    assert found is not None
    assert found[0].lower() == term.lower()


@pytest.mark.parametrize(
    ("language", "said"),
    [
        ("fr", "Ce n’est pas une machine pour lever le seau du puits."),
        ("fr", "Ce puits s'appelle ainsi, et le seau de la cour est plein."),
        ("fr", "Il est une heure et le seau du puits est plein d’eau."),
        ("de", "Das ist eine Vorrichtung, mit der man den Eimer hebt."),
        ("es", "Esta es una máquina que sirve para subir el cubo lleno."),
        ("ru", "Он закрыл колодец, который служит для подъёма ведра."),
        ("de", "Der Haspel steht im Schuppen neben dem Eimer und dem Seil."),
        ("ja", "滑車は、油をさしてあるので、冬でも正しく動くはずです。"),
        ("ja", "滑車は、とても重いです。"),
    ],
)
def test_a_sentence_that_points_or_tells_defines_nothing(language, said):
    assert subject_abroad(said, language) is None


SAID = {
    "fr": ("Le treuil est dans la cabane avec les seaux et il est graissé en mai par le gardien.",
           "Un treuil est une machine qui sert à lever le seau du puits.",
           "Qu'est-ce qu'un treuil ?"),
    "es": ("El torno está en la caseta con los cubos y el guarda lo engrasa en mayo por la tarde.",
           "El torno es una máquina que sirve para subir el cubo lleno.", "¿Qué es un torno?"),
    "it": ("La carrucola sta nella capanna con i secchi ed è ingrassata in maggio dal custode.",
           "La carrucola è una ruota con una gola per la corda del pozzo.",
           "Che cos'è una carrucola?"),
}  # fmt: skip


@pytest.mark.parametrize("language", SAID)
def test_the_definition_goes_first(tmp_path, language):
    tells, defines, typed = SAID[language]
    make_pdf(tmp_path / "a.pdf", [[("text", tells)] * 3, [("text", defines), ("text", tells)]])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(defines[:20])
    assert answer.sure > 0.6


def test_what_only_speaks_of_a_thing_is_no_sure_answer(tmp_path):
    tells = SAID["fr"][0]
    make_pdf(tmp_path / "a.pdf", [[("text", tells)] * 3, [("text", tells)]])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(SAID["fr"][2], WHOLE, None)
    assert answer.sure <= 0.3


def test_a_short_form_in_brackets_after_a_title_names_the_section(tmp_path):
    pages = [
        [("h1", "1 Wells"), ("text", "PWB lists are asked for in the hut, and a PWB is lent out.")],
        [("h1", "2 Personal well books (PWB)"),
         ("text", "Every keeper has one of these and writes the depth of the water into it.")],
    ]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", pages)
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is a PWB?", WHOLE, None)
    assert any("Every keeper has one" in quote.text for quote in answer.quotes)


def test_what_is_said_of_one_of_them_does_not_define_them(tmp_path):
    tells, defines, typed = SAID["fr"]
    of_one = "Ce treuil est une machine que le gardien a trouvée dans la cabane."
    make_pdf(tmp_path / "a.pdf", [[("text", tells), ("text", of_one)],
                                  [("text", defines), ("text", tells)]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(defines[:20])
