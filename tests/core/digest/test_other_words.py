"""Asked how something is done in other words than the title of the section that tells it."""

import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import WHOLE
from wide_margin.core.digest import Digester
from wide_margin.core.digest.named import rows_asked

LIKE = (
    "A keeper who takes a rope away from the list of ropes notes why. Removing is work, and the"
    " ropes that he removes are many. Each rope has a place, and how it is kept is told below."
)
HOW = "Mark it in the book and carry it to the loft."


def asked(tmp_path, title, typed):
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Wells"), ("h1", "1 Keepers"), ("text", LIKE)],
         [("h1", f"2 {title}"), ("text", HOW), ("text", "The loft is dry.")],
         [("h1", "3 Lists"), ("text", LIKE)]],
    )  # fmt: skip
    return Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("title", "typed"),
    [("Deleting ropes", "How do I remove a rope?"),
     ("How to Delete Ropes", "How can I remove ropes?"),
     ("Delete a rope", "How do I get rid of a rope?"),
     ("Removing ropes", "How to take away a rope?"),
     ("Adding a rope", "How do I create a new rope?")],
)  # fmt: skip
def test_a_section_called_by_another_verb_tells_how(tmp_path, title, typed):
    answer = asked(tmp_path, title, typed)
    assert HOW in answer.quotes[0].text
    assert 0.4 < answer.sure <= 0.5


@pytest.mark.parametrize(
    ("title", "typed"),
    [("Adding ropes", "How do I remove a rope?"), ("Deleting lids", "How do I remove a rope?"),
     ("Rope deletes", "How do I remove a rope?"),
     ("Deleting lists of ropes", "How do I remove ropes?")],
)  # fmt: skip
def test_what_tells_of_something_else_does_not(tmp_path, title, typed):
    answer = asked(tmp_path, title, typed)
    assert not answer.quotes or HOW not in answer.quotes[0].text


def told_on_path(tmp_path, typed):
    likes = "Oak is a wood. The winding of ropes on lids of oak is told, and so is that of elm."
    make_pdf(
        tmp_path / "a.pdf",
        [[("title", "Wells"), ("h1", "1 Keepers"), ("text", likes)],
         [("h1", "2 Winding ropes"), ("text", "Ropes are wound on drums."),
          ("h2", "2.1 Drums of oak"), ("text", "Hold the end and turn the crank to the left."),
          ("h2", "2.2 Drums of elm"), ("text", "Let two people turn it to the right.")]],
    )  # fmt: skip
    return Digester(read_document(tmp_path / "a.pdf")).answer(typed, WHOLE, None)


@pytest.mark.parametrize(
    ("typed", "how"),
    [("How do I wind ropes on drums of oak?", "to the left"),
     ("How can I wind a rope on a drum of elm?", "to the right")],
)  # fmt: skip
def test_a_section_under_the_one_that_is_called_so_tells_how(tmp_path, typed, how):
    answer = told_on_path(tmp_path, typed)
    assert how in answer.quotes[0].text


def test_what_no_title_on_the_path_has_is_not_told_by_it(tmp_path):
    answer = told_on_path(tmp_path, "How do I paint ropes on drums of oak?")
    assert not any("to the left" in quote.text and answer.sure == 0.5 for quote in answer.quotes)


@pytest.mark.parametrize(
    ("typed", "is_told"),
    [("How do I configure the winch?", True), ("How can I import ropes?", True),
     ("How do I configure a rope?", False)],
)  # fmt: skip
def test_a_section_named_with_a_noun_tells_how_it_is_done(tmp_path, typed, is_told):
    make_pdf(tmp_path / "a.pdf", [
        [("h1", "1 Winch configuration"), ("text", "Turn the screw under the drum by hand.")],
        [("h1", "2 Rope import"), ("text", "Turn the crank until the hook is seen.")],
        [("h1", "3 Ropes"), ("text", "A rope is worn when it is old.")],
    ])  # fmt: skip
    rows, _, _ = rows_asked(read_document(tmp_path / "a.pdf"), typed)
    assert bool(rows) == is_told
