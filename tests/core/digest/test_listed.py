"""Asked which things there are: a section of that name, or a sentence that names some."""

import pytest
from reportlab.lib.pagesizes import A4
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.answers.lists import labels_after
from wide_margin.core.digest import Digester

PAGES = [
    [("h1", "1 Mills"),
     ("text", "The mill takes grain of any sort, and whichever grains are used, they are weighed "
              "by the keeper, who is paid for it, fed and housed."),
     ("text", "Grains that are wet, mouldy and sprouted are not supported by the mill."),
     ("text", "The mill supports rye, oats and barley grains, whatever their size."),
     ("text", "Every stone of the mill is turned by hand in a dry summer."),
     ("text", "A stone has two features that the keeper looks after once a year.")],
    [("h1", "2 Sieves"),
     ("text", "At present the following sieves are supported:"),
     ("item", "• the round one;"), ("item", "• the square one."),
     ("text", "Each filter has two parts that may accept, change and drop a sieve.")],
    [("h1", "3 File formats"), ("h2", "3.1 Of the scales"), ("text", "The scales write a list."),
     ("h2", "3.2 Of the gate"), ("text", "The file formats that are accepted there are:"),
     ("text", "plain (usual)"), ("text", "packed"), ("text", "striped"),
     ("text", "The gate is shut at night, when the keeper has gone home and nobody is left on the "
              "bank who could see to it that the boards are in their places and the water does "
              "not rise over the lowest of them, as it does in spring.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("listed") / "listed.pdf"
    make_pdf(path, PAGES)
    return Digester(read_document(path))


def test_a_sentence_that_names_them_answers(digester):
    answer = digester.answer("Which grains are supported?", WHOLE, None)
    assert answer.quotes[0].text.startswith("The mill supports rye, oats and barley grains")


def test_what_leads_in_to_them_comes_with_them(digester):
    quotes = digester.answer("Which sieves are supported?", WHOLE, None).quotes
    assert "following sieves are supported" in quotes[0].text
    said = " ".join(q.text for q in quotes)
    assert "the round one" in said
    assert "the square one" in said


@pytest.mark.parametrize(
    "typed", ["Which stones are supported?", "Which ropes are available?", "Who grinds the oats?"]
)
def test_where_nothing_names_them_the_search_answers(digester, typed):
    said = " ".join(q.text for q in digester.answer(typed, WHOLE, None).quotes)
    assert "the round one" not in said
    assert "accept, change and drop" not in said


@pytest.mark.parametrize("typed", ["Which stones are supported?", "What are the main features?"])
def test_what_is_not_said_to_be_supported_is_the_nearest_there_is(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.declined or answer.is_perhaps


@pytest.mark.parametrize(
    ("said", "is_told"),
    [
        ("The advantages of the mill are its height and its many sails of oak.", True),
        ("Narrow sieves have the advantage of not losing any rye in a strong wind.", False),
        ("To take full advantage of a mill, the miller has to be there by daybreak.", False),
    ],
)
def test_what_speaks_for_a_part_does_not_speak_for_the_whole(tmp_path, said, is_told):
    path = tmp_path / "mill.pdf"
    page = [("title", "The mill"), ("h1", "1 Sails"), ("text", said)]
    make_pdf(path, [page], numbers=False)
    answer = Digester(read_document(path)).answer("What are the advantages?", WHOLE, None)
    if is_told:
        assert answer.quotes[0].text == said
    assert is_told != (answer.declined or answer.is_perhaps)


def test_lines_without_bullets_under_a_colon_are_a_list(digester):
    quotes = digester.answer("Which file formats are accepted?", WHOLE, None).quotes
    assert [q.text for q in quotes[1:]] == ["plain (usual)", "packed", "striped"]


def test_a_section_that_has_only_sections_leaves_it_to_what_names_them(digester):
    quotes = digester.answer("What file formats are supported?", WHOLE, None).quotes
    assert not any(q.text.startswith("3.1") for q in quotes)


LAID_OUT = ("In the evening it is wound up by hand and laid on the boards of the shed, where the "
            "keeper looks for worn places and mends them before the night.")  # fmt: skip
GRADES = [
    [("h1", "1 The Mill"), ("text", "The mill stands on the bank, and its wheel turns in spring.")],
    [("h1", "2 Rope grades"),
     ("text", "The mill has three distinct rope grades, each of another strength."),
     ("text", "Grade A"),
     ("text", f"The thin one. It is taken for sacks of flour. {LAID_OUT}"),
     ("text", "Grade B"),
     ("text", f"The one in the middle. It carries what the first is too weak for. {LAID_OUT}"),
     ("text", "Grade C"),
     ("text", f"The thick one. It holds the wheel while a board is changed. {LAID_OUT}")],
    [("h1", "3 Lid sizes"), ("text", "The mill has three lid sizes, each for another hole."),
     ("text", "Small ones"), ("text", f"These are kept in the shed. {LAID_OUT}")],
]  # fmt: skip


@pytest.mark.parametrize("typed", ["Which rope grades are there?", "What are the rope grades?"])
def test_lines_over_texts_of_their_own_are_those_that_were_counted(tmp_path, typed):
    make_pdf(tmp_path / "a.pdf", GRADES)
    quotes = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None).quotes
    assert "three distinct rope grades" in quotes[0].text
    assert [q.text for q in quotes[1:]] == ["Grade A", "Grade B", "Grade C"]


def sorts_under(title: str) -> list[list[tuple[str, str]]]:
    """A document with one section of this title that has three in it."""
    return [
        [("h1", "1 The Mill"), ("text", "The mill stands on the bank, and its wheel turns."),
         ("text", "A sack weight was once lost in the river, and no sack weights were found.")],
        [("h1", f"2 {title}"), ("text", "The mill knows these."),
         *[row for k, name in enumerate(("Hand", "Cart", "Crane"), 1) for row in (
             ("h2", f"2.{k} {name}"), ("text", f"This one is lifted by a {name.lower()}."))]],
    ]  # fmt: skip


def test_a_section_called_by_one_word_more_lists_the_sorts(tmp_path):
    make_pdf(tmp_path / "a.pdf", sorts_under("Flemish sack weights"))
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which sack weights are supported?", WHOLE, None
    )
    assert [q.text for q in answer.quotes[-3:]] == ["2.1 Hand", "2.2 Cart", "2.3 Crane"]


@pytest.mark.parametrize("title", ["Lifting sack weights", "Flemish sack weights of the river"])
def test_a_section_on_something_done_or_on_more_lists_no_sorts(tmp_path, title):
    make_pdf(tmp_path / "a.pdf", sorts_under(title))
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which sack weights are supported?", WHOLE, None
    )
    assert not any(q.text.startswith("2.") for q in answer.quotes)


NAMES = ("Bran", "Flour", "Grits", "Meal", "Semolina", "Husks", "Malt", "Groats")


@pytest.mark.parametrize(
    ("title", "names", "is_list"),
    [("Coarse goods", NAMES, True), ("Goods", NAMES, True), ("Goods", NAMES[:5], False),
     ("Goods", ("Introduction", *NAMES[1:]), False)],
)  # fmt: skip
def test_many_sections_under_one_word_are_its_kinds(tmp_path, title, names, is_list):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 The Mill"), ("text", "The mill stands on the bank, and its wheel turns."),
         ("text", "Goods are carried to the mill by day, and no goods are left on the bank.")],
        [("h1", f"2 {title}"),
         *[row for k, name in enumerate(names, 1) for row in (
             ("h2", f"2.{k} {name}"), ("text", f"The {name.lower()} is kept in the shed."))]],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which goods are there?", WHOLE, None
    )
    listed = [f"2.{k} {name}" for k, name in enumerate(names, 1)]
    assert ([quote.text for quote in answer.quotes] == listed) is is_list


