"""Gist, by kind, section lines, terms and test questions of the handbook and made documents."""

import re

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, Reach, named_reach
from wide_margin.core.digest import SLOTS, Digester, DocumentKind
from wide_margin.core.digest.by_kind import LONG
from wide_margin.core.digest.gist import gist_lines, names_of
from wide_margin.core.digest.selftest import _is_asked_for
from wide_margin.core.digest.sentences import (
    gives_thanks,
    hangs,
    is_left_in_english,
    is_of_licence,
    stands_alone,
    tells_work,
    without_asides,
)
from wide_margin.core.explain import find_definitions
from wide_margin.core.passages import Sentence


@pytest.fixture(scope="module")
def digester(handbook):
    return Digester(handbook)


@pytest.fixture(scope="module")
def digest(handbook, digester):
    return digester.digest(find_definitions(handbook))


def n_words(lines):
    return sum(len(line.text.split()) for line in lines)


@pytest.mark.parametrize("limit", [20, 45, 80, 130, 250, 600])
def test_the_gist_is_never_over_its_length(digester, limit):
    lines = digester.gist(n_words=limit)
    assert lines
    assert n_words(lines) <= limit


@pytest.mark.parametrize("n", [1, 3, 5])
def test_the_gist_has_the_sentences_asked_for(digester, n):
    assert len(digester.gist(n_sentences=n)) == n


@pytest.mark.parametrize("reach", ["section 9", "pages 20-30", "Part V", "page 3", "section 8.1"])
def test_the_gist_stays_within_its_reach(handbook, digester, reach):
    within = named_reach(handbook, reach)
    lines = digester.gist(within, n_words=120)
    assert lines
    assert all(within.first_page <= line.locator.page <= within.last_page for line in lines)
    if within.kind == "section":
        assert all(within.name.split()[-1] in " ".join(line.locator.path) for line in lines)


def test_the_gist_is_verbatim_in_reading_order_and_nothing_twice(handbook, digester):
    lines = digester.gist(n_words=300)
    rows = [line.sentence for line in lines]
    assert rows == sorted(set(rows))
    for line in lines:
        whole = handbook.text.sentences[line.sentence].text
        assert all(piece.strip() in whole for piece in line.text.split("…"))


def test_no_sentence_of_a_gist_hangs(digester):
    for reach in (Reach(), Reach("pages", first_page=40, last_page=80, name="pages 25–65")):
        assert not [line.text for line in digester.gist(reach, n_words=400) if hangs(line.text)]


@pytest.mark.parametrize(
    "text",
    ["However, this is wrong.", "It must be covered.", "They were sold.", "For example, the rope.",
     "As a result, nobody came.", "Dies ist falsch.", "Cela suffit.", "Therefore the well is dry.",
     "At this time, the office had four wells.", "Can be used to lift a bucket.",
     "Must only be lit at night.", "Allows the keeper to see the water.",
     "The fourth is planned for next year.", "Is a hole that holds water.",
     "This is a leak in the pump.", "Dies ist ein Leck.",
     "If you want to avoid this you proceed as follows.", "To achieve this, turn the winch.",
     "After that the keeper turns the winch.", "Apart from these, ropes are of hemp."],
)  # fmt: skip
def test_these_sentences_hang(text):
    assert hangs(text)


@pytest.mark.parametrize(
    "text",
    ["This handbook is for keepers.", "In this paper we show it.", "There are two wells.",
     "To use this winch, turn it.", "If you want to avoid leaks, wax the rope.",
     "Before this book wells were dug.",
     "A well is a hole.", "This chapter tells how wells are dug.",
     "This is the user manual to the pump.", "Dies ist das Handbuch zum Brunnen.",
     "Este é o manual da bomba.", "This description is meant for keepers."],
)  # fmt: skip
def test_these_sentences_stand(text):
    assert not hangs(text)


def test_citations_and_pointers_are_cut():
    assert without_asides("Wells (see section 4) are deep.") == "Wells … are deep."
    assert without_asides("Wells are deep [3, 4].") == "Wells are deep …."
    assert "1998" not in without_asides("Ropes rot (Lindqvist 1998) in summer.")
    assert without_asides("Ropes [Lindqvist and Ek 1998a] rot.") == "Ropes … rot."
    assert without_asides("Ropes [of hemp, and 12] rot.") == "Ropes [of hemp, and 12] rot."


def test_a_long_sentence_is_cut_after_its_first_statement():
    more = ", ".join(f"a well of {k} metres" for k in range(20))
    text = f"The aim was to count every well that the village has: {more}."
    assert without_asides(text) == "The aim was to count every well that the village has …"
    assert without_asides(f"Count: {more}.") == f"Count: {more}."  # too little stands before
    short = "The aim was to count every well that the village has: seven."
    assert without_asides(short) == short


