"""What a quoted sentence leads in to is quoted after it: a command, the items of a list."""

from dataclasses import replace

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE, read_question
from wide_margin.core.answers.lists import MAX_LIST_WORDS, items_after, leads_in
from wide_margin.core.answers.quoting import quote_rows
from wide_margin.core.digest import Digester
from wide_margin.core.digest.led_in import with_what_follows

QUESTION = read_question("How is the rope wound?")

FILLING = ("text", "Gates are of oak. The keeper paints them in the spring. Lids are of zinc.")


def asked(tmp_path, page, typed):
    make_pdf(tmp_path / "a.pdf", [[("title", "Wells"), FILLING], [*page, FILLING]])
    return Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    "lead",
    ["Quorble is a winch of oak offering the following:", "Quorble is a winch of oak made of"],
)
def test_a_list_comes_with_what_leads_in_to_it(tmp_path, lead):
    page = [("h1", "1 Quorble"), ("text", lead), ("item", "• ropes of hemp;"),
            ("item", "• drums of iron.")]  # fmt: skip
    quotes = asked(tmp_path, page, "What is Quorble?").quotes
    assert [quote.text for quote in quotes].count("• ropes of hemp;") == 1
    assert any("drums of iron" in quote.text for quote in quotes)


@pytest.mark.parametrize(
    ("said", "n_quotes"),
    [("The rope is wound by typing", 2), ("The rope is wound by the keeper.", 1)],
)
def test_code_is_led_in_to_by_a_sentence_that_breaks_off(tmp_path, said, n_quotes):
    page = [("text", said), ("code", "winch --renew"), ("code", "winch --all")]
    make_pdf(
        tmp_path / "a.pdf", [[("title", "Wells"), FILLING], [("h1", "1 Ropes"), *page, FILLING]]
    )
    document = read_document(tmp_path / "a.pdf")
    row = next(k for k, s in enumerate(document.text.sentences) if s.text == said)
    answer = Digester(document).answer("How is the rope wound?", WHOLE, None)
    quoted = replace(answer, kind="how to", quotes=(quote_rows(document, QUESTION, row, row + 1),))
    assert len(with_what_follows(document, quoted).quotes) == n_quotes


@pytest.mark.parametrize(("kind", "n_quotes"), [("how to", 2), ("who", 1)])
def test_nothing_is_led_in_to_where_one_person_is_asked_for(tmp_path, kind, n_quotes):
    page = [("text", "The rope is wound by the keeper like this:"), ("text", "winch --renew")]
    make_pdf(tmp_path / "a.pdf", [[("title", "Wells"), *page, FILLING]])
    document = read_document(tmp_path / "a.pdf")
    answer = Digester(document).answer("How is the rope wound?", WHOLE, None)
    row = next(k for k, s in enumerate(document.text.sentences) if s.text == page[0][1])
    quoted = replace(answer, kind=kind, quotes=(quote_rows(document, QUESTION, row, row + 1),))
    assert len(with_what_follows(document, quoted).quotes) == n_quotes


def test_an_answer_in_one_sentence_stays_one(tmp_path):
    page = [("h1", "1 Renewing the rope"),
            ("text", "To renew the rope of a working winch, use the winch program:"),
            ("text", "winch --renew rope.bin")]  # fmt: skip
    answer = asked(tmp_path, page, "How do I renew the rope? In one sentence.")
    assert len(answer.quotes) == 1


@pytest.mark.parametrize(
    ("text", "leads"),
    [("It depends on the parts listed below.", True), ("Proceed as follows.", True),
     ("It has these parts:", True), ("The lid is below.", False),
     ("It is what follows it.", False)],
)  # fmt: skip
def test_what_leads_in_to_something(text, leads):
    assert leads_in(text) is leads


@pytest.mark.parametrize(("n", "is_whole"), [(4, True), (9, False)])
def test_items_with_a_few_words_more_than_are_quoted_are_not_cut(tmp_path, n, is_whole):
    items = [("item", f"• {k} turns of the drum: a rope of {k} ells in dry summers, not in wet")
             for k in range(n)]  # fmt: skip
    make_pdf(tmp_path / "a.pdf", [[("title", "Wells"), ("text", "It depends on turns:"), *items]])
    document = read_document(tmp_path / "a.pdf")
    row = next(k for k, s in enumerate(document.text.sentences) if s.text.endswith("turns:"))
    told = items_after(document, row, set(), MAX_LIST_WORDS)
    assert ([quote.text for quote in told] == [t for _, t in items]) is is_whole


def test_a_list_far_behind_what_is_led_in_to_is_another(tmp_path):
    rest = [("text", f"The {part} of the winch is greased.") for part in ("drum", "lid", "rope")]
    page = [
        ("title", "Wells"),
        ("text", "A rope must be of the form:"),
        ("code", "(rope 12)"),
        *rest,
        ("item", "• an eye of brass"),
        ("item", "• a wheel of oak"),
    ]
    make_pdf(tmp_path / "a.pdf", [page])
    document = read_document(tmp_path / "a.pdf")
    row = next(k for k, s in enumerate(document.text.sentences) if s.text.endswith("form:"))
    assert items_after(document, row, set(), MAX_LIST_WORDS) == []


def test_an_item_leads_in_to_what_stands_after_it(tmp_path):
    page = [("h1", "1 Thanks"), ("item", "(a) Name the keeper in the book."),
            ("item", "(b) Name the book. The appropriate citation is:"),
            ("code", "@book{wells, year=2016}")]  # fmt: skip
    quotes = asked(tmp_path, page, "How should I cite this?").quotes
    assert [quote.text for quote in quotes][1:] == ["@book{wells, year=2016}"]