def test_how_many_sections_are_left_out_of_a_long_list_is_told(tmp_path):
    names = [f"{name} {sort}" for name in NAMES for sort in ("coarse", "fine", "dusty", "warm")]
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 The Mill"), ("text", "The mill stands on the bank, and its wheel turns.")],
        *[[("h1", "2 Goods")] * (not k) + [row for at in range(k, k + 8) for row in (
            ("h2", f"2.{at + 1} {names[at]}"), ("text", "This is kept in the shed by the keeper."))]
          for k in range(0, 32, 8)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which goods are there?", WHOLE, None
    )
    assert len(answer.quotes) < answer.n_found == len(names)


def test_what_was_counted_in_another_language_is_a_list_too(tmp_path):
    text = (
        "Am Abend wird das Seil von Hand aufgewickelt und auf die Bretter im Schuppen gelegt, wo"
        " der Wärter nach den Stellen sieht, die abgenutzt sind, und sie gleich ausbessert."
    )
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Am Ufer"), *[("text", f"Die Mühle steht am Ufer. {text}")] * 3],
        [("h1", "2 Seile"), ("text", "Die Mühle hat zwei Seilarten, und beide sind aus Hanf."),
         ("text", "Sorte A"), ("text", text), ("text", "Sorte B"), ("text", text)],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    row = next(k for k, s in enumerate(document.text.sentences) if "zwei" in s.text)
    found = [document.text.sentences[k].text for k in labels_after(document, row)]
    assert found == ["Sorte A", "Sorte B"]