def test_every_slot_of_every_kind_can_be_filled_or_left(digester):
    for kind in DocumentKind:
        filled = digester.by_kind(kind)
        assert [f.slot for f in filled] == list(SLOTS[kind])
        assert all(len(f.lines) <= 3 for f in filled)


def test_what_is_not_said_is_not_filled(tmp_path):
    path = tmp_path / "short.pdf"
    text = "The well lies by the road to the north. The rope is of hemp and nine metres long."
    make_pdf(path, [[("h1", "The well"), ("text", text), ("text", text)]])
    filled = {
        f.slot.name: f.lines for f in Digester(read_document(path)).by_kind(DocumentKind.ARTICLE)
    }
    assert filled["What comes next"] == ()
    assert filled["Conclusion"] == ()


@pytest.mark.parametrize("at", [0, 3])
def test_the_section_at_the_end_concludes_and_not_one_at_the_front(tmp_path, at):
    text = "The well lies by the road to the north. The rope is of hemp and nine metres long."
    ends = [("h1", "Summary"), ("text", "The new lid keeps the rain out of all the wells. It is "
            "heavier than the old one, and it is opened by two keepers.")]  # fmt: skip
    pages = [[("h1", f"The {name}"), ("text", text), ("text", text)]
             for name in ("well", "rope", "lid")]  # fmt: skip
    pages.insert(at, ends)
    path = tmp_path / "ends.pdf"
    make_pdf(path, pages)
    filled = {
        f.slot.name: f.lines for f in Digester(read_document(path)).by_kind(DocumentKind.ARTICLE)
    }
    assert ["new lid" in line.text for line in filled["Conclusion"][:1]] == [True] * bool(at)


def test_every_section_has_its_line(handbook, digest):
    assert [row.section for row in digest.sections] == list(range(len(handbook.outline.sections)))
    assert sum(row.line is not None for row in digest.sections) > 0.9 * len(digest.sections)
    for row in digest.sections:
        if row.line is not None:
            title = handbook.outline.sections[row.section].title
            assert title in row.line.locator.path or row.line.locator.path


def test_terms_are_told_apart_and_placed(digest):
    terms = [term.term for term in digest.terms]
    assert len(terms) == len(set(terms)) >= 20
    assert {"staff", "keeper", "station zero"} <= set(terms)
    assert not {"two", "three", "first", "year"} & set(terms)
    assert "tides" not in terms or "tide" not in terms
    for term in digest.terms:
        assert term.n_times >= 2
        assert list(term.spread) == sorted(term.spread)


def test_test_questions_never_give_their_answer_away(digest):
    assert len(digest.test) >= 15
    for asked in digest.test:
        answer = (
            asked.answer.split()[0].casefold().strip(".,")
            if asked.shape == "number"
            else asked.answer
        )
        assert not re.search(
            rf"(?<!\w){re.escape(answer.casefold())}(?!\w)", asked.question.casefold()
        )


def test_nothing_is_asked_twice(digest):
    assert len({q.question for q in digest.test}) == len(digest.test)
    assert len({q.locator for q in digest.test}) == len(digest.test)


def test_the_answer_of_a_test_question_stands_in_its_sentence(digest):
    for asked in digest.test:
        words = re.findall(r"\w+", asked.answer.casefold())
        sentence = asked.text.casefold()
        assert sum(word in sentence for word in words) >= 0.8 * len(words)


def test_a_document_without_text_has_a_digest_that_says_nothing(blank_pdf):
    digester = Digester(read_document(blank_pdf))
    assert digester.gist(n_words=100) == ()
    assert all(not filled.lines for filled in digester.by_kind(digester.facts.kind))
    assert digester.answer("What is this about?", WHOLE, None).declined


def gist_of(path, *texts):
    make_pdf(path, [[("h1", "1 Wells"), *(("text", text) for text in texts)]])
    return [line.text for line in Digester(read_document(path)).gist(n_words=400)]


def test_what_a_program_wrote_again_and_again_is_not_in_the_gist(tmp_path):
    written = [f"Defined at line {k * 7} of file wells{k}.c in the source." for k in range(1, 7)]
    told = "The keeper lifts the lid of the well before anything else is done."
    assert gist_of(tmp_path / "a.pdf", told, *written) == [told]
    assert len(gist_of(tmp_path / "b.pdf", told, *written[:3])) > 1  # a few may mean it


@pytest.mark.parametrize(
    ("title", "own", "other"),
    [("A Wind Pump for Wells",
      "This pump lifts the water of a well by the wind that comes over the hill.",
      "This wheel turns faster than the keeper can count it on a day in March."),
     ("Die Brunnen-Fibel",
      "Diese Brunnen-Fibel führt Wärter in die Pflege der Seile und der Deckel aller Brunnen ein.",
      "Diese Winde dreht sich schneller, als der Wärter an einem Tag im März zählen kann.")],
)  # fmt: skip
def test_what_the_title_names_is_meant_by_this_at_the_beginning(tmp_path, title, own, other):
    path = tmp_path / "pump.pdf"
    make_pdf(path, [[("title", title), ("h1", "1 Overview"), ("text", own), ("text", other)]])
    found = [line.text for line in Digester(read_document(path)).gist(n_words=400)]
    assert own in found
    assert other not in found


