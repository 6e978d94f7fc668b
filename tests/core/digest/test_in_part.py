"""A part of the document: told by what each of its sections says, and asked on a matter."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.section_lines import section_lines

DRUM = "The drum takes up the rope of the winch and keeps it from crossing."
MORE = "The drum of the winch is turned from oak, and the rope of the winch wears a groove in it."
YET_MORE = "The winch with its rope and its drum is greased in spring, drum and rope alike."
PAWL = "The pawl holds the ratchet while the crew rests."
CRANK = "The crank is fitted with two handles of ash."
FRONT = "A winch has three parts, each of which can be taken off by hand."
OTHER = "Barges are loaded from the quay in the morning."


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("part") / "a.pdf"
    make_pdf(path, [
        [("title", "On barges"), ("h1", "1 Loading"), ("text", OTHER), ("text", OTHER)],
        [("h1", "2 Winches"), ("text", FRONT),
         ("h2", "2.1 Drum"), ("text", DRUM), ("text", MORE), ("text", YET_MORE)],
        [("h2", "2.2 Pawl"), ("text", PAWL), ("h2", "2.3 Crank"), ("text", CRANK)],
    ])  # fmt: skip
    return Digester(read_document(path))


def quoted(answer):
    return [quote.text for quote in answer.quotes]


def test_a_part_is_told_by_each_of_its_sections(digester):
    told = quoted(digester.answer("Summarise section 2 in 60 words", WHOLE, None))
    assert told[0] == FRONT
    assert {PAWL, CRANK} < set(told)
    assert any("drum" in text for text in told)


def test_few_sentences_begin_with_how_a_part_is_introduced(digester):
    told = quoted(digester.answer("Summarise section 2 in 2 sentences", WHOLE, None))
    assert len(told) == 2
    assert told[0] == FRONT


def test_a_part_is_never_told_in_more_words_than_asked_for(digester):
    for n in (5, 10, 15, 30, 45):
        told = digester.gist(
            digester.answer("What is section 2 about?", WHOLE, None).reach, n_words=n
        )
        assert sum(len(line.text.split()) for line in told) <= n


@pytest.mark.parametrize("typed", [
    "Summarise section 2.2 Pawl", 'Summarise the section "2.2 Pawl"', "What is 2.2 Pawl about?",
    "Give me the main points of “2.2 Pawl”.", "Sum up section 2.2: Pawl", "What does 2.2 Pawl say?",
])  # fmt: skip
def test_a_part_may_be_called_by_number_and_title(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.reach.name == "2.2 Pawl"
    assert quoted(answer) == [PAWL]


@pytest.mark.parametrize("typed", [
    "What does section 2 say about the crew?", "What is said about the crew in section 2?",
    "What is written on the crew in 2.2 Pawl?", "Does section 2 mention the crew?",
    "Is the crew mentioned in section 2.2?", "What does 2 Winches tell us about the crew?",
])  # fmt: skip
def test_a_part_is_asked_on_a_matter(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert quoted(answer) == [PAWL]
    assert answer.sure >= 0.8


@pytest.mark.parametrize(
    ("typed", "said"),
    [("Was steht in Kapitel 2 über Seile?", "Die Seile sind aus Hanf."),
     ("Was wird in Kapitel 1 über den Deckel gesagt?", "Der Deckel ist aus Zink."),
     ("Was steht in Kapitel 1 über Seile?", "")],
)  # fmt: skip
def test_a_part_with_a_roman_number_is_asked_in_another_language(tmp_path, typed, said):
    filler = ("text", "Der Wärter der Insel schreibt jeden Abend auf, wie hoch das Wasser steht.")
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "I. Brunnen"), filler, ("h2", "1. Deckel"), ("text", "Der Deckel ist aus Zink."),
         ("h2", "2. Kurbel"), filler],
        [("h1", "II. Winden"), filler, ("h2", "1. Trommel"), ("text", "Die Seile sind aus Hanf."),
         ("h2", "2. Sperre"), filler],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert answer.reach.name == ("II. Winden" if "2" in typed else "I. Brunnen")
    assert quoted(answer) == ([said] if said else [])


@pytest.mark.parametrize("typed", [
    "What does section 1 say about the crew?", "Is the crew mentioned in 2.3 Crank?",
])  # fmt: skip
def test_what_a_part_does_not_mention_is_told_so(digester, typed):
    answer = digester.answer(typed, WHOLE, None)
    assert answer.declined
    assert "“the crew” is not mentioned in “" in answer.reason
    assert answer.reason.endswith("”, but on p. 3.")


def test_a_question_stands_for_no_part(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("title", "On barges"), ("h1", "1 Winches"), ("h2", "1.1 Drum"), ("text", DRUM),
         ("h2", "1.2 Pawl"), ("text", "What does the pawl of the winch hold, and when?"),
         ("text", PAWL), ("h2", "1.3 Crank"), ("text", CRANK)],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer("Summarise section 1", WHOLE, None)
    assert quoted(answer) == [DRUM, PAWL, CRANK]


HEAVY = [
    "The drum of the quorble winch is turned from seasoned oak by the wheelwright of Aasvik.",
    "Ratchets of the quorble winch bite into brass teeth that the foundry of Aasvik casts.",
    "Quorble winches carry hemp ropes whose strands the ropewalk of Aasvik twists in autumn.",
    "Grease of the quorble winch is boiled from tallow, lanolin and graphite at the foundry.",
]
PLAIN = (FRONT, PAWL, CRANK)


def part_of_four(path):
    """A part of which only one section has weighty words."""
    make_pdf(path, [
        [("title", "The quorble winch"), ("h1", "1 Barges"), ("text", OTHER)],
        [("h1", "2 Winches"), ("text", PLAIN[0]), ("h2", "2.1 Quorble"),
         *[("text", said) for said in HEAVY]],
        [("h2", "2.2 Rest"), ("text", PLAIN[1]), ("h2", "2.3 Crank"), ("text", PLAIN[2])],
    ])  # fmt: skip
    return Digester(read_document(path))


def test_sections_with_plain_words_are_told_as_well(tmp_path):
    answer = part_of_four(tmp_path / "a.pdf").answer("Summarise section 2 in 60 words", WHOLE, None)
    told = quoted(answer)
    assert set(PLAIN) < set(told)
    assert any(said in told for said in HEAVY)


def test_where_not_all_can_be_told_its_introduction_is(tmp_path):
    digester = part_of_four(tmp_path / "a.pdf")
    reach = digester.answer("Summarise section 2", WHOLE, None).reach
    assert digester.gist(reach, n_words=20)[0].text == PLAIN[0]


def test_a_part_is_told_in_no_more_than_it_takes(tmp_path):
    heads = [*HEAVY, "Handles of the quorble winch are bent from ash that the wheelwright steams."]
    parts = zip(heads, (DRUM, MORE, YET_MORE, PAWL, CRANK), strict=True)
    make_pdf(tmp_path / "a.pdf", [
        [("title", "The quorble winch"), ("h1", "1 Barges"), ("text", OTHER)],
        [("h1", "2 Winches"),
         *[block for k, (said, more) in enumerate(parts)
           for block in (("h2", f"2.{k + 1} Of part {k}"), ("text", said), ("text", more))]],
    ])  # fmt: skip
    digester = Digester(read_document(tmp_path / "a.pdf"))
    answer = digester.answer("Summarise section 2", WHOLE, None)
    assert quoted(answer) == heads
    assert len(digester.gist(answer.reach, n_words=130)) > len(heads)


def test_a_section_is_not_told_by_what_sends_the_reader_elsewhere(tmp_path):
    sends = "Check https://wells.example/pawls for what the guild of Aasvik writes on every pawl."
    make_pdf(tmp_path / "a.pdf", [
        [("title", "On barges"), ("h1", "1 Loading"), ("text", OTHER)],
        [("h1", "2 Pawl"), ("text", sends), ("text", PAWL), ("h1", "3 Crank"), ("text", CRANK)],
    ])  # fmt: skip
    document = read_document(tmp_path / "a.pdf")
    lines = section_lines(document, Digester(document).scored)
    assert [line.line.text for line in lines if line.line][-2:] == [PAWL, CRANK]
