import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.passages import Sentence, Term
from wide_margin.core.search.analysis import Analyser
from wide_margin.core.search.equals import equal_words, find_equals
from wide_margin.core.search.query import read_terms


def sentence(text, *, kind="body", term=-1):
    return Sentence(text, 0, -1, 0, 0, len(text), kind, term)


@pytest.mark.parametrize(
    ("text", "pair"),
    [
        ("The weir (also known as the dam) is old.", (("weir",), ("dam",))),
        ("A tide pole, also called a staff, is read daily.", (("tide", "pole"), ("staff",))),
        ("Equity is the same as “net worth”.", (("equity",), ("net", "worth"))),
        ("The ebb is sometimes called “falling water”.", (("ebb",), ("falling", "water"))),
    ],
)
def test_what_is_called_otherwise_is_a_pair(text, pair):
    assert find_equals([sentence(text)], (), "en") == (pair,)


@pytest.mark.parametrize(
    "text",
    [
        "The function is also called when the file is closed.",
        "The rule is the same as for boats.",
        "The staff is also read at night.",
    ],
)
def test_what_only_sounds_like_it_is_left(text):
    assert find_equals([sentence(text)], (), "en") == ()


def test_an_entry_that_only_refers_to_another_is_the_same():
    terms = (Term("Net worth", 0, -1), Term("Equity", 2, -1))
    entries = [
        sentence("Net worth See Equity.", kind="entry", term=0),
        sentence("See Chapter.", term=1),  # no term of the document
    ]
    assert find_equals(entries, terms, "en") == ((("net", "worth"), ("equity",)),)


def test_an_index_line_tells_of_two_names():
    listed = [sentence("wash, see swell", kind="listing")]
    assert find_equals(listed, (), "en") == ((("wash",), ("swell",)),)


def test_a_term_counts_only_where_all_its_words_are_asked():
    pairs = ((("tide", "pole"), ("staff",)),)
    analyser = Analyser("en")
    assert equal_words(["the", "tide", "poles"], pairs, analyser) == {"poles": ("staff",)}
    assert equal_words(["the", "tide"], pairs, analyser) == {}
    assert equal_words(["staff"], pairs, analyser) == {"staff": ("tide", "pole")}


def test_a_question_with_the_other_name_finds_the_page(tmp_path):
    path = tmp_path / "equal.pdf"
    filler = "The harbour is wide and quiet in the evening of the year."
    make_pdf(path, [
        [("text", f"The groyne (also known as the jetty) is old. {filler}")],
        [("text", f"{filler} {filler} The office is closed on Sundays.")],
        [("text", f"{filler} The groyne was painted green by Hansen in the spring. {filler}")],
    ])  # fmt: skip
    answer = answer_quoted(read_document(path), "Who painted the jetty?")
    assert "Hansen" in " ".join(quote.text for quote in answer.quotes)


def test_kinds_sorts_and_types_are_one_where_they_are_asked_for(tmp_path):
    make_pdf(tmp_path / "a.pdf", [[("h1", "1 Ropes"), ("text", "There are five kinds of ropes.")]])
    index = read_document(tmp_path / "a.pdf").index
    sorts = read_terms("How many sorts of ropes are there?", index).terms[0]
    assert (sorts.word, bool(sorts.variants)) == ("sorts", True)
