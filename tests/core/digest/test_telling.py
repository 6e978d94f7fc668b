"""Wordings that decide what a sentence tells of its document, and those that only look like it."""

import pytest

from wide_margin.core.digest.telling import naming, says_what_it_is, tells
from wide_margin.core.digest.telling_abroad import told_abroad

TOLD = {
    "purpose": ["This handbook describes how wells are kept.",
                "This document clarifies the use of lids.",
                "This report compares wet ropes.", "This guide shows how ropes are wetted.",
                "In this paper, we compare ropes of hemp and sisal.",
                "The object of this study is a well.",
                "Dieses Handbuch beschreibt die Pflege der Brunnen.",
                "Este manual describe el cuidado de los pozos.",
                "This is the user manual to the driver of the mill.",
                "Dies ist das Handbuch zum Treiber der Mühle.",
                "Ceci est le manuel du moulin.", "Este es el manual del molino.",
                "Questa è la guida del mulino.", "To jest podręcznik dla programu.",
                "Це посібник для програми."],
    "audience": ["This guide is intended for keepers of wells.", "This book is for keepers.",
                 "This handbook is directed mainly to keepers of deep wells.",
                 "Das Buch richtet sich in erster Linie an Wärter."],
    "needs": ["It requires at least two litres of oil.", "The valve must be installed first."],
    "procedure": ["To open the lid, turn the key twice.", "1. To empty the tank, open the valve.",
                  "To change a rope, follow the steps below.", "Then do the following steps."],
    "warning": ["Warning: the lid is heavy.", "Do not step on the lid.", "You must not drink it.",
                "Frost may damage the hoops.", "Make sure the lid is shut."],
    "limit": ["A drawback of zinc is its weight.", "Barrels of stone are not yet supported."],
    "conclusion": ["We conclude that lids pay.", "In summary, hemp lasts longest."],
    "next": ["Future work will look at stone.", "We plan to add a second well."],
    "method": ["We measured the level every hour.", "Our approach combines both counts."],
    "data": ["The data set contains every reading.", "It was answered by 424 respondents.",
             "Data were collected at night.", "Consider the rope data of the mill.",
             "There are two data sets included as examples."],
    "result": ["We found that lids halve the loss.", "The results show a loss of a tenth."],
    "change": ["New in this edition is a chapter on frost.", "Two tables have been added.",
               "A new feature of version 2 is a lid."],
}  # fmt: skip
TOLD_IN_FRONT = {
    "purpose": ["The aim of the survey is to count wells.", "We present a lid of zinc."],
    "audience": ["The reader should know what a knot is.", "It assumes a basic grasp of ropes."],
    "needs": ["Before you begin, you must have a bucket.", "You will need a rope of hemp."],
    "why": ["There is no existing count of wells.", "It was written because wells fell dry.",
            "The work is motivated by the drought."],
}  # fmt: skip
NOT_TOLD = {
    "purpose": ["In this section, we describe how a rope is spliced.",
                "For practical purposes, we use a ring (hence all sums are taken modulo p).",
                "The file was created for a different picture.",
                "It prints a list of the parts of the current object of interest.",
                "If there are several, the focus object is a list of them."],
    "audience": ["We assume the sum of all weights is not too big.", "Those familiar with it do.",
                 "This manual is for Wellkeep (version 2.3), a ledger of wells."],
    "needs": ["A seal of lead would require at least two litres of oil.",
              "Spreading the word only requires to know the goals.",
              "It may not be the bucket you need at some of the wells.",
              "A rope is a thing that needs to be installed on a wheel.",
              "It is not oiled by itself, you have to do it yourself if you need it.",
              "Call the office if you need a rope of hemp.",
              "In most towers, you need more than a rope, you also need some way to wind it.",
              "In May, you need only do this once per drum.",
              "A rope that was bought needs to be installed in one place.",
              "A dry lid is not only a prerequisite for clean water."],
    "procedure": ["The class is used to name the upper limit of a type.",
                  "The amount read (step 1) depends on the drive.",
                  "Although updates are done every day, few notice."],
    "warning": ["An important part of it is described below.", "The keeper never answered them.",
                "If you want to make sure that it holds, pull."],
    "limit": ["If none matches, the empty one is taken.", "The drum has a similar drawback.",
              "If you find a limitation, please tell the keeper.",
              "The lid was made to overcome the limitations of zinc.",
              "The rope is doubled, which is not currently necessary."],
    "method": ["The model has three parts."],
    "data": ["Splicing moves data between two buffers.", "There are 32 files.",
             "Suppose a data set of 40 wells is used.",
             "We draw a Monte Carlo sample of the depths.",
             "A bootstrap dataset of depths is drawn by resampling pairs."],
    "result": ["The results are printed together with the values.",
               "If we find the lowest sum here, the rope is cut.",
               "We conclude this example by a look at the lid."],
    "conclusion": ["We conclude in section 9 with a study of lids.",
                   "We conclude the paper with some remarks."],
    "change": ["You may discard the changes in the last session.", "No longer is it so.",
               "Unless testing new features for it, take the old one.",
               "Even so new features may have come in."],
    "why": ["We took it because it had proved effective.", "No other wells are affected.",
            "The reason for wetting the rope is its age.", "The lid has not been updated.",
            "Section 2 gives a motivation for the count.", "There is no need for a lid."],
}  # fmt: skip