def test_fewer_lines_than_were_counted_are_no_list(tmp_path):
    make_pdf(tmp_path / "a.pdf", GRADES)
    document = read_document(tmp_path / "a.pdf")
    counted = {s.text: row for row, s in enumerate(document.text.sentences) if "three" in s.text}
    found = {text: len(labels_after(document, row)) for text, row in counted.items()}
    assert sorted(found.values()) == [0, 3]


KINDS = [
    [("h1", "1 The Mill"), ("text", "The mill stands on the bank, and its wheel turns in spring.")],
    [("h1", "2 Available Hoists"), ("text", "It has hoists for sacks, and the wheel drives them."),
     ("h2", "2.1 The Long Hoist"), ("text", "The rope of it reaches the upper floor."),
     ("h2", "2.2 The Hand Hoist"), ("text", "Somebody has to turn the handle of this one.")],
    [("h1", "3 Keeping it"), ("h2", "3.1 Keepers"), ("h2", "3.1.1 Present"),
     ("item", "• Aino Holm (Skerrow)"), ("item", "• Karl Aas (Hallan)"),
     ("h2", "3.1.2 Past"), ("item", "• Marta Bale (Skerrow)")],
    [("h1", "4 Sacks"), ("text", "Some types of sacks are wet, torn and old; a type may change."),
     ("text", "There are currently three types of sacks in the mill:"),
     ("item", "• the long sack"), ("item", "• the linen sack"), ("item", "• the blue sack"),
     ("text", "There are two sorts of flour: fine and coarse.")],
]  # fmt: skip


@pytest.fixture(scope="module")
def of_kinds(tmp_path_factory):
    path = tmp_path_factory.mktemp("kinds") / "kinds.pdf"
    make_pdf(path, KINDS)
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("typed", "said", "not_said"),
    [
        ("Which hoists are there?", ["The Long Hoist", "The Hand Hoist"], "spring"),
        ("Who are the present keepers?", ["Aino Holm", "Karl Aas"], "Marta Bale"),
        ("Who are the past keepers?", ["Marta Bale"], "Aino Holm"),
        ("Which types of sacks are there?", ["long sack", "linen sack", "blue sack"], "torn"),
        ("Which sorts of flour are there?", ["fine and coarse"], "torn"),
    ],
)
def test_which_there_are_is_told_by_titles_and_by_their_number(of_kinds, typed, said, not_said):
    told = " ".join(quote.text for quote in of_kinds.answer(typed, WHOLE, None).quotes)
    assert all(each in told for each in said)
    assert not_said not in told