def test_who_is_not_liable_is_not_in_the_gist(tmp_path):
    told = "The keeper lifts the lid of the well before anything else is done."
    legal = "The Well Office shall not be held liable for errors in this handbook or for damages."
    duty = "The keeper will be responsible for every bucket that is lent to a farm in the summer."
    assert duty in gist_of(tmp_path / "b.pdf", duty, told)
    more = [f"The rope number {k} hangs from the beam of the tower at noon." for k in range(12)]
    assert legal not in gist_of(tmp_path / "a.pdf", legal, told, *more)


def test_a_word_whose_letters_stand_apart_is_not_in_the_gist(tmp_path):
    told = "The keeper lifts the lid of the well before anything else is done."
    apart = "The lid of the well must be l i f t e d with care before it is used."
    assert gist_of(tmp_path / "a.pdf", told, apart) == [told]


def test_the_gist_of_a_long_document_opens_with_it_and_goes_through_its_chapters(tmp_path):
    syllables = [a + b for a in "bdfgklmnprst" for b in "aeiou"]

    def name(k):
        return (syllables[k % 60] + syllables[k // 60 % 60] + syllables[k * 7 % 60]).capitalize()

    def told(k):
        return [f"{name(45 * k + n)} is a keeper of the rope at {name(45 * k + n + 1)} since then."
                for n in range(40)]  # fmt: skip

    opens = ("This handbook is for the keepers of wells. The keepers look after ropes and lids."
             " Every well of the valley has a keeper and a rope.")  # fmt: skip
    pages = [[("h1", "Preface"), ("text", opens)]]
    pages += [[("h1", f"{k} Well {k}"), ("text", " ".join(told(k)))] for k in range(1, 56)]
    make_pdf(tmp_path / "a.pdf", pages)
    document = read_document(tmp_path / "a.pdf")
    assert len(document.text.sentences) > LONG
    lines = Digester(document).gist(n_words=120)
    assert lines[0].text == "This handbook is for the keepers of wells."
    n_opening = sum(line.locator.page == 0 for line in lines)
    chapters = [line.locator.path[0] for line in lines[n_opening:]]
    assert n_opening >= 2
    assert len(chapters) == len(set(chapters)) >= 2


def test_how_a_section_begins_says_what_its_term_is_only_in_such_words(digest):
    told = {term.term: term.definition for term in digest.terms}
    assert told["observer"] == "Anyone who reads the staff and signs for it is an observer."
    assert told["tide"] == ""  # its section begins with a question that learners ask
    assert not any(text.endswith("?") or text.startswith("•") for text in told.values())


def test_what_is_said_again_word_for_word_stands_in_the_gist_once(tmp_path):
    said = ("text", "The keeper is the one who changes the rope before the winter of every year.")
    path = tmp_path / "again.pdf"
    make_pdf(path, [[("h1", title), said, ("text", f"{title} are counted by the steward in May.")]
                    for title in ("Ropes", "Wheels", "Lids")])  # fmt: skip
    document = read_document(path)
    rows = [k for k, s in enumerate(document.text.sentences) if s.text == said[1]]
    assert len(rows) == 3
    assert [line.sentence for line in gist_lines(document, rows)] == rows[:1]


TOLD = (
    "A capstan is an upright drum of oak that the ropes of the tower are wound upon.",
    "Thimbles are rings of brass that the smith puts into the eyes of all the ropes.",
    "The lamp burns at noon because the mole is hidden in the smoke of the mill.",
    "Be sure to oil the lamp because the keeper of the mole does not do it in winter.",
    "A rope of the tower is used for the bells and for the buckets of the well.",
    "The coast has 14 stations in a summer without much rain in the hills.",
    "A plank lies between two stations of the mole in every month of the winter.",
    "A third rope is a rope of hemp that the smith buys at the fair of the next town.",
    "A negative reading means that the mole has sunk into the sand of the coast.",
    "The next sailing is known to be late because the wind from the hills is weak.",
    "The beacon may be unlit because of fog that comes from the hills in autumn.",
    "The mole provides means to land stone that is cut in the quarry of the hills.",
    "The tower will not be lit at noon just because the smoke of the mill hides it.",
    "A critical mark of the mole in winter is the ice that comes from the north.",
    "Winding ropes is a work that keeps the smith and the miller in the tower.",
    "The simplest means of landing a crate that is heavy is the crane of the mole.",
    "The harbour of the coast has 14 827 members and 6 000 stations, as the register tells.",
    "The clock of the old tower is set so that the hands move in 1/12 minutes at noon.",
    "The load of a crane at the mole of the coast is known to be a + 12 kg at noon.",
    "There is a second lamp because the mole is hidden in the smoke of the mill.",
)  # fmt: skip


def test_one_is_tested_in_questions_as_a_reader_would_put_them(tmp_path):
    path = tmp_path / "told.pdf"
    make_pdf(path, [
        [("h1", "1 The mole"), *(("text", text) for text in TOLD)],
        [("h1", "2 Licence"), ("text", "A licence is a paper of 20 pages that lies in the tower.")],
    ])  # fmt: skip
    document = read_document(path)
    digest = Digester(document).digest(find_definitions(document))
    assert {(asked.question, asked.answer) for asked in digest.test} == {
        ("What is a capstan?", TOLD[0]),
        ("What are thimbles?", TOLD[1]),
        ("Why is it that the lamp burns at noon?", "the mole is hidden in the smoke of the mill"),
        ("The coast has ____ stations in a summer without much rain in the hills.",
         "14 stations"),
        ("The harbour of the coast has ____ members and 6 000 stations, as the register tells.",
         "14 827 members"),
    }  # fmt: skip


@pytest.mark.parametrize(
    ("term", "is_one"),
    [
        ("tide gauges", True), ("hash functions", True), ("random forest", True),
        ("rate of flow", True), ("message digest", True), ("newest", False),
        ("crane provides", False), ("notable example of cranes", False),
        ("crane simplest", False), ("biggest", False), ("mark in winter", False),
        ("rope rope", False), ("better crane", False), ("crane always", False),
    ],
)  # fmt: skip
def test_what_names_one_thing_is_asked_for(term, is_one):
    assert _is_asked_for(term) is is_one


@pytest.mark.parametrize("said", [
    "Send questions, comments and suggestions to the keeper of the wells at Skerrow.",
    "The rope and this manual are available via the page of the wells.",
    "The chest of the wells contains this manual as a printed book as well.",
    "For more information on the wells see the second part of the book.",
    "This documentation is a work in progress, and you are invited to improve it.",
    "This report was automatically generated using a rope and a drum.",
    "Para mayor información sobre los pozos, consulte la segunda parte del libro.",
    "Weitere Informationen zu den Brunnen stehen im zweiten Teil des Buchs.",
])  # fmt: skip
def test_where_a_copy_is_to_be_had_is_no_gist(said):
    assert is_of_licence(said)
    assert not is_of_licence("The keeper sends the buckets and the manual says how they are tied.")


def test_what_was_left_in_english_is_no_gist_of_a_translation(tmp_path):
    said = [
        f"Le puits de {name} est dans la cour et le gardien y tire de l'eau pour les jardins."
        for name in ("Brest", "Caen", "Dole", "Lens", "Metz", "Pau", "Sète", "Toul")
    ]
    english = "The wells of this valley were dug by hand, and all of them are closed in winter."
    path = tmp_path / "a.pdf"
    make_pdf(path, [[("h1", "1 Les puits"), ("text", english), *(("text", each) for each in said)],
                    [("h1", "2 La cour"), *(("text", each) for each in said)]])  # fmt: skip
    gist = [line.text for line in Digester(read_document(path)).gist(n_words=120)]
    assert gist
    assert english not in gist


@pytest.mark.parametrize(
    ("said", "is_left"),
    [
        ("The Document may contain zero sections.", True), ("Music and the poetic foot.", True),
        ("El pozo de la casa no es de todos.", False), ("Pozos, cuerdas y cubos.", False),
        ("El libro The Well and the Rope es de 1914.", False),
    ],
)  # fmt: skip
def test_what_is_left_in_english_is_told(said, is_left):
    assert is_left_in_english(said, "es") == is_left


@pytest.mark.parametrize(
    ("text", "is_work"),
    [("A. Bale (2016) On wells. Wells 4: 812–829.", True),
     ("A. Bale (2016) On wells, doi: 10.7717/wells.2584", True),
     ("The well is open 9:00–17:00 in the summer of 2016 and in autumn.", False),
     ("He quotes Wells 3:16–18, which every keeper knows by heart.", False)],
)  # fmt: skip
def test_hours_and_verses_are_no_works(tmp_path, text, is_work):
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Lids"), ("text", text)], [("h1", "2 Ends")]])
    document = read_document(tmp_path / "a.pdf")
    said = next(s for s in document.text.sentences if s.kind != "heading")
    assert tells_work(document, said) == is_work


def test_what_tells_a_work_stands_in_no_gist(tmp_path):
    work = "A. Bale and C. Dow (2016) Wellkeep: a versatile tool for the wells of the moor."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), ("text", "Wellkeep is a tool that keeps the water of wells.")],
        [("h1", "1 Lids"), ("text", "The lid of a well is closed by hand when the night begins.")],
        [("h1", "2 Citation"), ("text", f"{work} Wells 4:812-829 doi: 10.7717/wells.2584")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    assert not any(work[:20] in line.text for line in made.gist(WHOLE))


def test_the_word_that_labels_an_abstract_is_no_part_of_its_sentence(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"))
    canvas.setFont("Times-Bold", 11)
    canvas.drawString(72, 700, "Abstract")
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(
        72 + 46, 700, "Comparing the height of water in two wells is a common task of keepers,"
    )
    canvas.drawString(
        72, 686, "and it is done with a staff that is read in the morning by two of them."
    )
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    assert gist_lines(document, [0])[0].text.startswith("Comparing the height")


@pytest.mark.parametrize(
    ("said", "is_whole"),
    [
        ("Diese Einführung enthält ein Tutorium zur Benutzung von Wellkeep.", True),
        ("Dort wählen Sie den Deckel oder das Seil für diese Dokumentation.", False),
        ("Questa introduzione descrive la costruzione di un pozzo di pietra.", True),
        ("Ann Bale, Cy Dow, Di Eft, Ed Fox, e Francesco P.", False),
        ("4. Using the gauge to find the height of the water.", False),
        ("4. Using the gauge is easier where the water is still.", True),
        ("(Ropes are often wetted to make them hold when they are new.)", False),
        ("Forschung) veröffentlicht werden sollen und in der Gilde gelesen werden.", False),
        ("A) The rope is drawn by two keepers in the morning.", True),
        ("[12] by Ann Bale and Cy Dow is a book on the keeping of wells.", False),
        ("Typically, this begins with a rope that is drawn from a drum.", False),
        ("Typically, ropes are drawn from a drum by two keepers.", True),
        ("As a consequence, the ropes are kept in three houses of the guild.", False),
        ("Diese Seil-Klasse wurde erstellt, um Brunnen aus Stein zu bauen.", True),
        ("O seu principal objectivo é ajudar os guardas dos poços da vila.", False),
        ("A: Because the ropes of other guilds could not satisfy me.", False),
        ("Su objetivo principal es ayudar a los guardas de los pozos.", False),
        ("Explica la mayor parte de las cuerdas y de los cubos del pozo.", False),
        ("The purpose of this mechanism is to keep the ropes of the guild dry.", False),
        ("The purpose of this program is to keep the ropes of the guild dry.", True),
        ("The downside of this is that the ropes of the guild are wet.", True),
        ("In the following short example, the keeper winds a rope on a drum.", False),
        ("In the following years the keepers wound all ropes on drums.", True),
        ("Esta Referência de Poços (versão 2) visa dar uma visão geral das cordas.", True),
        ("水井参考手册（版本 2.100） (2023-02-04 11:59:01 UTC) 旨在为水井提供概览。", True),
        ("Ropes 12 34 (5) 678 90 = 12 and 1/2 34 56 x 78.", False),
    ],
)  # fmt: skip
def test_sentences_that_stand_alone_in_any_language(said, is_whole):
    assert stands_alone(Sentence(said, 0, -1, 0, 0, len(said), "body", -1)) is is_whole


@pytest.mark.parametrize(
    ("language", "text", "is_thanks"),
    [
        ("en", "Many thanks to Aino for the ropes.", True),
        ("en", "The authors would like to thank the keepers of Hallan.", True),
        ("en", "Several keepers helped with corrections.", True),
        ("pt", "As seguintes pessoas ajudaram com correções a este livro.", True),
        ("pt", "Agradecemos a Marta pelas sugestões.", True),
        ("en", "Dedicated to Marta Tarn for all her ropes.", True),
        ("en", "A drum dedicated to wet ropes turns slowly.", False),
        ("en", "Thanks to its lid the well stays clean in winter.", False),
        ("en", "The rope helped to lift the bucket.", False),
        ("fr", "Cette corde sert à lever le seau.", False),
    ],
)
def test_thanks_are_known(language, text, is_thanks):
    assert gives_thanks(text, language) is is_thanks


def test_the_terms_of_a_licence_in_another_language_are_no_gist():
    assert is_of_licence("Deve receber uma cópia da GNU General Public License com ele.")
    assert not is_of_licence("Debe recibir una copia de la lista de pozos.")
    assert is_of_licence("Questo documento può essere usato nei termini della licenza GNU.")
    assert is_of_licence("Licensed under the Well License, Version 2.0; you may not use this file.")
    assert not is_of_licence("Questo documento spiega i termini e le corde dei pozzi.")


@pytest.mark.parametrize(
    ("said", "is_of_copy"),
    [
        ("For a full list of the ropes that are sold, see the page of the guild.", True),
        ("For the list of wells, see the books of the guild.", True),
        ("For the list of wells the keeper pays a penny to the guild.", False),
        ("This book has been formatted for small paper by the press of the guild.", True),
        ("This text and the drawings in it are hereby placed in the public domain.", True),
        ("This work may be distributed and/or modified under the conditions of GPLv3+.", True),
        ("The distribution point for this work is the page of the guild of wells.", True),
        ("For a full bucket the rope is drawn twelve times around the drum.", False),
    ],
)  # fmt: skip
def test_where_more_is_told_and_how_it_is_printed_is_no_gist(said, is_of_copy):
    assert is_of_licence(said) is is_of_copy


@pytest.mark.parametrize(
    ("title", "said"),
    [("The gauges package", "The gauges package, kept by the guild, includes a staff and a rope "
      "for the keepers of the wells in the valley."),
     ("quorbel", "quorbel ist eine Sammlung von Seilen und Deckeln für die Brunnen der Stadt.")],
)  # fmt: skip
def test_the_gist_begins_with_what_the_thing_in_the_title_is(tmp_path, title, said):
    other = (
        ["Die Deckel der quorbel werden am Abend geschlossen.",
         "Die Seile der quorbel sind aus Hanf und im Winter oft nass."]
        if title == "quorbel"
        else ["The gauges of the valley are read in the morning.",
              "Ropes of hemp are wet in the winter and dry in the summer months."]
    )  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [
        [("title", title), ("text", other[0])],
        [("h1", "1 Start"), ("text", f"{said} {other[1]}")],
        [("h1", "2 Hallan"), ("text", " ".join(other))],
    ])  # fmt: skip
    gist = Digester(read_document(tmp_path / "a.pdf")).gist(n_sentences=1)
    assert [line.text for line in gist] == [said]


@pytest.mark.parametrize(
    ("title", "is_told"), [("Declaration of originality", False), ("Ropes of the guild", True)]
)
def test_what_stands_under_a_legal_title_is_no_gist(tmp_path, title, is_told):
    said = "Ann Bale has written every word of the wells and of the ropes in it by herself."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells"), ("h1", title), ("text", said)],
        [("h1", "1 Wells"), ("text", "Wells are kept dry by a lid of zinc in the winter months."),
         ("text", "Ropes are made of hemp in the house of the guild. Drums are made of oak.")],
    ])  # fmt: skip
    gist = Digester(read_document(tmp_path / "a.pdf")).gist()
    assert (said in [line.text for line in gist]) is is_told