def rows(table):
    return [(cue, text) for cue, texts in table.items() for text in texts]


@pytest.mark.parametrize(("cue", "text"), rows(TOLD))
def test_what_tells_tells_anywhere(cue, text):
    assert tells(cue, text.lower(), is_front=False)


@pytest.mark.parametrize(("cue", "text"), rows(TOLD_IN_FRONT))
def test_what_tells_only_near_the_front(cue, text):
    assert tells(cue, text.lower(), is_front=True)
    assert not tells(cue, text.lower(), is_front=False)


@pytest.mark.parametrize(("cue", "text"), rows(NOT_TOLD))
def test_what_only_speaks_of_it_does_not_tell(cue, text):
    assert not tells(cue, text.lower(), is_front=True)


@pytest.mark.parametrize(
    "text",
    ["Wellkeep is a ledger of wells.", "The Wellkeep 2.1 (see below) provides two counts.",
     "Results: Wellkeep computes the loss.", "Island:Wellkeep is a full ledger of wells."],
)  # fmt: skip
def test_what_the_title_names_is_told_of(text):
    names = naming(("wellkeep",))
    assert tells("purpose", text.lower(), names, is_front=True)
    assert not tells("purpose", text.lower(), names, is_front=False)


@pytest.mark.parametrize(
    "text", ["Wellkeep input consists of lists.", "With Wellkeep is a ledger sent."]
)
def test_what_only_begins_like_it_is_not(text):
    assert not tells("purpose", text.lower(), naming(("wellkeep",)), is_front=True)


def test_without_a_name_there_is_nothing_to_find():
    assert naming(()) is None


TOLD_ABROAD = {
    "de": {"procedure": "Um den Deckel zu öffnen, müssen Sie den Schlüssel drehen.",
           "warning": "Achtung: Der Deckel ist schwer.", "limit": "Eimer werden nicht unterstützt.",
           "needs": "Der Griff muss vorher installiert sein."},
    "fr": {"procedure": "Pour ouvrir le couvercle, il faut tourner la clé.",
           "warning": "Ne montez jamais sur le couvercle.",
           "limit": "La pompe ne fonctionne pas en hiver.",
           "needs": "Le treuil doit être installé."},
    "es": {"procedure": "Para abrir la tapa, utilice la llave.",
           "warning": "No debe pisar la tapa.",
           "limit": "Una desventaja del zinc es su peso.",
           "needs": "El torno debe estar instalado."},
    "it": {"procedure": "Per aprire il coperchio, basta girare la chiave.",
           "warning": "Attenzione: il coperchio è pesante.",
           "limit": "La pompa non funziona in inverno."},
    "pt": {"procedure": "Para abrir a tampa, use a chave.", "warning": "Nunca pise na tampa."},
    "nl": {"procedure": "Om het deksel te openen, moet u de sleutel draaien.",
           "warning": "Let op: het deksel is zwaar."},
    "pl": {"procedure": "Aby otworzyć pokrywę, należy obrócić klucz."},
    "ru": {"procedure": "Чтобы открыть крышку, нужно повернуть ключ."},
    "zh": {"warning": "注意：盖子很重。"}, "ja": {"warning": "注意：蓋は重いです。"},
}  # fmt: skip


@pytest.mark.parametrize(
    ("language", "cue", "said"),
    [(language, cue, said) for language, by_cue in TOLD_ABROAD.items()
     for cue, said in by_cue.items()],
)  # fmt: skip
def test_sentences_of_other_languages_tell_too(language, cue, said):
    assert told_abroad(cue, said.lower(), language, is_front=False)
    assert not told_abroad(cue, said.lower(), "en", is_front=False)