@pytest.mark.parametrize(
    ("said", "is_told"),
    [("Several loaders, the red one and the blue one, support wet ropes from the moor.", False),
     ("The red loader and the blue loader are supported from May on.", True)],
)  # fmt: skip
def test_what_things_do_does_not_say_what_is_done_with_them(tmp_path, said, is_told):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Ropes"), ("text", said), ("text", "A rope is wound on a drum by hand.")],
        [("h1", "2 Lids"), ("text", "Lids are closed at night when the keeper has gone home.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    answer = made.answer("Which loaders are supported?", WHOLE, None)
    assert (answer.sure > 0.3) == is_told


def test_a_section_that_is_a_list_names_them_each_by_itself(tmp_path):
    items = ("\u2022 one gate and one keeper", "\u2022 boards of oak", "\u2022 a lamp of zinc")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Aims"), ("text", "This is meant to be a list of books, with a picture for each "
          "that shows what features it has."), ("item", "\u2022 The Book of Gates")],
        [("h1", "2 Features"), *(("item", item) for item in items)],
        [("h1", "3 Gates"), ("text", "The features of a gate are features that its keeper looks"
          " after there, and which features they are is known to the keeper alone.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("Which features are there?", WHOLE, None)
    assert [quote.text for quote in answer.quotes] == list(items)


def test_a_list_whose_first_line_has_all_that_is_asked_is_sure(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wellkeep"), ("h1", "1 Pro and con"), ("text", "Advantages of using Wellkeep:"),
         ("item", "• It guards against dry years."), ("item", "• Ropes last for longer."),
         ("text", "Limitations of using Wellkeep:"), ("item", "• Lids are heavy in winter."),
         ("item", "• It needs a keeper by day.")],
        [("h1", "2 Ropes"), ("text", "Shortcomings of ropes at sea. Wellkeep has ropes."),
         ("text", "A drawback of reels is their weight.")],
    ])  # fmt: skip
    made = Digester(read_document(tmp_path / "a.pdf"))
    told = made.answer("What are the advantages of Wellkeep?", WHOLE, None)
    assert "guards against dry years" in " ".join(quote.text for quote in told.quotes)
    assert told.sure >= 0.8
    told = made.answer("What are its limitations?", WHOLE, None)
    assert [quote.text for quote in told.quotes][:2] == [
        "Limitations of using Wellkeep:", "• Lids are heavy in winter."
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("title", "typed"),
    [("1 Operating system support", "Which operating systems are supported?"),
     ("1 Supported platforms", "Which platforms are supported?")],
)  # fmt: skip
def test_a_section_on_what_is_supported_tells_it(tmp_path, title, typed):
    said = "Quorble has binaries for Hallan, Orm and Selva alike."
    other = "The keeper says which operating systems and platforms the guild uses at home."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Quorble"), ("h1", title), ("text", said)],
        [("h1", "2 The guild"), ("text", other), ("text", f"Platforms are of oak. {other}")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.quotes[0].text.startswith(said)
    assert answer.sure >= 0.6


def test_a_list_that_names_makers_is_not_sure_for_its_first_line(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "Wells"), ("h1", "1 Quorble"),
         ("text", "Quorble is inspired by two winches developed by the same guild:"),
         ("item", "• the old winch of the mill;"), ("item", "• the new winch of the gate.")],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    assert digester.answer("Who developed Quorble?", WHOLE, None).sure < 0.5