@pytest.mark.parametrize(
    ("title", "told", "is_told"),
    [("2 Document history", "The chapter on the winch with its ropes is new.", False),
     ("2 Winches", "The chapter on the winch with its ropes is new.", True),
     ("2 Winches", "What does the winch of the well do with its ropes?", False),
     ("2 Winches", "Because the winch of the well takes the ropes up.", False)],
)  # fmt: skip
def test_neither_what_changed_nor_a_question_is_gist(tmp_path, title, told, is_told):
    said = "Wells are kept dry by a lid of zinc in the winter months."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells"), ("h1", "1 Wells"), ("text", said)],
        [("h1", title), ("text", f"Why are there wells? {told}"), ("h1", "3 Ropes"),
         ("text", "Ropes are made of hemp.")],
    ])  # fmt: skip
    gist = [line.text for line in Digester(read_document(tmp_path / "a.pdf")).gist()]
    assert said in gist
    assert (told in gist) is is_told


def test_the_gist_begins_with_what_it_is_wherever_that_stands(tmp_path):
    said = "This draft describes how the wells of the village are kept."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Village Wells"), ("h1", "1 Preface"),
         ("text", "Many hands have dug the wells of the village in the last century."),
         ("text", f"{said} This draft also tells how wells are dug.")],
        [("h1", "2 Wells"), ("text", "Wells are kept dry by a lid of zinc in the winter months.")],
    ])  # fmt: skip
    gist = Digester(read_document(tmp_path / "a.pdf")).gist()
    assert gist[0].text == said