@pytest.mark.parametrize(
    ("language", "said"),
    [("fr", "Le treuil est dans la cabane avec les seaux."), ("de", "Der Eimer steht im Hof."),
     ("es", "El torno está en la caseta."), ("it", "La pompa è nella capanna.")],
)  # fmt: skip
def test_what_only_says_where_a_thing_is_tells_nothing(language, said):
    cues = ("purpose", "audience", "needs", "procedure", "warning", "limit", "next")
    assert not any(told_abroad(cue, said.lower(), language, is_front=True) for cue in cues)


def test_whom_it_is_for_is_told_near_the_front_alone():
    said = "ce guide s’adresse aux gardiens."
    assert told_abroad("audience", said, "fr", is_front=True)
    assert not told_abroad("audience", said, "fr", is_front=False)


def test_the_aim_of_what_is_named_in_quotation_marks_tells_anywhere():
    said = "The objective of “Ten Thousand Wells” is to dig wells for a town."
    assert tells("purpose", said.lower(), is_front=False)


@pytest.mark.parametrize(
    ("cue", "text", "is_told"),
    [
        ("audience", "this document has advice for someone who is the keeper of a well.", True),
        ("audience", "this file contains advice for anyone new to wells.", True),
        ("audience", "the keeper has advice for someone who is at the well.", False),
        ("purpose", "this file contains guidelines for keepers of wells.", True),
        ("purpose", "this lid contains guidelines for keepers of wells.", False),
        ("purpose", "some will support the goals of the keepers, but some may not.", False),
        ("purpose", "the goal of the keepers (of wells; of lids) is to keep water.", True),
        ("purpose", "the purpose of each of the ropes is told below.", False),
        ("purpose", "it was written with the aim of providing ropes.", True),
    ],
)
def test_what_a_plain_file_says_of_itself_is_told(cue, text, is_told):
    assert tells(cue, text, is_front=True) is is_told


@pytest.mark.parametrize(
    ("text", "says"),
    [("wellkeep is a tool that is mostly used on islands with a single well.", False),
     ("wellkeep is a tool that is used for keeping wells.", True)],
)  # fmt: skip
def test_where_a_thing_is_used_does_not_say_what_it_is(text, says):
    assert says_what_it_is(naming(("wellkeep",)), text) is says


@pytest.mark.parametrize(
    ("language", "cue", "said", "is_told"),
    [
        (
            "pt",
            "purpose",
            "Esta Referência (versão 2) destina-se a fornecer uma visão geral.",
            True,
        ),
        ("pt", "audience", "Esta Referência (versão 2) destina-se a fornecer uma visão.", False),
        ("pt", "audience", "Este livro destina-se aos guardas dos poços.", True),
        ("pt", "audience", "O leitor alvo é quem está disposto a aprender.", True),
        ("es", "audience", "El lector al que va dirigido esta obra es aquel que desea leer.", True),
        ("fr", "audience", "Le public visé est celui des gardiens.", True),
        ("zh", "purpose", "水井参考手册（版本 2） 旨在提供概览。", True),
        ("zh", "audience", "本书的目标读者：愿意学习的人。", True),
    ],
)
def test_what_a_document_says_of_itself_in_its_own_language(language, cue, said, is_told):
    assert told_abroad(cue, said.lower(), language, is_front=True) is is_told


@pytest.mark.parametrize("part", ["the routine", "each option", "the main loop", "this function"])
def test_what_a_small_part_is_for_is_not_what_the_document_is_for(part):
    assert not tells("purpose", f"the purpose of {part} is to keep the well dry.", is_front=True)
    assert tells("purpose", "the purpose of keeping wells is to have water.", is_front=True)


@pytest.mark.parametrize(
    "text",
    ["when this agreement covers several wells, the rope means the first one.",
     "notes for the purpose of mending the rope that is on the drum are kept.",
     "this agreement sets out the entire agreement between the keeper and the farm."],
)  # fmt: skip
def test_a_case_and_a_purpose_of_something_are_not_what_the_document_is_for(text):
    assert not tells("purpose", text, is_front=True)
    assert tells("purpose", "this agreement covers several wells.", is_front=False)
    assert tells("purpose", "the purpose of mending the rope is to keep it.", is_front=True)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("the wellkeep rope class is a square matrix.", False),
        ("the wellkeep well keeping system is a ledger.", True),
        ("the wellkeep class is a set of commands.", True),
    ],
)
def test_a_class_of_a_thing_is_not_the_thing(text, says):
    assert says_what_it_is(naming(("wellkeep",)), text) is says


def test_what_a_russian_document_holds_is_told_whatever_its_case():
    for said in ("в этом документе содержатся ответы.", "эта книга содержит ответы."):
        assert tells("purpose", said, is_front=False)
