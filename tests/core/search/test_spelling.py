import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import answer_quoted
from wide_margin.core.search.analysis import Analyser, has_two_spellings, spelled_otherwise
from wide_margin.core.search.query import read_terms
from wide_margin.core.search.spelling import is_unheard_of, meant_by
from wide_margin.core.search.vectors import EVERYDAY, said_rarely

FILLER = "The harbour is wide and quiet in the evening, and few people cross it after dark."


@pytest.fixture(scope="module")
def document(tmp_path_factory):
    path = tmp_path_factory.mktemp("spelling") / "boats.pdf"
    make_pdf(path, [
        [("text", f"Every boat carries a lantern, which is filled on Mondays. {FILLER}")],
        [("text", f"{FILLER} Hansen built the pier in two summers. {FILLER}")],
    ])  # fmt: skip
    return read_document(path)


@pytest.mark.parametrize("word", ["unwind_protect", "clsoing", "ode23", "qwertz"])
def test_words_that_nobody_says_are_unheard_of(word):
    assert is_unheard_of(word)


@pytest.mark.parametrize("word", ["harbour", "timepiece", "scoreboards", "closing"])
def test_words_and_two_of_them_joined_are_known(word):
    assert not is_unheard_of(word)


@pytest.mark.parametrize("word", ["lantren", "lanternn", "lanern", "lanturn"])
def test_one_letter_off_is_misspelt(word):
    assert meant_by(word, ["boat", "lantern", "pier"]) == ["lantern"]


@pytest.mark.parametrize("word", ["lantrne", "mantern", "ode23x", "lant"])
def test_what_is_further_off_is_another_word(word):
    assert meant_by(word, ["boat", "lantern", "ode23"]) == []


def test_a_misspelt_question_is_answered(document):
    answer = answer_quoted(document, "When is the lantren of a boat filled?")
    assert "Mondays" in answer.quotes[0].text


def test_a_name_is_never_taken_for_another(document):
    terms = {
        term.word: term for term in read_terms("Did Hensen build the pier?", document.index).terms
    }
    assert not terms["hensen"].is_exact
    assert answer_quoted(document, "In how many summers did Hensen build the pier?").declined
    assert not answer_quoted(document, "In how many summers did Hansen build the pier?").declined


def test_a_question_on_something_unheard_of_is_declined(document):
    assert answer_quoted(document, "When is the frobnicator of a boat filled?").declined


def test_parts_of_a_name_count_only_together(document):
    terms = {t.word: t for t in read_terms("boat_lantern boat_frobnicator", document.index).terms}
    assert terms["boat_lantern"].is_exact
    assert not terms["boat_frobnicator"].is_exact


def test_words_of_everyday_speech_weigh_less():
    assert said_rarely("good") == EVERYDAY
    assert EVERYDAY < said_rarely("bigger") < 1
    assert said_rarely("counterweight") == said_rarely("qwertz") == 1


@pytest.mark.parametrize(
    ("british", "american"),
    [("colours", "colors"), ("licence", "license"), ("centres", "centers"), ("metre", "meter"),
     ("kilometres", "kilometers"), ("organises", "organizes"), ("travelling", "traveling"),
     ("analysed", "analyzed"), ("favoured", "favored"), ("programmes", "programs")],
)  # fmt: skip
def test_british_and_american_spellings_are_one_word(british, american):
    analyser = Analyser("en")
    assert analyser.terms_of(british) == analyser.terms_of(american)
    assert spelled_otherwise(british, american)
    assert has_two_spellings(british)
    assert has_two_spellings(american)


@pytest.mark.parametrize("word", ["hours", "four", "raise", "flour", "analyses"])
def test_what_only_ends_as_british_words_do_is_left_alone(word):
    assert Analyser("en").terms_of(word)[0] in word
    assert not spelled_otherwise(word, word)


@pytest.mark.parametrize("word", ["bucket", "buckets", "rope", "winch"])
def test_most_words_are_spelled_in_one_way(word):
    assert not has_two_spellings(word)