@pytest.mark.parametrize("said", [
    "This manual is distributed under an open source licence by the guild.",
    "See the second chapter on wells for more information on the ropes.",
    "More detailed information on the ropes can be found in the second book on wells.",
    "The quorbel is copyright 1989 by the keepers of the wells.",
    "This manual was written with the support of the Council for Ropes.",
    "Ich erkläre eidesstattlich, dass ich die Arbeit selbst geschrieben habe.",
])  # fmt: skip
def test_what_is_said_of_the_copy_is_no_gist(tmp_path, said):
    told = "The keeper lifts the lid of the well before anything else is done."
    more = [f"The rope number {k} hangs from the beam of the tower at noon." for k in range(12)]
    assert said not in gist_of(tmp_path / "a.pdf", said, told, *more)


def test_a_sentence_may_begin_with_a_closing_mark():
    said = "\u201dQuorbel\u201d is a lid for wells that are not deep."
    assert stands_alone(Sentence(said, 0, -1, 0, 0, len(said), "body", -1))


def test_a_title_in_capitals_among_small_letters_is_a_name(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "WELLS User's Guide"), ("text", "WELLS is a tool that counts lids."),
         ("text", "With WELLS one counts by day. By night WELLS sleeps. At dawn WELLS wakes.")],
    ])  # fmt: skip
    assert "wells" in names_of(read_document(tmp_path / "a.pdf"))


