"""A talk printed as slides is told by its title, aim and sections; addresses tell nothing."""

import pytest
from reportlab.pdfgen.canvas import Canvas

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, Reach
from wide_margin.core.digest import Digester
from wide_margin.core.digest.on_slides import is_talk
from wide_margin.core.digest.overview import BEGUN, OF_TALK

WIDE, HIGH = (360.0, 270.0), (270.0, 360.0)
SLIDES = (
    ("About this talk", ("{aim}", "Ask at any time", "Coffee at ten")),
    ("Outline", ("Digging wells", "Lining them", "Lids")),
    ("Digging wells (1/2)", ("Ten metres a week", "Three men with a winch", "Mind the rain.")),
    ("Digging wells (2/2)", ("Stone after sand", "No digging in frost", "Pumps hired by the day")),
    ("Lining them", ("Brick or ring", "Ring is cheaper", "Mortar of lime")),
    ("Lids", ("Oak lasts for ten years", "Iron for thirty", "Please lock it.")),
    ("Thank you", ("Any questions", "keeper at the harbour")),
)


def talk(path, aim="Goal: show you how a village gets its water", size=WIDE, stop=""):
    canvas = Canvas(str(path), pagesize=size, invariant=1)

    def slide(lines):
        for left, top, points, text in lines:
            canvas.setFont("Helvetica", points)
            canvas.drawString(left, size[1] - top, text)
        canvas.showPage()

    slide([(60, 120, 20, "Wells of the island"), (100, 150, 11, "A talk to keepers")])
    for title, said in SLIDES:
        points = [(40, 70 + 22 * k, 11, text.format(aim=aim) + stop) for k, text in enumerate(said)]
        slide([(20, 30, 14, title), *points])
    canvas.save()
    return read_document(path)


@pytest.mark.parametrize(
    "aim",
    ["Goal: show you how a village gets its water", "Ziel: zeigen, wie ein Dorf Wasser bekommt",
     "Objectif : montrer comment un village a son eau"],
)  # fmt: skip
def test_a_talk_is_told_by_its_title_its_aim_and_its_sections(tmp_path, aim):
    digester = Digester(talk(tmp_path / "a.pdf", aim))
    answer = digester.answer("What is this about?", WHOLE, None)
    said = [quote.text for quote in answer.quotes]
    assert said[:2] == ["Wells of the island", aim]
    assert said[2:] == ["About this talk", "Digging wells (1/2)", "Lining them", "Lids"]
    assert [line.text for line in digester.gist(n_sentences=2)] == said[:2]
    assert sum(len(line.text.split()) for line in digester.gist(n_words=14)) <= 14


def test_its_aim_is_quoted_without_its_bullet(tmp_path):
    digester = Digester(talk(tmp_path / "a.pdf", "• Goal: show you how a village gets its water"))
    assert [line.text for line in digester.gist()][1].startswith("Goal: show you")


def test_a_part_is_told_by_its_slides_and_a_long_talk_as_a_short_one(tmp_path, monkeypatch):
    document = talk(tmp_path / "a.pdf")
    digester = Digester(document)
    reach = Reach("pages", first_page=3, last_page=6)
    said = [line.text for line in digester.gist(reach, n_words=60)]
    assert said == ["Digging wells (1/2)", "Lining them", "Lids"]
    assert digester.gist(Reach("pages", first_page=6, last_page=6), n_words=60) == ()
    whole = digester.gist(n_words=60)
    monkeypatch.setattr("wide_margin.core.digest.digest.LONG", 1)
    assert Digester(document).gist(n_words=60) == whole


@pytest.mark.parametrize(
    ("said", "is_aim"),
    [("Le but est de montrer un puits", True), ("But is it fast when frozen", False)],
)
def test_an_aim_is_told_from_an_objection(tmp_path, said, is_aim):
    lines = [line.text for line in Digester(talk(tmp_path / "a.pdf", said)).gist()]
    assert (said in lines) is is_aim


def test_one_without_an_aim_is_told_by_what_is_left(tmp_path):
    answer = Digester(talk(tmp_path / "a.pdf", "Welcome all")).answer(
        "What is it about?", WHOLE, None
    )
    assert [quote.text for quote in answer.quotes][1] == "About this talk"
    assert answer.sure == OF_TALK


def test_a_card_that_is_laid_out_like_slides_is_hardly_told(tmp_path):
    canvas = Canvas(str(tmp_path / "a.pdf"), pagesize=WIDE, invariant=1)
    for k in range(6):
        canvas.setFont("Helvetica", 11)
        for row, place in enumerate(("drum", "rope", "lid", "gate")):
            said = f"C-{place[k % 3]} wind {k} turns of the {place}, and with a number so many"
            canvas.drawString(20, 200 - 22 * row, said)
        canvas.showPage()
    canvas.save()
    document = read_document(tmp_path / "a.pdf")
    assert is_talk(document)
    answer = Digester(document).answer("What is this about?", WHOLE, None)
    assert answer.quotes
    assert answer.sure == BEGUN


def test_pages_of_text_are_no_talk_however_wide_they_are(tmp_path):
    assert is_talk(talk(tmp_path / "a.pdf"))
    assert not is_talk(talk(tmp_path / "b.pdf", size=HIGH))
    said = "The keeper of a well looks after its lid and its rope on every day of the year. " * 9
    canvas = Canvas(str(tmp_path / "c.pdf"), pagesize=WIDE, invariant=1)
    for _ in range(6):
        canvas.setFont("Helvetica", 6)
        for k in range(14):
            canvas.drawString(20, 250 - 9 * k, said[81 * (k % 9) : 81 * (k % 9 + 1)])
        canvas.showPage()
    canvas.save()
    assert not is_talk(read_document(tmp_path / "c.pdf"))


def test_an_address_says_nothing_of_what_a_document_is_about(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("text", "https://wells.example/licences")],
                                  [("text", "<keeper@wells.example>")]])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("What is this about?", WHOLE, None)
    assert answer.declined
    make_pdf(tmp_path / "b.pdf", [[("text", "Lids and ropes")], [("text", "Oak, hemp")]])
    answer = Digester(read_document(tmp_path / "b.pdf")).answer("What is this about?", WHOLE, None)
    assert answer.is_perhaps
