"""What has the look of an answer, and is none."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.answers.signs import sign_of
from wide_margin.core.digest import Digester
from wide_margin.core.digest.named import rows_under
from wide_margin.core.digest.reference import row_in_short
from wide_margin.core.digest.which_name import with_its_name

KEPT = ("text", "Each rope of the tower is kept by hand, and each drum of oak is oiled in May.")


def made(tmp_path, *pages):
    make_pdf(tmp_path / "a.pdf", [[*page, KEPT] for page in pages])
    return read_document(tmp_path / "a.pdf")


def asked(document, typed):
    return Digester(document).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("said", "defines"),
    [("Keeper A person who minds the rope", True), ("Keeper: somebody who minds a rope", True),
     ("Keeper Development Team", False), ("Shares in May: Old keeper: 15 % of all", False),
     ("Since rope.keeper is the heart of it, ropes are many", False),
     ("In May the keeper is the one who minds the rope", True)],
)  # fmt: skip
def test_a_number_or_a_part_of_a_name_defines_nothing(said, defines):
    assert (sign_of("what is", said, ("keeper",)) >= 0.6) == defines


def test_what_is_declared_is_not_what_a_word_means(tmp_path):
    pages = [("h1", "1 Variables"), ("entry", "winch|[Variable] Return the winch of the tower"),
             ("entry", "turns_of_it|[Variable] Return the turns of the tower")]  # fmt: skip
    document = made(tmp_path, pages)
    assert asked(document, "What is a winch?").sure < 0.6
    assert asked(document, "What is turns_of_it?").sure >= 0.6


def test_a_command_of_that_name_is_not_the_thing(tmp_path):
    document = made(tmp_path, [("h1", "1 Commands")], [
        ("h2", "1.1 drums"), ("text", "Report all drums that are in the loft, by their names.")
    ])  # fmt: skip
    assert asked(document, "What is a drum?").sure < 0.6
    assert asked(document, "What does the drums command do?").sure >= 0.6


def test_a_letter_counts_as_it_is_written(tmp_path):
    document = made(tmp_path, [("h1", "1 Letters"), ("text", "G. Toggles the winch of the tower."),
                               ("text", "The keeper types g when it rains.")])  # fmt: skip
    assert asked(document, "What does the command g do?").sure <= 0.3
    assert asked(document, "What does the command G do?").sure >= 0.6


def test_what_a_function_takes_is_not_its_head(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Functions"), ("code", "void wind_rope("), ("code", "    Rope_Drum drum )"),
        ("text", "The function wind_rope() winds all ropes up until the drum is full."),
    ])  # fmt: skip
    assert not rows_under(document, "Rope_Drum")
    assert asked(document, "What does wind_rope do?").sure >= 0.6


def test_a_line_of_a_reference_says_what_is_done(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Pages"), ("text", "rope-drum(7) — for a build of a winch with rope and drum."),
        ("text", "winder — Build a winch from oak."),
    ])  # fmt: skip
    row = row_in_short(document, "How do I build a winch?")
    assert document.text.sentences[row].text.startswith("winder")


def test_read_only_reads_nothing(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Codes"), ("entry", "rofs|Read-only file system."),
        ("entry", "noent|No such file."), ("text", "A file is loaded."),
    ])  # fmt: skip
    poor = replace(asked(document, "How do I load a file?"), sure=0.2)
    assert with_its_name(document, poor) is poor


def test_an_address_says_nothing_of_what_it_is_of(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Quorble"), ("text", "A quorble is wound in May, and rope.quorble winds it."),
        ("entry", "Quorble|Winders: http://winders.example.org/quorble and the loft of the tower"),
    ])  # fmt: skip
    assert "http" not in asked(document, "What is quorble?").quotes[0].text


def test_some_licence_is_not_the_licence(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Openness"),
        ("text", "Openness is a way to place the code of a program under a free license. The "
                 "Tower license was chosen over other licenses by all of the keepers."),
    ])  # fmt: skip
    answer = asked(document, "Under which license is it released?")
    assert answer.quotes[0].text.startswith("The Tower license was chosen")


def test_one_sentence_is_not_both_sides(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Winches"),
        ("text", "Winch-ng is a winch for towers. Many ideas of the older winch, once of iron, "
                 "were taken over into winch-ng, but it is lighter."),
    ])  # fmt: skip
    answer = asked(document, "What is the difference between winch and winch-ng?")
    assert "it is lighter" in answer.quotes[0].text


def test_an_adverb_is_nothing_that_a_thing_does(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Winding"), ("text", "The winder always stands on the output of the tower."),
        ("text", "In May it is oiled. The winder helper command winds the rope on the drum."),
    ], [("h1", "2 Ropes"), ("text", "The winder is oiled by hand.")])  # fmt: skip
    answer = asked(document, "What does the winder command do?")
    assert "winds the rope" in answer.quotes[0].text


def test_a_permission_tells_not_what_a_document_is_about(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Os poços"),
         ("text", "Este documento pode ser redistribuído ou modificado livremente, "
                  "desde que as alterações sejam marcadas como tal."),
         ("text", "Este documento descreve a história dos poços e das torres da nossa aldeia.")],
        [("h1", "1 Torres"), ("text", "As torres são de pedra e têm uma porta de zinco.")],
    ])  # fmt: skip
    answer = asked(read_document(tmp_path / "a.pdf"), "De que trata este documento?")
    assert answer.quotes[0].text.startswith("Este documento descreve")
    assert answer.sure == 0.9