CODED = [
    [("h1", "1 Ropes"),
     ("text", "To mend old ropes, the loft has two mending stitches for them, Long Stitch and "
              "Round Stitch."),
     ("text", "To mend a rope, we call the stitches:"), ("code", "mend(rope, 'long')"),
     ("text", "A rope that is mended is wound, dried and hung in the loft.")],
    [("h1", "2 Lids"), ("text", "To shut a lid, the lid knots are called:"),
     ("code", "knot(lid)"), ("text", "Lids are of zinc and they are kept dry in the loft.")],
]  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "said", "is_sure"),
    [
        ("Which stitches can be used for mending?", "two mending stitches for them", True),
        ("Which knots are there for a lid?", "", False),  # a line of code names none of several
    ],
)
def test_a_line_of_code_is_no_list(tmp_path, typed, said, is_sure):
    make_pdf(tmp_path / "a.pdf", CODED)
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert said in answer.quotes[0].text
    assert (answer.sure > 0.4) is is_sure


@pytest.mark.parametrize(
    ("titles", "is_told"),
    [
        (["Event: 'frost'", "Event: 'flood'", "Event: 'drought'"], True),
        (["Event: 'frost'", "Event: 'flood'"], False),
        (["LidFrost event", "<RopeFlood> event", "Drought event"], True),
        (["Note: 'frost'", "Note: 'flood'", "Note: 'drought'"], False),
    ],
)
def test_headings_with_one_label_say_which_there_are(tmp_path, titles, is_told):
    pages = [
        [("h1", title), ("text", "It is told to the keeper as soon as it is seen from the pier.")]
        for title in titles
    ]
    make_pdf(tmp_path / "a.pdf", [[("title", "The Well Bulletin")], *pages])
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(
        "Which events are there?", WHOLE, None
    )
    assert ([quote.text for quote in answer.quotes] == titles) == is_told


def _described_in(path, title, names):
    """A document whose section describes things, their names in bold before their descriptions."""
    canvas = Canvas(str(path), pagesize=A4)
    canvas.setTitle("The yard of Hallan")
    canvas.setFont("Times-Bold", 24)
    canvas.drawString(72, 810, "The yard of Hallan")
    canvas.setFont("Times-Bold", 16)
    canvas.drawString(72, 780, "1 Wells")
    canvas.setFont("Times-Roman", 11)
    canvas.drawString(72, 758, "Each well has three things to it: a lid, a rope and a drum of oak.")
    canvas.setFont("Times-Bold", 16)
    canvas.drawString(72, 720, title)
    for k, (name, said) in enumerate(names):
        y = 690 - 40 * k
        canvas.setFont("Times-Bold", 11)
        canvas.drawString(72, y, name)
        canvas.setFont("Times-Roman", 11)
        x = 72 + canvas.stringWidth(f"{name} ", "Times-Bold", 11)
        canvas.drawString(
            x, y, f"{said} It is kept dry in the winter, and is turned once a year by"
        )
        canvas.drawString(99, y - 13, "the keeper of the yard, who has done so for many years now.")
    canvas.save()
    return Digester(read_document(path))


LIDS = [("Oak", "It is hard."), ("Zinc lid", "It is thin."), ("Wicker", "It is light.")]


@pytest.mark.parametrize("typed", ["What lids are there?", "Which lids exist?"])
def test_what_a_section_describes_one_by_one_is_what_there_is(tmp_path, typed):
    answer = _described_in(tmp_path / "a.pdf", "2 Lids", LIDS).answer(typed, WHOLE, None)
    assert [quote.text.split()[0] for quote in answer.quotes] == ["Oak", "Zinc", "Wicker"]
    assert answer.sure >= 0.75


@pytest.mark.parametrize(
    "names", [LIDS[:2], [("Note", "Mind it."), ("Note", "See it."), ("Note", "Keep it.")]]
)
def test_two_names_and_labels_that_come_again_are_no_list(tmp_path, names):
    made = _described_in(tmp_path / "a.pdf", "2 Lids", names)
    quotes = made.answer("What lids are there?", WHOLE, None).quotes
    assert [quote.text.split()[0] for quote in quotes] != [name.split()[0] for name, _ in names]
