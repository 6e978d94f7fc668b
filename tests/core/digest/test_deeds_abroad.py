"""What a thing does, and who made it, in other languages than English."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

TELLS = {
    "de": "Der Haspel steht im Schuppen neben dem Eimer, und der Wärter ölt ihn im Mai am Abend.",
    "fr": "Le treuil est dans la cabane avec les seaux et il est graissé en mai par le gardien.",
    "es": "El torno está en la caseta con los cubos y el guarda lo engrasa en mayo por la tarde.",
    "it": "La carrucola sta nella capanna con i secchi ed è ingrassata in maggio dal custode.",
    "pt": "O sarilho está na cabana com os baldes e o guarda põe-lhe óleo em maio à tarde.",
    "nl": "De lier staat in de schuur naast de emmers en de wachter oliet hem in mei.",
}


def answer_of(path, language, typed, *said):
    """Asked of a document in a language in which something is said on the second page."""
    told = [("text", TELLS[language])]
    make_pdf(path, [told * 4, [*[("text", text) for text in said], *told]])
    return Digester(read_document(path)).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("language", "typed", "said"),
    [
        ("de", "Was macht der Befehl quorble?", "Der Befehl quorble hebt den vollen Eimer hoch."),
        ("de", "Was bewirkt quorble?", "quorble bewirkt, dass der Eimer hoch gehoben wird."),
        ("de", "Was macht lanquorble?", "lanquorble hebt den vollen Eimer aus dem Brunnen hoch."),
        ("de", "Was bedeutet die Option quorble?", "quorble hebt den vollen Eimer langsam hoch."),
        ("es", "¿Qué significa la opción quorble?", "quorble sube el cubo lleno de agua."),
        ("fr", "À quoi sert la commande quorble ?", "La commande quorble lève le seau plein."),
        ("fr", "Que fait quorble ?", "quorble lève le seau plein du puits de la cour."),
        ("es", "¿Qué hace el comando quorble?", "El comando quorble sube el cubo lleno de agua."),
        ("it", "Cosa fa il comando quorble?", "Il comando quorble alza il secchio pieno."),
        ("pt", "O que faz o comando quorble?", "O comando quorble levanta o balde cheio."),
        ("nl", "Wat doet het commando quorble?", "Het commando quorble haalt de emmer op."),
    ],
)  # fmt: skip
def test_what_begins_with_a_thing_says_what_it_does(tmp_path, language, typed, said):
    name = "lanquorble" if "lanq" in typed else "quorble"
    mentions = f"{TELLS[language].split(' ')[0]} 3 {name} 4."
    answer = answer_of(tmp_path / "a.pdf", language, typed, mentions, said)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.6


@pytest.mark.parametrize(
    ("language", "typed", "said"),
    [
        ("de", "Wer hat Quorble entwickelt?", "Quorble wurde von Ann Bale in Hallan entwickelt."),
        ("de", "Wer hat Quorble geschrieben?", "Ann Bale hat Quorble im Mai geschrieben."),
        ("fr", "Qui a créé Quorble ?", "Quorble a été créé en mai par Ann Bale à Hallan."),
        ("es", "¿Quién creó Quorble?", "Quorble fue creado en mayo por Ann Bale en Hallan."),
        ("it", "Chi ha scritto Quorble?", "Quorble è un programma creato da Ann Bale a Hallan."),
        ("pt", "Quem criou Quorble?", "Quorble foi criado em maio por Ann Bale em Hallan."),
        ("nl", "Wie heeft Quorble gemaakt?", "Quorble is door Ann Bale in Hallan gemaakt."),
    ],
)  # fmt: skip
def test_who_made_a_thing_is_told_by_what_names_somebody(tmp_path, language, typed, said):
    near = f"{TELLS[language][:-1]} Quorble."
    answer = answer_of(tmp_path / "a.pdf", language, typed, near, said)
    assert answer.quotes[0].text == said
    assert answer.sure >= 0.7
    nobody = answer_of(tmp_path / "b.pdf", language, typed, near)
    assert nobody.declined or nobody.sure <= 0.3


@pytest.mark.parametrize(
    ("language", "typed", "said"),
    [
        (
            "fr",
            "Qui a créé hexQUORB ?",
            "La forme hexQUORB Junior de hexQUORB créée en mai est bonne.",
        ),
        ("fr", "Qui a créé Quorble ?", "Quorble Junior a été créé en mai dans une cabane."),
        ("it", "Chi ha creato Quorble?", "Quorble Minore è stato creato in maggio nella capanna."),
    ],
)
def test_the_thing_itself_did_not_make_it(tmp_path, language, typed, said):
    answer = answer_of(tmp_path / "a.pdf", language, typed, said)
    assert answer.declined or answer.sure <= 0.3


def test_who_made_another_thing_does_not_answer(tmp_path):
    said = "Der Haspel von Quorble steht hier. Die Lampe wurde von Ann Bale in Hallan entwickelt."
    answer = answer_of(tmp_path / "a.pdf", "de", "Wer hat Quorble entwickelt?", said)
    assert answer.declined or answer.sure <= 0.3


@pytest.mark.parametrize(
    ("language", "typed", "may", "said"),
    [
        ("it", "Che cosa fa quorble?", "quorble può essere usato anche di notte.",
         "quorble - questa è la macchina che alza il secchio."),
        ("fr", "Que fait quorble ?", "quorble peut être lancé avec beaucoup de cordes.",
         "quorble : c’est la machine qui lève le seau plein."),
        ("de", "Was macht quorble?", "quorble kann auch in der Nacht gestartet werden.",
         "quorble hebt den vollen Eimer aus dem Brunnen."),
    ],
)  # fmt: skip
def test_what_may_be_done_with_a_thing_is_not_what_it_does(tmp_path, language, typed, may, said):
    answer = answer_of(tmp_path / "a.pdf", language, typed, may, said)
    assert answer.quotes[0].text == said


def test_a_line_that_is_typed_does_not_say_what_a_program_does(tmp_path):
    answer = answer_of(
        tmp_path / "a.pdf", "de", "Was macht quorble?", "> quorble seil holen am abend.",
        "quorble hebt den vollen Eimer aus dem Brunnen.",
    )  # fmt: skip
    assert answer.quotes[0].text == "quorble hebt den vollen Eimer aus dem Brunnen."


def test_what_stands_under_a_name_says_what_it_does(tmp_path):
    said = "Hier steht der absolute Wert des Seils, das durch die Bindung verloren geht."
    told = [("text", TELLS["de"])]
    asks = "Vielen Wärtern war es ein Rätsel, was die Option QUOR macht."
    make_pdf(tmp_path / "a.pdf", [
        [*told * 3, ("text", asks), *told],
        [("h1", "2 Optionen"), ("code", "QUOR=Wert"), ("said", said), *told],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("Was macht die Option QUOR?", WHOLE, None)
    assert said in answer.quotes[0].text


def test_a_name_with_a_blank_before_its_dash_is_the_same(tmp_path):
    told = [("text", TELLS["de"])]
    said = "QUORB -Haspel ist ein sehr großes Paket für Brunnen aller Art."
    make_pdf(tmp_path / "a.pdf", [[("title", "QUORB-Haspel"), *told, ("text", said), *told * 3]])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Was ist QUORB-Haspel?", WHOLE, None
    )
    assert answer.quotes[0].text.startswith(said)
    assert answer.sure >= 0.6
