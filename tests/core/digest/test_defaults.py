"""What the default of something is stands in its description."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester

FILLER = (
    "The winch is wound by hand in calm weather. Its drum is greased in spring, and nobody has "
    "ever asked for more than that. What it is set to is written in a file beside the door."
)


def told(name, text):
    return ("code", name), ("said", text)


@pytest.fixture(scope="module")
def digester(tmp_path_factory):
    path = tmp_path_factory.mktemp("defaults") / "winch.pdf"
    make_pdf(path, [
        [("h1", "1 Winding"), ("text", FILLER),
         *told("rope length number", "Length that is let out at once. Default: 40 fathoms."),
         *told("min rope length number", "The least length that is let out. Default: 3 fathoms."),
         *told("idle_limit", "Time after which the drum is locked. The default is two hours."),
         *told("drum_lamp", "Whether the lamp on the drum burns. This is the default handler."),
         *told("brake wait", "Seconds before the brake is put on, 9 by default.")],
        [("h1", "2 Letting out"), ("text", FILLER),
         *told("brake wait", "Seconds before the brake is let off again. Defaults to 5.")],
    ])  # fmt: skip
    return Digester(read_document(path))


@pytest.mark.parametrize(
    ("asked", "said"),
    [
        ("What is the default rope length?", "40 fathoms"),
        ("What is the default value of the rope length option?", "40 fathoms"),
        ("What's the default min rope length?", "3 fathoms"),
        ("What does idle_limit default to?", "two hours"),
        ("What is the standard rope length?", "40 fathoms"),
        ("What is the factory value of idle_limit?", "two hours"),
        ("What is the default brake wait for winding?", "9 by default"),
        ("What is the default brake wait for letting out?", "Defaults to 5"),
    ],
)
def test_the_default_of_a_thing_stands_in_its_description(digester, asked, said):
    answer = digester.answer(asked, WHOLE, None)
    assert said in answer.quotes[0].text
    assert len(answer.quotes) == 1
    assert answer.sure >= 0.75


def test_an_item_may_begin_with_what_it_describes(tmp_path):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winding"), ("text", FILLER), ("text", "The winch takes:"),
         ("item", "• turns: how often the drum turns. Each turn is two feet. The default is 7."),
         ("item", "• lamps: how many lamps burn. It has no default turns.")],
    ])  # fmt: skip
    asked = "What is the default turns?"
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(asked, WHOLE, None)
    assert answer.quotes[0].text.startswith("• turns: how often")
    assert answer.quotes[0].text.endswith("The default is 7.")


def test_a_default_of_several_things_of_one_name_is_less_sure(digester):
    answer = digester.answer("What is the default brake wait?", WHOLE, None)
    assert "by default" in answer.quotes[0].text
    assert answer.sure <= 0.5


def test_where_a_description_tells_no_default_nothing_is_sure(digester):
    answer = digester.answer("What is the default drum_lamp?", WHOLE, None)
    assert answer.sure <= 0.5


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("What is the default of -d?", "-d depth of the well, default 20"),
        ("What is the default of -D?", "-D depth of the drum, default 7"),
        ("What is the default of DRUM_TURNS?", "The default value is 4."),
        ("What is the default of ROPE_LENGTH?", "The default value is 9."),
    ],
)
def test_the_default_of_an_option_and_of_a_setting(tmp_path, typed, said):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winding"), ("text", FILLER), ("code", "-D depth of the drum, default 7"),
         ("code", "-d depth of the well, default 20"), ("text", "Use -q to set default depths.")],
        [("h1", "2 Settings"), ("text", "Some settings may be made:"),
         ("item", "\u2022 ROPE_LENGTH tells how much rope is let out. The default value is 9."),
         ("item", "\u2022 DRUM_TURNS tells how often the drum turns. The default value is 4.")],
    ])  # fmt: skip
    answer = Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)
    assert len(answer.quotes) == 1
    assert answer.quotes[0].text.endswith(said)
    assert answer.sure >= 0.6