@pytest.mark.parametrize(("title", "is_term"), [("2 Licence", False), ("2 Tides", True)])
def test_the_words_of_a_licence_are_no_terms_of_the_document(tmp_path, title, is_term):
    about = [f"The drum of winch {k} is wound by the keeper of the wells." for k in range(8)]
    terms = [f"The modified version {k} of a work bears a notice." for k in range(5)]
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Winches"), ("h1", "1 Drums"), *(("text", text) for text in about)],
        [("h1", title), *(("text", text) for text in terms)],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    told = {term.term for term in digester.terms({})}
    assert "drum" in told
    assert any("version" in term for term in told) is is_term


@pytest.mark.parametrize(
    "said",
    ["The PX lids are distributed without any guaranty or warranty.",
     "The author makes no expressed or implied warranty of any kind and assumes no responsibility.",
     "If something might conflict with your legal rights, please let us know.",
     "Authors dedicate this work to public domain, for the benefit of the public at large.",
     "It is an act of relinquishment in perpetuity of all present and future rights in the work.",
     "Modified versions may also be copied and distributed for any purpose.",
     "O livro é protegido por direitos autorais pela guilda e é lançado sob a GPL.",
     "Any pictures here are subject to the copyright of their respective owners."],
)  # fmt: skip
def test_what_refuses_to_answer_for_it_is_of_a_licence(said):
    assert is_of_licence(said)


