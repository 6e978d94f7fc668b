import pytest

from tests.making import make_pdf, read_document
from wide_margin.core.answers import KINDS, answer_quoted, kind_of_document, worth_asking

NAMES = ("Owners", "Keepers of boats", "Fees", "Nets", "Gulls", "Fines and appeals", "Wrecks")


@pytest.fixture(scope="module")
def offered(handbook):
    return worth_asking(handbook)


def test_six_questions_of_four_shapes_are_offered(offered):
    assert len(offered) == 6
    assert len({worth.shape for worth in offered}) >= 4
    assert len({worth.question for worth in offered}) == 6


def test_each_was_answered_beforehand(handbook, offered):
    for worth in offered:
        assert not worth.answer.declined
        assert answer_quoted(handbook, worth.question) == worth.answer


def test_they_are_spoken_in_the_documents_own_words(handbook, offered):
    known = handbook.index.term_ids
    terms = handbook.index.analyser.terms
    for worth in offered:
        own = [term in known for term in terms(worth.question)]
        assert sum(own) >= 0.7 * len(own)


@pytest.mark.parametrize("kind", KINDS)
def test_any_kind_can_be_chosen(handbook, kind):
    assert worth_asking(handbook, kind)


def test_the_handbook_is_a_manual(handbook):
    assert kind_of_document(handbook) == "manual"


@pytest.mark.parametrize(
    ("titles", "text", "kind"),
    [
        ([f"Article {k} {name}" for k, name in enumerate(NAMES, 1)],
         "The owner shall pay. The keeper shall count. Nobody shall leave.", "statute"),
        (["Act I", "Act II", "Act III"], "A street. Enter two boys with a ladder.", "script"),
        (["Executive Summary", "Findings", "Costs"], "Costs rose in every district.", "report"),
        (["1 Hills", "2 Rivers", "3 Lakes"], "Hills are old. Rivers are young.", "other"),
    ],
)  # fmt: skip
def test_the_kind_is_found_from_the_structure(tmp_path, titles, text, kind):
    path = tmp_path / "kind.pdf"
    make_pdf(path, [[("h1", title), ("text", text)] for title in titles])
    assert kind_of_document(read_document(path)) == kind


def test_a_document_without_sentences_offers_nothing(tmp_path):
    path = tmp_path / "empty.pdf"
    make_pdf(path, [[("text", "Blue.")], []])
    assert worth_asking(read_document(path)) == []
