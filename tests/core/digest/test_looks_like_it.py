"""What has the look of an answer, and is none."""

from dataclasses import replace

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.answers.candidates import explains
from wide_margin.core.answers.signs import sign_of
from wide_margin.core.digest import Digester
from wide_margin.core.digest.compared import OF_EACH
from wide_margin.core.digest.named import rows_under
from wide_margin.core.digest.reference import row_in_short
from wide_margin.core.digest.which_name import with_its_name

KEPT = ("text", "Each rope of the tower is kept by hand, and each drum of oak is oiled in May.")


LONG = ", and so it has been with all of them in the loft and the yard since the tower was built"
"""Makes a description go on in the next line: then it hangs beside its term."""


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
    document = made(tmp_path, [
        ("h1", "1 Variables"), ("entry", f"winch|[Variable] Return the winch of it{LONG}."),
        ("entry", f"turns_of_it|[Variable] Return the turns of it{LONG}."),
    ])  # fmt: skip
    rows = [k for k, said in enumerate(document.text.sentences) if "[Variable]" in said.text]
    winch, turns = (document.text.sentences[row].text.split()[0] for row in rows)
    assert (winch, turns) == ("winch", "turns_of_it")
    assert not explains(document, rows[0], ("winch",))
    assert explains(document, rows[1], ("turns_of_it",))
    assert asked(document, "What is a winch?").sure < 0.6


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
        ("h1", "1 Functions"),
        ("entry", f"Rope_Drum drum )|All ropes are wound up on the drum{LONG}."),
        ("entry", f"Rope_Lid (lid)|All lids are put on by hand{LONG}."),
    ])  # fmt: skip
    assert not rows_under(document, "rope_drum")
    assert rows_under(document, "rope_lid")


def test_a_line_of_a_reference_says_what_is_done(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Pages"), ("text", "rope-drum(7) — for a build of a winch with rope and drum."),
        ("text", "winder — Build a winch from oak."),
    ])  # fmt: skip
    row = row_in_short(document, "How do I build a winch?")
    assert document.text.sentences[row].text.startswith("winder")


def test_read_only_reads_nothing(tmp_path):
    document = made(tmp_path, [
        ("h1", "1 Codes"), ("text", "rofs() Read-only file system."),
        ("text", "noent() No such file."), ("text", "A file is loaded."),
    ])  # fmt: skip
    poor = replace(asked(document, "How do I load a file?"), sure=0.2)
    assert with_its_name(document, poor) is poor


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
        ("text", "Winch-ng is a winch for towers. This manual tells how it is used."),
    ], [
        ("h1", "2 Ideas"), ("text", "In contrast to the old winch, winch-ng is light."),
    ])  # fmt: skip
    answer = asked(document, "What is the difference between winch and winch-ng?")
    assert len(answer.quotes) == 1
    assert answer.sure < OF_EACH


@pytest.mark.parametrize(("does", "is_told"), [("always", False), ("winds", True)])
def test_an_adverb_is_nothing_that_a_thing_does(tmp_path, does, is_told):
    document = made(tmp_path, [
        ("h1", "1 Output"), ("text", f"The winder {does} the output of the tower and of the loft."),
    ], [("h1", "2 Ropes"), ("text", "The winder is oiled by hand.")])  # fmt: skip
    assert (asked(document, "What does the winder command do?").sure >= 0.6) == is_told


def test_what_an_installation_has_does_not_tell_how_it_is_installed(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The Wellkeep Manual"), ("text", "Wellkeep keeps all wells in order.")],
        [("h1", "1 Winches"),
         ("text", "If your installation includes a winch, Wellkeep allows you to turn it.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert asked(document, "How do I install Wellkeep?").sure <= 0.3


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


@pytest.mark.parametrize(
    ("said", "is_told"),
    [(" Rope Loft: http://loft.example.org/quorble and http://ropes.example.org", False),
     (" Whatever is wound on a drum of oak by the keeper of the yard in May.", True)],
)  # fmt: skip
def test_an_address_beside_a_name_set_apart_tells_nothing(tmp_path, said, is_told):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=A4, invariant=1)
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(72, 760, "A drum is wound in May by those of the loft with a quorble.")
    text = canvas.beginText(72, 720)
    text.setFont("Times-Bold", 11)
    text.textOut("Quorble")
    text.setFont("Times-Roman", 11)
    text.textOut(said)
    canvas.drawText(text)
    canvas.save()
    answer = asked(read_document(tmp_path / "a.pdf"), "What is quorble?")
    assert (answer.sure >= 0.6) == is_told