def test_a_gist_has_no_thanks_and_no_keywords_and_begins_with_what_the_thing_does(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellsim User Manual"), ("h1", "Acknowledgements"),
         ("text", "Ann Bale has assisted the development of Wellsim with her wells and ropes."),
         ("text", "Keywords: Wellsim, ropes, winches, drums, keepers")],
        [("h1", "1 Introduction"),
         ("text", "Wellsim simulates the way of a bucket through a well of any depth."),
         ("text", "I hope that you enjoy it."), ("h1", "2 Drums"),
         ("text", "In fact, Wellsim provides a shortcut to the drums of the guild."),
         ("text", "Drum files are created by Wellsim when a winch of the guild is looked at."),
         ("text", "Ropes of hemp are wound on the drum by Wellsim in the order of their age.")],
    ])  # fmt: skip
    said = [line.text for line in Digester(read_document(tmp_path / "a.pdf")).gist(WHOLE)]
    assert said[0].startswith("Wellsim simulates")
    assert not any("assisted" in text or "Keywords" in text for text in said)


@pytest.mark.parametrize(
    ("said", "is_of_it"),
    [
        ("All routines are released under either the GNU General Public License or another.", True),
        ("The code is distributed under the terms of the Apache License in the hope of use.", True),
        ("Wellkeep is a keeper of wells that is distributed under the MIT License.", False),
        ("Ropes are stored under the licensed lid of the well.", False),
    ],
)
def test_what_says_only_under_which_licence_a_thing_is_is_of_the_licence(said, is_of_it):
    assert is_of_licence(said) is is_of_it


@pytest.mark.parametrize(
    ("said", "is_thanks"),
    [
        ("Wellkeep was written with the guidance and encouragement of Ann Bale at the well.", True),
        ("With great help from Ann Bale and Cy Dow, it evolved from an older one.", True),
        ("The way of winding was first suggested to me by Ann Bale.", True),
        ("It works with the help of a drum.", False),
    ],
)
def test_whose_help_there_was_is_thanks(said, is_thanks):
    assert gives_thanks(said, "en") is is_thanks


def test_a_gist_begins_with_what_the_first_chapter_says_its_thing_is(tmp_path):
    said = "ropetcl is a package for programs that wind ropes on the drums of wells."
    others = (
        "The commands of ropetcl are listed below. A drum of the rope turns with ropetcl alone."
    )
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Drum Tcl Interface Documentation")],
         [("h1", "Chapter 1. ropetcl - Tcl Binding Library"), ("text", f"{said} {others}")],
         [("h1", "Chapter 2. Drum"), ("text", f"The Drum of Tcl is made of oak. {others}")] * 2],
    )  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert "ropetcl" in names_of(document)
    assert Digester(document).gist(WHOLE, n_sentences=3)[0].text == said


def test_a_name_may_have_the_number_of_a_work_after_it(tmp_path):
    said = "wellwind[1] winds the ropes of wells on drums in a quick and easy manner."
    others = "Ropes that are wound by wellwind last for a hundred years. Lids are closed by hand."
    make_pdf(tmp_path / "a.pdf", [[("title", "WELLWIND"), ("h1", "1 Introduction"),
                                   ("text", f"{said} {others}")]])  # fmt: skip
    lines = Digester(read_document(tmp_path / "a.pdf")).gist(WHOLE, n_sentences=2)
    assert lines[0].text.startswith("wellwind … winds the ropes")


@pytest.mark.parametrize(
    "said",
    ["Part of this work was supported by the Hallan Foundation for Wells and Ropes.",
     "Moore A, Wells BC, Tarn D. Rope cycles: how the drums of old wells wear their ropes."],
)  # fmt: skip
def test_who_paid_and_what_is_cited_stand_in_no_gist(tmp_path, said):
    others = ("Wellkeep lists the ropes of wells.", "A drum that turns by night wears its rope.",
              "Each well is closed by a lid of oak in winter.", "The keeper counts ropes in May.",
              "Ropes are wound by hand on the drum.", "No rope is lent to a farm of the valley.",
              "Two ropes are needed for a deep well.", "The lid is lifted by one of them.",
              "A rope lasts for ten summers at most.", "In dry years the drum is greased.",
              "The board shows which well is open.")  # fmt: skip
    page = [("title", "Wellkeep"), ("h1", "1 Ropes"), ("text", said), ("text", " ".join(others))]
    make_pdf(tmp_path / "a.pdf", [page])
    gist = " ".join(x.text for x in Digester(read_document(tmp_path / "a.pdf")).gist(WHOLE))
    assert others[0] in gist
    assert said[:20] not in gist


def test_a_document_describes_what_it_says_to(tmp_path):
    said = "This document describes an interface to libdrum, a library that winds ropes."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "An Interface to DRUM"), ("h1", "1 Introduction"), ("text", said)],
        [("h1", "2 Types of DRUM"), ("text", "Drum_Rope is an address that DRUM gives. "
                                             "Every libdrum call takes a Drum_Rope of DRUM."),
         ("text", "The libdrum calls wind a Drum_Rope on a DRUM, and a Drum_Rope is long.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    assert "libdrum" in names_of(document)
    assert Digester(document).answer("What is libdrum?", WHOLE, None).quotes[0].text == said


def test_a_licence_that_is_printed_whole_does_not_make_a_document_one_on_it(tmp_path):
    said = """Wells are kept by their keepers. The ropes of wells are long, and their lids of oak.
        Each well has a drum that turns by hand. The keeper counts all ropes in the spring.
        Two ropes are needed for a deep well. No rope of a well is lent to a farm.
        A lid that is wet in winter swells. Drums of brass turn without a sound at night.
        The board shows which well is open today. Buckets are soaked before they are used."""
    licence = ("Verbatim copies of this licence may be distributed. Permission is granted to all. "
               "In no event shall the keeper be liable for a rope.")  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Keeping"), ("text", " ".join(said.split())),
         ("text", "This book may be copied under the terms that stand at its end.")],
        [("h1", "2 GNU General Public License"), ("text", licence)],
    ])  # fmt: skip
    gist = " ".join(x.text for x in Digester(read_document(tmp_path / "a.pdf")).gist(WHOLE))
    assert "Wells are kept" in gist
    assert "under the terms" not in gist


def test_one_thing_is_not_asked_for_twice_under_two_names(tmp_path):
    said = "The lidwell library is a set of routines that keep the rope of the mole dry at noon."
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 The lidwell library"), ("text", said),
         ("text", "Every boat of the coast has lidwell, and the lidwell library of the tower.")],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    test = Digester(document).digest(find_definitions(document)).test
    assert len({asked.text for asked in test}) == len(test)


@pytest.mark.parametrize(
    ("word", "is_name"), [("quorbl", False), ("Quorbl", True), ("QuorBl", True)]
)
def test_a_word_unknown_to_english_is_a_name_only_where_it_is_written_like_one(
    tmp_path, word, is_name
):
    said = f"The keeper winds a {word} by hand. Every {word} is wet, and no {word} is lent."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Keeping Wells"), ("h1", "1 Use"), ("text", said)],
        [("h1", "2 Care"), ("text", f"In May the {word} is oiled. An old {word} creaks by night.")],
    ])  # fmt: skip
    assert ("quorbl" in names_of(read_document(tmp_path / "a.pdf"))) is is_name


def test_a_part_of_a_word_of_the_title_is_a_name_however_it_is_written(tmp_path):
    said = "The keeper winds a quorbl by hand. Every quorbl is wet, and no quorbl is lent."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Keeping Wells with libquorbl"), ("h1", "1 Use"), ("text", said)],
        [("h1", "2 Care"), ("text", "In May the quorbl is oiled. An old quorbl creaks by night.")],
    ])  # fmt: skip
    assert "quorbl" in names_of(read_document(tmp_path / "a.pdf"))
